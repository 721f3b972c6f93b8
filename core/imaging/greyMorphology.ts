import { plane, Plane } from './raster';

/** The largest value around, then the smallest of those: dark spots narrower than the reach are filled. */
export function closed(grid: Plane, reach: number): Plane {
  const negative = (values: Plane): Plane => ({ ...values, data: values.data.map((value) => -value) });
  return negative(largestAround(negative(largestAround(grid, reach)), reach));
}

/** The largest value within a reach of each, across and down. */
export function largestAround({ width, height, data }: Plane, reach: number): Plane {
  const rows = plane(width, height);
  const out = plane(width, height);
  const room = new Float32Array(2 * (Math.max(width, height) + 4 * reach + 2));
  for (let y = 0; y < height; y++) largestAlong(data, rows.data, y * width, 1, width, reach, room);
  for (let x = 0; x < width; x++) largestAlong(rows.data, out.data, x, width, height, reach, room);
  return out;
}

/**
 * The largest value within a reach of each of a row: that from its window's beginning to the end of a block as long as a window, and that
 * from there to the window's end (van Herk 1992, Gil & Werman 1993).
 * @param room for twice as many values as the row has, and four times the reach and two more
 */
function largestAlong(
  from: Float32Array,
  to: Float32Array,
  start: number,
  step: number,
  count: number,
  reach: number,
  room: Float32Array,
): void {
  const window = 2 * reach + 1;
  const length = Math.ceil((count + 2 * reach) / window) * window;
  const ahead = room.subarray(length);
  room.fill(-Infinity, 0, length);
  for (let at = 0; at < count; at++) room[reach + at] = from[start + at * step];
  for (let block = 0; block < length; block += window) {
    let most = -Infinity;
    for (let at = block; at < block + window; at++) {
      if (room[at] > most) most = room[at];
      ahead[at] = most;
    }
    most = -Infinity;
    for (let at = block + window - 1; at >= block; at--) {
      if (room[at] > most) most = room[at];
      room[at] = most;
    }
  }
  for (let at = 0; at < count; at++) {
    const [behind, before] = [room[at], ahead[at + 2 * reach]];
    to[start + at * step] = behind > before ? behind : before;
  }
}
