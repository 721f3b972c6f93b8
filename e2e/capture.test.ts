import { writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { Browser, Page } from 'playwright-core';
import { encodePhoto } from '@crow/demo/capture';
import { makeScene } from '@crow/demo/scenes';
import { demoStock } from '@crow/demo/stock';
import { renderView } from '@crow/demo/view';
import { endpoints } from '@crow/contract/endpoints';
import { scratchFolder, textPdf } from '@crow/server/testing/made';
import { openBrowser, openWindow } from './browser';
import { Program, until } from './program';

const folder = scratchFolder();
let program: Program;
let browser: Browser;
let page: Page;
let errors: string[];

beforeAll(async () => {
  program = await Program.start();
  browser = await openBrowser();
});
beforeEach(async () => {
  ({ page, errors } = await openWindow(browser, program.session));
  // As long as somebody listens, choosers are told of; a listener that comes just before the key comes too late now and then.
  page.on('filechooser', () => undefined);
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

const newest = async () => {
  const [stack] = await program.ask(endpoints.listStacks, {});
  return stack ? program.ask(endpoints.readStack, { params: { id: stack.id } }) : undefined;
};
/** The names of the newest stack's pages without their endings, a minus behind dropped ones. */
const order = async () =>
  ((await newest())?.pageList ?? [])
    .map(({ fileName, dropped }) => fileName.replace(/\..*/, '') + (dropped ? '-' : ''))
    .join(' ');
/** Waits until the pages are in this order. */
async function ordered(wanted: string): Promise<void> {
  await until(async () => (await order()) === wanted).catch(() => undefined);
  expect(await order()).toBe(wanted);
}

async function sheet(name: string): Promise<string> {
  const path = join(folder, `${name}.pdf`);
  writeFileSync(path, await textPdf(`Sheet ${name} of a letter\nthat goes on below`));
  return path;
}
/** Files chosen when the program asks for some. */
async function whenAsked(what: () => Promise<unknown>, ...names: string[]): Promise<void> {
  const [chooser] = await Promise.all([page.waitForEvent('filechooser'), what()]);
  await chooser.setFiles(await Promise.all(names.map(sheet)));
}
const inRibbon = (number: number) =>
  page.getByRole('list', { name: 'Pages taken in' }).getByRole('button', { name: new RegExp(`^Page ${number}\\b`) });

describe('the ribbon of pages', () => {
  beforeEach(async () => {
    // Pictures become one stack; here a sheet, and two that are added to it.
    await page.setInputFiles('input[type=file]', await sheet('a'));
    await inRibbon(1).waitFor();
    await whenAsked(() => page.keyboard.press('a'), 'b', 'c');
    await ordered('a b c');
    await inRibbon(3).waitFor();
  });

  it('takes pages in between, moves them with keys and mouse, drops them and brings them back', async () => {
    await inRibbon(2).click();
    await whenAsked(() => page.getByRole('button', { name: /^Insert before/ }).click(), 'x');
    await ordered('a x b c');
    await page.getByText('Next pages go before page').waitFor();
    await inRibbon(4).waitFor();
    await page.keyboard.press('Escape');
    await page.getByRole('button', { name: /^Add pages here/ }).waitFor();

    await page.keyboard.press('Alt+ArrowLeft');
    await ordered('a b x c');
    await page.keyboard.press('Delete');
    await ordered('a b- x c');
    await page.keyboard.press('Delete');
    await ordered('a b x c');

    const [from, to] = [(await inRibbon(4).boundingBox())!, (await inRibbon(1).boundingBox())!];
    await page.mouse.move(from.x + 20, from.y + 40);
    await page.mouse.down();
    await page.mouse.move(to.x + 30, to.y + 40, { steps: 8 });
    await page.mouse.up();
    await ordered('c a b x');
    await page.keyboard.press('Control+z');
    await ordered('a b x c');
  });

  it('takes a page again: the new one stands in its place, both can be compared, and either one kept', async () => {
    await inRibbon(2).click();
    await whenAsked(() => page.keyboard.press('t'), 'b2');
    await ordered('a b- b2 c');
    await inRibbon(4).waitFor();
    await inRibbon(3).click();
    await page.keyboard.press('v');
    await page.getByRole('heading', { name: 'The same sheet twice' }).waitFor();
    await page.getByRole('region', { name: 'Left: page 2' }).getByText('dropped').waitFor();
    await page.keyboard.press('+');
    await page.keyboard.press('l');
    await ordered('a b b2- c');
    // Back where it came from, with the page that it was at.
    await inRibbon(3).waitFor();
    await page.getByRole('button', { name: 'Undo' }).click();
    await ordered('a b- b2 c');
  });

  it('adds pages to a document that waits in Check', async () => {
    const { id } = (await newest())!;
    const { documents } = await program.ask(endpoints.sortStack, { params: { id } });
    const read = async () => (await program.ask(endpoints.readDocument, { params: { id: documents[0] } })).pageList;
    await page.goto(`${program.address}/check/${documents[0]}`);
    await page.getByRole('button', { name: 'Add pages' }).click();
    await page.getByText('Pages are added to').waitFor();
    await page.setInputFiles('input[type=file]', await sheet('d'));
    await until(async () => (await read()).length === 4);
    await inRibbon(4).click();
    await page.keyboard.press('Alt+ArrowLeft');
    await until(async () => (await read()).map(({ fileName }) => fileName[0]).join('') === 'abdc');
    await page.keyboard.press('Delete');
    await until(async () => (await read()).length === 3);
    await page.getByRole('button', { name: 'Bring it back' }).click();
    await until(async () => (await read()).length === 4);
    await page.getByRole('button', { name: 'Done' }).click();
    await page.getByRole('heading', { name: '1 of 1' }).waitFor();
  });
});

it('makes pages of several receipts in one photo, and puts them together again', async () => {
  const path = join(folder, 'Receipts.jpg');
  writeFileSync(path, await encodePhoto(renderView(makeScene(14, await demoStock(110, 12), 1280).view)));
  await page.setInputFiles('input[type=file]', path);
  await until(async () => ((await newest())?.pageList.length ?? 0) > 1);
  const apart = (await newest())!.pageList;
  await inRibbon(apart.length).waitFor();
  await page.getByRole('button', { name: /^Put together/ }).click();
  await until(async () => (await newest())!.pageList.filter(({ dropped }) => !dropped).length === 1);
  expect((await newest())!.pageList[0].recipe).toBeNull();
  await page.keyboard.press('Control+z');
  await until(async () => (await newest())!.pageList.every(({ dropped, recipe }) => !dropped && recipe !== null));
});

it('gives other pages the same look, those that are named', async () => {
  await page.setInputFiles('input[type=file]', await sheet('a'));
  await inRibbon(1).waitFor();
  await whenAsked(() => page.keyboard.press('a'), 'b', 'c', 'd');
  await inRibbon(4).waitFor();
  await page.keyboard.press('e');
  await page.getByRole('radio', { name: /^Black and white/ }).click();
  await page.keyboard.press('a');
  await page.getByLabel('Pages', { exact: true }).fill('3-4');
  await page.getByText('2 other pages', { exact: true }).waitFor();
  await page.keyboard.press('Enter');
  const looks = async () => (await newest())!.pageList.map(({ recipe }) => recipe?.look ?? '').join(' ');
  await until(async () => (await looks()) === 'bilevel  bilevel bilevel');
});

it('has a stand-in camera, chosen like any other: papers are laid under it and taken by themselves', async () => {
  await page.getByRole('button', { name: /^Camera( k)?$/ }).click();
  await page.getByLabel('Camera', { exact: true }).selectOption({ label: 'Stand-in camera: papers on a desk' });
  await until(async () => ((await newest())?.pageList.length ?? 0) >= 2);
  await page.getByLabel('by itself').uncheck();
  await until(async () => (await newest())!.pageList.every(({ recipe }) => recipe?.corners));
});

it('works on a phone: a tap takes a page, and nothing runs off the screen', async () => {
  await page.context().close();
  const context = await browser.newContext({ viewport: { width: 390, height: 844 }, hasTouch: true, isMobile: true });
  page = await context.newPage();
  page.on('pageerror', (error) => errors.push(error.message));
  await page.goto(program.entrance());
  await page.goto(`${program.address}/capture`);
  await page.getByRole('button', { name: /^Camera( k)?$/ }).tap();
  await page.getByLabel('Camera', { exact: true }).selectOption({ label: 'Stand-in camera: papers on a desk' });
  await page.getByText(/^(Hold still|Lay a page)/).waitFor();
  await page.getByLabel('by itself').uncheck();
  await page.getByLabel('What the camera sees').tap();
  await page.getByRole('button', { name: /^Take it/ }).tap();
  await until(async () => ((await newest())?.files.length ?? 0) === 2);
  await page.getByRole('button', { name: /^\d pages taken/ }).tap();
  await inRibbon(2).tap();
  await page.getByRole('button', { name: 'Taken in' }).tap();
  await page.getByRole('link', { name: /^Sort it/ }).waitFor();
  const [wide, screen] = await page.evaluate(() => [document.documentElement.scrollWidth, window.innerWidth]);
  expect(wide).toBeLessThanOrEqual(screen);
});
