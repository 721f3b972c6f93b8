import { findFacts } from '../facts/findFacts';
import { Word } from '../words';

/** Pixels of a page for each letter and line of a paper that is typed below. */
const [ACROSS, DOWN, TALL] = [10, 34, 20];

/** A paper as typed: each letter takes the same room, so that columns stand under each other; a line with `# ` is twice as large. */
export function typed(text: string) {
  const words: Word[] = [];
  const lines = text.replace(/^\n/, '').split('\n');
  lines.forEach((given, line) => {
    const [size, letters] = given.startsWith('# ') ? [2, given.slice(2)] : [1, given];
    for (const { 0: each, index } of letters.matchAll(/\S+/g)) {
      const [x, y] = [60 + index * ACROSS * size, 60 + line * DOWN];
      const box: Word['box'] = [x, y, each.length * ACROSS * size - 2, TALL * size];
      words.push({ text: each, box, confidence: 0.99, line, baseline: y + TALL * size });
    }
  });
  const widest = Math.max(...words.map(({ box: [x, , width] }) => x + width));
  return { width: widest + 60, height: Math.max(lines.length * DOWN + 120, 1.2 * widest), words };
}

/** What is found on a paper, as plain values. */
export function typedFacts(text: string): Record<string, unknown> {
  const found = findFacts([typed(text)]);
  return Object.fromEntries(Object.entries(found).map(([name, fact]) => [name, fact?.value ?? null]));
}
