import { mkdirSync, readdirSync, readFileSync, renameSync, rmSync, unlinkSync, writeFileSync } from 'node:fs';
import { dirname, join } from 'node:path';
import { endpoints } from '@crow/contract/endpoints';
import { DiskChoice } from '@crow/contract/shapes';
import { textPdf } from '../testing/made';
import { TestRoom } from '../testing/room';

let room: TestRoom;
beforeEach(async () => void (room = await TestRoom.open()));
afterEach(() => room.close());

const pathOnDisk = (path: string) => join(room.shelf.root, path);
const read = (id: string) => room.ask(endpoints.readDocument, { params: { id } });
const paper = async (name: string, folder = 'A') => {
  const id = await room.documentOf(
    `${name}.pdf`,
    await textPdf(
      `Marlowe Dye Works Ltd\nInvoice\nInvoice no. 1302\nThe paper called ${name}\nDyeing to shade, madder`,
    ),
  );
  await room.file(id, name, folder);
  return id;
};
const look = async () => {
  await room.changes.inspect();
  await room.work();
};
const settle = async (choice: DiskChoice, ...ids: string[]) => {
  await room.ask(endpoints.settleOnDisk, { body: { ids, choice } });
  await room.work();
};
const move = (from: string, to: string) => {
  mkdirSync(dirname(pathOnDisk(to)), { recursive: true });
  renameSync(pathOnDisk(from), pathOnDisk(to));
};

describe('a file that somebody changed', () => {
  const changed = async () => {
    const id = await paper('Paper');
    const own = readFileSync(pathOnDisk('A/Paper.pdf'));
    const theirs = await textPdf('With a note on it');
    writeFileSync(pathOnDisk('A/Paper.pdf'), theirs);
    await look();
    return { id, own, theirs };
  };

  it('is told, counted and left alone, even when the document is renamed', async () => {
    const { id, theirs } = await changed();
    await room.ask(endpoints.changeDocument, { params: { id }, body: { name: 'Renamed' } });
    await room.work();
    expect(readFileSync(pathOnDisk('A/Paper.pdf')).equals(theirs)).toBe(true);
    const { problem } = await read(id);
    expect(problem).toMatchObject({
      code: 'shelf-file-changed',
      happened: expect.stringContaining('A/Paper.pdf'),
    });
    expect((await room.ask(endpoints.overview, {})).changedOnDisk).toBe(1);
    expect((await room.ask(endpoints.listChangedOnDisk, {})).map((each) => each.id)).toEqual([id]);
  });

  it('becomes the document’s PDF, the one before an earlier version', async () => {
    const { id, own, theirs } = await changed();
    await settle('as-on-disk', id);
    expect((await room.request('GET', `/api/documents/${id}/pdf`)).raw.equals(theirs)).toBe(true);
    const [{ number }] = await room.ask(endpoints.listVersions, { params: { id } });
    const before = await room.request('GET', `/api/documents/${id}/versions/${number}/pdf`);
    expect(before.raw.equals(own)).toBe(true);
    await look();
    expect((await read(id)).problem).toBeNull();
    expect(readFileSync(pathOnDisk('A/Paper.pdf')).equals(theirs)).toBe(true);
  });

  it('stays beside the document’s own file when that is put back', async () => {
    const { id, own, theirs } = await changed();
    await settle('as-filed', id);
    expect(readFileSync(pathOnDisk('A/Paper.pdf')).equals(own)).toBe(true);
    expect(readFileSync(pathOnDisk('A/Paper (changed).pdf')).equals(theirs)).toBe(true);
    expect((await read(id)).problem).toBeNull();
  });

  it('is taken in as a new paper', async () => {
    const { id, own, theirs } = await changed();
    await settle('new-paper', id);
    const [stack] = await room.ask(endpoints.listStacks, {});
    expect(stack).toMatchObject({ name: 'Paper.pdf', pages: 1 });
    const original = await room.request('GET', `/api/files/${stack.files[0].id}/original`);
    expect(original.raw.equals(theirs)).toBe(true);
    expect(readFileSync(pathOnDisk('A/Paper.pdf')).equals(own)).toBe(true);
    expect(readdirSync(pathOnDisk('A'))).toEqual(['Paper.pdf']);
  });

  it('is not taken over when it is no PDF', async () => {
    const id = await paper('Paper');
    writeFileSync(pathOnDisk('A/Paper.pdf'), 'written by hand');
    await look();
    const refused = await room.refusal(endpoints.settleOnDisk, { body: { ids: [id], choice: 'as-on-disk' } });
    expect(refused).toMatchObject({ code: 'shelf-file-unfit' });
    expect(readFileSync(pathOnDisk('A/Paper.pdf'), 'utf8')).toBe('written by hand');
  });

  it('is well again when what was changed is undone on disk', async () => {
    const { id, own } = await changed();
    writeFileSync(pathOnDisk('A/Paper.pdf'), own);
    await look();
    expect((await read(id)).problem).toBeNull();
    expect((await room.ask(endpoints.overview, {})).changedOnDisk).toBe(0);
  });
});

