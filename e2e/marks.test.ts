import { execFileSync } from 'node:child_process';
import { randomUUID } from 'node:crypto';
import { existsSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { PDFDocument, PDFName, PDFString, StandardFonts } from '@cantoo/pdf-lib';
import { Browser, Locator, Page } from 'playwright-core';
import sharp from 'sharp';
import { endpoints } from '@crow/contract/endpoints';
import { NewMark } from '@crow/contract/marks';
import { INK_LOOKS } from '@crow/core/pdf/marks/mark';
import { readMarks } from '@crow/core/pdf/marks/readMarks';
import { textPdf } from '@crow/server/testing/made';
import { openBrowser, openWindow } from './browser';
import { openFirefox, pictureInChromium } from './otherBrowsers';
import { PATIENCE_MS } from './patience';
import { Program, until } from './program';

let program: Program;
let browser: Browser;
let page: Page;
let errors: string[];
let id: string;
let file: string;

beforeAll(async () => {
  program = await Program.start();
  browser = await openBrowser();
  const stack = randomUUID();
  const pages = await textPdf('Lease of the boat house\nfrom 1 May 2027', 'The second page');
  await program.sendFile('lease.pdf', pages, { stack });
  await until(async () =>
    (await program.ask(endpoints.listStacks, {})).some(({ pages: all, read }) => all > 0 && read === all),
  );
  ({
    documents: [id],
  } = await program.ask(endpoints.sortStack, { params: { id: stack } }));
  await program.ask(endpoints.fileDocument, { params: { id }, body: { name: 'Lease', folderPath: 'Boat' } });
  file = join(program.shelf, 'Boat/Lease.pdf');
  await until(() => existsSync(file));
});
beforeEach(async () => {
  ({ page, errors } = await openWindow(browser, program.session));
  await page.goto(`${program.address}/shelf/-/${id}`);
  await page.locator('.text-layer span').first().waitFor();
});
afterEach(async () => {
  expect(errors).toEqual([]);
  await page.context().close();
});
afterAll(async () => {
  await browser?.close();
  await program?.end();
});

const word = (text: string) => page.locator('.text-layer span', { hasText: new RegExp(`^${text} ?$`) }).first();
const boxOf = async (what: Locator) => (await what.boundingBox())!;
async function select(from: string, to: string): Promise<void> {
  const [a, b] = [await boxOf(word(from)), await boxOf(word(to))];
  await page.mouse.move(a.x + 2, a.y + a.height / 2);
  await page.mouse.down();
  await page.mouse.move(b.x + b.width - 3, b.y + b.height / 2, { steps: 4 });
  await page.mouse.up();
}
const onDisk = async () =>
  (await readMarks(readFileSync(file))).map((marks) => marks.map(({ kind, ink, text }) => [kind, ink, text]));
it('highlights selected words, stamps and comments, and the file on the shelf has it', async () => {
  await select('Lease', 'house');
  await page.keyboard.press('h');
  await page.getByRole('button', { name: /^Highlighted: Lease of the boat house/ }).waitFor();
  await page.getByRole('radio', { name: /^Sea/ }).click();
  await page.getByRole('button', { name: /^Stamp “Paid”/ }).click();
  const sheet = await boxOf(page.locator('[data-page]').first());
  await page.mouse.click(sheet.x + 0.6 * sheet.width, sheet.y + 0.3 * sheet.height);
  await page.getByRole('button', { name: /^Stamp: PAID/ }).waitFor();
  await page.keyboard.press('Escape');
  await page.keyboard.press('c');
  await page.mouse.click(sheet.x + 0.8 * sheet.width, sheet.y + 0.1 * sheet.height);
  await page.getByLabel('The comment').fill('Who signs?');
  await page.keyboard.press('Control+Enter');
  await until(async () => (await onDisk())[0].length === 3);
  await until(async () => (await onDisk())[0][2][2] === 'Who signs?', 12_000, onDisk);
  const marks = (await onDisk())[0];
  expect(marks.map(([kind, ink]) => [kind, ink])).toEqual([
    ['highlight', 'amber'],
    ['stamp', 'sea'],
    ['comment', 'sea'],
  ]);
  expect(marks[1][2]).toMatch(/^PAID\n\d{4}-\d\d-\d\d$/);
  expect(execFileSync('pdftotext', [file, '-'], { encoding: 'utf8' })).toContain('PAID');
  execFileSync('qpdf', ['--check', file]);
});

it('picks a mark up, moves it by keys and by hand, removes it, and undoes that', async () => {
  const stamp = page.locator('[data-mark]', { hasText: /PAID/ });
  await stamp.waitFor();
  const [before, sheet] = [await boxOf(stamp), await boxOf(page.locator('[data-page]').first())];
  await page.mouse.click(before.x + before.width / 2, before.y + before.height / 2);
  await page.getByRole('region', { name: 'The mark' }).waitFor();
  await page.keyboard.press('Shift+ArrowRight');
  await until(async () => (await boxOf(stamp)).x > before.x + 10);
  const now = await boxOf(stamp);
  await page.mouse.move(now.x + 20, now.y + 15);
  await page.mouse.down();
  await page.mouse.move(now.x + 20, now.y + 115, { steps: 4 });
  await page.mouse.up();
  await until(async () => Math.abs((await boxOf(stamp)).y - now.y - 100) < 3);
  await page.keyboard.press('Delete');
  await stamp.waitFor({ state: 'detached' });
  await until(async () => (await onDisk())[0].length === 2);
  await page.keyboard.press('Control+z');
  await stamp.waitFor();
  await until(async () => (await onDisk())[0].length === 3);
  const { boxes } = (await readMarks(readFileSync(file)))[0].find(({ kind }) => kind === 'stamp')!;
  // Down by as much as it was dragged, in points of the page.
  const { pageList } = await program.ask(endpoints.readDocument, { params: { id } });
  const points = pageList[0].pointWidth / sheet.width;
  expect(Math.abs(boxes[0][1] - (now.y - sheet.y + 100) * points)).toBeLessThan(4);
});

it('signs on every page with a signature that was drawn once', async () => {
  await page.getByRole('button', { name: 'Sign', exact: true }).click();
  const dialog = page.getByRole('dialog', { name: 'A signature' });
  const pad = await boxOf(dialog.locator('svg').first());
  await page.mouse.move(pad.x + 60, pad.y + 80);
  await page.mouse.down();
  for (let at = 0; at < 12; at++) await page.mouse.move(pad.x + 60 + 15 * at, pad.y + 80 + (at % 2 ? 20 : -20));
  await page.mouse.up();
  await dialog.getByRole('button', { name: 'Keep it' }).click();
  await dialog.waitFor({ state: 'detached' });
  const sheet = await boxOf(page.locator('[data-page]').first());
  await page.mouse.click(sheet.x + 0.2 * sheet.width, sheet.y + 0.5 * sheet.height);
  await page.getByRole('button', { name: 'On every page' }).click();
  await until(async () => (await onDisk()).every((marks) => marks.some(([kind]) => kind === 'signature')));
  expect(await program.ask(endpoints.listSignatures, {})).toHaveLength(1);
});

it('signs with a signature from a photo of one, without its paper', async () => {
  await page.getByRole('button', { name: 'Signatures' }).click();
  await page.getByRole('menuitem', { name: 'Another signature' }).click();
  const dialog = page.getByRole('dialog', { name: 'A signature' });
  const choose = (picture: Buffer) =>
    dialog.locator('input[type=file]').setInputFiles({ name: 'photo.jpg', mimeType: 'image/jpeg', buffer: picture });
  const photo = (ink: string) =>
    sharp(
      Buffer.from(`<svg xmlns="http://www.w3.org/2000/svg" width="1000" height="700">
        <linearGradient id="light"><stop offset="0" stop-color="#8d877a"/><stop offset="1" stop-color="#e6e2d8"/></linearGradient>
        <rect width="1000" height="700" fill="url(#light)"/>${ink}</svg>`),
    )
      .jpeg()
      .toBuffer();
  await choose(await photo(''));
  await dialog.getByRole('alert').getByText('Nothing is written in that picture').waitFor();
  await choose(
    await photo(
      '<path d="M250 400 q60 -220 110 0 t100 -20 t90 30 q60 -160 90 -20 l120 -10" fill="none" stroke="#23305e" stroke-width="9"/>',
    ),
  );
  await dialog.getByRole('img', { name: 'Signature' }).waitFor();
  await dialog.getByRole('button', { name: 'Keep it' }).click();
  await dialog.waitFor({ state: 'detached' });
  const signature = (await program.ask(endpoints.listSignatures, {})).at(-1)!;
  expect(signature.shape).toBeGreaterThan(2);
  const sheet = await boxOf(page.locator('[data-page]').first());
  await page.mouse.click(sheet.x + 0.2 * sheet.width, sheet.y + 0.7 * sheet.height);
  await until(async () => (await onDisk())[0].filter(([kind]) => kind === 'signature').length === 2);
  const { boxes } = (await readMarks(readFileSync(file)))[0].findLast(({ kind }) => kind === 'signature')!;
  const dots = boxes[0].map((points) => String(Math.round((points / 72) * 144)));
  const [x, y, width, height] = dots;
  const part = ['-x', x, '-y', y, '-W', width, '-H', height, '-f', '1', '-l', '1', '-r', '144', '-png', file];
  const { data } = await sharp(execFileSync('pdftoppm', part)).greyscale().raw().toBuffer({ resolveWithObject: true });
  // Ink in its middle, none of the grey of its paper around.
  const inked = data.filter((value) => value < 128).length / data.length;
  expect(inked).toBeGreaterThan(0.02);
  expect(inked).toBeLessThan(0.35);
  expect(data.filter((value) => value > 250).length / data.length).toBeGreaterThan(0.5);
});

it('shows all kinds of marks in the viewers of other browsers', async () => {
  const [{ id: pageId }] = (await program.ask(endpoints.readDocument, { params: { id } })).pageList;
  const put = (kind: NewMark['kind'], top: number, part: Partial<NewMark> = {}): NewMark => ({
    ...{ id: randomUUID(), pageId, kind, ink: 'plum', boxes: [[60, top, 160, 24]], strokes: [], text: 'a word' },
    ...part,
  });
  const line: NewMark['strokes'] = [
    [
      [60, 620, 3],
      [200, 640, 3],
    ],
  ];
  const marks = [put('underline', 500), put('strike', 540), put('text', 580), put('drawing', 620, { strokes: line })];
  await program.ask(endpoints.changeMarks, { params: { id }, body: { put: marks, remove: [] } });
  await until(async () => (await onDisk())[0].some(([kind]) => kind === 'drawing'));
  const firefox = await openFirefox();
  try {
    await firefox.goTo(`file://${file}`);
    const seen = () =>
      firefox.evaluate<string[]>(
        `[...document.querySelectorAll('.page[data-page-number="1"] .annotationLayer section')].map((each) => each.className)`,
      );
    await until(async () => (await seen()).length >= 8, PATIENCE_MS, seen);
    expect(
      [...new Set((await seen()).map((names) => names.split(' ').find((name) => name.endsWith('Annotation'))))].sort(),
    ).toEqual([
      'freeTextAnnotation',
      'highlightAnnotation',
      'inkAnnotation',
      'stampAnnotation',
      'strikeoutAnnotation',
      'textAnnotation',
      'underlineAnnotation',
    ]);
  } finally {
    await firefox.close();
  }
  // The plum of lines, the wash of a highlight in amber or sea, the blue of signatures.
  const inks = [INK_LOOKS.plum.line, INK_LOOKS.sea.line, INK_LOOKS.amber.wash];
  await pictureInChromium(`file://${file}`, async (picture) => {
    const { data, info } = await sharp(picture).raw().toBuffer({ resolveWithObject: true });
    return inks.every((ink) => {
      const [red, green, blue] = ink.map((share) => Math.round(255 * share));
      for (let at = 0; at < data.length; at += info.channels)
        if (Math.abs(data[at] - red) + Math.abs(data[at + 1] - green) + Math.abs(data[at + 2] - blue) < 24) return true;
      return false;
    });
  });
});

it('saves a copy in which words and an area are hidden for good', async () => {
  await page.getByRole('button', { name: 'More about this document' }).click();
  await page.getByRole('menuitem', { name: 'A copy with parts hidden …' }).click();
  await select('boat', 'house');
  await page.getByText('1 hidden', { exact: true }).waitFor();
  await page.getByRole('button', { name: 'Areas' }).click();
  const year = await boxOf(word('2027'));
  await page.mouse.move(year.x - 2, year.y - 2);
  await page.mouse.down();
  await page.mouse.move(year.x + year.width + 2, year.y + year.height + 2, { steps: 3 });
  await page.mouse.up();
  await page.getByText('2 hidden', { exact: true }).waitFor();
  const painted = page.locator('[data-hidden]').first();
  expect(await painted.evaluate((each) => getComputedStyle(each).backgroundColor)).toBe('rgb(0, 0, 0)');
  await page.getByRole('button', { name: 'Make the copy' }).click();
  const [download] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('button', { name: 'Save it' }).click(),
  ]);
  expect(download.suggestedFilename()).toMatch(/, parts hidden\.pdf$/);
  const text = execFileSync('pdftotext', [await download.path(), '-'], { encoding: 'utf8' });
  expect(text).toMatch(/Lease of the/);
  expect(text).not.toMatch(/boat|house|2027|PAID/);
  expect((await onDisk())[0].length).toBeGreaterThan(2);
});

