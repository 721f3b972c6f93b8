import { execFileSync } from 'node:child_process';
import { existsSync, mkdirSync, readdirSync, readFileSync, renameSync, unlinkSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { Browser, Page } from 'playwright-core';
import { randomUUID } from 'node:crypto';
import { endpoints } from '@crow/contract/endpoints';
import { scratchFolder, textPdf } from '@crow/server/testing/made';
import { openBrowser, openWindow } from './browser';
import { Program, until } from './program';

let program: Program;
let browser: Browser;
let page: Page;
let errors: string[];
const folder = scratchFolder();

beforeAll(async () => {
  program = await Program.start();
  browser = await openBrowser();
  for (const name of ['One', 'Two', 'Three']) await shelve(name);
  ({ page, errors } = await openWindow(browser, program.session));
});
afterEach(() => expect(errors).toEqual([]));
afterAll(async () => {
  await browser?.close();
  await program?.end();
});

/** Takes a paper in and files it in the folder Yarn. */
async function shelve(name: string): Promise<void> {
  const text = `Saltgate Yarns Ltd\nDelivery note\nThe paper called ${name}\nTwelve skeins of madder, six of weld`;
  const stack = randomUUID();
  await program.sendFile(`${name}.pdf`, await textPdf(text), { stack });
  const read = async () =>
    (await program.ask(endpoints.listStacks, {})).some(({ id, read: done }) => id === stack && done > 0);
  await until(read);
  const { documents } = await program.ask(endpoints.sortStack, { params: { id: stack } });
  await program.ask(endpoints.fileDocument, { params: { id: documents[0] }, body: { name, folderPath: 'Yarn' } });
  await until(() => existsSync(onDisk(`Yarn/${name}.pdf`)));
}

const onDisk = (path: string) => join(program.shelf, path);
const open = (name: string) =>
  page.getByRole('list', { name: 'Folders' }).getByRole('button', { name, exact: false }).first().click();

it('moves several documents at once, and back again', async () => {
  await page.goto(`${program.address}/shelf`);
  await open('Yarn');
  await page.getByLabel('Choose One').check();
  await page.getByLabel('Choose Two').check();
  await page.getByRole('status').filter({ hasText: '2 chosen' }).waitFor();
  await page.keyboard.press('m');
  await page.getByLabel('To the folder').fill('Yarn/Old');
  // The first Enter takes what is listed, here the new folder, the second moves them there.
  await page.keyboard.press('Enter');
  await page.keyboard.press('Enter');
  await until(() => existsSync(onDisk('Yarn/Old/One.pdf')) && existsSync(onDisk('Yarn/Old/Two.pdf')));
  // A file is gone from where it was only once it is where it goes to.
  await until(() => readdirSync(onDisk('Yarn')).sort().join() === 'Old,Three.pdf');
  await page.getByRole('button', { name: 'Undo' }).click();
  await until(() => readdirSync(onDisk('Yarn')).filter((name) => name.endsWith('.pdf')).length === 3);
});

it('answers a question over the shelf, shows the paper it comes from, and finds it by a tag that it is given', async () => {
  await page.keyboard.press('/');
  await page.getByRole('searchbox', { name: 'Find' }).fill('How many delivery notes came from Saltgate Yarns?');
  const answer = page.getByRole('region', { name: 'Answer' });
  await answer.getByText('3 papers').waitFor();
  await page.getByRole('group', { name: 'How it was understood' }).getByText('Delivery note').waitFor();
  await answer.getByRole('button', { name: /^Two/ }).click();
  await page.getByRole('article', { name: 'Two' }).waitFor();
  await page.getByRole('button', { name: 'What it says (i)' }).click();
  await page.getByLabel('Add a tag').fill('to claim');
  await page.getByLabel('Add a tag').press('Enter');
  await page.getByRole('button', { name: 'to claim', exact: true }).click();
  await page.getByText('1 document', { exact: true }).waitFor();
  await page.getByLabel('Found documents').getByRole('button', { name: 'Two', exact: true }).waitFor();
  await page.getByRole('searchbox', { name: 'Find' }).fill('Which invoices are unpaid?');
  await page.getByText('No paper says whether it was paid.').waitFor();
});

it('tells when files were moved and deleted on disk, and settles it as the person says', async () => {
  mkdirSync(onDisk('Elsewhere'));
  renameSync(onDisk('Yarn/One.pdf'), onDisk('Elsewhere/First.pdf'));
  unlinkSync(onDisk('Yarn/Two.pdf'));
  await page.getByRole('button', { name: /Changed on disk/ }).click();
  await page
    .getByText('Somebody moved the file “Yarn/One.pdf” in the shelf folder to “Elsewhere/First.pdf”.')
    .waitFor();
  await page.getByRole('button', { name: 'Move the document, too' }).click();
  await page.getByRole('button', { name: 'Put it back' }).click();
  await page.getByText('Everything on disk is as it was filed').waitFor();
  expect(existsSync(onDisk('Yarn/Two.pdf'))).toBe(true);
  await open('Elsewhere');
  await page.getByRole('button', { name: 'First', exact: true }).waitFor();
});

it('moves the chosen documents to the folder that one of them is dropped on, and back again', async () => {
  await open('Yarn');
  await page.getByLabel('Choose Two').check();
  await page.getByLabel('Choose Three').check();
  const target = page.getByRole('list', { name: 'Folders' }).getByRole('button', { name: /^Elsewhere/ });
  await page.getByRole('button', { name: 'Two', exact: true }).dragTo(target);
  await until(() => existsSync(onDisk('Elsewhere/Two.pdf')) && existsSync(onDisk('Elsewhere/Three.pdf')));
  await page.getByText('2 documents moved to Elsewhere.').first().waitFor();
  await page.getByRole('button', { name: 'Undo' }).click();
  await until(() => existsSync(onDisk('Yarn/Two.pdf')) && existsSync(onDisk('Yarn/Three.pdf')));
  expect(readdirSync(onDisk('Elsewhere'))).toEqual(['First.pdf']);
});

it('lets a paper be dragged out of the window as its PDF, with its name', async () => {
  await open('Yarn');
  const paper = page.getByRole('button', { name: 'Two', exact: true });
  const told = await paper.evaluate((button) => {
    const dataTransfer = new DataTransfer();
    const event = new DragEvent('dragstart', { bubbles: true, cancelable: true, dataTransfer });
    button.closest('[draggable=true]')!.dispatchEvent(event);
    return { file: dataTransfer.getData('DownloadURL'), address: dataTransfer.getData('text/uri-list') };
  });
  const [, type, name, address] = /^([^:]+):([^:]+):(.+)$/.exec(told.file)!;
  expect([type, name, address]).toEqual(['application/pdf', 'Two.pdf', told.address]);
  // What the desktop is given when it follows the address as this browser does.
  const given = await page.context().request.get(address);
  expect(await given.body()).toEqual(readFileSync(onDisk('Yarn/Two.pdf')));
});

it('prints the PDF of a paper by the browser’s own dialog, at its true size', async () => {
  // Without a monitor there is neither a viewer in a frame nor a dialog: what would be shown and printed is told instead.
  const inFrame = (url: URL) => url.pathname.endsWith('/pdf');
  await page.route(inFrame, (route) =>
    route.request().resourceType() === 'document' ? route.fulfill({ contentType: 'text/html' }) : route.continue(),
  );
  await page.evaluate(() => {
    const printed = ((window as unknown as { printed: string[] }).printed = [] as string[]);
    Object.defineProperty(HTMLIFrameElement.prototype, 'contentWindow', {
      configurable: true,
      get(this: HTMLIFrameElement) {
        return { focus: () => undefined, print: () => void printed.push(this.src) };
      },
    });
  });
  await page.getByRole('button', { name: 'Two', exact: true }).click();
  await page.getByRole('button', { name: 'More about this document' }).click();
  await page.getByRole('menuitem', { name: 'Print …' }).click();
  const printed = () => page.evaluate(() => (window as unknown as { printed: string[] }).printed);
  await until(async () => (await printed()).length === 1);
  await page.unroute(inFrame);
  const pdf = await (await page.context().request.get((await printed())[0])).body();
  const file = onDisk('Yarn/Two.pdf');
  expect(pdf).toEqual(readFileSync(file));
  const parts = execFileSync('qpdf', ['--qdf', '--object-streams=disable', file, '-'], { encoding: 'latin1' });
  expect(parts).toContain('/PrintScaling /None');
  expect(execFileSync('pdfinfo', [file], { encoding: 'utf8' })).toMatch(/Page size:\s+595\S* x 84[12]/);
});

it('brings a ZIP of the shelf in again, and only what is missing', async () => {
  const [download] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('link', { name: 'Everything as ZIP' }).click(),
  ]);
  const path = join(folder, 'shelf.zip');
  await download.saveAs(path);
  await open('Yarn');
  await page.getByLabel('Choose Three').check();
  await page.keyboard.press('Delete');
  await until(() => !existsSync(onDisk('Yarn/Three.pdf')));
  await page.setInputFiles('input[accept*=zip]', path);
  await page
    .getByText(/1 document from “shelf.zip” came back to the shelf. 2 documents were on the shelf already./)
    .first()
    .waitFor();
  await until(() => existsSync(onDisk('Yarn/Three.pdf')));
});

it('says plainly that a file is no archive of the shelf', async () => {
  const path = join(folder, 'notes.zip');
  writeFileSync(path, 'not a ZIP at all');
  await page.setInputFiles('input[accept*=zip]', path);
  await page.getByText('“notes.zip” is damaged and can’t be opened as a ZIP archive.').first().waitFor();
  errors.splice(0, errors.length, ...errors.filter((error) => !/status of 422/.test(error)));
});