describe('a file that somebody moved', () => {
  it('takes its document along, name and folder, if that is wished', async () => {
    const id = await paper('Paper');
    await paper('Other');
    move('A/Paper.pdf', 'Elsewhere/Deep/As I call it.pdf');
    await look();
    expect((await read(id)).problem).toMatchObject({
      code: 'shelf-file-moved',
      happened: expect.stringContaining('Elsewhere/Deep/As I call it.pdf'),
    });
    await settle('as-on-disk', id);
    expect(await read(id)).toMatchObject({ name: 'As I call it', folderPath: 'Elsewhere/Deep', problem: null });
    await look();
    expect([room.onDisk('A/Paper.pdf'), room.onDisk('Elsewhere/Deep/As I call it.pdf')]).toEqual([false, true]);
  });

  it('comes back if that is wished, leaving nothing behind', async () => {
    const id = await paper('Paper');
    await paper('Other');
    move('A/Paper.pdf', 'B/Paper.pdf');
    await look();
    await settle('as-filed', id);
    expect([room.onDisk('A/Paper.pdf'), room.onDisk('B/Paper.pdf')]).toEqual([true, false]);
    expect(await read(id)).toMatchObject({ name: 'Paper', folderPath: 'A', problem: null });
  });

  it('is settled for all files of a folder that was renamed at once', async () => {
    const ids = [await paper('One'), await paper('Two')];
    await paper('Three', 'B');
    renameSync(pathOnDisk('A'), pathOnDisk('Better'));
    await look();
    await settle('as-on-disk', ...ids);
    for (const id of ids) expect(await read(id)).toMatchObject({ folderPath: 'Better', problem: null });
  });
});

describe('a file that somebody took away', () => {
  it('is told, and put back if that is wished', async () => {
    const id = await paper('Paper');
    await paper('Other');
    unlinkSync(pathOnDisk('A/Paper.pdf'));
    await look();
    expect((await read(id)).problem).toMatchObject({ code: 'shelf-file-missing' });
    expect(room.onDisk('A/Paper.pdf')).toBe(false);
    await settle('as-filed', id);
    expect(room.onDisk('A/Paper.pdf')).toBe(true);
    expect((await read(id)).problem).toBeNull();
  });

  it('takes its document to the bin if that is wished, from where it can be brought back', async () => {
    const id = await paper('Paper');
    await paper('Other');
    unlinkSync(pathOnDisk('A/Paper.pdf'));
    await look();
    await settle('as-on-disk', id);
    expect((await room.ask(endpoints.listBin, {})).documents.map((each) => each.id)).toEqual([id]);
    await room.ask(endpoints.bringBackDocument, { params: { id } });
    await room.work();
    expect(room.onDisk('A/Paper.pdf')).toBe(true);
  });

  it('is written again without asking when the whole shelf folder was lost', async () => {
    const ids = [await paper('One'), await paper('Two', 'B')];
    rmSync(room.shelf.root, { recursive: true });
    await look();
    expect([room.onDisk('A/One.pdf'), room.onDisk('B/Two.pdf')]).toEqual([true, true]);
    for (const id of ids) expect((await read(id)).problem).toBeNull();
  });
});
