import { execFileSync } from 'node:child_process';
import { randomUUID } from 'node:crypto';
import { existsSync, readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { Browser, Page } from 'playwright-core';
import { endpoints } from '@crow/contract/endpoints';
import { scratchFolder, textPdf } from '@crow/server/testing/made';
import { PASSWORD, StandInMailServer, startMailServer, USER } from '@crow/standins/mail/server';
import { openBrowser, openWindow } from './browser';
import { Program, until } from './program';

let program: Program;
let browser: Browser;
let mails: StandInMailServer;
let page: Page;
let errors: string[];
let id: string;

beforeAll(async () => {
  [program, browser, mails] = await Promise.all([Program.start(), openBrowser(), startMailServer()]);
  const stack = randomUUID();
  await program.sendFile('lease.pdf', await textPdf('Lease of the boat house\nfrom 1 May 2027'), { stack });
  await until(async () =>
    (await program.ask(endpoints.listStacks, {})).some(({ pages: all, read }) => all > 0 && read === all),
  );
  ({
    documents: [id],
  } = await program.ask(endpoints.sortStack, { params: { id: stack } }));
  await program.ask(endpoints.fileDocument, { params: { id }, body: { name: 'Lease', folderPath: 'Boat' } });
  await until(async () => (await program.ask(endpoints.overview, {})).filing === 0);
});
beforeEach(async () => {
  ({ page, errors } = await openWindow(browser, program.session));
});
afterEach(async () => {
  expect(errors).toEqual([]);
  await page.context().close();
});
afterAll(async () => {
  await browser?.close();
  await program?.end();
  await mails?.close();
});

async function beginCopy(): Promise<void> {
  await page.goto(`${program.address}/shelf/-/${id}`);
  await page.getByRole('button', { name: 'More about this document' }).click();
  await page.getByRole('menuitem', { name: 'Copy or send' }).click();
}
const handOver = async (way: RegExp) => {
  const choice = page.getByLabel('Hand over');
  await choice.locator('option', { hasText: way }).waitFor({ state: 'attached' });
  await choice.selectOption(await choice.locator('option', { hasText: way }).getAttribute('value'));
};

it('sets up the mail account, which is tried out, and sends a paper by it', async () => {
  await page.goto(`${program.address}/people?part=mail`);
  const form = page.getByRole('form', { name: 'Mail account' });
  await form.getByLabel('From which address').fill(USER);
  await form.getByLabel('Mail server').fill('127.0.0.1');
  await form.getByLabel('The way there').selectOption('none');
  await form.getByLabel('Port').fill(String(mails.port));
  await form.getByLabel(/^User/).fill(USER);
  await form.getByLabel('Password').fill('wrong');
  await form.getByRole('button', { name: 'Keep it and try it out' }).click();
  await form.getByText('user or password is not right').waitFor();
  // The refusal itself, which the browser writes down.
  expect(errors.splice(0)).toEqual([expect.stringContaining('mail-account/test')]);
  await form.getByLabel('Password').fill(PASSWORD);
  await form.getByRole('button', { name: 'Keep it and try it out' }).click();
  await form.getByText(`It works: a test message went to ${USER}.`).waitFor();

  await beginCopy();
  await handOver(/by mail, from imre/);
  await page.getByLabel(/^To/).fill('Ada <ada@books.example>');
  await page.getByLabel('Subject').fill('The lease');
  await page.getByRole('button', { name: 'Send it' }).click();
  await page
    .getByText(/is on its way/)
    .first()
    .waitFor();
  await until(() => mails.arrived.some(({ subject }) => subject === 'The lease'));
  const { to, attachments } = mails.arrived.at(-1)!;
  expect([to, attachments.map(({ name }) => name)]).toEqual([['ada@books.example'], ['Lease.pdf']]);
  await page.getByRole('button', { name: 'Sent' }).click();
  const sent = page.getByRole('list', { name: 'What was sent' }).getByRole('listitem').filter({ hasText: 'The lease' });
  await sent.getByText(/^sent on/).waitFor();
});

it('makes a link that another browser follows with its password, until it is ended', async () => {
  await beginCopy();
  await handOver(/by a link/);
  await page.getByLabel(/that the link asks for/).fill('Hafen');
  await page.getByRole('button', { name: 'Make the link' }).click();
  const address = (await page.getByLabel('Address of the link').textContent())!;
  await page.getByText('Whoever has this address sees the copy').waitFor();
  await page.getByRole('button', { name: 'Done' }).click();

  const other = await browser.newContext({ acceptDownloads: true });
  const visitor = await other.newPage();
  await visitor.goto(address);
  await visitor.getByLabel('Password').fill('Haven');
  await visitor.getByRole('button', { name: 'Open it' }).click();
  await visitor.getByText('That is not the password.').waitFor();
  await visitor.getByLabel('Password').fill('Hafen');
  // What the browser is led to is the copy itself.
  const led = visitor.waitForResponse((response) => /\/look\/[^/]+\/[^/]+$/.test(response.url()));
  await visitor
    .getByRole('button', { name: 'Open it' })
    .click()
    .catch(() => undefined);
  const file = await other.request.get((await led).url());
  const path = join(scratchFolder(), 'got.pdf');
  writeFileSync(path, await file.body());
  expect(execFileSync('pdftotext', [path, '-'], { encoding: 'utf8' })).toContain('boat house');

  await page.getByRole('button', { name: 'Sent' }).click();
  const link = page
    .getByRole('list', { name: 'What was sent' })
    .getByRole('listitem')
    .filter({ hasText: 'open until' });
  await link.getByText(/1 look/).waitFor();
  await link.getByRole('button', { name: 'End it now' }).click();
  await page.getByText(/^ended/).waitFor();
  await visitor.goto(address).catch(() => undefined);
  await visitor.getByText('There is nothing at this address').waitFor();
  await other.close();
});

it('copies a folder to a place outside, and keeps it in step', async () => {
  const place = scratchFolder();
  await page.goto(`${program.address}/shelf`);
  const folders = page.getByRole('list', { name: 'Folders' });
  await folders.getByRole('button', { name: /^Boat/ }).hover();
  await folders.getByRole('button', { name: 'More about Boat' }).click();
  await page.getByRole('menuitem', { name: 'Copies in a folder of this machine' }).click();
  await page.getByLabel('Folder of this machine').fill(place);
  await page.getByRole('button', { name: 'Keep copies there' }).click();
  await until(() => existsSync(join(place, 'Lease.pdf')));
  await program.ask(endpoints.changeDocuments, { body: { changes: [{ id, name: 'The lease' }] } });
  await until(() => existsSync(join(place, 'The lease.pdf')) && !existsSync(join(place, 'Lease.pdf')));
  expect(readFileSync(join(place, 'The lease.pdf'))).toEqual(readFileSync(join(program.shelf, 'Boat/The lease.pdf')));
  await page.goto(`${program.address}/shelf/sent`);
  await page.getByText('1 copy, in step').waitFor();
  await page.getByRole('button', { name: `Stop keeping ${place} in step` }).click();
  await page.getByText(place).waitFor({ state: 'detached' });
  await program.ask(endpoints.changeDocuments, { body: { changes: [{ id, name: 'Lease' }] } });
  await until(() => existsSync(join(program.shelf, 'Boat/Lease.pdf')));
  expect(existsSync(join(place, 'The lease.pdf'))).toBe(true);
});

it('keeps a signed copy that another program finds valid, and sends it as it is', async () => {
  await page.goto(`${program.address}/shelf/-/${id}`);
  await page.getByRole('button', { name: 'More about this document' }).click();
  await page.getByRole('menuitem', { name: 'Keep a signed copy' }).click();
  await page.getByLabel('Signed digitally').selectOption({ label: 'with a new key that is made here' });
  await page.getByLabel(/Your name/).fill('Imre Castellane');
  await page.getByLabel(/pass phrase/).fill('madder weld and indigo');
  await page.getByRole('button', { name: 'Sign and keep it' }).click();
  await page
    .getByText(/signed as Imre Castellane/)
    .first()
    .waitFor();
  await beginCopy();
  const which = page.getByLabel('Which');
  await which.selectOption({ index: 1 });
  const saved = page.waitForEvent('download');
  await page.getByRole('button', { name: 'Save it' }).click();
  const path = join(scratchFolder(), 'signed.pdf');
  await (await saved).saveAs(path);
  expect(execFileSync('pdfsig', ['-nocert', path], { encoding: 'utf8' })).toMatch(/Signature is Valid/);
});
