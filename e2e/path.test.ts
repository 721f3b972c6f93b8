import { execFileSync } from 'node:child_process';
import { existsSync, readdirSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { Browser, Page } from 'playwright-core';
import { BATCH } from '@crow/demo/papers';
import { pagesAsPdf } from '@crow/demo/pagesAsPdf';
import { scanPaper } from '@crow/demo/capture';
import { endpoints } from '@crow/contract/endpoints';
import { scanned, scratchFolder, textPdf, ZIP, lockedPdf } from '@crow/server/testing/made';
import { openBrowser, openWindow } from './browser';
import { Program, until } from './program';
import { PATIENCE_MS } from './patience';

let program: Program;
let browser: Browser;
let page: Page;
let errors: string[];
const folder = scratchFolder();

beforeAll(async () => {
  program = await Program.start();
  browser = await openBrowser();
});
beforeEach(async () => {
  ({ page, errors } = await openWindow(browser, program.session));
});
afterEach(async () => {
  await page.context().close();
  await program.clear();
  expect(errors).toEqual([]);
});
afterAll(async () => {
  await browser?.close();
  await program?.end();
});

function fileOf(name: string, bytes: Uint8Array): string {
  const path = join(folder, name);
  writeFileSync(path, bytes);
  return path;
}

/** The first sheets of a morning's post, scanned as one pile: an invoice, a letter of two pages, an invoice in German. */
async function pile(): Promise<string> {
  const sheets: Buffer[] = [];
  for (const [index, paper] of BATCH.slice(0, 3).entries())
    sheets.push(...(await scanPaper(await paper.draw(), paper.pages, index)));
  return fileOf('Post.pdf', await pagesAsPdf(sheets));
}

/** Types a path and has it made. */
const newFolder = async (path: string) => {
  await page.getByLabel('Folder', { exact: true }).fill(path);
  await page.getByRole('option', { name: /^New folder/ }).click();
};
const pageShown = (number: number) => page.getByRole('option', { name: new RegExp(`^Page ${number},`) });
const documentsCounted = (text: string) => page.getByText(text, { exact: true }).waitFor();

it('goes from a pile of scanned paper to searchable PDFs in named folders, with the mouse', async () => {
  await page.setInputFiles('input[type=file]', await pile());
  await page.getByText('4 pages').first().waitFor();
  await page.getByRole('link', { name: 'Sort it' }).click();

  // Sort: the cuts are proposed; join a page and undo that, turn a page and undo that, drop a page and bring it back.
  await documentsCounted('3 documents');
  await page.getByRole('button', { name: 'Join page 2 to the document before' }).click();
  await documentsCounted('2 documents');
  await page.getByRole('button', { name: /^Undo/ }).click();
  await documentsCounted('3 documents');
  await pageShown(3).click();
  await page.getByRole('button', { name: /^Turn/ }).click();
  await page.getByRole('button', { name: /^Undo/ }).click();
  await page.getByRole('button', { name: /^Drop/ }).click();
  await page.getByRole('option', { name: 'Page 3, dropped' }).waitFor();
  await page.getByRole('button', { name: 'Bring back', exact: true }).click();
  await pageShown(3).waitFor();
  await page.getByRole('button', { name: /^To Check/ }).click();

  // Check: the facts stand in the margin, the name is made of them, a new folder is made on the spot.
  await page.getByRole('heading', { name: '1 of 3' }).waitFor();
  await until(
    async () => (await page.getByLabel('Name').inputValue()) === '2026-11-12 Halden & Firth Yarns Ltd Invoice',
    PATIENCE_MS,
    () => page.getByLabel('Name').inputValue(),
  );
  await newFolder('Workshop/Yarn');
  await page.getByRole('button', { name: /^File it/ }).click();
  await page.getByRole('heading', { name: '1 of 2' }).waitFor();

  // A word on the page is picked up into a note.
  await page.getByLabel('Who', { exact: true }).click();
  await page
    .locator('.text-layer span', { hasText: /^Insurance/ })
    .first()
    .click();
  await until(async () => (await page.getByLabel('Who', { exact: true }).inputValue()) === 'Insurance');
  await page.getByLabel('Who', { exact: true }).fill('Brack & Pell');
  await page.getByLabel('Who', { exact: true }).press('Enter');
  await until(async () => (await page.getByLabel('Name').inputValue()).includes('Brack & Pell'));
  await page.getByRole('button', { name: /^To the back/ }).click();
  await until(async () => (await page.getByLabel('Name').inputValue()).includes('Spinnerei Wiesengrund'));
  await page.getByLabel('Folder', { exact: true }).fill('yarn');
  await page.getByRole('option', { name: /Workshop \/ Yarn/ }).click();
  await page.locator('[data-arrivals]').getByText('2026-11-12 Halden & Firth Yarns Ltd Invoice').waitFor();
  await page.getByRole('button', { name: /^File it/ }).click();
  await page.getByRole('heading', { name: '1 of 1' }).waitFor();
  await page.getByLabel('Name').fill('The new dobby loom: insured?');
  await newFolder('Workshop/Insurance');
  await page.getByRole('button', { name: /^File it/ }).click();
  await page.getByRole('heading', { name: 'Nothing waits to be checked' }).waitFor();

  // The files are real, named safely, and searchable.
  const insured = join(program.shelf, 'Workshop/Insurance/The new dobby loom. insured.pdf');
  await until(
    () => existsSync(insured) && readdirSync(join(program.shelf, 'Workshop/Yarn')).length === 2,
    PATIENCE_MS,
    async () => [readdirSync(program.shelf, { recursive: true }), await program.ask(endpoints.listWaiting, {})],
  );
  expect(execFileSync('pdftotext', [insured, '-'], { encoding: 'utf8' })).toContain('countermarch');
  expect(execFileSync('pdfinfo', [insured], { encoding: 'utf8' })).toMatch(/Pages:\s+2/);
  execFileSync('qpdf', ['--check', insured]);

  // Find: a word on the letter's second page leads to it, marked.
  await page.keyboard.press('/');
  await page.getByRole('searchbox').fill('countermarch');
  await page.getByText('1 hit').waitFor();
  await page.getByRole('button', { name: 'The new dobby loom. insured' }).click();
  const mark = page.locator('[data-hit=current]');
  await mark.waitFor();
  expect(await mark.isVisible()).toBe(true);

  // Its text can be selected.
  const selected = await page.evaluate(() => {
    const layer = document.querySelector('[data-hit=current]')!.closest('[data-page]')!.querySelector('.text-layer')!;
    getSelection()!.selectAllChildren(layer);
    return getSelection()!.toString();
  });
  expect(selected).toContain('bobbin winder');
});

it('renames, moves, deletes and brings back a document, and the file on disk follows', async () => {
  await page.setInputFiles(
    'input[type=file]',
    fileOf('note.pdf', await textPdf('A note about the warping mill and its belt')),
  );
  // A file that is one document needs no sorting.
  await page.getByRole('button', { name: /^To Check/ }).click();
  await page.getByLabel('Name').fill('Warping mill');
  await newFolder('Loom');
  await page.getByRole('button', { name: /^File it/ }).click();
  await until(() => existsSync(join(program.shelf, 'Loom/Warping mill.pdf')));

  await page
    .getByRole('navigation')
    .getByRole('link', { name: /^Shelf/ })
    .click();
  await page.getByRole('button', { name: /^Loom \d/ }).click();
  await page.getByRole('button', { name: 'Warping mill' }).click();
  const more = () => page.getByRole('button', { name: 'More about this document' }).click();
  await more();
  await page.getByRole('menuitem', { name: /Rename/ }).click();
  await page.getByLabel('Its name').fill('Mill belt');
  await page.getByRole('button', { name: 'Rename', exact: true }).click();
  await until(
    () =>
      existsSync(join(program.shelf, 'Loom/Mill belt.pdf')) &&
      !existsSync(join(program.shelf, 'Loom/Warping mill.pdf')),
  );
  await more();
  await page.getByRole('menuitem', { name: /Move/ }).click();
  await page.getByLabel('To the folder').fill('Workshop/Machines');
  await page.getByRole('option', { name: /^New folder/ }).click();
  await page.getByRole('button', { name: 'Move', exact: true }).click();
  await until(() => existsSync(join(program.shelf, 'Workshop/Machines/Mill belt.pdf')));
  await more();
  await page.getByRole('menuitem', { name: /To the bin/ }).click();
  await until(() => !existsSync(join(program.shelf, 'Workshop/Machines/Mill belt.pdf')));
  await page.getByRole('button', { name: 'Bin', exact: true }).click();
  await page.getByRole('button', { name: /^Bring back to Workshop/ }).click();
  await until(() => existsSync(join(program.shelf, 'Workshop/Machines/Mill belt.pdf')));
});

it('can be used from beginning to end without a mouse', async () => {
  const chooser = page.waitForEvent('filechooser');
  await page.getByRole('heading', { name: 'Drop your papers here' }).waitFor();
  await page.keyboard.press('o');
  await (
    await chooser
  ).setFiles([
    fileOf('10.jpg', await scanned('Cobblers Lane Vet Surgery\nInvoice\nDate 3 November 2026\nTotal 38.00')),
    fileOf('9.jpg', await scanned('Saltgate Primary School\nDear Mr Castellane,\nThe concert is on 10 December 2026')),
  ]);
  await page.getByText('2 pages').first().waitFor();
  await page.keyboard.press('2');
  const stackLink = page.getByRole('link', { name: /9\.jpg and 1 more/ });
  await stackLink.focus();
  await page.keyboard.press('Enter');
  // In the order of their names, numbers counted as numbers: page 9 before page 10. One document at first, whatever is
  // proposed; then cut between them, and undo and redo it.
  await pageShown(2).waitFor();
  await page.keyboard.press('w');
  await documentsCounted('1 document');
  await page.keyboard.press('ArrowRight');
  await page.keyboard.press('c');
  await documentsCounted('2 documents');
  await page.keyboard.press('Control+z');
  await documentsCounted('1 document');
  await page.keyboard.press('Control+Shift+z');
  await documentsCounted('2 documents');
  await page.keyboard.press('Space');
  await page.getByRole('dialog').waitFor();
  await page.keyboard.press('Escape');
  await page.getByRole('dialog').waitFor({ state: 'detached' });
  await page.keyboard.press('Control+Enter');

  await page.getByRole('heading', { name: '1 of 2' }).waitFor();
  await until(async () => (await page.getByLabel('Name').inputValue()).includes('Saltgate'));
  // The cursor is in the first doubtful note; Enter leads from note to note to the button that files.
  await until(() => page.evaluate(() => document.activeElement?.matches('[data-note], [data-file-it]') ?? false));
  await page.getByLabel('Folder', { exact: true }).focus();
  await page.keyboard.type('Home/School');
  // Enter takes what is listed first: here the new folder. Then the document is filed.
  await page.keyboard.press('Enter');
  await page.keyboard.press('Control+Enter');
  await page.getByRole('heading', { name: '1 of 1' }).waitFor();
  // Until it is read it has no name, and Enter would lead to that field first.
  await until(async () => (await page.getByLabel('Name').inputValue()).includes('Cobblers'));
  await page.getByLabel('Folder', { exact: true }).focus();
  await page.keyboard.type('Home/Animals');
  await page.keyboard.press('Enter');
  await page.keyboard.press('Enter');
  await page.getByRole('heading', { name: 'Nothing waits to be checked' }).waitFor();
  await until(() => existsSync(join(program.shelf, 'Home/School')) && existsSync(join(program.shelf, 'Home/Animals')));

  await page.keyboard.press('/');
  await page.locator('[role=searchbox]:focus').waitFor();
  await page.keyboard.type('concert');
  await page.getByText('1 hit').waitFor();
  await page.keyboard.press('Enter');
  await page.locator('[data-hit=current]').waitFor();
});

it('tells what is wrong with each file that it can’t take in, and takes in the rest', async () => {
  await page.setInputFiles('input[type=file]', [
    fileOf('really a zip.pdf', ZIP),
    fileOf('locked.pdf', await lockedPdf()),
    fileOf('empty.pdf', Buffer.alloc(0)),
    fileOf('fine.pdf', await textPdf('This one is fine and has some words')),
  ]);
  await page.getByText('“really a zip.pdf” is damaged and can’t be opened as a ZIP archive.').waitFor();
  await page.getByText('“locked.pdf” is protected by a password.').waitFor();
  await page.getByText('“empty.pdf” is empty: it has 0 bytes.').waitFor();
  await page.getByRole('article').filter({ hasText: 'fine.pdf' }).getByText('1 page').waitFor();
  // The browser notes the refused upload by itself.
  expect(errors.splice(0).every((error) => error.includes('422'))).toBe(true);
});

it('takes in what is dropped anywhere on the window, and what is pasted', async () => {
  await page.getByRole('link', { name: 'Shelf' }).click();
  const bytes = [...(await scanned('dropped onto the shelf'))];
  await page.evaluate((content) => {
    const transfer = new DataTransfer();
    transfer.items.add(new File([new Uint8Array(content)], 'dropped.jpg', { type: 'image/jpeg' }));
    for (const type of ['dragenter', 'dragover', 'drop'])
      window.dispatchEvent(new DragEvent(type, { dataTransfer: transfer, bubbles: true, cancelable: true }));
  }, bytes);
  await page.getByRole('button', { name: 'dropped.jpg' }).waitFor();
  await page.evaluate((content) => {
    const transfer = new DataTransfer();
    transfer.items.add(new File([new Uint8Array(content)], 'pasted.jpg', { type: 'image/jpeg' }));
    window.dispatchEvent(new ClipboardEvent('paste', { clipboardData: transfer, bubbles: true }));
  }, bytes);
  await page.getByRole('button', { name: 'pasted.jpg' }).waitFor();
});

it('stops reading when told to and goes on when told to, shown live', async () => {
  const sheets = await Promise.all(
    Array.from({ length: 8 }, (_, index) =>
      scanned(`Sheet number ${index + 1} of a long pile of paper\nwith a second line of words`),
    ),
  );
  await page.setInputFiles(
    'input[type=file]',
    sheets.map((bytes, index) => fileOf(`sheet ${index + 1}.jpg`, bytes)),
  );
  await page.getByRole('article').filter({ hasText: 'sheet 1.jpg' }).getByText('8 pages').waitFor();
  await page.getByRole('article').filter({ hasText: 'sheet 1.jpg' }).getByRole('link', { name: 'Sort it' }).click();
  await page.getByRole('button', { name: 'Stop', exact: true }).click();
  await page.getByText('Reading is stopped').waitFor();
  await page.getByRole('button', { name: 'Go on reading' }).click();
  await page.getByRole('progressbar', { name: 'Pages read' }).waitFor({ state: 'detached', timeout: PATIENCE_MS });
});
