import { readFileSync, readdirSync } from 'node:fs';
import { join } from 'node:path';
import sharp from 'sharp';
import { findOutlines } from '@crow/core/imaging/outline/findOutlines';
import { overlap, Quad } from '@crow/core/imaging/quad';
import { rgbRaster } from '@crow/demo/capture';

/** Measures outlines against known corners: node scripts/bench.mjs outline FOLDER [LEAST to list] [quick, as while filming] */
const [folder, list = '0.95', quick] = process.argv.slice(2);
interface Truth {
  file: string;
  trouble: string;
  table: string;
  outlines: Quad[];
}
const truths = readdirSync(folder)
  .filter((name) => name.startsWith('truth'))
  .flatMap((name) => JSON.parse(readFileSync(join(folder, name), 'utf8')) as Truth[]);
const rows: { worst: number; truth: Truth; extra: number; confidence: number }[] = [];
let milliseconds = 0;
for (const truth of truths) {
  const picture = await rgbRaster(sharp(truth.file));
  const began = performance.now();
  const found = quick ? findOutlines(picture, { quick: true, most: 1 }) : findOutlines(picture);
  milliseconds += performance.now() - began;
  const all = truth.outlines.map((quad) => Math.max(0, ...found.map(({ corners }) => overlap(corners, quad))));
  // While filming, one of several sheets is enough.
  const overlaps = quick ? [Math.max(...all)] : all;
  rows.push({
    worst: Math.min(...overlaps),
    truth,
    extra: quick ? 0 : found.length - truth.outlines.length,
    confidence: found[0]?.confidence ?? 0,
  });
}
rows.sort((a, b) => a.worst - b.worst);
for (const { worst, truth, extra, confidence } of rows.filter((row) => row.worst < Number(list) || row.extra !== 0))
  console.log(worst.toFixed(4), confidence.toFixed(2), `extra ${extra}`, truth.file, truth.trouble, truth.table);
const mean = (values: number[]) => values.reduce((sum, each) => sum + each, 0) / values.length;
console.log(
  JSON.stringify({
    pictures: rows.length,
    mean: mean(rows.map((row) => row.worst)),
    worst: rows[0].worst,
    below90: rows.filter((row) => row.worst < 0.9).length,
    wrongNumber: rows.filter((row) => row.extra !== 0).length,
    milliseconds: milliseconds / rows.length,
  }),
);
const by = (key: 'trouble' | 'table') => {
  for (const name of new Set(rows.map((row) => row.truth[key]))) {
    const those = rows.filter((row) => row.truth[key] === name).map((row) => row.worst);
    console.log(name.padEnd(18), mean(those).toFixed(4), Math.min(...those).toFixed(4));
  }
};
by('trouble');
by('table');
