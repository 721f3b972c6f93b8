import { bytesIn, withPixels } from './kernels/pixels';

/** A picture in memory: rows from the top, `channels` bytes a pixel (grey, RGB or RGBA). */
export interface Raster {
  width: number;
  height: number;
  channels: 1 | 3 | 4;
  data: Uint8Array | Uint8ClampedArray;
}

/** One number a pixel, rows from the top. */
export interface Plane {
  width: number;
  height: number;
  data: Float32Array;
}

/** Weights of red, green and blue in brightness (ITU-R BT.601). */
export const LUMA = [0.299, 0.587, 0.114] as const;

export function plane(width: number, height: number): Plane {
  return { width, height, data: new Float32Array(width * height) };
}

/**
 * The bytes of a picture as one kind of array, whatever kind they come in: loops over every pixel run several times faster when
 * they never see but one.
 */
export function bytesOf({ data }: Pick<Raster, 'data'>): Uint8Array {
  return new Uint8Array(data.buffer, data.byteOffset, data.length);
}

/** Brightness, 0 to 255, as a grey raster; a grey raster is given back as it is. */
export function greyOf(picture: Raster): Raster {
  const { width, height, channels } = picture;
  if (channels === 1) return picture;
  const data = withPixels([bytesOf(picture), width * height], (pixels, [source, out]) =>
    pixels.grey(source, channels, width * height, out),
  );
  return { width, height, channels: 1, data: data ?? plainGrey(picture) };
}

/** The same without the kernels. */
function plainGrey(picture: Raster): Uint8Array {
  const { width, height, channels } = picture;
  const data = bytesOf(picture);
  const grey = new Uint8Array(width * height);
  for (let from = 0, to = 0; to < grey.length; from += channels, to++) {
    grey[to] = (77 * data[from] + 150 * data[from + 1] + 29 * data[from + 2] + 128) >> 8;
  }
  return grey;
}

/** A picture in red, green and blue as a grey one if all of its pixels are grey: all that looks at it has a third to do. Else as it is. */
export function greyWhereGrey(picture: Raster): Raster {
  const { width, height, channels } = picture;
  if (channels !== 3) return picture;
  const pixels = width * height;
  const made = withPixels([bytesOf(picture), pixels], (kernels, [source, out]) =>
    kernels.onlyGrey(source, pixels, out) ? pixels : 0,
  );
  const data = made ?? plainOnlyGrey(picture);
  return data.length === pixels ? { width, height, channels: 1, data } : picture;
}

/** The same without the kernels; nothing where a pixel is coloured. */
function plainOnlyGrey(picture: Raster): Uint8Array {
  const data = bytesOf(picture);
  const grey = new Uint8Array(picture.width * picture.height);
  for (let at = 0, from = 0; at < grey.length; at++, from += 3) {
    if (data[from] !== data[from + 1] || data[from] !== data[from + 2]) return new Uint8Array(0);
    grey[at] = data[from];
  }
  return grey;
}

/** Each byte of a picture through a table of 256. */
export function throughCurve({ width, height, channels, data }: Raster, curve: Uint8Array): Raster {
  const bytes = bytesOf({ data });
  const made = withPixels([bytes, curve, bytes.length], (pixels, [source, table, out]) =>
    pixels.curve(source, bytes.length, table, out),
  );
  return { width, height, channels, data: made ?? bytes.map((value) => curve[value]) };
}

/**
 * A smaller picture, each pixel the mean of those that it covers (to the nearest whole pixel; of many, of every second or third
 * row and column).
 * @param longSide the most that the longer side may have, in pixels; a smaller picture is given back as it is
 * @param enough so many pixels across and down are enough to take the mean of
 */
export function shrink(picture: Raster, longSide: number, { enough = ENOUGH_COVERED } = {}): Raster {
  const scale = longSide / Math.max(picture.width, picture.height);
  if (scale >= 1) return picture;
  const width = Math.max(1, Math.round(picture.width * scale));
  const height = Math.max(1, Math.round(picture.height * scale));
  const { channels } = picture;
  const data = bytesOf(picture);
  const across = coverage(picture.width, width);
  const down = coverage(picture.height, height);
  const stride = Math.max(1, Math.floor(1 / scale / enough));
  const blocks = [data, bytesIn(across), bytesIn(down), 2 * channels * (picture.width + 2), width * height * channels];
  const made = withPixels(blocks, (pixels, [source, acrossAt, downAt, sums, out]) =>
    pixels.shrink(source, picture.width, channels, acrossAt, downAt, sums, out, width, height, stride),
  );
  return { width, height, channels, data: made ?? plainShrink(picture, { width, height, across, down, stride }) };
}

