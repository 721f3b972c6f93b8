import { around, Box } from '../geometry';
import { amountsIn } from '../reading/facts/money';
import { rowsOf } from '../reading/facts/rows';
import { linesOf, PageCode, PageText, Word } from '../reading/words';

/** What can be hidden wherever it stands: accounts (IBANs), or amounts of money. */
export const HIDEABLE = ['accounts', 'amounts'] as const;
export type Hideable = (typeof HIDEABLE)[number];

/** A place on a page, in pixels of its picture. */
export interface HidingPlace {
  /** From 0. */
  page: number;
  box: Box;
  text: string;
}

type ReadPage = Pick<PageText, 'words'> & { codes?: readonly PageCode[] };

/** Two letters, two check digits, and 11 to 30 letters and figures (ISO 13616). */
const IBAN = /^[A-Z]{2}\d{2}[A-Z0-9]{11,30}$/;
const LONGEST = 34;
const SHORTEST = 15;
/** The end of what may be part of one: groups of four, or what stands together. */
const PART = /^[A-Z0-9]{1,34}$/i;

/**
 * Where accounts or amounts stand on pages, in codes, too. Rather one place too many than one too few: whether check digits fit is not
 * asked, since a figure may have been misread.
 */
export function placesToHide(pages: readonly ReadPage[], what: Hideable): HidingPlace[] {
  return what === 'accounts' ? accounts(pages) : amounts(pages);
}

function accounts(pages: readonly ReadPage[]): HidingPlace[] {
  return pages.flatMap(({ words, codes = [] }, page) => [
    ...linesOf(words).flatMap((line) => accountsIn(line).map((found) => placeOf(found, page))),
    ...codes
      .filter(({ text }) => text.split(/\s+/).some((part) => IBAN.test(part.toUpperCase())))
      .map(({ text, box }) => ({ page, box, text })),
  ]);
}

/** Runs of words of a line that together are an account; the longest first. */
function accountsIn(line: readonly Word[]): Word[][] {
  const found: Word[][] = [];
  const cleaned = line.map(({ text }) => text.replace(/^(IBAN)?[:.]*/i, '').replace(/[.,;:)]+$/, ''));
  for (let from = 0; from < line.length; from++) {
    if (!/^[A-Z]{2}[\dOIlS]{2}/i.test(cleaned[from])) continue;
    let best = 0;
    let joined = '';
    for (let to = from; to < line.length && PART.test(cleaned[to]) && joined.length < LONGEST; to++) {
      // A word in small letters goes on with something else.
      if (to > from && !/\d/.test(cleaned[to])) break;
      joined += cleaned[to].toUpperCase();
      if (
        joined.length >= SHORTEST &&
        IBAN.test(joined.slice(0, 2) + joined.slice(2, 4).replace(/[OILS]/g, '0') + joined.slice(4))
      )
        best = to + 1;
    }
    if (best === 0) continue;
    found.push(line.slice(from, best));
    from = best - 1;
  }
  return found;
}

function amounts(pages: readonly ReadPage[]): HidingPlace[] {
  return rowsOf(pages).flatMap((row) => amountsIn(row).map(({ words }) => placeOf(words, row.page - 1)));
}

function placeOf(words: readonly Word[], page: number): HidingPlace {
  return { page, box: around(words.map(({ box }) => box)), text: words.map(({ text }) => text).join(' ') };
}

/** What is hidden reaches so much farther than asked, as a share of its height: what was read lies close round the letters. */
const MARGIN = 0.12;

/** An area a little larger than what it is to hide. */
export function withMargin([x, y, width, height]: Box): Box {
  const by = MARGIN * height;
  return [x - by, y - by, width + 2 * by, height + 2 * by];
}

/** A word of which so much lies in what is hidden is hidden with it. */
const HIDDEN_FROM = 0.2;

/** The words of a page that are not hidden. @param areas in the words' own measure */
export function wordsLeft<Each extends Pick<Word, 'box'>>(words: readonly Each[], areas: readonly Box[]): Each[] {
  return words.filter(({ box: [x, y, width, height] }) => {
    const covered = areas.reduce((sum, [left, top, wide, high]) => {
      const across = Math.min(x + width, left + wide) - Math.max(x, left);
      const down = Math.min(y + height, top + high) - Math.max(y, top);
      return sum + (across > 0 && down > 0 ? across * down : 0);
    }, 0);
    return covered < HIDDEN_FROM * Math.max(1, width * height);
  });
}