it('a paper that brings an outline and links is gone through by them', async () => {
  const stack = randomUUID();
  await program.sendFile('book.pdf', await bookPdf(), { stack });
  await until(async () =>
    (await program.ask(endpoints.listStacks, {})).some(
      ({ id: each, pages: all, read }) => each === stack && all > 0 && read === all,
    ),
  );
  await program.ask(endpoints.finishStack, { params: { id: stack } });
  let document = '';
  await until(async () => {
    const found = (await program.ask(endpoints.listWaiting, {})).find(({ stackId }) => stackId === stack);
    document = found?.id ?? '';
    return document !== '';
  });
  await program.ask(endpoints.fileDocument, { params: { id: document }, body: { name: 'Book', folderPath: 'Boat' } });
  await page.goto(`${program.address}/shelf/-/${document}`);
  // So low that no page is seen whole: which one is read is plain.
  await page.setViewportSize({ width: 1280, height: 420 });
  await page.getByRole('button', { name: 'Contents (o)' }).click();
  const contents = page.getByRole('navigation', { name: 'Contents' });
  await contents.getByRole('button', { name: 'Winding the warp' }).click();
  await page.getByLabel('Page 3 of 3').waitFor();
  // What opens or closes beside the pages makes them wider or narrower; what is read stays.
  const third = page.getByLabel('Page 3', { exact: true });
  const usual = await boxOf(third);
  await page.keyboard.press('w');
  await until(async () => (await boxOf(third)).width > usual.width);
  const [beside, top] = [await boxOf(third), async () => (await boxOf(third)).y];
  expect(Math.abs(beside.y - usual.y)).toBeLessThan(2);
  await page.getByRole('button', { name: 'Small pages along the side (t)' }).click();
  await page.getByRole('button', { name: 'Contents (o)' }).click();
  await until(async () => (await boxOf(third)).width > beside.width);
  expect(Math.abs((await top()) - beside.y)).toBeLessThan(2);
  await page.getByRole('button', { name: 'Contents (o)' }).click();
  await until(async () => (await boxOf(third)).width === beside.width);
  expect(Math.abs((await top()) - beside.y)).toBeLessThan(2);
  await page.getByLabel('Page 3 of 3').waitFor();
  // Both before the first is drawn.
  await page.evaluate(() => {
    for (let time = 0; time < 2; time++)
      window.dispatchEvent(new KeyboardEvent('keydown', { key: 'PageUp', bubbles: true }));
  });
  await page.getByLabel('Page 1 of 3').waitFor();
  await page.getByRole('button', { name: 'To another place in this paper' }).click();
  await page.getByLabel('Page 2 of 3').waitFor();
  await page.keyboard.press('PageUp');
  const elsewhere = page.getByRole('link', { name: 'https://loom.example/' });
  expect(await elsewhere.getAttribute('rel')).toBe('noreferrer');
});

