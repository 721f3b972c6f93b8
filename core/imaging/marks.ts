import { Component, connectedComponents, letterHeight } from './components';
import { estimateIllumination, Illumination, inverseLightOfRow } from './illumination';
import { roughInk } from './ink';
import { Point } from './quad';
import { Raster, shrink } from './raster';

/** A stroke with the brush over what is to go: its way, and the brush's radius; shares of the page's width and height (radius: width). */
export interface Mark {
  points: Point[];
  radius: number;
}

/** How much darker than what is close around it print is at least. */
const PRINT_DARKER = 0.22;
/** Print has about as much colour as the page's other print; a mark of another colour is told by this much. */
const COLOUR_APART = 34;
/** Pieces of ink more than so many times as high as letters, or with strokes so many times as thick, are no print. */
const TALLER = 3.2;
const THICKER = 2.6;
/** A piece of ink is the seam of a coloured mark when so much of it (a share) lies beside the mark. */
const SEAM = 0.4;
const DARK_MARK = 0.55;
/** The page is measured at this size (longer side, pixels). */
const MEASURE = 1400;

/**
 * Wipes what was brushed over, and keeps the print under it: within the brushed area a pixel stays only if it is clearly
 * darker than what is close around it (a stain is not), has the colour of the page's print (a coloured pen has not), and
 * belongs to a piece of ink with the height and the thickness of letters (a scribble, a hole, a finger doesn't). All else is
 * repainted with the paper's own colour at that place.
 */
export function liftMarks(page: Raster, marks: Mark[]): Raster {
  const { width, height, channels } = page;
  const used = channels === 1 ? 1 : 3;
  const out = new Uint8ClampedArray(page.data);
  const { tall, thick, colour } = measurePrint(page);
  const light = lightAround(estimateIllumination(shrink(page, MEASURE)), marks);
  const rows = light.channels.map(() => new Float32Array(width));
  for (const mark of marks) {
    const area = brushed(mark, width, height);
    if (!area) continue;
    const keep = printIn(page, area, { tall, thick, colour });
    for (let y = area.top; y < area.bottom; y++) {
      inverseLightOfRow(light, y, width, height, 1, rows);
      for (let x = area.left; x < area.right; x++) {
        const place = (y - area.top) * (area.right - area.left) + x - area.left;
        if (!area.mask[place] || keep[place]) continue;
        const at = (y * width + x) * channels;
        for (let channel = 0; channel < used; channel++) out[at + channel] = 1 / rows[channel][x];
      }
    }
  }
  return { width, height, channels, data: out };
}

const SPREADING_ROUNDS = 400;

/** The light on the page with what was brushed over left out: there it goes on evenly from what is around (Laplace's equation). */
function lightAround({ channels }: Illumination, marks: Mark[]): Illumination {
  const [{ width, height }] = channels;
  const unknown = new Uint8Array(width * height);
  for (const mark of marks) {
    // In cells, which are square, and two wider all round: the light is smoothed a little.
    const area = brushed({ ...mark, radius: mark.radius + 2 / width }, width, height);
    if (!area) continue;
    const across = area.right - area.left;
    for (let y = area.top; y < area.bottom; y++)
      for (let x = area.left; x < area.right; x++)
        if (area.mask[(y - area.top) * across + x - area.left]) unknown[y * width + x] = 1;
  }
  return { channels: channels.map((grid) => ({ ...grid, data: spread(grid.data, unknown, width, height) })) };
}

