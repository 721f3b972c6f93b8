import { findHits, Term, wordTokens } from './tokens';

const MOST_LINES = 4;

/** A line of text as runs, those that match apart from the others. */
export interface HitLine<PageId> {
  pageId: PageId;
  /** Of the page in its document, from 1. */
  pageNumber: number;
  pieces: { text: string; hit: boolean }[];
}

interface SearchedText<PageId> {
  pageId: PageId;
  number: number;
  /** Its words in lines: lines apart by line feeds, words by spaces. */
  lines: string;
}

/**
 * Where a search is met in a document: how often, the first lines with what was met in them, and in which spellings.
 * @param pages in their order
 */
export function linesWithHits<PageId>(
  pages: readonly SearchedText<PageId>[],
  phrases: Term[][],
): { hits: number; lines: HitLine<PageId>[]; forms: Set<string> } {
  let hits = 0;
  const lines: HitLine<PageId>[] = [];
  const forms = new Set<string>();
  for (const { pageId, number: pageNumber, lines: text } of pages) {
    const words = text
      .split('\n')
      .flatMap((line, number) => line.split(' ').map((each) => ({ text: each, line: number })));
    const found = findHits(words, phrases);
    hits += found.length;
    const hitWords = new Set(found.flat().map((index) => words[index]));
    const hitLines = new Set([...hitWords].map(({ line }) => line));
    for (const { token } of wordTokens([...hitWords])) forms.add(token);
    for (const number of [...hitLines].slice(0, MOST_LINES - lines.length)) {
      const line = words.filter((word) => word.line === number);
      lines.push({ pageId, pageNumber, pieces: pieces(line, hitWords) });
    }
  }
  return { hits, lines, forms };
}

function pieces<Of extends { text: string }>(line: Of[], hitWords: Set<Of>): { text: string; hit: boolean }[] {
  const runs: { text: string; hit: boolean }[] = [];
  for (const word of line) {
    const hit = hitWords.has(word);
    const last = runs[runs.length - 1];
    if (last && last.hit === hit) last.text += ` ${word.text}`;
    else runs.push({ text: word.text, hit });
  }
  return runs;
}
