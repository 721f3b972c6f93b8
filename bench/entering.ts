import { execFileSync } from 'node:child_process';
import { randomUUID } from 'node:crypto';
import { setTimeout as sleep } from 'node:timers/promises';
import { chromium } from 'playwright-core';
import { addressOf, asker, PIECE, uploadHeaders } from '@crow/contract/client';
import { endpoints } from '@crow/contract/endpoints';
import { photographPaper, scanPaper } from '@crow/demo/capture';
import { comeIn } from '@crow/demo/comeIn';
import { HOME, invoice, Line, receipt } from '@crow/demo/drawing';
import { SENDERS as S } from '@crow/demo/papers';

/**
 * How many keys it takes to enter a month of 40 bills of senders who sent some before, in the interface itself, and how many of the entries are
 * right: node scripts/bench.mjs entering FOLDER
 * FOLDER is where a program runs that has the demo papers: what is entered stays there.
 */
const [home] = process.argv.slice(2);
const MONTH = '2026-10';
/** Of what can't be filed by its key, a folder is typed: about so many. */
const KEYS_FOR_FOLDER = 12;
const PATIENCE_MS = 300_000;

interface Bill {
  who: string;
  number: string;
  day: string;
  units: number;
  currency: string;
  draw: () => Promise<Uint8Array>;
  came: 'pdf' | 'scan' | 'photo';
}

const RATES = { en: 0.2, de: 0.19, fr: 0.2 };
const CAME = ['pdf', 'scan', 'scan', 'photo'] as const;
const bills: Bill[] = [];
const add = (
  sender: { name: string; lines: string[]; face: unknown },
  number: string,
  lines: Line[],
  { language = 'en' as 'en' | 'de' | 'fr', to = undefined as string[] | undefined } = {},
) => {
  const at = bills.length;
  const day = `${MONTH}-${String(1 + ((at * 7) % 28)).padStart(2, '0')}`;
  const net = lines.reduce((sum, [, quantity, price]) => sum + quantity * price, 0);
  const units = net + Math.round(net * RATES[language]);
  const draw = invoice(sender as (typeof S)['yarn'] & { face: 'bold' }, number, day, lines, {
    language,
    ...(to && { to }),
  });
  bills.push({
    who: sender.name,
    number,
    day,
    units,
    currency: language === 'en' ? 'GBP' : 'EUR',
    draw,
    came: CAME[at % 4],
  });
};
for (let at = 0; at < 5; at++) {
  add(S.yarn, `HF-${24_100 + 37 * at}`, [
    ['Merino 2/24, undyed, cones', 3 + at, 3990],
    ['Carriage', 1, 950],
  ]);
  add(S.dye, `MD-${880 + at}`, [
    ['Dyeing, madder, kg', 4 + at, 1410 + 5 * at],
    ['Mordant', 1, 380],
  ]);
  add(
    S.wool,
    `2026-1${100 + 13 * at}`,
    [
      ['Schurwolle Nm 8/2, Spulen', 4 + at, 3060],
      ['Fracht', 1, 2650],
    ],
    { language: 'de' },
  );
  add(
    S.linen,
    `VC-${5120 + 9 * at}`,
    [
      ['Fil de lin 16/2 écru, bobines', 2 + at, 2640],
      ['Port et emballage', 1, 2800],
    ],
    { language: 'fr' },
  );
  add(
    S.energy,
    `E202610${10 + at}`,
    [
      ['Electricity, kWh', 120 + 11 * at, 27],
      ['Standing charge, days', 31, 48],
    ],
    { to: HOME },
  );
  add(S.rent, `TH-261${at}`, [['Workshop rent, part', 1, 27_000 + 100 * at]]);
}
for (let at = 0; at < 10; at++) {
  const day = `${MONTH}-${String(2 + 2 * at).padStart(2, '0')}`;
  const lines: Line[] = [[`Parcel to Melford, ${1 + (at % 4)} kg`, 1, 620 + 35 * at]];
  const number = String(60_210 + at);
  const net = lines[0][2];
  bills.push({
    ...{ who: S.parcels.name, number, day, units: net, currency: 'GBP', came: at % 2 ? 'photo' : 'scan' },
    draw: receipt(S.parcels as never, number, day, '10:14', lines),
  });
}

