import { Raster } from '../imaging/raster';
import { isBlank } from './blank';

const [WIDTH, HEIGHT] = [827, 1170];

/** A page of A4 at 100 dpi, with a little noise. */
function paper(level = 238): Raster {
  const data = new Uint8Array(WIDTH * HEIGHT);
  for (let at = 0; at < data.length; at++) data[at] = level + ((at * 7919) % 7) - 3;
  return { width: WIDTH, height: HEIGHT, channels: 1, data };
}
function fill({ data }: Raster, left: number, top: number, width: number, height: number, level: number): void {
  for (let y = top; y < top + height; y++) data.fill(level, y * WIDTH + left, y * WIDTH + left + width);
}
/** Letters as upright bars with gaps. @param level how dark */
function write(page: Raster, letters: number, left: number, top: number, level: number): void {
  for (let letter = 0; letter < letters; letter++) fill(page, left + 9 * letter, top, 4, 10, level);
}
function disc(page: Raster, x: number, y: number, radius: number, level: number): void {
  for (let dy = -radius; dy <= radius; dy++) {
    const half = Math.round(Math.sqrt(radius * radius - dy * dy));
    fill(page, x - half, y + dy, 2 * half + 1, 1, level);
  }
}

describe('a page is blank', () => {
  it.each([
    ['with nothing on it', () => undefined],
    ['with print of its other side showing through', (page: Raster) => write(page, 60, 100, 300, 218)],
    ['with punched holes', (page: Raster) => [430, 730].forEach((y) => disc(page, 46, y, 11, 50))],
    ['with specks of dust', (page: Raster) => [90, 300, 700].forEach((y) => fill(page, y, y, 2, 1, 70))],
    ['with a dark edge', (page: Raster) => fill(page, WIDTH - 6, 0, 6, HEIGHT, 60)],
    ['with a crease from side to side', (page: Raster) => fill(page, 0, 390, WIDTH, 1, 200)],
  ] as [string, (page: Raster) => unknown][])('%s', (_, spoil) => {
    const page = paper();
    spoil(page);
    expect(isBlank(page)).toBe(true);
  });

  it('when the paper is grey', () => expect(isBlank(paper(170))).toBe(true));
});

describe('a page is not blank', () => {
  it.each([
    ['with a page number only', (page: Raster) => write(page, 1, 410, 1080, 60)],
    ['with a line of print', (page: Raster) => write(page, 30, 100, 300, 40)],
    ['with a note in light pencil', (page: Raster) => write(page, 14, 200, 600, 190)],
    ['with a picture', (page: Raster) => fill(page, 200, 300, 300, 200, 120)],
  ] as [string, (page: Raster) => void][])('%s', (_, put) => {
    const page = paper();
    put(page);
    expect(isBlank(page)).toBe(false);
  });
});
