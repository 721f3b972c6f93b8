import { ArrangedPage } from '../../parts/useArrangement';

type Gap = Pick<ArrangedPage, 'index' | 'dropped' | 'cutBefore' | 'cutDecided' | 'proposal' | 'reading'>;

/** Whether somebody should look at the gap before a page: what is proposed there is not sure, and nobody has decided. */
export function isDoubtful({ index, dropped, cutDecided, proposal, reading }: Gap): boolean {
  return index > 0 && !dropped && !cutDecided && reading !== 'waiting' && proposal !== null && !proposal.sure;
}

/** The place of the next doubtful gap after a page, round about; -1 when there is none. */
export function nextDoubtful(pages: readonly Gap[], from: number, by: 1 | -1 = 1): number {
  for (let step = 1; step <= pages.length; step++) {
    const at = (((from + by * step) % pages.length) + pages.length) % pages.length;
    if (isDoubtful(pages[at])) return at;
  }
  return -1;
}

const VERY = 0.96;
const RATHER = 0.8;

/** What is proposed before a page and why, in a sentence; undefined where nothing is. */
export function gapInWords({ index, cutBefore, cutDecided, proposal }: Gap): string | undefined {
  if (index === 0 || !proposal) return undefined;
  if (cutDecided) return cutBefore ? 'You have cut here.' : 'You have joined this page to the one before.';
  const { chance, why } = proposal;
  const begins = chance >= 0.5;
  const sure = Math.max(chance, 1 - chance);
  const how = sure >= VERY ? 'Surely' : sure >= RATHER ? 'Probably' : 'Perhaps';
  const what = begins ? 'a new document begins here' : 'this page goes on with the document before';
  return `${how} ${what}${why.length > 0 ? `: ${why.join('; ')}` : ''}.`;
}
