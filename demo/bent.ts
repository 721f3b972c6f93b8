import { Point } from '@crow/core/imaging/quad';
import { Raster } from '@crow/core/imaging/raster';
import { Camera, View } from './view';

type Place = [x: number, y: number, z: number];

/** A sheet that is not flat: where each of its points is. Millimetres; z upwards from the table. */
export interface BentSheet {
  picture: Raster;
  width: number;
  height: number;
  /** @param u, v on the sheet, from its upper left */
  surface: (u: number, v: number) => Place;
  /** How far light is reflected as by a mirror, 0 for plain paper to about 1. */
  gloss?: number;
}

/** What is seen of bent sheets, for each pixel of the picture. */
export interface BentView {
  /** Which sheet is seen, from 1; 0 for none. */
  sheet: Uint8Array;
  u: Float32Array;
  v: Float32Array;
  /** By how much the light on it is more or less than on a flat sheet, and what it mirrors (in shares of white). */
  shade: Float32Array;
  mirrored: Float32Array;
  /** How far below a sheet's edge the table is in shadow, 0 to 1. */
  shadow: Float32Array;
}

/** Pixels between the points of which the place is calculated. */
const STEP_MM = 1.2;

/** From a point above the table to the picture, through the same pinhole as `tableToPicture`; and how far away it is. */
export function projector({ width, height, camera }: Pick<View, 'width' | 'height' | 'camera'>) {
  const long = Math.max(width, height);
  const focal = camera.focal * long;
  const distance = (focal * camera.shows) / long;
  const [cosLean, sinLean] = [Math.cos(camera.lean), Math.sin(camera.lean)];
  const [cosTo, sinTo] = [Math.cos(camera.leanTo), Math.sin(camera.leanTo)];
  const [cosRoll, sinRoll] = [Math.cos(camera.roll), Math.sin(camera.roll)];
  return ([x, y, z]: Place): [px: number, py: number, depth: number] => {
    const along = x * cosTo + y * sinTo;
    const aside = -x * sinTo + y * cosTo;
    const depth = distance - along * sinLean - z * cosLean;
    const [px, py] = [(focal * (along * cosLean - z * sinLean)) / depth, (focal * aside) / depth];
    const [rx, ry] = [px * cosTo - py * sinTo, px * sinTo + py * cosTo];
    return [width / 2 + rx * cosRoll - ry * sinRoll, height / 2 + rx * sinRoll + ry * cosRoll, depth];
  };
}

/** Where a point of a bent sheet is in the picture. */
export function placeInPicture(
  { surface }: BentSheet,
  view: { width: number; height: number; camera: Camera },
  [u, v]: Point,
): Point {
  const [x, y] = projector(view)(surface(u, v));
  return [x, y];
}

/** Sees bent sheets through the camera: a mesh of small triangles, what is nearer hiding what is further away. */
export function seeBent(
  sheets: BentSheet[],
  view: Pick<View, 'width' | 'height' | 'camera' | 'light'>,
  stepMm = STEP_MM,
): BentView {
  const { width, height, light } = view;
  const project = projector(view);
  const size = width * height;
  const seen: BentView = {
    sheet: new Uint8Array(size),
    u: new Float32Array(size),
    v: new Float32Array(size),
    shade: new Float32Array(size),
    mirrored: new Float32Array(size),
    shadow: new Float32Array(size),
  };
  const depths = new Float32Array(size).fill(Infinity);
  // The light comes from one side, from above.
  const toLight: Place = [0.45 * Math.cos(light.from), 0.45 * Math.sin(light.from), 0.89];
  sheets.forEach((sheet, index) => {
    const [columns, rows] = [Math.ceil(sheet.width / stepMm), Math.ceil(sheet.height / stepMm)];
    const nodes = new Float32Array((columns + 1) * (rows + 1) * 7);
    for (let row = 0; row <= rows; row++) {
      for (let column = 0; column <= columns; column++) {
        const [u, v] = [(column / columns) * sheet.width, (row / rows) * sheet.height];
        const place = sheet.surface(u, v);
        const normal = normalAt(sheet, u, v);
        const falls = normal[0] * toLight[0] + normal[1] * toLight[1] + normal[2] * toLight[2];
        const mirrored = (sheet.gloss ?? 0) * Math.max(0, falls) ** 60;
        nodes.set(
          [...project(place), u, v, 0.25 + (0.75 * Math.max(0, falls)) / 0.89, mirrored],
          (row * (columns + 1) + column) * 7,
        );
      }
    }
    for (let row = 0; row < rows; row++) {
      for (let column = 0; column < columns; column++) {
        const a = (row * (columns + 1) + column) * 7;
        const c = a + (columns + 1) * 7;
        fillTriangle(nodes, a, a + 7, c, index + 1, width, height, depths, seen);
        fillTriangle(nodes, a + 7, c + 7, c, index + 1, width, height, depths, seen);
      }
    }
    shadeBelow(sheet, project, width, height, seen.shadow);
  });
  return seen;
}

