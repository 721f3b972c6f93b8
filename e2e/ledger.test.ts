import { randomUUID } from 'node:crypto';
import { readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { Browser, Page } from 'playwright-core';
import { endpoints } from '@crow/contract/endpoints';
import { scratchFolder, textPdf } from '@crow/server/testing/made';
import { openBrowser, openWindow } from './browser';
import { Program, until } from './program';

const folder = scratchFolder();
let program: Program;
let browser: Browser;
let page: Page;
let errors: string[];

const bill = (who: string, number: string, date: string, net: string, tax: string, total: string) =>
  textPdf(
    `${who}\nMill Lane 4, Wickford\n\nInvoice\nInvoice number: ${number}\nInvoice date: ${date}\n\nNet ${net}\nVAT 20% ${tax}\nTotal ${total}`,
  );
const ledger = () => program.ask(endpoints.readLedger, {});
const book = () => page.getByRole('grid', { name: 'The book' });
const row = (text: string) => book().getByRole('row').filter({ hasText: text });

beforeAll(async () => {
  [program, browser] = await Promise.all([Program.start(), openBrowser()]);
  for (const [name, bytes] of [
    ['yarn.pdf', await bill('Saltgate Yarns Ltd', 'S-118', '2 October 2026', '£100.00', '£20.00', '£120.00')],
    ['dye.pdf', await bill('Pell Works Ltd', 'P-9', '5 October 2026', '£40.00', '£8.00', '£48.00')],
  ] as const) {
    const stack = randomUUID();
    await program.sendFile(name, bytes, { stack });
    await until(async () =>
      (await program.ask(endpoints.listStacks, {})).some(
        ({ id, pages, read }) => id === stack && pages > 0 && read === pages,
      ),
    );
    await program.ask(endpoints.sortStack, { params: { id: stack } });
  }
});
beforeEach(async () => {
  ({ page, errors } = await openWindow(browser, program.session, '/check'));
});
afterEach(async () => {
  expect(errors).toEqual([]);
  await page.context().close();
});
afterAll(async () => {
  await browser?.close();
  await program?.end();
});

it('bills go into the books by the key that files them, under the category that is chosen', async () => {
  await page.getByRole('heading', { name: '1 of 2' }).waitFor();
  await page.getByRole('button', { name: 'entered under Materials' }).waitFor();
  await page.getByLabel('Folder', { exact: true }).fill('Workshop');
  await page.getByRole('option', { name: /^New folder/ }).click();
  await page.keyboard.press('Control+Enter');
  await page.getByRole('heading', { name: '1 of 1' }).waitFor();
  await page.getByRole('button', { name: '! entered under no category' }).click();
  await page.getByRole('region', { name: 'Books' }).getByLabel('Category').selectOption('Work by others');
  await page.getByRole('button', { name: 'entered under Work by others' }).waitFor();
  await page.getByLabel('Folder', { exact: true }).fill('Workshop');
  await page
    .getByRole('option', { name: /Workshop/ })
    .first()
    .click();
  await page.keyboard.press('Control+Enter');
  await page.getByRole('heading', { name: 'Nothing waits to be checked' }).waitFor();

  await page.keyboard.press('5');
  await row('Saltgate Yarns Ltd').getByText('Materials').waitFor();
  await row('Pell Works Ltd').getByText('Work by others').waitFor();
  // Its paper lies open beside the line, by keys alone.
  await book().focus();
  await page.keyboard.press('End');
  await page.keyboard.press('Enter');
  await page.getByRole('complementary').getByRole('img', { name: 'Page 1 of' }).waitFor();
  await page.keyboard.press('Escape');
  await page.getByRole('complementary').waitFor({ state: 'detached' });
});

it('an entry is typed in one line, and a statement’s lines are tied to what they pay by one key', async () => {
  await page.goto(`${program.address}/ledger`);
  await book().waitFor();
  await page.keyboard.press('n');
  const line = page.getByRole('form', { name: 'A new entry' });
  await line.getByLabel('Date').fill('2026-10-08');
  await line.getByLabel('Who').fill('Quayside Parcels');
  await line.getByLabel('Number').fill('QP-551');
  await line.getByLabel('Total').fill('31.40');
  await page.keyboard.press('Enter');
  await row('Quayside Parcels').getByText('no paper').waitFor();
  await page.keyboard.press('Escape');

  const path = join(folder, 'bank.csv');
  writeFileSync(
    path,
    'Date,Description,Paid out,Paid in,Balance\n09/10/2026,SALTGATE YARNS S-118,120.00,,880.00\n12/10/2026,PELL WORKS P-9,48.00,,832.00\n12/10/2026,QUAYSIDE PARCELS QP551,31.40,,800.60\n15/10/2026,CORNER GROCER,3.10,,797.50\n',
  );
  await page.getByRole('button', { name: 'Statements' }).click();
  await page.setInputFiles('[data-statements]', path);
  await page.getByRole('button', { name: 'Take in 4 lines' }).click();
  await page.getByText('4 lines of “bank.csv” are in the books.', { exact: true }).waitFor();
  await page.getByRole('button', { name: 'The book' }).click();
  await page.getByRole('button', { name: /^Tie the 3 sure ones/ }).waitFor();
  await page.keyboard.press('t');
  await until(async () => (await ledger()).entries.every(({ paid, units }) => paid === units));
  await row('Saltgate Yarns Ltd').getByText('✓ paid').waitFor();
  // What nothing pays stays to be seen; nothing is left to decide on.
  await row('CORNER GROCER')
    .getByRole('button', { name: /^Choose the line/ })
    .waitFor();
  await page.getByLabel('0 ties to decide on').waitFor();
});

it('a line for which no bill comes is entered by hand once, and those like it by one key', async () => {
  await page.goto(`${program.address}/ledger`);
  await row('CORNER GROCER')
    .getByRole('button', { name: /^Enter CORNER GROCER/ })
    .click();
  const line = page.getByRole('form', { name: /^Enter the line of/ });
  await line.getByLabel('Category').selectOption('House');
  await page.keyboard.press('Tab');
  await line.getByRole('button', { name: /^Enter it/ }).click();
  await row('Corner Grocer').getByText('✓ paid').waitFor();

  const path = join(folder, 'later.csv');
  writeFileSync(
    path,
    'Date,Description,Paid out,Paid in,Balance\n20/10/2026,CORNER GROCER,4.20,,793.30\n21/10/2026,CORNER GROCER,5.30,,788.00\n',
  );
  await page.getByRole('button', { name: 'Statements' }).click();
  await page.setInputFiles('[data-statements]', path);
  await page.getByRole('button', { name: 'Take in 2 lines' }).click();
  await page.getByRole('button', { name: 'The book' }).click();
  await page.getByRole('button', { name: /^Enter 2 lines as before/ }).waitFor();
  await page.keyboard.press('b');
  await until(async () => (await ledger()).entries.filter(({ who }) => who === 'Corner Grocer').length === 3);
});

it('sheets whose files are proven go at the shredder, by the binder they lie in', async () => {
  await page.goto(`${program.address}/ledger?view=sheets`);
  const places = page.getByRole('complementary', { name: 'Boxes and binders' });
  await places.getByLabel('Name of another box or binder').fill('Binder 2026');
  await page.keyboard.press('Enter');
  await places.getByRole('button', { name: /^Binder 2026/ }).waitFor();
  // They came as files; printed, they lie somewhere.
  const { sheets, places: all } = await program.ask(endpoints.listSheets, {});
  const ids = sheets.map(({ documentId }) => documentId);
  await program.ask(endpoints.changeSheets, { body: { ids, placeId: all[0].id } });
  await page.getByRole('button', { name: /^Not proven yet 2/ }).click();
  await page.getByText('! its file was not compared').first().waitFor();
  await page.getByRole('button', { name: 'Compare files' }).click();
  await page.getByText(/^Files were compared on/).waitFor();
  const [download] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('link', { name: 'Save one' }).click(),
  ]);
  await page.getByLabel('An archive of the shelf').setInputFiles(await download.path());
  await page.getByRole('button', { name: /^May go 2/ }).click();
  await page.getByRole('checkbox', { name: /^Binder 2026/ }).check();
  await page.getByRole('button', { name: 'They are shredded' }).click();
  await page.getByRole('button', { name: /^Gone 2/ }).waitFor();
});

it('a quarter is closed and goes to whoever does the accounts as an archive', async () => {
  await page.goto(`${program.address}/ledger?view=sums`);
  await page
    .getByRole('table', { name: '2026 in GBP' })
    .getByRole('row', { name: /Materials/ })
    .getByText('120.00')
    .first()
    .waitFor();
  const period = page.getByRole('region', { name: 'Hand a period over' });
  await period.getByLabel('From').fill('2026-10-01');
  await period.getByLabel('To').fill('2026-12-31');
  await period.getByRole('button', { name: 'Check and close it' }).click();
  await until(async () => (await ledger()).entries.every(({ checkedAt }) => checkedAt !== null));
  const [download] = await Promise.all([
    page.waitForEvent('download'),
    period.getByRole('button', { name: /^Save for the accountant/ }).click(),
  ]);
  expect(download.suggestedFilename()).toBe('Books 2026-10-01 to 2026-12-31.zip');
  expect(
    readFileSync(await download.path())
      .subarray(0, 2)
      .toString(),
  ).toBe('PK');
});
