import { seededRandom } from '@crow/demo/random';
import { OpenEntry } from '@crow/core/ledger/matching/entry';
import { StatementLine } from '@crow/core/ledger/statements/statement';

/** What made books are made of: whom they are about, how papers are numbered, how banks write names. */
export interface Vocabulary {
  suppliers: string[];
  customers: string[];
  /** Firms and persons of whom there is no paper. */
  others: string[];
  numbers: ((random: Random, counted: number, year: number) => string)[];
  purposes: ((number: string) => string)[];
  currency: string;
  foreign: string;
}

export type Random = () => number;

export interface Books {
  entries: OpenEntry[];
  lines: StatementLine[];
  /** Which belong together, by ids of entries and places of lines; of entries that are in twice, either may be meant. */
  truth: { entries: string[]; lines: number[] }[];
  /** Of lines that pay once more what was paid, the one before. */
  again: Map<number, number>;
  twins: Map<string, string>;
}

const DAY_MS = 86_400_000;
const BEGIN = Date.parse('2024-01-01T00:00:00Z');
const DAYS = 730;
const RATE = 1.17;
const iso = (day: number) => new Date(BEGIN + day * DAY_MS).toISOString().slice(0, 10);

/** Books of 24 months: bills and what the bank books, with noise in names and days, part payments, payments of several bills, and all else. */
export function makeBooks(words: Vocabulary, seed: number, { bills = 1500, lines: wanted = 2400 } = {}): Books {
  const random = seededRandom(seed);
  const pick = <Item>(items: readonly Item[]): Item => items[Math.floor(random() * items.length)];
  const between = (from: number, to: number) => from + Math.floor(random() * (to - from + 1));
  const made: { line: StatementLine; of: OpenEntry[]; key: number; again?: boolean }[] = [];
  const entries: OpenEntry[] = [];
  const twins = new Map<string, string>();
  const amount = () => (random() < 0.2 ? between(2, 90) * 1000 : Math.round(Math.exp(3.2 + random() * 5.5) * 100) / 1);
  let keys = 0;
  // Some send the same bill each month.
  const monthly = words.suppliers.slice(0, 9).flatMap((who) => {
    const [units, first] = [amount(), between(0, 27)];
    return Array.from({ length: 24 }, (_, month) => ({ who, units, day: Math.round(first + month * 30.4) }));
  });
  for (let counted = 0; counted < bills; counted++) {
    const same = monthly[counted];
    const incoming = !same && random() < 0.25;
    const who = same?.who ?? pick(incoming ? words.customers : words.suppliers.slice(9));
    const day = Math.min(DAYS - 1, same?.day ?? between(0, DAYS - 1));
    const units = (same?.units ?? amount()) * (incoming ? -1 : 1);
    const credit = !incoming && random() < 0.02;
    entries.push({
      id: `E${counted + 1}`,
      day: iso(day),
      due: random() < 0.6 ? iso(day + pick([0, 7, 10, 14, 14, 30, 30])) : null,
      who,
      number: pick(words.numbers)(random, counted, 2024 + Math.floor(day / 365)),
      units: Math.round(credit ? -units : units),
      currency: random() < 0.03 ? words.foreign : words.currency,
    });
  }
  const said = (entry: OpenEntry, other?: OpenEntry[]) => {
    const all = (other ?? [entry]).filter(() => random() < 0.75);
    const numbers = random() < 0.62 ? all.map(({ number }) => noisyNumber(number, random)) : [];
    const purpose =
      numbers.length > 0 ? pick(words.purposes)(numbers.join(' ')) : pick(['', '', 'THANK YOU', 'Zahlung', 'payment']);
    const name = random() < 0.93 ? noisyName(entry.who, random) : pick(['', 'PAYPAL', 'CARD PAYMENT']);
    return random() < 0.6 ? { who: name, text: purpose } : { who: '', text: `${purpose} ${name}`.trim() };
  };
  const pay = (
    of: OpenEntry[],
    units: number,
    day: number,
    about: { who: string; text: string },
    currency = words.currency,
  ) => {
    if (day >= DAYS || day < 0) return;
    const line = { day: iso(day), units: Math.round(units), currency, ...about, id: '', balance: null };
    made.push({ line, of, key: ++keys });
  };
  const dayOf = (entry: OpenEntry) => {
    const due = Math.round((Date.parse(entry.due ?? entry.day) - BEGIN) / DAY_MS) + (entry.due ? 0 : 10);
    const first = Math.round((Date.parse(entry.day) - BEGIN) / DAY_MS);
    const moved = random() < 0.75 ? between(-4, 6) : between(-20, 45);
    return Math.max(first, due + moved);
  };
  const open = new Set(entries);
  const groups = new Map<OpenEntry[], true>();
  // One payment for several bills of the same.
  for (const who of [...words.suppliers, ...words.customers]) {
    const own = entries
      .filter((entry) => entry.who === who && entry.currency === words.currency)
      .sort((a, b) => (a.day < b.day ? -1 : 1));
    for (let at = 0; at + 1 < own.length; at++) {
      if (random() > 0.05) continue;
      const size = between(2, 4);
      const group = own
        .slice(at, at + size)
        .filter((entry) => open.has(entry) && Math.abs(Date.parse(entry.day) - Date.parse(own[at].day)) < 60 * DAY_MS);
      if (group.length < 2) continue;
      group.forEach((entry) => open.delete(entry));
      groups.set(group, true);
      at += size;
    }
  }
  for (const group of groups.keys()) {
    const units = group.reduce((sum, entry) => sum + entry.units, 0);
    if (units !== 0) pay(group, -units, Math.max(...group.map(dayOf)), said(group[0], group));
  }
  for (const entry of open) {
    const way = random();
    const day = dayOf(entry);
    const { units } = entry;
    if (entry.currency !== words.currency) {
      // As it moves in two years.
      const rate = RATE * (1 + 0.05 * Math.sin(day / 90)) * (0.99 + random() * 0.02);
      const about = said(entry);
      if (random() < 0.6) about.text += ` ${entry.currency} ${(Math.abs(units) / 100).toFixed(2)}`;
      pay([entry], -units * rate, day, about);
    } else if (way < 0.1) continue;
    else if (way < 0.15 && units > 10_000) {
      const parts = between(2, 3);
      const first = Math.round((units * (0.3 + random() * 0.3)) / (parts - 1) / 100) * 100;
      let left = units;
      for (let part = 0; part < parts; part++) {
        const now = part === parts - 1 ? left : first;
        left -= now;
        pay([entry], -now, day + part * between(10, 30), said(entry));
      }
    } else if (way < 0.2 && units > 0)
      pay(
        [entry],
        -Math.round(units * (1 - pick([0.02, 0.03]))),
        Math.min(day, Math.round((Date.parse(entry.day) - BEGIN) / DAY_MS) + 10),
        said(entry),
      );
    else if (way < 0.23) pay([entry], -units - between(50, 250), day, said(entry));
    else {
      pay([entry], -units, day, said(entry));
      // Paid twice by mistake: one of the two belongs to nothing, whichever.
      if (random() < 0.01) {
        const before = made.length;
        pay([entry], -units, day + between(3, 20), said(entry));
        if (made.length > before) made.at(-1)!.again = true;
      }
    }
  }
  // Bills that were entered twice.
  for (const entry of entries.filter(() => random() < 0.015)) {
    const twin = { ...entry, id: `${entry.id}b` };
    entries.push(twin);
    twins.set(twin.id, entry.id);
    twins.set(entry.id, twin.id);
  }
  const salaries = words.others.slice(0, 3);
  while (made.length < wanted) {
    const day = between(0, DAYS - 1);
    const kind = random();
    if (kind < 0.1) pay([], -between(1800, 2600) * 100, day, { who: pick(salaries), text: 'Salary Lohn' });
    else if (kind < 0.2)
      pay([], -between(1, 20) * 50_000, day, { who: 'own savings account', text: 'transfer Umbuchung' });
    else if (kind < 0.3) pay([], -between(100, 990), day, { who: '', text: 'account fee Entgelt' });
    // Of those whom bills are from, too, without one.
    else if (kind < 0.4) pay([], -amount(), day, { who: noisyName(pick(words.suppliers), random), text: '' });
    else pay([], -amount(), day, { who: noisyName(pick(words.others), random), text: `card ${between(1000, 9999)}` });
  }
  made.sort((a, b) => (a.line.day < b.line.day ? -1 : a.line.day > b.line.day ? 1 : a.key - b.key));
  const truth = new Map<string, { entries: string[]; lines: number[] }>();
  const again = new Map<number, number>();
  made.forEach(({ of, again: isAgain }, at) => {
    if (of.length === 0) return;
    const key = of.map(({ id }) => id).join();
    if (isAgain) {
      const before = truth.get(key)?.lines[0];
      if (before) again.set(at + 1, before);
      return;
    }
    const tie = truth.get(key) ?? { entries: of.map(({ id }) => id), lines: [] };
    tie.lines.push(at + 1);
    truth.set(key, tie);
  });
  return { entries, lines: made.map(({ line }) => line), truth: [...truth.values()], again, twins };
}

