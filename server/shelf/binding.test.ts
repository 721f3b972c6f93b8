import { execFileSync } from 'node:child_process';
import { writeFileSync } from 'node:fs';
import { join } from 'node:path';
import sharp from 'sharp';
import { PDFDocument, degrees } from '@cantoo/pdf-lib';
import { Orientation, Turn, turnSize } from '@crow/core/geometry';
import { parseBboxLayout } from '@crow/core/reading/bboxLayout';
import { scaledPageText, Word } from '@crow/core/reading/words';
import { BindingSize } from '../engines/bindingPictures';
import { rasterOf } from '../engines/rasters';
import { recognise } from '../engines/recognise';
import { Quad } from '@crow/core/imaging/quad';
import { Recipe } from '@crow/core/imaging/recipe';
import { greyOf } from '@crow/core/imaging/raster';
import { inspectFile } from '../engines/sourceFile';
import { blackAndWhite, drawn, scanned, scannedPdf, scratchFolder, textPdf } from '../testing/made';
import { bindPages, PageToBind } from './binding';
import { readText } from '../engines/pageText';

const folder = scratchFolder();
let files = 0;

async function page(bytes: Uint8Array, parts: Partial<PageToBind> = {}): Promise<PageToBind> {
  const path = join(folder, `file-${files++}`);
  writeFileSync(path, bytes);
  const info = await inspectFile(path, 'file');
  return { info, number: 0, turn: 0, own: false, asIs: info.format === 'pdf', ...parts };
}

const bind = (...pages: PageToBind[]) => bindAs('full', ...pages);

async function bindAs(size: BindingSize, ...pages: PageToBind[]) {
  const bound = await bindPages(pages, {
    title: 'Größe & Maß',
    created: new Date('2026-03-05T10:00:00Z'),
    language: 'deu',
    size,
  });
  const path = join(folder, `out-${files++}.pdf`);
  writeFileSync(path, bound.bytes);
  const ask = (command: string, ...args: string[]) => execFileSync(command, args, { encoding: 'utf8' });
  return {
    ...bound,
    path,
    check: () => ask('qpdf', '--check', path),
    info: () => ask('pdfinfo', path),
    text: () => ask('pdftotext', path, '-'),
    /** The first page: its size as shown, in points, and the words where pdftotext finds them. */
    page: async () => {
      const [{ words }] = parseBboxLayout(ask('pdftotext', '-cropbox', '-bbox-layout', path, '-'));
      const { pages } = await inspectFile(path, 'out');
      return { width: pages[0].pointWidth, height: pages[0].pointHeight, words };
    },
  };
}

const word = (text: string, box: Word['box'], line = 0): Word => ({
  text,
  box,
  line,
  confidence: 0.9,
  baseline: box[1] + box[3] * 0.8,
});
const blank = (width: number, height: number) =>
  sharp({ create: { width, height, channels: 3, background: '#fff' } }).withDensity(100);

