import {
  existsSync,
  mkdirSync,
  readdirSync,
  readFileSync,
  renameSync,
  rmSync,
  symlinkSync,
  writeFileSync,
} from 'node:fs';
import { join } from 'node:path';
import { zipSync } from 'fflate';
import { endpoints } from '@crow/contract/endpoints';
import { Purpose } from '@crow/contract/watching';
import { scratchFolder, textPdf } from '../testing/made';
import { TestRoom } from '../testing/room';
import { Watcher } from './watching';

let room: TestRoom;
let folder: string;
let invoice: Buffer;

beforeAll(async () => {
  room = await TestRoom.open();
  invoice = Buffer.from(await textPdf('Invoice from Tidewater Dye Works\nTotal 84.00'));
});
afterAll(() => room.close());
beforeEach(() => void (folder = scratchFolder()));

const watch = (purpose: Purpose = 'sort') =>
  room.ask(endpoints.watchFolder, { body: { path: folder, purpose, confirmed: false } });
const state = async () => (await room.ask(endpoints.listWatched, {})).find(({ path }) => path === folder)!;
/** Looks, as the program does at intervals, often enough for what lies there to be seen still, taken in and moved. */
const handle = async () => {
  await room.watcher.look();
  await room.watcher.look();
  await room.work();
  await room.watcher.look();
};
const put = (name: string, bytes: string | Uint8Array) => writeFileSync(join(folder, name), bytes);
const inside = (part = '.') =>
  readdirSync(join(folder, part))
    .filter((name) => name !== 'done' && name !== 'refused')
    .sort();
const newestStack = async () => (await room.ask(endpoints.listStacks, {}))[0];
/** Bytes that nobody has taken in before. */
const fresh = (() => {
  let number = 0;
  return () => textPdf(`Letter ${++number} from the harbour office`);
})();

it('takes in what lands as one stack, in the order of the names, and moves it to done', async () => {
  await watch();
  put('scan 10.pdf', await fresh());
  put('scan 9.pdf', await fresh());
  await room.watcher.look();
  expect((await state()).waiting).toBe(2);
  expect((await room.ask(endpoints.overview, {})).watched).toBe(2);
  await handle();
  expect(inside()).toEqual([]);
  expect(inside('done')).toEqual(['scan 10.pdf', 'scan 9.pdf']);
  expect((await newestStack()).files.map(({ name }) => name)).toEqual(['scan 9.pdf', 'scan 10.pdf']);
  expect(await state()).toMatchObject({ waiting: 0, problem: null });
});

it('lets files that come soon after join the same stack, until somebody arranges it', async () => {
  await watch();
  put('a.pdf', await fresh());
  await handle();
  const first = await newestStack();
  put('b.pdf', await fresh());
  await handle();
  expect(await newestStack()).toMatchObject({ id: first.id, pages: 2 });
  const { pageList } = await room.ask(endpoints.readStack, { params: { id: first.id } });
  const pages = pageList.map((page) => ({ ...page, cutBefore: true, cutDecided: true }));
  await room.ask(endpoints.arrangeStack, { params: { id: first.id }, body: { base: 0, pages } });
  put('c.pdf', await fresh());
  await handle();
  expect(await newestStack()).toMatchObject({ pages: 1 });
});

it('sends each file straight to Check as one document, however many pages it has', async () => {
  await watch('check');
  put('a.pdf', await textPdf('First page of a lease', 'Second page of a lease'));
  put('b.pdf', await fresh());
  await handle();
  const waiting = await room.ask(endpoints.listWaiting, {});
  expect(waiting.slice(-2).map(({ pages, forEntry }) => [pages, forEntry])).toEqual([
    [2, false],
    [1, false],
  ]);
  // Taken back to the light table it stays there, whatever is added to it.
  const { stackId } = await room.ask(endpoints.readDocument, { params: { id: waiting.at(-1)!.id } });
  await room.ask(endpoints.unsortStack, { params: { id: stackId! } });
  await room.takeIn({ 'more.pdf': await fresh() }, stackId!);
  await room.work();
  expect(await room.ask(endpoints.readStack, { params: { id: stackId! } })).toMatchObject({ state: 'open', pages: 2 });
});

it('marks papers that belong to entries', async () => {
  await watch('match');
  put('slip.pdf', await fresh());
  await handle();
  expect((await room.ask(endpoints.listWaiting, {})).at(-1)).toMatchObject({ forEntry: true });
});

