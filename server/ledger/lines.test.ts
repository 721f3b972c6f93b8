import { addressOf } from '@crow/contract/client';
import { endpoints } from '@crow/contract/endpoints';
import { Books, BookedLine, EntryFields, Ledger, StatementRead } from '@crow/contract/ledger';
import { ProblemReport } from '@crow/contract/problems';
import { textPdf } from '../testing/made';
import { TestRoom } from '../testing/room';

let room: TestRoom;
let books: Books;
beforeAll(async () => {
  room = await TestRoom.open();
  books = await room.ask(endpoints.readBooks, {});
}, 120_000);
afterAll(() => room.close());

const ledger = (): Promise<Ledger> => room.ask(endpoints.readLedger, {});
const category = (name: string) => books.categories.find((each) => each.name === name)!.id;
const statement = async (text: string, query: { name: string; accountId?: string; another?: boolean }) => {
  const { status, body } = await room.request('PUT', addressOf(endpoints.sendStatement, { query }), {
    body: Buffer.from(text),
    headers: { 'content-type': 'application/octet-stream' },
  });
  if (status >= 400) throw new Error((body as ProblemReport).happened);
  await room.workOnAll();
  return body as StatementRead;
};
const csv = (...rows: string[]) => ['Date,Payee,Reference,Amount', ...rows].join('\n');
const lineOf = async (text: string): Promise<BookedLine> =>
  (await ledger()).lines.find((line) => [line.day, line.who, line.text].filter(Boolean).join(' ').includes(text))!;
const fields = (given: Partial<EntryFields> = {}): EntryFields => ({
  day: '2026-05-04',
  due: null,
  who: 'Filature du Quai',
  what: '',
  number: '',
  currency: 'EUR',
  units: 10_000,
  accountId: null,
  ownUnits: null,
  parts: [{ categoryId: null, taxCode: null, rate: null, net: given.units ?? 10_000, tax: 0 }],
  ...given,
});
const make = (given: Partial<EntryFields> = {}) => room.ask(endpoints.makeEntry, { body: fields(given) });
const entryNow = async (id: string) => (await ledger()).entries.find((each) => each.id === id)!;
const journal = async () =>
  (await room.request('GET', addressOf(endpoints.exportLedger, { query: { as: 'journal' } }))).raw.toString();

let bank: string;
describe('lines for which no bill comes', () => {
  beforeAll(async () => {
    const read = await statement(
      csv(
        '2026-01-05,TARROW ESTATES,Rent January,-650.00',
        '2026-02-05,TARROW ESTATES,Rent February,-650.00',
        '2026-02-09,ORRIN BANK,Monthly charge,-7.20',
      ),
      { name: 'bank.csv' },
    );
    bank = read.accountId!;
  });

  it('are entered with their tax, tied, and the next ones like them are proposed', async () => {
    const { id: lineId } = await lineOf('Rent January');
    expect((await ledger()).asBefore).toEqual([]);
    const as = { who: 'Tarrow Estates', what: 'Rent', categoryId: category('Rent'), taxCode: 'GB-S', rate: 20 };
    const [made] = await room.ask(endpoints.enterLines, { body: { lines: [{ lineId, ...as }], remember: true } });
    expect(made).toMatchObject({
      day: '2026-01-05',
      units: 65_000,
      paid: 65_000,
      parts: [{ net: 54_167, tax: 10_833 }],
    });
    const { asBefore, ties } = await ledger();
    expect(asBefore).toEqual([
      { lineId: (await lineOf('Rent February')).id, ruleId: expect.any(String) as string, ...as },
    ]);
    expect(ties.find((tie) => tie.lines.includes(lineId))).toMatchObject({ made: true, entries: [made.id] });
    await expect(
      room.ask(endpoints.enterLines, { body: { lines: [{ lineId, ...as }], remember: false } }),
    ).rejects.toThrow('line-tied');
  });

  it('come out again with their ties, and a rule can be forgotten', async () => {
    const [{ ruleId, ...as }] = (await ledger()).asBefore;
    const [{ id }] = await room.ask(endpoints.enterLines, { body: { lines: [as], remember: false } });
    expect((await ledger()).asBefore).toEqual([]);
    await room.ask(endpoints.takeOutEntries, { body: { ids: [id] } });
    const after = await ledger();
    expect(after.entries.some((entry) => entry.id === id)).toBe(false);
    expect(after.ties.some((tie) => tie.lines.includes(as.lineId))).toBe(false);
    expect(after.asBefore).toHaveLength(1);
    await room.ask(endpoints.forgetLineRule, { params: { id: ruleId } });
    expect((await ledger()).asBefore).toEqual([]);
  });

  it('are transfers when they are the two ends of one between own accounts', async () => {
    await statement(csv('2026-02-11,,To savings 40217755,-500.00'), { name: 'more.csv', accountId: bank });
    const savings = await room.ask(endpoints.makeAccount, {
      body: { name: 'Savings', kind: 'bank', currency: 'GBP', number: '40217755' },
    });
    await statement(csv('2026-02-12,,Received,500.00'), { name: 'savings.csv', accountId: savings.id });
    const [tie] = (await ledger()).ties.filter(({ why }) => why === 'transfer');
    expect(tie).toMatchObject({ made: false, sure: true, entries: [] });
    await room.ask(endpoints.takeTies, { body: { ids: [tie.id] } });
    expect(await journal()).toMatch(/assets:Savings {2}500\.00 GBP\n {4}assets:between accounts {2}-500\.00 GBP/);
    await room.ask(endpoints.takeOffTies, { body: { ids: [tie.id], refuse: true } });
    await room.workOnAll();
    expect((await ledger()).ties.filter(({ why }) => why === 'transfer')).toEqual([]);
    // By hand it can still be made; two lines that are none can't.
    await room.ask(endpoints.makeTie, { body: { entries: [], lines: tie.lines } });
    const charge = await lineOf('Monthly charge');
    const rent = await lineOf('Rent February');
    await expect(room.ask(endpoints.makeTie, { body: { entries: [], lines: [charge.id, rent.id] } })).rejects.toThrow(
      'no-transfer',
    );
  });
});