describe('the invisible text layer', () => {
  it('keeps every letter that European papers need', async () => {
    const words = ['Größe', 'Maß', 'œuvre', 'naïve', '€', '£12.50', 'ﬁn', 'Łódź', '日本', '😀', '(a\\b)'].map(
      (text, index) => word(text, [50, 40 + 60 * index, 120, 30], index),
    );
    const bound = await bind(
      await page(await blank(827, 1169).jpeg().toBuffer(), { text: { width: 827, height: 1169, words } }),
    );
    expect(bound.text().trim().split(/\s+/)).toEqual(words.map(({ text }) => text));
  });

  it.each([0, 90, 180, 270] as Turn[])(
    'has each word under its picture on a scanned PDF page turned by %d°',
    async (turn) => {
      const source = await page(await scannedPdf('Halden Firth Yarns\nInvoice number HF-24518\nTotal 315.48'), {
        turn,
      });
      const [width, height] = turnSize(source.info.pages[0].width, source.info.pages[0].height, turn);
      const words = [
        word('first', [width * 0.2, height * 0.1, 200, 50]),
        word('last', [width * 0.6, height * 0.8, 180, 45], 1),
      ];
      const bound = await bind({ ...source, text: { width, height, words } });
      const shown = await bound.page();
      expect(bound.check()).toContain('No syntax or stream encoding errors');
      for (const { text, box } of words) {
        const found = shown.words.find((each) => each.text === text)!;
        box.forEach((value, side) => {
          const scale = side % 2 === 0 ? shown.width / width : shown.height / height;
          expect(Math.abs(found.box[side] - value * scale)).toBeLessThan(0.02 * shown.height);
        });
      }
    },
  );

  it('puts what the recogniser reads where the eye sees it', async () => {
    const source = await page(await scanned('Marlowe Dye Works\nDyeing to shade, indigo\nTotal 201.00'));
    const { text } = await readText(source.info, 0, 0, ['eng']);
    const bound = await bind({ ...source, text });
    const shown = await bound.page();
    expect(bound.text()).toContain('Marlowe Dye Works');
    const scale = shown.height / text.height;
    for (const { text: said, box } of text.words) {
      const found = shown.words.find((each) => each.text === said)!;
      expect(Math.abs(found.box[1] - box[1] * scale)).toBeLessThan(0.02 * shown.height);
      expect(Math.abs(found.box[0] - box[0] * scale)).toBeLessThan(0.02 * shown.height);
    }
  });

  it('draws nothing', async () => {
    const white = await blank(400, 400).jpeg().toBuffer();
    const bound = await bind(
      await page(white, { text: { width: 400, height: 400, words: [word('invisible', [50, 50, 300, 100])] } }),
    );
    const { data } = await sharp(await drawn(bound.bytes, { dpi: 50 }))
      .greyscale()
      .raw()
      .toBuffer({ resolveWithObject: true });
    expect(Math.min(...data)).toBeGreaterThan(250);
  });
});