it('moves papers that can’t be opened to refused, with a note in words and on the screen, and goes on with the rest', async () => {
  const { id } = await watch();
  put('broken.pdf', '%PDF-1.7 and then nothing');
  put('good.pdf', await fresh());
  await handle();
  expect(inside()).toEqual([]);
  expect(inside('done')).toEqual(['good.pdf']);
  expect(inside('refused')).toEqual(['broken.pdf', 'broken.pdf.txt']);
  expect(readFileSync(join(folder, 'refused/broken.pdf.txt'), 'utf8')).toMatch(/“broken.pdf” is damaged/);
  expect(readFileSync(join(folder, 'refused/broken.pdf'), 'utf8')).toBe('%PDF-1.7 and then nothing');
  await room.watcher.look();
  expect((await state()).refused).toMatchObject([{ name: 'broken.pdf', problem: { code: 'file-broken' } }]);
  await room.ask(endpoints.forgetRefused, { params: { id } });
  expect((await state()).refused).toEqual([]);
});

it('leaves what is no paper where it is, and names it', async () => {
  await watch();
  put('keys.txt', 'the spare one lies under the loom');
  put('empty.jpg', '');
  put('letter.docx', zipSync({ '[Content_Types].xml': Buffer.from('<Types/>') }));
  put('good.pdf', await fresh());
  await handle();
  await handle();
  expect(inside()).toEqual(['empty.jpg', 'keys.txt', 'letter.docx']);
  expect(inside('done')).toEqual(['good.pdf']);
  expect(inside('refused')).toEqual([]);
  const { left, waiting } = await state();
  expect(left.sort()).toEqual(['empty.jpg', 'keys.txt', 'letter.docx']);
  expect(waiting).toBe(0);
  // One that becomes a paper is taken in like any other.
  put('empty.jpg', await fresh());
  await handle();
  expect(inside('done')).toEqual(['empty.jpg', 'good.pdf']);
});

it('asks before it empties a folder that holds more than a few papers', async () => {
  for (let number = 1; number <= 7; number++) put(`bill ${number}.pdf`, await fresh());
  put('notes.txt', 'not a paper');
  const wish = { path: folder, purpose: 'sort' as const };
  const refused = await room.refusal(endpoints.watchFolder, { body: { ...wish, confirmed: false } });
  expect(refused).toMatchObject({ code: 'watched-full', status: 409 });
  expect(refused.happened).toContain('7 files');
  expect(refused.happened).toContain('bill 1.pdf');
  expect(existsSync(join(folder, 'done'))).toBe(false);
  await room.ask(endpoints.watchFolder, { body: { ...wish, confirmed: true } });
  await handle();
  expect(inside('done')).toHaveLength(7);
});

it.each(['/', '/etc', '/proc', '/proc/self', '/sys/kernel', '/dev', '/usr/share', '/var/lib/../log', '/run'])(
  'never watches %s',
  async (path) => {
    const body = { path, purpose: 'sort' as const, confirmed: true };
    expect(await room.refusal(endpoints.watchFolder, { body })).toMatchObject({ code: 'watched-unfit' });
  },
);

it('recognises bytes that were taken in before, whatever their name, unless they are in the bin', async () => {
  await watch('check');
  put('once.pdf', invoice);
  await handle();
  put('again.pdf', invoice);
  await handle();
  expect(inside('refused')).toEqual(['again.pdf', 'again.pdf.txt']);
  expect(readFileSync(join(folder, 'refused/again.pdf.txt'), 'utf8')).toMatch(/identical to “once.pdf”/);
  const { id } = (await room.ask(endpoints.listWaiting, {})).at(-1)!;
  await room.ask(endpoints.binDocument, { params: { id } });
  put('again.pdf', invoice);
  await handle();
  expect(inside('done')).toEqual(['again.pdf', 'once.pdf']);
});

it('never moves over a file of the same name', async () => {
  await watch();
  const [first, second] = [await fresh(), await fresh()];
  put('scan.pdf', first);
  await handle();
  put('scan.pdf', second);
  await handle();
  expect(inside('done')).toEqual(['scan (2).pdf', 'scan.pdf']);
  expect(readFileSync(join(folder, 'done/scan.pdf'))).toEqual(Buffer.from(first));
  expect(readFileSync(join(folder, 'done/scan (2).pdf'))).toEqual(Buffer.from(second));
});

