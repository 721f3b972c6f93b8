import { writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { Browser, Page } from 'playwright-core';
import { endpoints } from '@crow/contract/endpoints';
import { makeSpread } from '@crow/demo/bentScenes';
import { openPages } from '@crow/demo/book';
import { encodePhoto } from '@crow/demo/capture';
import { renderView, View } from '@crow/demo/view';
import { scratchFolder } from '@crow/server/testing/made';
import { openBrowser, openWindow } from './browser';
import { Program, until } from './program';

const [BOOK, FIRST, SPREADS] = [6, 20, 2];
const [WIDTH, HEIGHT] = [1600, 1200];
/** How many frames a spread lies still, and how many it takes to turn the page. */
const [STILL, TURNING] = [140, 16];

/** A film of a book being leafed through: a spread lies still, a hand comes and turns the page, the next one lies still. */
async function leafingThrough(): Promise<string> {
  const frames: Buffer[] = [];
  for (let number = 0; number < SPREADS; number++) {
    const { pages } = await openPages(BOOK, FIRST + 2 * number, 150);
    const view: View = { ...makeSpread(BOOK, pages, WIDTH), width: WIDTH, height: HEIGHT, noise: 1 };
    const still = await encodePhoto(renderView(view));
    const hand = { from: [60, 160], to: [40, 20], radius: 45, colour: [206, 160, 134] } as View['things'][number];
    const turning = await encodePhoto(renderView({ ...view, things: [...view.things, hand] }));
    frames.push(...Array.from({ length: STILL }, () => still), ...Array.from({ length: TURNING }, () => turning));
  }
  const film = join(scratchFolder(), 'book.mjpeg');
  writeFileSync(film, Buffer.concat(frames));
  return film;
}

let program: Program;
let browser: Browser;
let page: Page;
let errors: string[];
beforeAll(async () => {
  program = await Program.start();
  browser = await openBrowser({ film: await leafingThrough() });
  ({ page, errors } = await openWindow(browser, program.session));
});
afterAll(async () => {
  await browser?.close();
  await program?.end();
});

const newest = async () => {
  const [{ id }] = await program.ask(endpoints.listStacks, {});
  return program.ask(endpoints.readStack, { params: { id } });
};

it('takes the pages of a book by itself as they are turned, two of each spread, flat and in their order', async () => {
  await page.getByRole('heading', { name: 'Taken in' }).waitFor();
  await page.keyboard.press('k');
  await page.getByLabel('What lies under the camera').selectOption('Bound book');
  await until(async () => (await program.ask(endpoints.listStacks, {})).some(({ files }) => files.length >= SPREADS));
  await page.getByLabel('by itself').uncheck();
  const { files } = await newest();
  await until(async () => {
    const { pageList } = await newest();
    return pageList.length === 2 * files.length && pageList.every(({ pictured }) => pictured);
  });
  const { pageList } = await newest();
  for (const [index, { fileNumber, fileId, recipe, width, height }] of pageList.entries()) {
    expect([fileId, fileNumber]).toEqual([files[index >> 1].id, 1]);
    expect(recipe?.bend).toBeDefined();
    expect(height).toBeGreaterThan(width);
  }
  expect(
    new Set(pageList.map(({ pointWidth, pointHeight }) => `${pointWidth} ${pointHeight}`)).size,
  ).toBeLessThanOrEqual(files.length);

  // The picture with its bent outline, and what a person does when it is wrong.
  await page.getByRole('button', { name: /^Files/ }).waitFor();
  await page.keyboard.press('k');
  await page.goto(`${program.address}/page/${(await newest()).id}/${pageList[0].id}`);
  await page.getByRole('button', { name: /^It lies flat/ }).click();
  await page.getByRole('button', { name: /^Done/ }).click();
  await until(async () => (await newest()).pageList[0].recipe?.bend === undefined);
  expect(errors).toEqual([]);
});
