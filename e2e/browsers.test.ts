import { randomUUID } from 'node:crypto';
import { existsSync, readdirSync } from 'node:fs';
import { join } from 'node:path';
import { endpoints } from '@crow/contract/endpoints';
import { textPdf } from '@crow/server/testing/made';
import { openBrowser } from './browser';
import { ENTER, openFirefox, openWebKit, Remote } from './otherBrowsers';
import { Program, until } from './program';
import { PATIENCE_MS } from './patience';

let program: Program;
beforeAll(async () => void (program = await Program.start()));
afterAll(() => program?.end());

/** Chromium, asked for what the others are asked for. */
async function openChromium(): Promise<Remote> {
  const browser = await openBrowser();
  const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
  return {
    goTo: async (address) => void (await page.goto(address)),
    resize: (width, height) => page.setViewportSize({ width, height }),
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

/** As small as phones are, less the bars of the browser; some browsers go no narrower than a little more. */
const PHONE = { width: 360, height: 740 };
const NARROW = 500;
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
  /** Presses the middle of an element, the first that is to be seen. @param words that it begins with */
  const pressOn = async (selector: string, words = '') => {
    const found = () =>
      remote.evaluate<[number, number] | null>(
        `(() => { for (const each of document.querySelectorAll(${JSON.stringify(selector)})) {
           const box = each.getBoundingClientRect();
           if (box.width > 0 && each.innerText.trim().startsWith(${JSON.stringify(words)}))
             return [box.x + box.width / 2, box.y + box.height / 2];
         } return null; })()`,
      );
    await until(async () => (await found()) !== null, PATIENCE_MS, text);
    await remote.press(...(await found())!);
  };
  /** Chooses a file where the program asks for one, as the device’s own chooser or camera would. */
  const choose = (fileName: string, bytes: Uint8Array) =>
    remote.evaluate(
      `(() => { const chosen = new DataTransfer();
         const bytes = Uint8Array.from(atob(${JSON.stringify(Buffer.from(bytes).toString('base64'))}), (each) => each.charCodeAt(0));
         chosen.items.add(new File([bytes], ${JSON.stringify(fileName)}, { type: 'application/pdf' }));
         const input = document.querySelector('input[type=file]');
         input.files = chosen.files;
         input.dispatchEvent(new Event('change', { bubbles: true }));
         return true; })()`,
    );

  it('every station opens, and a paper is filed', async () => {
    const id = await paper(name);
    await remote.goTo(program.entrance());
    await until(async () => (await text()).includes('Capture'), PATIENCE_MS, text);
    for (const [path, shows] of STATIONS) {
      await remote.goTo(program.address + path);
      await until(
        async () => (await text()).includes(shows),
        PATIENCE_MS,
        async () => [path, await text()],
      );
    }
    await remote.goTo(`${program.address}/check/${id}`);
    await pressOn('[data-folder] input');
    await remote.type(`For ${name}`);
    await until(async () => (await text()).includes('New folder'), PATIENCE_MS, text);
    await remote.type(ENTER);
    await pressOn('[data-file-it]');
    await until(
      async () => existsSync(join(program.shelf, `For ${name}`)),
      PATIENCE_MS,
      async () => [readdirSync(program.shelf), await text()],
    );
    // Changes come by themselves: the paper is told to be on the shelf without asking again.
    await remote.goTo(`${program.address}/shelf`);
    await until(async () => (await text()).includes(`For ${name}`), PATIENCE_MS, text);
    await program.ask(endpoints.makeFolder, { body: { path: `Live in ${name}` } });
    await until(async () => (await text()).includes(`Live in ${name}`), PATIENCE_MS, text);
  });

  it('a paper goes its way in a window as narrow as a phone, and nothing runs off the screen', async () => {
    await remote.resize(PHONE.width, PHONE.height);
    await remote.goTo(program.entrance());
    await remote.goTo(`${program.address}/capture`);
    await until(
      () => remote.evaluate<boolean>(`innerWidth < ${NARROW} && !!document.querySelector('input[type=file]')`),
      PATIENCE_MS,
      () => remote.evaluate('[innerWidth, outerWidth, document.body.innerText]'),
    );
    await choose(
      'Skeins.pdf',
      await textPdf(`Saltgate Yarns Ltd\nDelivery note\nOn a phone in ${name}\nTwelve skeins`),
    );
    const stacks = () => program.ask(endpoints.listStacks, {});
    await until(
      async () =>
        (await stacks()).some(({ name, pages, read }) => name.startsWith('Skeins') && pages > 0 && read === pages),
      PATIENCE_MS,
      async () => [await stacks(), await text()],
    );
    await remote.goTo(`${program.address}/sort`);
    await pressOn('button', 'To Check');
    const waiting = () => program.ask(endpoints.listWaiting, {});
    await until(async () => (await waiting()).length === 1, PATIENCE_MS, text);
    await remote.goTo(`${program.address}/check`);
    await pressOn('button[aria-label="Name, folder, and what was read"]');
    await pressOn('[data-folder] input');
    await remote.type(`Hand in ${name}`);
    await until(async () => (await text()).includes('New folder'), PATIENCE_MS, text);
    await remote.type(ENTER);
    await pressOn('[data-file-it]');
    await until(
      async () => existsSync(join(program.shelf, `Hand in ${name}`)),
      PATIENCE_MS,
      async () => [readdirSync(program.shelf), await text()],
    );
    for (const [path, shows] of STATIONS) {
      await remote.goTo(program.address + path);
      const shown = path === '/capture' ? 'Drop your papers here' : path === '/check' ? 'Nothing waits' : shows;
      await until(
        async () => (await text()).includes(shown),
        PATIENCE_MS,
        async () => [path, await text()],
      );
      expect([path, await remote.evaluate('document.documentElement.scrollWidth - innerWidth')]).toEqual([path, 0]);
    }
  });
});
