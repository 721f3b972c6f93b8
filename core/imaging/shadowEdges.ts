import { closed } from './greyMorphology';
import { boxBlur, bytesOf, Plane, Raster } from './raster';

/** Light that changes by more than this share from one cell to the next is that at the edge of a shadow. */
const STEEP = 0.08;
/** So many cells of the light are looked at about such a place, and so many parts of each, across and down. */
const AROUND = 2;
const FINER = 3;
/** In a part with fewer pixels, across and down, print can't be told from paper. */
const LEAST_PIXELS = 2.5;
/** Of the pixels of such a part so many (a share) are darker than bare paper; print narrower than so many parts, on either side, is filled. */
const PAPER_SHARE = 0.7;
const PRINT = 3;
/** So much of what lies at the edges has the tint of the light around. */
const TINTED = 0.7;
const SAME_TINT = 0.12;

/**
 * Light as it falls at the edges of sharp shadows, where a cell of the usual grid sees both sides: on a finer grid, from what is bright in its cells. Light without
 * such edges comes back as it is.
 * @param picture that the light was found in
 * @param light how bright paper is, a plane a channel
 */
export function finerAtEdges(picture: Raster, light: Plane[]): Plane[] {
  if (picture.width < LEAST_PIXELS * FINER * light[0].width) return light;
  const steep = steepCells(light);
  if (!steep) return light;
  const smooth = light.map((each) => enlarged(each));
  const [{ width, height }] = smooth;
  const near = (at: number) =>
    steep[Math.floor(at / width / FINER) * light[0].width + Math.floor((at % width) / FINER)];
  const seen = smooth.map((each) => ({ ...each, data: each.data.slice() }));
  let [tinted, all] = [0, 0];
  const counts = new Uint32Array(256 * picture.channels);
  for (let at = 0; at < width * height; at++) {
    if (near(at) === 0) continue;
    const bright = brightIn(picture, at % width, Math.floor(at / width), width, height, light.length, counts);
    bright.forEach((value, channel) => (seen[channel].data[at] = value));
    const shares = bright.map((value, channel) => value / smooth[channel].data[at]);
    all++;
    if (Math.max(...shares) - Math.min(...shares) < SAME_TINT * Math.max(1, ...shares)) tinted++;
  }
  // A picture with colours is no shadow.
  if (tinted < TINTED * all) return light;
  return seen.map((each, channel) => {
    const even = boxBlur(closed(each, PRINT), 1);
    return { width, height, data: even.data.map((value, at) => (near(at) ? value : smooth[channel].data[at])) };
  });
}

/** Cells near which the light changes much: 1; nothing where it does nowhere. */
function steepCells(light: Plane[]): Uint8Array | undefined {
  const [{ width, height }] = light;
  const steep = new Uint8Array(width * height);
  let any = false;
  const brightness = light[0].data.map((_, at) => light.reduce((sum, { data }) => sum + data[at], 0));
  for (let y = 0; y < height; y++)
    for (let x = 0; x < width; x++) {
      const own = brightness[y * width + x];
      const changes = (other: number) => Math.abs(own - other) > STEEP * Math.max(own, other);
      const isSteep =
        (x + 1 < width && changes(brightness[y * width + x + 1])) ||
        (y + 1 < height && changes(brightness[(y + 1) * width + x]));
      if (!isSteep) continue;
      any = true;
      for (let row = Math.max(0, y - AROUND); row <= Math.min(height - 1, y + AROUND); row++)
        steep.fill(1, row * width + Math.max(0, x - AROUND), row * width + Math.min(width, x + AROUND + 1));
    }
  return any ? steep : undefined;
}

/** A plane so many times finer, what lies between the middles of its cells made evenly. */
function enlarged({ width, height, data }: Plane): Plane {
  const [across, down] = [FINER * width, FINER * height];
  const out = new Float32Array(across * down);
  const place = (at: number, count: number): [number, number] => {
    const exact = Math.max(0, Math.min(count - 1, (at + 0.5) / FINER - 0.5));
    const first = Math.min(Math.max(0, count - 2), Math.floor(exact));
    return [first, exact - first];
  };
  for (let y = 0; y < down; y++) {
    const [top, low] = place(y, height);
    for (let x = 0; x < across; x++) {
      const [left, right] = place(x, width);
      const at = top * width + left;
      const upper = data[at] * (1 - right) + data[at + 1] * right;
      const lower = data[at + width] * (1 - right) + data[at + width + 1] * right;
      out[y * across + x] = upper * (1 - low) + lower * low;
    }
  }
  return { width: across, height: down, data: out };
}

/** How bright paper is in a cell of a grid over a picture, by channel. @param counts room for them */
function brightIn(
  picture: Raster,
  x: number,
  y: number,
  across: number,
  down: number,
  used: number,
  counts: Uint32Array,
): number[] {
  const { width, height, channels } = picture;
  const data = bytesOf(picture);
  counts.fill(0);
  const [left, right] = [Math.floor((x * width) / across), Math.ceil(((x + 1) * width) / across)];
  const [top, bottom] = [Math.floor((y * height) / down), Math.ceil(((y + 1) * height) / down)];
  for (let row = top; row < bottom && row < height; row++)
    for (let column = left; column < right && column < width; column++)
      for (let channel = 0; channel < used; channel++)
        counts[256 * channel + data[(row * width + column) * channels + channel]]++;
  const pixels = (right - left) * (bottom - top);
  return Array.from({ length: used }, (_, channel) => {
    let value = 255;
    let above = counts[256 * channel + 255];
    while (value > 1 && above < (1 - PAPER_SHARE) * pixels) above += counts[256 * channel + --value];
    return value;
  });
}
