import { randomUUID } from 'node:crypto';
import { existsSync, readdirSync } from 'node:fs';
import { join } from 'node:path';
import { endpoints } from '@crow/contract/endpoints';
import { textPdf } from '@crow/server/testing/made';
import { openBrowser } from './browser';
import { ENTER, openFirefox, openWebKit, Remote } from './otherBrowsers';
import { Program, until } from './program';

let program: Program;
beforeAll(async () => void (program = await Program.start()));
afterAll(() => program?.end());

/** Chromium, asked for what the others are asked for. */
async function openChromium(): Promise<Remote> {
  const browser = await openBrowser();
  const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
  return {
    goTo: async (address) => void (await page.goto(address)),
    evaluate: (expression) => page.evaluate(expression),
    press: (x, y) => page.mouse.click(x, y),
    type: async (text) => {
      for (const key of text) await page.keyboard.press(key === ENTER ? 'Enter' : key === ' ' ? 'Space' : key);
    },
    close: () => browser.close(),
  };
}

/** A paper that waits in Check; its id. */
async function paper(name: string): Promise<string> {
  const stack = randomUUID();
  const text = `Saltgate Yarns Ltd\nDelivery note\nThe paper for ${name}\nTwelve skeins`;
  await program.sendFile(`${name}.pdf`, await textPdf(text), { stack });
  await until(async () => {
    const stacks = await program.ask(endpoints.listStacks, {});
    return stacks.some(({ id, pages, read }) => id === stack && pages > 0 && read === pages);
  });
  const { documents } = await program.ask(endpoints.sortStack, { params: { id: stack } });
  return documents[0];
}

const STATIONS: [path: string, shows: string][] = [
  ['/capture', 'Taken in'],
  ['/sort', 'stack'],
  ['/check', 'Name'],
  ['/shelf', 'Shelf'],
  ['/shelf?find=', 'Type a word'],
  ['/filing', 'How papers are filed'],
];

describe.each([
  ['Chromium', openChromium],
  ['Firefox', openFirefox],
  ['WebKit', openWebKit],
])('in %s', (name, open) => {
  let remote: Remote;
  beforeAll(async () => void (remote = await open()));
  afterAll(() => remote?.close());

  const text = () => remote.evaluate<string>('document.body.innerText');
  /** Presses the middle of an element. */
  const pressOn = async (selector: string) => {
    const found = () =>
      remote.evaluate<[number, number] | null>(
        `(() => { const box = document.querySelector(${JSON.stringify(selector)})?.getBoundingClientRect(); return box ? [box.x + box.width / 2, box.y + box.height / 2] : null; })()`,
      );
    await until(async () => (await found()) !== null, 30_000, text);
    await remote.press(...(await found())!);
  };

  it('every station opens, and a paper is filed', async () => {
    const id = await paper(name);
    await remote.goTo(program.entrance());
    await until(async () => (await text()).includes('Capture'), 30_000, text);
    for (const [path, shows] of STATIONS) {
      await remote.goTo(program.address + path);
      await until(
        async () => (await text()).includes(shows),
        30_000,
        async () => [path, await text()],
      );
    }
    await remote.goTo(`${program.address}/check/${id}`);
    await pressOn('[data-folder] input');
    await remote.type(`For ${name}`);
    await until(async () => (await text()).includes('New folder'), 30_000, text);
    await remote.type(ENTER);
    await pressOn('[data-file-it]');
    await until(
      async () => existsSync(join(program.shelf, `For ${name}`)),
      60_000,
      async () => [readdirSync(program.shelf), await text()],
    );
    // Changes come by themselves: the paper is told to be on the shelf without asking again.
    await remote.goTo(`${program.address}/shelf`);
    await until(async () => (await text()).includes(`For ${name}`), 30_000, text);
    await program.ask(endpoints.makeFolder, { body: { path: `Live in ${name}` } });
    await until(async () => (await text()).includes(`Live in ${name}`), 30_000, text);
  });
});
