import { once } from 'node:events';
import { AddressInfo, createServer } from 'node:net';
import sharp from 'sharp';
import { ScanSettings } from '@crow/contract/scanning';
import { Problem } from '@crow/contract/problems';
import { startScanner, StandInScanner } from '@crow/standins/scanner/scanner';
import { LoadedSheet } from '@crow/standins/scanner/machine';
import { blankSide } from '@crow/standins/scanner/sheet';
import { EsclScanner } from './escl';

const A4: [number, number] = [595, 842];
const USUAL: ScanSettings = {
  source: 'feeder',
  bothSides: false,
  colour: 'grey',
  resolution: 100,
  area: null,
  whole: false,
};

let standIn: StandInScanner;
let scanner: EsclScanner;
beforeEach(async () => {
  standIn = await startScanner({ hurry: 40, announced: false });
  scanner = new EsclScanner(`${standIn.address}/eSCL`);
});
afterEach(() => standIn.close());

/** A sheet with a dark square at its upper left on its front, nothing on its back. */
async function sheet(name: string): Promise<LoadedSheet> {
  const square = await sharp({ create: { width: 80, height: 80, channels: 3, background: '#101010' } })
    .png()
    .toBuffer();
  const bytes = await sharp({ create: { width: 595, height: 842, channels: 3, background: '#ffffff' } })
    .composite([{ input: square, left: 60, top: 60 }])
    .png()
    .toBuffer();
  return { name, front: { bytes, width: A4[0], height: A4[1] }, back: await blankSide(...A4) };
}
async function load(count: number): Promise<void> {
  for (let at = 0; at < count; at++) standIn.machine.feeder.push(await sheet(`sheet ${at + 1}`));
}
async function scan(settings: Partial<ScanSettings>, signal = new AbortController().signal): Promise<Uint8Array[]> {
  const all = { ...USUAL, ...settings };
  const pages: Uint8Array[] = [];
  for await (const page of scanner.scan(all, all.source === 'glass' ? 'glass' : 'feeder', signal)) pages.push(page);
  return pages;
}
const darkest = async (page: Uint8Array) => (await sharp(page).stats()).channels[0].min;
const refusal = (promise: Promise<unknown>) =>
  promise.then(
    () => undefined,
    (error: Problem) => error.code,
  );

it('reads what a scanner can do', async () => {
  const told = await scanner.capabilities();
  expect(told.bothSides).toBe(true);
  expect(told.colours).toEqual(['colour', 'grey', 'blackAndWhite']);
  expect(told.resolutions).toEqual([75, 100, 150, 200, 300, 600]);
  expect(told.glass!.width).toBe(612);
  expect(told.feeder!.height).toBeGreaterThan(told.glass!.height);
});

it('scans all that is in the feeder, page by page, in the resolution and colour asked for', async () => {
  await load(3);
  const pages = await scan({ area: { x: 0, y: 0, width: A4[0], height: A4[1] } });
  expect(pages).toHaveLength(3);
  const { width, height, channels } = await sharp(pages[0]).metadata();
  expect(channels).toBe(1);
  expect(Math.abs(width - 826) + Math.abs(height - 1169)).toBeLessThan(3);
  expect(await darkest(pages[2])).toBeLessThan(60);
});

it('gives both sides of each sheet behind each other', async () => {
  await load(2);
  const pages = await scan({ bothSides: true, colour: 'colour' });
  const dark = await Promise.all(pages.map(darkest));
  expect(dark.map((value) => value < 60)).toEqual([true, false, true, false]);
});

it('scans a part of the glass', async () => {
  standIn.machine.glass = await sheet('on the glass');
  const [page, ...more] = await scan({ source: 'glass', area: { x: 50, y: 50, width: 100, height: 144 } });
  expect(more).toHaveLength(0);
  const { width, height } = await sharp(page).metadata();
  expect([width, height]).toEqual([139, 200]);
  expect(await darkest(page)).toBeLessThan(60);
});

describe('when something is in the way', () => {
  it('says that the feeder is empty', async () => expect(await refusal(scan({}))).toBe('feeder-empty'));

  it('gives what came through before a jam, then says so; once cleared, the rest comes', async () => {
    await load(3);
    standIn.machine.jamsAfter = 2;
    const pages: Uint8Array[] = [];
    const through = async () => {
      for await (const page of scanner.scan(USUAL, 'feeder', new AbortController().signal)) pages.push(page);
    };
    expect(await refusal(through())).toBe('feeder-jam');
    expect(pages).toHaveLength(2);
    expect(await refusal(scan({}))).toBe('feeder-jam');
    standIn.machine.clear();
    expect(await scan({})).toHaveLength(1);
  });

  it('says that the cover is open', async () => {
    await load(1);
    standIn.machine.trouble = 'coverOpen';
    expect(await refusal(scan({}))).toBe('scanner-open');
  });

  it('says that the scanner is busy with another job', async () => {
    await load(2);
    const first = scanner.scan(USUAL, 'feeder', new AbortController().signal);
    await first.next();
    expect(await refusal(scan({}))).toBe('scanner-busy');
    await first.return(undefined);
  });

  it('says that it does not scan like that, that it is gone, and that it is no scanner', async () => {
    await load(1);
    expect(await refusal(scan({ resolution: 123 }))).toBe('scanner-refused');
    expect(await refusal(new EsclScanner('http://127.0.0.1:9/eSCL').capabilities())).toBe('scanner-gone');
    expect(await refusal(new EsclScanner(`${standIn.address}/nothing`).capabilities())).toBe('scanner-strange');
  });
});

it.each([
  ['never answers', ''],
  ['falls silent within its answer', 'HTTP/1.1 200 OK\r\ncontent-type: text/xml\r\n\r\n<ScannerCapabilities>'],
])('gives up a scanner that %s', async (_, said) => {
  const silent = createServer((connection) => void connection.write(said)).listen(0, '127.0.0.1');
  await once(silent, 'listening');
  const { port } = silent.address() as AddressInfo;
  expect(await refusal(new EsclScanner(`http://127.0.0.1:${port}/eSCL`, 200).capabilities())).toBe('scanner-gone');
  silent.close();
});

it('leaves the scanner free when only the first page was wanted', async () => {
  await load(3);
  for await (const page of scanner.scan(USUAL, 'feeder', new AbortController().signal)) {
    expect(page.length).toBeGreaterThan(0);
    break;
  }
  expect(await scan({})).toHaveLength(2);
});

it('can be stopped: what came through is kept, the rest stays in the feeder, and the next scan begins at once', async () => {
  await load(5);
  const stopping = new AbortController();
  const pages: Uint8Array[] = [];
  const through = async () => {
    for await (const page of scanner.scan(USUAL, 'feeder', stopping.signal)) {
      pages.push(page);
      if (pages.length === 2) stopping.abort();
    }
  };
  await through().catch(() => undefined);
  expect(pages).toHaveLength(2);
  expect(standIn.machine.feeder.length).toBeGreaterThanOrEqual(2);
  const left = standIn.machine.feeder.length;
  expect(await scan({})).toHaveLength(left);
});