it('learns from ties that were made whom lines are about', async () => {
  const first = await make({ who: 'Saltgate Yarns', currency: 'GBP', units: 4_310, day: '2026-03-01' });
  await make({ who: 'Avery Stores', currency: 'GBP', units: 5_115, day: '2026-04-01' });
  const second = await make({ who: 'Saltgate Yarns', currency: 'GBP', units: 5_115, day: '2026-04-01' });
  await statement(csv('2026-03-15,ZHLQ PAYMENTS,,-43.10', '2026-04-15,ZHLQ PAYMENTS,,-51.15'), {
    name: 'march.csv',
    accountId: bank,
  });
  const [one, two] = [await lineOf('2026-03-15 ZHLQ'), await lineOf('2026-04-15 ZHLQ')];
  const likely = async () => (await ledger()).ties.find((tie) => !tie.made && tie.lines.includes(two.id));
  const before = await likely();
  await room.ask(endpoints.makeTie, { body: { entries: [first.id], lines: [one.id] } });
  await room.workOnAll();
  const after = (await likely())!;
  expect(after.entries).toEqual([second.id]);
  expect(after.confidence).toBeGreaterThan(before?.confidence ?? 0);
});

describe('an entry in other money', () => {
  it('comes from its paper with what somebody said in Check that it comes to', async () => {
    const bytes = await textPdf(
      'Filature du Val Clair\n8, rue des Tisserands\n59280 Armelle\n\nFacture\nFacture no: VC-9\nDate: 02/10/2026\n\nTotal HT 100,00 EUR\nTVA 20 % 20,00 EUR\nTotal TTC 120,00 EUR',
    );
    const id = await room.documentOf('fil.pdf', bytes);
    const said = await room.ask(endpoints.changePaperBooks, { params: { id }, body: { ownUnits: 10_320 } });
    expect(said).toMatchObject({ currency: 'EUR', units: 12_000, ownUnits: 10_320 });
    await room.file(id, 'Fil', 'Workshop');
    expect((await ledger()).entries.find(({ number }) => number === 'VC-9')).toMatchObject({ worth: 10_320 });
  });

  it('comes in one’s own to what somebody said', async () => {
    const { id } = await make({ ownUnits: 8_640 });
    expect(await entryNow(id)).toMatchObject({ units: 10_000, currency: 'EUR', worth: 8_640 });
  });

  it('comes to what was paid for it, and before that to nothing that is known', async () => {
    const [one, two] = [await make({ units: 20_000 }), await make({ units: 10_000 })];
    expect((await entryNow(one.id)).worth).toBeNull();
    await statement(csv('2026-05-20,FILATURE DU QUAI,,-257.99'), { name: 'may.csv', accountId: bank });
    const line = await lineOf('FILATURE');
    await room.ask(endpoints.makeTie, { body: { entries: [one.id, two.id], lines: [line.id] } });
    expect((await entryNow(one.id)).worth).toBe(17_199);
    expect((await entryNow(two.id)).worth).toBe(8_600);
  });
});