const key = execFileSync('./crow', ['key'], { env: { ...process.env, CROW_HOME: home }, encoding: 'utf8' });
const session = await comeIn(/http:\S+/.exec(key)![0]);
const call = async (address: string, given: RequestInit) => {
  const headers = { ...(given.headers as Record<string, string>), cookie: session.cookie };
  const response = await fetch(session.address + address, { ...given, headers });
  if (!response.ok) throw new Error(await response.text());
  return response;
};
const ask = asker((address, given) => call(address, given as RequestInit));
const until = async (condition: () => Promise<boolean>) => {
  for (const end = Date.now() + PATIENCE_MS; Date.now() < end; await sleep(300)) if (await condition()) return;
  throw new Error('It took too long.');
};

// What waits there already is put off: the bills come first.
const waiting = new Set((await ask(endpoints.listWaiting, {})).map(({ id }) => id));
const before = new Set((await ask(endpoints.readLedger, {})).entries.map(({ id }) => id));
for (const [at, bill] of bills.entries()) {
  const pdf = await bill.draw();
  const [bytes] =
    bill.came === 'pdf'
      ? [pdf]
      : bill.came === 'photo'
        ? [await photographPaper(pdf, at)]
        : await scanPaper(pdf, 1, at);
  const stack = randomUUID();
  const name = `${at + 1}.${bill.came === 'pdf' ? 'pdf' : 'jpg'}`;
  const told = { stack, file: randomUUID(), stackName: name, name, position: '0' };
  await call(addressOf(endpoints.sendFile, {}), {
    method: endpoints.sendFile.method,
    headers: { ...uploadHeaders(told, bytes.length), 'content-type': PIECE },
    body: bytes as BodyInit,
  });
  await until(async () => {
    const { files } = await ask(endpoints.readStack, { params: { id: stack } });
    return files.every(({ state }) => state !== 'waiting') && files.length > 0;
  });
  await ask(endpoints.sortStack, { params: { id: stack } });
}
await until(async () => (await ask(endpoints.overview, {})).unread === 0);
for (const id of waiting) await ask(endpoints.putToBack, { params: { id } });

const browser = await chromium.launch({ executablePath: '/usr/bin/chromium', args: ['--no-sandbox', '--disable-gpu'] });
const context = await browser.newContext({ viewport: { width: 1280, height: 800 } });
const [cookie, value] = session.cookie.split('=');
await context.addCookies([{ name: cookie, value, url: session.address, httpOnly: true, sameSite: 'Strict' }]);
const page = await context.newPage();
await page.goto(`${session.address}/check`);
const left = async () => (await ask(endpoints.listWaiting, {})).filter(({ id }) => !waiting.has(id)).length;
let keys = 0;
const began = Date.now();
for (let at = 0; at < bills.length; at++) {
  const there = await left();
  if (there === 0) break;
  await page.locator('main img').first().waitFor();
  await sleep(700);
  await page.keyboard.press('Control+Enter');
  keys++;
  const gone = await until5(async () => (await left()) < there);
  if (gone) continue;
  const folder = page.getByLabel('Folder', { exact: true });
  console.log(`  not by its key: ${await page.title()}; ${await folder.inputValue().catch(() => '')}`);
  await folder.fill('Workshop');
  await page.keyboard.press('Enter');
  await page.keyboard.press('Control+Enter');
  keys += KEYS_FOR_FOLDER;
  await until5(async () => (await left()) < there);
}
const seconds = Math.round((Date.now() - began) / 1000);
await browser.close();

async function until5(condition: () => Promise<boolean>): Promise<boolean> {
  for (const end = Date.now() + 5000; Date.now() < end; await sleep(100)) if (await condition()) return true;
  return false;
}

const entries = (await ask(endpoints.readLedger, {})).entries.filter(({ id }) => !before.has(id));
const wrong = bills.flatMap((bill) => {
  const entry = entries.find(({ number, units }) => number === bill.number || units === bill.units);
  if (!entry) return [`${bill.who} ${bill.number}: not entered`];
  const faults = [
    entry.number !== bill.number && `number ${entry.number}`,
    entry.units !== bill.units && `total ${entry.units}`,
    entry.day !== bill.day && `day ${entry.day}`,
    entry.who !== bill.who && `who ${entry.who}`,
    entry.currency !== bill.currency && `currency ${entry.currency}`,
    entry.parts.some(({ categoryId }) => !categoryId) && 'no category',
    entry.parts.some(({ taxCode }) => !taxCode) && 'no tax code',
  ].filter(Boolean);
  return faults.length > 0 ? [`${bill.who} ${bill.number} (${bill.came}): ${faults.join(', ')}`] : [];
});
console.log(
  `${bills.length} bills, ${keys} keys, ${seconds} s; ${entries.length} entries, ${bills.length - wrong.length} right`,
);
wrong.forEach((each) => console.log(`  ${each}`));
await ask(endpoints.leave, {});
