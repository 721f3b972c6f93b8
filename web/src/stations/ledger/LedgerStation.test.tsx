import { act, screen, waitFor, within } from '@testing-library/react';
import { endpoints } from '@crow/contract/endpoints';
import { BookedLine, Books, BookTie, Entry, Ledger, StatementRead } from '@crow/contract/ledger';
import { EntriesRead } from '@crow/contract/ledgerLines';
import { SHOWN } from '../../testing/missing';
import { document as paper, newId, settings, summary } from '../../testing/papers';
import { notice, show, StandInServer } from '../../testing/window';
import LedgerStation from './LedgerStation';

// The tests' window lays nothing out; rows are drawn for as much as is seen.
Object.defineProperties(Element.prototype, {
  clientWidth: { get: () => SHOWN.width },
  clientHeight: { get: () => SHOWN.height },
});
Object.defineProperties(HTMLElement.prototype, {
  offsetWidth: { get: () => SHOWN.width },
  offsetHeight: { get: () => SHOWN.height },
});

const [MATERIALS, SALES, BANK, PAPER] = [newId(), newId(), newId(), newId()];
const BOOKS: Books = {
  country: 'GB',
  byThemselves: true,
  holder: '',
  closedUntil: null,
  lineRules: [],
  folders: [],
  categories: [
    { id: MATERIALS, name: 'Materials', side: 'cost', retired: false },
    { id: SALES, name: 'Sales', side: 'income', retired: false },
  ],
  accounts: [
    { id: BANK, name: 'Bank account', kind: 'bank', currency: 'GBP', number: '', retired: false, opening: null },
  ],
};
let serial = 0;
const entry = (given: Partial<Entry> = {}): Entry => ({
  id: newId(),
  serial: ++serial,
  revision: 1,
  day: '2026-10-02',
  due: null,
  who: 'Saltgate Yarns',
  what: '',
  number: 'S-118',
  currency: 'GBP',
  units: 12_000,
  accountId: null,
  ownUnits: null,
  parts: [{ categoryId: MATERIALS, taxCode: 'GB-S', rate: 20, net: 10_000, tax: 2_000 }],
  papers: [],
  paid: 0,
  worth: null,
  checkedAt: null,
  ...given,
});
const line = (given: Partial<BookedLine> = {}): BookedLine => ({
  id: newId(),
  accountId: BANK,
  day: '2026-10-09',
  units: -12_000,
  currency: 'GBP',
  who: 'SALTGATE YARNS',
  text: 'S118',
  balance: null,
  ...given,
});
const tie = (own: Entry, booked: BookedLine, given: Partial<BookTie> = {}): BookTie => ({
  id: newId(),
  made: false,
  entries: [own.id],
  lines: [booked.id],
  confidence: 0.99,
  sure: true,
  why: 'amount',
  ...given,
});

const READ: StatementRead = {
  name: 'bank.csv',
  format: 'csv',
  number: '',
  currency: 'GBP',
  first: '2026-10-01',
  last: '2026-10-31',
  fresh: 3,
  known: 2,
  opening: null,
  closing: null,
  sample: [{ day: '2026-10-09', units: -12_000, who: 'SALTGATE YARNS', text: 'S118' }],
  gaps: [{ day: '2026-10-12', units: -4_890 }],
  accountId: BANK,
  id: null,
};

const ENTRIES_READ: EntriesRead = {
  head: ['Date', 'Supplier', 'Sum', 'Box'],
  columns: ['day', 'who', 'total', null],
  turned: false,
  remembered: false,
  fresh: 2,
  known: 1,
  wrong: 1,
  problems: [{ row: 4, why: '“no day” is no day' }],
  sample: [{ day: '2026-02-13', who: 'Saltgate', what: '', number: 'S-1', units: 12_000, tax: 2_000, currency: 'GBP' }],
  ids: [],
};

