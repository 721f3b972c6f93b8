import Papa from 'papaparse';
import { fold } from '../../reading/facts/rows';
import { dayOrderIn, decimalSignIn, isSomeDay, looksLikeAmount, readDay, readUnits } from './fields';
import { Statement, StatementError, StatementLine } from './statement';

/** What a column of a bank's CSV holds. */
type ColumnRole = 'day' | 'amount' | 'out' | 'in' | 'side' | 'balance' | 'currency' | 'who' | 'text' | 'id' | 'nothing';

/** What the heads of columns say, folded to small letters without accents. */
const HEADS: { role: ColumnRole; says: RegExp }[] = [
  { role: 'balance', says: /\b(balance|bal|saldo|kontostand|solde)\b/ },
  {
    role: 'out',
    says: /\b(debit|soll|belastung|ausgang|ausgabe|lastschrift|withdrawals?|paid out|money out|payments?|spent)\b/,
  },
  { role: 'in', says: /\b(credit|haben|gutschrift|eingang|einnahme|deposits?|paid in|money in|receipts?|received)\b/ },
  {
    role: 'side',
    says: /\b(soll.?haben|s.?h|d.?c|c.?d|dr.?cr|debit.?credit|cdtdbt|sens|kennzeichen|indicator|sign|vorzeichen)\b/,
  },
  { role: 'amount', says: /\b(amount|betrag|umsatz|montant|value|wert|sum|summe|total)\b/ },
  { role: 'currency', says: /\b(currency|wahrung|devise|ccy|whg)\b/ },
  {
    role: 'who',
    says: /\b(name|payee|payer|beneficiary|counterparty|counter party|merchant|partner|empfanger|auftraggeber|zahlungspflichtiger|zahlungsempfanger|begunstigter|beguenstigter|beneficiaire|contrepartie|tiers|debitor|creditor|recipient|sender|to.?from|party)\b/,
  },
  { role: 'id', says: /\b(transaction id|fitid|bank reference|umsatz.?id|buchungs.?nr|id)\b/ },
];
const VALUE_DAY = /\b(value|valuta|wert|wertstellung|valeur)\b/;
const OUT =
  /^(s|d|dr|dbit|debit|debet|debito|soll|lastschrift|ausgang|ausgabe|belastung|out|-|af|cargo|adeudo|dare|addebito|expense|withdrawal)$/;
const IN =
  /^(h|c|cr|crdt|credit|credito|haben|gutschrift|eingang|einnahme|in|\+|bij|abono|avere|accredito|income|deposit)$/;
/** Of ISO 4217: codes of kinds of bookings have three letters, too. */
const CURRENCIES = new Set(Intl.supportedValuesOf('currency'));
/** Heads of amounts that are in the smallest unit. */
const IN_SMALLEST = /\b(minor|cents?|pence|centimes|rappen)\b/;
const MOST_SAMPLED = 400;

interface Table {
  head: string[];
  rows: string[][];
}

/**
 * Reads a bank's CSV of any dialect: delimiter, rows before the table, columns, the order in days and the sign before decimals are found
 * from what stands in it.
 */
