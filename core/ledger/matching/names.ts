import { editDistance } from '../../finding/editDistance';

/** Forms of firms and small words, which say nothing about who it is. */
const SAY_NOTHING = new Set(
  'gmbh ltd limited ag kg ohg ug co corp inc llc llp plc sarl sas sa eurl ev eg mbh bv nv oy ab as and und et the der die das de la le les van von du of for fur fuer e o u i an at im in'.split(
    ' ',
  ),
);
const LEAST_PREFIX = 4;
const LEAST_JOINED = 6;

/** Letters as they are compared: small, without accents, ä as ae is a, ß is ss. */
function plain(text: string): string {
  return text
    .toLowerCase()
    .normalize('NFD')
    .replace(/\p{M}/gu, '')
    .replaceAll('ß', 'ss')
    .replace(/([aou])e(?=[^aeiou]|$)/g, '$1');
}

/** The words of a name, or of a line of a statement, that can tell who it is. */
export function nameWords(text: string): string[] {
  const words = plain(text).match(/\p{L}[\p{L}\d]*/gu) ?? [];
  return words.filter((word) => word.length >= 2 && !SAY_NOTHING.has(word));
}

/** Whom lines of statements may be about: the names in the books, told apart by their rare words. */
export class NameIndex {
  private readonly names: string[][];
  private readonly weights = new Map<string, number>();
  /** Words of names, by their first letters and by their last ones: one that is misspelt keeps one of the two. */
  private readonly byEdge = new Map<string, Set<string>>();
  private readonly byWord = new Map<string, number[]>();
  private readonly joined: string[];

  /** @param names each once */
  constructor(names: readonly string[]) {
    this.names = names.map((name) => [...new Set(nameWords(name))]);
    this.joined = this.names.map((words) => words.join(''));
    this.names.forEach((words, at) => {
      for (const word of words) this.byWord.set(word, [...(this.byWord.get(word) ?? []), at]);
    });
    for (const [word, those] of this.byWord) {
      this.weights.set(word, Math.log(1 + names.length / those.length));
      for (const edge of edgesOf(word)) this.byEdge.set(edge, (this.byEdge.get(edge) ?? new Set()).add(word));
    }
  }

  /**
   * How much a line is about each name, from 0 to 1; names that it has nothing of are left out.
   * @returns by the names' places
   */
  likeness(line: string): Map<number, number> {
    const words = [...new Set(nameWords(line))];
    /** For each word of names that is in the line, how well. */
    const found = new Map<string, number>();
    const keep = (word: string, how: number) => how > (found.get(word) ?? 0) && found.set(word, how);
    for (const word of words) {
      if (this.byWord.has(word)) keep(word, 1);
      for (const edge of edgesOf(word))
        for (const known of this.byEdge.get(edge) ?? []) keep(known, wordLikeness(known, word));
    }
    const sums = new Map<number, number>();
    for (const [word, how] of found)
      if (how > 0)
        for (const at of this.byWord.get(word)!) sums.set(at, (sums.get(at) ?? 0) + how * this.weights.get(word)!);
    const likeness = new Map<number, number>();
    for (const [at, sum] of sums)
      likeness.set(at, sum / this.names[at].reduce((all, word) => all + this.weights.get(word)!, 0));
    this.addRunTogether(words, likeness);
    return likeness;
  }

  /** Names that are written without blanks, perhaps cut off at the end. */
  private addRunTogether(words: readonly string[], likeness: Map<number, number>): void {
    const long = words.filter((word) => word.length >= 2 * LEAST_PREFIX + 1);
    if (long.length === 0) return;
    this.joined.forEach((name, at) => {
      if (name.length < LEAST_JOINED || this.names[at].length < 2) return;
      for (const word of long) {
        const isIn = word.includes(name) || (name.startsWith(word) && word.length >= name.length / 2);
        const how = isIn ? Math.min(1, word.length / name.length) * 0.95 : isNearly(name, word) ? 0.85 : 0;
        if (how > (likeness.get(at) ?? 0)) likeness.set(at, how);
      }
    });
  }
}

/** Whether two long words are the same but for two letters, one of their ends the same. */
function isNearly(a: string, b: string): boolean {
  if (Math.abs(a.length - b.length) > 2 || (a.slice(0, 3) !== b.slice(0, 3) && a.slice(-3) !== b.slice(-3)))
    return false;
  return editDistance(a, b) <= 2;
}

function edgesOf(word: string): string[] {
  return word.length < LEAST_PREFIX ? [] : [`<${word.slice(0, 3)}`, `${word.slice(-3)}>`];
}

/** How likely two words are the same one, cut off or misspelt, from 0 to 1. */
function wordLikeness(known: string, word: string): number {
  if (known === word) return 1;
  const shorter = Math.min(known.length, word.length);
  if (shorter >= LEAST_PREFIX && (known.startsWith(word) || word.startsWith(known)))
    return 0.6 + 0.35 * (shorter / Math.max(known.length, word.length));
  if (shorter < 5 || Math.abs(known.length - word.length) > 2) return 0;
  const distance = editDistance(known, word);
  // Two letters that changed places are one slip (Damerau 1964).
  const swapped = distance === 2 && [...known].sort().join() === [...word].sort().join();
  return distance <= 1 || swapped ? 0.85 : distance === 2 && shorter >= 8 ? 0.7 : 0;
}