function open({
  entries = [],
  lines = [],
  ties = [],
  asBefore = [],
  at = '/ledger',
}: {
  entries?: Entry[];
  lines?: BookedLine[];
  ties?: BookTie[];
  asBefore?: Ledger['asBefore'];
  at?: string;
} = {}) {
  const made = entry({ who: 'Made', serial: 900 });
  const server = new StandInServer()
    .on(endpoints.readBooks, () => BOOKS)
    .on(endpoints.readLedger, () => ({ entries, lines, ties, asBefore }))
    .on(endpoints.readSettings, () => settings())
    .on(endpoints.entryVersions, () => [])
    .on(endpoints.papersForEntry, () => [])
    .on(endpoints.entryPayment, () => ({
      name: 'Saltgate Yarns',
      iban: 'DE44500105175407324931',
      units: 12_000,
      currency: 'EUR',
      reference: 'S-118',
      ibanBefore: null,
      problem: null,
      code: ['10', '01'],
    }))
    .on(endpoints.makeEntry, () => made)
    .on(endpoints.changeEntry, () => made)
    .on(endpoints.takeOutEntry, () => undefined)
    .on(endpoints.putBackEntry, () => made)
    .on(endpoints.checkEntries, () => undefined)
    .on(endpoints.takeTies, () => undefined)
    .on(endpoints.takeOffTies, () => undefined)
    .on(endpoints.makeTie, () => ({ id: newId() }))
    .on(endpoints.enterLines, () => [made])
    .on(endpoints.sendEntries, ({ query }) => ({ ...ENTRIES_READ, ids: query.look ? [] : [newId(), newId()] }))
    .on(endpoints.takeOutEntries, () => undefined)
    .on(endpoints.listStatements, () => [])
    .on(endpoints.statementsAmongPapers, () => [
      { documentId: PAPER, name: 'September', lines: 3, first: '2026-09-03', last: '2026-09-28' },
    ])
    .on(endpoints.takeInPaper, ({ body }) => ({ ...READ, format: 'paper', id: body.look ? null : newId() }))
    .on(endpoints.sendStatement, ({ query }) => ({ ...READ, id: query.look ? null : newId() }));
  return { server, made, ...show(<LedgerStation />, server, at, '/ledger') };
}
const book = () => screen.findByRole('grid', { name: 'The book' });
const focusBook = async () => {
  const grid = await book();
  act(() => grid.focus());
};
const row = async (text: string) =>
  within(await book())
    .getAllByRole('row')
    .find((each) => each.textContent.includes(text))!;

it('says what to do while nothing is entered', async () => {
  open();
  expect(await screen.findByText('Nothing is entered yet')).toBeTruthy();
});

