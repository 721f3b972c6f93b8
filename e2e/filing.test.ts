import { execFileSync } from 'node:child_process';
import { existsSync, statSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { Browser, Page } from 'playwright-core';
import { scanned, scratchFolder } from '@crow/server/testing/made';
import { openBrowser, openWindow } from './browser';
import { Program, until } from './program';

let program: Program;
let browser: Browser;
let page: Page;
let errors: string[];
const folder = scratchFolder();

beforeAll(async () => {
  program = await Program.start();
  browser = await openBrowser();
  ({ page, errors } = await openWindow(browser, program.session));
});
afterEach(() => expect(errors).toEqual([]));
afterAll(async () => {
  await browser?.close();
  await program?.end();
});

const name = () => page.getByLabel('Name', { exact: true });

it('names papers by a pattern that is tried on them while it is typed', async () => {
  const text =
    'Saltgate Yarns Ltd\nInvoice\nInvoice no. 1302\nDate 11 November 2026\nDue date 11 December 2026\nTotal £ 186.60';
  const path = join(folder, 'bill.jpg');
  writeFileSync(path, await scanned(text, { dpi: 200 }));
  await page.setInputFiles('input[type=file]', path);
  await page.getByRole('link', { name: 'Sort it' }).click();
  await page.getByRole('button', { name: /^To Check/ }).click();
  await until(async () => (await name().inputValue()) === '2026-11-11 Saltgate Yarns Ltd Invoice');
  // Nothing was filed before: kind and year say where it may go.
  await page.getByRole('button', { name: /^Invoices \/ 2026 \(new\)/ }).waitFor();

  await page.getByRole('link', { name: 'change how' }).click();
  await page.getByLabel('Pattern of the name').fill('{who}[ no. {number}');
  await page.getByText('A “[” has no “]” after it.').first().waitFor();
  expect(await page.getByRole('button', { name: 'Keep' }).isDisabled()).toBe(true);
  await page.getByLabel('Pattern of the name').fill('{who}[ no. {number}] {date:D.M.YY}');
  await page.getByLabel('On your papers').getByText('Saltgate Yarns Ltd no. 1302 11.11.26').waitFor();
  await page.getByRole('button', { name: 'Keep' }).click();
  await page.getByRole('button', { name: 'Back to Check' }).click();
  await until(async () => (await name().inputValue()) === 'Saltgate Yarns Ltd no. 1302 11.11.26');
});

it('chooses a fact by keys from what the paper says, and takes that back', async () => {
  await page.getByLabel('Date', { exact: true }).focus();
  await page.getByRole('button', { name: 'Date: what the paper says' }).waitFor();
  await page.keyboard.press('ArrowDown');
  const list = page.getByRole('listbox', { name: 'What the paper says' });
  expect(await list.getByRole('option').allInnerTexts()).toEqual([expect.stringMatching(/2026-12-11\s+Due date/)]);
  await page.keyboard.press('Enter');
  await until(async () => (await name().inputValue()) === 'Saltgate Yarns Ltd no. 1302 11.12.26');
  await page.getByRole('button', { name: 'Date: back to what was read' }).click();
  await until(async () => (await name().inputValue()) === 'Saltgate Yarns Ltd no. 1302 11.11.26');
});

it('corrects a word where it stands, and files it in the size that was chosen', async () => {
  // Somebody who is in a note picks no word by clicking it twice.
  await page.getByLabel('Due', { exact: true }).focus();
  await page.locator('.text-layer span', { hasText: 'Saltgate' }).first().dblclick();
  await page.getByLabel('What “Saltgate” really says').fill('Marlowe');
  await page.keyboard.press('Enter');
  await page.getByText('“Saltgate” is now “Marlowe”.').first().waitFor();
  await until(async () => (await name().inputValue()) === 'Marlowe Yarns Ltd no. 1302 11.11.26');

  await page.getByLabel('Size of the PDF').click();
  const sizes = page.getByRole('option');
  await until(async () => !(await sizes.allInnerTexts()).some((text) => text.includes('weighing')));
  const [full, , small] = (await sizes.allInnerTexts()).map((text) => /([\d.]+) kB/.exec(text)![1]).map(Number);
  expect(small).toBeLessThan(full / 2);
  await page.getByRole('option', { name: /^Small/ }).click();
  await page.getByRole('button', { name: /^Invoices \/ 2026 \(new\)/ }).click();
  await page.getByRole('button', { name: /^File it/ }).click();
  const filed = join(program.shelf, 'Invoices/2026/Marlowe Yarns Ltd no. 1302 11.11.26.pdf');
  await until(() => existsSync(filed));
  expect(statSync(filed).size / 1000).toBeLessThan(small + 1);
  expect(execFileSync('pdftotext', [filed, '-'], { encoding: 'utf8' })).toContain('Marlowe Yarns');
});

it('says what a paper is, and answers questions about it with the place', async () => {
  await page.keyboard.press('/');
  await page.getByRole('searchbox').fill('marlowe total>100');
  await page.getByRole('button', { name: /^Marlowe Yarns Ltd no\. 1302/ }).click();
  await page.getByRole('button', { name: 'What it says (i)' }).click();
  const about = page.getByLabel('About this document');
  await about.getByText(/^Invoice 1302 from Marlowe Yarns Ltd of 2026-11-11 over 186\.60 GBP/).waitFor();
  const question = about.getByLabel('Ask about this paper');
  await question.fill('when is it due?');
  await question.press('Enter');
  await about.getByRole('strong').filter({ hasText: '2026-12-11' }).waitFor();
  await page.locator('[data-hit=current]').first().waitFor();
  await question.fill('who signed it?');
  await question.press('Enter');
  await about.getByText('Nothing on the paper answers that.').waitFor();
});
