import { execFileSync } from 'node:child_process';
import { mkdirSync } from 'node:fs';
import { join } from 'node:path';
import { Browser, Page } from 'playwright-core';
import sharp from 'sharp';
import { rgbRaster } from '@crow/demo/capture';
import { endpoints } from '@crow/contract/endpoints';
import { readCodes } from '@crow/server/engines/codes';
import { scanned, scratchFolder, textPdf } from '@crow/server/testing/made';
import { openBrowser, openWindow } from './browser';
import { Program, until } from './program';

const PHONE = { viewport: { width: 390, height: 844 }, hasTouch: true, isMobile: true };

let program: Program;
let browser: Browser;
let page: Page;
let errors: string[];
const more: Browser[] = [];

beforeAll(async () => {
  program = await Program.start();
  browser = await openBrowser();
  ({ page, errors } = await openWindow(browser, program.session));
});
afterEach(() => expect(errors).toEqual([]));
afterAll(async () => {
  await Promise.all([...more, browser].map((each) => each?.close()));
  await program?.end();
});

it('lets a helper in by name and pass phrase, and out again when the owner ends it', async () => {
  await page.getByRole('button', { name: 'Settings' }).click();
  await page.getByRole('link', { name: 'People and devices' }).click();
  await page.getByLabel('Name', { exact: true }).fill('Tove');
  await page.getByLabel('Pass phrase').fill('madder weld and indigo');
  await page.getByRole('button', { name: 'Let in' }).click();
  await page.getByText('Tove helper').waitFor();

  const other = await (await browser.newContext()).newPage();
  await other.goto(program.address);
  await other.getByLabel('Name').fill('Tove');
  await other.getByLabel('Pass phrase').fill('madder weld and walnut');
  await other.getByRole('button', { name: 'Come in' }).click();
  await other.getByText('Name or pass phrase is not right.').waitFor();
  await other.getByLabel('Name').fill('tove');
  await other.getByLabel('Pass phrase').fill('madder weld and indigo');
  await other.getByRole('button', { name: 'Come in' }).click();
  await other.getByRole('button', { name: 'Settings' }).click();
  await other.getByText('You are here as Tove.').waitFor();
  await other.keyboard.press('Escape');

  // At the same papers: each is led to another, and what one does the other sees.
  const [first, second] = [await waits('Madder'), await waits('Weld')];
  await page.goto(`${program.address}/check`);
  await until(() => page.url() !== '');
  await page.getByLabel('Who', { exact: true }).waitFor();
  await other.goto(`${program.address}/check`);
  await other.getByText('Weld', { exact: false }).first().waitFor();
  await other.goto(`${program.address}/check/${first}`);
  await other.getByText('has this paper on the desk, too').waitFor();
  await page.getByText('has this paper on the desk, too').waitFor();
  await other.getByLabel('Who', { exact: true }).fill('Madder & Daughters');
  await other.getByLabel('Who', { exact: true }).press('Enter');
  await until(async () => (await page.getByLabel('Who', { exact: true }).inputValue()) === 'Madder & Daughters');

  await page.goto(`${program.address}/people`);
  await page.getByRole('tab', { name: 'What was done' }).click();
  await page.getByText('Tove set vendor to “Madder & Daughters”').waitFor();
  await page.getByRole('tab', { name: 'People' }).click();
  await page.getByRole('button', { name: 'End the session of Tove in Chrome on Linux' }).click();
  await page.getByText('Chrome on Linux, last here').waitFor({ state: 'detached' });
  await other.reload();
  await other.getByText('This browser has not been let in yet.').waitFor();
  for (const id of [first, second]) await program.ask(endpoints.binDocument, { params: { id } });
  await other.context().close();
});

