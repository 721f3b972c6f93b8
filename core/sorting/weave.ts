import { proposeCut } from './cuts';
import { PilePage } from './gaps';

/** A sheet of a pile whose sides were scanned in two goes; a side that was not found is null. */
export interface WovenSheet<Page> {
  front: Page | null;
  back: Page | null;
}

export interface Weave<Page> {
  sheets: WovenSheet<Page>[];
  /** Whether the backs were scanned from the last sheet to the first, as they are when a whole pile is turned over. */
  reversed: boolean;
}

/** What a sheet without one of its sides costs, in the same measure as how well two sides fit (natural logarithm of odds). */
const SIDE_MISSING = -4;
/** Fit of a side that says nothing: a blank one, or one that is not read yet. */
const NEUTRAL = 0.1;
const MOST_FIT = 2;

/**
 * Puts fronts and backs that were scanned one after the other together again: which back belongs to which front, whether the
 * backs lie in reverse, and where a side is missing. An alignment of the two sequences (Needleman & Wunsch 1970) by how well
 * each back goes on from its front; fits that hardly differ leave the sides in their order.
 */
export function weave<Page extends PilePage>(fronts: Page[], backs: Page[]): Weave<Page> {
  const forth = align(fronts, backs);
  const back = align(fronts, [...backs].reverse());
  // A pile is turned over as a whole, so in reverse unless the pages speak against it.
  const reversed = back.fit >= forth.fit;
  return { sheets: (reversed ? back : forth).sheets, reversed };
}

function align<Page extends PilePage>(fronts: Page[], backs: Page[]): { fit: number; sheets: WovenSheet<Page>[] } {
  const [m, n] = [fronts.length, backs.length];
  const best = Array.from({ length: m + 1 }, () => new Float64Array(n + 1));
  const fits = fronts.map((front) => backs.map((back) => fit(front, back)));
  for (let i = 0; i <= m; i++) {
    for (let j = 0; j <= n; j++) {
      if (i === 0 && j === 0) continue;
      best[i][j] = Math.max(
        i > 0 && j > 0 ? best[i - 1][j - 1] + fits[i - 1][j - 1] : -Infinity,
        i > 0 ? best[i - 1][j] + SIDE_MISSING : -Infinity,
        j > 0 ? best[i][j - 1] + SIDE_MISSING : -Infinity,
      );
    }
  }
  const sheets: WovenSheet<Page>[] = [];
  for (let [i, j] = [m, n]; i > 0 || j > 0;) {
    if (i > 0 && j > 0 && best[i][j] === best[i - 1][j - 1] + fits[i - 1][j - 1])
      sheets.unshift({ front: fronts[--i], back: backs[--j] });
    else if (i > 0 && best[i][j] === best[i - 1][j] + SIDE_MISSING) sheets.unshift({ front: fronts[--i], back: null });
    else sheets.unshift({ front: null, back: backs[--j] });
  }
  return { fit: best[m][n], sheets };
}

/** How well a back goes on from a front: the odds that the two are of one document, as a logarithm. */
function fit(front: PilePage, back: PilePage): number {
  if (front.blank || back.blank || !front.signs || !back.signs) return NEUTRAL;
  const [at, next] = [front.signs.number, back.signs.number];
  // Page numbers settle it.
  if (at && next) return next.at === at.at + 1 && next.of === at.of ? MOST_FIT : -MOST_FIT;
  const { chance } = proposeCut(front, { ...back, back: undefined });
  return Math.max(-MOST_FIT, Math.min(MOST_FIT, Math.log((1 - chance) / chance)));
}
