import { Books, Entry, EntryFields } from '@crow/contract/ledger';
import { addDays } from '@crow/core/shelf/days';
import { writeMoney } from '@crow/core/money';
import { seededRandom } from './random';

/** Something that the studio or the household pays, or is paid, every so many months, and has no paper for. */
interface Regular {
  who: string;
  what: string;
  category: string;
  /** Day of the month. */
  on: number;
  every: number;
  /** Of pence; minus for what comes in. */
  units: (month: number) => number;
}

const REGULARS: Regular[] = [
  {
    who: 'Corn Hall Gallery',
    what: 'Scarves sold on commission',
    category: 'Sales',
    on: 9,
    every: 1,
    units: (month) => -(18_400 + ((month * 7_919) % 21_300)),
  },
  {
    who: 'Market stall',
    what: 'Takings, paid in',
    category: 'Sales',
    on: 24,
    every: 1,
    units: (month) => -(9_650 + ((month * 4_733) % 17_450)),
  },
  { who: 'Orrin Harbour Bank', what: 'Account charge', category: 'Fees and advice', on: 1, every: 1, units: () => 650 },
  {
    who: 'Pell & Wren Bookkeeping',
    what: 'Quarterly return',
    category: 'Fees and advice',
    on: 18,
    every: 3,
    units: () => 9_600,
  },
  {
    who: 'Wickford Primary School',
    what: 'School lunches',
    category: 'School',
    on: 5,
    every: 1,
    units: (month) => 4_830 - ((month * 253) % 1_150),
  },
];

const firstOf = (today: string, months: number): string => {
  const [year, month] = today.split('-').map(Number);
  return new Date(Date.UTC(year, month - 1 - months, 1)).toISOString().slice(0, 10);
};

/** What was typed into the books over some months before a day, without a paper. @param today ISO 8601 */
export function typedEntries(today: string, months: number, books: Books): EntryFields[] {
  const entries: EntryFields[] = [];
  for (let back = months; back >= 1; back--)
    for (const { who, what, category, on, every, units } of REGULARS) {
      if (back % every !== 0) continue;
      const sum = units(back);
      const categoryId = books.categories.find(({ name }) => name === category)?.id ?? null;
      entries.push({
        day: addDays(firstOf(today, back), on - 1),
        due: null,
        who,
        what,
        number: '',
        currency: 'GBP',
        units: sum,
        accountId: null,
        ownUnits: null,
        parts: [{ categoryId, taxCode: 'GB-N', rate: null, net: sum, tax: 0 }],
      });
    }
  return entries;
}

/** What goes through the account and is in no entry. */
const UNKNOWN = ['CASH WITHDRAWAL QUAY ST', 'CORNER GROCER 0417', 'SEAWALL CAFE'];
/** What is laid by each month, and the last figures of the account where it goes. */
export const SAVINGS = { name: 'Rainy day savings', number: '40172290', on: 27, units: 15_000, opening: 204_000 };
const OPENING = 1_412_350;

/**
 * The statement of the studio's bank as a CSV file: what entries come to some days after their bills, a few that are not paid yet, and lines
 * that nobody has entered. Names are as banks write them.
 * @param until the last day of it (ISO 8601)
 */
export function bankStatement(entries: readonly Entry[], until: string): string {
  const random = seededRandom(29);
  const lines: StatementRow[] = [];
  for (const { day, due, who, number, units, currency } of entries) {
    const paidOn = units < 0 || !number ? addDays(day, 1) : addDays(due ?? day, Math.floor(random() * 9) - 6);
    const isLate = random() < 0.05;
    if (paidOn > until || isLate) continue;
    // What is owed in other money leaves the account in its own.
    const pounds = currency === 'GBP' ? units : Math.round(units * 0.862);
    const name = who
      .toUpperCase()
      .replace(/[^A-Z0-9& ]/g, '')
      .slice(0, 18)
      .trim();
    lines.push({ day: paidOn, text: `${name} ${random() < 0.75 ? number : ''}`.trim(), units: -pounds });
  }
  const first = lines.reduce((least, { day }) => (day < least ? day : least), until);
  for (let day = first; day < until; day = addDays(day, 11 + Math.floor(random() * 9)))
    lines.push({
      day,
      text: UNKNOWN[Math.floor(random() * UNKNOWN.length)],
      units: -(400 + Math.floor(random() * 4_000)),
    });
  for (const { day, units } of laidBy(first, until))
    lines.push({ day, text: `TO SAVINGS ${SAVINGS.number}`, units: -units });
  return writtenStatement(lines, OPENING);
}

/** The statement of the savings account: what was laid by, and what it bore. */
export function savingsStatement(from: string, until: string): string {
  const laid = laidBy(from, until).map(({ day, units }) => ({
    day: addDays(day, 1),
    text: 'FROM CURRENT ACCOUNT',
    units,
  }));
  const interest = laid
    .filter(({ day }) => day.slice(5, 7) === '12')
    .map(({ day }) => ({ day: `${day.slice(0, 4)}-12-31`, text: 'INTEREST', units: 4_180 }))
    .filter(({ day }) => day <= until);
  return writtenStatement(
    [...laid, ...interest].filter(({ day }) => day <= until),
    SAVINGS.opening,
  );
}

interface StatementRow {
  day: string;
  text: string;
  units: number;
}

/** What was laid by on a day of each month between two days. */
function laidBy(from: string, until: string): { day: string; units: number }[] {
  const found: { day: string; units: number }[] = [];
  for (let day = from; day < until; day = addDays(day, 1))
    if (Number(day.slice(8)) === SAVINGS.on) found.push({ day, units: SAVINGS.units });
  return found;
}

function writtenStatement(lines: StatementRow[], opening: number): string {
  let balance = opening;
  const written = lines
    .sort((a, b) => (a.day < b.day ? -1 : 1))
    .map(({ day, text, units }) => {
      balance += units;
      const amount = writeMoney({ units: Math.abs(units), currency: 'GBP' });
      const [year, month, date] = day.split('-');
      return [
        `${date}/${month}/${year}`,
        text,
        units < 0 ? amount : '',
        units > 0 ? amount : '',
        writeMoney({ units: balance, currency: 'GBP' }),
      ].join(',');
    });
  return ['Date,Description,Paid out,Paid in,Balance', ...written].join('\n') + '\n';
}
