import { connectedComponents, lettersOnly } from '../components';
import { Ink, roughInk } from '../ink';
import { Mark } from '../marks';
import { Point } from '../quad';
import { Raster, shrink } from '../raster';
import { textRows } from './rows';

/** What holds a page open and is seen on it: as marks that lift it off, and whether print lies under it. */
export interface Fingers {
  marks: Mark[];
  overPrint: boolean;
}

/** The longer side of the page that is looked at, in pixels. */
const SEEN = 480;
const ROWS_SEEN = 1400;
/** How far from the paper's its colour is, or how much darker it is, in grey levels and as a share. */
const OTHER_COLOUR = 20;
const DARKER = 0.6;
/** What is thinner than this, as a share of the page's width, is print. */
const LEAST_THICK = 0.022;
/** How much of the page it takes, how far it reaches in from a side, and how much of a side it takes. */
const AREA = { least: 0.0012, most: 0.09 };
const REACH = 0.34;
const ALONG = 0.3;
/** How far its shadow goes, as a share of the page's width. */
const SHADOW = 0.012;
/** Where a row of print ends so near to it, in heights of letters, it goes on below. */
const CUT_OFF = 1.3;

/**
 * Finds fingers and holders on a flat page as shot: solid things of another colour than the paper, or much darker, that come in from a
 * side of it and are thicker than print.
 */
export function findFingers(flat: Raster): Fingers {
  const page = shrink(flat, SEEN);
  const { width, height } = page;
  const solid = opened(otherThanPaper(page), Math.max(1, Math.round((LEAST_THICK * width) / 2)));
  const { components, labels } = connectedComponents(solid);
  const marks: Mark[] = [];
  const lies = new Uint8Array(width * height);
  components.forEach(({ left, right, top, bottom, pixels }, index) => {
    const share = pixels / (width * height);
    if (share < AREA.least || share > AREA.most) return;
    const [fromLeft, fromRight] = [left <= 1, right >= width - 2];
    const [fromTop, fromBottom] = [top <= 1, bottom >= height - 2];
    const sideways = (fromLeft || fromRight) && right - left < REACH * width && bottom - top < ALONG * height;
    const upright = (fromTop || fromBottom) && bottom - top < REACH * height && right - left < ALONG * width;
    if (!sideways && !upright) return;
    marks.push(strokeOver(labels, index + 1, { left, right, top, bottom }, width, height, sideways));
    for (let at = 0; at < labels.length; at++) if (labels[at] === index + 1) lies[at] = 1;
  });
  return { marks, overPrint: marks.length > 0 && coversPrint(flat, { width, height, data: lies }) };
}

function otherThanPaper(page: Raster): Ink {
  const { width, height, channels, data } = page;
  const size = width * height;
  const [light, redGreen, yellowBlue] = [new Float32Array(size), new Float32Array(size), new Float32Array(size)];
  for (let pixel = 0; pixel < size; pixel++) {
    const at = pixel * channels;
    const [r, g, b] = channels === 1 ? [data[at], data[at], data[at]] : [data[at], data[at + 1], data[at + 2]];
    light[pixel] = (r + g + b) / 3;
    redGreen[pixel] = r - g;
    yellowBlue[pixel] = (r + g) / 2 - b;
  }
  const median = (values: Float32Array) => Float32Array.from(values).sort()[size >> 1];
  const [paper, tintOne, tintTwo] = [light, redGreen, yellowBlue].map(median);
  const other = new Uint8Array(size);
  for (let pixel = 0; pixel < size; pixel++) {
    // In less light the paper's own tint is less, too.
    const lit = Math.min(1.2, light[pixel] / paper);
    const apart = Math.hypot(redGreen[pixel] - lit * tintOne, yellowBlue[pixel] - lit * tintTwo);
    if (apart > OTHER_COLOUR * Math.max(0.4, lit) || light[pixel] < DARKER * paper) other[pixel] = 1;
  }
  return { width, height, data: other };
}

/** What is left where a square of this radius fits in, as large as it was. */
function opened(ink: Ink, radius: number): Ink {
  return spread(spread(ink, radius, 0), radius, 1);
}

/** Spreads ink (1) or paper (0) by a square. What lies outside counts as what is at the edge. */
function spread({ width, height, data }: Ink, radius: number, what: 0 | 1): Ink {
  let from = data;
  for (const [step, count, stride, lines] of [
    [1, width, width, height],
    [width, height, 1, width],
  ]) {
    const to = new Uint8Array(from.length);
    for (let line = 0; line < lines; line++) {
      for (let at = 0; at < count; at++) {
        let found = false;
        for (let by = Math.max(0, at - radius); by <= Math.min(count - 1, at + radius) && !found; by++)
          found = from[line * stride + by * step] === what;
        to[line * stride + at * step] = found ? what : 1 - what;
      }
    }
    from = to;
  }
  return { width, height, data: from };
}

/** A stroke with the brush along a thing, as thick as it is at its thickest, its shadow with it. */
function strokeOver(
  labels: Int32Array,
  label: number,
  { left, right, top, bottom }: { left: number; right: number; top: number; bottom: number },
  width: number,
  height: number,
  sideways: boolean,
): Mark {
  const points: Point[] = [];
  let thick = 0;
  const [first, last] = sideways ? [left, right] : [top, bottom];
  for (let along = first; along <= last; along += 2) {
    let [low, high] = [Infinity, -Infinity];
    const [from, to] = sideways ? [top, bottom] : [left, right];
    for (let across = from; across <= to; across++) {
      const at = sideways ? across * width + along : along * width + across;
      if (labels[at] !== label) continue;
      low = Math.min(low, across);
      high = Math.max(high, across);
    }
    if (high < low) continue;
    const middle = (low + high + 1) / 2;
    points.push(sideways ? [(along + 0.5) / width, middle / height] : [middle / width, (along + 0.5) / height]);
    thick = Math.max(thick, high - low + 1);
  }
  return { points, radius: Math.min(0.5, (0.55 * thick) / width + SHADOW) };
}

/** Whether a row of print runs into a thing that lies on the page, or is hidden between two parts of it. */
function coversPrint(flat: Raster, lies: Ink): boolean {
  const page = shrink(flat, ROWS_SEEN);
  const scale = lies.width / page.width;
  const isThere = (x: number, y: number) => {
    const [column, row] = [Math.round(x * scale), Math.round(y * scale)];
    return (
      column >= 0 && row >= 0 && column < lies.width && row < lies.height && lies.data[row * lies.width + column] > 0
    );
  };
  return textRows(lettersOnly(roughInk(page))).some(({ feet, height }) =>
    [
      [feet[0], -1],
      [feet[feet.length - 1], 1],
    ].some(([foot, way]) => {
      const [x, y] = foot as Point;
      return isThere(x + (way as number) * CUT_OFF * height, y - height / 2) || isThere(x, y - height / 2);
    }),
  );
}
