import { fold } from './facts/rows';
import { lineBox, linesOf, Word } from './words';

/** Codes of post: British, American, and those of figures before the town, perhaps with the letters of a country. */
const POSTCODE =
  /\b[A-Z]{1,2}\d[A-Z\d]? ?\d[A-Z]{2}\b|\b[A-Z]{2} \d{5}(?:-\d{4})?\b|(?<![\p{L}\d])(?:[A-Z]{1,3}[- ])?\d{4,5} \p{Lu}[\p{L}.'-]+/u;
/** What stands among the lines of an address and is none. */
const NO_ADDRESS =
  /\b(vat|ust|mwst|tva|siret|iban|bic|phone|fon|telefon|fax|www|https?|invoice|rechnung|facture|date|datum|e-?mail|company no|registered|reg no)\b|@|\btel\b/;
/** Between the name and what follows it in one line. */
const BETWEEN = /\s*[·•|–—]\s*|\s{2,}|,\s*/u;
const MOST_LINES = 4;
/** A line of an address is no further below the one before, in heights of a line. */
const NEAR = 2.6;
/** So much of a name's words have to stand in a line. */
const ENOUGH = 0.7;
const LONGEST = 200;

interface Line {
  text: string;
  box: readonly [number, number, number, number];
}

/**
 * The postal address of whoever a paper is from, as it stands below their name, or behind it in the same line: the lines down to that with the
 * postcode. @param words of its first page @returns its lines joined by commas; '' where none is found
 */
export function senderAddress(words: readonly Word[], name: string): string {
  const wanted = fold(name)
    .split(/[^\p{L}\p{N}]+/u)
    .filter((word) => word.length > 1);
  if (wanted.length === 0) return '';
  const lines: Line[] = linesOf([...words]).map((line) => ({
    text: line.map(({ text }) => text).join(' '),
    box: lineBox(line),
  }));
  for (const [at, line] of lines.entries()) {
    const said = new Set(fold(line.text).split(/[^\p{L}\p{N}]+/u));
    if (wanted.filter((word) => said.has(word)).length < ENOUGH * wanted.length) continue;
    const found = inOneLine(line.text, wanted) || below(lines, at);
    if (found) return found.slice(0, LONGEST);
  }
  return '';
}

/** `Name · Street 4 · 12345 Town`, as above the window of an envelope. */
function inOneLine(text: string, name: readonly string[]): string {
  const pieces = text
    .split(BETWEEN)
    .map((piece) => piece.trim())
    .filter(Boolean);
  const isName = (piece: string) => {
    const said = fold(piece).split(/[^\p{L}\p{N}]+/u);
    return said.some((word) => name.includes(word)) && !POSTCODE.test(piece);
  };
  const from = pieces.findLastIndex(isName) + 1;
  const to = pieces.findIndex((piece, at) => at >= from && POSTCODE.test(piece));
  return from > 0 && to >= from ? pieces.slice(from, to + 1).join(', ') : '';
}

/** The lines that stand right below one, under it, down to that with the postcode. */
function below(lines: readonly Line[], at: number): string {
  const [x, , width] = lines[at].box;
  const found: string[] = [];
  let [, lastTop, , lastHeight] = lines[at].box;
  for (const { text, box } of lines.slice(at + 1)) {
    const [left, top, wide, height] = box;
    const isUnder = left < x + width && left + wide > x;
    if (top < lastTop || !isUnder) continue;
    if (top - lastTop > NEAR * Math.max(lastHeight, height) || found.length === MOST_LINES) break;
    [lastTop, lastHeight] = [top, height];
    if (NO_ADDRESS.test(fold(text))) continue;
    found.push(text.replace(/,$/, ''));
    if (POSTCODE.test(text)) return found.join(', ');
  }
  return '';
}