describe('the book', () => {
  const proven = { papers: [{ documentId: newId(), name: 'Bill', role: 'proof' as const }] };

  it('shows entries under their months, what has no paper in words, what is paid, and what all comes to', async () => {
    open({
      entries: [
        entry({ ...proven, paid: 12_000 }),
        entry({ who: 'Pell Dye Works', day: '2026-09-01', due: '2026-09-30' }),
        entry({
          who: 'Corn Hall Gallery',
          units: -30_000,
          parts: [{ categoryId: SALES, taxCode: 'GB-N', rate: null, net: -30_000, tax: 0 }],
        }),
      ],
    });
    expect((await row('October 2026')).textContent).toContain('120.00 GBP out, 300.00 GBP in, 300.00 GBP to come');
    const [paid, owed] = [await row('Saltgate Yarns'), await row('Pell Dye Works')];
    expect(paid.textContent).toMatch(/✓ paid/);
    expect(paid.textContent).not.toContain('no paper');
    expect(owed.textContent).toMatch(/no paper.*open.*due 2026-09-30/);
    expect(within(owed).getByRole('button', { name: /has no paper/ })).toBeTruthy();
    expect(screen.getByText('3 entries shown')).toBeTruthy();
  });

  it('is narrowed by words and by what is still to be done, and sorted both ways by any column', async () => {
    const { user } = open({
      entries: [
        entry({ ...proven, units: 500, parts: [{ categoryId: null, taxCode: null, rate: null, net: 500, tax: 0 }] }),
        entry({ who: 'Pell Dye Works', number: 'P-9' }),
      ],
    });
    await user.selectOptions(await screen.findByLabelText('Which'), 'without a paper');
    expect(await screen.findByText('1 entry shown')).toBeTruthy();
    await user.selectOptions(screen.getByLabelText('Which'), 'all entries');
    await user.type(screen.getByLabelText('Filter the book'), 'p-9');
    expect(await screen.findByText('1 entry shown')).toBeTruthy();
    await user.clear(screen.getByLabelText('Filter the book'));
    const names = async () =>
      within(await book())
        .getAllByRole('row')
        .map(({ textContent }) => /Saltgate|Pell/.exec(textContent)?.[0])
        .filter(Boolean);
    // Each under a heading of its own.
    await user.click(screen.getByRole('button', { name: /^Who/ }));
    expect(await names()).toEqual(['Pell', 'Pell', 'Saltgate', 'Saltgate']);
    await user.click(screen.getByRole('button', { name: /^Who/ }));
    expect(await names()).toEqual(['Saltgate', 'Saltgate', 'Pell', 'Pell']);
    await user.click(screen.getByRole('button', { name: /^Total/ }));
    expect(await names()).toEqual(['Pell', 'Saltgate']);
  });

  it('is gone through by keys: checked, changed, taken out with the way back, its paper laid open', async () => {
    const own = entry(proven);
    const { user, server } = open({ entries: [own, entry({ day: '2026-09-01', who: 'Earlier' })] });
    server.on(endpoints.readDocument, () => paper({ id: proven.papers[0].documentId, name: 'The bill' }));
    await focusBook();
    await user.keyboard('{Home}c');
    await waitFor(() =>
      expect(server.askedOf(endpoints.checkEntries)).toEqual([{ body: { ids: [own.id], checked: true } }]),
    );
    await focusBook();
    await user.keyboard('{Enter}');
    expect(await screen.findByRole('complementary', { name: `Papers of entry ${own.serial}` })).toBeTruthy();
    expect(await screen.findByRole('link', { name: 'The bill' })).toBeTruthy();
    await focusBook();
    await user.keyboard('{Delete}');
    await user.click((await notice('The entry is out of the books.')).getByRole('button', { name: /Undo/ }));
    await waitFor(() => expect(server.askedOf(endpoints.putBackEntry)).toEqual([{ params: { id: own.id } }]));
  });

  it('says that an entry has no paper, what may be it, and has a mail ready that asks for a copy', async () => {
    const own = entry();
    const { user, server } = open({ entries: [own] });
    const documentId = newId();
    server
      .on(endpoints.papersForEntry, () => [
        { documentId, name: 'Saltgate again', state: 'filed', confidence: 0.97, alike: ['number', 'amount'] },
      ])
      .on(endpoints.attachPaper, () => own);
    await user.click(await screen.findByRole('button', { name: /has no paper/ }));
    expect(await screen.findByText('the same number and amount, 97 % likely')).toBeTruthy();
    const letter = screen.getByRole('link', { name: /asks for a copy/ }).getAttribute('href')!;
    expect(decodeURIComponent(letter)).toMatch(/^mailto:\?subject=Copy of invoice S-118 of 2026-10-02/);
    await user.click(screen.getByRole('button', { name: 'Attach' }));
    await waitFor(() =>
      expect(server.askedOf(endpoints.attachPaper)).toEqual([
        { params: { id: own.id }, body: { documentId, role: 'proof' } },
      ]),
    );
  });
});

it('how an entry is paid stands beside it, as a code for a banking app and in words', async () => {
  const { user } = open({ entries: [entry({ currency: 'EUR' })] });
  await user.click(await screen.findByRole('button', { name: /has no paper/ }));
  const pay = within(await screen.findByRole('region', { name: 'Pay it' }));
  expect(pay.getByRole('img', { name: 'Payment code: 120.00 EUR to Saltgate Yarns' })).toBeTruthy();
  expect(pay.getByText('DE44 5001 0517 5407 3249 31')).toBeTruthy();
});

