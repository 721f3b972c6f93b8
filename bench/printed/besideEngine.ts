import { execFileSync } from 'node:child_process';
import { writeFileSync } from 'node:fs';
import { plainText } from '@crow/core/reading/words';
import { readSheets } from '@crow/server/cli/sheets';
import { inspectFile } from '@crow/server/engines/sourceFile';

/** Pages read by the program and by the engine alone, and how many of their words each finds. */
export class BesideEngine {
  private readonly sum = { ours: [0, 0], engine: [0, 0], told: 0 };

  /** Reads a picture both ways; what the program read is written beside it. @param told the words that it has */
  async read(path: string, told: readonly string[]) {
    const sheets = await readSheets(await inspectFile(path, path), 0, ['eng']);
    const text = sheets.map((sheet) => plainText(sheet.text.words)).join('\n');
    writeFileSync(`${path}.txt`, text);
    const alone = execFileSync('tesseract', [path, 'stdout', '-l', 'eng', '--psm', '3'], {
      encoding: 'utf8',
      stdio: ['ignore', 'pipe', 'ignore'],
      env: { ...process.env, OMP_THREAD_LIMIT: '1' },
    });
    const [ours, engine] = [compared(printedWords(text), told), compared(printedWords(alone), told)];
    this.sum.told += told.length;
    for (const [which, { found, given }] of Object.entries({ ours, engine }) as ['ours' | 'engine', typeof ours][]) {
      this.sum[which][0] += found;
      this.sum[which][1] += given;
    }
    const said = `ours ${ours.found}/${ours.given}, engine ${engine.found}/${engine.given} of ${told.length}`;
    return { ours, engine, said };
  }

  /** Says what share of all words each found, and how many of those given were right. */
  tell(): void {
    for (const which of ['ours', 'engine'] as const) {
      const [found, given] = this.sum[which];
      console.log(
        `${which}: found ${(found / this.sum.told).toFixed(4)}, of what is given ${(found / given).toFixed(4)}`,
      );
    }
  }
}

/** How many of the words that a page has are among those given, each as often as it stands; which are missed, and which are given instead. */
function compared(given: readonly string[], told: readonly string[]) {
  const left = new Map<string, number>();
  for (const word of given) left.set(word, (left.get(word) ?? 0) + 1);
  const missed = told.filter((word) => {
    const number = left.get(word) ?? 0;
    if (number > 0) left.set(word, number - 1);
    return number === 0;
  });
  return {
    found: told.length - missed.length,
    given: given.length,
    missed,
    extra: [...left].flatMap(([word, number]) => Array<string>(number).fill(word)),
  };
}

/** The words of a text, as they are printed. */
export const printedWords = (text: string) =>
  text
    .replace(/[’‘]/g, "'")
    .split(/\s+/)
    .filter((word) => /[\p{L}\p{N}]/u.test(word));