describe('pages', () => {
  it('have the size of the paper', async () => {
    const bound = await bind(await page(await blank(827, 1169).jpeg().toBuffer()));
    const { pages } = await inspectFile(bound.path, 'out');
    expect(pages[0].pointWidth).toBeCloseTo(595.4, 0);
    expect(pages[0].pointHeight).toBeCloseTo(841.7, 0);
    // And are printed so: a viewer's dialog begins at true size.
    const open = execFileSync('qpdf', ['--qdf', '--object-streams=disable', bound.path, '-'], { encoding: 'latin1' });
    expect(open).toMatch(/\/PrintScaling \/None/);
  });

  it('keep a JPEG to the byte in full size', async () => {
    const jpeg = await scanned('hello');
    const { bytes } = await bind(await page(jpeg));
    expect(Buffer.from(bytes).includes(jpeg.subarray(0, 2000))).toBe(true);
  });

  it.each([1, 2, 3, 4, 5, 6, 7, 8] as Orientation[])(
    'show a JPEG of EXIF orientation %d upright',
    async (orientation) => {
      const quarters = await fourColours(120, 80);
      const stored = await sharp(quarters).withMetadata({ orientation, density: 100 }).jpeg({ quality: 95 }).toBuffer();
      const bound = await bind(await page(stored));
      const wanted = await sharp(stored).autoOrient().toBuffer();
      expect(await corners(await drawn(bound.bytes, { dpi: 100 }))).toEqual(await corners(wanted));
    },
  );

  it('are turned as asked', async () => {
    const stored = await sharp(await fourColours(120, 80))
      .withDensity(100)
      .jpeg({ quality: 95 })
      .toBuffer();
    const bound = await bind(await page(stored, { turn: 90 }));
    expect(await corners(await drawn(bound.bytes, { dpi: 100 }))).toEqual(
      await corners(await sharp(stored).rotate(90).toBuffer()),
    );
  });

  it('in black and white lose nothing and stay small', async () => {
    const bilevel = await blackAndWhite(await drawn(await textPdf('Black on white'), { dpi: 200 }), 200);
    const bound = await bind(await page(bilevel));
    expect(bound.bytes.length).toBeLessThan(25_000);
    expect(Buffer.from(bound.bytes).toString('latin1')).toContain('CCITTFaxDecode');
    const dark = async (bytes: Buffer) =>
      (await sharp(bytes).greyscale().resize(165, 233, { fit: 'fill' }).stats()).channels[0].mean;
    expect(await dark(await drawn(bound.bytes, { dpi: 200 }))).toBeCloseTo(await dark(bilevel), 0);
  });

  it('small, in tones but black and white, are kept to the pixel, turned as they lie', async () => {
    const bilevel = await blackAndWhite(await drawn(await textPdf('Black on white'), { dpi: 200 }), 200);
    const grey = await sharp(bilevel).toColourspace('b-w').png({ palette: false }).withDensity(200).toBuffer();
    const lying = await sharp(grey).rotate(90).withDensity(200).png().toBuffer();
    const bound = await bindAs('small', await page(lying, { turn: 270 }));
    expect(bound.check()).toContain('No syntax or stream encoding errors');
    execFileSync('pdfimages', ['-png', bound.path, `${bound.path}-picture`]);
    const dark = async (picture: Buffer | string) =>
      (await sharp(picture).greyscale().raw().toBuffer()).map((value) => (value < 128 ? 1 : 0));
    // A stencil is extracted as it is stored: where it is painted, it is white.
    const painted = (await dark(`${bound.path}-picture-001.png`)).map((value) => 1 - value);
    const captured = await dark(lying);
    expect(captured.filter((value) => value).length).toBeGreaterThan(500);
    expect(Buffer.compare(painted, captured)).toBe(0);
    const { width, height } = await sharp(await drawn(bound.bytes, { dpi: 50 })).metadata();
    expect(height).toBeGreaterThan(width);
  });

  it('small, in black and white but for a faint note, keep the note', async () => {
    const bilevel = await blackAndWhite(await drawn(await textPdf('Black on white'), { dpi: 200 }), 200);
    const note = await sharp({ create: { width: 24, height: 40, channels: 3, background: '#969696' } })
      .png()
      .toBuffer();
    const noted = await sharp(await sharp(bilevel).toColourspace('srgb').png({ palette: false }).toBuffer())
      .composite([{ input: note, left: 600, top: 900 }])
      .withDensity(200)
      .png()
      .toBuffer();
    const bound = await bindAs('small', await page(noted));
    const shown = sharp(await drawn(bound.bytes, { dpi: 200 })).extract({ left: 604, top: 908, width: 16, height: 24 });
    const tones = await shown.greyscale().raw().toBuffer();
    expect(Math.max(...tones)).toBeLessThan(200);
  });

  it('small are a tenth of a JPEG, turned as they lie, and can be read again', async () => {
    const text = ['Wickford Loom', 'Invoice 4711', 'Two skeins of blue wool', 'Total 58.20']
      .concat(Array.from({ length: 12 }, (_, row) => `Row ${row} of the yarn list: weft, warp and selvedge`))
      .join('\n');
    const white = await sharp(await drawn(await textPdf(text), { dpi: 200 }))
      .extract({ left: 0, top: 0, width: 1600, height: 1300 })
      .toBuffer();
    const { width, height } = await sharp(white).metadata();
    const noise = await sharp({
      create: { width, height, channels: 3, background: '#fff', noise: { type: 'gaussian', mean: 236, sigma: 5 } },
    })
      .png()
      .toBuffer();
    const paper = await sharp(white)
      .composite([{ input: noise, blend: 'multiply' }])
      .withDensity(200)
      .png()
      .toBuffer();
    const lying = await sharp(paper).rotate(90).withDensity(200).png().toBuffer();
    const bound = await bindAs('small', await page(lying, { turn: 270 }));
    expect(bound.archival).toBe(true);
    expect(bound.check()).toContain('No syntax or stream encoding errors');
    const plain = await sharp(paper).jpeg({ quality: 75 }).toBuffer();
    expect(bound.bytes.length).toBeLessThan(0.1 * plain.length);
    const again = await recognise(greyOf(await rasterOf(sharp(await drawn(bound.bytes, { dpi: 200 })))), ['eng']);
    const words = new Set(again.words.map((each) => each.text));
    const missing = text.split(/\s+/).filter((each) => !words.has(each));
    expect(missing).toEqual([]);
  });

  it('of a PDF with text of its own stay vectors with that text, once', async () => {
    const bound = await bind(
      await page(await textPdf('Rechnung über Wolle'), {
        own: true,
        text: { width: 100, height: 100, words: [word('twice', [1, 1, 9, 9])] },
      }),
    );
    expect(bound.text().trim()).toBe('Rechnung über Wolle');
    expect(execFileSync('pdfimages', ['-list', bound.path], { encoding: 'utf8' }).trim().split('\n')).toHaveLength(2);
  });

  it('of a scan that has text laid over it are made smaller, and keep that text', async () => {
    const lines = Array.from({ length: 20 }, (_, row) => `Row ${row} of the list: weft, warp and selvedge`);
    const said = lines.join('\n');
    const scan = await page(await scanned(said, { dpi: 200 }));
    const read = await recognise(greyOf(await rasterOf(sharp(scan.info.path))), ['eng']);
    const full = await bind({ ...scan, text: read });
    const withText = async (text: typeof read) => ({ ...(await page(full.bytes)), own: true, text });
    const { width, height } = (await page(full.bytes)).info.pages[0];
    const over = { ...scaledPageText(read, width / read.width), width, height };
    const small = await bindAs('small', await withText(over));
    expect(small.bytes.length).toBeLessThan(0.35 * full.bytes.length);
    expect(small.text().match(/selvedge/g)).toHaveLength(20);
    expect(small.check()).toContain('No syntax or stream encoding errors');
    // Where the picture shows nothing of the text, it is the text that is seen.
    const elsewhere = { ...over, words: over.words.map((each) => ({ ...each, box: [5, 5, 40, 20] as Word['box'] })) };
    expect((await bindAs('small', await withText(elsewhere))).bytes.length).toBeGreaterThan(0.8 * full.bytes.length);
  });

  it('of several files come in their order, each taken from its own', async () => {
    const two = await page(await textPdf('alpha one', 'alpha two'), { own: true });
    const bound = await bind({ ...two, number: 1 }, await page(await textPdf('beta'), { own: true }), two);
    expect(
      bound
        .text()
        .split('\f')
        .map((text) => text.trim()),
    ).toEqual(['alpha two', 'beta', 'alpha one', '']);
  });

  it('of a PDF that was turned and cut by its maker get their text in the right place', async () => {
    const pdf = await PDFDocument.load(await scannedPdf('hello'));
    pdf.getPage(0).setRotation(degrees(90));
    pdf.getPage(0).setCropBox(100, 50, 300, 600);
    const source = await page(await pdf.save());
    const { width, height } = source.info.pages[0];
    const bound = await bind({ ...source, text: { width, height, words: [word('corner', [10, 10, 200, 60])] } });
    const shown = await bound.page();
    expect(shown.width / shown.height).toBeCloseTo(2, 1);
    expect(shown.words[0].box[0]).toBeCloseTo((10 * shown.width) / width, 0);
    expect(shown.words[0].box[1]).toBeLessThan(0.02 * shown.height + (10 * shown.height) / height);
  });
});

