import { writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { Raster } from '@crow/core/imaging/raster';
import { Paper } from '@crow/demo/papers';
import { demoSheet } from '@crow/demo/stock';
import { renderView } from '@crow/demo/view';
import { scratchFolder } from '@crow/server/testing/made';

/** Few, so that the browser's own work with them keeps nothing else waiting. */
const FRAMES_A_SECOND = 8;

/** A paper that lies still on a table, as a phone held over it sees it. @param size of the picture, in pixels */
export async function sightOf(paper: Paper, size: { width: number; height: number }): Promise<Raster> {
  const sheet = { ...(await demoSheet(paper, 190)), at: [0, 0] as [number, number], angle: 0.03 };
  return renderView({
    ...size,
    seed: 5,
    table: 'wood',
    sheets: [sheet],
    things: [],
    camera: { shows: 330, lean: 0.1, leanTo: 1.9, roll: 0.02, focal: 0.9 },
    light: { level: 1, falloff: 0.1, from: 4, warmth: 0.2 },
    shadows: [],
    blur: 0.3,
    noise: 1,
  });
}

/** A film (YUV4MPEG2) of such a paper; its path. @param size of its pictures, in pixels, both even */
export async function filmOf(paper: Paper, size: { width: number; height: number }): Promise<string> {
  const frame = planesOf(await sightOf(paper, size));
  const film = join(scratchFolder(), 'film.y4m');
  const head = `YUV4MPEG2 W${size.width} H${size.height} F${FRAMES_A_SECOND}:1 Ip A1:1 C420\n`;
  writeFileSync(film, Buffer.concat([head, 'FRAME\n', frame, 'FRAME\n', frame].map((part) => Buffer.from(part))));
  return film;
}

/** A picture's brightness, and its blue and red by halves of the size (ITU-R BT.601, 16 to 235). */
function planesOf({ width, height, data }: Raster): Uint8Array {
  const planes = new Uint8Array((width * height * 3) / 2);
  const [blue, red] = [width * height, (width * height * 5) / 4];
  for (let y = 0; y < height; y++) {
    for (let x = 0; x < width; x++) {
      const at = (y * width + x) * 3;
      const [r, g, b] = [data[at], data[at + 1], data[at + 2]];
      planes[y * width + x] = 16 + 0.257 * r + 0.504 * g + 0.098 * b;
      if (y % 2 || x % 2) continue;
      const half = (y / 2) * (width / 2) + x / 2;
      planes[blue + half] = 128 - 0.148 * r - 0.291 * g + 0.439 * b;
      planes[red + half] = 128 + 0.439 * r - 0.368 * g - 0.071 * b;
    }
  }
  return planes;
}