it('lets a phone in by a code, over a line whose certificate it trusts, and ends it again', async () => {
  await page.goto(`${program.address}/people`);
  await page.getByRole('tab', { name: 'Devices' }).click();
  await page.getByRole('button', { name: 'Open the door' }).click();
  await page.getByLabel('What is it called?').fill('Phone in the kitchen');
  await page.getByRole('button', { name: 'Show the code' }).click();
  const code = page.getByRole('img', { name: /^Code that lets/ });
  await code.waitFor();
  // What a camera reads from the screen.
  const [{ text: address }] = await readCodes(await rgbRaster(sharp(await code.screenshot())), ['QRCode']);
  expect(address).toMatch(/^https:\/\/.+\/enter\?key=/);

  // A phone that does not trust the machine's authority is warned.
  const stranger = await (await browser.newContext(PHONE)).newPage();
  await expect(stranger.goto(new URL('/trust', address).href)).rejects.toThrow(/ERR_CERT_AUTHORITY_INVALID/);
  await stranger.context().close();

  const phone = await (await trustingBrowser()).newContext(PHONE).then((context) => context.newPage());
  await phone.goto(address);
  await phone.getByRole('link', { name: /^Capture/ }).waitFor();
  await page.getByRole('heading', { name: '“Phone in the kitchen” is in' }).waitFor();
  expect(await phone.evaluate(() => window.isSecureContext)).toBe(true);
  await phone.evaluate(() =>
    navigator.serviceWorker
      .register('/sw.js')
      .then(() => navigator.serviceWorker.ready)
      .then(() => undefined),
  );
  const [cookie] = await phone.context().cookies();
  expect(cookie).toMatchObject({ httpOnly: true, secure: true, sameSite: 'Strict' });

  await phone.setInputFiles('input[type=file]', {
    name: 'from the phone.jpg',
    mimeType: 'image/jpeg',
    buffer: await scanned('taken in the kitchen'),
  });
  await until(async () => (await program.ask(endpoints.listStacks, {})).some(({ name }) => /phone/.test(name)));

  await page.getByRole('tab', { name: 'People' }).click();
  await page.getByRole('button', { name: /^End the session of Owner in Phone in the kitchen/ }).click();
  await until(async () => (await program.ask(endpoints.listPeople, {}))[0].sessions.every(({ device }) => !device));
  // Its window may notice by itself at that very moment.
  await phone.goto(new URL('/shelf', address).href).catch(() => undefined);
  await phone.getByText('This browser has not been let in yet.').waitFor();
});

it('goes on without trust in the certificate: pictures are taken by the device’s own camera', async () => {
  await program.ask(endpoints.changeDoor, { body: { open: true } });
  const { address } = await program.ask(endpoints.letDeviceIn, { body: { name: 'Tablet' } });
  const context = await browser.newContext({ ...PHONE, ignoreHTTPSErrors: true });
  const tablet = await context.newPage();
  await tablet.goto(address);
  await tablet.getByRole('button', { name: 'Files', exact: true }).waitFor();
  // It only captures: the other stations are not there for it.
  expect(await tablet.getByRole('link', { name: /^(Sort|Check|Shelf)/ }).count()).toBe(0);
  await tablet.setInputFiles('input[type=file]', {
    name: 'tablet.jpg',
    mimeType: 'image/jpeg',
    buffer: await scanned('taken by the tablet'),
  });
  await until(async () => (await program.ask(endpoints.listStacks, {})).some(({ name }) => /tablet/.test(name)));
  await tablet.getByRole('list', { name: 'Pages taken in' }).getByRole('button').first().waitFor();
  await context.close();
});

/** A browser of a device that trusts the authority of the program's machine. */
async function trustingBrowser(): Promise<Browser> {
  const home = scratchFolder();
  const store = join(home, '.pki/nssdb');
  mkdirSync(store, { recursive: true });
  const certutil = (...args: string[]) => execFileSync('certutil', ['-d', `sql:${store}`, ...args]);
  certutil('-N', '--empty-password');
  certutil('-A', '-t', 'C,,', '-n', 'crow', '-i', join(program.home, 'authority/authority.pem'));
  const trusting = await openBrowser({ home });
  more.push(trusting);
  return trusting;
}

/** A paper that waits in Check; its id. */
async function waits(name: string): Promise<string> {
  const stack = crypto.randomUUID();
  await program.sendFile(`${name}.pdf`, await textPdf(`${name} Ltd\nDelivery note\nTwelve skeins`), { stack });
  await until(async () =>
    (await program.ask(endpoints.listStacks, {})).some(
      ({ id, pages, read }) => id === stack && pages > 0 && read === pages,
    ),
  );
  const { documents } = await program.ask(endpoints.sortStack, { params: { id: stack } });
  return documents[0];
}
