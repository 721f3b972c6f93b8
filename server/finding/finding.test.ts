import { endpoints } from '@crow/contract/endpoints';
import { FactName } from '@crow/contract/facts';
import { scanned, textPdf } from '../testing/made';
import { TestRoom } from '../testing/room';
import { find as findIn } from './finding';

let room: TestRoom;
let dye: string;
let letter: string;
let waiting: string;
beforeAll(async () => {
  room = await TestRoom.open();
  dye = await room.documentOf(
    '1.pdf',
    await textPdf(
      'Marlowe Dye Works\nInvoice 1302 of 11 November 2026\nDyeing to shade, indigo, nine kilos\nDyeing to shade, madder, four kilos\nTotal 1,234.50',
      'Second page\nindigo again for the dyeing of a sample, and so on',
    ),
  );
  letter = await room.documentOf(
    '2.pdf',
    await textPdf(
      'Spinnerei Wiesengrund GmbH\nSehr geehrter Herr Castellane,\ndie Färbemuster in Größe zwei liegen bei.\nGesamtbetrag 1.234,50 €',
    ),
  );
  waiting = await room.documentOf(
    '3.jpg',
    await scanned('Orrin Harbour Council\nThe water main in Beacon Terrace is renewed'),
  );
  await room.file(dye, 'Dyeing', 'Workshop');
  await room.file(letter, 'Wolle', 'Workshop');
});
afterAll(() => room.close());

const find = (q: string) => room.ask(endpoints.find, { query: { q } });
const foundIds = async (q: string) => (await find(q)).found.map(({ document }) => document.id);
const hits = (id: string, q: string) =>
  room
    .send(endpoints.documentHits, { params: { id }, query: { q } })
    .then(({ body }) => body as { pageNumber: number; boxes: number[][] }[]);

