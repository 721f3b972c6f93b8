import { randomUUID } from 'node:crypto';
import { endpoints } from '@crow/contract/endpoints';
import { ScanSettings } from '@crow/contract/scanning';
import { BATCH } from '@crow/demo/papers';
import { sheetsOf } from '@crow/standins/scanner/load';
import { StandInScanner, startScanner } from '@crow/standins/scanner/scanner';
import { TestRoom } from '../testing/room';

let room: TestRoom;
let standIn: StandInScanner;
let scannerId: string;
beforeAll(async () => {
  [room, standIn] = await Promise.all([TestRoom.open(), startScanner({ hurry: 30, announced: false })]);
  ({ id: scannerId } = await room.ask(endpoints.addScanner, { body: { address: standIn.address } }));
});
beforeEach(() => {
  standIn.machine.feeder.length = 0;
  standIn.machine.clear();
});
afterAll(async () => {
  await room.close();
  await standIn.close();
});

const SETTINGS: ScanSettings = {
  source: 'whichever',
  bothSides: false,
  colour: 'grey',
  resolution: 100,
  area: null,
  whole: false,
};
async function load(papers: number): Promise<void> {
  for (const paper of BATCH.slice(0, papers)) standIn.machine.feeder.push(...(await sheetsOf(paper)));
}
async function scan(settings: Partial<ScanSettings> = {}, stack: string = randomUUID()) {
  const { id } = await room.ask(endpoints.startScan, {
    params: { id: scannerId },
    body: { settings: { ...SETTINGS, ...settings }, stack, stackName: 'Scan', position: 0 },
  });
  for (;;) {
    const found = (await room.ask(endpoints.listScans, {})).find((each) => each.id === id)!;
    if (found.state !== 'running') return { ...found, stack };
    await new Promise((done) => setTimeout(done, 50));
  }
}
const pagesOf = async (id: string) => {
  await room.work(['take-in']);
  return (await room.ask(endpoints.readStack, { params: { id } })).pageList;
};

it('takes each page in as a file of the stack, in order, and remembers how it was scanned', async () => {
  await load(2);
  const { state, pages, stack } = await scan();
  expect([state, pages]).toEqual(['done', 3]);
  expect((await pagesOf(stack)).map(({ fileName }) => fileName)).toEqual(['Scan 1.jpg', 'Scan 2.jpg', 'Scan 3.jpg']);
  const [scanner] = await room.ask(endpoints.listScanners, {});
  expect(scanner.last).toEqual(SETTINGS);
});

it('takes the glass when the feeder has no paper, if either will do', async () => {
  standIn.machine.glass = (await sheetsOf(BATCH[0]))[0];
  expect(await scan()).toMatchObject({ state: 'done', pages: 1 });
});

it('knows which pages are backs', async () => {
  await load(1);
  const { stack } = await scan({ bothSides: true, source: 'feeder' });
  await pagesOf(stack);
  const backs = (await room.context.database.source.query(
    'select back from page where stack_id = $1 order by position',
    [stack],
  )) as { back: boolean }[];
  expect(backs.map(({ back }) => back)).toEqual([false, true]);
});

it('keeps what came through before a jam', async () => {
  await load(3);
  standIn.machine.jamsAfter = 1;
  const { state, pages, problem, stack } = await scan();
  expect([state, pages, problem?.code]).toEqual(['failed', 1, 'feeder-jam']);
  expect(await pagesOf(stack)).toHaveLength(1);
});

it('lets one scan run at a time on a scanner', async () => {
  await load(3);
  const first = scan();
  while (!(await room.ask(endpoints.listScans, {})).some(({ state }) => state === 'running'))
    await new Promise((done) => setTimeout(done, 10));
  const refused = await room.refusal(endpoints.startScan, {
    params: { id: scannerId },
    body: { settings: SETTINGS, stack: randomUUID(), stackName: 'Scan', position: 0 },
  });
  expect(refused).toMatchObject({ code: 'scanner-busy', status: 409 });
  await first;
});

it('keeps settings under a name, one for each name', async () => {
  const save = (resolution: number) =>
    room.ask(endpoints.savePreset, {
      body: { name: 'Receipts', scannerId, settings: { ...SETTINGS, resolution } },
    });
  await save(200);
  const { id } = await save(300);
  const presets = await room.ask(endpoints.listPresets, {});
  expect(presets.map(({ name, settings }) => [name, settings.resolution])).toEqual([['Receipts', 300]]);
  await room.ask(endpoints.deletePreset, { params: { id } });
  expect(await room.ask(endpoints.listPresets, {})).toEqual([]);
});

it('refuses an address where no scanner is, and a scanner that is not known', async () => {
  expect(await room.refusal(endpoints.addScanner, { body: { address: '127.0.0.1:9' } })).toMatchObject({
    code: 'scanner-gone',
  });
  expect(await room.refusal(endpoints.addScanner, { body: { address: 'not an address' } })).toMatchObject({
    code: 'not-valid',
  });
  expect(
    await room.refusal(endpoints.startScan, {
      params: { id: randomUUID() },
      body: { settings: SETTINGS, stack: randomUUID(), stackName: 'Scan', position: 0 },
    }),
  ).toMatchObject({ code: 'not-found' });
});
