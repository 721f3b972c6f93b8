import { bytesOf, greyOf, Raster } from '../raster';

/** How wide the rim is that is looked at, as a share of the picture, how bright it is at least, and how even. */
const RIM = 0.015;
const [BRIGHT, EVEN, CLEAN] = [200, 26, 0.9];

/** Whether a picture is paper up to its edges, evenly lit: a scan that does not say that it is one. */
export function looksFlat(picture: Raster): boolean {
  const { width, height } = picture;
  const data = bytesOf(greyOf(picture));
  const rim = Math.max(2, Math.round(RIM * Math.min(width, height)));
  const counts = new Uint32Array(256);
  let all = 0;
  const count = (from: number, until: number, y: number) => {
    for (let x = from + (from & 1); x < until; x += 2, all++) counts[data[y * width + x]]++;
  };
  for (let y = 0; y < height; y += 2) {
    if (Math.min(y, height - 1 - y) < rim) count(0, width, y);
    else {
      count(0, Math.min(rim, width), y);
      count(Math.max(rim, width - rim), width, y);
    }
  }
  let [paper, below] = [0, counts[0]];
  while (below <= all >> 1) below += counts[++paper];
  const near = counts.subarray(Math.max(0, paper - EVEN), paper + EVEN + 1).reduce((sum, each) => sum + each, 0);
  return paper >= BRIGHT && near >= CLEAN * all;
}
