import {
  chmodSync,
  existsSync,
  mkdirSync,
  readdirSync,
  readFileSync,
  renameSync,
  rmSync,
  writeFileSync,
} from 'node:fs';
import { join } from 'node:path';
import { endpoints } from '@crow/contract/endpoints';
import { readMarks } from '@crow/core/pdf/marks/readMarks';
import { scratchFolder, textPdf } from '../testing/made';
import { TestRoom } from '../testing/room';

let room: TestRoom;
let outside: string;
let [lease, oars]: string[] = [];
beforeAll(async () => {
  room = await TestRoom.open();
  lease = await room.documentOf('lease.pdf', await textPdf('Lease of the boat house'));
  oars = await room.documentOf('bill.pdf', await textPdf('Bill for new oars'));
  await room.file(lease, 'Lease', 'Boat');
  await room.file(oars, 'Oars', 'Boat/Bills');
  await room.workOnAll();
}, 120_000);
afterAll(() => room.close());
beforeEach(() => {
  outside = scratchFolder();
});
afterEach(async () => {
  for (const { id } of await places()) await room.ask(endpoints.leaveCopyPlace, { params: { id } });
});

/** Everything is done, what follows from it as well. */
const settle = async () => {
  await room.workOnAll();
  await room.workOnAll();
};
const places = () => room.ask(endpoints.listCopyPlaces, {});
const add = async (what: { folderId?: string; documentIds?: string[]; keep?: boolean } = {}) => {
  const { folderId = null, documentIds = null, keep = true } = what;
  const { id } = await room.ask(endpoints.addCopyPlace, { body: { path: outside, folderId, documentIds, keep } });
  await settle();
  return id;
};
const place = async () => (await places())[0];
const onShelf = (path: string) => readFileSync(join(room.shelf.root, path));
const copy = (path: string) => readFileSync(join(outside, path));
/** What lies there, without what is hidden. */
const there = (folder = outside): string[] =>
  readdirSync(folder, { recursive: true, withFileTypes: true })
    .filter((each) => each.isFile() && !each.name.startsWith('.'))
    .map((each) => join(each.parentPath, each.name).slice(folder.length + 1))
    .sort();
const folder = async (path: string) => (await room.ask(endpoints.listFolders, {})).find((each) => each.path === path)!;

it('keeps copies of the whole shelf in step: what is marked, renamed, moved, binned and brought back', async () => {
  await add();
  expect(there()).toEqual(['Boat/Bills/Oars.pdf', 'Boat/Lease.pdf']);
  expect(copy('Boat/Lease.pdf')).toEqual(onShelf('Boat/Lease.pdf'));
  expect(await place()).toMatchObject({ copies: 2, wanted: 2, problem: null, left: [], keep: true });
  expect((await place()).agreed).not.toBeNull();

  await room.ask(endpoints.changeDocuments, { body: { changes: [{ id: lease, name: 'Lease, signed' }] } });
  await room.ask(endpoints.changeFolder, { params: { id: (await folder('Boat/Bills')).id }, body: { name: 'Paid' } });
  await settle();
  expect(there()).toEqual(['Boat/Lease, signed.pdf', 'Boat/Paid/Oars.pdf']);
  // A folder that is empty is taken away.
  expect(existsSync(join(outside, 'Boat/Bills'))).toBe(false);

  await room.ask(endpoints.changeDocuments, { body: { changes: [{ id: oars, binned: true }] } });
  await settle();
  expect(there()).toEqual(['Boat/Lease, signed.pdf']);
  await room.ask(endpoints.bringBackDocument, { params: { id: oars } });
  await room.ask(endpoints.changeDocuments, { body: { changes: [{ id: lease, name: 'Lease' }] } });
  await settle();
  expect(there()).toEqual(['Boat/Lease.pdf', 'Boat/Paid/Oars.pdf']);

  const [{ id: pageId }] = (await room.ask(endpoints.readDocument, { params: { id: lease } })).pageList;
  const mark = {
    id: crypto.randomUUID(),
    pageId,
    kind: 'stamp' as const,
    ink: 'sea' as const,
    strokes: [],
    text: 'PAID',
  };
  await room.ask(endpoints.changeMarks, {
    params: { id: lease },
    body: { put: [{ ...mark, boxes: [[50, 50, 100, 30]] }], remove: [] },
  });
  await settle();
  expect((await readMarks(copy('Boat/Lease.pdf')))[0]).toMatchObject([{ kind: 'stamp', text: 'PAID' }]);
});

it('puts back what was taken away there, and leaves alone what others put or changed there', async () => {
  mkdirSync(join(outside, 'Boat'));
  writeFileSync(join(outside, 'Boat/Lease.pdf'), 'somebody’s own');
  writeFileSync(join(outside, 'note.txt'), 'mine');
  const id = await add();
  expect(copy('Boat/Lease.pdf').toString()).toBe('somebody’s own');
  expect((await place()).left).toEqual(['Boat/Lease.pdf (something else has this name)']);
  rmSync(join(outside, 'Boat/Lease.pdf'));
  rmSync(join(outside, 'Boat/Paid'), { recursive: true });
  await room.ask(endpoints.agreeCopyPlace, { params: { id } });
  await settle();
  expect(there()).toEqual(['Boat/Lease.pdf', 'Boat/Paid/Oars.pdf', 'note.txt']);
  expect((await place()).left).toEqual([]);

  writeFileSync(join(outside, 'Boat/Paid/Oars.pdf'), 'written over');
  await room.ask(endpoints.changeDocuments, { body: { changes: [{ id: oars, binned: true }] } });
  await settle();
  expect(copy('Boat/Paid/Oars.pdf').toString()).toBe('written over');
  expect((await place()).left).toEqual(['Boat/Paid/Oars.pdf (changed there)']);
  await room.ask(endpoints.bringBackDocument, { params: { id: oars } });
  await settle();
  expect(copy('Boat/Paid/Oars.pdf').toString()).toBe('written over');
});

