import { writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { setTimeout as sleep } from 'node:timers/promises';
import { Browser, Page } from 'playwright-core';
import { encodePhoto } from '@crow/demo/capture';
import { makeScene } from '@crow/demo/scenes';
import { demoStock } from '@crow/demo/stock';
import { renderView } from '@crow/demo/view';
import { endpoints } from '@crow/contract/endpoints';
import { scratchFolder } from '@crow/server/testing/made';
import { openBrowser, openWindow } from './browser';
import { Program, until } from './program';

/** Two papers on two tables, as a phone photographs them. */
const SCENES = [0, 24];
const LONG_SIDE = 1280;

const folder = scratchFolder();
const film = join(folder, 'film.mjpeg');
const photos: string[] = [];
let program: Program;
let browser: Browser;
let page: Page;
let errors: string[];

beforeAll(async () => {
  const stock = await demoStock(110, 8);
  const frames: Buffer[] = [];
  for (const [index, number] of SCENES.entries()) {
    const { view } = makeScene(number, stock, LONG_SIDE);
    const picture = await encodePhoto(renderView(view));
    const path = join(folder, `IMG_${index + 1}.jpg`);
    writeFileSync(path, picture);
    photos.push(path);
    // All frames of a film are of one size.
    const frame = await encodePhoto(renderView({ ...view, width: 960, height: LONG_SIDE, noise: 1 }));
    frames.push(...Array.from({ length: 120 }, () => frame));
  }
  writeFileSync(film, Buffer.concat(frames));
  program = await Program.start();
  browser = await openBrowser({ film });
});
beforeEach(async () => void ({ page, errors } = await openWindow(browser, program.session)));
afterEach(async () => {
  expect(errors).toEqual([]);
  await page.context().close();
});
afterAll(async () => {
  await browser?.close();
  await program?.end();
});

const newest = async () => {
  const [{ id }] = await program.ask(endpoints.listStacks, {});
  return program.ask(endpoints.readStack, { params: { id } });
};

/** The pages of the newest stack once all that are there are made; more may still be on their way. */
async function settled() {
  for (;;) {
    const { pageList } = await newest();
    if (pageList.length > 0 && pageList.every(({ pictured }) => pictured)) return pageList;
    await sleep(200);
  }
}

it('makes a photo flat and clear by itself, and by hand as a person wants it', async () => {
  await page.setInputFiles('input[type=file]', photos[0]);
  await page.getByText('1 page', { exact: true }).waitFor();
  await until(async () => (await newest()).pageList[0]?.pictured === true);
  const found = (await newest()).pageList[0];
  expect(found.recipe?.corners).not.toBeNull();
  expect(found.height / found.width).toBeCloseTo(Math.SQRT2, 1);

  await page.keyboard.press('e');
  const corner = page.getByRole('button', { name: 'Upper left corner' });
  await corner.focus();
  await page.keyboard.press('ArrowRight');
  await page.keyboard.press('Shift+ArrowDown');
  await page.getByRole('radio', { name: /^Black and white/ }).click();
  await page.getByRole('button', { name: /^Before and after/ }).click();
  await page.getByRole('slider', { name: /Divider/ }).waitFor();
  await page.keyboard.press('l');
  const sheet = page.getByRole('application', { name: /^Page 1 as it will be/ });
  const box = (await sheet.boundingBox())!;
  await page.getByRole('button', { name: /^After only/ }).click();
  await page.mouse.move(box.x + 0.4 * box.width, box.y + 0.8 * box.height);
  await page.mouse.down();
  await page.mouse.move(box.x + 0.6 * box.width, box.y + 0.82 * box.height, { steps: 4 });
  await page.mouse.up();
  await page.getByRole('button', { name: /^Done/ }).click();
  await until(async () => (await newest()).pageList[0].version !== found.version);
  const made = (await newest()).pageList[0];
  expect(made.recipe?.look).toBe('bilevel');
  expect(made.recipe?.marks).toHaveLength(1);
  const [x, y] = made.recipe!.corners![0];
  expect(x).toBeGreaterThan(found.recipe!.corners![0][0]);
  expect(y).toBeGreaterThan(found.recipe!.corners![0][1]);

  // A step like any other on the light table: it can be undone there, and the page is as it was found.
  await page.getByRole('link', { name: 'Sort it' }).click();
  await page.getByRole('button', { name: /^Undo/ }).click();
  await until(async () => (await newest()).pageList[0].version === found.version);
});

it('takes pages from a camera by itself when they lie still, each once, and by hand with a key', async () => {
  await page.getByRole('heading', { name: 'Taken in' }).waitFor();
  await page.keyboard.press('k');
  await page.getByLabel('What the camera sees').waitFor();
  await page.getByText('Taking it').waitFor();
  await until(async () =>
    (await program.ask(endpoints.listStacks, {})).some(({ name, pages }) => /^Camera/.test(name) && pages >= 2),
  );
  await page.getByLabel('by itself').uncheck();
  const byItself = await settled();
  for (const each of byItself) expect(each.confidence).toBeGreaterThan(0.7);

  const before = (await newest()).files.length;
  await page.keyboard.press(' ');
  await until(async () => (await newest()).files.length > before);
  expect(byItself.length).toBeGreaterThanOrEqual(2);
});

it('takes forty pages within two minutes without losing one, in their order', async () => {
  await page.getByRole('button', { name: /^Camera( k)?$/ }).click();
  await page.getByText(/^(Hold still|Lay a page)/).waitFor();
  await page.getByLabel('by itself').uncheck();
  // Before that it may have taken one by itself already.
  const began = Date.now();
  for (let number = 0; number < 40; number++) {
    await page.keyboard.press(' ');
    // As fast as a person lays one page after the other.
    await sleep(500);
  }
  await until(async () => (await newest()).files.length >= 40);
  expect(Date.now() - began).toBeLessThan(120_000);
  await until(async () => {
    const { pageList, files } = await newest();
    return pageList.length === files.length;
  });
  const { pageList, files } = await newest();
  expect(files.map(({ position }) => position)).toEqual(files.map((_, index) => index));
  expect(pageList.map(({ fileId }) => fileId)).toEqual(files.map(({ id }) => id));
  // Two minutes to take them, and as long again until all are there.
});
