import { Money } from '../money';
import { Kind, kindTraits } from '../reading/facts/kindList';
import { groupBy } from './groupBy';
import { Paper } from './paper';

/** Papers that have something in common, and what they add up to, by currency. */
export interface Group {
  /** What they have in common: who they are from, or a month (`2026-03`); null where that is not known. */
  key: string | null;
  papers: number;
  sums: Money[];
}

/** What papers add up to. */
export interface AddedUp {
  papers: number;
  pages: number;
  /** By currency, the one of most papers first. */
  sums: Money[];
  /** The first and the last day that stands on any of them; ISO 8601. */
  from: string | null;
  until: string | null;
  /** Those with most papers first. */
  byWho: Group[];
  /** In the order of time, without the months that have none; those without a day last. */
  byMonth: Group[];
  /** Papers that are not in the sums though they have one, since another paper says it as well, by kind. */
  leftOut: { kind: string; papers: number }[];
  /** Papers that have no sum where one belongs. */
  withoutSum: number;
}

/**
 * Adds papers up. What a reminder, an order, a quote, a delivery note, a statement or a contract says is asked for by a bill as well,
 * and is left out.
 * @param like the kind of the list that papers of a kind are like
 */
export function addUp(papers: readonly Paper[], like: (kind: string) => Kind): AddedUp {
  const traits = ({ kind }: Paper) => (kind === null ? {} : kindTraits[like(kind)]);
  const counted = papers.filter((paper) => paper.total && !traits(paper).repeats);
  const days = papers
    .map(({ date }) => date)
    .filter((date) => date !== null)
    .sort();
  const leftOut = groupBy(
    papers.filter((paper) => paper.total && traits(paper).repeats),
    ({ kind }) => kind!,
  );
  return {
    papers: papers.length,
    pages: papers.reduce((sum, { pages }) => sum + pages, 0),
    sums: sumsOf(counted),
    from: days[0] ?? null,
    until: days.at(-1) ?? null,
    byWho: groups(papers, counted, ({ vendor }) => vendor).sort(
      (a, b) => Number(a.key === null) - Number(b.key === null) || b.papers - a.papers,
    ),
    byMonth: groups(papers, counted, ({ date }) => date?.slice(0, 7) ?? null).sort((a, b) =>
      a.key === null ? 1 : b.key === null ? -1 : a.key < b.key ? -1 : 1,
    ),
    leftOut: [...leftOut].map(([kind, each]) => ({ kind, papers: each.length })),
    withoutSum: papers.filter((paper) => !paper.total && 'totalled' in traits(paper) && !traits(paper).repeats).length,
  };
}

/** Sums by currency, the one of most papers first. */
export function sumsOf(papers: readonly Pick<Paper, 'total'>[]): Money[] {
  const totals = papers.flatMap(({ total }) => total ?? []);
  return [...groupBy(totals, ({ currency }) => currency)]
    .sort(([, a], [, b]) => b.length - a.length)
    .map(([currency, each]) => ({ currency, units: each.reduce((sum, { units }) => sum + units, 0) }));
}

function groups(papers: readonly Paper[], counted: readonly Paper[], keyOf: (paper: Paper) => string | null): Group[] {
  const sums = groupBy(counted, keyOf);
  return [...groupBy(papers, keyOf)].map(([key, each]) => ({
    key,
    papers: each.length,
    sums: sumsOf(sums.get(key) ?? []),
  }));
}