it('finds a page’s own text where it stands, however its maker turned and cut the page', async () => {
  const pdf = await PDFDocument.load(
    await textPdf('Spinnerei Wiesengrund liefert wie bestellt sechs Spulen Schurwolle'),
  );
  for (const turn of [0, 90, 180, 270]) {
    pdf.getPage(0).setRotation(degrees(turn));
    pdf.getPage(0).setCropBox(30, 400, 500, 400);
    const { info } = await page(await pdf.save());
    const { text, own } = await readText(info, 0, 0, ['deu']);
    expect(own).toBe(true);
    const { data, info: size } = await sharp(await drawn(await pdf.save(), { dpi: 300 }))
      .greyscale()
      .raw()
      .toBuffer({ resolveWithObject: true });
    const [x, y, width, height] = text.words[0].box.map(Math.round);
    let ink = 0;
    for (let row = y; row < y + height; row++)
      for (let column = x; column < x + width; column++) if (data[row * size.width + column] < 128) ink++;
    expect(ink / (width * height)).toBeGreaterThan(0.1);
    expect(Math.abs(text.width - size.width)).toBeLessThanOrEqual(1);
    expect(Math.abs(text.height - size.height)).toBeLessThanOrEqual(1);
  }
});

describe('the document', () => {
  it('says its title, date and language', async () => {
    const bound = await bind(await page(await scanned('hello')));
    expect(bound.info()).toMatch(/Title:\s+Größe & Maß/);
    expect(bound.info()).toMatch(/CreationDate:\s+Thu Mar {2}5 /);
    expect(execFileSync('pdfinfo', ['-meta', bound.path], { encoding: 'utf8' })).toContain('Größe &#38; Maß');
  });

  it('is declared PDF/A-2b when it holds plain pictures, with a colour profile and an identifier', async () => {
    for (const bytes of [await scanned('hello'), await scannedPdf('hello')]) {
      const bound = await bind(
        await page(bytes, { text: { width: 100, height: 100, words: [word('x', [1, 1, 9, 9])] } }),
      );
      expect(bound.archival).toBe(true);
      expect(execFileSync('pdfinfo', ['-meta', bound.path], { encoding: 'utf8' })).toContain(
        '<pdfaid:part>2</pdfaid:part>',
      );
      const pdf = await PDFDocument.load(bound.bytes);
      expect(pdf.catalog.get(pdf.context.obj('OutputIntents') as never)).toBeDefined();
      expect(pdf.context.trailerInfo.ID).toBeDefined();
    }
  });

  it('does not claim to be PDF/A when a page brings fonts or transparency of its own', async () => {
    expect((await bind(await page(await textPdf('fonts'), { own: true }))).archival).toBe(false);
    const pdf = await PDFDocument.create();
    const glass = await pdf.embedPng(
      await sharp({ create: { width: 9, height: 9, channels: 4, background: '#ff000080' } })
        .png()
        .toBuffer(),
    );
    pdf.addPage([200, 200]).drawImage(glass, { x: 0, y: 0 });
    const bound = await bind(await page(await pdf.save()));
    expect(bound.archival).toBe(false);
    expect(execFileSync('pdfinfo', ['-meta', bound.path], { encoding: 'utf8' })).not.toContain('pdfaid:part>');
  });
});

