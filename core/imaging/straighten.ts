import { Homography, homography } from './homography';
import { withPixels } from './kernels/pixels';
import { distance, Point, Quad, wholeQuad } from './quad';
import { bytesOf, Raster } from './raster';

/** A paper size in points (1/72 inch), portrait. */
export interface PaperSize {
  name: string;
  width: number;
  height: number;
}

export const PAPER_SIZES: PaperSize[] = [
  { name: 'A4', width: 595.28, height: 841.89 },
  { name: 'A5', width: 419.53, height: 595.28 },
  { name: 'A3', width: 841.89, height: 1190.55 },
  { name: 'Letter', width: 612, height: 792 },
  { name: 'Legal', width: 612, height: 1008 },
];

/** Whether a page is as large as a standard paper, either way round. */
export function isPaperSize(width: number, height: number): boolean {
  const [short, long] = [Math.min(width, height), Math.max(width, height)];
  return PAPER_SIZES.some((size) => Math.abs(short / size.width - 1) < SNAP && Math.abs(long / size.height - 1) < SNAP);
}

/** Focal lengths that cameras have, as shares of the picture's longer side, and the usual one of a phone. */
const SHORTEST_FOCAL = 0.5;
const LONGEST_FOCAL = 1.8;
export const USUAL_FOCAL = 0.85;

/**
 * Width over height of the rectangle that is seen as this quad, from the view alone: the picture's middle is taken to be the
 * camera's axis (Zhang & He 2007, “Whiteboard scanning and image enhancement”). Where the view is too straight to tell the
 * focal length, a phone's usual one serves.
 * @param width of the whole picture, in pixels
 */
export function trueAspect(quad: Quad, width: number, height: number): number {
  const centred = quad.map(([x, y]) => [x - width / 2, y - height / 2, 1]);
  const [upperLeft, upperRight, lowerRight, lowerLeft] = centred;
  const k2 = dot(cross(upperLeft, lowerRight), lowerLeft) / dot(cross(upperRight, lowerRight), lowerLeft);
  const k3 = dot(cross(upperLeft, lowerRight), upperRight) / dot(cross(lowerLeft, lowerRight), upperRight);
  const n2 = upperRight.map((value, index) => k2 * value - upperLeft[index]);
  const n3 = lowerLeft.map((value, index) => k3 * value - upperLeft[index]);
  const long = Math.max(width, height);
  const squared = -(n2[0] * n3[0] + n2[1] * n3[1]) / (n2[2] * n3[2]);
  const seen = Math.sqrt(squared) / long;
  const focal = (seen > SHORTEST_FOCAL && seen < LONGEST_FOCAL ? seen : USUAL_FOCAL) * long;
  const across = (n2[0] ** 2 + n2[1] ** 2) / focal ** 2 + n2[2] ** 2;
  const down = (n3[0] ** 2 + n3[1] ** 2) / focal ** 2 + n3[2] ** 2;
  return Math.sqrt(across / down);
}

function cross(a: number[], b: number[]): number[] {
  return [a[1] * b[2] - a[2] * b[1], a[2] * b[0] - a[0] * b[2], a[0] * b[1] - a[1] * b[0]];
}

function dot(a: number[], b: number[]): number {
  return a[0] * b[0] + a[1] * b[1] + a[2] * b[2];
}

/** How far the shape seen may be off a standard one and still be taken for it. */
const SNAP = 0.03;
/** The width that a till's paper roll usually has, and the longer side of a sheet of a shape of its own, in points. */
const ROLL_WIDTH = 226.8;
const USUAL_LENGTH = 841.89;
/** From this shape on, a paper is taken for a receipt. */
const RECEIPT_SHAPE = 1.75;

/**
 * The size of a paper of which only the shape is known, in points: a standard size when it is close to one, a till roll's
 * width when it is long and narrow, else with the longer side of A4.
 * @param aspect width over height
 */
export function paperFor(aspect: number): { width: number; height: number; name: string | null } {
  const shape = Math.max(aspect, 1 / aspect);
  const turn = (width: number, height: number, name: string | null) =>
    aspect <= 1 ? { width, height, name } : { width: height, height: width, name };
  const near = PAPER_SIZES.find((size) => Math.abs(size.height / size.width / shape - 1) < SNAP);
  if (near) return turn(near.width, near.height, near.name);
  if (shape > RECEIPT_SHAPE) return turn(ROLL_WIDTH, ROLL_WIDTH * shape, null);
  return turn(USUAL_LENGTH / shape, USUAL_LENGTH, null);
}

const MOST_DPI = 300;

