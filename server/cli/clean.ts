import { mkdir } from 'node:fs/promises';
import { basename, join } from 'node:path';
import { Look } from '@crow/core/imaging/looks';
import { quarterTurned } from '@crow/core/imaging/raster';
import { proposePages, Seen } from '@crow/core/imaging/proposing/proposals';
import { finishPage, flatten, judgeRecipe } from '@crow/core/imaging/recipe';
import { lookedAtPicture } from '../engines/pictures';
import { rasterOf, sharpOf } from '../engines/rasters';
import { withScratch } from '../engines/scratch';
import { openPage } from '../engines/sourceFile';
import { eachFile, openFile, parseArguments } from './files';

const LOOK_NAMES: Record<string, Look> = {
  'as-shot': 'asShot',
  'clear-colour': 'clear',
  grey: 'grey',
  'black-and-white': 'bilevel',
  'even-light': 'even',
};

/**
 * `./crow clean`: writes each page outlined, straightened, upright and rendered, as a PNG; tells how legible it is. With `--book` pictures of open
 * books give their two pages, with `--right-bound` the right one first.
 */
export async function main(args: string[]): Promise<number> {
  const { files, given } = parseArguments(args, ['out', 'look'], ['book', 'right-bound']);
  if (!given.out) throw new Error('Say where the pages go: --out FOLDER.');
  const book: Seen = given['right-bound'] === undefined ? 'book' : 'right-bound book';
  const seen = given.book === undefined ? 'sheets' : book;
  const look = given.look ? LOOK_NAMES[given.look] : undefined;
  if (given.look && !look)
    throw new Error(`There is no look “${given.look}”; there are ${Object.keys(LOOK_NAMES).join(', ')}.`);
  await mkdir(given.out, { recursive: true });
  const taken = new Set<string>();
  return eachFile(files, async (file) => {
    const info = await openFile(file);
    const stem = freeStem(basename(file).replace(/\.[^.]+$/, ''), taken);
    const pages = [];
    for (let number = 0; number < info.pages.length; number++) {
      const { scanned, pointWidth, pointHeight } = info.pages[number];
      // Looked at as the program does, smaller; the page is made of all of it.
      const [picture, looked] = await withScratch(async (folder) => [
        await rasterOf(await openPage(info, number, folder)),
        await lookedAtPicture(info, number, folder),
      ]);
      const asScan: [number, number] | undefined = scanned ? [pointWidth, pointHeight] : undefined;
      const proposals = proposePages(looked, seen, asScan);
      for (const { recipe, turn } of proposals) {
        const flat = flatten(picture, recipe);
        const wanted = { ...recipe, look: look ?? recipe.look };
        const page = quarterTurned(finishPage(flat, wanted), turn);
        const out = join(given.out, `${stem}-${pages.length + 1}.png`);
        await sharpOf(page).png({ compressionLevel: 3 }).toFile(out);
        const { score, advice } = judgeRecipe(looked, recipe, { enlarged: picture.width / looked.width });
        const name = Object.keys(LOOK_NAMES).find((each) => LOOK_NAMES[each] === wanted.look)!;
        pages.push({ out, look: name, legibility: { score: Math.round(score * 1000) / 1000, advice } });
      }
    }
    return { pages };
  });
}

/** Files of the same name from different folders don't overwrite each other. */
function freeStem(stem: string, taken: Set<string>): string {
  let free = stem;
  for (let number = 2; taken.has(free); number++) free = `${stem} (${number})`;
  taken.add(free);
  return free;
}