it('copies a folder as it is below, and papers beside each other, once', async () => {
  await add({ folderId: (await folder('Boat')).id, keep: false });
  expect(there()).toEqual(['Lease.pdf', 'Paid/Oars.pdf']);
  expect(await place()).toMatchObject({ scope: 'folder', of: 'Boat', keep: false, copies: 2 });
  await room.ask(endpoints.changeDocuments, { body: { changes: [{ id: lease, name: 'Lease of May' }] } });
  await settle();
  expect(there()).toEqual(['Lease.pdf', 'Paid/Oars.pdf']);
  expect(existsSync(join(outside, '.crow-copies'))).toBe(false);

  // Once more into the same folder: what is there with the same name and other bytes stays.
  await room.ask(endpoints.changeDocuments, { body: { changes: [{ id: lease, name: 'Lease' }] } });
  await settle();
  await add({ documentIds: [lease, oars], keep: false });
  expect(there()).toEqual(['Lease.pdf', 'Oars.pdf', 'Paid/Oars.pdf']);
  expect(await place()).toMatchObject({ scope: 'papers', of: '2', copies: 2 });
});

it('writes nothing into the empty place of a drive, and goes on when it is there again', async () => {
  const id = await add();
  renameSync(outside, `${outside}.away`);
  mkdirSync(outside);
  await room.ask(endpoints.agreeCopyPlace, { params: { id } });
  await settle();
  expect(readdirSync(outside)).toEqual([]);
  expect((await place()).problem?.code).toBe('copies-gone');
  rmSync(outside, { recursive: true });
  renameSync(`${outside}.away`, outside);
  await room.ask(endpoints.agreeCopyPlace, { params: { id } });
  await settle();
  expect(await place()).toMatchObject({ problem: null, copies: 2 });
});

it('refuses folders of the system, its own, watched ones, and a second time the same', async () => {
  const refused = async (path: string) =>
    (await room.refusal(endpoints.addCopyPlace, { body: { path, folderId: null, documentIds: null, keep: true } }))
      .happened;
  expect(await refused('/usr/share')).toContain('belongs to the system');
  expect(await refused(join(room.shelf.root, 'Boat'))).toContain('its own files');
  expect(await refused(join(outside, 'nothing'))).toContain('no such folder');
  expect(await refused('Papers')).toContain('begins at the root');
  const watched = scratchFolder();
  await room.ask(endpoints.watchFolder, { body: { path: watched, purpose: 'sort', confirmed: false } });
  expect(await refused(watched)).toContain('watched folder');
  await add();
  expect(await refused(outside)).toContain('in step there already');
  const both = { path: outside, purpose: 'sort' as const, confirmed: false };
  expect((await room.refusal(endpoints.watchFolder, { body: both })).happened).toContain('copies of papers');
});

it('renames by capitals alone, and exchanges names', async () => {
  await add();
  await room.ask(endpoints.changeDocuments, { body: { changes: [{ id: lease, name: 'LEASE' }] } });
  await settle();
  expect(there()).toContain('Boat/LEASE.pdf');
  expect(there()).not.toContain('Boat/Lease.pdf');
  const bill = readFileSync(join(outside, 'Boat/Paid/Oars.pdf'));
  const before = copy('Boat/LEASE.pdf');
  const paid = (await folder('Boat/Paid')).id;
  const boat = (await folder('Boat')).id;
  await room.ask(endpoints.changeDocuments, {
    body: {
      changes: [
        { id: lease, name: 'Oars', folderId: boat },
        { id: oars, name: 'Lease', folderId: boat },
      ],
    },
  });
  await room.ask(endpoints.changeDocuments, { body: { changes: [{ id: oars, name: 'Oars', folderId: paid }] } });
  await settle();
  expect(there()).toEqual(['Boat/Oars.pdf', 'Boat/Paid/Oars.pdf']);
  expect([copy('Boat/Oars.pdf'), copy('Boat/Paid/Oars.pdf')]).toEqual([before, bill]);
  expect((await place()).left).toEqual([]);
  await room.ask(endpoints.changeDocuments, { body: { changes: [{ id: lease, name: 'Lease' }] } });
});

it('goes on once the place can be written in again, also with copies that are made once', async () => {
  chmodSync(outside, 0o500);
  await add({ keep: false });
  // Whoever may do everything writes there all the same.
  if (process.getuid?.() !== 0) expect((await place()).problem?.code).toBe('copies-not-writable');
  chmodSync(outside, 0o700);
  await room.ask(endpoints.agreeCopyPlace, { params: { id: (await place()).id } });
  await settle();
  expect(await place()).toMatchObject({ problem: null, copies: 2 });
});

it('leaves the copies where they are when they are kept in step no longer', async () => {
  const id = await add();
  await room.ask(endpoints.leaveCopyPlace, { params: { id } });
  await room.ask(endpoints.changeDocuments, { body: { changes: [{ id: lease, name: 'Lease, other' }] } });
  await settle();
  expect(there()).toContain('Boat/Lease.pdf');
  expect(existsSync(join(outside, '.crow-copies'))).toBe(false);
  expect(await places()).toEqual([]);
  await room.ask(endpoints.changeDocuments, { body: { changes: [{ id: lease, name: 'Lease' }] } });
});