it('waits until a file no longer grows, and for those that programs still write', async () => {
  await watch();
  const whole = Buffer.from(await fresh());
  put('growing.pdf', whole.subarray(0, 100));
  put('half.pdf.part', whole.subarray(0, 100));
  put('.hidden.pdf', whole);
  await room.watcher.look();
  put('growing.pdf', whole.subarray(0, 200));
  await room.watcher.look();
  expect((await state()).waiting).toBe(1);
  put('growing.pdf', whole);
  await handle();
  expect(inside()).toEqual(['.hidden.pdf', 'half.pdf.part']);
  expect(inside('done')).toEqual(['growing.pdf']);
});

it('takes nothing in twice when it ended before it could move the file', async () => {
  await watch();
  put('a.pdf', await fresh());
  await room.watcher.look();
  await room.watcher.look();
  await room.work();
  const before = await newestStack();
  // The program starts again here, and knows nothing of what it saw.
  const another = new Watcher(room.context, [room.shelf.root], { stillMs: 0, stillEmptyMs: 0 });
  await another.look();
  await another.look();
  expect(inside('done')).toEqual(['a.pdf']);
  expect(await newestStack()).toEqual(before);
});

it('takes in again what was taken out of done while the first one is in the bin', async () => {
  await watch('check');
  put('lease.pdf', await fresh());
  await handle();
  const { id } = (await room.ask(endpoints.listWaiting, {})).at(-1)!;
  await room.ask(endpoints.binDocument, { params: { id } });
  const before = (await room.ask(endpoints.listWaiting, {})).length;
  renameSync(join(folder, 'done/lease.pdf'), join(folder, 'lease.pdf'));
  await handle();
  expect(await room.ask(endpoints.listWaiting, {})).toHaveLength(before + 1);
});

it('goes on looking when it is asked to look while it looks', async () => {
  await watch();
  put('a.pdf', await fresh());
  await Promise.all([room.watcher.look(), room.watcher.look(), room.watcher.look()]);
  await handle();
  expect(inside('done')).toEqual(['a.pdf']);
});

it('tells of a drive that has gone, writes nothing into its place, and goes on when it is back', async () => {
  await watch();
  renameSync(folder, `${folder}-away`);
  await room.watcher.look();
  expect((await state()).problem).toMatchObject({ code: 'watched-gone' });
  // The place where it belongs is there, but nothing is in it.
  mkdirSync(folder);
  put('stray.pdf', await fresh());
  await handle();
  expect((await state()).problem).toMatchObject({ code: 'watched-strange' });
  expect(inside()).toEqual(['stray.pdf']);
  rmSync(folder, { recursive: true });
  renameSync(`${folder}-away`, folder);
  put('late.pdf', await fresh());
  await handle();
  expect(await state()).toMatchObject({ waiting: 0, problem: null });
  expect(inside('done')).toEqual(['late.pdf']);
});

it('does not follow links out of the folder', async () => {
  await watch();
  const secret = join(scratchFolder(), 'secret.pdf');
  writeFileSync(secret, await fresh());
  symlinkSync(secret, join(folder, 'link.pdf'));
  await handle();
  expect(inside('done')).toEqual([]);
  expect(existsSync(secret)).toBe(true);
});

it('watches only folders that fit', async () => {
  const refused = (path: string) =>
    room.refusal(endpoints.watchFolder, { body: { path, purpose: 'sort', confirmed: false } });
  expect((await refused('scans')).happened).toMatch(/begins at the root/);
  expect((await refused(join(folder, 'nowhere'))).happened).toMatch(/no such folder/);
  expect((await refused(room.shelf.root)).happened).toMatch(/its own files/);
  await watch();
  expect((await refused(folder)).happened).toMatch(/watched already/);
  expect((await refused(join(folder, 'done'))).happened).toMatch(/handled files/);
});

it('stops watching and leaves what is there', async () => {
  const { id } = await watch();
  await room.ask(endpoints.leaveFolder, { params: { id } });
  put('a.pdf', await fresh());
  await handle();
  expect(inside()).toEqual(['a.pdf']);
  expect(await state()).toBeUndefined();
});

it('completes a path by the folders that there are', async () => {
  mkdirSync(join(folder, 'Scans from the office'));
  put('Scans.txt', 'no folder');
  const places = await room.ask(endpoints.listPlaces, { query: { beginning: join(folder, 'sca') } });
  expect(places).toEqual([join(folder, 'Scans from the office')]);
  expect(await room.ask(endpoints.listPlaces, { query: { beginning: 'etc' } })).toEqual([]);
});