function normalAt({ surface, width, height }: BentSheet, u: number, v: number): Place {
  const by = 0.5;
  const [left, right] = [surface(Math.max(0, u - by), v), surface(Math.min(width, u + by), v)];
  const [up, down] = [surface(u, Math.max(0, v - by)), surface(u, Math.min(height, v + by))];
  const [ax, ay, az] = [right[0] - left[0], right[1] - left[1], right[2] - left[2]];
  const [bx, by2, bz] = [down[0] - up[0], down[1] - up[1], down[2] - up[2]];
  // y runs downwards as seen from above, so that this points upwards.
  const normal: Place = [ay * bz - az * by2, az * bx - ax * bz, ax * by2 - ay * bx];
  const long = Math.hypot(...normal) || 1;
  const turn = normal[2] < 0 ? -1 : 1;
  return normal.map((each) => (turn * each) / long) as Place;
}

function fillTriangle(
  nodes: Float32Array,
  a: number,
  b: number,
  c: number,
  sheet: number,
  width: number,
  height: number,
  depths: Float32Array,
  seen: BentView,
): void {
  const [ax, ay, bx, by, cx, cy] = [nodes[a], nodes[a + 1], nodes[b], nodes[b + 1], nodes[c], nodes[c + 1]];
  const twice = (bx - ax) * (cy - ay) - (by - ay) * (cx - ax);
  if (Math.abs(twice) < 1e-9) return;
  const left = Math.max(0, Math.ceil(Math.min(ax, bx, cx)));
  const right = Math.min(width - 1, Math.floor(Math.max(ax, bx, cx)));
  const top = Math.max(0, Math.ceil(Math.min(ay, by, cy)));
  const bottom = Math.min(height - 1, Math.floor(Math.max(ay, by, cy)));
  for (let y = top; y <= bottom; y++) {
    for (let x = left; x <= right; x++) {
      const second = ((x - ax) * (cy - ay) - (y - ay) * (cx - ax)) / twice;
      const third = ((bx - ax) * (y - ay) - (by - ay) * (x - ax)) / twice;
      const first = 1 - second - third;
      if (first < -1e-4 || second < -1e-4 || third < -1e-4) continue;
      const at = y * width + x;
      const of = (value: number) => first * nodes[a + value] + second * nodes[b + value] + third * nodes[c + value];
      const depth = of(2);
      if (depth >= depths[at]) continue;
      depths[at] = depth;
      seen.sheet[at] = sheet;
      seen.u[at] = of(3);
      seen.v[at] = of(4);
      seen.shade[at] = of(5);
      seen.mirrored[at] = of(6);
    }
  }
}

/** The table is darker under the edges of a sheet, the wider the higher they are. */
function shadeBelow(
  { surface, width: sheetWidth, height: sheetHeight }: BentSheet,
  project: ReturnType<typeof projector>,
  width: number,
  height: number,
  shadow: Float32Array,
): void {
  const around: Point[] = [];
  const step = 2;
  for (let u = 0; u <= sheetWidth; u += step) around.push([u, 0], [u, sheetHeight]);
  for (let v = 0; v <= sheetHeight; v += step) around.push([0, v], [sheetWidth, v]);
  for (const [u, v] of around) {
    const place = surface(u, v);
    const [x, y] = project([place[0], place[1], 0]);
    const [nextX] = project([place[0] + 1, place[1], 0]);
    const reach = Math.max(2, Math.abs(nextX - x) * (2 + 0.6 * place[2]));
    for (let py = Math.max(0, Math.ceil(y - reach)); py <= Math.min(height - 1, y + reach); py++) {
      for (let px = Math.max(0, Math.ceil(x - reach)); px <= Math.min(width - 1, x + reach); px++) {
        const at = py * width + px;
        const dark = 0.35 * Math.max(0, 1 - Math.hypot(px - x, py - y) / reach);
        if (dark > shadow[at]) shadow[at] = dark;
      }
    }
  }
}
