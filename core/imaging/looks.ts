import { withoutGrain } from './grain';
import { estimateIllumination, Illumination, inverseLightOfRow } from './illumination';
import { binarise } from './binarise';
import { bytesIn, withPixels } from './kernels/pixels';
import { bytesOf, greyOf, LUMA, Raster, shrink } from './raster';

/** How a page is rendered. */
export const LOOKS = ['asShot', 'clear', 'grey', 'bilevel', 'even'] as const;
export type Look = (typeof LOOKS)[number];

/** Whether a look leaves no colour. */
export const isColourless = (look: Look): boolean => look === 'grey' || look === 'bilevel';

/** Resolution of the tone curve: a share of the paper's brightness from 0 to a little over 1. */
const STEPS = 1024;
const MOST = 1.3;
/** From this share of the paper's brightness on, a pixel is paper and becomes white. */
const WHITE = 0.91;
/** As dark as ink should come out at least, as a share of white; fainter ink is strengthened up to this. */
const BOLD = 0.34;
const MOST_GAMMA = 4.5;
const USUAL_GAMMA = 1.15;

/**
 * Renders a page in a look. The same raster comes out in the browser and on the server.
 * - asShot: as it is
 * - clear: paper white, colours true, faint ink strengthened
 * - grey: the same without colour
 * - bilevel: black and white, thin strokes kept, show-through dropped
 * - even: shadows and gradients of the light taken out, tones otherwise kept
 * @param like the light and tone to use, when only a part of the page or a smaller copy of it is rendered
 */
export function renderLook(picture: Raster, look: Look, like?: Tone): Raster {
  if (look === 'asShot') return picture;
  const tone = like ?? toneOf(picture);
  if (look === 'bilevel') return binarise(normalised(greyOf(picture), greyLight(tone.light), linear()), tone.ink);
  const source = look === 'grey' ? greyOf(picture) : picture;
  const light = source.channels === 1 ? greyLight(tone.light) : tone.light;
  return normalised(source, light, look === 'even' ? evenCurve() : clearCurve(tone.ink));
}

/** What rendering needs to know of a page as a whole. */
export interface Tone {
  light: Illumination;
  /** How dark its ink usually is, as a share of the paper's brightness. */
  ink: number;
}

/** Size (longer side, pixels) at which a page's tone is measured. */
const MEASURE = 1000;

export function toneOf(picture: Raster): Tone {
  const small = shrink(picture, MEASURE, { enough: 1.5 });
  const light = estimateIllumination(small);
  return { light, ink: inkLevel(normalised(greyOf(small), greyLight(light), linear())) };
}

/** The darkness that half of the ink's pixels have; ink is what is clearly darker than paper. */
function inkLevel(picture: Raster): number {
  const { data } = picture;
  const darkerThan = Math.round(0.8 * 255);
  const counts = tonesOfPrint(picture, darkerThan);
  let total = 0;
  for (let value = 0; value < darkerThan; value++) total += counts[value];
  let [below, value] = [0, 0];
  // The darker third: the edges of strokes are lighter than the strokes.
  while (value < darkerThan && below + counts[value] < total / 3) below += counts[value++];
  return total < data.length / 5000 ? 0.2 : value / 255;
}

/** Blocks along the longer side of a picture; one of which more than this share is dark holds no print, but something dark. */
const BLOCKS = 72;
const MOSTLY_DARK = 0.62;

/**
 * How many pixels there are of each tone, without those of large dark things: a thumb on the page, a picture, a bar say nothing of
 * how dark its print is.
 * @param picture grey
 * @param dark what is darker than this is dark
 */
export function tonesOfPrint(picture: Raster, dark: number): Uint32Array {
  const { width, height } = picture;
  const side = Math.max(5, Math.round(Math.max(width, height) / BLOCKS));
  const made = withPixels([bytesOf(picture), new Uint8Array(4 * 256)], (pixels, [source, counts]) =>
    pixels.tonesOfPrint(source, width, height, side, dark, MOSTLY_DARK, counts),
  );
  return made ? new Uint32Array(made.buffer) : plainTonesOfPrint(picture, dark, side);
}

