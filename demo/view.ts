import { applyHomography, Homography, homography } from '@crow/core/imaging/homography';
import { Point, Quad } from '@crow/core/imaging/quad';
import { Raster } from '@crow/core/imaging/raster';
import { BentSheet, seeBent } from './bent';
import { noiseSource, seededRandom } from './random';
import { Table, tableColour } from './table';

/** A sheet that lies on the table: what is on it, how large it is, where it lies. Millimetres; y downwards as seen. */
export interface LaidSheet {
  picture: Raster;
  width: number;
  height: number;
  /** Where its middle lies, the middle of the table being [0, 0]. */
  at: Point;
  /** Turned clockwise, in radians. */
  angle: number;
  /** How far its long sides bulge, in mm: paper is seldom quite flat. */
  bow?: number;
}

/** Something else that lies about: a rod with round ends (a pen, a ruler, a finger), or a disc when both ends are the same. */
export interface Thing {
  from: Point;
  to: Point;
  radius: number;
  colour: [number, number, number];
}

/** Light that what lies there mirrors: an oval patch with a soft edge, so long and wide (mm), turned, and so bright in the middle (grey levels). */
export interface Shine {
  at: Point;
  reach: [number, number];
  angle: number;
  strength: number;
}

export interface View {
  /** In pixels. */
  width: number;
  height: number;
  seed: number;
  table: Table;
  /** From the lowest to the topmost. */
  sheets: LaidSheet[];
  /** Sheets that are not flat, on those that are. */
  bent?: BentSheet[];
  /** How far a clear sleeve, in which the topmost sheet lies, reaches beyond it (mm); on its left by three times as much. */
  sleeve?: number;
  /** On top of everything. */
  things: Thing[];
  shines?: Shine[];
  camera: Camera;
  /** Brightness of the light (1: paper is nearly white), how unevenly it falls (0 to 1), from which side, and how warm it is. */
  light: { level: number; falloff: number; from: number; warmth: number };
  /** Shadows with soft edges: everything on the far side of a line through `at` in the direction `angle`. */
  shadows: { at: Point; angle: number; softness: number; depth: number; width: number }[];
  /** Radius of the blur in pixels, and strength of the noise in grey levels. */
  blur: number;
  noise: number;
}

export interface Camera {
  /** How many mm of the table the picture's longer side shows, in the middle. */
  shows: number;
  /** How far it leans from straight above, and to which side, and how it is turned about its axis; radians. */
  lean: number;
  leanTo: number;
  roll: number;
  /** Focal length as a share of the longer side; a phone's is about 0.75 to 1. */
  focal: number;
}

/** From millimetres on the table to pixels of the picture, through a pinhole. */
export function tableToPicture({ width, height, camera }: Pick<View, 'width' | 'height' | 'camera'>): Homography {
  const long = Math.max(width, height);
  const focal = camera.focal * long;
  const distance = (focal * camera.shows) / long;
  const [cosLean, sinLean] = [Math.cos(camera.lean), Math.sin(camera.lean)];
  const [cosTo, sinTo] = [Math.cos(camera.leanTo), Math.sin(camera.leanTo)];
  const [cosRoll, sinRoll] = [Math.cos(camera.roll), Math.sin(camera.roll)];
  const project = ([x, y]: Point): Point => {
    const along = x * cosTo + y * sinTo;
    const aside = -x * sinTo + y * cosTo;
    const depth = distance - along * sinLean;
    const [px, py] = [(focal * along * cosLean) / depth, (focal * aside) / depth];
    const [rx, ry] = [px * cosTo - py * sinTo, px * sinTo + py * cosTo];
    return [width / 2 + rx * cosRoll - ry * sinRoll, height / 2 + rx * sinRoll + ry * cosRoll];
  };
  const square: Quad = [
    [-100, -100],
    [100, -100],
    [100, 100],
    [-100, 100],
  ];
  return homography(square, square.map(project) as Quad);
}

/** Where the corners of a sheet are in the picture, clockwise from the sheet's own upper left. */
export function outlineOf(sheet: LaidSheet, view: Pick<View, 'width' | 'height' | 'camera'>): Quad {
  const toPicture = tableToPicture(view);
  return cornersOnTable(sheet).map((point) => applyHomography(toPicture, point)) as Quad;
}

