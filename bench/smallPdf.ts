import { execFileSync } from 'node:child_process';
import { existsSync, readdirSync, readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import sharp from 'sharp';
import { bindingPicture } from '@crow/server/engines/bindingPictures';
import { madePage } from '@crow/server/engines/pictures';
import { withScratch } from '@crow/server/engines/scratch';
import { inspectFile, openPage } from '@crow/server/engines/sourceFile';
import { lookedAtPicture } from '@crow/server/engines/pictures';
import { proposeRecipes } from '@crow/core/imaging/proposing/proposals';
import { bindPdf } from '@crow/core/pdf/bindPdf';

/**
 * Binds made papers (see makePapers) small, and says how many bytes they have beside the same pages as JPEG of quality 75, and how
 * many of the words that the engine alone reads from the page it reads from the small PDF again:
 * node scripts/bench.mjs smallPdf FOLDER [KEEP]
 * KEEP is a folder in which the PDFs are kept, for looking at them.
 */
const [folder, keep] = process.argv.slice(2);
const names = readdirSync(folder)
  .filter((name) => /\.(jpg|png)$/.test(name))
  .sort((a, b) => parseInt(a) - parseInt(b));
const sums = { jpeg: 0, small: 0, read: 0, again: 0, truth: 0, before: 0, after: 0, kept: 0, milliseconds: 0 };
for (const name of names) {
  const path = join(folder, name);
  const told = path.replace(/\.\w+$/, '.json');
  await withScratch(async (scratch) => {
    const info = await inspectFile(path, name);
    const { scanned, pointWidth, pointHeight } = info.pages[0];
    const looked = scanned ? undefined : proposeRecipes(await lookedAtPicture(info, 0, scratch))[0];
    const recipe = looked?.recipe ?? null;
    const turn = looked?.turn ?? 0;
    const page = recipe
      ? sharp((await madePage(info, 0, recipe, Infinity, scratch)).data, {
          raw: (await madePage(info, 0, recipe, Infinity, scratch)).info,
        })
      : await openPage(info, 0, scratch);
    const jpeg = await page.clone().rotate(turn).jpeg({ quality: 75 }).toBuffer();
    const began = performance.now();
    const picture = await bindingPicture(info, 0, turn, 'small', scratch, recipe);
    sums.milliseconds += performance.now() - began;
    const size = recipe?.paper ?? [pointWidth, pointHeight];
    const upright = turn % 180 === 0 ? size : size.toReversed();
    const bound = await bindPdf([{ kind: 'picture', picture, size: upright as [number, number] }], {
      title: name,
      created: new Date(0),
      fileId: new Uint8Array(16),
    });
    const pdf = join(keep ?? scratch, `${name}.pdf`);
    writeFileSync(pdf, bound.bytes);
    const original = join(scratch, 'page.png');
    writeFileSync(original, await page.clone().rotate(turn).png().toBuffer());
    execFileSync('pdftoppm', ['-r', '300', '-png', '-singlefile', pdf, join(scratch, 'small')]);
    const dpi = Math.round(((await sharp(original).metadata()).width * 72) / upright[0]);
    const language = existsSync(told)
      ? (JSON.parse(readFileSync(told, 'utf8')) as { language: string }).language
      : 'eng';
    const before = engineWords(original, dpi, language);
    const after = engineWords(join(scratch, 'small.png'), 300, language);
    const truth = existsSync(told)
      ? (JSON.parse(readFileSync(told, 'utf8')) as { words: { text: string }[] }).words.map(({ text }) => text)
      : [];
    const again = common(before, after);
    const rightly = commonWords(truth, before);
    sums.jpeg += jpeg.length;
    sums.small += bound.bytes.length;
    sums.read += before.length;
    sums.again += again;
    sums.truth += truth.length;
    sums.before += common(truth, before);
    sums.after += common(truth, after);
    sums.kept += common(rightly, after);
    console.log(
      `${name}: ${jpeg.length} as JPEG, ${bound.bytes.length} small (${(bound.bytes.length / jpeg.length).toFixed(3)}), ` +
        `ink ${picture.stencils?.map(({ bytes, colour }) => `${bytes.length} ${colour.join(',')}`).join('; ') ?? picture.format}; background ${picture.bytes.length}; ` +
        `again ${again} of ${before.length}; of ${truth.length} before ${common(truth, before)}, after ${common(truth, after)}`,
    );
  });
}
const share = (part: number, of: number) => (part / of).toFixed(4);
console.log(
  `${names.length} pages: ${share(sums.small, sums.jpeg)} of the JPEGs; read again ${share(sums.again, sums.read)}; ` +
    `right before ${share(sums.before, sums.truth)}, after ${share(sums.after, sums.truth)}, of those right before ${share(sums.kept, sums.before)} again; ${Math.round(sums.milliseconds / names.length)} ms a page`,
);

function engineWords(path: string, dpi: number, language: string): string[] {
  const text = execFileSync('tesseract', [path, 'stdout', '-l', language, '--dpi', String(dpi)], {
    encoding: 'utf8',
    stdio: ['ignore', 'pipe', 'ignore'],
    env: { ...process.env, OMP_THREAD_LIMIT: '1' },
  });
  return text.split(/\s+/).filter((word) => /[\p{L}\p{N}]/u.test(word));
}

/** How many words two lists have in common. */
function common(some: string[], others: string[]): number {
  return commonWords(some, others).length;
}

function commonWords(some: string[], others: string[]): string[] {
  const left = new Map<string, number>();
  for (const word of others) left.set(word, (left.get(word) ?? 0) + 1);
  return some.filter((word) => {
    const number = left.get(word) ?? 0;
    if (number > 0) left.set(word, number - 1);
    return number > 0;
  });
}