/** The same without the kernels. @param side of a block, in pixels */
function plainTonesOfPrint(picture: Raster, dark: number, side: number): Uint32Array {
  const { width, height } = picture;
  const data = bytesOf(picture);
  const counts = new Uint32Array(256);
  for (let top = 0; top < height; top += side) {
    for (let left = 0; left < width; left += side) {
      const bottom = Math.min(height, top + side);
      const right = Math.min(width, left + side);
      let darker = 0;
      for (let y = top; y < bottom; y++)
        for (let at = y * width + left; at < y * width + right; at++) if (data[at] < dark) darker++;
      if (darker > MOSTLY_DARK * (bottom - top) * (right - left)) continue;
      for (let y = top; y < bottom; y++)
        for (let at = y * width + left; at < y * width + right; at++) counts[data[at]]++;
    }
  }
  return counts;
}

function greyLight({ channels }: Illumination): Illumination {
  if (channels.length === 1) return { channels };
  const [red, green, blue] = channels;
  const data = red.data.map((value, at) => 0.3 * value + 0.586 * green.data[at] + 0.114 * blue.data[at]);
  return { channels: [{ ...red, data }] };
}

function linear(): Float32Array {
  return Float32Array.from({ length: STEPS + 1 }, (_, step) => (step / STEPS) * MOST);
}

function evenCurve(): Float32Array {
  // Tones as they are, and white where the paper is bare.
  const knee = 0.92;
  return Float32Array.from({ length: STEPS + 1 }, (_, step) => {
    const share = (step / STEPS) * MOST;
    return share < knee ? 0.98 * share : Math.min(1, 0.98 * knee + ((share - knee) * (1 - 0.98 * knee)) / (1 - knee));
  });
}

function clearCurve(ink: number): Float32Array {
  const level = Math.min(0.98, ink / WHITE);
  const needed = level <= BOLD ? USUAL_GAMMA : Math.log(BOLD) / Math.log(level);
  const gamma = Math.max(USUAL_GAMMA, Math.min(MOST_GAMMA, needed));
  return Float32Array.from({ length: STEPS + 1 }, (_, step) => Math.min(1, ((step / STEPS) * MOST) / WHITE) ** gamma);
}

/** Each pixel beside the light on the paper there, through a tone curve; colours keep their hue. */
function normalised(picture: Raster, light: Illumination, curve: Float32Array): Raster {
  const { width, height, channels } = picture;
  const tones = tonesOf(curve);
  const [{ width: across, height: down }] = light.channels;
  const grid = new Float32Array(light.channels.length * across * down);
  light.channels.forEach(({ data }, channel) => grid.set(data, channel * across * down));
  const places = [bytesOf(picture), bytesIn(grid)];
  if (channels === 1) {
    const blocks = [...places, tones.bytes, 8 * (across + 2), 4 * (width + 4), width * height];
    const data = withPixels(blocks, (pixels, [source, grids, bytes, cells, row, out]) =>
      pixels.evenGrey(source, width, height, grids, across, down, bytes, STEPS, PER_STEP, cells, row, out),
    );
    return { width, height, channels, data: data ?? plainEven(picture, light, tones) };
  }
  const blocks = [...places, bytesIn(tones.gains), 8 * (across + 2), 12 * (width + 4), 3 * width * height];
  const data = withPixels(blocks, (pixels, [source, grids, gains, cells, rows, out]) =>
    pixels.evenColour(source, width, height, channels, grids, across, down, gains, STEPS, PER_STEP, cells, rows, out),
  );
  return { width, height, channels: 3, data: data ?? plainEven(picture, light, tones) };
}

/** What becomes of a share of the light, for grey and for each channel of a colour. */
interface Tones {
  bytes: Uint8Array;
  gains: Float32Array;
}

