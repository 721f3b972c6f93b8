import { rmSync } from 'node:fs';
import { mkdtemp } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { basename, join } from 'node:path';
import { inWords, Problem } from '@crow/contract/problems';
import { TOLD_APART } from '@crow/core/reading/language';
import { drawInvoice } from '../engines/invoiceXml';
import { installedLanguages } from '../engines/languageData';
import { inspectFile, SourceInfo } from '../engines/sourceFile';

/**
 * Takes options such as `--out X` out of the arguments; what is left are files.
 * @param switches options that stand alone, given as empty text @throws Error for an unknown option
 */
export function parseArguments(
  args: string[],
  options: string[],
  switches: string[] = [],
): { files: string[]; given: Record<string, string> } {
  const files: string[] = [];
  const given: Record<string, string> = {};
  for (let at = 0; at < args.length; at++) {
    const option = /^--([a-z]+)(?:=(.*))?$/.exec(args[at]);
    if (!option) files.push(args[at]);
    else if (switches.includes(option[1])) given[option[1]] = '';
    else if (!options.includes(option[1])) throw new Error(`There is no option --${option[1]}.`);
    else given[option[1]] = option[2] ?? args[++at] ?? '';
  }
  if (files.length === 0) throw new Error('Name a file at least.');
  return { files, given };
}

/** The languages asked for; an unknown one is refused with a sentence. */
export async function parseLanguages(given: string | undefined): Promise<string[]> {
  if (!given) return TOLD_APART;
  const languages = given.split(/[,+]/).filter(Boolean);
  const known = await installedLanguages();
  const unknown = languages.find((language) => !known.includes(language));
  if (unknown || languages.length === 0)
    throw new Error(`“${unknown ?? ''}” is not a language that can be read here: ${known.join(', ')}.`);
  return languages;
}

/** Opens a file named on the command line. @throws Problem with a sentence */
export async function openFile(path: string): Promise<SourceInfo> {
  const name = basename(path);
  try {
    return await inspectFile((await drawnFrom(path, name)) ?? path, name);
  } catch (error) {
    if ((error as NodeJS.ErrnoException).code === 'ENOENT')
      throw new Problem('not-found', { what: `The file “${path}”` });
    throw error;
  }
}

/** Where an electronic invoice that is a file by itself is drawn, until the program ends; undefined for other files. */
function drawnFrom(path: string, name: string): Promise<string | undefined> {
  return drawInvoice(path, name, async () => {
    const folder = await mkdtemp(join(tmpdir(), 'crow-invoice-'));
    process.once('exit', () => rmSync(folder, { recursive: true, force: true }));
    return folder;
  });
}

export function sentence(error: unknown): string {
  return error instanceof Problem
    ? inWords(error.report)
    : `It could not be read: ${error instanceof Error ? error.message : String(error)}`;
}

/** Does the same for each file and prints what comes of it, a JSON line each; a bad file is told in a sentence, the rest go on. */
export async function eachFile(files: string[], work: (file: string) => Promise<object>): Promise<number> {
  let failed = false;
  for (const file of files) {
    try {
      console.log(JSON.stringify({ file, ...(await work(file)) }));
    } catch (error) {
      failed = true;
      console.log(JSON.stringify({ file, error: sentence(error) }));
    }
  }
  return failed ? 1 : 0;
}