/** How a picture is made smaller: its new size, where its cells begin, and from each pixel of a cell that counts to the next. */
export interface Shrinking {
  width: number;
  height: number;
  across: Int32Array;
  down: Int32Array;
  stride: number;
}

/** The same without the kernels. */
export function plainShrink(picture: Raster, { width, height, across, down, stride }: Shrinking): Uint8Array {
  const { channels } = picture;
  const data = bytesOf(picture);
  const out = new Uint8Array(width * height * channels);
  const used = channels === 1 ? 1 : 3;
  const sums = new Uint32Array(width * used);
  for (let y = 0; y < height; y++) {
    sums.fill(0);
    let rows = 0;
    for (let row = down[y]; row < down[y + 1]; row += stride, rows++) {
      const line = row * picture.width * channels;
      if (used === 1) addGreys(data, line, across, stride, sums);
      else addColours(data, line, across, stride, channels, sums);
    }
    for (let x = 0, to = y * width * channels, from = 0; x < width; x++, to += channels, from += used) {
      const covered = rows * Math.ceil((across[x + 1] - across[x]) / stride);
      for (let channel = 0; channel < used; channel++) out[to + channel] = sums[from + channel] / covered;
      if (channels === 4) out[to + 3] = 255;
    }
  }
  return out;
}

function addGreys(data: Uint8Array, line: number, across: Int32Array, stride: number, sums: Uint32Array): void {
  for (let x = 0; x < sums.length; x++) {
    let sum = 0;
    const end = line + across[x + 1];
    for (let at = line + across[x]; at < end; at += stride) sum += data[at];
    sums[x] += sum;
  }
}

function addColours(
  data: Uint8Array,
  line: number,
  across: Int32Array,
  stride: number,
  channels: number,
  sums: Uint32Array,
): void {
  const next = stride * channels;
  for (let x = 0, to = 0; to < sums.length; x++, to += 3) {
    let [red, green, blue] = [0, 0, 0];
    const end = line + across[x + 1] * channels;
    for (let at = line + across[x] * channels; at < end; at += next) {
      red += data[at];
      green += data[at + 1];
      blue += data[at + 2];
    }
    sums[to] += red;
    sums[to + 1] += green;
    sums[to + 2] += blue;
  }
}

const ENOUGH_COVERED = 2.2;

/** Where each pixel of a shorter row begins in a longer one. */
function coverage(from: number, to: number): Int32Array {
  return Int32Array.from({ length: to + 1 }, (_, index) => Math.round((index * from) / to));
}

/** Mean over a square of side 2 × radius + 1, by running sums (two passes); at the edges over what there is. */
export function boxBlur({ width, height, data }: Plane, radius: number): Plane {
  const between = new Float32Array(data.length);
  const out = new Float32Array(data.length);
  for (let y = 0; y < height; y++) runningMean(data, between, y * width, 1, width, radius);
  for (let x = 0; x < width; x++) runningMean(between, out, x, width, height, radius);
  return { width, height, data: out };
}

function runningMean(from: Float32Array, to: Float32Array, start: number, step: number, count: number, radius: number) {
  let sum = 0;
  let inside = Math.min(radius, count - 1) + 1;
  for (let at = 0; at < inside; at++) sum += from[start + at * step];
  for (let at = 0; at < count; at++) {
    to[start + at * step] = sum / inside;
    const [entering, leaving] = [at + radius + 1, at - radius];
    if (entering < count) {
      sum += from[start + entering * step];
      inside++;
    }
    if (leaving >= 0) {
      sum -= from[start + leaving * step];
      inside--;
    }
  }
}

/** The picture after so many quarter turns clockwise. */
export function quarterTurned(picture: Raster, turn: 0 | 90 | 180 | 270): Raster {
  if (turn === 0) return picture;
  const { width, height, channels, data } = picture;
  const [toWidth, toHeight] = turn === 180 ? [width, height] : [height, width];
  const out = new Uint8ClampedArray(data.length);
  for (let y = 0; y < height; y++) {
    for (let x = 0; x < width; x++) {
      const [toX, toY] =
        turn === 90 ? [height - 1 - y, x] : turn === 180 ? [width - 1 - x, height - 1 - y] : [y, width - 1 - x];
      const from = (y * width + x) * channels;
      const to = (toY * toWidth + toX) * channels;
      for (let channel = 0; channel < channels; channel++) out[to + channel] = data[from + channel];
    }
  }
  return { width: toWidth, height: toHeight, channels, data: out };
}
