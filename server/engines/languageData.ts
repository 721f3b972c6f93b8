import { runChild } from './child';

/** The languages that can be read here and now, by the recogniser's codes. */
export function installedLanguages(): Promise<string[]> {
  if (!known || Date.now() - asked > FRESH_MS) {
    asked = Date.now();
    known = askForLanguages();
    known.catch(() => (known = undefined));
  }
  return known;
}

/** For so long an answer holds; another process may add a language. */
const FRESH_MS = 30_000;
let known: Promise<string[]> | undefined;
let asked = 0;

/** Has the languages listed anew when they are asked for next. */
export function forgetLanguages(): void {
  known = undefined;
}

async function listing(): Promise<string> {
  const { output } = await runChild('tesseract', ['--list-langs'], {
    limits: { seconds: 20, megabytes: 1000 },
    what: 'Listing the languages',
    environment: dataPath(),
  });
  return output.toString();
}

async function askForLanguages(): Promise<string[]> {
  const codes = (await listing())
    .split('\n')
    .slice(1)
    .map((line) => line.trim());
  return codes.filter((code) => /^[a-z]{3}(_[a-z]+)?$/.test(code) && code !== 'osd' && code !== 'equ');
}

/** The folder in which the languages lie. @throws Error when the recogniser does not tell it */
export async function dataFolder(): Promise<string> {
  const found = /"([^"]+)"/.exec(await listing());
  if (!found) throw new Error('the recogniser does not say where its languages are');
  return found[1];
}

/** Where the recogniser looks for languages, if that is not the usual place. */
export function dataPath(): Record<string, string> {
  const { TESSDATA_PREFIX } = process.env;
  return TESSDATA_PREFIX ? { TESSDATA_PREFIX } : {};
}