/** Three pages with an outline, a link from the first to the second, and one to elsewhere. */
async function bookPdf(): Promise<Uint8Array> {
  const pdf = await PDFDocument.create();
  const font = await pdf.embedFont(StandardFonts.Helvetica);
  const { context, catalog } = pdf;
  const titles = ['A book of weaving', 'Choosing the yarn', 'Winding the warp'];
  const pages = titles.map((title) => {
    const sheet = pdf.addPage([420, 595]);
    sheet.drawText(title, { x: 50, y: 520, size: 20, font });
    for (let line = 0; line < 12; line++)
      sheet.drawText('Every thread has its place before the first one is woven.', {
        x: 50,
        y: 480 - 22 * line,
        size: 11,
        font,
      });
    return sheet;
  });
  const note = (Rect: number[], more: object) =>
    context.obj({ Type: 'Annot', Subtype: 'Link', Rect, ...more } as never);
  const links = [
    note([50, 476, 200, 492], { Dest: [pages[1].ref, 'Fit'] }),
    note([50, 454, 200, 470], { A: { S: 'URI', URI: PDFString.of('https://loom.example/') } }),
  ];
  pages[0].node.set(PDFName.of('Annots'), context.obj(links));
  const [root, ...items] = [context.nextRef(), ...titles.map(() => context.nextRef())];
  items.forEach((item, at) =>
    context.assign(
      item,
      context.obj({
        Title: PDFString.of(titles[at]),
        Parent: root,
        Dest: [pages[at].ref, 'Fit'],
        ...(at < 2 && { Next: items[at + 1] }),
      }),
    ),
  );
  context.assign(root, context.obj({ Type: 'Outlines', First: items[0], Last: items[2] }));
  catalog.set(PDFName.of('Outlines'), root);
  return pdf.save();
}
