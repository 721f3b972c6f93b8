import { decodeEntities } from './entities';
import { PageText, Word } from './words';

const DESCENDER = 0.21;

/**
 * The words of each page from what poppler's `pdftotext -bbox-layout` prints: boxes in points, y downwards from the top of
 * the page as displayed; width and height are those before the page's own turning. `scale` turns points into pixels.
 */
export function parseBboxLayout(xml: string, scale = 1): PageText[] {
  return xml
    .split(/<page /)
    .slice(1)
    .map((part) => {
      const [, width, height] = /width="([\d.]+)" height="([\d.]+)"/.exec(part) ?? ['', '0', '0'];
      const words: Word[] = [];
      part.split(/<line /).forEach((line, number) => {
        for (const found of line.matchAll(
          /<word xMin="([-\d.]+)" yMin="([-\d.]+)" xMax="([-\d.]+)" yMax="([-\d.]+)">([^<]*)<\/word>/g,
        )) {
          const [left, top, right, bottom] = found.slice(1, 5).map((value) => Number(value) * scale);
          const text = decodeEntities(found[5]).trim();
          if (!text || right <= left || bottom <= top) continue;
          words.push({
            text,
            box: [left, top, right - left, bottom - top],
            confidence: 1,
            line: number - 1,
            baseline: bottom - DESCENDER * (bottom - top),
          });
        }
      });
      return { width: Number(width) * scale, height: Number(height) * scale, words, language: '' };
    });
}

const LEAST_WORDS = 6;
const MOST_UNREADABLE = 0.02;
const LEAST_WORDLIKE = 0.6;

/**
 * Whether the text that a PDF page brings along can be trusted to be what the page shows: enough words, hardly any
 * characters without meaning (fonts without a proper encoding give those), and mostly tokens that look like words or numbers.
 */
export function isGoodTextLayer(words: Word[]): boolean {
  if (words.length < LEAST_WORDS) return false;
  const text = words.map((word) => word.text).join('');
  // Replacement characters, private use, and control characters stand for glyphs that nobody mapped to text.
  const unreadable = (text.match(/[\uFFFD\uE000-\uF8FF\p{Cc}]/gu) ?? []).length;
  if (unreadable > MOST_UNREADABLE * text.length) return false;
  const wordlike = words.filter(
    ({ text: word }) => /^[^\p{L}\p{N}]*[\p{L}\p{N}][\p{L}\p{N}\p{P}\p{S}]*$/u.test(word) && !/(.)\1{4,}/u.test(word),
  );
  return wordlike.length >= LEAST_WORDLIKE * words.length;
}