describe('ties', () => {
  const [own, other] = [entry(), entry({ who: 'Other', units: 500 })];
  const [booked, second] = [line(), line({ who: 'OTHER', units: -500, day: '2026-10-12' })];

  it('that are sure are made by one key, and come off again', async () => {
    const [sure, unsure] = [tie(own, booked), tie(other, second, { sure: false, confidence: 0.6 })];
    const { user, server } = open({ entries: [own, other], lines: [booked, second], ties: [sure, unsure] });
    await screen.findByRole('button', { name: /^Tie the sure one/ });
    await user.keyboard('t');
    await waitFor(() => expect(server.askedOf(endpoints.takeTies)).toEqual([{ body: { ids: [sure.id] } }]));
    await user.click((await notice('1 tie is made.')).getByRole('button', { name: /Undo/ }));
    await waitFor(() =>
      expect(server.askedOf(endpoints.takeOffTies)).toEqual([{ body: { ids: [sure.id], refuse: false } }]),
    );
  });

  it('that are not are asked about, each by itself, with what they rest on', async () => {
    const unsure = tie(other, second, { sure: false, confidence: 0.6 });
    const { user, server } = open({ entries: [other], lines: [second], ties: [unsure] });
    expect((await row('OTHER')).textContent).toContain('the same amount, 60 % likely');
    await user.click(screen.getByRole('button', { name: /^Take the tie off OTHER/ }));
    await waitFor(() =>
      expect(server.askedOf(endpoints.takeOffTies)).toEqual([{ body: { ids: [unsure.id], refuse: true } }]),
    );
    expect(screen.queryByRole('button', { name: /sure one/ })).toBeNull();
  });

  it('that were made come off with the way back', async () => {
    const made = tie(own, booked, { made: true });
    const { user, server } = open({ entries: [own], lines: [booked], ties: [made] });
    await user.click(await screen.findByRole('button', { name: /^Take the tie off/ }));
    await user.click((await notice('The tie is off.')).getByRole('button', { name: /Undo/ }));
    await waitFor(() =>
      expect(server.askedOf(endpoints.makeTie)).toEqual([{ body: { entries: [own.id], lines: [booked.id] } }]),
    );
  });

  it('are made by hand of what is chosen at both sides', async () => {
    const { user, server } = open({ entries: [own], lines: [booked] });
    await user.click(await screen.findByRole('checkbox', { name: `Choose entry ${own.serial}` }));
    await user.click(screen.getByRole('button', { name: /^Choose the line/ }));
    await user.click(screen.getByRole('button', { name: 'Tie them' }));
    await waitFor(() =>
      expect(server.askedOf(endpoints.makeTie)).toEqual([{ body: { entries: [own.id], lines: [booked.id] } }]),
    );
  });
});

describe('an entry that is typed', () => {
  it('has what the last one of the same sender had, its tax by the rate, and goes by Enter', async () => {
    const { user, server } = open({ entries: [entry()] });
    await book();
    await user.keyboard('n');
    const form = within(await screen.findByRole('form', { name: 'A new entry' }));
    await user.clear(form.getByLabelText('Date'));
    await user.type(form.getByLabelText('Date'), '2026-11-03');
    await user.type(form.getByLabelText('Who'), 'saltgate yarns');
    await user.type(form.getByLabelText('Number'), 'S-130');
    await user.clear(form.getByLabelText('Total'));
    await user.type(form.getByLabelText('Total'), '31,41{Enter}');
    await waitFor(() => expect(server.askedOf(endpoints.makeEntry)).toHaveLength(1));
    expect(server.askedOf(endpoints.makeEntry)[0].body).toMatchObject({
      day: '2026-11-03',
      who: 'Saltgate Yarns',
      number: 'S-130',
      units: 3141,
      currency: 'GBP',
      parts: [{ categoryId: MATERIALS, taxCode: 'GB-S', rate: 20, net: 2617, tax: 524 }],
    });
  });

  it('stays as it is when something else is entered meanwhile, and a change has the way back', async () => {
    const entries = [entry({ who: 'First' })];
    const { user, server, arrive } = open({ entries });
    await book();
    await user.keyboard('n');
    await user.type(await screen.findByLabelText('Who'), 'Half of a na');
    entries.push(entry({ who: 'Meanwhile' }));
    await arrive();
    await screen.findByText('Meanwhile');
    expect((screen.getByLabelText('Who') as HTMLInputElement).value).toBe('Half of a na');
    await user.keyboard('{Escape}');
    server.on(endpoints.changeEntry, () => ({ ...entries[0], revision: 2 }));
    await user.click(screen.getByRole('checkbox', { name: `Choose entry ${entries[0].serial}` }));
    await user.click(screen.getByRole('button', { name: 'Change it' }));
    await user.type(await screen.findByLabelText('What'), 'Cones{Enter}');
    const said = await notice(`Entry ${entries[0].serial} is changed.`);
    await user.click(said.getByRole('button', { name: /Undo/ }));
    await waitFor(() =>
      expect(server.askedOf(endpoints.changeEntry).map(({ body }) => [body.what, body.revision])).toEqual([
        ['Cones', 1],
        ['', 2],
      ]),
    );
  });

  it('is not entered without a name or an amount, and says so', async () => {
    const { user, server } = open({ entries: [entry()] });
    await book();
    await user.keyboard('n');
    await user.type(await screen.findByLabelText('Number'), 'X{Enter}');
    expect((await screen.findByRole('alert')).textContent).toContain('An entry needs an amount.');
    expect(server.askedOf(endpoints.makeEntry)).toEqual([]);
    await user.keyboard('{Escape}');
    expect(screen.queryByRole('form')).toBeNull();
  });
});