function spread(known: Float32Array, unknown: Uint8Array, width: number, height: number): Float32Array {
  const data = Float32Array.from(known);
  let [sum, count] = [0, 0];
  for (let at = 0; at < data.length; at++) {
    if (unknown[at]) continue;
    sum += data[at];
    count++;
  }
  if (count === 0) return data;
  for (let at = 0; at < data.length; at++) if (unknown[at]) data[at] = sum / count;
  for (let round = 0; round < SPREADING_ROUNDS; round++) {
    for (let at = 0; at < data.length; at++) {
      if (!unknown[at]) continue;
      const [x, y] = [at % width, Math.floor(at / width)];
      const left = x > 0 ? data[at - 1] : data[at + 1];
      const right = x < width - 1 ? data[at + 1] : left;
      const above = y > 0 ? data[at - width] : data[at + width];
      const below = y < height - 1 ? data[at + width] : above;
      data[at] = (left + right + above + below) / 4;
    }
  }
  return data;
}

interface Area {
  left: number;
  top: number;
  right: number;
  bottom: number;
  mask: Uint8Array;
}

function brushed({ points, radius }: Mark, width: number, height: number): Area | undefined {
  const reach = Math.max(1, radius * width);
  const way = points.map(([x, y]): Point => [x * width, y * height]);
  const left = Math.max(0, Math.floor(Math.min(...way.map(([x]) => x)) - reach));
  const right = Math.min(width, Math.ceil(Math.max(...way.map(([x]) => x)) + reach) + 1);
  const top = Math.max(0, Math.floor(Math.min(...way.map(([, y]) => y)) - reach));
  const bottom = Math.min(height, Math.ceil(Math.max(...way.map(([, y]) => y)) + reach) + 1);
  if (right <= left || bottom <= top) return undefined;
  const mask = new Uint8Array((right - left) * (bottom - top));
  way.forEach((from, index) => {
    const to = way[Math.min(index + 1, way.length - 1)];
    const [dx, dy] = [to[0] - from[0], to[1] - from[1]];
    const long = dx * dx + dy * dy;
    const [minX, maxX] = [Math.min(from[0], to[0]) - reach, Math.max(from[0], to[0]) + reach];
    const [minY, maxY] = [Math.min(from[1], to[1]) - reach, Math.max(from[1], to[1]) + reach];
    for (let y = Math.max(top, Math.floor(minY)); y < Math.min(bottom, maxY + 1); y++) {
      for (let x = Math.max(left, Math.floor(minX)); x < Math.min(right, maxX + 1); x++) {
        const share = long === 0 ? 0 : Math.max(0, Math.min(1, ((x - from[0]) * dx + (y - from[1]) * dy) / long));
        if (Math.hypot(x - from[0] - share * dx, y - from[1] - share * dy) <= reach)
          mask[(y - top) * (right - left) + x - left] = 1;
      }
    }
  });
  return { left, top, right, bottom, mask };
}

interface Print {
  /** Height of letters and thickness of strokes, in pixels. */
  tall: number;
  thick: number;
  /** Red against green and yellow against blue of its ink. */
  colour: [number, number];
}

function measurePrint(page: Raster): Print {
  const small = shrink(page, MEASURE);
  const scale = page.width / small.width;
  const ink = roughInk(small);
  const { components, labels } = connectedComponents(ink);
  const tall = letterHeight(components) || 14;
  const letters = new Set(components.flatMap((each, index) => (heightOf(each) < 2 * tall ? [index + 1] : [])));
  let [pixels, runs, first, second] = [0, 0, 0, 0];
  for (let at = 1; at < ink.data.length; at++) {
    if (!letters.has(labels[at])) continue;
    pixels++;
    if (!ink.data[at - 1]) runs++;
    const [redGreen, yellowBlue] = colourAt(small, at);
    first += redGreen;
    second += yellowBlue;
  }
  return {
    tall: tall * scale,
    thick: Math.max(2, (runs > 0 ? pixels / runs : 2) * scale),
    colour: pixels > 0 ? [first / pixels, second / pixels] : [0, 0],
  };
}

function heightOf({ top, bottom }: Component): number {
  return bottom - top + 1;
}

function colourAt({ channels, data }: Raster, pixel: number): [number, number] {
  if (channels === 1) return [0, 0];
  const at = pixel * channels;
  return [data[at] - data[at + 1], (data[at] + data[at + 1]) / 2 - data[at + 2]];
}