describe('books that are closed until a day', () => {
  const close = (closedUntil: string | null) => room.ask(endpoints.changeBooks, { body: { closedUntil } });
  it('take nothing in before it and change nothing, until they are opened again', async () => {
    const old = await make({ day: '2025-12-30' });
    await close('2025-12-31');
    await expect(make({ day: '2025-12-31' })).rejects.toThrow('period-closed');
    await expect(room.ask(endpoints.takeOutEntry, { params: { id: old.id } })).rejects.toThrow('period-closed');
    const moved = { ...fields({ day: '2026-01-02' }), revision: 1 };
    await expect(room.ask(endpoints.changeEntry, { params: { id: old.id }, body: moved })).rejects.toThrow(
      'period-closed',
    );
    await make({ day: '2026-01-01' });
    await close(null);
    await room.ask(endpoints.takeOutEntry, { params: { id: old.id } });
    const deeds = await room.ask(endpoints.listHistory, { query: {} });
    expect(deeds.some(({ action, detail }) => action === 'changed' && 'closedUntil' in detail)).toBe(true);
  });

  it('let a paper of that time be filed, not entered, and say why', async () => {
    await close('2025-12-31');
    const bytes = await textPdf(
      'Quayside Parcels\nMill Lane 4, Wickford\n\nInvoice\nInvoice number: Q-7\nInvoice date: 2 October 2025\n\nNet £100.00\nVAT 20% £20.00\nTotal £120.00',
    );
    const id = await room.documentOf('parcels.pdf', bytes);
    const { problems } = await room.ask(endpoints.paperBooks, { params: { id }, query: {} });
    expect(problems).toContain('period-closed');
    await room.file(id, 'Parcels', 'Workshop');
    expect((await ledger()).entries.some(({ who }) => who === 'Quayside Parcels')).toBe(false);
    await close(null);
  });

  it('keep the entry of a paper that is taken back from the shelf', async () => {
    const bytes = await textPdf(
      'Ottery Mill\nMill Lane 4, Wickford\n\nInvoice\nInvoice number: O-7\nInvoice date: 2 November 2025\n\nNet £100.00\nVAT 20% £20.00\nTotal £120.00',
    );
    const id = await room.documentOf('mill.pdf', bytes);
    await room.file(id, 'Mill', 'Workshop');
    const entered = async () => (await ledger()).entries.some(({ number }) => number === 'O-7');
    expect(await entered()).toBe(true);
    await close('2025-12-31');
    await room.ask(endpoints.unfileDocument, { params: { id } });
    expect(await entered()).toBe(true);
    await room.file(id, 'Mill', 'Workshop');
    expect((await ledger()).entries.filter(({ number }) => number === 'O-7')).toHaveLength(1);
    await close(null);
  });
});

it('begins an account with what somebody says was on it', async () => {
  await room.ask(endpoints.changeAccount, {
    params: { id: bank },
    body: { opening: { day: '2026-01-01', units: 123_400 } },
  });
  const { accounts } = await room.ask(endpoints.readBooks, {});
  expect(accounts.find(({ id }) => id === bank)?.opening).toEqual({ day: '2026-01-01', units: 123_400 });
  expect(await journal()).toMatch(/2026-01-01 Opening balance\n {4}assets:.* {2}1234\.00 GBP/);
});

