import { Box } from '@crow/core/geometry';
import { Fact, findFacts } from '@crow/core/reading/facts';
import { plainText } from '@crow/core/reading/words';
import { readText } from '../services/reading';
import { eachFile, openFile, parseArguments, parseLanguages } from './files';

/** The facts that `read` prints, in this order; those that are not found yet are null. */
const FACT_NAMES = [
  'kind',
  'vendor',
  'date',
  'dueDate',
  'number',
  'currency',
  'net',
  'tax',
  'taxRate',
  'total',
  'lines',
];

/** `./crow read`: the words and facts of files as JSON lines, without server or database. */
export function main(args: string[]): Promise<number> {
  const { files, given } = parseArguments(args, ['languages']);
  const languages = parseLanguages(given.languages);
  return eachFile(files, (file) => readFile(file, languages));
}

async function readFile(file: string, languages: string[]) {
  const info = await openFile(file);
  const texts = [];
  for (let number = 0; number < info.pages.length; number++) {
    if (info.pages.length > 1) console.error(`${file}: page ${number + 1} of ${info.pages.length}`);
    texts.push((await readText(info, number, 0, languages)).text);
  }
  const found: Record<string, Fact | null> = { ...findFacts(texts) };
  return {
    pages: texts.map(({ width, height, words }) => ({
      width,
      height,
      text: plainText(words),
      words: words.map(({ text, box, confidence }) => ({ text, box: rounded(box), confidence })),
    })),
    facts: Object.fromEntries(
      FACT_NAMES.map((name) => [name, found[name] ? { ...found[name], box: rounded(found[name].box) } : null]),
    ),
  };
}

function rounded(box: Box): Box {
  return box.map((value) => Math.round(value * 10) / 10) as Box;
}
