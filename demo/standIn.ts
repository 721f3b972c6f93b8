import { mkdir, writeFile } from 'node:fs/promises';
import { join } from 'node:path';
import sharp from 'sharp';
import { Raster } from '@crow/core/imaging/raster';
import { FILED, Paper, WAITING } from './papers';
import { demoSheet } from './stock';
import { LaidSheet, outlineOf, renderView, View } from './view';

/** What the stand-in camera sees is put together from these: a bare table, and papers to lay on it. */
const [WIDTH, HEIGHT] = [1512, 2016];
const PAPER_DPI = 170;
const QUALITY = 78;
/** How far around a sheet the table is taken along, in pixels: the shade under its edge lies there. */
const SURROUND = 12;

const TABLE: View = {
  width: WIDTH,
  height: HEIGHT,
  seed: 11,
  table: 'wood',
  sheets: [],
  things: [],
  camera: { shows: 372, lean: 0.14, leanTo: 1.9, roll: 0.02, focal: 0.9 },
  light: { level: 1, falloff: 0.16, from: 4, warmth: 0.3 },
  shadows: [],
  blur: 0.4,
  noise: 0,
};
/** How each paper lies: its middle in mm, and its turn in radians. */
const LIES: { at: [number, number]; angle: number }[] = [
  { at: [2, 4], angle: 0.05 },
  { at: [-5, -3], angle: -0.07 },
  { at: [6, 2], angle: 0.02 },
  { at: [-3, 6], angle: -0.03 },
  { at: [4, -6], angle: 0.09 },
  { at: [0, 0], angle: -0.05 },
];

/** Draws the stand-in camera's table and papers into a folder, with a list of them: film.json. */
export async function drawStandIn(folder: string): Promise<void> {
  await mkdir(folder, { recursive: true });
  const table = renderView(TABLE);
  await writeFile(join(folder, 'table.webp'), await asSharp(table).webp({ quality: QUALITY }).toBuffer());
  const papers: string[] = [];
  for (const [index, paper] of choosePapers().entries()) {
    const sheet: LaidSheet = { ...(await demoSheet(paper, PAPER_DPI)), ...LIES[index] };
    const name = `paper-${index + 1}.webp`;
    await writeFile(join(folder, name), await drawPaper(sheet));
    papers.push(name);
  }
  await writeFile(
    join(folder, 'film.json'),
    JSON.stringify({ width: WIDTH, height: HEIGHT, table: 'table.webp', papers }),
  );
}

/** Papers of different kinds. */
function choosePapers(): Paper[] {
  const all = [...FILED, ...WAITING];
  const kinds = ['invoice', 'letter', 'receipt', 'invoice', 'statement', 'letter'];
  const chosen: Paper[] = [];
  for (const kind of kinds) {
    const next = all.find((paper) => paper.kind === kind && !chosen.includes(paper));
    if (next) chosen.push(next);
  }
  return chosen;
}

/** A paper as it lies on the table, all else transparent. */
async function drawPaper(sheet: LaidSheet): Promise<Buffer> {
  const view = { ...TABLE, sheets: [sheet] };
  const points = outlineOf(sheet, view)
    .map((point) => point.join(','))
    .join(' ');
  const mask = await sharp(
    Buffer.from(
      `<svg xmlns="http://www.w3.org/2000/svg" width="${WIDTH}" height="${HEIGHT}">
         <polygon points="${points}" fill="#fff" stroke="#fff" stroke-width="${SURROUND}" stroke-linejoin="round"/></svg>`,
    ),
  )
    .blur(SURROUND / 4)
    .extractChannel('alpha')
    .raw()
    .toBuffer();
  const picture = await asSharp(renderView(view))
    .joinChannel(mask, { raw: { width: WIDTH, height: HEIGHT, channels: 1 } })
    .raw()
    .toBuffer();
  return sharp(picture, { raw: { width: WIDTH, height: HEIGHT, channels: 4 } })
    .webp({ quality: QUALITY, alphaQuality: 60 })
    .toBuffer();
}

function asSharp({ width, height, data }: Raster) {
  return sharp(data, { raw: { width, height, channels: 3 } });
}
