import { writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { encodePhoto } from '@crow/demo/capture';
import { Paper } from '@crow/demo/papers';
import { demoSheet } from '@crow/demo/stock';
import { renderView } from '@crow/demo/view';
import { scratchFolder } from '@crow/server/testing/made';

const FRAMES = 30;

/** A film (MJPEG) of a paper that lies still on a table, as a phone held over it sees it; its path. @param size of its pictures, in pixels */
export async function filmOf(paper: Paper, size: { width: number; height: number }): Promise<string> {
  const sheet = { ...(await demoSheet(paper, 190)), at: [0, 0] as [number, number], angle: 0.03 };
  const frame = await encodePhoto(
    renderView({
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
    }),
  );
  const film = join(scratchFolder(), 'film.mjpeg');
  writeFileSync(film, Buffer.concat(Array.from({ length: FRAMES }, () => frame)));
  return film;
}
