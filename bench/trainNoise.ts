import { existsSync, mkdirSync, readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import sharp from 'sharp';
import { editDistance } from '@crow/core/finding/editDistance';
import { Raster } from '@crow/core/imaging/raster';
import { isBetween, NOISE_SIGNS, NoiseEvidence, noiseSigns, withoutNoise } from '@crow/core/reading/layout/noise';
import { Word } from '@crow/core/reading/words';
import { rasterise } from '@crow/demo/capture';
import { dictionaryOf } from '@crow/server/engines/dictionary';
import { readWholePage } from '@crow/server/engines/pageReader';
import { readLinesOf } from '@crow/server/engines/recognise';
import { drawPicture, PICTURES } from './noise/pictures';
import { Chance } from './piles/chance';
import { feederScan } from './piles/scan';
import { Half, makeReadingPaper } from './reading/paper';

/**
 * Fits what each sign of a word says for its being no print: node scripts/bench.mjs trainNoise FOLDER COUNT [write]
 * Pages with pictures of four kinds beside them are read, by both searches for text; what stands in the pictures is noise, however it is spelt. Print
 * is what is like a word of the page: half of the pages are small and soft, and much on them can't be read; what is like none is left out. Logistic regression by iterated least squares with a
 * penalty. Held out are pages of the other half of the generator (fonts, layouts) with four other kinds of pictures.
 */
const [folder, count, write] = process.argv.slice(2);
/** Print that is taken for noise is lost, noise that is taken for print only disturbs. */
const [PENALTY, WEIGHT_OF_PRINT] = [1, 14];
mkdirSync(folder, { recursive: true });

interface Reading {
  language: string;
  /** By the program's own search, and by the recogniser's. */
  own: Word[];
  whole: Word[];
  /** Those of both that count. */
  told: ReadonlySet<Word>;
  /** Where the picture is, from and to, across the page. */
  picture: [from: number, to: number];
}

/** Words with so many of their letters misread are still those of the page. */
const MISREAD = 0.34;

const isNoise = ({ box: [x, , width] }: Word, [from, to]: Reading['picture']) =>
  x + width / 2 > from && x + width / 2 < to;

const [fitted, held] = [await readings('fitted', 'tuned'), await readings('held', 'untuned')];
const weights = await fit(fitted);
const readable = Object.fromEntries(
  NOISE_SIGNS.map((sign, at) => [sign, Math.round(weights[at] * 100) / 100]),
) as NoiseEvidence;
console.log(JSON.stringify(readable));
if (write)
  writeFileSync(
    'core/reading/layout/noiseWeights.ts',
    `import { NoiseEvidence } from './noise';\n\n/** What each sign says for (above 0) or against a word being no print: made by \`bench/trainNoise.ts\`. */\nexport const NOISE_WEIGHTS: NoiseEvidence = ${JSON.stringify(
      readable,
      null,
      2,
    )
      .replace(/"(\w+)":/g, '$1:')
      .replace(/\n}$/, ',\n}')};\n`,
  );
else
  for (const [name, set] of [
    ['fitted', fitted],
    ['held out', held],
  ] as const)
    await report(name, set);

/** The pages of a set, read once and kept. */
async function readings(set: 'fitted' | 'held', half: Half): Promise<Reading[]> {
  const all: Reading[] = [];
  for (let seed = 1; seed <= Number(count); seed++) {
    const kept = join(folder, `${set}-${seed}.json`);
    if (!existsSync(kept)) writeFileSync(kept, JSON.stringify(await readPage(set, half, seed)));
    const reading = JSON.parse(readFileSync(kept, 'utf8')) as Reading;
    const paper = await makeReadingPaper(seed + 40_000, half, ['en', 'de', 'fr']);
    const truth = [...new Set(paper.words.map(({ text }) => lettersOf(text)))];
    const isTold = ({ text }: Word) => {
      const letters = lettersOf(text);
      // Strokes and points between words are print where the page has such.
      if (letters === '') return paper.words.some((word) => word.text === text);
      return truth.some((each) => editDistance(letters, each) <= MISREAD * letters.length);
    };
    const told = (words: Word[]) => words.filter((word) => isNoise(word, reading.picture) || isTold(word));
    all.push({ ...reading, told: new Set([...told(reading.own), ...told(reading.whole)]) });
  }
  return all;
}

function lettersOf(text: string): string {
  return text.toLowerCase().replace(/[^\p{L}\p{N}]/gu, '');
}

async function readPage(set: 'fitted' | 'held', half: Half, seed: number): Promise<Omit<Reading, 'told'>> {
  const chance = new Chance(seed * 31 + (set === 'held' ? 7 : 0));
  const paper = await makeReadingPaper(seed + 40_000, half, ['en', 'de', 'fr']);
  const page = await (
    await rasterise(paper.pdf, 1, 200)
  )[0]
    .flatten({ background: '#fff' })
    .greyscale()
    .png()
    .toBuffer();
  const { width = 0, height = 0 } = await sharp(page).metadata();
  const [kind, beside, gap] = [PICTURES[set][seed % 4], chance.whole(420, 760), 60];
  const isLeft = chance.of(0.5);
  const tall = Math.min(height, chance.whole(300, 900));
  const drawn = await drawPicture(kind, beside, tall, chance, page);
  const picture = await sharp(drawn, { raw: { width: beside, height: tall, channels: 1 } })
    .png()
    .toBuffer();
  const whole = await sharp({
    create: { width: width + beside + 2 * gap, height, channels: 3, background: '#fcfcfc' },
  })
    .composite([
      { input: page, left: isLeft ? beside + 2 * gap : 0, top: 0 },
      { input: picture, left: isLeft ? gap : width + gap, top: chance.whole(0, height - tall) },
    ])
    .png()
    .toBuffer();
  const scan = await feederScan(sharp(whole), chance, chance.of(0.2));
  const isPoor = (seed >> 2) % 2 === 1;
  const scale = isPoor ? 0.34 + 0.26 * chance.random() : 1;
  const { data, info } = await sharp(scan.picture)
    .blur(isPoor ? 0.5 + 1.2 * chance.random() : 0.3)
    .resize(Math.round(scan.width * scale))
    .greyscale()
    .toColourspace('b-w')
    .raw()
    .toBuffer({ resolveWithObject: true });
  const raster: Raster = { width: info.width, height: info.height, channels: 1, data: new Uint8Array(data) };
  const { words, language, layout } = await readLinesOf(raster, ['eng', 'deu', 'fra']);
  const from = isLeft ? 0 : width + gap / 2;
  return {
    language,
    own: words,
    whole: await readWholePage(raster, language, layout.pieces.letter),
    picture: [from * scale, (from + beside + gap) * scale],
  };
}

async function fit(set: readonly Reading[]): Promise<number[]> {
  const rows: { x: number[]; y: number; weight: number }[] = [];
  for (const reading of set)
    for (const words of [reading.own, reading.whole]) {
      const signs = noiseSigns(words, await dictionaryOf(reading.language));
      words.forEach((word, at) => {
        if (!reading.told.has(word) || isBetween(word, signs[at])) return;
        const y = isNoise(word, reading.picture) ? 1 : 0;
        rows.push({ x: NOISE_SIGNS.map((sign) => signs[at][sign]), y, weight: y ? 1 : WEIGHT_OF_PRINT });
      });
    }
  console.log(`${rows.length} words fitted, ${rows.filter(({ y }) => y === 1).length} of them noise`);
  const size = NOISE_SIGNS.length;
  let by = new Array<number>(size).fill(0);
  for (let step = 0; step < 25; step++) {
    const hessian = Array.from({ length: size }, (_, at) =>
      Array.from({ length: size }, (_, to) => (at === to ? PENALTY : 0)),
    );
    const slope = by.map((value) => -PENALTY * value);
    for (const { x, y, weight } of rows) {
      const chance = 1 / (1 + Math.exp(-x.reduce((sum, value, at) => sum + value * by[at], 0)));
      const [off, bend] = [weight * (y - chance), weight * chance * (1 - chance)];
      for (let at = 0; at < size; at++) {
        slope[at] += off * x[at];
        for (let to = 0; to < size; to++) hessian[at][to] += bend * x[at] * x[to];
      }
    }
    const change = solved(hessian, slope);
    by = by.map((value, at) => value + change[at]);
  }
  return by;
}

/** The solution of a system of equations, by elimination. */
function solved(matrix: number[][], right: number[]): number[] {
  const rows = matrix.map((row, at) => [...row, right[at]]);
  for (let at = 0; at < rows.length; at++) {
    const best = rows.findIndex(
      (row, to) => to >= at && Math.abs(row[at]) === Math.max(...rows.slice(at).map((each) => Math.abs(each[at]))),
    );
    [rows[at], rows[best]] = [rows[best], rows[at]];
    for (let to = 0; to < rows.length; to++) {
      if (to === at) continue;
      const factor = rows[to][at] / rows[at][at];
      for (let column = at; column <= rows.length; column++) rows[to][column] -= factor * rows[at][column];
    }
  }
  return rows.map((row, at) => row[rows.length] / row[at]);
}

/** How much print is lost and how much noise stays, with the weights that the program has. */
async function report(name: string, set: readonly Reading[]): Promise<void> {
  for (const which of ['own', 'whole'] as const) {
    let [print, lost, noise, stays] = [0, 0, 0, 0];
    const samples: string[] = [];
    for (const reading of set) {
      const kept = new Set(withoutNoise(reading[which], await dictionaryOf(reading.language)));
      for (const word of reading[which].filter((each) => reading.told.has(each))) {
        const is = isNoise(word, reading.picture);
        if (is) noise++;
        else print++;
        if (is && kept.has(word)) stays++;
        if (!is && !kept.has(word)) {
          lost++;
          samples.push(`${word.text} ${word.confidence.toFixed(2)}`);
        }
      }
    }
    console.log(
      `${name}, ${which} search: ${lost} of ${print} words of print lost, ${stays} of ${noise} of noise kept; lost: ${samples.slice(0, 60).join(' | ')}`,
    );
  }
}