function cornersOnTable({ width, height, at, angle }: LaidSheet): Quad {
  const [cos, sin] = [Math.cos(angle), Math.sin(angle)];
  const place = (x: number, y: number): Point => [at[0] + x * cos - y * sin, at[1] + x * sin + y * cos];
  const [w, h] = [width / 2, height / 2];
  return [place(-w, -h), place(w, -h), place(w, h), place(-w, h)];
}

const PAPER_WHITE = 0.93;
/** How far the dark line under the edge of a sheet reaches, in mm. */
const EDGE_SHADE = 1.6;

/** Renders the view as a camera would take it: RGB. */
export function renderView(view: View): Raster {
  const { width, height, sheets, things, light, shadows } = view;
  const random = seededRandom(view.seed);
  const toTable = inverse(tableToPicture(view));
  const colourAt = tableColour(view.table, random);
  const noise = noiseSource(random);
  const out = new Uint8ClampedArray(width * height * 3);
  const tops = [...sheets]
    .reverse()
    .map((sheet) => ({ sheet, cos: Math.cos(sheet.angle), sin: Math.sin(sheet.angle) }));
  const colour: [number, number, number] = [0, 0, 0];
  const [lightX, lightY] = [Math.cos(light.from), Math.sin(light.from)];
  const reach = view.camera.shows;
  const bent = view.bent?.length ? seeBent(view.bent, view) : undefined;
  const tint = [1 + 0.1 * light.warmth, 1, 1 - 0.14 * light.warmth];
  for (let py = 0; py < height; py++) {
    for (let px = 0; px < width; px++) {
      const w = toTable[6] * px + toTable[7] * py + toTable[8];
      const x = (toTable[0] * px + toTable[1] * py + toTable[2]) / w;
      const y = (toTable[3] * px + toTable[4] * py + toTable[5]) / w;
      let shade = 1;
      let found = false;
      for (const thing of things) {
        const away = awayFrom(thing, x, y);
        if (away < 0) {
          const round = 0.75 + 0.35 * (-away / thing.radius);
          for (let each = 0; each < 3; each++) colour[each] = thing.colour[each] * round;
          found = true;
          break;
        }
        if (away < 4) shade *= 0.7 + 0.075 * away;
      }
      const pixel = py * width + px;
      let mirrored = 0;
      if (bent && !found) {
        const number = bent.sheet[pixel];
        shade *= number === 0 ? 1 - bent.shadow[pixel] : bent.shade[pixel];
        if (number > 0) {
          sample(view.bent![number - 1], bent.u[pixel], bent.v[pixel], colour);
          mirrored = 255 * bent.mirrored[pixel];
          found = true;
        }
      }
      for (let each = 0; !found && each < tops.length; each++) {
        const { sheet, cos, sin } = tops[each];
        const [dx, dy] = [x - sheet.at[0], y - sheet.at[1]];
        let u = dx * cos + dy * sin + sheet.width / 2;
        const v = -dx * sin + dy * cos + sheet.height / 2;
        if (sheet.bow && v > 0 && v < sheet.height) u -= sheet.bow * Math.sin((Math.PI * v) / sheet.height);
        if (u >= 0 && v >= 0 && u < sheet.width && v < sheet.height) {
          sample(sheet, u, v, colour);
          found = true;
        } else {
          const outside = Math.max(-u, u - sheet.width, -v, v - sheet.height);
          if (outside < EDGE_SHADE) shade *= 0.8 + (0.2 * outside) / EDGE_SHADE;
        }
      }
      if (!found) colourAt(x, y, colour);
      if (view.sleeve !== undefined) throughSleeve(tops[0], view.sleeve, x, y, colour);
      for (const shine of view.shines ?? []) mirrored += shineAt(shine, x, y);
      let bright = light.level * shade * (1 - light.falloff * (0.5 - (x * lightX + y * lightY) / reach));
      for (const shadow of shadows) {
        const across = -(x - shadow.at[0]) * Math.sin(shadow.angle) + (y - shadow.at[1]) * Math.cos(shadow.angle);
        const into = Math.min(across, shadow.width - across) / shadow.softness;
        bright *= 1 - shadow.depth / (1 + Math.exp(-into * 4));
      }
      const to = 3 * pixel;
      for (let each = 0; each < 3; each++) out[to + each] = (colour[each] * bright + mirrored) * tint[each];
    }
  }
  const picture: Raster = {
    width,
    height,
    channels: 3,
    data: view.blur > 0 ? blurred(out, width, height, view.blur) : out,
  };
  if (view.noise > 0) for (let at = 0; at < picture.data.length; at++) picture.data[at] += noise(view.noise);
  return picture;
}

