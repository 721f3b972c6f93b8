import { Raster } from './raster';

/** How far in from an edge a sliver of table may reach, as a share of the page's width or height. */
const BAND = 0.018;
/** A pixel this much darker than the paper further in is no paper. */
const DARKER = 0.86;
const REFERENCE = 6;

/**
 * Paints over the slivers of table that a sheet which doesn't lie quite flat leaves along its edges: what is darker than the
 * paper further in, from the edge inwards, as long as paper begins before the band ends.
 */
export function trimEdges(page: Raster): Raster {
  const { width, height, channels } = page;
  const out: Raster = { ...page, data: new Uint8ClampedArray(page.data) };
  const row = width * channels;
  for (let y = 0; y < height; y++) {
    trimFrom(out, y * row, channels, Math.ceil(width * BAND));
    trimFrom(out, y * row + (width - 1) * channels, -channels, Math.ceil(width * BAND));
  }
  for (let x = 0; x < width; x++) {
    trimFrom(out, x * channels, row, Math.ceil(height * BAND));
    trimFrom(out, (height - 1) * row + x * channels, -row, Math.ceil(height * BAND));
  }
  return out;
}

function trimFrom({ data, channels }: Raster, start: number, step: number, band: number): void {
  const used = channels === 1 ? 1 : 3;
  const brightness = (at: number) => (used === 1 ? data[at] : (data[at] + 2 * data[at + 1] + data[at + 2]) / 4);
  let paper = start + band * step;
  for (let by = 1; by < REFERENCE; by++) {
    const at = start + (band + by) * step;
    if (at >= 0 && at < data.length && brightness(at) > brightness(paper)) paper = at;
  }
  const limit = DARKER * brightness(paper);
  let last = -1;
  for (let by = 0; by < band; by++) if (brightness(start + by * step) < limit) last = by;
  // Print that reaches the edge goes on beyond the band, or stands alone in it.
  let dark = 0;
  for (let by = 0; by <= last; by++) if (brightness(start + by * step) < limit) dark++;
  if (last < 0 || last >= band - 2 || dark < 0.6 * (last + 1)) return;
  for (let by = 0; by <= last + 1; by++)
    for (let channel = 0; channel < used; channel++) data[start + by * step + channel] = data[paper + channel];
}