export function readCsvStatement(text: string): Statement {
  const { head, rows } = tableIn(text);
  const roles = rolesOf(head, rows);
  const columns = (role: ColumnRole) => roles.flatMap((each, at) => (each === role ? [at] : []));
  const [dayAt] = columns('day');
  const amountsAt = [...columns('amount'), ...columns('out'), ...columns('in')];
  if (dayAt === undefined || amountsAt.length === 0)
    throw new StatementError('No column of days, or none of amounts, was found in it.');
  const [order, decimal] = [
    dayOrderIn(rows.map((row) => row[dayAt])),
    decimalSignIn(rows.flatMap((row) => amountsAt.map((at) => row[at]))),
  ];
  const [currencyAt] = columns('currency');
  const currencyOf = (row: string[]) => row[currencyAt]?.trim() || currencyIn(head, amountsAt) || null;
  const isInSmallest = amountsAt.some((at) => IN_SMALLEST.test(head[at]));
  const units = (row: string[], at: number | undefined) => {
    if (at === undefined || !row[at]?.trim()) return undefined;
    const whole = isInSmallest && /^[-+]?\d+$/.test(row[at].trim());
    return whole ? Number(row[at]) : readUnits(row[at], decimal, currencyOf(row));
  };
  const [amountAt, outAt, inAt, sideAt, balanceAt, idAt] = (
    ['amount', 'out', 'in', 'side', 'balance', 'id'] as const
  ).map((role) => columns(role)[0] as number | undefined);
  const lines = rows.flatMap((row): StatementLine[] => {
    const day = readDay(row[dayAt], order);
    const [paid, got] = [units(row, outAt), units(row, inAt)];
    let amount = units(row, amountAt);
    if (outAt !== undefined || inAt !== undefined)
      amount ??= got ? Math.abs(got) : paid ? -Math.abs(paid) : (got ?? paid);
    if (sideAt !== undefined && amount !== undefined) {
      const side = fold(row[sideAt] ?? '').trim();
      if (OUT.test(side)) amount = -Math.abs(amount);
      else if (IN.test(side)) amount = Math.abs(amount);
    }
    if (!day || amount === undefined) return [];
    const said = (role: ColumnRole) =>
      columns(role)
        // What spreadsheets put before text, so that it stays text.
        .map((at) => row[at]?.trim().replace(/^'(?=\S)/, ''))
        .filter(Boolean)
        .join(' ');
    return [
      {
        ...{ day, units: amount, currency: currencyOf(row), who: said('who'), text: said('text') },
        id: idAt === undefined ? '' : row[idAt].trim(),
        balance: units(row, balanceAt) ?? null,
      },
    ];
  });
  const signed =
    sideAt !== undefined || outAt !== undefined || inAt !== undefined || lines.some((line) => line.units < 0);
  return {
    ...{ format: 'csv', account: null, currency: lines[0]?.currency ?? null, opening: null, closing: null },
    lines: signed ? lines : signedByBalance(lines),
    signed: signed || lines.some(({ balance }) => balance !== null),
  };
}

/** The table in a CSV: what stands before and after it left out. */
function tableIn(text: string): Table {
  const all = DELIMITERS.map((delimiter) => Papa.parse<string[]>(text, { delimiter, skipEmptyLines: 'greedy' }).data);
  const judged = all.map((rows) => ({ rows, data: rows.filter(isBooking) }));
  const [best] = judged.sort((a, b) => b.data.length - a.data.length || widthOf(b.data) - widthOf(a.data));
  if (best.data.length === 0) throw new StatementError('No bookings were found in it.');
  const width = widthOf(best.data);
  const rows = best.data.filter((row) => Math.abs(row.length - width) <= 1);
  const first = best.rows.indexOf(rows[0]);
  const head = best.rows
    .slice(0, first)
    .findLast((row) => row.filter((cell) => cell.trim()).length >= 2 && row.length >= width - 1);
  return {
    head: Array.from({ length: width }, (_, at) =>
      fold(head?.[at] ?? '')
        .replace(/[^\p{L}\p{N}]+/gu, ' ')
        .trim(),
    ),
    rows: rows.map((row) => Array.from({ length: width }, (_, at) => row[at] ?? '')),
  };
}

const DELIMITERS = [';', ',', '\t', '|'];

function isBooking(row: string[]): boolean {
  return (
    row.length >= 3 &&
    row.some((cell) => cell.trim().length >= 6 && isSomeDay(cell)) &&
    row.some((cell) => !isSomeDay(cell) && looksLikeAmount(cell))
  );
}

/** How many columns most rows have. */
function widthOf(rows: readonly string[][]): number {
  const counts = new Map<number, number>();
  for (const { length } of rows) counts.set(length, (counts.get(length) ?? 0) + 1);
  return [...counts].sort((a, b) => b[1] - a[1])[0]?.[0] ?? 0;
}

/** What each column holds, by its head and by what stands in it. */
function rolesOf(head: readonly string[], given: readonly string[][]): ColumnRole[] {
  const rows = given.slice(0, MOST_SAMPLED);
  const cells = head.map((_, at) => rows.map((row) => row[at].trim()));
  const filled = cells.map((column) => column.filter(Boolean));
  const share = (at: number, fits: (cell: string) => boolean) =>
    filled[at].length === 0 ? 0 : filled[at].filter(fits).length / filled[at].length;
  const roles = head.map((): ColumnRole => 'text');
  const said = head.map((name) => HEADS.find(({ says }) => says.test(name))?.role);
  const isDays = head.map((_, at) => share(at, (cell) => cell.length >= 6 && isSomeDay(cell)) > 0.95);
  const days = head.flatMap((_, at) => (isDays[at] && filled[at].length > rows.length * 0.8 ? [at] : []));
  const booked = days.find((at) => !VALUE_DAY.test(head[at])) ?? days[0];
  for (const at of head.keys()) if (isDays[at]) roles[at] = at === booked ? 'day' : 'nothing';
  const numeric = head.flatMap((_, at) => (!isDays[at] && share(at, looksLikeAmount) > 0.97 ? [at] : []));
  // Amounts have decimals; numbers of accounts and the like have none, nor do they all have the same length.
  const withDecimals = numeric.filter((at) => share(at, (cell) => /[.,]\d{2}\D*$/.test(cell)) > 0.5);
  const amounts =
    withDecimals.length > 0 ? withDecimals : numeric.filter((at) => said[at] !== undefined && said[at] !== 'id');
  const balance = amounts.length > 1 ? balanceAmong(amounts, cells, said) : undefined;
  if (balance !== undefined) roles[balance] = 'balance';
  const others = amounts.filter((at) => at !== balance);
  const pair = outAndIn(
    others,
    filled.map(({ length }) => length),
    cells,
    said,
  );
  if (pair) [roles[pair[0]], roles[pair[1]]] = ['out', 'in'];
  else {
    const amount =
      others.find((at) => said[at] === 'amount') ?? others.find((at) => said[at] !== undefined) ?? others[0];
    for (const at of others) roles[at] = at === amount ? 'amount' : 'nothing';
  }
  for (const at of head.keys()) {
    if (roles[at] !== 'text' || amounts.includes(at)) continue;
    if (share(at, (cell) => CURRENCIES.has(cell)) > 0.97 && new Set(filled[at]).size <= 12) roles[at] = 'currency';
    else if (isSide(filled[at])) roles[at] = 'side';
    else if (said[at] === 'who' && new Set(filled[at]).size > 1) roles[at] = 'who';
    else if (said[at] === 'id' && new Set(filled[at]).size === filled[at].length) roles[at] = 'id';
  }
  return roles;
}

function isSide(cells: readonly string[]): boolean {
  const kinds = new Set(cells.map((cell) => fold(cell)));
  return kinds.size > 0 && kinds.size <= 2 && [...kinds].every((kind) => OUT.test(kind) || IN.test(kind));
}

/** The column of amounts by whose steps another one runs, or whose head says that it is what is left. */
function balanceAmong(
  amounts: readonly number[],
  cells: readonly string[][],
  said: readonly (ColumnRole | undefined)[],
): number | undefined {
  const named = amounts.find((at) => said[at] === 'balance');
  if (named !== undefined) return named;
  const decimal = decimalSignIn(amounts.flatMap((at) => cells[at]));
  const read = new Map(amounts.map((at) => [at, cells[at].map((cell) => readUnits(cell, decimal, null))]));
  return amounts.find((candidate) =>
    amounts.some((other) => {
      if (other === candidate) return false;
      const [left, moved] = [read.get(candidate)!, read.get(other)!];
      let [steps, fits] = [0, 0];
      for (let at = 1; at < left.length; at++) {
        const [before, after] = [left[at - 1], left[at]];
        const possible = [moved[at], moved[at - 1]].filter((each) => each !== undefined).map(Math.abs);
        if (before === undefined || after === undefined || possible.length === 0) continue;
        steps++;
        if (possible.includes(Math.abs(after - before))) fits++;
      }
      return steps >= 2 && fits / steps > 0.7;
    }),
  );
}

/** The two columns of which each row fills one: what went out and what came in. */
function outAndIn(
  others: readonly number[],
  counts: readonly number[],
  cells: readonly string[][],
  said: readonly (ColumnRole | undefined)[],
): [number, number] | undefined {
  const out = others.find((at) => said[at] === 'out');
  const into = others.find((at) => said[at] === 'in' && at !== out);
  if (out !== undefined && into !== undefined) return [out, into];
  // Over a short time nothing may have come in, or gone out.
  const empty = (role: ColumnRole) => said.findIndex((each, at) => each === role && counts[at] === 0);
  if (out !== undefined && empty('in') >= 0) return [out, empty('in')];
  if (into !== undefined && empty('out') >= 0) return [empty('out'), into];
  if (others.length < 2) return undefined;
  const isEmpty = (cell: string) => cell === '' || /^0*[.,]?0*$/.test(cell);
  for (const a of others)
    for (const b of others) {
      if (b <= a || counts[a] === 0 || counts[b] === 0) continue;
      const onlyOne = (one: number, other: number) =>
        cells[one].filter((cell, row) => !isEmpty(cell) && isEmpty(cells[other][row])).length;
      const [first, second] = [onlyOne(a, b), onlyOne(b, a)];
      // A fee that is mostly nothing stands beside each amount, and never alone.
      if (first === 0 || second === 0 || first + second < cells[a].length * 0.97) continue;
      return said[a] === 'in' || said[b] === 'out' ? [b, a] : [a, b];
    }
  return undefined;
}

/** The currency that the head of an amount says, as in “amount eur”. */
function currencyIn(head: readonly string[], amountsAt: readonly number[]): string | undefined {
  const found = amountsAt.map((at) => /\b(eur|gbp|usd|chf|sek|nok|dkk|pln|czk|jpy|cad|aud)\b/.exec(head[at])?.[1]);
  return found.find(Boolean)?.toUpperCase();
}

/**
 * Amounts without signs, with those that what is left on the account gives them, whichever way down the days run; the first goes the way that
 * most of the others do.
 */
function signedByBalance(lines: StatementLine[]): StatementLine[] {
  if (lines.some(({ balance }) => balance === null) || lines.length < 2) return lines;
  const forward = lines[0].day <= lines.at(-1)!.day;
  const steps = lines.map(({ balance }, at) => {
    const before = lines[forward ? at - 1 : at + 1];
    return before && balance! - before.balance!;
  });
  const out = steps.filter((step) => step !== undefined && step < 0).length;
  return lines.map((line, at) => {
    const step = steps[at];
    if (step === undefined) return out > (lines.length - 1) / 2 ? { ...line, units: -Math.abs(line.units) } : line;
    return Math.abs(step) === Math.abs(line.units) ? { ...line, units: step } : line;
  });
}
