import fc from 'fast-check';
import { nameKey } from './names';
import {
  filedAs,
  folderBy,
  folderOf,
  nameBy,
  NameValues,
  patternProblem,
  PLACEHOLDERS,
  USUAL_WAY,
  wayFor,
  textBy,
  textProblem,
} from './pattern';

const bill: NameValues = {
  kind: 'invoice',
  who: 'Marlowe Dye Works',
  date: '2026-03-05',
  due: '2026-04-04',
  number: 'R-2291/26',
  amount: '1284.50',
  currency: 'EUR',
  scanned: '2026-03-07T19:04:33.000Z',
  folder: 'Workshop/Dyeing',
  pages: '2',
};

describe('a name by a pattern', () => {
  it.each([
    ['{date} {who} {kind}', '2026-03-05 Marlowe Dye Works Invoice'],
    ['{who}, {number} ({amount} {currency})', 'Marlowe Dye Works, R-2291-26 (1284.50 EUR)'],
    ['{date:D.M.YY} – {who}', '5.3.26 – Marlowe Dye Works'],
    ['{date:MMMM YYYY} {amount:,}', 'March 2026 1284,50'],
    ['{date:DD MMM} due {due:DD.MM.}', '05 Mar due 04.04'],
    ['Scan {scanned}', 'Scan 2026-03-07 19.04'],
    ['{scanned:YYYYMMDD-HHmmss} {folder}, {pages} pages', '20260307-190433 Dyeing, 2 pages'],
    ['{who}[ no. {number}][ tax {tax}]', 'Marlowe Dye Works no. R-2291-26'],
  ])('%s', (pattern, name) => {
    expect(nameBy(pattern, bill)).toBe(name);
  });

  it.each([
    ['{date} {who} {kind}', { who: 'Saltgate' }, 'Saltgate'],
    ['{date} - {who} - {kind}', { date: '2026-03-05', kind: 'letter' }, '2026-03-05 - Letter'],
    ['{who} {kind}', { who: 'Saltgate', kind: 'credit note' }, 'Saltgate Credit note'],
    ['{date} - {who}', { date: '2026-03-05' }, '2026-03-05'],
    ['{who} ({number})', { who: 'Saltgate' }, 'Saltgate'],
    ['{who}[ of {date:MMMM}[, {number}]]', { who: 'Saltgate', date: '2026-01-02' }, 'Saltgate of January'],
    ['Paper {number}', { kind: 'other' }, ''],
    ['{date} {who} {kind}', {}, ''],
  ])('leaves nothing over where a fact is missing: %s of %j', (pattern, values, name) => {
    expect(nameBy(pattern, values)).toBe(name);
  });

  it('counts up while the name is taken, or is numbered', () => {
    const taken = new Set(['saltgate 001', 'saltgate 002', 'rent'].map(nameKey));
    expect(nameBy('{who} {counter:3}', { who: 'Saltgate' }, taken)).toBe('Saltgate 003');
    expect(nameBy('{who}', { who: 'Rent' }, taken)).toBe('Rent (2)');
  });

  it('is one safe part of a path, whatever the facts say', () => {
    fc.assert(
      fc.property(fc.string({ maxLength: 400 }), fc.string({ maxLength: 60 }), (who, number) => {
        const name = nameBy('{who} {number} x', { who, number });
        expect(name).not.toMatch(/[/\\:*?"<>|\u0000-\u001f]/);
        expect(Buffer.byteLength(name)).toBeLessThanOrEqual(190);
      }),
    );
  });
});

it.each([
  ['{who', 'A “{” has no “}” after it.'],
  ['who}', 'A “}” has no “{” before it.'],
  ['[{who}', 'A “[” has no “]” after it.'],
  ['{who}]', 'A “]” has no “[” before it.'],
  ['{whom}', `“whom” is not known; there is ${Object.keys(PLACEHOLDERS).join(', ')}.`],
  ['  ', 'A pattern needs something in it.'],
  ['{date:YYYY}[ {who}]', undefined],
])('says what is wrong with %s', (pattern, problem) => {
  expect(patternProblem(pattern)).toBe(problem);
});

describe('ways of filing', () => {
  const bills = { ...USUAL_WAY, name: 'Bills', kinds: ['invoice', 'receipt'] };
  const dyeing = { ...USUAL_WAY, name: 'Dyeing', within: 'Workshop/Dyeing' };
  const ways = [USUAL_WAY, bills, dyeing];

  it('are chosen by folder before kind, and else the usual one', () => {
    expect(wayFor(ways, { kind: 'invoice', folder: 'Home' }).name).toBe('Bills');
    expect(wayFor(ways, { kind: 'invoice', folder: 'workshop/dyeing/2026' }).name).toBe('Dyeing');
    expect(wayFor(ways, { kind: 'letter', folder: 'Workshop/Dyeings' }).name).toBe('Usual');
    expect(wayFor([], {}).name).toBe('Usual');
  });

  it('send papers to folders by what is known of them', () => {
    expect(folderBy({ ...bills, folder: 'Bills/{date:YYYY}/{who}' }, bill)).toBe('Bills/2026/Marlowe Dye Works');
    expect(folderBy({ ...bills, folder: 'Bills/{date:YYYY}/{who}' }, { who: 'Saltgate' })).toBe('Bills/Saltgate');
    expect(folderBy(bills, bill)).toBeUndefined();
  });
});

describe('where a paper is filed', () => {
  const yarn = { ...USUAL_WAY, name: 'Yarn', folder: 'Workshop/{who}', pattern: '{who}' };

  it('is said by the way that somebody chose, else by where it lies, else by what is suggested', () => {
    const known = { there: 'Home', suggested: 'Workshop/Rent' };
    expect(folderOf(bill, { chosen: yarn, ...known })).toBe('Workshop/Marlowe Dye Works');
    expect(folderOf(bill, { chosen: USUAL_WAY, ...known })).toBe('Home');
    expect(folderOf(bill, { ...known, there: null })).toBe('Workshop/Rent');
    expect(folderOf(bill, {})).toBe('');
  });

  it('says how it is called, unless a way was chosen', () => {
    const inside = { ...yarn, within: 'Workshop' };
    expect(filedAs([USUAL_WAY, inside], bill, { folder: 'Workshop/Dyeing' })).toMatchObject({
      way: inside,
      name: 'Marlowe Dye Works',
    });
    expect(filedAs([USUAL_WAY, inside], bill, { folder: 'Home' }).way).toBe(USUAL_WAY);
    expect(filedAs([USUAL_WAY, inside], bill, { chosen: inside, folder: 'Home' }).way).toBe(inside);
  });
});

describe('a text by a pattern', () => {
  const values = { kind: 'invoice', who: 'Harbour Fibre Mill', date: '2026-03-14', number: 'HF-1' };
  it('is made line by line, as it is written where all is known', () =>
    expect(textBy('Dear {who},\n\nattached is no. {number} of {date:D MMMM}.\n', values)).toBe(
      'Dear Harbour Fibre Mill,\n\nattached is no. HF-1 of 14 March.\n',
    ));
  it('leaves out lines of which nothing is known, and what hangs on what is missing', () =>
    expect(textBy('{kind}[ over {amount} {currency}]\nDue on {due}\nRegards', values)).toBe('Invoice\nRegards'));
  it('says what is wrong in one of its lines', () => {
    expect(textProblem('Hello,\n{whom}')).toMatch(/“whom” is not known/);
    expect(textProblem('Hello,\n\n')).toBeUndefined();
  });
});
