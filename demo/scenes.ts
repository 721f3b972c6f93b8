import { Quad } from '@crow/core/imaging/quad';
import { Raster } from '@crow/core/imaging/raster';
import { seededRandom } from './random';
import { TABLES } from './table';
import { LaidSheet, outlineOf, Thing, View } from './view';

/** What makes a photo of paper hard. */
export type Trouble =
  'none' | 'things' | 'shadow' | 'bowed' | 'corner outside' | 'on another sheet' | 'receipt' | 'several receipts';

export const TROUBLES: Trouble[] = [
  'none',
  'things',
  'shadow',
  'bowed',
  'corner outside',
  'on another sheet',
  'receipt',
  'several receipts',
];

/** Papers to be photographed, with their sizes in mm. */
export interface Stock {
  sheets: { picture: Raster; width: number; height: number }[];
  receipts: { picture: Raster; width: number; height: number }[];
}

export interface Scene {
  view: View;
  trouble: Trouble;
  /** Of the sheets that lie uncovered, in the order in which they were laid. */
  outlines: Quad[];
}

/** A photo as people take them, by number: another number, another table, light, slant and trouble. */
export function makeScene(seed: number, stock: Stock, longSide: number): Scene {
  const random = seededRandom(seed * 7919 + 13);
  for (;;) {
    const scene = tryScene(seed, random, stock, longSide);
    if (isAsMeant(scene)) return scene;
  }
}

/** How far outside the picture a corner may lie, as a share of its longer side. */
const MOST_OUTSIDE = 0.1;

/** Whether all corners are in the picture, or the one that is meant to be outside is, and not too far. */
function isAsMeant({ outlines, trouble, view: { width, height } }: Scene): boolean {
  const outside = outlines.flat().map(([x, y]) => Math.max(-x, -y, x - width, y - height) / Math.max(width, height));
  const number = outside.filter((away) => away > 0).length;
  return trouble === 'corner outside' ? number === 1 && Math.max(...outside) < MOST_OUTSIDE : number === 0;
}

function tryScene(seed: number, random: () => number, stock: Stock, longSide: number): Scene {
  const between = (low: number, high: number) => low + (high - low) * random();
  const pick = <T>(from: readonly T[]): T => from[Math.floor(random() * from.length)];
  const table = TABLES[seed % TABLES.length];
  const trouble = TROUBLES[Math.floor(seed / TABLES.length + seed) % TROUBLES.length];
  const landscape = random() < 0.15;
  const [width, height] = landscape ? [longSide, Math.round(longSide * 0.75)] : [Math.round(longSide * 0.75), longSide];
  const angle = trouble === 'corner outside' ? between(-0.5, 0.5) : between(-0.16, 0.16);
  const laid = (source: Stock['sheets'][number], x = 0, y = 0, turned = angle): LaidSheet => ({
    ...source,
    at: [x + between(-6, 6), y + between(-8, 8)],
    angle: turned,
  });
  let sheets: LaidSheet[];
  let shows: number;
  if (trouble === 'several receipts') {
    const number = random() < 0.5 ? 2 : 3;
    sheets = Array.from({ length: number }, (_, index) =>
      laid(pick(stock.receipts), (index - (number - 1) / 2) * 108, between(-15, 15), between(-0.12, 0.12)),
    );
    shows = Math.max(...sheets.map((sheet) => sheet.height), number * 118) * between(1.15, 1.3);
  } else if (trouble === 'receipt') {
    sheets = [laid(pick(stock.receipts))];
    shows = sheets[0].height * between(1.15, 1.6);
  } else {
    sheets = [laid(pick(stock.sheets))];
    shows = Math.max(sheets[0].height, sheets[0].width * 1.35) * between(1.12, 1.5);
  }
  if (landscape) shows *= 1.35;
  const top = sheets[sheets.length - 1];
  if (trouble === 'bowed') top.bow = between(-2.2, 2.2);
  if (trouble === 'corner outside') top.at = [top.at[0] + between(-40, 40), top.at[1] + between(-40, 40)];
  if (trouble === 'on another sheet')
    sheets.unshift(laid(pick(stock.sheets), between(-60, 60), between(-50, 50), angle + between(-0.5, 0.5)));
  const view: View = {
    width,
    height,
    seed: seed + 1,
    table,
    sheets,
    things: trouble === 'things' ? scatter(top, between, pick) : [],
    camera: {
      shows,
      lean: between(0, 0.42),
      leanTo: between(-Math.PI, Math.PI),
      roll: between(-0.1, 0.1),
      focal: between(0.72, 1.05),
    },
    light: {
      level: between(0.72, 1.02),
      falloff: between(0.05, 0.5),
      from: between(0, 6.28),
      warmth: between(-0.3, 0.9),
    },
    shadows:
      trouble === 'shadow'
        ? [
            {
              at: [between(-60, 60), between(-90, 90)],
              angle: between(0, 6.28),
              softness: between(3, 28),
              depth: between(0.25, 0.5),
              width: between(60, 400),
            },
          ]
        : [],
    blur: random() < 0.5 ? 0 : between(0.3, 1.6),
    noise: between(1.5, 9),
  };
  const uncovered = trouble === 'on another sheet' ? [top] : sheets;
  return { view, trouble, outlines: uncovered.map((sheet) => outlineOf(sheet, view)) };
}

function scatter(
  top: LaidSheet,
  between: (low: number, high: number) => number,
  pick: <T>(from: readonly T[]) => T,
): Thing[] {
  const colours = [
    [40, 60, 140],
    [190, 40, 40],
    [30, 30, 30],
    [220, 200, 60],
    [206, 160, 134],
  ] as const;
  return Array.from({ length: 3 }, (_, index) => {
    const side = pick([-1, 1]);
    const x = top.at[0] + side * (top.width / 2 + between(-4, 40));
    const y = top.at[1] + between(-0.5, 0.5) * top.height;
    const long = index === 0 ? 0 : between(40, 130);
    const turned = between(0, 6.28);
    return {
      from: [x, y],
      to: [x + side * Math.abs(Math.cos(turned)) * long, y + Math.sin(turned) * long],
      radius: index === 0 ? between(18, 40) : between(4, 9),
      colour: [...pick(colours)],
    };
  });
}
