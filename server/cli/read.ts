import { Box } from '@crow/core/geometry';
import { Fact } from '@crow/core/reading/facts/fact';
import { withInvoiceData } from '@crow/core/reading/facts/invoiceData';
import { findFacts } from '@crow/core/reading/facts/findFacts';
import { PageText, plainText } from '@crow/core/reading/words';
import { eachFile, openFile, parseArguments, parseLanguages } from './files';
import { readSheets, wordsInPicture } from './sheets';

/** The facts that `read` prints, in this order; those that are not found are null. */
const PRINTED = [
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
  'amountDue',
  'reference',
  'customer',
  'order',
  'policy',
  'iban',
  'period',
  'ends',
  'opening',
  'closing',
  'lines',
  'bookings',
  'taxes',
  'subject',
] as const;

/** `./crow read`: the words and facts of files as JSON lines, without server or database. */
export async function main(args: string[]): Promise<number> {
  const { files, given } = parseArguments(args, ['languages']);
  const languages = await parseLanguages(given.languages);
  return eachFile(files, (file) => readFile(file, languages));
}

async function readFile(file: string, languages: string[]) {
  const info = await openFile(file);
  const pages: PageText[] = [];
  for (let number = 0; number < info.pages.length; number++) {
    if (info.pages.length > 1) console.error(`${file}: page ${number + 1} of ${info.pages.length}`);
    const { width, height } = info.pages[number];
    const sheets = await readSheets(info, number, languages);
    const words = sheets.flatMap((sheet, at) => {
      // Lines of several sheets in one picture are numbered on.
      const line = sheets.slice(0, at).reduce((sum, { text }) => sum + (text.words.at(-1)?.line ?? -1) + 1, 0);
      return wordsInPicture(sheet, { width, height }).map((word) => ({ ...word, line: word.line + line }));
    });
    const codes = sheets.flatMap(({ text }) => text.codes ?? []);
    pages.push({ width, height, words, codes, language: sheets[0]?.text.language ?? languages[0] });
  }
  const read = findFacts(pages);
  const found = info.invoice ? withInvoiceData(read, info.invoice) : read;
  return {
    pages: pages.map(({ width, height, words, handwriting = [] }) => ({
      width,
      height,
      text: plainText(words),
      words: words.map(({ text, box, confidence }) => ({
        text,
        box: rounded(box),
        confidence: Math.round(confidence * 1000) / 1000,
      })),
      handwriting: handwriting.map(rounded),
    })),
    facts: Object.fromEntries(PRINTED.map((name) => [name, found[name] ? printed(found[name]) : null])),
  };
}

function printed({ value, page, box, confidence, repaired, other }: Fact<unknown>) {
  return {
    value,
    page,
    box: rounded(box),
    confidence: Math.round(confidence * 1000) / 1000,
    ...(repaired && { repaired }),
    ...(other !== undefined && { other }),
  };
}

function rounded(box: Box): Box {
  return box.map((value) => Math.round(value * 10) / 10) as Box;
}
