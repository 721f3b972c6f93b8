import { availableParallelism } from 'node:os';
import { turnSize } from '@crow/core/geometry';
import { proposeRecipes } from '@crow/core/imaging/proposing/proposals';
import { findFacts } from '@crow/core/reading/facts/findFacts';
import { PageText } from '@crow/core/reading/words';
import { backsOf } from '@crow/core/sorting/backs';
import { isBlank } from '@crow/core/sorting/blank';
import { proposeCuts } from '@crow/core/sorting/cuts';
import { callsItselfDivider } from '@crow/core/sorting/divider';
import { PilePage } from '@crow/core/sorting/gaps';
import { signsOf } from '@crow/core/sorting/signs';
import { readDivider } from '../engines/codes';
import { atAGlance, lookedAtPicture } from '../engines/pictures';
import { withScratch } from '../engines/scratch';
import { SourceInfo } from '../engines/sourceFile';
import { hasOwnText } from '../engines/ownText';
import { readText } from '../engines/pageText';
import { eachFile, openFile, parseArguments, parseLanguages } from './files';

/** `./crow sort`: where the documents of a pile begin, and which pages are blank, as JSON lines, without server or database. */
export async function main(args: string[]): Promise<number> {
  const { files, given } = parseArguments(args, ['languages']);
  const languages = await parseLanguages(given.languages);
  return eachFile(files, (file) => sortFile(file, languages));
}

interface ReadPage extends PilePage {
  text: PageText | null;
}

async function sortFile(file: string, languages: string[]) {
  const info = await openFile(file);
  const pages: ReadPage[] = new Array<ReadPage>(info.pages.length);
  let next = 0;
  const work = async () => {
    while (next < pages.length) {
      const number = next++;
      pages[number] = await readPage(info, number, languages);
      if (pages.length > 1) console.error(`${file}: page ${number + 1} of ${pages.length}`);
    }
  };
  await Promise.all(Array.from({ length: availableParallelism() }, work));
  return documentsIn(pages);
}

async function readPage(info: SourceInfo, number: number, languages: string[]): Promise<ReadPage> {
  const { pointWidth, pointHeight, scanned } = info.pages[number];
  const given: [number, number] = [pointWidth, pointHeight];
  if (info.format === 'pdf' && (await hasOwnText(info, number))) {
    const { text } = await readText(info, number, 0, languages);
    return { text, signs: signsOf(text, given), size: given, blank: false, divider: callsItselfDivider(textsOf(text)) };
  }
  const picture = await withScratch((folder) => lookedAtPicture(info, number, folder));
  const small = await atAGlance(picture);
  if (scanned && isBlank(small)) return { text: null, signs: null, size: given, blank: true };
  if (await readDivider(small)) return { text: null, signs: null, size: given, blank: false, divider: true };
  const [{ recipe, turn }] = proposeRecipes(picture, { scanned: scanned ? given : undefined });
  const size = turnSize(recipe.paper[0], recipe.paper[1], turn);
  try {
    const { text } = await readText(info, number, turn, languages, recipe);
    return { text, signs: signsOf(text, size), size, blank: false, divider: callsItselfDivider(textsOf(text)) };
  } catch (error) {
    console.error(`page ${number + 1}: ${error instanceof Error ? error.message : String(error)}`);
    return { text: null, signs: null, size, blank: false };
  }
}

const textsOf = ({ words }: PageText) => words.map(({ text }) => text);

function documentsIn(pages: ReadPage[]) {
  const backs = backsOf(pages.map(({ blank }) => blank));
  const proposals = proposeCuts(pages.map((page, index) => ({ ...page, back: backs[index] })));
  const documents: { pages: number[]; chances: number[] }[] = [];
  pages.forEach((page, index) => {
    if (page.blank || page.divider) return;
    const chance = proposals[index]?.chance ?? 1;
    if (documents.length === 0 || chance >= 0.5) documents.push({ pages: [], chances: [] });
    const document = documents[documents.length - 1];
    document.pages.push(index + 1);
    document.chances.push(Math.max(chance, 1 - chance));
  });
  return {
    documents: documents.map((document, index) => {
      const texts = document.pages.flatMap((number) => pages[number - 1].text ?? []);
      // As sure as the cut that begins it, those within it, and the one that ends it.
      const chances = [...document.chances, documents[index + 1]?.chances[0] ?? 1];
      return {
        pages: document.pages,
        kind: findFacts(texts).kind?.value ?? 'other',
        confidence: Math.round(chances.reduce((product, chance) => product * chance, 1) * 1000) / 1000,
      };
    }),
    dropped: pages.flatMap((page, index) => (page.blank || page.divider ? [index + 1] : [])),
  };
}
