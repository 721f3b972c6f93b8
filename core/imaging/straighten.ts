import { homography } from './homography';
import { distance, Quad, wholeQuad } from './quad';
import { Raster } from './raster';

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
const USUAL_FOCAL = 0.85;

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

const FRACTION_BITS = 8;
const ONE = 1 << FRACTION_BITS;

/**
 * What a quad of a picture shows, made flat: the projective map undone, each pixel interpolated between its four neighbours.
 * What lies outside the picture comes out white.
 * @returns a raster with as many channels as the picture, an opaque one's alpha left out
 */
export function warp(picture: Raster, quad: Quad, width: number, height: number): Raster {
  const channels = picture.channels === 1 ? 1 : 3;
  const out = new Uint8ClampedArray(width * height * channels);
  const h = homography(wholeQuad(width, height), quad);
  const { data, width: fromWidth, height: fromHeight, channels: step } = picture;
  const row = fromWidth * step;
  const [lastX, lastY] = [fromWidth - 1, fromHeight - 1];
  let to = 0;
  for (let y = 0; y < height; y++) {
    let u = h[0] * 0.5 + h[1] * (y + 0.5) + h[2];
    let v = h[3] * 0.5 + h[4] * (y + 0.5) + h[5];
    let w = h[6] * 0.5 + h[7] * (y + 0.5) + 1;
    for (let x = 0; x < width; x++, to += channels) {
      const inverse = 1 / w;
      let fx = u * inverse - 0.5;
      let fy = v * inverse - 0.5;
      u += h[0];
      v += h[3];
      w += h[6];
      if (fx < -1 || fy < -1 || fx > fromWidth || fy > fromHeight) {
        out[to] = 255;
        if (channels === 3) out[to + 1] = out[to + 2] = 255;
        continue;
      }
      fx = fx < 0 ? 0 : fx > lastX ? lastX : fx;
      fy = fy < 0 ? 0 : fy > lastY ? lastY : fy;
      const left = fx | 0;
      const top = fy | 0;
      const right = ((fx - left) * ONE) | 0;
      const down = ((fy - top) * ONE) | 0;
      const at = top * row + left * step;
      const next = left < lastX ? at + step : at;
      const below = top < lastY ? row : 0;
      const upperLeft = (ONE - right) * (ONE - down);
      const upperRight = right * (ONE - down);
      const lowerLeft = (ONE - right) * down;
      const lowerRight = right * down;
      for (let channel = 0; channel < channels; channel++) {
        out[to + channel] =
          (data[at + channel] * upperLeft +
            data[next + channel] * upperRight +
            data[at + below + channel] * lowerLeft +
            data[next + below + channel] * lowerRight +
            (1 << (2 * FRACTION_BITS - 1))) >>
          (2 * FRACTION_BITS);
      }
    }
  }
  return { width, height, channels, data: out };
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
