import { readFile } from 'node:fs/promises';
import { join } from 'node:path';
import { writtenWords } from '@crow/core/reading/language';
import { Dictionary } from '@crow/core/reading/layout/dictionary';
import { runChild } from './child';
import { dataFolder } from './languageData';
import { withScratch } from './scratch';

const LIMITS = { seconds: 30, megabytes: 1000 };
const MOST_KEPT = 3;
const kept = new Map<string, Promise<Dictionary>>();

/**
 * The words that the recogniser's model of a language knows, if it brings a list, and those that stand on papers. Unpacked once a
 * process.
 */
export function dictionaryOf(language: string): Promise<Dictionary> {
  const known =
    kept.get(language) ??
    unpack(language)
      .catch(() => new Set<string>())
      .then((words) => {
        for (const word of writtenWords(language)) words.add(word);
        return words;
      });
  // Put in again: the map's order tells what was used last.
  kept.delete(language);
  kept.set(language, known);
  for (const other of kept.keys()) if (kept.size > MOST_KEPT) kept.delete(other);
  return known;
}

function unpack(language: string): Promise<Set<string>> {
  return withScratch(async (folder) => {
    const what = 'Unpacking the dictionary';
    const data = join(await dataFolder(), `${language}.traineddata`);
    const [graph, letters, list] = ['x.lstm-word-dawg', 'x.lstm-unicharset', 'words.txt'].map((name) =>
      join(folder, name),
    );
    await runChild('combine_tessdata', ['-e', data, graph, letters], { limits: LIMITS, what });
    await runChild('dawg2wordlist', [letters, graph, list], { limits: LIMITS, what });
    return new Set((await readFile(list, 'utf8')).toLowerCase().split('\n'));
  });
}
