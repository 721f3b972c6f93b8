import { existsSync, readdirSync } from 'node:fs';
import { join } from 'node:path';
import { Browser, BrowserContext, Locator, Page } from 'playwright-core';
import { FILED } from '@crow/demo/papers';
import { endpoints } from '@crow/contract/endpoints';
import { openBrowser, openWindow } from './browser';
import { filmOf } from './film';
import { PATIENCE_MS } from './patience';
import { Program, until } from './program';

/** A phone, held upright. */
const PHONE = { viewport: { width: 390, height: 844 }, hasTouch: true, isMobile: true, deviceScaleFactor: 2 };
/** What its camera takes: so much that it can be read, and else as little as keeps the browser light. */
const READABLE = { width: 1536, height: 2048 };
const LIGHT = { width: 720, height: 960 };

/** Where the signal is weak: bytes a second, and milliseconds there and back. */
const WEAK_LINE = { downloadThroughput: 500_000, uploadThroughput: 250_000, latency: 300 };

const paper = FILED.find(({ kind }) => kind === 'invoice')!;
let program: Program;
let browser: Browser;
let page: Page;
let context: BrowserContext;
let errors: string[];
let taps = 0;

async function tap(what: Locator): Promise<void> {
  taps++;
  await what.tap();
}

beforeAll(async () => {
  program = await Program.start();
  browser = await openBrowser({ film: await filmOf(paper, LIGHT) });
});
/** A window of a phone that opens on the camera, in which a person takes the pages. */
async function openOn(one: Browser): Promise<void> {
  ({ page, context, errors } = await openWindow(one, program.session, '/', PHONE));
  await page.evaluate(() => {
    localStorage.setItem('crow.start', 'camera');
    localStorage.setItem('crow.camera', JSON.stringify({ camera: '', byItself: false, key: '' }));
  });
  taps = 0;
}
beforeEach(() => openOn(browser));
afterEach(async () => {
  await context.close();
  await program.clear();
  // Without a line, or a server, the browser itself says that nothing can be loaded.
  expect(errors.filter((text) => !/net::ERR_|Failed to fetch/.test(text))).toEqual([]);
});
afterAll(async () => {
  await browser?.close();
  await program?.end();
});

const takeIt = () => page.getByRole('button', { name: /^Take it/ });
const stacks = () => program.ask(endpoints.listStacks, {});
async function cameraIsReady(): Promise<void> {
  await page.getByText('Ready: take it.').waitFor();
}
/** Makes the window's line a weak one; cuts it and brings it back. */
async function weakLine(): Promise<(on: boolean) => Promise<void>> {
  const devtools = await context.newCDPSession(page);
  await devtools.send('Network.enable');
  const line = async (on: boolean) =>
    void (await devtools.send('Network.emulateNetworkConditions', { offline: !on, ...WEAK_LINE }));
  await line(true);
  return line;
}
async function isWithinScreen(): Promise<void> {
  const [wide, screen] = await page.evaluate(() => [document.documentElement.scrollWidth, innerWidth]);
  expect(wide).toBeLessThanOrEqual(screen);
}

it('comes from the camera to a filed PDF with a name in four taps at most', async () => {
  // One paper of this sender has been filed before: it is known where they go.
  const bytes = await paper.draw();
  const before = '11111111-1111-4111-8111-111111111111';
  await program.sendFile('before.pdf', bytes, { stack: before });
  await until(async () => (await stacks()).some(({ id, pages, read }) => id === before && pages > 0 && read === pages));
  const { documents } = await program.ask(endpoints.sortStack, { params: { id: before } });
  await program.ask(endpoints.fileDocument, {
    params: { id: documents[0] },
    body: { name: 'The one before', folderPath: 'Workshop/Rent' },
  });

  const reading = await openBrowser({ film: await filmOf(paper, READABLE) });
  await context.close();
  await openOn(reading);
  await page.goto(`${program.address}/start`);
  await cameraIsReady();
  await isWithinScreen();
  await tap(takeIt());
  await tap(page.getByRole('button', { name: 'Check →' }));
  const head = page.getByRole('button', { name: 'Name, folder, and what was read' });
  await head.getByText('Workshop / Rent').waitFor();
  await head.getByText(/^\d{4}-\d\d-\d\d .*Invoice/).waitFor();
  await isWithinScreen();
  await tap(page.getByRole('button', { name: /^File it/ }));
  await page
    .getByText(/is filed in Workshop \/ Rent/)
    .first()
    .waitFor();
  expect(taps).toBeLessThanOrEqual(4);
  const folder = join(program.shelf, 'Workshop/Rent');
  await until(
    () => existsSync(folder) && readdirSync(folder).some((name) => /^\d{4}-\d\d-\d\d .*Invoice.*\.pdf$/.test(name)),
  );

  // The targets are large enough for a thumb.
  for (const name of ['Capture', 'Check', 'Shelf']) {
    const box = (await page.getByRole('link', { name: new RegExp(`^${name}`) }).boundingBox())!;
    expect(Math.min(box.width, box.height)).toBeGreaterThanOrEqual(44);
  }
  await reading.close();
});

