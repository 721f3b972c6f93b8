import { Edges, Opponent } from './edges';
import { Line } from './lines';

/**
 * What speaks along a line for its being the side of a sheet, summed up from one end of the picture to the other so that any
 * stretch of it is weighed in two look-ups.
 */
export interface Support {
  line: Line;
  /** Unit vector along the line, and its place nearest the origin. */
  along: [x: number, y: number];
  foot: [x: number, y: number];
  /** Position along the line of the first sample; one sample a pixel. */
  begin: number;
  /** Running sums: samples inside the picture, those on an edge, and how the colour differs across the line. */
  inside: Float32Array;
  edge: Float32Array;
  contrast: Float32Array;
  /** How much lighter it is on the side that the normal points to, minus the other way round. */
  lighter: Float32Array;
}

/** How far from the line its two sides are compared, in pixels. */
const NEAR = 3;
const FAR = 7;
/** A difference of colour that is as clear as any. */
const CLEAR = 14;
/** An edge may be off by this much, in pixels, and turned by 1 - this (cosine). */
const OFF = 2;
const TURNED = 0.94;

export function supportOf(line: Line, edges: Edges, colours: Opponent): Support {
  const { width, height } = edges;
  const [normalX, normalY] = [Math.cos(line.angle), Math.sin(line.angle)];
  const along: [number, number] = [-normalY, normalX];
  const foot: [number, number] = [normalX * line.offset, normalY * line.offset];
  const reach = Math.ceil(Math.hypot(width, height)) + 1;
  const count = 2 * reach + 2;
  const [inside, edge] = [new Float32Array(count), new Float32Array(count)];
  const [contrast, lighter] = [new Float32Array(count), new Float32Array(count)];
  const { light, redGreen, yellowBlue } = colours;
  for (let sample = 1; sample < count; sample++) {
    inside[sample] = inside[sample - 1];
    edge[sample] = edge[sample - 1];
    contrast[sample] = contrast[sample - 1];
    lighter[sample] = lighter[sample - 1];
    const t = sample - 1 - reach;
    const x = foot[0] + t * along[0];
    const y = foot[1] + t * along[1];
    if (x < 2 || y < 2 || x > width - 3 || y > height - 3) continue;
    inside[sample]++;
    for (let off = 0; off <= 2 * OFF; off++) {
      const by = off & 1 ? -((off + 1) >> 1) : off >> 1;
      const at = ((y + by * normalY + 0.5) | 0) * width + ((x + by * normalX + 0.5) | 0);
      if (edges.strength[at] > 0 && Math.abs(edges.normalX[at] * normalX + edges.normalY[at] * normalY) > TURNED) {
        edge[sample]++;
        break;
      }
    }
    let [dl, da, db, pairs] = [0, 0, 0, 0];
    for (let away = NEAR; away <= FAR; away += 2) {
      const ax = Math.floor(x + away * normalX + 0.5);
      const ay = Math.floor(y + away * normalY + 0.5);
      const bx = Math.floor(x - away * normalX + 0.5);
      const by = Math.floor(y - away * normalY + 0.5);
      if (ax < 0 || ay < 0 || bx < 0 || by < 0) continue;
      if (ax >= width || ay >= height || bx >= width || by >= height) continue;
      const a = ay * width + ax;
      const b = by * width + bx;
      dl += light[a] - light[b];
      da += redGreen[a] - redGreen[b];
      db += yellowBlue[a] - yellowBlue[b];
      pairs++;
    }
    if (pairs === 0) continue;
    contrast[sample] += Math.min(1, Math.sqrt(dl * dl + 2.25 * (da * da + db * db)) / pairs / CLEAR);
    lighter[sample] += Math.max(-1, Math.min(1, dl / pairs / CLEAR));
  }
  return { line, along, foot, begin: -reach, inside, edge, contrast, lighter };
}