/** Which pixels of an area are print. Looked at with a margin, so that letters on its edge are seen whole. */
function printIn(page: Raster, area: Area, { tall, thick, colour }: Print): Uint8Array {
  const margin = Math.ceil(2 * tall);
  const left = Math.max(0, area.left - margin);
  const top = Math.max(0, area.top - margin);
  const width = Math.min(page.width, area.right + margin) - left;
  const height = Math.min(page.height, area.bottom + margin) - top;
  const grey = new Float32Array(width * height);
  const alien = new Uint8Array(width * height);
  for (let y = 0; y < height; y++) {
    for (let x = 0; x < width; x++) {
      const pixel = (top + y) * page.width + left + x;
      const at = pixel * page.channels;
      const { data } = page;
      grey[y * width + x] =
        page.channels === 1 ? data[at] : 0.299 * data[at] + 0.587 * data[at + 1] + 0.114 * data[at + 2];
      const [redGreen, yellowBlue] = colourAt(page, pixel);
      if (Math.hypot(redGreen - colour[0], yellowBlue - colour[1]) > COLOUR_APART) alien[y * width + x] = 1;
    }
  }
  const bright = brightNear(grey, width, height, Math.max(2, Math.round(thick * 1.6)));
  const ink = new Uint8Array(width * height);
  for (let at = 0; at < ink.length; at++) ink[at] = !alien[at] && grey[at] < (1 - PRINT_DARKER) * bright[at] ? 1 : 0;
  const { components, labels } = connectedComponents({ width, height, data: ink });
  const touching = new Uint32Array(components.length);
  const paper = grey.reduce((most, value) => Math.max(most, value), 0);
  const dark = Float32Array.from(alien, (isAlien, at) => (isAlien && grey[at] < DARK_MARK * paper ? 1 : 0));
  const near = brightNear(dark, width, height, 2);
  for (let at = 0; at < labels.length; at++) if (labels[at] > 0 && near[at] > 0) touching[labels[at] - 1]++;
  const isPrint = components.map(({ left: l, right: r, top: t, bottom: b, pixels }, index) => {
    // The seam of a dark coloured mark is dark, too; letters on a light one are not its seam.
    if (touching[index] > SEAM * pixels) return false;
    const [w, h] = [r - l + 1, b - t + 1];
    // Ink per length of its way, roughly: a stroke's thickness.
    const strokes = pixels / Math.max(w, h);
    return (
      h <= TALLER * tall && w <= 8 * tall && (strokes < THICKER * thick || Math.max(w, h) < 1.5 * tall) && pixels > 2
    );
  });
  const keep = new Uint8Array((area.right - area.left) * (area.bottom - area.top));
  for (let y = area.top; y < area.bottom; y++) {
    for (let x = area.left; x < area.right; x++) {
      const label = labels[(y - top) * width + x - left];
      if (label > 0 && isPrint[label - 1]) keep[(y - area.top) * (area.right - area.left) + x - area.left] = 1;
    }
  }
  return keep;
}

/** The brightest value within a square around each pixel: what is close around a stroke, be it paper or stain. */
function brightNear(grey: Float32Array, width: number, height: number, radius: number): Float32Array {
  const rows = new Float32Array(grey.length);
  const out = new Float32Array(grey.length);
  for (let y = 0; y < height; y++) {
    for (let x = 0; x < width; x++) {
      let most = 0;
      for (let at = Math.max(0, x - radius); at <= Math.min(width - 1, x + radius); at++)
        most = Math.max(most, grey[y * width + at]);
      rows[y * width + x] = most;
    }
  }
  for (let x = 0; x < width; x++) {
    for (let y = 0; y < height; y++) {
      let most = 0;
      for (let at = Math.max(0, y - radius); at <= Math.min(height - 1, y + radius); at++)
        most = Math.max(most, rows[at * width + x]);
      out[y * width + x] = most;
    }
  }
  return out;
}