it('goes on with the same pages after one was looked at, tidied, and taken again', async () => {
  await page.goto(`${program.address}/capture?source=camera`);
  const before = (await stacks()).map(({ id }) => id);
  const mine = async () => {
    const found = (await stacks()).filter(({ id }) => !before.includes(id));
    expect(found.length).toBeLessThanOrEqual(1);
    return found[0] ? program.ask(endpoints.readStack, { params: { id: found[0].id } }) : undefined;
  };
  const see = (number: number) => page.getByRole('button', { name: new RegExp(`^${number} pages? taken`) });
  const madeOf = (number: number) =>
    until(async () => {
      const pages = (await mine())?.pageList ?? [];
      return pages.length === number && pages.every(({ pictured }) => pictured);
    });
  await cameraIsReady();
  await tap(takeIt());
  await see(1).tap();
  await madeOf(1);
  await page.getByRole('button', { name: 'Camera' }).tap();
  await cameraIsReady();
  await tap(takeIt());
  await see(2).tap();
  await madeOf(2);
  await page.getByRole('button', { name: /^Tidy/ }).tap();
  await page.getByRole('button', { name: /^Done/ }).tap();
  await page.getByRole('button', { name: 'Camera' }).tap();
  await cameraIsReady();
  await tap(takeIt());
  await see(3).tap();
  await madeOf(3);
  const [first] = (await mine())!.pageList;
  await page
    .getByRole('list', { name: 'Pages taken in' })
    .getByRole('button', { name: /^Page 1\b/ })
    .tap();
  await page.getByRole('button', { name: /^Take again/ }).tap();
  await cameraIsReady();
  await tap(takeIt());
  await until(async () => (await mine())!.pageList.some(({ againOf }) => againOf === first.id));
});

it('adds a page to a document from the camera, and goes back to it', async () => {
  const { documents } = await waitingPaper();
  await page.goto(`${program.address}/capture?document=${documents[0]}&source=camera&from=/check/${documents[0]}`);
  await cameraIsReady();
  const before = (await stacks()).length;
  await tap(takeIt());
  await page.getByRole('button', { name: 'Done' }).tap();
  await until(async () => (await program.ask(endpoints.readDocument, { params: { id: documents[0] } })).pages === 2);
  expect(await stacks()).toHaveLength(before);
  expect(page.url()).toContain(`/check/${documents[0]}`);
});

it('tapped, a note is seen with its place on the page', async () => {
  const { documents } = await waitingPaper();
  await page.goto(`${program.address}/check/${documents[0]}`);
  const place = page.locator('[data-desk]');
  await tap(page.getByRole('button', { name: 'Name, folder, and what was read' }));
  await tap(page.getByLabel('Total', { exact: true }));
  await until(async () => (await place.evaluate((desk) => desk.scrollTop)) > 0);
  await isWithinScreen();
});

it('forty pages go, in their order and once, over a slow line that is cut five times, and the window closed', async () => {
  await page.goto(`${program.address}/capture?source=camera`);
  await cameraIsReady();
  const line = await weakLine();
  const other = (await stacks()).map(({ id }) => id);
  const arrived = async () => (await stacks()).find(({ id }) => !other.includes(id));
  for (let taken = 1; taken <= 40; taken++) {
    if (taken % 8 === 4) await line(false);
    await tap(takeIt());
    await page.getByRole('button', { name: new RegExp(`^${taken} pages? taken`) }).waitFor();
    if (taken % 8 === 0) await line(true);
  }
  // The last ones are still here when the window closes; another one goes on with them.
  await line(false);
  for (let taken = 41; taken <= 43; taken++) {
    await tap(takeIt());
    await page.getByRole('button', { name: new RegExp(`^${taken} pages? taken`) }).waitFor();
  }
  await page.close();
  page = await context.newPage();
  await weakLine();
  await page.goto(`${program.address}/capture`);
  await until(
    async () => (await arrived())?.files.length === 43,
    PATIENCE_MS,
    async () => [(await arrived())?.files.length, await page.locator('body').innerText()],
  );
  const { files, id } = (await arrived())!;
  expect(files.map(({ position }) => position)).toEqual(Array.from({ length: 43 }, (_, at) => at));
  await until(async () => (await program.ask(endpoints.readStack, { params: { id } })).pageList.length === 43);
  const { pageList } = await program.ask(endpoints.readStack, { params: { id } });
  expect(pageList.map(({ fileId }) => fileId)).toEqual(files.map((file) => file.id));
});

