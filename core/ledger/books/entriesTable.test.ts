import { EntriesTableError, entriesIn, EntryColumn, guessColumns, readEntriesTable } from './entriesTable';

const read = (text: string, given: { turned?: boolean; columns?: (EntryColumn | null)[] } = {}) => {
  const table = readEntriesTable(text);
  return entriesIn(table, given.columns ?? guessColumns(table), {
    country: 'GB',
    currency: 'GBP',
    turned: given.turned ?? false,
    categoryOf: (name) => (name === 'Yarn' ? 'yarn' : null),
  });
};

it('reads a list with net, tax and total, its days and its categories', () => {
  const [first, second] = read(
    'Date,Supplier,Invoice no,Description,Category,Net,VAT,Total,Due date\n13/02/2026,Saltgate Yarns,S-1,Warp,Yarn,100.00,20.00,120.00,13/03/2026\n02/03/2026,Council,,Rates,Rates,80.00,0.00,80.00,',
  );
  expect(first).toEqual({
    ...{ day: '2026-02-13', due: '2026-03-13', who: 'Saltgate Yarns', what: 'Warp', number: 'S-1' },
    ...{ currency: 'GBP', units: 12_000 },
    parts: [{ categoryId: 'yarn', taxCode: 'GB-S', rate: 20, net: 10_000, tax: 2_000 }],
  });
  expect(second).toMatchObject({
    due: null,
    parts: [{ categoryId: null, taxCode: 'GB-N', rate: null, net: 8_000, tax: 0 }],
  });
});

it('reads another country’s list by semicolons and commas, with a column each for what goes out and comes in', () => {
  const [first, second] = read(
    'Belegdatum;Lieferant;Buchungstext;Ausgabe;Einnahme;Währung\n31.12.2025;Färberei Grünau;Indigo;1.234,50;;EUR\n02.01.2026;Markt;Verkauf;;99,00;EUR',
  );
  expect(first).toMatchObject({ day: '2025-12-31', who: 'Färberei Grünau', units: 123_450, currency: 'EUR' });
  expect(second).toMatchObject({ day: '2026-01-02', units: -9_900 });
});

it('takes tax out of a total by the rate that stands beside it, and turns what is to be received', () => {
  const [sale] = read('Day\tCustomer\tGross\tRate\n2026-04-01\tCorn Hall\t60.00\t20%', { turned: true });
  expect(sale).toMatchObject({ units: -6_000, parts: [{ net: -5_000, tax: -1_000, rate: 20, taxCode: 'GB-S' }] });
});

it('knows a column of days by its head, though few of its cells are days', () =>
  expect(
    guessColumns(readEntriesTable('Date,Who,Total\nlater,Avery,1.00\nsoon,Avery,1.00\n2026-02-01,Avery,1.00')),
  ).toEqual(['day', 'who', 'total']));

it('takes columns as somebody says', () => {
  const [entry] = read('a,b,c\n2026-04-01,7.50,Avery', { columns: ['day', 'total', 'who'] });
  expect(entry).toMatchObject({ day: '2026-04-01', units: 750, who: 'Avery' });
});

it.each([
  ['31/31/2026,Avery,1.00,,,', '“31/31/2026” is no day'],
  [',Avery,1.00,,,', 'it has no day'],
  ['01/02/2026,,1.00,,,', 'it says nothing of whom it is'],
  ['01/02/2026,Avery,,,,', 'it has no amount'],
  ['01/02/2026,Avery,10.00,5.00,1.00,', 'net and tax do not come to its total'],
  ['01/02/2026,Avery,10.00,,,QUID', '“QUID” is no currency'],
])('says why a row is no entry: %s', (row, problem) => {
  const columns: EntryColumn[] = ['day', 'who', 'total', 'net', 'tax', 'currency'];
  expect(read(`Date,Who,Total,Net,Tax,Currency\n${row}`, { columns })).toEqual([{ problem }]);
});

it.each(['', 'one column\nonly', 'Date,Who,Total'])('says that a file is no list: %j', (text) =>
  expect(() => readEntriesTable(text)).toThrow(EntriesTableError),
);
