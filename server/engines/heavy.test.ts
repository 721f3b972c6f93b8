import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { resolve } from 'node:path';
import { pathToFileURL } from 'node:url';
import { build } from 'esbuild';
import { scanned } from '../testing/made';
import { heavyHere, heavyInThreads } from './heavy';
import { inspectFile, SourceInfo } from './sourceFile';

/** Inside the project, so that packages are found from it. */
let folder: string;
let threads: ReturnType<typeof heavyInThreads>;
let page: SourceInfo;
let entry: string;
beforeAll(async () => {
  folder = mkdtempSync(resolve('.crow/heavy-'));
  const { forNode } = (await import(pathToFileURL(resolve('scripts/bundle.mjs')).href)) as { forNode: object };
  entry = `${folder}/heavyThread.mjs`;
  await build({ ...forNode, splitting: false, entryPoints: ['server/heavyThread.ts'], outfile: entry });
  threads = heavyInThreads(entry);
  writeFileSync(`${folder}/page.jpg`, await scanned('Marlowe Dye Works\nInvoice\nTotal 118.20'));
  page = await inspectFile(`${folder}/page.jpg`, 'page.jpg');
});
afterAll(async () => {
  await threads?.close();
  rmSync(folder, { recursive: true, force: true });
});

it('computes the same in a thread as here', async () => {
  const [there, here] = [threads, heavyHere].map((heavy) => heavy.pictures(page, 0, 90, ['thumb'], null));
  expect((await there).get('thumb')).toEqual((await here).get('thumb'));
  const sheets = 'sheets';
  expect(await threads.sheets(page, 0, sheets)).toEqual(await heavyHere.sheets(page, 0, sheets));
});

it('leaves its own thread free meanwhile', async () => {
  let longest = 0;
  let last = performance.now();
  const ticking = setInterval(() => {
    longest = Math.max(longest, performance.now() - last);
    last = performance.now();
  }, 5);
  await Promise.all([threads.sheets(page, 0, 'papers'), threads.sheets(page, 0, 'papers')]);
  clearInterval(ticking);
  const began = performance.now();
  await heavyHere.sheets(page, 0, 'papers');
  expect(longest).toBeLessThan(0.8 * (performance.now() - began));
});

it('tells of what it can’t draw as the same problem', async () => {
  writeFileSync(`${folder}/cut.jpg`, Buffer.from('/9j/4AAQ', 'base64'));
  const broken = { ...page, path: `${folder}/cut.jpg`, name: 'cut.jpg' };
  await expect(threads.pictures(broken, 0, 0, ['thumb'], null)).rejects.toMatchObject({
    code: 'page-not-drawn',
    report: { happened: 'Page 1 of “cut.jpg” can’t be drawn.' },
  });
});

it('ends what takes too long, says so, and goes on with the next', async () => {
  const hasty = heavyInThreads(entry, { mostMs: 1 });
  const sheets = () => hasty.sheets(page, 0, 'sheets');
  await expect(sheets()).rejects.toMatchObject({ code: 'took-too-long' });
  await expect(sheets()).rejects.toMatchObject({ code: 'took-too-long' });
  await hasty.close();
});