/** How much of the light clear film lets through, what it adds, and how bright and wide (mm) its edges are. */
const FILM = { through: 0.93, veil: 13, edge: 48, wide: 0.45 };

function throughSleeve(
  { sheet, cos, sin }: { sheet: LaidSheet; cos: number; sin: number },
  around: number,
  x: number,
  y: number,
  colour: [number, number, number],
): void {
  const [dx, dy] = [x - sheet.at[0], y - sheet.at[1]];
  const [u, v] = [dx * cos + dy * sin, -dx * sin + dy * cos];
  const left = sheet.width / 2 + 3 * around;
  const inside = Math.min(
    u + left,
    sheet.width / 2 + around - u,
    v + sheet.height / 2 + around,
    sheet.height / 2 + around - v,
  );
  if (inside < -FILM.wide) return;
  const isEdge = Math.abs(inside) < FILM.wide || Math.abs(u + left - 2 * around) < FILM.wide;
  for (let each = 0; each < 3; each++)
    colour[each] = isEdge
      ? Math.min(255, colour[each] + FILM.edge)
      : inside > 0
        ? colour[each] * FILM.through + FILM.veil
        : colour[each];
}

function shineAt({ at, reach, angle, strength }: Shine, x: number, y: number): number {
  const [dx, dy] = [x - at[0], y - at[1]];
  const [cos, sin] = [Math.cos(angle), Math.sin(angle)];
  const off = ((dx * cos + dy * sin) / reach[0]) ** 2 + ((dy * cos - dx * sin) / reach[1]) ** 2;
  return off > 9 ? 0 : strength * Math.exp(-(off ** 2));
}

function awayFrom({ from, to, radius }: Thing, x: number, y: number): number {
  const [dx, dy] = [to[0] - from[0], to[1] - from[1]];
  const long = dx * dx + dy * dy;
  const share = long === 0 ? 0 : Math.max(0, Math.min(1, ((x - from[0]) * dx + (y - from[1]) * dy) / long));
  return Math.hypot(x - from[0] - share * dx, y - from[1] - share * dy) - radius;
}

function sample(
  { picture, width, height }: Pick<LaidSheet, 'picture' | 'width' | 'height'>,
  u: number,
  v: number,
  colour: [number, number, number],
): void {
  const fx = Math.max(0, Math.min(picture.width - 1.001, (u / width) * picture.width - 0.5));
  const fy = Math.max(0, Math.min(picture.height - 1.001, (v / height) * picture.height - 0.5));
  const [x, y] = [Math.floor(fx), Math.floor(fy)];
  const [right, down] = [fx - x, fy - y];
  const { channels, data } = picture;
  const at = (y * picture.width + x) * channels;
  const below = at + picture.width * channels;
  for (let each = 0; each < 3; each++) {
    const channel = channels === 1 ? 0 : each;
    const upper = data[at + channel] * (1 - right) + data[at + channels + channel] * right;
    const lower = data[below + channel] * (1 - right) + data[below + channels + channel] * right;
    colour[each] = (upper * (1 - down) + lower * down) * PAPER_WHITE;
  }
}

/** A blur of about the given radius: two box blurs one after the other. */
function blurred(data: Uint8ClampedArray, width: number, height: number, radius: number): Uint8ClampedArray {
  const share = Math.min(1, radius);
  const reach = Math.max(1, Math.round(radius));
  let from = data;
  for (const [step, stride, count] of [
    [3, width * 3, width],
    [width * 3, 3, height],
  ]) {
    const to = new Uint8ClampedArray(data.length);
    const lines = data.length / 3 / count;
    for (let line = 0; line < lines; line++) {
      for (let at = 0; at < count; at++) {
        for (let channel = 0; channel < 3; channel++) {
          const here = line * stride + at * step + channel;
          let [sum, weight] = [0, 0];
          for (let by = -reach; by <= reach; by++) {
            if (at + by < 0 || at + by >= count) continue;
            const strength = by === 0 ? 1 : share * (1 - Math.abs(by) / (reach + 1));
            sum += strength * from[here + by * step];
            weight += strength;
          }
          to[here] = sum / weight;
        }
      }
    }
    from = to;
  }
  return from;
}

function inverse(h: Homography): Homography {
  const unit: Quad = [
    [-100, -100],
    [100, -100],
    [100, 100],
    [-100, 100],
  ];
  return homography(unit.map((point) => applyHomography(h, point)) as Quad, unit);
}