/** A picture with a colour of its own in each quarter. */
async function fourColours(width: number, height: number): Promise<Buffer> {
  const quarter = (background: string) => ({
    create: { width: width / 2, height: height / 2, channels: 3 as const, background },
  });
  const [left, top] = [width / 2, height / 2];
  return sharp({ create: { width, height, channels: 3, background: '#e00000' } })
    .composite([
      { input: quarter('#00c000'), left, top: 0 },
      { input: quarter('#0000e0'), left: 0, top },
      { input: quarter('#202020'), left, top },
    ])
    .png()
    .toBuffer();
}

/** Which colour each quarter of a picture has: red, green, blue or dark. */
async function corners(picture: Buffer): Promise<string[]> {
  const { data, info } = await sharp(picture)
    .removeAlpha()
    .toColourspace('srgb')
    .raw()
    .toBuffer({ resolveWithObject: true });
  const at = (x: number, y: number) => {
    const start = (Math.floor(y * info.height) * info.width + Math.floor(x * info.width)) * info.channels;
    const [red, green, blue] = data.subarray(start, start + 3);
    return red > 120 ? 'red' : green > 120 ? 'green' : blue > 120 ? 'blue' : 'dark';
  };
  return [at(0.25, 0.25), at(0.75, 0.25), at(0.25, 0.75), at(0.75, 0.75)];
}

