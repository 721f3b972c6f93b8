import { Quad } from '../quad';
import { bytesOf, greyOf, Raster } from '../raster';
import { paperColour } from './paper';
import { isInside, Print } from './print';

/** Beside pictures on a page stands so much of its print, and at least so many marks. */
const BESIDE = 0.66;
const LEAST_BESIDE = 60;
/** A sheet is lighter than the print's own ground beside it by this share at least: a page's picture is not. */
const LIGHTER = 1.03;
/** How far from a mark its ground is looked at, in pixels. */
const NEAR = 3;

/**
 * Whether what was found are pictures, boxes or panels on a page that fills the view, and no sheets: most print stands beside them, on a
 * ground that is no darker than theirs, where what a sheet lies on is darker and hardly ever printed.
 * @param quads what was found, in pixels of the picture, clockwise
 */
export function areOnPage(quads: readonly Quad[], { marks }: Print, picture: Raster): boolean {
  const { width, height } = picture;
  const data = bytesOf(greyOf(picture));
  /** The brightest of what stands around a mark. */
  const groundOf = ({ left, top, right, bottom }: Print['marks'][number]) => {
    let most = 0;
    for (const x of [left - NEAR, (left + right) / 2, right + NEAR]) {
      for (const y of [top - NEAR, (top + bottom) / 2, bottom + NEAR]) {
        const [column, row] = [Math.round(x), Math.round(y)];
        if (column >= 0 && row >= 0 && column < width && row < height)
          most = Math.max(most, data[row * width + column]);
      }
    }
    return most;
  };
  const grounds: [on: number[], beside: number[]] = [[], []];
  for (const mark of marks) {
    const [x, y] = [(mark.left + mark.right) / 2, (mark.top + mark.bottom) / 2];
    grounds[quads.some((quad) => isInside(quad, x, y)) ? 0 : 1].push(groundOf(mark));
  }
  const [on, beside] = grounds;
  if (beside.length < LEAST_BESIDE || beside.length < BESIDE * marks.length) return false;
  // A sheet without print is known by its paper.
  const grey: Raster = { width, height, channels: 1, data };
  const own = on.length > 0 ? median(on) : Math.max(...quads.map((quad) => paperColour(grey, quad)[0]));
  return own < LIGHTER * median(beside);
}

function median(values: number[]): number {
  return values.sort((a, b) => a - b)[values.length >> 1];
}