/**
 * How many pixels a sheet gets when it is made flat: as many as the camera saw on its longest sides, at most 300 an inch.
 * @param paper its size in points
 */
export function flatSize(quad: Quad, paper: { width: number; height: number }): [width: number, height: number] {
  const across = Math.max(distance(quad[0], quad[1]), distance(quad[3], quad[2]));
  const down = Math.max(distance(quad[0], quad[3]), distance(quad[1], quad[2]));
  const perPoint = Math.min(MOST_DPI / 72, Math.max(across / paper.width, down / paper.height));
  return [Math.max(1, Math.round(paper.width * perPoint)), Math.max(1, Math.round(paper.height * perPoint))];
}

/** Fractions of a pixel are counted in 256ths, places along a row in 65536ths. */
const FRACTION = 256;
const HALF = 1 << 15;
const PLACE = 65_536;
/** Between points this many pixels apart, places are taken to lie on a straight line: off by less than a hundredth of a pixel. */
const SPAN = 16;

/**
 * What a quad of a picture shows, made flat: the projective map undone, each pixel interpolated between its four neighbours.
 * What lies outside the picture comes out white.
 * @returns a raster with as many channels as the picture, an opaque one's alpha left out
 */
export function warp(picture: Raster, quad: Quad, width: number, height: number): Raster {
  const channels = picture.channels === 1 ? 1 : 3;
  const h = homography(wholeQuad(width, height), quad);
  const data = withPixels([bytesOf(picture), width * height * channels], (pixels, [source, out]) =>
    pixels.warp(
      source,
      picture.width,
      picture.height,
      picture.channels,
      out,
      width,
      height,
      h[0],
      h[1],
      h[2],
      h[3],
      h[4],
      h[5],
      h[6],
      h[7],
    ),
  );
  return data ? { width, height, channels, data } : plainWarp(picture, h, width, height);
}

/** The same without the kernels. @param h the homography from what is made to the picture */
export function plainWarp(picture: Raster, h: Homography, width: number, height: number): Raster {
  return warpBy(picture, width, height, (y) => (x) => {
    const w = h[6] * x + h[7] * y + 1;
    return [(h[0] * x + h[1] * y + h[2]) / w, (h[3] * x + h[4] * y + h[5]) / w];
  });
}

/**
 * What a picture shows, pulled into another shape, each pixel interpolated between its four neighbours. What lies outside the picture
 * comes out white.
 * @param rowOf for each row of what is made, gives where its points are in the picture; smooth over `SPAN` pixels
 */
export function warpBy(
  picture: Raster,
  width: number,
  height: number,
  rowOf: (y: number) => (x: number) => Point,
): Raster {
  const channels = picture.channels === 1 ? 1 : 3;
  const out = new Uint8Array(width * height * channels);
  const source = { ...picture, data: bytesOf(picture) };
  const [lastX, lastY] = [picture.width - 1, picture.height - 1];
  const inside = (x: number, y: number) => x >= 0 && y >= 0 && x < lastX && y < lastY;
  const row = channels === 1 ? greyRow : colourRow;
  for (let y = 0; y < height; y++) {
    const inRow = rowOf(y + 0.5);
    const placeOf = (x: number): Point => {
      const [atX, atY] = inRow(x + 0.5);
      return [atX - 0.5, atY - 0.5];
    };
    let [fromX, fromY] = placeOf(0);
    for (let x = 0; x < width; x += SPAN) {
      const length = Math.min(SPAN, width - x);
      const [toX, toY] = placeOf(x + length);
      const to = (y * width + x) * channels;
      if (inside(fromX, fromY) && inside(toX, toY)) {
        const stepX = ((toX - fromX) / length) * PLACE;
        const stepY = ((toY - fromY) / length) * PLACE;
        row(source, fromX, fromY, stepX | 0, stepY | 0, out, to, length);
      } else if (Math.max(fromX, toX) < -SPAN || Math.min(fromX, toX) > picture.width + SPAN) {
        out.fill(255, to, to + length * channels);
      } else if (Math.max(fromY, toY) < -SPAN || Math.min(fromY, toY) > picture.height + SPAN) {
        out.fill(255, to, to + length * channels);
      } else {
        for (let by = 0; by < length; by++) pixelAtEdge(source, ...placeOf(x + by), out, to + by * channels, row);
      }
      [fromX, fromY] = [toX, toY];
    }
  }
  return { width, height, channels, data: out };
}

type Source = Raster & { data: Uint8Array };

/**
 * Interpolates pixels in a row of colours, all inside the picture.
 * @param x, y where the first one is
 * @param stepX, stepY from each to the next, in 65536ths of a pixel
 */
