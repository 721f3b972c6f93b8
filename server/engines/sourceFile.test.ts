import { readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import sharp from 'sharp';
import {
  hugePng,
  lockedPdf,
  longPdf,
  multiPageTiff,
  scanned,
  scannedPdf,
  scratchFolder,
  textPdf,
  ZIP,
} from '../testing/made';
import { derivePictures, readingPicture } from './pictures';
import { inspectFile } from './sourceFile';
import { withScratch } from './scratch';

async function inspect(name: string, bytes: Uint8Array) {
  const path = join(scratchFolder(), 'file');
  writeFileSync(path, bytes);
  return inspectFile(path, name);
}

describe('the pages of a file', () => {
  it('are those of a PDF, in points as shown', async () => {
    const { format, pages } = await inspect('a.pdf', await textPdf('one', 'two'));
    expect(format).toBe('pdf');
    expect(pages).toHaveLength(2);
    expect(pages[0].pointWidth).toBeCloseTo(595.28, 1);
    expect(pages[0]).toMatchObject({ width: 2480, height: 3508 });
  });

  it('are those of a TIFF with many', async () => {
    const { format, pages } = await inspect('a.tif', await multiPageTiff('one', 'two', 'three'));
    expect(format).toBe('tiff');
    expect(pages).toHaveLength(3);
  });

  it.each([
    ['as a fax in standard resolution has them', 98, 2.08],
    ['as a fax in fine resolution has them, hardly oblong', 196, 1],
    ['that no device has', 2, 1],
  ])('have square pixels, though they are stored in others: %s', async (_, down, taller) => {
    const stored = { width: 1728, height: 1146 };
    const bytes = await sharp({ create: { ...stored, channels: 3, background: '#fff' } })
      .composite([{ input: { create: { width: 400, height: 100, channels: 3, background: '#000' } }, left: 0, top: 0 }])
      .tiff({ xres: 204 / 25.4, yres: down / 25.4 })
      .toBuffer();
    const info = await inspect('fax.tif', bytes);
    const [{ width, height, pointWidth, pointHeight }] = info.pages;
    expect(width).toBe(stored.width);
    expect(height / stored.height).toBeCloseTo(taller, 1);
    expect(pointHeight / pointWidth).toBeCloseTo(height / width, 2);
    const { picture } = await withScratch((folder) => readingPicture(info, 0, 0, folder));
    expect([picture.width, picture.height]).toEqual([width, height]);
    const isDark = (x: number, y: number) => picture.data[y * picture.width + x] < 128;
    expect([isDark(200, Math.round(taller * 100) - 8), isDark(200, Math.round(taller * 100) + 8)]).toEqual([
      true,
      false,
    ]);
  });

  it('stay as they are stored where square pixels would make them too large', async () => {
    const bytes = await sharp({ create: { width: 9000, height: 9000, channels: 3, background: '#fff' } })
      .toColourspace('b-w')
      .tiff({ bitdepth: 1, compression: 'ccittfax4', xres: 40, yres: 12 })
      .toBuffer();
    expect((await inspect('huge.tif', bytes)).pages).toMatchObject([{ width: 9000, height: 9000 }]);
  });

  it('are upright: EXIF orientation is honoured', async () => {
    const sideways = await sharp({ create: { width: 300, height: 200, channels: 3, background: '#fff' } })
      .withMetadata({ orientation: 6 })
      .jpeg()
      .toBuffer();
    const { pages } = await inspect('a.jpg', sideways);
    expect(pages[0]).toMatchObject({ width: 200, height: 300 });
  });

  it('go by the bytes, whatever the name says', async () => {
    expect((await inspect('receipt.pdf', await scanned('hello'))).format).toBe('jpeg');
  });

  it('are read from WebP and HEIC, too', async () => {
    const webp = await sharp(await scanned('hello'))
      .webp()
      .toBuffer();
    expect((await inspect('a.webp', webp)).format).toBe('webp');
    const heic = await inspect('a.heic', readFileSync(join(__dirname, '../testing/page.heic')));
    expect(heic).toMatchObject({ format: 'heic', pages: [{ width: 480, height: 640 }] });
  });
});

describe('what can’t be taken in', () => {
  it.each([
    ['nothing', async () => Buffer.alloc(0), 'file-empty'],
    ['a ZIP called PDF', async () => ZIP, 'file-unknown'],
    ['half a JPEG header', async () => Buffer.from('ffd8ffe000104a46', 'hex'), 'file-broken'],
    ['a PDF that is only a header', async () => Buffer.from('%PDF-1.7\nrubbish'), 'file-broken'],
    ['a locked PDF', lockedPdf, 'file-encrypted'],
    ['a PDF of 5,000 pages', () => longPdf(5000), 'too-many-pages'],
    ['a picture of 30,000 × 30,000', async () => hugePng(30_000, 30_000), 'picture-too-large'],
    [
      'something called HEIC that isn’t',
      async () => Buffer.from('\0\0\0\x18ftypheic\0\0\0\0rubbish', 'latin1'),
      'file-broken',
    ],
  ])('is %s', async (_what, make, code) => {
    await expect(inspect('paper.pdf', await make())).rejects.toMatchObject({
      code,
      message: expect.stringContaining('paper.pdf'),
    });
  });
});

describe('pictures of pages', () => {
  it('come in the sizes asked for, turned', async () => {
    const source = await inspect('a.pdf', await scannedPdf('hello'));
    const pictures = await withScratch((folder) => derivePictures(source, 0, 90, ['thumb', 'screen'], folder));
    expect(await sharp(pictures.get('thumb')!.bytes).metadata()).toMatchObject({
      format: 'webp',
      width: 420,
      height: 297,
    });
    expect(await sharp(pictures.get('screen')!.bytes).metadata()).toMatchObject({ width: 1700 });
  });

  it('never grow beyond the original', async () => {
    const small = await sharp({ create: { width: 100, height: 150, channels: 3, background: '#fff' } })
      .png()
      .toBuffer();
    const pictures = await withScratch(async (folder) =>
      derivePictures(await inspect('a.png', small), 0, 0, ['screen'], folder),
    );
    expect(await sharp(pictures.get('screen')!.bytes).metadata()).toMatchObject({ width: 100, height: 150 });
  });

  it('show transparent parts as paper', async () => {
    const glass = await sharp({ create: { width: 20, height: 20, channels: 4, background: '#00000000' } })
      .png()
      .toBuffer();
    const { picture } = await withScratch(async (folder) =>
      readingPicture(await inspect('a.png', glass), 0, 0, folder),
    );
    expect(picture.channels).toBe(1);
    expect(Math.min(...picture.data)).toBe(255);
  });
});
