import { around, Box } from '../../geometry';
import { inkPieces } from '../../imaging/components';
import { roughInk } from '../../imaging/ink';
import { Raster } from '../../imaging/raster';
import { Word } from '../words';
import { takeOutRules } from './ruledLines';

/** All as shares of the picture's longer side: how near pieces are that belong to one figure, and how large one is at least. */
const NEAR = 0.018;
const LEAST_SIDE = 0.03;
/** So much of a figure's box is ink; a frame or a grid around so many words is none. */
const LEAST_INK = 0.035;
const FRAMED_WORDS = 2;
/** A box of which so much is words is text. */
const WORDS = 0.25;
/** What is read with less confidence may be a drawing that was taken for letters. */
const IS_WORD = 0.6;

/**
 * What is drawn on a page rather than written: logos, photos, stamps, codes, signatures; from the pieces of ink that no word
 * holds, those near each other together.
 * @param page about 800 pixels long is enough
 * @param words those on it, in its pixels
 * @returns boxes in its pixels, from the top
 */
export function findFigures(page: Raster, words: readonly Pick<Word, 'box' | 'confidence'>[]): Box[] {
  const unit = Math.max(page.width, page.height);
  const boxes = words.filter(({ confidence }) => confidence >= IS_WORD).map(({ box }) => box);
  const heights = boxes.map(([, , , height]) => height).sort((a, b) => a - b);
  const ink = roughInk(page);
  takeOutRules(ink, heights[heights.length >> 1] ?? unit / 100);
  for (const [x, y, width, height] of boxes) {
    const [left, right] = [Math.max(0, Math.floor(x) - 1), Math.min(page.width, Math.ceil(x + width) + 1)];
    for (let row = Math.max(0, Math.floor(y) - 1); row < Math.min(page.height, Math.ceil(y + height) + 1); row++)
      ink.data.fill(0, row * page.width + left, row * page.width + Math.max(left, right));
  }
  const pieces = inkPieces(ink)
    .map(({ left, top, right, bottom, pixels }) => ({
      box: [left, top, right - left + 1, bottom - top + 1] as Box,
      pixels,
    }))
    .filter(({ box, pixels }) => {
      const framed = boxes.filter((word) => isWithin(word, box)).length;
      return pixels > 2 && (framed < FRAMED_WORDS || pixels > 0.5 * box[2] * box[3]);
    });
  return together(pieces, NEAR * unit)
    .filter(({ box: [x, y, width, height], pixels }) => {
      const covered = boxes.reduce((sum, [wx, wy, ww, wh]) => {
        const across = Math.min(x + width, wx + ww) - Math.max(x, wx);
        const down = Math.min(y + height, wy + wh) - Math.max(y, wy);
        return across > 0 && down > 0 ? sum + across * down : sum;
      }, 0);
      const area = width * height;
      return Math.min(width, height) >= LEAST_SIDE * unit && pixels >= LEAST_INK * area && covered < WORDS * area;
    })
    .map(({ box }) => box)
    .sort((a, b) => a[1] - b[1]);
}

function isWithin([x, y, width, height]: Box, [left, top, wide, high]: Box): boolean {
  const [middle, centre] = [x + width / 2, y + height / 2];
  return middle > left && middle < left + wide && centre > top && centre < top + high;
}

interface Group {
  box: Box;
  pixels: number;
}

/** Joins what is near each other until nothing is. */
function together(pieces: Group[], near: number): Group[] {
  let groups = pieces;
  for (let joined = true; joined;) {
    joined = false;
    const next: Group[] = [];
    for (const piece of groups) {
      const home = next.find(({ box }) => isNear(box, piece.box, near));
      if (!home) next.push({ ...piece });
      else {
        home.box = around([home.box, piece.box]);
        home.pixels += piece.pixels;
        joined = true;
      }
    }
    groups = next;
  }
  return groups;
}

function isNear([ax, ay, aw, ah]: Box, [bx, by, bw, bh]: Box, near: number): boolean {
  return ax - near < bx + bw && bx - near < ax + aw && ay - near < by + bh && by - near < ay + ah;
}
