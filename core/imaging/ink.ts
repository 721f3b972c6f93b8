import { boxBlur, greyOf, Plane, Raster } from './raster';

/** Where a page is darker than the paper around: 1 for ink, 0 for paper. */
export interface Ink {
  width: number;
  height: number;
  data: Uint8Array;
}

/**
 * Four pixels at a time, for loops that pass over paper quickly: a word that is 0 is paper.
 * @returns word n holds the pixels 4n to 4n + 3; none where the ink does not begin with a word in memory
 */
export function inkWords({ data }: Ink): Uint32Array {
  return data.byteOffset % 4 === 0
    ? new Uint32Array(data.buffer, data.byteOffset, data.length >> 2)
    : new Uint32Array(0);
}

/** How much darker than its surroundings ink is at least, as a share and in grey levels. */
const DARKER_BY = 0.14;
const LEAST_DARKER = 9;

/**
 * A rough but quick separation of ink and paper for finding lines of text: what is clearly darker than the mean of its
 * surroundings (Bradley & Roth 2007).
 * @param darkerBy how much darker, as a share
 */
export function roughInk(picture: Raster, darkerBy = DARKER_BY): Ink {
  const grey = greyOf(picture);
  const { width, height } = grey;
  const values: Plane = { width, height, data: Float32Array.from(grey.data) };
  const around = boxBlur(values, Math.max(4, Math.round(Math.max(width, height) / 60))).data;
  const ink = new Uint8Array(width * height);
  for (let at = 0; at < ink.length; at++) {
    const mean = around[at];
    if (values.data[at] < mean - Math.max(LEAST_DARKER, darkerBy * mean)) ink[at] = 1;
  }
  return { width, height, data: ink };
}