it('takes a paper that is a statement in as one, once, and lets it be taken again when it is out', async () => {
  const text =
    'Saltmarsh Savings\nStatement of account\n1 September 2026 to 30 September 2026\n\nDate       Details                     Money out     Money in      Balance\n1 Sep      Balance brought forward                                 1,204.11\n3 Sep      Harbour rates                   88.00                   1,116.11\n9 Sep      Scarf commission                            240.00      1,356.11\n28 Sep     Studio rent                    410.00                     946.11\n30 Sep     Balance carried forward                                   946.11';
  const id = await room.documentOf('statement.pdf', await textPdf(text));
  await room.file(id, 'September', 'Bank');
  const among = () => room.ask(endpoints.statementsAmongPapers, {});
  expect(await among()).toEqual([
    { documentId: id, name: 'September', lines: 3, first: '2026-09-03', last: '2026-09-28' },
  ]);
  const take = (body: { look?: boolean; another?: boolean }) =>
    room.ask(endpoints.takeInPaper, { params: { id }, body });
  const looked = await take({ look: true, another: true });
  expect(looked).toMatchObject({ format: 'paper', fresh: 3, gaps: [], id: null });
  const { id: statementId } = await take({ another: true });
  expect(await among()).toEqual([]);
  expect((await ledger()).lines.find(({ text: said }) => said === 'Studio rent')).toMatchObject({ units: -41_000 });
  await room.ask(endpoints.takeOutStatement, { params: { id: statementId! } });
  expect(await among()).toHaveLength(1);
});

it('names papers by the numbers of their entries, where the way of filing says so, and not those that somebody named', async () => {
  const { filing } = await room.ask(endpoints.readSettings, {});
  const pattern = '{who}[ {number}][ entry {entry}][ {date}]';
  await room.ask(endpoints.changeSettings, { body: { filing: [{ ...filing[0], pattern }] } });
  const filed = async (number: string, name?: string) => {
    const bytes = await textPdf(
      `Quayside Parcels\nMill Lane 4, Wickford\n\nInvoice\nInvoice number: ${number}\nInvoice date: 2 October 2026\n\nNet £100.00\nVAT 20% £20.00\nTotal £120.00`,
    );
    const id = await room.documentOf(`${number}.pdf`, bytes);
    const { proposedName } = await room.ask(endpoints.readDocument, { params: { id } });
    await room.file(id, name ?? proposedName, 'Workshop');
    const serial = (await ledger()).entries.find(({ papers }) =>
      papers.some(({ documentId }) => documentId === id),
    )?.serial;
    return { ...(await room.ask(endpoints.readDocument, { params: { id } })), serial, proposedName };
  };
  const first = await filed('Q-71');
  expect(first.proposedName).toBe('Quayside Parcels Q-71 2026-10-02');
  expect(first.name).toBe(`Quayside Parcels Q-71 entry ${first.serial} 2026-10-02`);
  expect(room.onDisk(`Workshop/${first.name}.pdf`)).toBe(true);
  expect((await filed('Q-72', 'Mine')).name).toBe('Mine');
});

it('enters whatever is filed in some folders, and nothing in others, unless somebody says otherwise of a paper', async () => {
  const letter = await textPdf(
    'Saltmarsh Craft Fair\nThe Corn Hall, Saltmarsh SM1 4BB\n\n2 October 2026\n\nDear Ms Castellane,\nyour stall is booked. The fee is due.\n\nTotal GBP 45.00',
  );
  const folder = (path: string) => room.ask(endpoints.makeFolder, { body: { path } });
  const [fairs, home] = [await folder('Fairs'), await folder('Household')];
  await room.ask(endpoints.changeBooks, {
    body: {
      byThemselves: true,
      folders: [
        { folderId: fairs.id, enters: true },
        { folderId: home.id, enters: false },
      ],
    },
  });
  expect((await room.ask(endpoints.readBooks, {})).folders).toEqual([
    { folderId: fairs.id, path: 'Fairs', enters: true },
    { folderId: home.id, path: 'Household', enters: false },
  ]);
  const id = await room.documentOf('fair.pdf', letter);
  await room.ask(endpoints.changeFact, { params: { id, name: 'kind' }, body: { value: 'notice' } });
  const entersIn = async (folderPath: string) =>
    (await room.ask(endpoints.paperBooks, { params: { id }, query: { folder: folderPath } })).enters;
  expect([await entersIn('Letters'), await entersIn('fairs/2026'), await entersIn('Household')]).toEqual([
    false,
    true,
    false,
  ]);
  await room.file(id, 'Stall', 'Fairs/2026');
  expect((await ledger()).entries.find(({ units }) => units === 4_500)).toMatchObject({ who: 'Saltmarsh Craft Fair' });

  const bill = await textPdf(
    'Corvin Energy\nMill Lane 4, Wickford\n\nInvoice\nInvoice number: CE-91\nInvoice date: 2 October 2026\n\nTotal £31.00',
  );
  const own = await room.documentOf('energy.pdf', bill);
  await room.file(own, 'Energy', 'Household');
  expect((await ledger()).entries.some(({ number }) => number === 'CE-91')).toBe(false);
});
