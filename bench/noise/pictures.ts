import sharp from 'sharp';
import { noiseSource, seededRandom } from '@crow/demo/random';
import { Chance } from '../piles/chance';

/** What is no text, drawn: for what the judge of noise is fitted to, and other kinds for what it is measured with. */
export const PICTURES = {
  fitted: ['cloud', 'halftone', 'hatching', 'cloth'],
  held: ['wood', 'map', 'through', 'specks'],
} as const;
export type PictureKind = (typeof PICTURES)[keyof typeof PICTURES][number];

/** A picture of some kind, in grey, one byte a pixel. @param text a page whose back shines through */
export async function drawPicture(
  kind: PictureKind,
  width: number,
  height: number,
  chance: Chance,
  text: Buffer,
): Promise<Buffer> {
  switch (kind) {
    case 'cloud':
      return clouds(width, height, chance);
    case 'halftone':
      return dithered(await clouds(width, height, chance), width);
    case 'hatching':
      return drawn(width, height, hatching(width, height, chance));
    case 'cloth':
      return woven(width, height, chance);
    case 'wood':
      return grained(width, height, chance);
    case 'map':
      return drawn(width, height, roads(width, height, chance));
    case 'through':
      return shinesThrough(width, height, chance, text);
    case 'specks':
      return drawn(width, height, specks(width, height, chance));
  }
}

/** Soft noise in several sizes, with contrast. */
async function clouds(width: number, height: number, chance: Chance): Promise<Buffer> {
  const sum = new Float32Array(width * height);
  for (const [cells, weight] of [
    [3, 1],
    [9, 0.7],
    [30, 0.45],
    [90, 0.3],
  ]) {
    const small = Buffer.from(Array.from({ length: cells * cells }, () => chance.whole(0, 255)));
    const large = await sharp(small, { raw: { width: cells, height: cells, channels: 1 } })
      .resize(width, height, { fit: 'fill', kernel: 'cubic' })
      .toColourspace('b-w')
      .raw()
      .toBuffer();
    for (let at = 0; at < sum.length; at++) sum[at] += weight * (large[at] - 128);
  }
  return Buffer.from(sum.map((value) => Math.max(20, Math.min(250, 140 + 1.1 * value))));
}

/** As dots of a printing screen. */
function dithered(grey: Buffer, width: number): Buffer {
  const CELL = 5;
  return Buffer.from(
    grey.map((value, at) => {
      const [x, y] = [(at % width) % CELL, Math.floor(at / width) % CELL];
      const far = Math.hypot(x - 2, y - 2) / 2.9;
      return far < 1 - value / 255 ? 25 : 245;
    }),
  );
}

async function drawn(width: number, height: number, shapes: string): Promise<Buffer> {
  const svg = `<svg xmlns="http://www.w3.org/2000/svg" width="${width}" height="${height}"><rect width="100%" height="100%" fill="#fff"/>${shapes}</svg>`;
  return sharp(Buffer.from(svg)).flatten({ background: '#fff' }).greyscale().toColourspace('b-w').raw().toBuffer();
}

/** Short strokes that follow soft forms, as in an engraving. */
function hatching(width: number, height: number, chance: Chance): string {
  const strokes: string[] = [];
  const [turn, wave] = [chance.random() * 6, 40 + chance.random() * 80];
  for (let at = 0; at < (width * height) / 260; at++) {
    const [x, y] = [chance.random() * width, chance.random() * height];
    const angle = turn + Math.sin(x / wave) + Math.cos(y / wave);
    const long = 6 + 26 * chance.random();
    if (Math.sin(x / (1.7 * wave)) * Math.cos(y / (1.3 * wave)) > 0.35) continue;
    strokes.push(
      `<path d="M${x} ${y}l${long * Math.cos(angle)} ${long * Math.sin(angle)}" stroke="#222" stroke-width="${1 + 2 * chance.random()}"/>`,
    );
  }
  return strokes.join('');
}

/** Lines, circles and filled patches, as of a plan. */
function roads(width: number, height: number, chance: Chance): string {
  const shapes: string[] = [];
  const spot = () => `${chance.random() * width} ${chance.random() * height}`;
  for (let at = 0; at < 26; at++)
    shapes.push(
      `<path d="M${spot()} Q${spot()} ${spot()} T${spot()}" fill="none" stroke="#333" stroke-width="${1 + 4 * chance.random()}"/>`,
    );
  for (let at = 0; at < 70; at++) {
    const [x, y, r] = [chance.random() * width, chance.random() * height, 3 + 14 * chance.random()];
    shapes.push(
      chance.of(0.5)
        ? `<circle cx="${x}" cy="${y}" r="${r}" fill="${chance.of(0.5) ? 'none' : '#444'}" stroke="#333" stroke-width="2"/>`
        : `<rect x="${x}" y="${y}" width="${2 * r}" height="${r}" fill="none" stroke="#333" stroke-width="2" transform="rotate(${90 * chance.random()} ${x} ${y})"/>`,
    );
  }
  return shapes.join('');
}

function specks(width: number, height: number, chance: Chance): string {
  return Array.from({ length: Math.round((width * height) / 2600) }, () => {
    const [x, y] = [chance.random() * width, chance.random() * height];
    const points = Array.from({ length: 5 }, () => `${x + 16 * chance.random()},${y + 18 * chance.random()}`);
    return `<polygon points="${points.join(' ')}" fill="#${chance.of(0.5) ? '333' : '777'}"/>`;
  }).join('');
}

function woven(width: number, height: number, chance: Chance): Buffer {
  const [across, down] = [5 + 9 * chance.random(), 5 + 9 * chance.random()];
  const noise = noiseSource(seededRandom(chance.whole(1, 1e9)));
  return Buffer.from(
    Array.from({ length: width * height }, (_, at) => {
      const [x, y] = [at % width, Math.floor(at / width)];
      const over = (Math.floor(x / across) + Math.floor(y / down)) % 2 === 0;
      const thread = over ? Math.sin((Math.PI * x) / across) : Math.sin((Math.PI * y) / down);
      return Math.max(0, Math.min(255, (over ? 95 : 150) + 70 * Math.abs(thread) + noise(16)));
    }),
  );
}

function grained(width: number, height: number, chance: Chance): Buffer {
  const [ring, bend] = [10 + 24 * chance.random(), 60 + 120 * chance.random()];
  const noise = noiseSource(seededRandom(chance.whole(1, 1e9)));
  return Buffer.from(
    Array.from({ length: width * height }, (_, at) => {
      const [x, y] = [at % width, Math.floor(at / width)];
      const along = y + 14 * Math.sin(x / bend) + 6 * Math.sin(x / 17);
      return Math.max(0, Math.min(255, 130 + 70 * Math.sin(along / ring) * Math.sin(along / 3.7) + noise(22)));
    }),
  );
}

/** The back of a page of text, mirrored, pale and soft. */
async function shinesThrough(width: number, height: number, chance: Chance, text: Buffer): Promise<Buffer> {
  const pale = 0.35 + 0.4 * chance.random();
  const page = await sharp(text)
    .flop()
    .resize(width, height, { fit: 'cover' })
    .greyscale()
    .blur(1.2)
    .toColourspace('b-w')
    .raw()
    .toBuffer();
  return Buffer.from(page.map((value) => 250 - pale * (255 - value)));
}