it('goes on to Check what was said to be finished, though the server is gone and the window closed before it came', async () => {
  await page.goto(`${program.address}/capture?source=camera`);
  await page.evaluate(() => navigator.serviceWorker.ready.then(() => undefined));
  await cameraIsReady();
  program.kill('server');
  await tap(takeIt());
  await tap(takeIt());
  await tap(page.getByRole('button', { name: 'Check →' }));
  await page.close();
  await program.askUntilAnswered(endpoints.listStacks, {});
  page = await context.newPage();
  await page.goto(program.address);
  await until(async () => (await program.ask(endpoints.listWaiting, {})).some(({ pages }) => pages === 2));
});

it('opens without a line, and keeps what is photographed until there is one', async () => {
  await page.goto(`${program.address}/capture?source=camera`);
  await page.evaluate(() => navigator.serviceWorker.ready.then(() => undefined));
  await context.setOffline(true);
  await page.reload();
  await cameraIsReady();
  await tap(takeIt());
  await page.getByRole('button', { name: /^1 page taken/ }).tap();
  await page.getByRole('button', { name: 'Taken in' }).tap();
  await page.getByText('1 file waits on this device.').waitFor();
  const before = (await stacks()).length;
  await context.setOffline(false);
  await until(async () => (await stacks()).length === before + 1);
  await page.getByText('1 file waits on this device.').waitFor({ state: 'detached' });
});

it('sends with no window open, when the browser says that there is a line', async () => {
  await page.goto(`${program.address}/capture?source=camera`);
  await page.evaluate(() => navigator.serviceWorker.ready.then(() => undefined));
  await cameraIsReady();
  const before = (await stacks()).length;
  await context.setOffline(true);
  await tap(takeIt());
  await page.getByRole('button', { name: /^1 page taken/ }).waitFor();
  await page.close();
  await context.setOffline(false);
  // Something of the same origin that is not the application, to reach the service worker by.
  page = await context.newPage();
  await page.goto(`${program.address}/icon.svg`);
  const devtools = await context.newCDPSession(page);
  const registered = new Promise<string>((resolve) =>
    devtools.on('ServiceWorker.workerRegistrationUpdated', ({ registrations: [first] }) =>
      first ? resolve(first.registrationId) : undefined,
    ),
  );
  await devtools.send('ServiceWorker.enable');
  const registrationId = await registered;
  await devtools.send('ServiceWorker.dispatchSyncEvent', {
    origin: program.address,
    registrationId,
    tag: 'crow-outbox',
    lastChance: false,
  });
  await until(async () => (await stacks()).length === before + 1);
});

it('sends only when told to, where that was chosen, and forgets what is discarded', async () => {
  await page.goto(`${program.address}/capture?source=camera`);
  await page.getByRole('button', { name: 'Settings' }).tap();
  await page.getByLabel('Send', { exact: true }).selectOption('only when told to');
  await page.keyboard.press('Escape');
  await cameraIsReady();
  const before = (await stacks()).length;
  for (let taken = 1; taken <= 2; taken++) {
    await tap(takeIt());
    await page.getByRole('button', { name: new RegExp(`^${taken} pages? taken`) }).waitFor();
  }
  await page.getByRole('button', { name: /^2 pages taken/ }).tap();
  await page.getByRole('button', { name: 'Taken in' }).tap();
  await page.getByText('2 files wait on this device.').waitFor();
  await page
    .getByRole('button', { name: /^Discard Photo/ })
    .first()
    .tap();
  await page.getByText('1 file waits on this device.').waitFor();
  expect(await stacks()).toHaveLength(before);
  await page.getByRole('button', { name: 'Send now' }).tap();
  await until(async () => (await stacks()).length === before + 1);
  expect((await stacks())[0].files).toHaveLength(1);
});

it('takes what another application of the device hands over', async () => {
  await page.goto(`${program.address}/capture`);
  await page.evaluate(() => navigator.serviceWorker.ready.then(() => undefined));
  const before = (await stacks()).length;
  await page.evaluate(async () => {
    const form = new FormData();
    const canvas = Object.assign(document.createElement('canvas'), { width: 600, height: 800 });
    canvas.getContext('2d')!.fillText('from the gallery', 50, 50);
    const picture = await new Promise<Blob>((resolve) => canvas.toBlob((blob) => resolve(blob!), 'image/jpeg'));
    for (const name of ['one.jpg', 'two.jpg']) form.append('files', new File([picture], name, { type: 'image/jpeg' }));
    await fetch('/share', { method: 'POST', body: form });
  });
  await page.reload();
  await until(async () => (await stacks()).length === before + 1);
  await until(async () => (await stacks())[0].files.length === 2);
  expect((await stacks())[0].files.map(({ name }) => name)).toEqual(['one.jpg', 'two.jpg']);
});

/** A paper that waits in Check, read. */
async function waitingPaper(): Promise<{ documents: string[] }> {
  const id = crypto.randomUUID();
  await program.sendFile('waits.pdf', await paper.draw(), { stack: id });
  await until(async () =>
    (await stacks()).some((each) => each.id === id && each.pages > 0 && each.read === each.pages),
  );
  return program.ask(endpoints.sortStack, { params: { id } });
}