describe('finding', () => {
  it('finds a document by a word in it, counts the hits and shows their lines', async () => {
    const { found } = await find('indigo');
    expect(found).toHaveLength(1);
    expect(found[0]).toMatchObject({ hits: 2, document: { id: dye, folderPath: 'Workshop' } });
    expect(found[0].lines[0].pieces).toEqual([
      { text: 'Dyeing to shade,', hit: false },
      { text: 'indigo,', hit: true },
      { text: 'nine kilos', hit: false },
    ]);
    expect(found[0].lines[1].pageNumber).toBe(2);
  });

  it('finds the beginning of a word, without accents, in any case', async () => {
    expect(await foundIds('farbem')).toEqual([letter]);
    expect(await foundIds('GRÖSSE')).toEqual([letter]);
  });

  it('forgives a letter that was misread or mistyped, and says what it looked for', async () => {
    const { found, alsoSearched } = await find('castelane');
    expect(found.map(({ document }) => document.id)).toEqual([letter]);
    expect(alsoSearched).toEqual(['castellane']);
  });

  it('finds an amount, however it is written', async () => {
    expect((await foundIds('1234.50')).sort()).toEqual([dye, letter].sort());
    expect((await foundIds('1.234,50')).sort()).toEqual([dye, letter].sort());
  });

  it('wants all words, and words in quotes together', async () => {
    expect(await foundIds('madder indigo')).toEqual([dye]);
    expect(await foundIds('madder Größe')).toEqual([]);
    expect(await foundIds('“shade, madder”')).toEqual([dye]);
    expect(await foundIds('"madder shade"')).toEqual([]);
  });

  it('finds by amount, day, sender, kind and folder, alone and together with words', async () => {
    const set = (id: string, name: FactName, value: string) =>
      room.ask(endpoints.changeFact, { params: { id, name }, body: { value } });
    await set(dye, 'total', '1,234.50');
    await set(dye, 'date', '11 November 2026');
    await set(letter, 'total', '99,00');
    await set(letter, 'date', '3.2.2025');
    await set(letter, 'vendor', 'Spinnerei Größenwahn');
    expect(await foundIds('total>100')).toEqual([dye]);
    expect(await foundIds('total<=99')).toEqual([letter]);
    expect(await foundIds('total=1234.50 indigo')).toEqual([dye]);
    expect(await foundIds('total>100 Färbemuster')).toEqual([]);
    expect(await foundIds('date:2025')).toEqual([letter]);
    expect(await foundIds('date>2025')).toEqual([dye]);
    expect(await foundIds('date>=2025-02 date<2025-03')).toEqual([letter]);
    expect(await foundIds('who:grossen')).toEqual([letter]);
    expect((await foundIds('folder:workshop')).sort()).toEqual([dye, letter].sort());
    expect(await foundIds('who:100%_')).toEqual([]);
    const [{ hits: none, lines }] = (await find('total>100')).found;
    expect([none, lines]).toEqual([0, []]);
  });

  it.each([
    ['newest', ['2025-02', '2024-11']],
    ['oldest', ['2024-11', '2025-02']],
    ['most', ['2025-02', '2024-11']],
  ] as const)('sorts by what the papers say: %s', async (sort, days) => {
    const set = (id: string, name: FactName, value: string) =>
      room.ask(endpoints.changeFact, { params: { id, name }, body: { value } });
    await set(dye, 'date', '2024-11-11');
    await set(letter, 'date', '2025-02-03');
    await set(dye, 'total', '99.50');
    await set(letter, 'total', '1234.50');
    for (const q of ['1234.50', 'folder:workshop']) {
      const { found } = await room.ask(endpoints.find, { query: { q, sort } });
      expect(found.map(({ document }) => document.date?.slice(0, 7))).toEqual(days);
    }
  });

  it('finds words that stand on very many pages with conditions and in every order, too', async () => {
    const { manager } = room.context.database.source;
    const ids = async (q: string, by?: 'most' | 'newest') =>
      (await findIn(manager, q, { by, ranked: 0 })).found.map(({ document }) => document.id);
    expect(await ids('1234.50 who:marlowe')).toEqual([dye]);
    expect(await ids('1234.50 who:nobody')).toEqual([]);
    expect((await ids('1234.50')).sort()).toEqual([dye, letter].sort());
    // What has no total comes last, but comes.
    await room.ask(endpoints.changeFact, { params: { id: dye, name: 'total' }, body: { value: '' } });
    expect(await ids('1234.50', 'most')).toEqual([letter, dye]);
  });

  it('leaves out documents in which a word with a minus stands', async () => {
    expect((await foundIds('1234.50 -indigo')).sort()).toEqual([letter]);
    expect(await foundIds('folder:workshop -castellane')).toEqual([dye]);
  });

  it('finds what still waits in Check, and nothing that is in the bin', async () => {
    expect(await foundIds('Beacon')).toEqual([waiting]);
    await room.ask(endpoints.binDocument, { params: { id: waiting } });
    expect(await foundIds('Beacon')).toEqual([]);
    await room.ask(endpoints.bringBackDocument, { params: { id: waiting } });
  });

  it.each(["'; drop table page; --", '& | ! :*', '\\', '""', '%_'])('takes %s for plain text', async (q) => {
    expect((await find(q)).found).toEqual([]);
    expect(await foundIds('indigo')).toEqual([dye]);
  });
});

describe('hits in a document', () => {
  it('come in reading order, each with its place on its page', async () => {
    const found = await hits(dye, 'dyeing');
    expect(found.map(({ pageNumber }) => pageNumber)).toEqual([1, 1, 2]);
    const [first, second] = found;
    expect(first.boxes[0][1]).toBeLessThan(second.boxes[0][1]);
    for (const share of first.boxes[0]) expect(share).toBeLessThan(1);
  });
  it('mark every word of a phrase', async () => {
    expect((await hits(dye, '"dye works"'))[0].boxes).toHaveLength(2);
  });
});

it('keeps searches for whoever keeps them, each once', async () => {
  const keep = (query: string) => room.ask(endpoints.keepSearch, { body: { query } });
  await keep('who:marlowe');
  await keep('total>100 kind:invoice');
  const kept = await keep('who:marlowe');
  expect(kept.map(({ query }) => query)).toEqual(['total>100 kind:invoice', 'who:marlowe']);
  await room.ask(endpoints.forgetSearch, { params: { id: kept[0].id } });
  expect((await room.ask(endpoints.listSearches, {})).map(({ query }) => query)).toEqual(['who:marlowe']);
  expect(await room.refusal(endpoints.forgetSearch, { params: { id: kept[0].id } })).toMatchObject({
    code: 'not-found',
  });
});