function noisyNumber(number: string, random: Random): string {
  const way = random();
  if (way < 0.55) return number;
  if (way < 0.75) return number.replace(/[^\p{L}\p{N}]/gu, '');
  if (way < 0.9) return number.replace(/[^\d]+/g, ' ').trim();
  return number.replace(/[-/.]/g, ' ');
}

function noisyName(name: string, random: Random): string {
  let noisy = name;
  if (random() < 0.5) noisy = noisy.toUpperCase();
  if (random() < 0.4) noisy = noisy.replace(/\b(gmbh|ltd|limited|ag|kg|sarl|inc|& co\.?|llc|plc)\b\.?/gi, '').trim();
  if (random() < 0.5)
    noisy = noisy.replace(/[äÄ]/g, 'ae').replace(/[öÖ]/g, 'oe').replace(/[üÜ]/g, 'ue').replace(/ß/g, 'ss');
  if (random() < 0.25) noisy = noisy.slice(0, 12 + Math.floor(random() * 10));
  if (random() < 0.12) {
    const at = 1 + Math.floor(random() * (noisy.length - 2));
    noisy =
      random() < 0.5
        ? noisy.slice(0, at) + noisy.slice(at + 1)
        : noisy.slice(0, at) + noisy[at + 1] + noisy[at] + noisy.slice(at + 2);
  }
  if (random() < 0.08) noisy = noisy.replace(/ /g, '');
  if (random() < 0.06) noisy = `PAYPAL *${noisy}`;
  if (random() < 0.06) noisy = `${noisy} ${['HAMBURG', 'LONDON', 'LYON', 'BRISTOL'][Math.floor(random() * 4)]}`;
  return noisy;
}