it('statements are looked at before they are taken in', async () => {
  const { user, server } = open({ entries: [entry()], at: '/ledger?view=statements' });
  const input = await screen.findByLabelText('Statements', { selector: 'input' });
  await user.upload(input, new File(['Date,Amount'], 'bank.csv', { type: 'text/csv' }));
  const file = within(await screen.findByRole('region', { name: 'bank.csv' }));
  expect(file.getByText('3 new lines')).toBeTruthy();
  expect(file.getByRole('status').textContent).toContain('−48.90 GBP off: lines are missing there');
  await user.click(file.getByRole('button', { name: 'Take in 3 lines' }));
  await notice('3 lines of “bank.csv” are in the books, 2 lines had been there.');
  expect(server.askedOf(endpoints.sendStatement).map(({ query }) => [query.look, query.accountId])).toEqual([
    [true, undefined],
    [undefined, BANK],
  ]);
});

it('papers that are in no entry are listed, and entered at a click', async () => {
  const { user, server } = open({ entries: [entry()], at: '/ledger?view=papers' });
  const lacking = summary({ name: 'Oars', state: 'filed', folderId: newId(), total: { units: 500, currency: 'GBP' } });
  server
    .on(endpoints.papersWithoutEntry, () => [{ paper: lacking, fit: null }])
    .on(endpoints.enterPaper, () => entry({ serial: 77 }));
  await user.click(await screen.findByRole('button', { name: 'Enter it' }));
  await notice('It is entry 77.');
  expect(server.askedOf(endpoints.enterPaper)).toEqual([{ params: { id: lacking.id } }]);
});

it('papers that are surely of entries without one are attached by one key, others at a click', async () => {
  const { user, server } = open({ entries: [entry()], at: '/ledger?view=papers' });
  const of = (name: string) => summary({ name, state: 'filed', folderId: newId() });
  const fit = {
    entryId: newId(),
    serial: 12,
    who: 'Avery',
    units: 500,
    currency: 'GBP',
    confidence: 0.99,
    sure: true,
    alike: ['amount'],
  };
  const [sure, perhaps] = [of('Oars'), of('Rope')];
  const other = { ...fit, entryId: newId(), serial: 13, confidence: 0.6, sure: false };
  server
    .on(endpoints.papersWithoutEntry, () => [
      { paper: sure, fit },
      { paper: perhaps, fit: other },
    ])
    .on(endpoints.attachPapers, () => undefined)
    .on(endpoints.detachPapers, () => undefined);
  await screen.findByText('Rope');
  await user.keyboard('a');
  const told = await notice('1 paper is attached.');
  const body = { pairs: [{ documentId: sure.id, entryId: fit.entryId }] };
  expect(server.askedOf(endpoints.attachPapers)).toEqual([{ body }]);
  await user.click(told.getByRole('button', { name: /Undo/ }));
  await waitFor(() => expect(server.askedOf(endpoints.detachPapers)).toEqual([{ body }]));
  await user.click(screen.getByRole('button', { name: 'Attach Rope to entry 13' }));
  await waitFor(() =>
    expect(server.askedOf(endpoints.attachPapers)[1]?.body.pairs).toEqual([
      { documentId: perhaps.id, entryId: other.entryId },
    ]),
  );
});

