import { Box } from '../geometry';

/** A character as it was read: where it stands, and how sure the reading is, from 0 to 1. */
export interface Character {
  text: string;
  box: Box;
  confidence: number;
}

/** A word that was read character by character. */
export interface SpelledWord {
  characters: Character[];
  /** From 0 to 1. */
  confidence: number;
}

/**
 * The words of a line from what the line reader tells of each character, a line of text each: whether a word begins, its edges
 * (left, top, right, bottom), how sure it is, how sure its word is (0 to 100), and the character itself.
 */
export function parseSpelled(told: string): SpelledWord[] {
  const words: SpelledWord[] = [];
  for (const line of told.split('\n')) {
    const found = /^([01]) (-?\d+) (-?\d+) (-?\d+) (-?\d+) (-?[\d.]+) (-?[\d.]+) (.+)$/.exec(line);
    if (!found) continue;
    const [begins, left, top, right, bottom, sure, sureOfWord] = found.slice(1, 8).map(Number);
    if (begins === 1 || words.length === 0) words.push({ characters: [], confidence: share(sureOfWord) });
    words[words.length - 1].characters.push({
      text: found[8],
      box: [left, top, right - left, bottom - top],
      confidence: share(sure),
    });
  }
  return words;
}

function share(percent: number): number {
  return Math.max(0, Math.min(1, percent / 100));
}

/** A word as two, the second one beginning with a character of it. */
export function split({ characters, confidence }: SpelledWord, at: number): SpelledWord[] {
  return [
    { characters: characters.slice(0, at), confidence },
    { characters: characters.slice(at), confidence },
  ];
}
