import { execFileSync } from 'node:child_process';
import { writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { strFromU8, unzipSync } from 'fflate';
import sharp from 'sharp';
import { endpoints } from '@crow/contract/endpoints';
import { Problem } from '@crow/contract/problems';
import { scanned, scratchFolder, textPdf } from '../testing/made';
import { TestRoom } from '../testing/room';
import { textPdfOf } from './exporting';

let room: TestRoom;
let id: string;
beforeAll(async () => {
  room = await TestRoom.open();
  id = await room.documentOf(
    'a.pdf',
    await textPdf(
      'Saltgate Yarns\nInvoice\nInvoice no. 1302\nDate 11 November 2026\nDue date 11 December 2026\nWarp, natural  2  x  10.00   20.00\nWeft, =blue  1  x  30.00   30.00\nTotal £ 50.00\nDelivered to the harbour office',
    ),
  );
});
afterAll(() => room.close());

const get = (path: string) => room.request('GET', `/api${path}`);

describe('out of a document comes', () => {
  it('its text', async () => {
    const { raw, headers } = await get(`/documents/${id}/text`);
    expect(raw.toString()).toMatch(/^Saltgate Yarns\n[^]*Delivered to the harbour office\n$/);
    expect(headers['content-disposition']).toContain('attachment');
  });

  it('its text set anew for a small screen', async () => {
    const { raw } = await get(`/documents/${id}/text-pdf`);
    const path = join(scratchFolder(), 'small.pdf');
    writeFileSync(path, raw);
    expect(execFileSync('pdftotext', [path, '-'], { encoding: 'utf8' })).toMatch(/Saltgate Yarns[^]*harbour office/);
    expect(execFileSync('pdfinfo', [path], { encoding: 'utf8' })).toMatch(/Page size:\s+298 x 420/);
    execFileSync('qpdf', ['--check', path]);
  });

  it('a book for reading devices, with its text, and who it is from', async () => {
    const { raw, headers } = await get(`/documents/${id}/epub`);
    expect(headers['content-type']).toBe('application/epub+zip');
    const files = unzipSync(raw);
    expect(strFromU8(files['OEBPS/page-1.xhtml'])).toMatch(/Saltgate Yarns[^]*harbour office/);
    expect(strFromU8(files['OEBPS/book.opf'])).toContain('<dc:language>en</dc:language>');
  });

  it('its text set anew with the drawings that stand in it, in their place', async () => {
    const text = 'Saltgate Yarns\nDelivery note\n\n\n\n\n\n\nTwelve skeins of madder\nSix skeins of weld';
    const page = sharp(await scanned(text));
    const { width = 0, height = 0 } = await page.metadata();
    const mark = `<svg xmlns="http://www.w3.org/2000/svg" width="${width}" height="${height}"><circle cx="${width / 2}" cy="${height / 2}" r="90" fill="#355e8d"/></svg>`;
    const marked = await page
      .toColourspace('srgb')
      .composite([{ input: Buffer.from(mark) }])
      .jpeg()
      .toBuffer();
    const drawn = await room.documentOf('marked.jpg', marked);
    const { raw } = await get(`/documents/${drawn}/text-pdf`);
    const path = join(scratchFolder(), 'marked.pdf');
    writeFileSync(path, raw);
    const files = unzipSync((await get(`/documents/${drawn}/epub`)).raw);
    expect(Object.keys(files).filter((name) => name.endsWith('.jpg'))).toHaveLength(1);
    const images = execFileSync('pdfimages', ['-list', path], { encoding: 'utf8' }).trim().split('\n').slice(2);
    expect(images).toHaveLength(1);
    expect(execFileSync('pdftotext', [path, '-'], { encoding: 'utf8' })).toMatch(/Saltgate Yarns[^]*madder/);
    execFileSync('qpdf', ['--check', path]);
  });

  it('its text set anew, too, when a page can’t be drawn any more; what else goes wrong is told', async () => {
    const { manager } = room.context.database.source;
    const undrawable = () => Promise.reject(new Problem('page-not-drawn', { page: 1, name: 'a.pdf' }));
    const path = join(scratchFolder(), 'undrawn.pdf');
    writeFileSync(path, await textPdfOf(manager, id, 'a', undrawable));
    expect(execFileSync('pdftotext', [path, '-'], { encoding: 'utf8' })).toMatch(/Saltgate Yarns[^]*harbour office/);
    const broken = () => Promise.reject(new Error('the disk is gone'));
    await expect(textPdfOf(manager, id, 'a', broken)).rejects.toThrow('the disk is gone');
  });

  it('its pages as pictures: one alone, several in a ZIP', async () => {
    const one = await get(`/documents/${id}/pictures?as=png`);
    expect(await sharp(one.raw).metadata()).toMatchObject({ format: 'png' });
    const two = await room.documentOf('two.pdf', await textPdf('The first page', 'The second page'));
    const zip = unzipSync((await get(`/documents/${two}/pictures?as=jpeg`)).raw);
    expect(Object.keys(zip)).toEqual(['1.jpg', '2.jpg']);
    expect(await sharp(zip['2.jpg']).metadata()).toMatchObject({ format: 'jpeg' });
  });

  it('what it lists, as CSV and as a spreadsheet', async () => {
    const { lines } = await room.ask(endpoints.readDocument, { params: { id } });
    expect(lines.map(({ amount }) => amount)).toEqual([20, 30]);
    const { raw } = await get(`/documents/${id}/lines?as=csv`);
    expect(raw.toString()).toMatch(
      /^\uFEFFDescription,Quantity,Unit price,Discount %,Amount\r\n"Warp, natural[^]*,20\r\n[^]*,30\r\n$/,
    );
    const sheet = unzipSync((await get(`/documents/${id}/lines?as=xlsx`)).raw);
    const cells = strFromU8(sheet['xl/worksheets/sheet1.xml']);
    expect(cells).toMatch(/<v>20<\/v>/);
    expect(cells).toMatch(/<v>30<\/v>/);
  });

  it('nothing where nothing is listed, with a sentence', async () => {
    const letter = await room.documentOf(
      'b.pdf',
      await textPdf('Dear Imre,\nthank you for the shawl that you sent us.\nKind regards'),
    );
    expect(await room.refusal(endpoints.documentLines, { params: { id: letter }, query: { as: 'csv' } })).toMatchObject(
      {
        status: 404,
        code: 'no-lines',
      },
    );
  });
});

describe('a question about a document', () => {
  const ask = (q: string) => room.ask(endpoints.askDocument, { params: { id }, query: { q } });
  it('is answered with the place on the page, or not at all', async () => {
    const due = await ask('When is it due?');
    expect(due).toMatchObject({ text: '2026-12-11', pageId: expect.any(String) });
    expect(due.box!.every((share) => share > 0 && share < 1)).toBe(true);
    const where = await ask('Where was it delivered?');
    expect(where.text).toBe('Delivered to the harbour office');
    expect(where.box![1]).toBeGreaterThan(due.box![1]);
    expect(await ask('Who signed it?')).toEqual({ text: null, pageId: null, box: null });
  });

  it('is not needed to know what it is', async () => {
    const { summary } = await room.ask(endpoints.readDocument, { params: { id } });
    expect(summary).toMatch(
      /^Invoice 1302 from Saltgate Yarns of 2026-11-11 over 50.00 GBP, due on 2026-12-11\. It lists Warp/,
    );
  });
});

it('the whole shelf goes out as a ZIP of folders, with the facts as CSV and JSON', async () => {
  await room.file(id, 'Größe & Maß', 'Workshop/Yarn');
  const zip = unzipSync((await get('/shelf/archive')).raw);
  expect(Object.keys(zip)).toEqual(['Workshop/Yarn/Größe & Maß.pdf', 'facts.json', 'facts.csv']);
  expect(Buffer.from(zip['Workshop/Yarn/Größe & Maß.pdf'])).toEqual(room.diskBytes('Workshop/Yarn/Größe & Maß.pdf'));
  const [told] = JSON.parse(strFromU8(zip['facts.json'])) as { folder: string; facts: object; lines: object[] }[];
  expect(told).toMatchObject({ folder: 'Workshop/Yarn', facts: { number: '1302', total: '50.00' } });
  expect(told.lines).toHaveLength(2);
  expect(strFromU8(zip['facts.csv'])).toContain('Workshop/Yarn/Größe & Maß.pdf,');
});
