import { execFileSync } from 'node:child_process';
import { writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { strFromU8, unzipSync } from 'fflate';
import { addressOf } from '@crow/contract/client';
import { endpoints } from '@crow/contract/endpoints';
import { Books, Entry, EntryFields, Ledger, LedgerForm, StatementRead } from '@crow/contract/ledger';
import { ProblemReport } from '@crow/contract/problems';
import { withZip } from '../engines/zip';
import { scratchFolder, textPdf } from '../testing/made';
import { TestRoom } from '../testing/room';

const folder = scratchFolder();
let room: TestRoom;
let books: Books;
beforeAll(async () => {
  room = await TestRoom.open();
  books = await room.ask(endpoints.readBooks, {});
}, 120_000);
afterAll(() => room.close());

/** A bill as somebody prints it. */
const bill = (who: string, number: string, given: { day?: string; net?: string; tax?: string; total?: string } = {}) =>
  textPdf(
    `${who}\nMill Lane 4, Wickford\n\nInvoice\nInvoice number: ${number}\nInvoice date: ${given.day ?? '2 October 2026'}\n\nNet ${given.net ?? '£100.00'}\nVAT 20% ${given.tax ?? '£20.00'}\nTotal ${given.total ?? '£120.00'}\n\nPayment due: 1 November 2026`,
  );
const category = (name: string) => books.categories.find((each) => each.name === name)!.id;
const cash = () => books.accounts.find(({ kind }) => kind === 'cash')!.id;
const bank = () => books.accounts.find(({ kind }) => kind === 'bank')!.id;
const fields = (given: Partial<EntryFields> = {}): EntryFields => ({
  day: '2026-10-02',
  due: null,
  who: 'Quayside Parcels',
  what: '',
  number: '',
  currency: 'GBP',
  units: 3140,
  accountId: null,
  ownUnits: null,
  parts: [{ categoryId: category('Post and carriage'), taxCode: 'GB-N', rate: null, net: given.units ?? 3140, tax: 0 }],
  ...given,
});
const make = (given: Partial<EntryFields> = {}) => room.ask(endpoints.makeEntry, { body: fields(given) });
const ledger = (): Promise<Ledger> => room.ask(endpoints.readLedger, {});
const entryNow = async ({ id }: { id: string }) => (await ledger()).entries.find((each) => each.id === id);
const filed = async (name: string, bytes: Uint8Array) => {
  const id = await room.documentOf(name, bytes);
  await room.file(id, name, 'Workshop');
  return id;
};
const entryOf = async (documentId: string): Promise<Entry | undefined> =>
  (await ledger()).entries.find(({ papers }) => papers.some((paper) => paper.documentId === documentId));
const booksOf = (id: string) => room.ask(endpoints.paperBooks, { params: { id }, query: {} });

/** The cells of the first sheet of a workbook (ISO/IEC 29500), row by row. */
function cellsOf(xlsx: Buffer): string[][] {
  const files = unzipSync(xlsx);
  const textIn = (xml: string) =>
    [...xml.matchAll(/<t[^>]*>([^<]*)<\/t>/g)].map(([, text]) => text.replaceAll('&amp;', '&')).join('');
  const shared = [...strFromU8(files['xl/sharedStrings.xml']).matchAll(/<si>(.*?)<\/si>/gs)].map(([, si]) =>
    textIn(si),
  );
  const column = (reference: string) =>
    [...reference.replace(/\d/g, '')].reduce((at, letter) => at * 26 + letter.charCodeAt(0) - 64, 0) - 1;
  return [...strFromU8(files['xl/worksheets/sheet1.xml']).matchAll(/<row[^>]*>(.*?)<\/row>/gs)].map(([, row]) => {
    const cells: string[] = [];
    for (const [, head, value] of row.matchAll(/<c ([^>]*)>.*?<v>([^<]*)<\/v>.*?<\/c>/gs))
      cells[column(/r="([A-Z]+\d+)"/.exec(head)![1])] = /t="s"/.test(head) ? shared[Number(value)] : value;
    return cells;
  });
}

const statement = async (
  text: string,
  given: { name?: string; look?: boolean; accountId?: string; another?: boolean; turned?: boolean } = {},
): Promise<StatementRead> => {
  const query = { name: 'bank.csv', ...given };
  const { status, body } = await room.request('PUT', addressOf(endpoints.sendStatement, { query }), {
    body: Buffer.from(text),
    headers: { 'content-type': 'application/octet-stream' },
  });
  if (status >= 400) throw new Error((body as ProblemReport).happened);
  return body as StatementRead;
};

describe('a bill that is filed', () => {
  it('is entered by the same: who, number, days, sums, treatment of its tax', async () => {
    const id = await room.documentOf('saltgate.pdf', await bill('Saltgate Yarns Ltd', 'S-118'));
    const before = await booksOf(id);
    expect(before).toMatchObject({ as: 'entry', enters: true, said: false, problems: [], units: 12_000, entry: null });
    // Nobody has said what yarn is under; its name tells.
    expect(before.why).toEqual({ code: 'word', text: 'yarns' });
    await room.file(id, 'Saltgate', 'Workshop');
    expect(await entryOf(id)).toMatchObject({
      who: 'Saltgate Yarns Ltd',
      number: 'S-118',
      day: '2026-10-02',
      due: '2026-11-01',
      currency: 'GBP',
      units: 12_000,
      paid: 0,
      papers: [{ documentId: id, name: 'Saltgate', role: 'proof' }],
      parts: [{ categoryId: category('Materials'), taxCode: 'GB-S', rate: 20, net: 10_000, tax: 2_000 }],
    });
  });

  it('has the usual category of its sender, and what a person chose for this one', async () => {
    const first = await room.documentOf('one.pdf', await bill('Avery Stores', 'A-1'));
    const parts = (await booksOf(first)).parts.map((part) => ({ ...part, categoryId: category('Office') }));
    await room.ask(endpoints.changePaperBooks, { params: { id: first }, body: { parts, accountId: bank() } });
    await room.file(first, 'One', 'Workshop');
    expect(await entryOf(first)).toMatchObject({ accountId: bank(), parts: [{ categoryId: category('Office') }] });
    const second = await room.documentOf('two.pdf', await bill('Avery Stores', 'A-2'));
    expect(await booksOf(second)).toMatchObject({
      why: { code: 'usual', text: '1' },
      accountId: bank(),
      parts: [{ categoryId: category('Office') }],
    });
  });

  it('is split over categories as long as that comes to its total', async () => {
    const id = await room.documentOf('split.pdf', await bill('Thorne Hardware', 'T-7'));
    const part = { taxCode: 'GB-S', rate: 20 };
    const parts = [
      { ...part, categoryId: category('House'), net: 4_000, tax: 800 },
      { ...part, categoryId: category('Office'), net: 6_000, tax: 1_200 },
    ];
    await room.ask(endpoints.changePaperBooks, { params: { id }, body: { parts } });
    const nowhere = [{ ...parts[0], categoryId: bank() }, parts[1]];
    const strange = { params: { id }, body: { parts: nowhere } };
    expect(await room.refusal(endpoints.changePaperBooks, strange)).toMatchObject({ code: 'not-found' });
    const short = parts.slice(1);
    expect(await room.refusal(endpoints.changePaperBooks, { params: { id }, body: { parts: short } })).toMatchObject({
      code: 'entry-sums',
    });
    await room.file(id, 'Split', 'Workshop');
    expect((await entryOf(id))!.parts).toEqual(parts);
  });

  it('is not entered where its sums do not come to the total, and can be once they are put right', async () => {
    const id = await room.documentOf('wrong.pdf', await bill('Marsh & Daughter', 'M-3', { total: '£150.00' }));
    expect((await booksOf(id)).problems).toContain('not-adding-up');
    await room.file(id, 'Wrong', 'Workshop');
    expect(await entryOf(id)).toBeUndefined();
    expect(await room.refusal(endpoints.enterPaper, { params: { id } })).toMatchObject({ code: 'paper-not-entered' });
    await room.ask(endpoints.changeFact, {
      params: { id, name: 'total' },
      body: { value: '120.00', pageId: null, box: null },
    });
    await room.ask(endpoints.enterPaper, { params: { id } });
    expect(await entryOf(id)).toMatchObject({ units: 12_000, who: 'Marsh & Daughter' });
  });

  it('is not entered twice, nor when a person says that it is not, and the next of that sender is not either', async () => {
    const again = await room.documentOf('again.pdf', await bill('Saltgate Yarns Ltd', 'S-118'));
    expect(await booksOf(again)).toMatchObject({ enters: false, problems: ['entered-already'] });
    const unwanted = await room.documentOf('unwanted.pdf', await bill('Bramble Club', 'B-1'));
    await room.ask(endpoints.changePaperBooks, { params: { id: unwanted }, body: { enters: false } });
    await room.file(unwanted, 'Unwanted', 'Workshop');
    expect(await entryOf(unwanted)).toBeUndefined();
    const next = await room.documentOf('next.pdf', await bill('Bramble Club', 'B-2'));
    expect((await booksOf(next)).enters).toBe(false);
  });

  it('goes from the books when it is taken back, and comes back as it is then', async () => {
    const id = await filed('back.pdf', await bill('Pell Dye Works', 'P-9'));
    const { serial } = (await entryOf(id))!;
    await room.ask(endpoints.unfileDocument, { params: { id } });
    expect(await entryOf(id)).toBeUndefined();
    await room.ask(endpoints.changeFact, {
      params: { id, name: 'number' },
      body: { value: 'P-10', pageId: null, box: null },
    });
    await room.file(id, 'Back', 'Workshop');
    expect(await entryOf(id)).toMatchObject({ serial, number: 'P-10' });
  });

  it('is attached to the entry that lacks a paper, when it is surely of that one', async () => {
    const entry = await make({ who: 'Corvin Energy', number: 'CE-77', units: 12_000, day: '2026-10-02' });
    const id = await room.documentOf('energy.pdf', await bill('Corvin Energy', 'CE-77'));
    expect(await booksOf(id)).toMatchObject({
      enters: false,
      attachTo: entry.id,
      fits: [{ id: entry.id, sure: true, alike: ['number', 'amount', 'who', 'day'] }],
    });
    await room.file(id, 'Energy', 'Workshop');
    expect((await entryNow(entry))!.papers).toMatchObject([{ documentId: id, role: 'proof' }]);
    // And comes off again when it is taken back, until it is filed again, whatever it says then.
    await room.ask(endpoints.unfileDocument, { params: { id } });
    expect((await entryNow(entry))!.papers).toEqual([]);
    for (const [name, value] of [
      ['number', 'Q-1'],
      ['vendor', 'Somebody Else'],
    ] as const)
      await room.ask(endpoints.changeFact, { params: { id, name }, body: { value, pageId: null, box: null } });
    expect(await booksOf(id)).toMatchObject({ enters: false, attachTo: entry.id });
    await room.file(id, 'Energy', 'Workshop');
    expect((await entryNow(entry))!.papers).toMatchObject([{ documentId: id }]);
  });

  it('negative as a credit note; a reminder hangs on the bill that it reminds of', async () => {
    const credit = await filed(
      'credit.pdf',
      await textPdf(
        'Saltgate Yarns Ltd\nMill Lane 4, Wickford\n\nCredit note\nCredit note number: C-5\nDate: 9 October 2026\n\nNet £10.00\nVAT 20% £2.00\nTotal £12.00',
      ),
    );
    expect(await entryOf(credit)).toMatchObject({ units: -1200, parts: [{ net: -1000, tax: -200 }] });
    const before = (await ledger()).entries.length;
    const reminder = await filed(
      'reminder.pdf',
      await textPdf(
        'Saltgate Yarns Ltd\nMill Lane 4, Wickford\n\nPayment reminder\nOur invoice S-118 of 2 October 2026 has not been paid.\nInvoice number: S-118\nDate: 20 November 2026\nTotal due £120.00',
      ),
    );
    expect((await ledger()).entries).toHaveLength(before);
    expect(await entryOf(reminder)).toMatchObject({ number: 'S-118', units: 12_000 });
  });
});

describe('an entry', () => {
  it('is typed without a paper, changed with what it was kept, taken out and put back', async () => {
    const made = await make();
    const changed = await room.ask(endpoints.changeEntry, {
      params: { id: made.id },
      body: { ...fields({ who: 'Quayside Parcels Ltd' }), revision: made.revision },
    });
    expect(changed).toMatchObject({ who: 'Quayside Parcels Ltd', revision: 2, serial: made.serial });
    expect(await room.ask(endpoints.entryVersions, { params: { id: made.id } })).toMatchObject([
      { revision: 1, by: expect.any(String) as string, was: { who: 'Quayside Parcels' } },
    ]);
    const stale = { params: { id: made.id }, body: { ...fields(), revision: 1 } };
    expect(await room.refusal(endpoints.changeEntry, stale)).toMatchObject({ code: 'entry-changed' });
    await room.ask(endpoints.takeOutEntry, { params: { id: made.id } });
    expect(await entryNow(made)).toBeUndefined();
    await room.ask(endpoints.putBackEntry, { params: { id: made.id } });
    expect(await entryNow(made)).toMatchObject({ who: 'Quayside Parcels Ltd' });
  });

  it('is of a day that there is, and of an amount that can be counted', async () => {
    for (const wrong of [fields({ day: '2026-02-30' }), fields({ units: 1e18 })])
      expect(await room.refusal(endpoints.makeEntry, { body: wrong })).toMatchObject({
        code: 'not-valid',
        status: 400,
      });
  });

  it('adds up, and names what there is', async () => {
    const off = fields({ units: 999 });
    off.parts[0].net = 3140;
    expect(await room.refusal(endpoints.makeEntry, { body: off })).toMatchObject({ code: 'entry-sums' });
    const nowhere = fields({ accountId: '11111111-1111-4111-8111-111111111111' });
    expect(await room.refusal(endpoints.makeEntry, { body: nowhere })).toMatchObject({ code: 'not-found' });
  });

  it('does not change once it is checked, until it is unlocked, and both are in the history', async () => {
    const made = await make();
    await room.ask(endpoints.checkEntries, { body: { ids: [made.id], checked: true } });
    const change = { params: { id: made.id }, body: { ...fields(), revision: 1 } };
    expect(await room.refusal(endpoints.changeEntry, change)).toMatchObject({ code: 'entry-checked' });
    expect(await room.refusal(endpoints.takeOutEntry, { params: { id: made.id } })).toMatchObject({
      code: 'entry-checked',
    });
    await room.ask(endpoints.checkEntries, { body: { ids: [made.id], checked: false } });
    await room.ask(endpoints.changeEntry, change);
    const deeds = (await room.ask(endpoints.listHistory, { query: {} })).filter(
      ({ subjectId }) => subjectId === made.id,
    );
    expect(deeds.map(({ action }) => action)).toEqual(['changed', 'unlocked', 'checked', 'entered']);
  });

  it('paid in cash is paid at once', async () => {
    expect(await make({ accountId: cash() })).toMatchObject({ units: 3140, paid: 3140 });
  });
});

describe('a statement', () => {
  const HEAD = 'Date,Name,Details,Amount,Balance\n';
  const FIRST = `${HEAD}03/11/2026,Lisle Printing,LP-501 labels,-48.00,952.00\n04/11/2026,Corner Grocer,card,-3.10,948.90\n`;

  it('is looked at before it is taken in: what it says, which account, what is missing', async () => {
    const seen = await statement(
      `${HEAD}03/11/2026,Lisle Printing,LP-501 labels,-48.00,952.00\n09/11/2026,Corner Grocer,card,-3.10,900.00\n`,
      { look: true },
    );
    expect(seen).toMatchObject({
      format: 'csv',
      currency: 'GBP',
      first: '2026-11-03',
      last: '2026-11-09',
      fresh: 2,
      known: 0,
      accountId: bank(),
      id: null,
      gaps: [{ day: '2026-11-09', units: -4890 }],
      sample: [{ day: '2026-11-03', units: -4800, who: 'Lisle Printing' }, {}],
    });
    expect((await ledger()).lines).toEqual([]);
  });

  it('has its lines in the books once, however files overlap', async () => {
    const taken = await statement(FIRST);
    expect(taken).toMatchObject({ fresh: 2, known: 0, accountId: bank() });
    const more = await statement(`${FIRST}05/11/2026,Corner Grocer,card,-3.10,945.80\n`, { name: 'more.csv' });
    expect(more).toMatchObject({ fresh: 1, known: 2 });
    expect((await ledger()).lines.map(({ units }) => units)).toEqual([-4800, -310, -310]);
    expect(await room.ask(endpoints.listStatements, {})).toMatchObject([
      { name: 'more.csv', lines: 1 },
      { name: 'bank.csv', lines: 2 },
    ]);
  });

  it('pays entries by ties that are proposed, made at a word, and come off', async () => {
    const entry = await make({ who: 'Lisle Printing', number: 'LP-501', units: 4800, day: '2026-10-20' });
    await room.workOnAll();
    const [tie] = (await ledger()).ties.filter(({ entries }) => entries.includes(entry.id));
    expect(tie).toMatchObject({ made: false, sure: true });
    expect((await entryNow(entry))!.paid).toBe(0);
    await room.ask(endpoints.takeTies, { body: { ids: [tie.id] } });
    expect((await entryNow(entry))!.paid).toBe(4800);
    await room.workOnAll();
    const [file] = (await room.ask(endpoints.listStatements, {})).filter(({ name }) => name === 'bank.csv');
    expect(await room.refusal(endpoints.takeOutStatement, { params: { id: file.id } })).toMatchObject({
      code: 'statement-tied',
      happened: '1 of its lines are tied to entries.',
    });
    await room.ask(endpoints.takeOffTies, { body: { ids: [tie.id], refuse: true } });
    await room.workOnAll();
    expect((await entryNow(entry))!.paid).toBe(0);
    // What was refused is not proposed again.
    expect((await ledger()).ties.filter(({ entries }) => entries.includes(entry.id))).toEqual([]);
  });

  it('is tied by hand as well, each line once', async () => {
    const { lines } = await ledger();
    const entry = await make({ who: 'Corner Grocer', units: 620 });
    const grocer = lines.filter(({ who }) => who === 'Corner Grocer').map(({ id }) => id);
    await room.ask(endpoints.makeTie, { body: { entries: [entry.id], lines: grocer } });
    expect((await entryNow(entry))!.paid).toBe(620);
    const twice = { body: { entries: [entry.id], lines: [grocer[0]] } };
    expect(await room.refusal(endpoints.makeTie, twice)).toMatchObject({ code: 'line-tied' });
  });

  it('is free again when the entry that it was tied to is taken out, and that one comes back with what is left', async () => {
    await statement(`${HEAD}20/11/2026,Thorne Hardware,TH-88,-77.00,868.80\n`, { name: 'thorne.csv' });
    const [first, second] = [
      await make({ who: 'Thorne', units: 7700 }),
      await make({ who: 'Thorne Hardware', units: 7700 }),
    ];
    const [booked] = (await ledger()).lines.filter(({ units }) => units === -7700);
    const tieTo = (id: string) => room.ask(endpoints.makeTie, { body: { entries: [id], lines: [booked.id] } });
    await tieTo(first.id);
    await room.ask(endpoints.takeOutEntry, { params: { id: first.id } });
    await tieTo(second.id);
    expect((await room.ask(endpoints.putBackEntry, { params: { id: first.id } })).paid).toBe(0);
    expect((await entryNow(second))!.paid).toBe(7700);
    for (const { id } of [first, second]) await room.ask(endpoints.takeOutEntry, { params: { id } });
  });

  it('of another account makes that account; of one that can’t be read nothing is taken in', async () => {
    const mt940 =
      ':20:A\n:25:12345678/0001234567\n:28C:1/1\n:60F:C261101EUR100,00\n:61:2611031103D19,00NMSCNONREF\n:86:Portokasse\n:62F:C261103EUR81,00\n';
    const other = await statement(mt940, { name: 'konto.sta' });
    expect(other).toMatchObject({ format: 'mt940', currency: 'EUR', fresh: 1, gaps: [] });
    const { accounts } = await room.ask(endpoints.readBooks, {});
    expect(accounts.find(({ id }) => id === other.accountId)).toMatchObject({ currency: 'EUR' });
    const before = (await ledger()).lines.length;
    await expect(statement('hello', { name: 'hello.csv' })).rejects.toThrow('“hello.csv” can’t be read');
    await expect(statement('', { name: 'empty.csv' })).rejects.toThrow('can’t be read');
    expect((await ledger()).lines).toHaveLength(before);
    // A person may say that it is of none that is there, whatever it seems to be of.
    const own = await statement(`${HEAD}21/11/2026,Ferry,card,-4.00,\n`, { accountId: bank(), another: true });
    expect(accounts.map(({ id }) => id)).not.toContain(own.accountId);
    await room.ask(endpoints.takeOutStatement, { params: { id: own.id! } });
    // Taken out again, it is gone.
    await room.ask(endpoints.takeOutStatement, { params: { id: other.id! } });
    expect((await ledger()).lines).toHaveLength(before - 1);
  });
});

it('categories and accounts are added, renamed and retired', async () => {
  const made = await room.ask(endpoints.makeCategory, { body: { name: 'Sheep', side: 'cost' } });
  await room.ask(endpoints.changeCategory, { params: { id: made.id }, body: { name: 'Flock' } });
  await room.ask(endpoints.changeCategory, { params: { id: made.id }, body: { retired: true } });
  const card = await room.ask(endpoints.makeAccount, {
    body: { name: 'Card', kind: 'card', currency: 'GBP', number: '' },
  });
  await room.ask(endpoints.changeAccount, { params: { id: card.id }, body: { number: '4021' } });
  await room.ask(endpoints.changeBooks, { body: { country: 'DE' } });
  const now = await room.ask(endpoints.readBooks, {});
  expect(now.country).toBe('DE');
  expect(now.categories.find(({ id }) => id === made.id)).toEqual({ ...made, name: 'Flock', retired: true });
  expect(now.accounts.find(({ id }) => id === card.id)).toMatchObject({ name: 'Card', number: '4021' });
  await room.ask(endpoints.changeBooks, { body: { country: 'GB' } });
});

describe('the books go out', () => {
  const saved = async (as: LedgerForm, year?: string) => {
    const { raw, status } = await room.request('GET', addressOf(endpoints.exportLedger, { query: { as, year } }));
    expect(status).toBe(200);
    return Buffer.from(raw);
  };
  /** What the entries come to under a category, in pence. */
  const under = async (id: string | null) => {
    const { entries } = await ledger();
    return entries
      .filter(({ currency }) => currency === 'GBP')
      .flatMap(({ parts }) => parts)
      .reduce((sum, { categoryId, net }) => sum + (categoryId === id ? net : 0), 0);
  };

  it('as a journal of double entries, whose balances are those of the program to the penny', async () => {
    const path = join(folder, 'books.journal');
    writeFileSync(path, await saved('journal'));
    const hledger = (...args: string[]) => execFileSync('hledger', ['-f', path, ...args], { encoding: 'utf8' });
    hledger('check', '--strict', 'balancednoautoconversion', 'ordereddates');
    const rows = hledger('balance', '--flat', '-O', 'csv', '--layout', 'bare', 'cur:GBP')
      .trim()
      .split('\n')
      .slice(1)
      .map((row) => row.replace(/"/g, '').split(','));
    const balance = (account: string) =>
      rows.filter(([name]) => name === account).reduce((sum, row) => sum + Math.round(Number(row.at(-1)) * 100), 0);
    for (const name of ['Materials', 'Office', 'House', 'Post and carriage'])
      expect(balance(`expenses:${name}`)).toBe(await under(category(name)));
    const { entries, lines } = await ledger();
    const open = entries
      .filter(({ currency, accountId }) => currency === 'GBP' && accountId !== cash())
      .reduce((sum, { units, paid }) => sum + units - paid, 0);
    expect(balance('liabilities:open')).toBe(-open);
    expect(balance('assets:Bank account')).toBe(lines.at(-1)!.balance);
  });

  it('as a spreadsheet and as data, with a row a share; of a year alone where that is asked', async () => {
    const [csv, json] = [(await saved('csv')).toString(), JSON.parse((await saved('json')).toString()) as SavedJson];
    const { entries } = await ledger();
    const shares = entries.flatMap(({ parts }) => parts);
    expect(csv.trim().split('\n')).toHaveLength(shares.length + 1);
    expect(csv).toContain('Saltgate Yarns Ltd');
    expect(json.entries.map(({ total }) => total)).toContain('120.00');
    const cells = cellsOf(await saved('xlsx'));
    const [currencyAt, totalAt] = ['Currency', 'Total'].map((name) => cells[0].indexOf(name));
    const sumIn = (currency: string) =>
      cells
        .filter((row) => row[currencyAt] === currency)
        .reduce((sum, row) => sum + Math.round(100 * Number(row[totalAt])), 0);
    for (const currency of new Set(entries.map((each) => each.currency)))
      expect(sumIn(currency)).toBe(
        entries.filter((each) => each.currency === currency).reduce((sum, { units }) => sum + units, 0),
      );
    expect((await saved('csv', '1999')).toString().trim().split('\n')).toHaveLength(1);
  });
});

describe('what is to be paid', () => {
  const IBAN = 'DE44500105175407324931';
  let owed: Entry;
  beforeAll(async () => {
    const id = await filed(
      'spinnerei.pdf',
      await textPdf(
        `Spinnerei Wiesengrund GmbH\nAm Bach 3, 88212 Ravensburg\n\nRechnung\nRechnungsnummer: 2026-0209\nDatum: 05.11.2026\n\nNetto 100,00 EUR\nMwSt. 19 % 19,00 EUR\nGesamtbetrag 119,00 EUR\n\nIBAN: DE44 5001 0517 5407 3249 31`,
      ),
    );
    owed = (await entryOf(id))!;
  });

  it('is shown as a payment code, by the account that its paper says', async () => {
    const payment = await room.ask(endpoints.entryPayment, { params: { id: owed.id } });
    expect(payment).toMatchObject({
      iban: IBAN,
      units: 11_900,
      currency: 'EUR',
      reference: '2026-0209',
      problem: null,
    });
    expect(payment.code!.length).toBeGreaterThan(20);
    const pounds = await make({ units: 500 });
    expect(await room.ask(endpoints.entryPayment, { params: { id: pounds.id } })).toMatchObject({
      problem: 'not-euro',
      code: null,
    });
  });

  it('goes to a bank as a file of transfers, once it is known who pays, and never half of it', async () => {
    const { id: accountId } = await room.ask(endpoints.makeAccount, {
      body: { name: 'Konto', kind: 'bank', currency: 'EUR', number: 'FR14 2004 1010 0505 0001 3M02 606' },
    });
    const body = { ids: [owed.id], accountId, on: '2026-12-01' };
    expect(await room.refusal(endpoints.savePayments, { body })).toMatchObject({ code: 'payer-not-known' });
    await room.ask(endpoints.changeBooks, { body: { holder: 'Imre Castellane' } });
    const { status, raw } = await room.request('POST', addressOf(endpoints.savePayments, {}), { body });
    expect(status).toBe(200);
    const xml = Buffer.from(raw).toString();
    for (const said of ['<CtrlSum>119.00</CtrlSum>', IBAN, '<Ustrd>2026-0209</Ustrd>', '<Dt>2026-12-01</Dt>'])
      expect(xml).toContain(said);
    const pounds = await make({ units: 700, who: 'Avery Stores' });
    const both = { body: { ...body, ids: [owed.id, pounds.id] } };
    expect((await room.refusal(endpoints.savePayments, both)).happened).toContain('Avery Stores, can’t be paid');
  });
});

it('a period goes to whoever does the accounts as one archive that needs no program', async () => {
  const query = { from: '2026-10-01', to: '2026-11-30' };
  const { raw } = await room.request('GET', addressOf(endpoints.exportPeriod, { query }));
  const path = join(folder, 'period.zip');
  writeFileSync(path, Buffer.from(raw));
  const files = await withZip(path, 'period.zip', async (all) => {
    const read = new Map<string, Buffer>();
    for (const file of all) {
      const pieces: Uint8Array[] = [];
      for await (const piece of file.read()) pieces.push(piece);
      read.set(file.path, Buffer.concat(pieces));
    }
    return read;
  });
  const names = [...files.keys()];
  expect(names).toEqual(
    expect.arrayContaining([
      'index.html',
      'Ledger.xlsx',
      'Ledger.csv',
      'Ledger.journal',
      'Missing.csv',
      'Statements/bank.csv',
    ]),
  );
  const [paper] = names.filter((name) => name.startsWith('Papers/2026-10/Saltgate Yarns Ltd S-118 entry'));
  expect(files.get(paper)!.subarray(0, 5).toString()).toBe('%PDF-');
  const page = files.get('index.html')!.toString();
  expect(page).toContain(paper.split('/').map(encodeURIComponent).join('/'));
  // Every link of the page leads to a file of the archive.
  for (const [, address] of page.matchAll(/href="([^"]+)"/g)) expect(names).toContain(decodeURIComponent(address));
  expect(files.get('Missing.csv')!.toString()).toContain('Quayside Parcels Ltd, 2026-10-02: no paper.');
});

interface SavedJson {
  entries: { total: string }[];
}