describe('of a book', () => {
  const picture = blank(300, 400).png().toBuffer();
  /** What another program sees of how one finds one's way. */
  const contentsOf = ({ path }: { path: string }) =>
    JSON.parse(
      execFileSync('qpdf', ['--json=2', '--json-key=pagelabels', '--json-key=outlines', path], { encoding: 'utf8' }),
    ) as {
      pagelabels: { index: number; label: Record<string, unknown> }[];
      outlines: { title: string; destpageposfrom1: number; dest: unknown[] }[];
    };
  /** A page with its number at its foot, and with a heading where there is one. */
  const numbered = async (number: number, heading?: string) => {
    const words = [
      ...(heading ?? '').split(' ').flatMap((text, at) => (text ? [word(text, [40 + 90 * at, 60, 80, 26], 0)] : [])),
      ...['Plain', 'linen'].map((text, at) => word(text, [40 + 60 * at, 120, 50, 12], 1)),
      word(String(number), [140, 380, 20, 12], 2),
    ];
    return page(await picture, { text: { width: 300, height: 400, words } });
  };

  it('the pages are called by the numbers printed on them, and headings lead to where they stand', async () => {
    const headings = new Map([
      [7, 'Über das Färben'],
      [10, 'Of madder'],
    ]);
    const pages = await Promise.all([6, 7, 8, 9, 10, 11].map((number) => numbered(number, headings.get(number))));
    const bound = await bind(await page(await picture), ...pages);
    expect(bound.archival).toBe(true);
    expect(bound.check()).toContain('No syntax or stream encoding errors');
    const { pagelabels, outlines } = contentsOf(bound);
    expect(pagelabels).toEqual([{ index: 0, label: { '/S': '/D', '/St': 5 } }]);
    expect(outlines.map(({ title, destpageposfrom1 }) => [title, destpageposfrom1])).toEqual([
      ['Über das Färben', 3],
      ['Of madder', 6],
    ]);
    const { height } = await bound.page();
    for (const { dest } of outlines) expect(Number(dest[3]) / height).toBeCloseTo(1 - 60 / 400, 2);
  });

  it('a paper whose pages are numbered from one has no labels, and a short one no outline', async () => {
    const pages = await Promise.all([1, 2, 3, 4].map((number) => numbered(number, 'Warp')));
    expect(contentsOf(await bind(...pages))).toMatchObject({ pagelabels: [], outlines: [] });
  });

  it('pages in front of the first number have Roman ones, and a gap goes on with what is printed', async () => {
    const pages = await Promise.all([1, 2, 3, 7, 8].map((number) => numbered(number)));
    const bound = await bind(await page(await picture), ...pages);
    expect(contentsOf(bound).pagelabels).toEqual([
      { index: 0, label: { '/S': '/r', '/St': 1 } },
      { index: 1, label: { '/S': '/D', '/St': 1 } },
      { index: 4, label: { '/S': '/D', '/St': 7 } },
    ]);
  });

  /** A picture with flattened pages in it. */
  const bent = async (...papers: [number, number][]) => {
    const corners: Quad = [
      [0.1, 0.1],
      [0.9, 0.1],
      [0.9, 0.9],
      [0.1, 0.9],
    ];
    const bend = { across: 1, down: 1, places: [0, 0, 1, 0, 0, 1, 1, 1] };
    const whole = await page(await picture);
    return papers.map((paper) => ({
      ...whole,
      recipe: { corners, bend, angle: 0, look: 'asShot', paper, marks: [] } as Recipe,
    }));
  };
  const sizesOf = async (...pages: PageToBind[]) =>
    (await inspectFile((await bind(...pages)).path, 'out')).pages.map((each) => [each.pointWidth, each.pointHeight]);

  it('flattened pages that are nearly of one size have the same, others keep theirs', async () => {
    const pages = [
      ...(await bent([300, 420], [310, 418])),
      ...(await bent([296, 424], [200, 424])),
      ...(await bent([303, 430])),
    ];
    expect(await sizesOf(...pages)).toEqual([
      [300, 424],
      [300, 424],
      [300, 424],
      [200, 424],
      [300, 424],
    ]);
  });

  it('curled sheets that are none of a book keep their sizes', async () => {
    const [[a4], [letter]] = [await bent([595, 842]), await bent([612, 792])];
    expect(await sizesOf(a4, letter)).toEqual([
      [595, 842],
      [612, 792],
    ]);
  });
});
