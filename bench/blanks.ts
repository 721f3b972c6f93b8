import sharp, { Sharp } from 'sharp';
import { isBlank } from '@crow/core/sorting/blank';
import { readDivider } from '@crow/server/engines/codes';
import { atAGlance } from '@crow/server/engines/pictures';
import { rasterise } from '@crow/demo/capture';
import { A4, drawPdf } from '@crow/demo/sheet';
import { noiseSource, seededRandom } from '@crow/demo/random';
import { Chance } from './piles/chance';
import { makeFirm, makePaper } from './piles/papers';

/**
 * Blank backs with show-through, holes, dust, folds and edges; and pages with very little on them: how many are told apart.
 * node scripts/bench.mjs blanks FIRST COUNT [FOLDER for those that are wrong]
 */
const [first, count, folder] = process.argv.slice(2);
const wrong: string[] = [];
const times: number[] = [];
let blanks = 0;
for (let seed = Number(first); seed < Number(first) + Number(count); seed++) {
  const chance = new Chance(seed);
  const isEmpty = chance.of(0.5);
  const firm = makeFirm(chance, chance.pick(['en', 'de', 'fr']));
  const paper = makePaper(chance, firm, chance.pick(['invoice', 'letter']));
  const [front] = await rasterise(
    await drawPdf(paper.sheets.slice(0, 1), { size: paper.size, margin: paper.margin }),
    1,
    200,
  );
  const through = await front
    .greyscale()
    .flop()
    .blur(chance.between(1.2, 3))
    .raw()
    .toBuffer({ resolveWithObject: true });
  const strength = chance.pick([0, 0.03, 0.06, 0.09, 0.12]);
  const { width, height } = through.info;
  const paperLevel = chance.between(205, 250);
  const noise = noiseSource(seededRandom(seed));
  const over = isEmpty ? undefined : await little(chance, width, height);
  const data = Buffer.alloc(width * height);
  for (let at = 0; at < data.length; at++) {
    const shown = paperLevel * (1 - strength * (1 - through.data[at] / 255));
    data[at] = Math.max(0, Math.min(255, shown * (over ? over[at] / 255 : 1) + noise(6)));
  }
  let page: Sharp = sharp(data, { raw: { width, height, channels: 1 } }).toColourspace('b-w');
  page = sharp(
    await page
      .composite([{ input: Buffer.from(marks(chance, width, height)) }])
      .greyscale()
      .png()
      .toBuffer(),
  );
  if (chance.of(0.3)) page = sharp(await page.threshold(150).png().toBuffer());
  const { data: pixels, info } = await sharp(await page.jpeg({ quality: 82 }).toBuffer())
    .toColourspace('b-w')
    .raw()
    .toBuffer({ resolveWithObject: true });
  const raster = { width: info.width, height: info.height, channels: 1 as const, data: pixels };
  const began = performance.now();
  const small = await atAGlance(raster);
  const said = isBlank(small);
  if (!said) await readDivider(small);
  times.push(performance.now() - began);
  if (isEmpty) blanks++;
  if (said === isEmpty) continue;
  wrong.push(`${seed} ${isEmpty ? 'is blank' : 'has content'}, through ${strength}`);
  if (folder) await page.png().toFile(`${folder}/${seed}.png`);
}
console.log(
  `${count} pages, ${blanks} blank, ${wrong.length} wrong, ${median(times).toFixed(0)} ms a page in the median, blank or divider sheet told`,
);
wrong.forEach((line) => console.log(line));

function median(values: number[]): number {
  return [...values].sort((a, b) => a - b)[Math.floor(values.length / 2)];
}

/** A page with hardly anything on it: a page number, a signature, a line, a note in pencil. */
async function little(chance: Chance, width: number, height: number): Promise<Buffer> {
  const what = chance.pick(['number', 'signature', 'line', 'pencil', 'stamp'] as const);
  const grey = { number: 40, signature: 60, line: 30, pencil: chance.between(120, 175), stamp: 130 }[what];
  const write = {
    number: '- 2 -',
    signature: 'J. Orde',
    line: 'Paid by transfer on the third.',
    pencil: 'call about the roof, 0371',
    stamp: 'RECEIVED 14 MAY',
  }[what];
  const pdf = await drawPdf(
    [
      (sheet) => {
        sheet.y = what === 'number' ? 780 : chance.between(80, 700);
        sheet.line(write, {
          face: what === 'signature' || what === 'pencil' ? 'hand' : 'plain',
          size: what === 'signature' ? 24 : what === 'pencil' ? 16 : 10,
          align: what === 'number' ? 'centre' : 'left',
        });
      },
    ],
    { size: A4 },
  );
  const [page] = await rasterise(pdf, 1, 200);
  const drawn = await page.greyscale().resize(width, height, { fit: 'fill' }).raw().toBuffer();
  return Buffer.from(drawn.map((value) => 255 - ((255 - value) / 255) * (255 - grey)));
}

/** Holes, dust, a fold, a dark edge. */
function marks(chance: Chance, width: number, height: number): string {
  const shapes: string[] = [];
  if (chance.of(0.35))
    for (const y of [0.36, 0.63])
      shapes.push(`<circle cx="${chance.pick([95, width - 95])}" cy="${height * y}" r="22" fill="rgb(40,40,40)"/>`);
  for (let speck = chance.whole(0, 25); speck > 0; speck--)
    shapes.push(
      `<circle cx="${chance.between(0, width)}" cy="${chance.between(0, height)}" r="${chance.between(0.5, 2.4)}" fill="rgb(70,70,70)"/>`,
    );
  if (chance.of(0.3)) {
    const y = height * chance.pick([0.333, 0.5, 0.667]);
    shapes.push(
      `<line x1="0" x2="${width}" y1="${y}" y2="${y + chance.between(-6, 6)}" stroke="rgb(185,185,185)" stroke-width="2"/>`,
    );
  }
  if (chance.of(0.3))
    shapes.push(`<rect x="${chance.pick([0, width - 9])}" y="0" width="9" height="${height}" fill="rgb(60,60,60)"/>`);
  return `<svg xmlns="http://www.w3.org/2000/svg" width="${width}" height="${height}">${shapes.join('')}</svg>`;
}
