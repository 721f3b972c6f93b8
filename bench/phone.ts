import { endpoints } from '@crow/contract/endpoints';
import { encodePhoto } from '@crow/demo/capture';
import { FILED } from '@crow/demo/papers';
import { openBrowser, openWindow } from '@crow/e2e/browser';
import { sightOf } from '@crow/e2e/film';
import { Program, until } from '@crow/e2e/program';

/**
 * How long it takes on a phone, in a browser that shows a picture of a paper as its camera: node scripts/bench.mjs phone [SLOWER] [WIDTH]
 * From the tap to “taken”, to the first byte on its way, and how long forty pages take that waited for a line.
 * @param SLOWER by how much the browser’s processor is slowed down, which stands for a phone’s
 * @param WIDTH of the camera’s pictures, in pixels; they are upright, 3 to 4
 */
const [slower = '1', width = '1536'] = process.argv.slice(2);
const FRAME = { width: Number(width), height: (Number(width) * 4) / 3 };
const PAGES = 10;
const WAITING = 40;

const median = (times: number[]): number => times.toSorted((a, b) => a - b)[Math.floor(times.length / 2)];

const program = await Program.start();
const browser = await openBrowser();
const sight = await encodePhoto(
  await sightOf(
    FILED.find(({ kind }) => kind === 'invoice')!,
    FRAME,
  ),
);
try {
  const { page, context } = await openWindow(browser, program.session, '/', {
    viewport: { width: 390, height: 844 },
    hasTouch: true,
    isMobile: true,
  });
  // The browser's own stand-in for a camera shows nothing as large as a phone's.
  await page.addInitScript(
    ({ width, height, picture }) => {
      const device = { kind: 'videoinput', deviceId: 'made', groupId: '', label: 'Camera' };
      navigator.mediaDevices.enumerateDevices = () => Promise.resolve([device as MediaDeviceInfo]);
      navigator.mediaDevices.getUserMedia = async () => {
        const canvas = Object.assign(document.createElement('canvas'), { width, height });
        const context = canvas.getContext('2d')!;
        const image = await createImageBitmap(new Blob([Uint8Array.from(atob(picture), (each) => each.charCodeAt(0))]));
        const draw = () => context.drawImage(image, 0, 0);
        draw();
        setInterval(draw, 500);
        return canvas.captureStream(2);
      };
    },
    { ...FRAME, picture: sight.toString('base64') },
  );
  const devtools = await context.newCDPSession(page);
  await devtools.send('Emulation.setCPUThrottlingRate', { rate: Number(slower) });
  await page.evaluate(() =>
    localStorage.setItem('crow.camera', JSON.stringify({ camera: '', byItself: false, key: '' })),
  );
  await page.goto(`${program.address}/capture?source=camera`);
  await page.getByText('Ready: take it.').waitFor();
  const takeIt = page.getByRole('button', { name: /^Take it/ });
  const taken = (number: number) => page.getByRole('button', { name: new RegExp(`^${number} pages? taken`) }).waitFor();

  const [shown, sent]: [number[], number[]] = [[], []];
  for (let number = 1; number <= PAGES; number++) {
    const onItsWay = page.waitForRequest((request) => request.url().includes('/api/uploads'));
    const began = performance.now();
    await takeIt.tap();
    await taken(number);
    shown.push(performance.now() - began);
    await onItsWay;
    sent.push(performance.now() - began);
    await until(async () => (await program.ask(endpoints.listStacks, {}))[0]?.files.length === number);
  }
  console.log(
    `tap to “taken”, median of ${PAGES}: ${Math.round(median(shown))} ms, longest ${Math.round(Math.max(...shown))} ms`,
  );
  console.log(`tap to on its way: ${Math.round(median(sent))} ms, longest ${Math.round(Math.max(...sent))} ms`);

  await context.setOffline(true);
  for (let number = PAGES + 1; number <= PAGES + WAITING; number++) {
    await takeIt.tap();
    await taken(number);
  }
  const began = performance.now();
  await context.setOffline(false);
  await until(async () => (await program.ask(endpoints.listStacks, {}))[0].files.length === PAGES + WAITING);
  const { files } = (await program.ask(endpoints.listStacks, {}))[0];
  const bytes = files.slice(PAGES).reduce((sum, file) => sum + file.bytes, 0);
  console.log(
    `${WAITING} pages that waited, ${(bytes / 1e6).toFixed(0)} MB, once there is a line: ${((performance.now() - began) / 1000).toFixed(1)} s`,
  );
} finally {
  await browser.close();
  await program.end();
}
