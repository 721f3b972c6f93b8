import { Browser, Page } from 'playwright-core';
import { endpoints } from '@crow/contract/endpoints';
import { BATCH } from '@crow/demo/papers';
import { sheetsOf } from '@crow/standins/scanner/load';
import { StandInScanner, startScanner } from '@crow/standins/scanner/scanner';
import { openBrowser, openWindow } from './browser';
import { Program, until } from './program';
import { PATIENCE_MS } from './patience';

let program: Program;
let browser: Browser;
let scanner: StandInScanner;
beforeAll(async () => {
  [program, browser, scanner] = await Promise.all([
    Program.start(),
    openBrowser(),
    startScanner({ hurry: 6, announced: false, seed: 1 }),
  ]);
});
afterAll(async () => {
  await browser?.close();
  await program?.end();
  await scanner?.close();
});

const MOST_KEYS = 2;

it('takes the morning’s post from the feeder to the shelf with at most two keys a document, named and dated right', async () => {
  const { id: scannerId } = await program.ask(endpoints.addScanner, {
    body: { address: scanner.address.replace('http://', '') },
  });
  for (const paper of BATCH) scanner.machine.feeder.push(...(await sheetsOf(paper)));
  const sheets = scanner.machine.feeder.length;
  expect(sheets).toBeGreaterThanOrEqual(12);
  const { page, errors } = await openWindow(browser, program.session, `/capture?source=scanner&scanner=${scannerId}`);
  let keys = 0;
  const press = async (key: string) => {
    keys++;
    await page.keyboard.press(key);
  };

  await page.getByRole('button', { name: /^Scan( the next page)?( Enter)?$/ }).waitFor();
  await press('Enter');
  await page
    .getByRole('status')
    .filter({ hasText: `${sheets} pages scanned` })
    .first()
    .waitFor({ timeout: PATIENCE_MS });
  await press('2');
  await page.getByRole('button', { name: 'Sort', exact: true }).and(page.locator(':focus')).waitFor();
  await press('Enter');
  await page.getByText(`${BATCH.length} documents`, { exact: true }).waitFor({ timeout: PATIENCE_MS });
  const [{ id: stack }] = await program.ask(endpoints.listStacks, {});
  await until(async () => (await program.ask(endpoints.readStack, { params: { id: stack } })).read >= sheets);
  await press('Control+Enter');
  await checkAll(page, press);

  const filed = (await program.ask(endpoints.listFolders, {})).map(({ id }) =>
    program.ask(endpoints.listDocuments, { params: { id }, query: {} }),
  );
  const documents = (await Promise.all(filed)).flat();
  expect(documents.map(({ date, vendor }) => `${date} ${vendor}`).sort()).toEqual(
    BATCH.map(({ date, who }) => `${date} ${who}`).sort(),
  );
  expect(keys).toBeLessThanOrEqual(MOST_KEYS * BATCH.length);
  expect(errors).toEqual([]);
  // A dozen papers are read on the way.
});

/** Files one document after the other as it is proposed. */
async function checkAll(page: Page, press: (key: string) => Promise<void>): Promise<void> {
  for (let left = BATCH.length; left > 0; left--) {
    await page.getByRole('heading', { name: new RegExp(`^1 of ${left}$`) }).waitFor({ timeout: PATIENCE_MS });
    await page
      .getByRole('button', { name: /^File it/ })
      .and(page.locator(':enabled'))
      .waitFor();
    await until(async () => (await page.getByLabel('Name', { exact: true }).inputValue()) !== '');
    // Where it isn't clear where a paper goes, one of the likely folders has a key of its own.
    const folder = await page.getByLabel('Folder', { exact: true }).inputValue();
    await press(folder === '' ? 'Alt+1' : 'Control+Enter');
  }
  await until(async () => (await program.ask(endpoints.overview, {})).filed === BATCH.length);
}
