import { bytesOf, greyOf, Raster, shrink } from './raster';

/** A page is looked at in so many fields across and down. */
const [ACROSS, DOWN] = [24, 32];
/** So many fields, each way, may two scans of the same paper lie apart. */
const REACH = 2;

/**
 * What a page looks like from afar: how dark each field of a coarse grid is, a byte a field, rows from the top. By it the same paper
 * scanned again is known where its words say too little.
 * @param page upright, of any size and kind
 */
export function lookOf(page: Raster): Uint8Array {
  const { width, height, data } = shrink(greyOf(page), 10 * DOWN);
  const grey = bytesOf({ data });
  const sums = new Float64Array(ACROSS * DOWN);
  const counts = new Float64Array(ACROSS * DOWN);
  for (let y = 0, at = 0; y < height; y++) {
    const row = Math.floor((y * DOWN) / height) * ACROSS;
    for (let x = 0; x < width; x++, at++) {
      const field = row + Math.floor((x * ACROSS) / width);
      sums[field] += 255 - grey[at];
      counts[field]++;
    }
  }
  return Uint8Array.from(sums, (sum, field) => Math.round(sum / (counts[field] || 1)));
}

/**
 * How alike two looks are: the highest normalised cross-correlation (Lewis 1995) of the one and the other moved by up to two fields,
 * from -1 to 1; 0 where one shows nothing.
 */
export function likeness(one: Uint8Array, other: Uint8Array): number {
  let best = 0;
  for (let down = -REACH; down <= REACH; down++)
    for (let across = -REACH; across <= REACH; across++) best = Math.max(best, correlation(one, other, across, down));
  return best;
}

/** Over the fields that both have when the other one is moved. */
function correlation(one: Uint8Array, other: Uint8Array, across: number, down: number): number {
  let [count, a, b, aa, bb, ab] = [0, 0, 0, 0, 0, 0];
  for (let y = Math.max(0, down); y < Math.min(DOWN, DOWN + down); y++) {
    for (let x = Math.max(0, across); x < Math.min(ACROSS, ACROSS + across); x++) {
      const p = one[y * ACROSS + x];
      const q = other[(y - down) * ACROSS + x - across];
      count++;
      a += p;
      b += q;
      aa += p * p;
      bb += q * q;
      ab += p * q;
    }
  }
  const spread = (aa - (a * a) / count) * (bb - (b * b) / count);
  // Less than a level and a half of difference is noise.
  return spread > (2 * count) ** 2 ? (ab - (a * b) / count) / Math.sqrt(spread) : 0;
}
