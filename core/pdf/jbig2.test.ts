import { execFileSync } from 'node:child_process';
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import sharp from 'sharp';
import { encodeJbig2 } from './jbig2';

/** What another decoder makes of it: pdfimages, by way of the smallest PDF that holds it. */
async function decoded(bytes: Uint8Array, width: number, height: number): Promise<Uint8Array> {
  const folder = mkdtempSync(join(tmpdir(), 'jbig2-'));
  try {
    const objects = [
      '<</Type/Catalog/Pages 2 0 R>>',
      '<</Type/Pages/Kids[3 0 R]/Count 1>>',
      `<</Type/Page/Parent 2 0 R/MediaBox[0 0 ${width} ${height}]/Resources<</XObject<</P 4 0 R>>>>/Contents 5 0 R>>`,
    ].map((body, index) => Buffer.from(`${index + 1} 0 obj\n${body}\nendobj\n`));
    const picture = `<</Type/XObject/Subtype/Image/Width ${width}/Height ${height}/ColorSpace/DeviceGray/BitsPerComponent 1/Filter/JBIG2Decode/Length ${bytes.length}>>`;
    const content = `q ${width} 0 0 ${height} 0 0 cm /P Do Q`;
    writeFileSync(
      join(folder, 'a.pdf'),
      Buffer.concat([
        Buffer.from('%PDF-1.5\n'),
        ...objects,
        Buffer.from(`4 0 obj\n${picture}\nstream\n`),
        bytes,
        Buffer.from(
          `\nendstream\nendobj\n5 0 obj\n<</Length ${content.length}>>\nstream\n${content}\nendstream\nendobj\n`,
        ),
        Buffer.from('trailer\n<</Root 1 0 R/Size 6>>\n%%EOF\n'),
      ]),
    );
    execFileSync('pdfimages', ['-png', join(folder, 'a.pdf'), join(folder, 'out')], { stdio: 'ignore' });
    return await sharp(readFileSync(join(folder, 'out-000.png')))
      .toColourspace('b-w')
      .raw()
      .toBuffer();
  } finally {
    rmSync(folder, { recursive: true });
  }
}

/** Repeatable numbers from 0 to 1 (Lehmer 1951). */
function chance(seed: number): () => number {
  let state = seed;
  return () => (state = (state * 48271) % 2147483647) / 2147483647;
}

const shapes: Record<string, (x: number, y: number, random: () => number) => boolean> = {
  'nothing at all': () => false,
  'everything black': () => true,
  'a ruled table': (x, y) => x % 40 < 2 || y % 25 < 2,
  'black up to every edge': (x, y) => x === 0 || y === 0 || x === 190 || y === 120,
  'something like letters': (x, y) => Math.sin(x / 3) * Math.cos(y / 4) + Math.sin((x * y) / 90) > 0.4,
  'noise, which can’t be foreseen': (_x, _y, random) => random() < 0.5,
};

it.each(Object.entries(shapes))('another decoder gives back to the pixel: %s', async (_name, isBlack) => {
  const [width, height] = [191, 121];
  const random = chance(7);
  const data = Uint8Array.from({ length: width * height }, (_, at) =>
    isBlack(at % width, Math.floor(at / width), random) ? 0 : 255,
  );
  const bytes = encodeJbig2({ width, height, channels: 1, data });
  expect(Buffer.from(await decoded(bytes, width, height)).equals(Buffer.from(data))).toBe(true);
});

it.each([
  [1, 1],
  [3, 2],
  [64, 1],
])('pictures of %i × %i are possible', async (width, height) => {
  const data = Uint8Array.from({ length: width * height }, (_, at) => (at % 2 ? 255 : 0));
  const bytes = encodeJbig2({ width, height, channels: 1, data });
  expect([...(await decoded(bytes, width, height))]).toEqual([...data]);
});

it('takes much less than group 4 for what is regular', async () => {
  const [width, height] = [800, 600];
  const data = Uint8Array.from({ length: width * height }, (_, at) =>
    shapes['something like letters'](at % width, Math.floor(at / width), () => 0) ? 0 : 255,
  );
  const group4 = await sharp(data, { raw: { width, height, channels: 1 } })
    .toColourspace('b-w')
    .tiff({ compression: 'ccittfax4', bitdepth: 1 })
    .toBuffer();
  expect(encodeJbig2({ width, height, channels: 1, data }).length).toBeLessThan(0.7 * group4.length);
});