/** @param curve what shares of the paper's brightness become, from 0 to `MOST` */
function tonesOf(curve: Float32Array): Tones {
  return {
    bytes: new Uint8Array(Uint8ClampedArray.from(curve, (value) => 255 * value)),
    // What each channel's own share of the paper's brightness, in steps, is multiplied by.
    gains: curve.map((value, step) => (step === 0 ? 0 : (255 * value) / step)),
  };
}

/** The same without the kernels. */
function plainEven(picture: Raster, light: Illumination, { bytes, gains }: Tones): Uint8Array {
  const { width, height, channels } = picture;
  const data = bytesOf(picture);
  const used = channels === 1 ? 1 : 3;
  const out = new Uint8Array(width * height * used);
  const rows = light.channels.map(() => new Float32Array(width));
  for (let y = 0; y < height; y++) {
    inverseLightOfRow(light, y, width, height, PER_STEP, rows);
    const [from, to] = [y * width * channels, y * width * used];
    if (used === 1) greyRow(data, from, rows[0], bytes, out, to);
    else colourRow(data, from, channels, rows, gains, out, to);
  }
  return out;
}

const PER_STEP = STEPS / MOST;

function greyRow(data: Uint8Array, from: number, light: Float32Array, bytes: Uint8Array, out: Uint8Array, to: number) {
  for (let x = 0; x < light.length; x++) {
    const step = round(data[from + x] * light[x]) | 0;
    out[to + x] = bytes[step < STEPS ? step : STEPS];
  }
}

/** To 32 bits, as the kernels reckon. */
const round = Math.fround;
const [RED, GREEN, BLUE] = LUMA.map(round);

function colourRow(
  data: Uint8Array,
  from: number,
  channels: number,
  [reds, greens, blues]: Float32Array[],
  gains: Float32Array,
  out: Uint8Array,
  to: number,
) {
  for (let x = 0; x < reds.length; x++, from += channels, to += 3) {
    const red = round(data[from] * reds[x]);
    const green = round(data[from + 1] * greens[x]);
    const blue = round(data[from + 2] * blues[x]);
    const step = round(round(round(RED * red) + round(GREEN * green)) + round(BLUE * blue)) | 0;
    const by = gains[step < STEPS ? step : STEPS];
    out[to] = Math.min(255, round(round(red * by) + 0.5) | 0);
    out[to + 1] = Math.min(255, round(round(green * by) + 0.5) | 0);
    out[to + 2] = Math.min(255, round(round(blue * by) + 0.5) | 0);
  }
}

/** Whether a picture is black and white already, as a scanner or a fax makes it; seen from a sample of its pixels. */
export function isBilevel(picture: Raster): boolean {
  const { channels } = picture;
  const data = bytesOf(picture);
  let [seen, between] = [0, 0];
  for (let at = 0; at < data.length; at += channels * (7 + (seen % 3)), seen++)
    if (data[at] > 3 && data[at] < 252) between++;
  return between < 0.0005 * seen;
}

/** Shares of a page from which on it counts as coloured, or as holding a picture. */
const COLOURED = 0.004;
const PICTURED = 0.14;

/**
 * The look that suits a page by itself: even light where it holds pictures, clear colour where there is colour, else grey.
 */
export function suitableLook(picture: Raster): Look {
  const small = withoutGrain(shrink(picture, 700));
  const flat = normalised(small, estimateIllumination(small), linear());
  const { channels } = flat;
  const data = bytesOf(flat);
  const pixels = flat.width * flat.height;
  const [second, third] = channels === 1 ? [0, 0] : [1, 2];
  let [coloured, middling] = [0, 0];
  for (let at = 0; at < data.length; at += channels) {
    const [red, green, blue] = [data[at], data[at + second], data[at + third]];
    const most = Math.max(red, green, blue);
    const least = Math.min(red, green, blue);
    if (most - least > 44 && least < 215) coloured++;
    if (most > 70 && most < 205) middling++;
  }
  if (middling > PICTURED * pixels) return 'even';
  return coloured > COLOURED * pixels ? 'clear' : 'grey';
}