function colourRow(
  { data, width, channels }: Source,
  x: number,
  y: number,
  stepX: number,
  stepY: number,
  out: Uint8Array,
  to: number,
  length: number,
): void {
  const below = width * channels;
  const base = (Math.floor(y) * width + Math.floor(x)) * channels;
  // Counted from the first pixel, so that the numbers stay small in the largest picture.
  let fx = ((x - Math.floor(x)) * PLACE) | 0;
  let fy = ((y - Math.floor(y)) * PLACE) | 0;
  for (const end = to + 3 * length; to < end; to += 3) {
    const at = base + ((fy >> 16) * width + (fx >> 16)) * channels;
    const right = (fx >> 8) & 255;
    const down = (fy >> 8) & 255;
    const lowerRight = right * down;
    const upperRight = right * FRACTION - lowerRight;
    const lowerLeft = down * FRACTION - lowerRight;
    const upperLeft = PLACE - upperRight - lowerLeft - lowerRight;
    const next = at + channels;
    const under = at + below;
    const aslant = under + channels;
    out[to] =
      (data[at] * upperLeft + data[next] * upperRight + data[under] * lowerLeft + data[aslant] * lowerRight + HALF) >>
      16;
    out[to + 1] =
      (data[at + 1] * upperLeft +
        data[next + 1] * upperRight +
        data[under + 1] * lowerLeft +
        data[aslant + 1] * lowerRight +
        HALF) >>
      16;
    out[to + 2] =
      (data[at + 2] * upperLeft +
        data[next + 2] * upperRight +
        data[under + 2] * lowerLeft +
        data[aslant + 2] * lowerRight +
        HALF) >>
      16;
    fx = (fx + stepX) | 0;
    fy = (fy + stepY) | 0;
  }
}

/** The same for a row of greys. */
function greyRow(
  { data, width }: Source,
  x: number,
  y: number,
  stepX: number,
  stepY: number,
  out: Uint8Array,
  to: number,
  length: number,
): void {
  const base = Math.floor(y) * width + Math.floor(x);
  let fx = ((x - Math.floor(x)) * PLACE) | 0;
  let fy = ((y - Math.floor(y)) * PLACE) | 0;
  for (const end = to + length; to < end; to++) {
    const at = base + (fy >> 16) * width + (fx >> 16);
    const right = (fx >> 8) & 255;
    const down = (fy >> 8) & 255;
    const lowerRight = right * down;
    const upperRight = right * FRACTION - lowerRight;
    const lowerLeft = down * FRACTION - lowerRight;
    const upperLeft = PLACE - upperRight - lowerLeft - lowerRight;
    out[to] =
      (data[at] * upperLeft +
        data[at + 1] * upperRight +
        data[at + width] * lowerLeft +
        data[at + width + 1] * lowerRight +
        HALF) >>
      16;
    fx = (fx + stepX) | 0;
    fy = (fy + stepY) | 0;
  }
}

/** How far outside the picture its outermost pixels still reach. */
const OVERHANG = 1;

/** A pixel where the picture ends: its outermost pixels go on a little, and then it is white. */
function pixelAtEdge(
  source: Source,
  x: number,
  y: number,
  out: Uint8Array,
  to: number,
  row: typeof colourRow | typeof greyRow,
): void {
  const { width, height, channels } = source;
  if (x < -OVERHANG || y < -OVERHANG || x > width - 1 + OVERHANG || y > height - 1 + OVERHANG) {
    out.fill(255, to, to + (channels === 1 ? 1 : 3));
    return;
  }
  // The pixel to the right and below is looked at even when it counts for nothing.
  const within = (value: number, size: number) => Math.max(0, Math.min(Math.max(0, size - 1.004), value));
  row(source, within(x, width), within(y, height), 0, 0, out, to, 1);
}

/** The quad that a sheet turned by a small angle takes when the whole picture is deskewed; clockwise, in degrees. */
export function rotatedQuad(quad: Quad, degrees: number): Quad {
  const angle = (degrees * Math.PI) / 180;
  const [cos, sin] = [Math.cos(angle), Math.sin(angle)];
  const middleX = quad.reduce((sum, [x]) => sum + x, 0) / 4;
  const middleY = quad.reduce((sum, [, y]) => sum + y, 0) / 4;
  return quad.map(([x, y]) => [
    middleX + (x - middleX) * cos - (y - middleY) * sin,
    middleY + (x - middleX) * sin + (y - middleY) * cos,
  ]) as Quad;
}
