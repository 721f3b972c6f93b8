import { execFileSync } from 'node:child_process';
import {
  chmodSync,
  mkdirSync,
  readdirSync,
  readFileSync,
  renameSync,
  rmSync,
  statSync,
  unlinkSync,
  writeFileSync,
} from 'node:fs';
import { dirname, join } from 'node:path';
import { endpoints } from '@crow/contract/endpoints';
import { DiskChoice } from '@crow/contract/folders';
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

  it('is what the document is made of from then on: a correction changes it, and not the one before', async () => {
    const { id } = await changed();
    await settle('as-on-disk', id);
    const { pageList } = await read(id);
    expect(pageList).toHaveLength(1);
    const { words } = await room.ask(endpoints.pageText, { params: { id: pageList[0].id } });
    expect(words.map(([text]) => text).join(' ')).toBe('With a note on it');
    await room.ask(endpoints.changeDocument, { params: { id }, body: { size: 'small' } });
    await room.work();
    expect(execFileSync('pdftotext', [pathOnDisk('A/Paper.pdf'), '-'], { encoding: 'utf8' })).toContain(
      'With a note on it',
    );
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
});

describe('the shelf folder itself', () => {
  const overview = () => room.ask(endpoints.overview, {});

  it('is not written into while its drive is gone, is told so, and goes on when the drive is back', async () => {
    const id = await paper('One');
    // The drive is taken away: its place is there, and empty.
    renameSync(room.shelf.root, `${room.shelf.root}.away`);
    mkdirSync(room.shelf.root);
    await look();
    expect((await overview()).troubles).toMatchObject([{ code: 'shelf-gone' }]);
    expect((await read(id)).problem).toBeNull();
    await expect(paper('Two')).rejects.toMatchObject({ code: 'shelf-gone' });
    expect(readdirSync(room.shelf.root)).toEqual([]);
    rmSync(room.shelf.root, { recursive: true });
    renameSync(`${room.shelf.root}.away`, room.shelf.root);
    await look();
    expect((await overview()).troubles).toEqual([]);
    expect(room.onDisk('A/One.pdf')).toBe(true);
  });

  it('that is lost is written anew when somebody says so', async () => {
    await paper('One');
    await paper('Two', 'B');
    rmSync(room.shelf.root, { recursive: true });
    await look();
    expect((await overview()).troubles).toMatchObject([{ code: 'shelf-gone' }]);
    await room.ask(endpoints.writeShelfAnew, {});
    await room.work();
    expect([room.onDisk('A/One.pdf'), room.onDisk('B/Two.pdf')]).toEqual([true, true]);
    expect((await overview()).troubles).toEqual([]);
  });

  it('that others share stays shared: what is written in it is as open as it is', async () => {
    chmodSync(room.shelf.root, 0o775);
    await paper('Open', 'Shared/Deep');
    expect(statSync(pathOnDisk('Shared/Deep')).mode & 0o777).toBe(0o775);
    expect(statSync(pathOnDisk('Shared/Deep/Open.pdf')).mode & 0o777).toBe(0o664);
    chmodSync(room.shelf.root, 0o700);
    await paper('Closed', 'Own');
    expect(statSync(pathOnDisk('Own/Closed.pdf')).mode & 0o777).toBe(0o600);
  });
});

describe('a file that somebody put into the shelf folder', () => {
  it('is offered, and taken in goes to Check, to be filed where it lay', async () => {
    await paper('One');
    writeFileSync(pathOnDisk('A/From elsewhere.pdf'), await textPdf('A letter of the harbour office\nabout moorings'));
    writeFileSync(pathOnDisk('A/mine.txt'), 'no paper');
    await look();
    expect(await room.ask(endpoints.listStrangers, {})).toMatchObject([{ path: 'A/From elsewhere.pdf' }]);
    expect((await room.ask(endpoints.overview, {})).strangers).toBe(1);
    await room.ask(endpoints.settleStrangers, {
      body: { paths: ['A/From elsewhere.pdf', '../outside.pdf'], choice: 'take-in' },
    });
    await room.work();
    expect(room.onDisk('A/From elsewhere.pdf')).toBe(false);
    const [waiting] = await room.ask(endpoints.listWaiting, {});
    expect((await read(waiting.id)).suggestion).toMatchObject({ path: 'A' });
    expect(room.onDisk('A/mine.txt')).toBe(true);
  });

  it('is left alone, and offered no more, when that is wanted', async () => {
    writeFileSync(pathOnDisk('theirs.pdf'), await textPdf('theirs'));
    await look();
    await room.ask(endpoints.settleStrangers, { body: { paths: ['theirs.pdf'], choice: 'leave' } });
    expect(await room.ask(endpoints.listStrangers, {})).toEqual([]);
    expect(room.onDisk('theirs.pdf')).toBe(true);
  });
});
