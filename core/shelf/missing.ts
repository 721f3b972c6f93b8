import { addDays, daysBetween } from './days';
import { groupBy } from './groupBy';
import { Paper } from './paper';

/** A paper that comes again and again, and did not come when it should have. */
export interface Missing {
  vendor: string;
  kind: string | null;
  /** Every so many months. */
  months: number;
  /** Around which day it should bear, ISO 8601. */
  around: string;
  /** The paper before it. */
  after: string;
  /** Whether it may still be on its way, none having come since. */
  last: boolean;
}

/** How often papers come: every month, two, three, six, twelve. */
const RHYTHMS = [1, 2, 3, 6, 12];
const MONTH = 365.25 / 12;
/** A paper may bear a day that is so many days off, and as much more as is this share of the time between two. */
const DAYS_OFF = 6;
const SHARE_OFF = 0.06;
/** Papers come in a rhythm when so many of the times between them fit it, at least two of them once and not several times. */
const FITTING = 0.8;
const LEAST_ONCE = 2;
/** A paper that is late is missed after so many days. */
const PATIENCE = 10;
/** Who has not sent so many in a row has ceased to send any. */
const CEASED = 4;

/**
 * Papers that seem to be missing among papers that come in a rhythm from one sender: the electricity of March between February's and
 * April's, and what should have come since the last one.
 * @param today ISO 8601
 */
export function findMissing(papers: readonly Paper[], today: string): Missing[] {
  const series = groupBy(
    papers.filter(({ vendor, date }) => vendor && date),
    ({ vendor, kind }) => JSON.stringify([vendor, kind]),
  );
  return [...series.values()].flatMap((each) => missingIn(each, today)).sort((a, b) => (a.around < b.around ? -1 : 1));
}

function missingIn(papers: readonly Paper[], today: string): Missing[] {
  const days = [...new Set(papers.map(({ date }) => date!))].sort();
  const between = days.slice(1).map((day, at) => daysBetween(days[at], day));
  const months = RHYTHMS.find((rhythm) => keeps(between, rhythm));
  if (months === undefined) return [];
  const { vendor, kind } = papers[0];
  const gap = (after: string, times: number, last: boolean): Missing[] =>
    Array.from({ length: times }, (_, at) => ({
      vendor: vendor!,
      kind,
      months,
      around: addDays(after, Math.round((at + 1) * months * MONTH)),
      after,
      last,
    }));
  const since = Math.floor((daysBetween(days.at(-1)!, today) - PATIENCE - off(months * MONTH)) / (months * MONTH));
  return [
    ...between.flatMap((time, at) => gap(days[at], Math.round(time / (months * MONTH)) - 1, false)),
    ...(since >= 1 && since < CEASED ? gap(days.at(-1)!, since, true) : []),
  ];
}

const off = (time: number) => DAYS_OFF + SHARE_OFF * time;

/** Whether times between papers, in days, are mostly one or a few times that of a rhythm. */
function keeps(between: readonly number[], months: number): boolean {
  const time = months * MONTH;
  const times = between.map((each) => {
    const whole = Math.round(each / time);
    return whole >= 1 && whole < CEASED && Math.abs(each - whole * time) <= off(time) ? whole : 0;
  });
  const once = times.filter((each) => each === 1).length;
  const fit = times.filter((each) => each > 0).length;
  return once >= LEAST_ONCE && fit >= FITTING * between.length && once * 2 >= fit;
}
