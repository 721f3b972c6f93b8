import { execFileSync } from 'node:child_process';
import { writeFileSync, unlinkSync, mkdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { endpoints } from '@crow/contract/endpoints';
import { rows } from '../platform/database';
import { theProgram } from '../platform/history';
import { scanned, textPdf } from '../testing/made';
import { TestRoom } from '../testing/room';

let room: TestRoom;
beforeEach(async () => void (room = await TestRoom.open()));
afterEach(() => room.close());

const INVOICE =
  'Marlowe Dye Works Ltd\nInvoice\nInvoice no. 1302\nDate 11 November 2026\nDyeing to shade, madder\nTotal 186.60';
const invoice = async () => room.documentOf('scan0001.pdf', await textPdf(INVOICE));
const read = (id: string) => room.ask(endpoints.readDocument, { params: { id } });
const pathOnDisk = (path: string) => join(room.shelf.root, path);

describe('checking', () => {
  it('finds kind, sender and date, and proposes a name from them', async () => {
    const document = await read(await invoice());
    expect(document).toMatchObject({ kind: 'invoice', vendor: 'Marlowe Dye Works Ltd', date: '2026-11-11' });
    expect(document.proposedName).toBe('2026-11-11 Marlowe Dye Works Ltd Invoice');
    const date = document.facts.find(({ name }) => name === 'date')!;
    expect(date).toMatchObject({ confirmed: false, by: null, pageId: document.pageList[0].id });
    expect(date.box!.every((share) => share > 0 && share < 1)).toBe(true);
  });

  it('takes a fact set by hand, with the place it was picked from, and says whose it is', async () => {
    const id = await invoice();
    const [{ id: pageId }] = (await read(id)).pageList;
    const params = { id, name: 'date' as const };
    const { facts } = await room.ask(endpoints.changeFact, {
      params,
      body: { value: '12.11.2026', pageId, box: [0.1, 0.2, 0.1, 0.02] },
    });
    expect(facts.find(({ name }) => name === 'date')).toMatchObject({
      value: '2026-11-12',
      confirmed: true,
      by: 'Owner',
      box: [0.1, 0.2, 0.1, 0.02],
    });
    expect(await room.refusal(endpoints.changeFact, { params, body: { value: 'soon' } })).toMatchObject({
      code: 'date-unclear',
    });
    const cleared = await room.ask(endpoints.changeFact, { params, body: { value: '' } });
    expect(cleared.date).toBeNull();
  });

  it('lets a document wait behind the others', async () => {
    const [first, second] = [await invoice(), await invoice()];
    await room.ask(endpoints.putToBack, { params: { id: first } });
    expect((await room.ask(endpoints.listWaiting, {})).map(({ id }) => id)).toEqual([second, first]);
  });

  it('suggests the folder that papers of the sender went to before, with the reason', async () => {
    await room.file(await invoice(), 'First', 'Workshop/Dyeing');
    const { suggestion } = await read(await invoice());
    const [folder] = (await room.ask(endpoints.listFolders, {})).filter(({ path }) => path === 'Workshop/Dyeing');
    expect(suggestion).toEqual({ path: folder.path, reason: 'The last one from Marlowe Dye Works Ltd went here' });
  });
});

describe('filing', () => {
  it('puts a searchable PDF into the database and into a real folder, the same bytes', async () => {
    const id = await room.documentOf(
      'scan.jpg',
      await scanned('Quittung über Färbemuster\nQuayside Parcels\nTotal 31.40'),
    );
    await room.file(id, 'Größe: 1/2', 'Workshop/Post & Porto');
    const document = await read(id);
    expect(document).toMatchObject({
      state: 'filed',
      name: 'Größe. 1-2',
      folderPath: 'Workshop/Post & Porto',
      archival: true,
      shelfPath: 'Workshop/Post & Porto/Größe. 1-2.pdf',
    });
    const pdf = await room.send(endpoints.documentPdf, { params: { id } });
    expect(pdf.raw.equals(room.diskBytes(document.shelfPath!))).toBe(true);
    const text = execFileSync('pdftotext', [pathOnDisk(document.shelfPath!), '-'], { encoding: 'utf8' });
    expect(text).toContain('Quayside Parcels');
    expect(execFileSync('pdfinfo', [pathOnDisk(document.shelfPath!)], { encoding: 'utf8' })).toMatch(
      /Title:\s+Größe\. 1-2/,
    );
  });

  it('gives a taken name a number, whatever its case, and overwrites nothing', async () => {
    const ids = [await invoice(), await invoice(), await invoice()];
    await room.file(ids[0], 'Rent', 'Home');
    await room.file(ids[1], 'RENT', 'Home');
    mkdirSync(pathOnDisk('Home'), { recursive: true });
    writeFileSync(pathOnDisk('Home/Rent (3).pdf'), 'somebody else’s');
    await room.file(ids[2], 'Rent', 'Home');
    expect(await Promise.all(ids.map(async (id) => (await read(id)).shelfPath))).toEqual([
      'Home/Rent.pdf',
      'Home/RENT (2).pdf',
      'Home/Rent (4).pdf',
    ]);
    expect(readFileSync(pathOnDisk('Home/Rent (3).pdf'), 'utf8')).toBe('somebody else’s');
  });

  it('waits for the text when a document is filed before it has been read', async () => {
    const stack = await room.takeIn({ 'scan.jpg': await scanned('Words that arrive later') });
    await room.work(['take-in', 'picture']);
    const { documents } = await room.ask(endpoints.sortStack, { params: { id: stack } });
    const filed = await room.ask(endpoints.fileDocument, {
      params: { id: documents[0] },
      body: { name: 'Later', folderPath: 'Post' },
    });
    expect(filed.state).toBe('filing');
    await room.work(['bind', 'shelve']);
    expect((await read(documents[0])).state).toBe('filing');
    await room.work();
    expect((await read(documents[0])).state).toBe('filed');
    expect(execFileSync('pdftotext', [pathOnDisk('Post/Later.pdf'), '-'], { encoding: 'utf8' })).toContain(
      'arrive later',
    );
  });

  it('is refused with a sentence when name or folder is missing, or it is filed already', async () => {
    const id = await invoice();
    expect(
      await room.refusal(endpoints.fileDocument, { params: { id }, body: { name: ' . ', folderPath: 'A' } }),
    ).toMatchObject({ code: 'name-missing' });
    expect(
      await room.refusal(endpoints.fileDocument, { params: { id }, body: { name: 'x', folderPath: '//' } }),
    ).toMatchObject({ code: 'folder-missing' });
    await room.file(id, 'x', 'A');
    expect(
      await room.refusal(endpoints.fileDocument, { params: { id }, body: { name: 'y', folderPath: 'A' } }),
    ).toMatchObject({ code: 'document-elsewhere' });
  });

  it('never leaves the shelf, whatever a folder or document is called', async () => {
    await room.file(await invoice(), '../../outside', '../../../etc/./..');
    const { shelfPath } = (
      await rows<{ shelfPath: string }>(
        room.context.database.source.manager,
        'select path as "shelfPath" from shelf_file',
      )
    )[0];
    expect(shelfPath.split('/')).not.toContain('..');
    expect(room.onDisk(shelfPath)).toBe(true);
  });

  it('writes down who did it', async () => {
    const id = await invoice();
    await room.file(id, 'x', 'A');
    const history = await rows<{ action: string; name: string }>(
      room.context.database.source.manager,
      'select h.action, a.name from history h join actor a on a.id = h.actor_id where h.subject_id = $1 order by h.id',
      [id],
    );
    expect(history).toEqual([
      { action: 'filed', name: 'Owner' },
      { action: 'shelved', name: 'Owner' },
    ]);
  });
});

describe('on the shelf', () => {
  it('renames and moves, and the file on disk follows', async () => {
    const id = await invoice();
    await room.file(id, 'Old', 'A/B');
    const other = await room.ask(endpoints.makeFolder, { body: { path: 'C' } });
    await room.ask(endpoints.changeDocument, { params: { id }, body: { name: 'New', folderId: other.id } });
    await room.work();
    expect([room.onDisk('C/New.pdf'), room.onDisk('A/B/Old.pdf'), room.onDisk('A')]).toEqual([true, false, false]);
  });

  it('moves the files of a folder that is renamed', async () => {
    const id = await invoice();
    await room.file(id, 'Paper', 'Workshop/Rent');
    const [folder] = (await room.ask(endpoints.listFolders, {})).filter(({ path }) => path === 'Workshop');
    await room.ask(endpoints.changeFolder, { params: { id: folder.id }, body: { name: 'Studio' } });
    await room.work();
    expect([room.onDisk('Studio/Rent/Paper.pdf'), room.onDisk('Workshop')]).toEqual([true, false]);
    const inside = (await room.ask(endpoints.listFolders, {})).find(({ path }) => path === 'Studio/Rent')!;
    expect(
      await room.refusal(endpoints.changeFolder, { params: { id: folder.id }, body: { parentId: inside.id } }),
    ).toMatchObject({ code: 'folder-into-itself' });
    expect(await room.refusal(endpoints.deleteFolder, { params: { id: inside.id } })).toMatchObject({
      code: 'folder-not-empty',
    });
  });

  it('takes the file away with the document, and brings it back, numbered when its name was taken', async () => {
    const [first, second] = [await invoice(), await invoice()];
    await room.file(first, 'Paper', 'A');
    await room.ask(endpoints.binDocument, { params: { id: first } });
    await room.work();
    expect(room.onDisk('A/Paper.pdf')).toBe(false);
    await room.file(second, 'Paper', 'A');
    await room.ask(endpoints.bringBackDocument, { params: { id: first } });
    await room.work();
    expect((await read(first)).shelfPath).toBe('A/Paper (2).pdf');
    expect([room.onDisk('A/Paper.pdf'), room.onDisk('A/Paper (2).pdf')]).toEqual([true, true]);
  });

  it('takes a document back to Check, to the front, and files it again', async () => {
    const [id] = [await invoice(), await invoice()];
    await room.file(id, 'Paper', 'A');
    await room.ask(endpoints.unfileDocument, { params: { id } });
    await room.work();
    expect((await room.ask(endpoints.listWaiting, {}))[0].id).toBe(id);
    expect(room.onDisk('A/Paper.pdf')).toBe(false);
    // The folder that was made for it goes, too, and is proposed again; one that was there before stays.
    expect(await room.ask(endpoints.listFolders, {})).toEqual([]);
    expect((await room.ask(endpoints.readDocument, { params: { id } })).suggestion?.path).toBe('A');
    await room.ask(endpoints.makeFolder, { body: { path: 'B' } });
    await room.file(id, 'Paper', 'B');
    await room.ask(endpoints.unfileDocument, { params: { id } });
    await room.work();
    expect((await room.ask(endpoints.listFolders, {})).map(({ path }) => path)).toEqual(['B']);
    await room.file(id, 'Paper', 'A');
    expect(room.onDisk('A/Paper.pdf')).toBe(true);
  });

  it('says so when the shelf can’t be written to, and goes on once it can', async () => {
    const id = await invoice();
    mkdirSync(room.shelf.root, { recursive: true });
    writeFileSync(pathOnDisk('A'), 'a file where a folder should be');
    await room.ask(endpoints.fileDocument, { params: { id }, body: { name: 'Paper', folderPath: 'A' } });
    await expect(room.work()).rejects.toMatchObject({ code: 'shelf-not-writable' });
    expect((await read(id)).problem).toMatchObject({ code: 'shelf-not-writable' });
    unlinkSync(pathOnDisk('A'));
    await room.shelf.shelve(id, (await theProgram(room.context.database.source.manager)).id);
    expect(room.onDisk('A/Paper.pdf')).toBe(true);
  });

  it('empties the bin for good, bytes and all, and touches nothing else', async () => {
    const [gone, kept] = [await invoice(), await room.documentOf('other.jpg', await scanned('Another paper'))];
    await room.file(gone, 'Gone', 'A');
    await room.file(kept, 'Kept', 'A');
    await room.ask(endpoints.binDocument, { params: { id: gone } });
    await room.work();
    await room.ask(endpoints.emptyBin, {});
    expect(await room.refusal(endpoints.readDocument, { params: { id: gone } })).toMatchObject({ code: 'not-found' });
    expect((await read(kept)).state).toBe('filed');
    expect((await room.ask(endpoints.listBin, {})).documents).toEqual([]);
    const [{ files }] = await rows<{ files: string }>(
      room.context.database.source.manager,
      'select count(*) as files from source_file',
    );
    expect(Number(files)).toBe(1);
  });

  it('sends parts of a PDF when asked for a range', async () => {
    const id = await invoice();
    await room.file(id, 'Paper', 'A');
    const whole = await room.request('GET', `/api/documents/${id}/pdf`);
    const part = await room.request('GET', `/api/documents/${id}/pdf`, { headers: { range: 'bytes=5-14' } });
    expect(part.status).toBe(206);
    expect(part.raw.equals(whole.raw.subarray(5, 15))).toBe(true);
  });
});