describe('a line for which no bill comes', () => {
  const rent = line({ who: 'TARROW ESTATES', text: 'Rent February', units: -65_000 });
  it('is entered by hand, and so are lines like it from then on', async () => {
    const { user, server } = open({ entries: [entry({ who: 'Tarrow Estates', what: 'Rent' })], lines: [rent] });
    await user.click(await screen.findByRole('button', { name: /^Enter TARROW ESTATES.*for which no bill comes/ }));
    const form = within(screen.getByRole('form', { name: /^Enter the line of/ }));
    expect(form.getByLabelText('Who')).toHaveProperty('value', 'Tarrow Estates');
    await user.click(form.getByLabelText('What'));
    // What its last entry had stands there.
    expect(form.getByLabelText('What')).toHaveProperty('value', 'Rent');
    await user.keyboard('{Enter}');
    await notice('It is entry 900.');
    const as = {
      lineId: rent.id,
      who: 'Tarrow Estates',
      what: 'Rent',
      categoryId: MATERIALS,
      taxCode: 'GB-S',
      rate: 20,
    };
    expect(server.askedOf(endpoints.enterLines)).toEqual([{ body: { lines: [as], remember: true } }]);
    await user.click(screen.getByRole('button', { name: 'Undo' }));
    await waitFor(() => expect(server.askedOf(endpoints.takeOutEntries)).toHaveLength(1));
  });

  it('is entered as before by one key, with all the others', async () => {
    const as = { ruleId: newId(), who: 'Tarrow Estates', what: 'Rent', categoryId: null, taxCode: 'GB-N', rate: null };
    const { user, server } = open({ lines: [rent], asBefore: [{ ...as, lineId: rent.id }] });
    await screen.findByText('as before: Rent');
    await user.keyboard('b');
    await notice('It is entry 900.');
    expect(server.askedOf(endpoints.enterLines)[0].body).toMatchObject({
      remember: false,
      lines: [{ lineId: rent.id }],
    });
  });

  it('is one end of a transfer, with another line', async () => {
    const [out, come] = [line({ units: -50_000, who: 'Savings' }), line({ units: 50_000, who: 'Current' })];
    const { user, server } = open({ lines: [out, come] });
    for (const who of ['Savings', 'Current'])
      await user.click(await screen.findByRole('button', { name: new RegExp(`^Choose the line of .*${who}`) }));
    await user.click(screen.getByRole('button', { name: 'They are one transfer' }));
    await notice('The tie is made.');
    expect(server.askedOf(endpoints.makeTie)).toEqual([{ body: { entries: [], lines: [out.id, come.id] } }]);
  });
});

it('an entry in other money says what it comes to in one’s own, and at which rate', async () => {
  const foreign = entry({
    currency: 'EUR',
    units: 10_000,
    parts: [{ categoryId: null, taxCode: null, rate: null, net: 10_000, tax: 0 }],
  });
  const { user, server } = open({ entries: [foreign] });
  await focusBook();
  await user.keyboard('{Home}e');
  const own = await screen.findByLabelText('In GBP');
  await user.clear(own);
  await user.type(own, '86.40{Tab}');
  await screen.findByText('1 EUR = 0.86400 GBP');
  await user.click(screen.getByRole('button', { name: /^Keep/ }));
  await waitFor(() => expect(server.askedOf(endpoints.changeEntry)[0]?.body).toMatchObject({ ownUnits: 8_640 }));
});

it('entries made elsewhere are shown as they are understood, their columns put right, and taken in', async () => {
  const { user, server } = open({ entries: [entry()] });
  await user.click(await screen.findByRole('button', { name: 'Bring entries in …' }));
  await user.upload(screen.getByLabelText('Entries'), new File(['x'], 'entries.csv'));
  const file = within(await screen.findByRole('region', { name: 'entries.csv' }));
  expect(file.getByRole('status').textContent).toBe('2 new entries, 1 entry in the books already, 1 row that is none.');
  expect(file.getByText('! Row 4: “no day” is no day.')).toBeTruthy();
  await user.selectOptions(file.getByLabelText('Box holds'), 'total');
  // What another column holds now, it held before.
  await waitFor(() =>
    expect(server.askedOf(endpoints.sendEntries)[1]?.query).toMatchObject({ look: true, columns: 'day,who,,total' }),
  );
  await user.click(file.getByRole('button', { name: 'Take 2 entries in' }));
  const told = await notice('2 entries of “entries.csv” are in the books.');
  await user.click(told.getByRole('button', { name: /Undo/ }));
  await waitFor(() => expect(server.askedOf(endpoints.takeOutEntries)).toHaveLength(1));
  await screen.findByRole('grid', { name: 'The book' });
});

it('a paper on the shelf that is a statement is looked at and taken in like a file', async () => {
  const { user, server } = open({ entries: [entry()], at: '/ledger?view=statements' });
  const among = within(await screen.findByRole('region', { name: 'Statements among the papers' }));
  await user.click(among.getByRole('button', { name: 'Look at it' }));
  const looked = within(await screen.findByRole('region', { name: 'September' }));
  await user.click(looked.getByRole('button', { name: 'Take in 3 lines' }));
  await notice(/3 lines of “September” are in the books/);
  expect(server.askedOf(endpoints.takeInPaper).map(({ body }) => body)).toEqual([
    { look: true, turned: false },
    { accountId: BANK, turned: false },
  ]);
});
