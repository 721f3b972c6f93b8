import { EntityManager } from 'typeorm';
import { editDistance } from '@crow/core/finding/editDistance';
import { nearWords } from './queries';

/** How long a word is that misreadings are sought for. How alike they must be is set with the connection; see database.ts. */
const SHORTEST = 5;

/**
 * Words that occur on pages and are spelled so much like those searched that they may be the same, misread: one or two
 * letters apart, begun alike. Short words and numbers are taken as typed.
 */
export async function similarWords(manager: EntityManager, words: string[]): Promise<Map<string, string[]>> {
  const worth = words.filter((word) => word.length >= SHORTEST && !/\d/.test(word));
  const found = new Map<string, string[]>();
  if (worth.length === 0) return found;
  const similar = await nearWords(manager, worth);
  for (const { sought, word } of similar) {
    if (editDistance(sought, word) <= (sought.length >= 8 ? 2 : 1))
      found.set(sought, [...(found.get(sought) ?? []), word]);
  }
  return found;
}
