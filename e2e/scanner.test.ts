import { readdirSync, renameSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { Browser, Page } from 'playwright-core';
import { rasterise } from '@crow/demo/capture';
import { BATCH, FILED } from '@crow/demo/papers';
import { endpoints } from '@crow/contract/endpoints';
import { scratchFolder, textPdf } from '@crow/server/testing/made';
import { sheetFromPicture, sheetsOf, slipsOnGlass } from '@crow/standins/scanner/load';
import { StandInScanner, startScanner } from '@crow/standins/scanner/scanner';
import { openBrowser, openWindow } from './browser';
import { Program, until } from './program';
import { PATIENCE_MS } from './patience';

let program: Program;
let browser: Browser;
let scanner: StandInScanner;
let page: Page;
let errors: string[];

beforeAll(async () => {
  [program, browser, scanner] = await Promise.all([
    Program.start(),
    openBrowser(),
    startScanner({ hurry: 6, announced: false, seed: 1 }),
  ]);
});
beforeEach(async () => {
  ({ page, errors } = await openWindow(browser, program.session, '/capture?source=scanner'));
  scanner.machine.feeder.length = 0;
  scanner.machine.letGo();
  scanner.machine.clear();
});
afterEach(async () => {
  await page.context().close();
  await program.clear();
  // An address where nothing answers, or a folder that is not there, is told in words; the browser mentions it, too.
  expect(errors.filter((error) => !/status of (400|502)/.test(error))).toEqual([]);
});
afterAll(async () => {
  await browser?.close();
  await program?.end();
  await scanner?.close();
});

/** Puts the first papers of the morning's post into the feeder, each sheet with a blank back. */
async function load(papers: number): Promise<void> {
  for (const paper of BATCH.slice(0, papers)) scanner.machine.feeder.push(...(await sheetsOf(paper)));
}
const latestStack = async () => (await program.ask(endpoints.listStacks, {})).at(0);
const scanButton = () => page.getByRole('button', { name: /^Scan( the next page)?( Enter)?$/ });
const ownPreset = () =>
  page.getByRole('region', { name: 'Scanner' }).getByRole('button', { name: 'Long letters', exact: true });
const status = (words: RegExp) =>
  page.getByRole('status').filter({ hasText: words }).first().waitFor({ timeout: PATIENCE_MS });

it('asks a scanner by its address, scans both sides of a pile, and proposes its documents without the blank backs', async () => {
  await page.getByText('No scanner is known yet.').waitFor();
  await page.getByRole('button', { name: /By its address/ }).click();
  await page.getByLabel(/^Address/).fill('127.0.0.1:9');
  await page.getByRole('button', { name: 'Ask it' }).click();
  await page.getByText('The scanner does not answer.').first().waitFor();
  await page.getByLabel(/^Address/).fill(scanner.address.replace('http://', ''));
  await page.getByRole('button', { name: 'Ask it' }).click();
  await page.getByLabel('Both sides').check();
  await page.getByLabel('Resolution').selectOption('200');
  await load(3);
  await scanButton().click();
  await status(/8 pages scanned/);
  await page.getByRole('link', { name: 'Sort it' }).first().click();
  // An invoice, a letter of two sheets, an invoice: numbers 2, 4, 6 and 8 are backs with nothing on them.
  await page.getByText('3 documents', { exact: true }).waitFor({ timeout: PATIENCE_MS });
  for (const number of [2, 4, 6, 8])
    await page.getByRole('option', { name: new RegExp(`^Page ${number}, blank`) }).waitFor();
  // What is proposed is said with its reason where the gap is looked at.
  await page.getByRole('option', { name: /^Page 3,/ }).click();
  await page.getByText(/Before page 3: Surely a new document begins here: /).waitFor();
  // A blank page that is had back stays, whatever is proposed later.
  await page.getByRole('option', { name: /^Page 2,/ }).click();
  await page.keyboard.press('Delete');
  await page.getByRole('option', { name: /^Page 2, document/ }).waitFor();
});

it('tells of a jam, keeps what came through, and goes on in the same stack', async () => {
  await page.getByLabel('Both sides').uncheck();
  await load(2);
  scanner.machine.jamsAfter = 2;
  await page.keyboard.press('Enter');
  await status(/A sheet is jammed in the feeder\..*2 pages came through/);
  scanner.machine.clear();
  await page.keyboard.press('Enter');
  await status(/1 page scanned/);
  await until(async () => (await latestStack())?.pages === 3);
  expect((await latestStack())?.name).toMatch(/^Scan, /);
});

it('scans page after page on the glass with one key, then the feeder, into one stack', async () => {
  await page.getByLabel('From').selectOption('Glass');
  const glass = await sheetsOf(BATCH[0]);
  for (const number of [1, 2]) {
    scanner.machine.glass = glass[0];
    await page.keyboard.press('Enter');
    await until(async () => (await latestStack())?.pages === number);
    await status(/1 page scanned/);
  }
  await load(1);
  await page.getByLabel('From').selectOption('Whichever has paper');
  await page.keyboard.press('Enter');
  await until(async () => (await latestStack())?.pages === 3);
});

it('keeps settings under a name, scans like that with one click, and remembers the last ones', async () => {
  await page.getByLabel('From').selectOption('Feeder');
  await page.getByLabel('Resolution').selectOption('100');
  await page.getByLabel('One document').check();
  await page.getByRole('button', { name: /Keep these settings/ }).click();
  await page.getByRole('textbox', { name: 'Name' }).fill('Long letters');
  await page.getByRole('button', { name: 'Keep', exact: true }).click();
  await ownPreset().waitFor();
  await page.getByLabel('Resolution').selectOption('300');
  await load(2);
  await ownPreset().click();
  await status(/3 pages scanned/);
  // The same from the rail, from wherever one is.
  await load(1);
  await page.keyboard.press('4');
  await page.getByRole('list', { name: 'Scan like this' }).getByRole('button', { name: 'Long letters' }).click();
  await status(/1 page scanned/);
  await page.reload();
  await page.getByLabel('Resolution').waitFor();
  expect(await page.getByLabel('Resolution').inputValue()).toBe('100');
  // It was said to be one document, so it stays whole.
  const whole = async () => (await program.ask(endpoints.listStacks, {})).find(({ pages }) => pages >= 3);
  await until(async () => {
    const stack = await whole();
    return stack !== undefined && stack.read === stack.pages;
  });
  await page.goto(`${program.address}/sort/${(await whole())!.id}`);
  await page.getByText('1 document', { exact: true }).waitFor();
});

it('stops when told to, and says so plainly when there is no paper', async () => {
  await page.getByLabel('From').selectOption('Feeder');
  await scanButton().click();
  await page.getByText('There is no paper in the feeder.').first().waitFor();
  await load(5);
  scanner.machine.holdsAfter = 1;
  await scanButton().click();
  await status(/1 page so far/);
  await page.keyboard.press('Escape');
  await status(/Stopped; 1 page kept/);
  expect(scanner.machine.feeder.length).toBeGreaterThan(0);
});

it('shows what lies on the glass, and scans the part that is drawn on it', async () => {
  [scanner.machine.glass] = await sheetsOf(BATCH[0]);
  await page.getByRole('button', { name: 'Look at the glass' }).click();
  const glass = page.getByRole('application', { name: /^What lies on the glass/ });
  const box = (await glass.boundingBox())!;
  await page.mouse.move(box.x + 0.1 * box.width, box.y + 0.05 * box.height);
  await page.mouse.down();
  await page.mouse.move(box.x + 0.6 * box.width, box.y + 0.3 * box.height, { steps: 5 });
  await page.mouse.up();
  await page.getByRole('button', { name: 'Scan this area' }).click();
  await scanButton().click();
  await status(/1 page scanned/);
  const { id } = (await latestStack())!;
  const { pageList } = await program.ask(endpoints.readStack, { params: { id } });
  const { pointWidth, pointHeight } = pageList[pageList.length - 1];
  expect(pointWidth / pointHeight).toBeCloseTo((0.5 * box.width) / (0.25 * box.height), 1);
});

it('prints divider sheets, and what lies behind one in the feeder is a document for the folder that it names', async () => {
  await page.getByRole('button', { name: /Divider sheets/ }).click();
  await page.getByRole('combobox', { name: 'Folder of the papers behind it' }).fill('Household/Vet');
  await page.getByRole('option', { name: /^New folder/ }).click();
  await page.getByRole('spinbutton', { name: 'Sheets' }).fill('2');
  const link = page.getByRole('link', { name: 'Open as PDF' });
  const pdf = Buffer.from(await (await program.fetch((await link.getAttribute('href'))!)).arrayBuffer());
  const [sheet] = await rasterise(pdf, 2, 200);
  await page.getByRole('button', { name: 'Cancel' }).click();
  await load(1);
  const upsideDown = await sheet.rotate(180).withDensity(200).png().toBuffer();
  scanner.machine.feeder.push(await sheetFromPicture('divider', upsideDown), ...(await sheetsOf(BATCH[1])));
  // The last settings are there: those of the tests before this one.
  await page.getByLabel('From').selectOption('Feeder');
  await page.getByLabel('Both sides').uncheck();
  await page.getByLabel('One document').uncheck();
  await page.getByLabel('Paper', { exact: true }).selectOption('A4');
  await page.getByLabel('Colour').selectOption('Black and white');
  await page.getByLabel('Resolution').selectOption('200');
  await scanButton().click();
  await status(/4 pages scanned/);
  await page.getByRole('link', { name: 'Sort it' }).first().click();
  await page.getByRole('option', { name: 'Page 2, divider sheet: Household / Vet' }).waitFor({ timeout: PATIENCE_MS });
  await page.getByText('2 documents', { exact: true }).waitFor();
  // Before the last sheet has come in, nothing can be sent on.
  await until(async () => {
    const { files = [] } = (await latestStack()) ?? {};
    return files.length === 4 && files.every(({ state }) => state !== 'waiting');
  });
  await page.keyboard.press('Control+Enter');
  await page.getByText('1 of 2').waitFor();
  await page.keyboard.press('ArrowRight');
  await page.getByText(/^Its divider sheet, or the place where it lay, says so/).waitFor();
  expect(await page.getByRole('combobox', { name: 'Folder' }).inputValue()).toBe('Household/Vet');
});

it('takes in what lands in a watched folder, straight to Check, and shows what is not handled yet', async () => {
  const folder = scratchFolder();
  await page.getByRole('button', { name: /^Folders/ }).click();
  await page.getByText('No folder is watched yet.').waitFor();
  await page.getByLabel('Path of a folder to watch').fill(join(folder, 'nowhere'));
  await page.getByRole('button', { name: 'Watch it' }).click();
  await page
    .getByText(/there is no such folder/)
    .first()
    .waitFor();
  await page.getByLabel('Path of a folder to watch').fill(folder);
  await page.getByLabel('What it is for').selectOption('straight to Check, a document each');
  await page.getByRole('button', { name: 'Watch it' }).click();
  await page.getByText('✓ all handled').waitFor();
  const before = (await program.ask(endpoints.listWaiting, {})).length;
  writeFileSync(
    join(folder, 'scan0001.pdf'),
    await textPdf('School letter\nThe summer fair is on 4 July 2026', 'Page two'),
  );
  writeFileSync(join(folder, 'scan0002.pdf'), '%PDF-1.7 and nothing behind it');
  writeFileSync(join(folder, 'accounts.xls'), 'no paper at all');
  await page.getByText('3 files wait to be taken in').waitFor();
  await page.getByText('✓ all handled').waitFor({ timeout: PATIENCE_MS });
  expect(readdirSync(join(folder, 'done'))).toEqual(['scan0001.pdf']);
  expect(readdirSync(join(folder, 'refused'))).toEqual(['scan0002.pdf', 'scan0002.pdf.txt']);
  // What is no paper stays where somebody put it, and is named.
  await page.getByText('Not papers, left where they are: accounts.xls').waitFor();
  expect(readdirSync(folder)).toContain('accounts.xls');
  await until(async () => (await program.ask(endpoints.listWaiting, {})).length === before + 1);
  renameSync(folder, `${folder}-gone`);
  await page.getByText(/can’t be reached/).waitFor();
  renameSync(`${folder}-gone`, folder);
  await page.getByText('✓ all handled').waitFor();
  await page.getByRole('button', { name: /^Stop watching/ }).click();
  await page.getByText('No folder is watched yet.').waitFor();
});

it('makes a page of each of two receipts on the glass, and weaves fronts and backs from two goes into one pile', async () => {
  const slips = await Promise.all(
    FILED.filter(({ kind }) => kind === 'receipt')
      .slice(0, 2)
      .map(async (paper, at) => ({
        slip: (await sheetsOf(paper))[0].front,
        x: 30 + 290 * at,
        y: 40,
        degrees: 2 - 4 * at,
      })),
  );
  scanner.machine.glass = await slipsOnGlass('two receipts', slips);
  await page.getByLabel('From').selectOption('Glass');
  await page.getByLabel('Colour').selectOption('Grey');
  await page.getByLabel('Paper', { exact: true }).selectOption('The whole area');
  await scanButton().click();
  await until(async () => (await latestStack())?.pages === 2);

  // What comes next is no longer for that stack.
  await page.goto(`${program.address}/capture`);
  const numbered = (...numbers: number[]) =>
    textPdf(
      ...numbers.map((number) => `Agreement about the workshop\nthe rent is paid in advance\nPage ${number} of 6`),
    );
  await page.setInputFiles('input[type=file]', {
    name: 'backs.pdf',
    mimeType: 'application/pdf',
    buffer: Buffer.from(await numbered(6, 4, 2)),
  });
  await until(async () => (await latestStack())?.name === 'backs.pdf' && (await latestStack())?.read === 3);
  await page.setInputFiles('input[type=file]', {
    name: 'fronts.pdf',
    mimeType: 'application/pdf',
    buffer: Buffer.from(await numbered(1, 3, 5)),
  });
  await until(async () => (await latestStack())?.name === 'fronts.pdf' && (await latestStack())?.read === 3);
  const { id } = (await latestStack())!;
  await page.goto(`${program.address}/sort/${id}`);
  await page.getByRole('button', { name: 'Move', exact: true }).click();
  await page.getByRole('menuitem', { name: 'Weave in the backs from “backs.pdf” …' }).click();
  await page.getByText('3 fronts and 3 backs make 3 sheets; the backs lie from the last sheet to the first.').waitFor();
  await page.getByRole('button', { name: 'Weave', exact: true }).click();
  await page.getByText('6 pages →').waitFor();
  await page.getByText('1 document', { exact: true }).waitFor();
  const order = async () => {
    const { pageList } = await program.ask(endpoints.readStack, { params: { id } });
    const texts = await Promise.all(
      pageList.map((each) => program.ask(endpoints.pageText, { params: { id: each.id } })),
    );
    return texts.map(({ words }) => words.at(-3)![0]).join('');
  };
  expect(await order()).toBe('123456');

  // A page that has to wait goes to the back, or into a stack of its own, and returns to its place.
  await page.getByRole('option', { name: /^Page 2,/ }).click();
  await page.keyboard.press('b');
  await page.getByText('2 documents', { exact: true }).waitFor();
  await until(async () => (await order()) === '134562');
  await page.keyboard.press('Control+z');
  await page.getByText('1 document', { exact: true }).waitFor();
  await page.getByRole('option', { name: /^Page 2,/ }).click();
  await page.getByRole('button', { name: 'Move', exact: true }).click();
  await page.getByRole('menuitem', { name: 'Into a new stack …' }).click();
  await page.getByRole('button', { name: 'Move them' }).click();
  await until(async () => (await order()) === '13456');
  await page.getByRole('button', { name: 'Undo', exact: true }).click();
  await until(async () => (await order()) === '123456');
});
