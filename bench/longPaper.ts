import { randomUUID } from 'node:crypto';
import { PDFDocument } from '@cantoo/pdf-lib';
import { endpoints } from '@crow/contract/endpoints';
import { openBrowser, openWindow } from '@crow/e2e/browser';
import { Program, until } from '@crow/e2e/program';
import { scanned, textPdf } from '@crow/server/testing/made';

/**
 * How a paper of many pages is read on the screen: node scripts/bench.mjs longPaper [PAGES] [scanned]
 * How long until its first page shows, from the click in the list and from the address; and the pictures that come while it is scrolled.
 * @param scanned pages are pictures (200 dpi), else drawn text
 */
const [pages = '300', kind = ''] = process.argv.slice(2);
const SPEED = 3200;
const DISTANCE = 16_000;
const TIMES = 7;

const text = (number: number) =>
  Array.from(
    { length: 40 },
    (_, line) => `Page ${number}, line ${line + 1}: every thread has its place in the warp.`,
  ).join('\n');

async function longPaper(): Promise<Uint8Array> {
  const texts = Array.from({ length: Number(pages) }, (_, at) => text(at + 1));
  if (kind !== 'scanned') return textPdf(...texts);
  const pdf = await PDFDocument.create();
  // A few pictures for all pages: what counts is that each is drawn for itself.
  const pictures = await Promise.all(texts.slice(0, 10).map(async (each) => pdf.embedJpg(await scanned(each))));
  for (let at = 0; at < texts.length; at++) {
    const page = pdf.addPage([595, 842]);
    page.drawImage(pictures[at % pictures.length], { x: 0, y: 0, width: 595, height: 842 });
    page.drawText(String(at + 1), { x: 300, y: 20, size: 9 });
  }
  return pdf.save();
}

const median = (times: number[]): number => times.toSorted((a, b) => a - b)[Math.floor(times.length / 2)];
const shareOf = (times: number[], share: number): number =>
  times.toSorted((a, b) => a - b)[Math.min(times.length - 1, Math.floor(times.length * share))];

const program = await Program.start();
const browser = await openBrowser();
try {
  const stack = randomUUID();
  await program.sendFile('long.pdf', await longPaper(), { stack });
  const hours = 3_600_000;
  await until(
    async () => (await program.ask(endpoints.listStacks, {})).some(({ pages: all, read }) => all > 0 && read === all),
    hours,
  );
  await program.ask(endpoints.finishStack, { params: { id: stack } });
  let id = '';
  await until(async () => {
    id = (await program.ask(endpoints.listWaiting, {}))[0]?.id ?? '';
    return id !== '';
  });
  await program.ask(endpoints.fileDocument, { params: { id }, body: { name: 'Long', folderPath: 'Books' } });
  await until(async () => (await program.ask(endpoints.readDocument, { params: { id } })).state === 'filed', hours);
  const { folderId } = await program.ask(endpoints.readDocument, { params: { id } });

  const { page, context } = await openWindow(browser, program.session, '/');
  /** When the first page's picture is drawn, in milliseconds since the page began or was clicked. */
  const untilShown = () =>
    page.evaluate(
      () =>
        new Promise<number>((resolve) => {
          const look = () => {
            const image = document.querySelector<HTMLImageElement>('[data-page] img');
            if (image?.complete && image.naturalWidth > 0) requestAnimationFrame(() => resolve(performance.now()));
            else requestAnimationFrame(look);
          };
          look();
        }),
    );
  const [clicked, addressed]: [number[], number[]] = [[], []];
  for (let time = 0; time < TIMES; time++) {
    await page.goto(`${program.address}/shelf/${folderId}`);
    const entry = page.getByText('Long', { exact: true }).first();
    await entry.waitFor();
    await page.waitForTimeout(800);
    const began = await page.evaluate(() => {
      const state = window as unknown as { began: number };
      document.addEventListener('pointerdown', () => (state.began = performance.now()), { once: true, capture: true });
      return 0;
    });
    await entry.click();
    const shown = await untilShown();
    clicked.push(shown - (await page.evaluate(() => (window as unknown as { began: number }).began)) + began);
    await page.goto(`${program.address}/shelf/${folderId}/${id}`);
    addressed.push(await untilShown());
  }
  console.log(`first page after a click: ${Math.round(median(clicked))} ms, ${clicked.map(Math.round).join(' ')}`);
  console.log(
    `first page after the address: ${Math.round(median(addressed))} ms, ${addressed.map(Math.round).join(' ')}`,
  );

  const devtools = await context.newCDPSession(page);
  for (let time = 0; time < 3; time++) {
    await page.goto(`${program.address}/shelf/${folderId}/${id}`);
    await untilShown();
    await page.waitForTimeout(1500);
    const frames: number[] = [];
    await devtools.send('Tracing.start', { categories: 'viz,benchmark', transferMode: 'ReportEvents' } as never);
    const events: { name: string; ts: number }[] = [];
    devtools.on('Tracing.dataCollected', ({ value }) => events.push(...(value as unknown as typeof events)));
    const box = (await page.getByRole('region', { name: 'Pages' }).boundingBox())!;
    await devtools.send('Input.synthesizeScrollGesture', {
      x: box.x + box.width / 2,
      y: box.y + box.height / 2,
      yDistance: -DISTANCE,
      speed: SPEED,
      gestureSourceType: 'mouse',
    });
    const ended = new Promise((resolve) => devtools.once('Tracing.tracingComplete', resolve));
    await devtools.send('Tracing.end');
    await ended;
    const shown = events
      .filter(({ name }) => name === 'Display::DrawAndSwap')
      .map(({ ts }) => ts / 1000)
      .sort((a, b) => a - b);
    for (let at = 1; at < shown.length; at++) frames.push(shown[at] - shown[at - 1]);
    console.log(
      `${frames.length} pictures in ${(DISTANCE / SPEED).toFixed(0)} s: median ${median(frames).toFixed(1)} ms, 90th ${shareOf(frames, 0.9).toFixed(1)}, 95th ${shareOf(frames, 0.95).toFixed(1)}, longest ${Math.max(...frames).toFixed(0)}`,
    );
  }
} finally {
  await browser.close();
  await program.end();
}
