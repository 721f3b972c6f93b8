import { randomUUID } from 'node:crypto';
import { endpoints } from '@crow/contract/endpoints';
import { rows } from '../platform/database';
import { hugePng, lockedPdf, longPdf, multiPageTiff, scanned, scannedPdf, textPdf, ZIP } from '../testing/made';
import { TestRoom } from '../testing/room';
import { takeInBytes } from './intake';
import { theProgram } from '../platform/history';

let room: TestRoom;
beforeAll(async () => void (room = await TestRoom.open()));
afterAll(() => room.close());

const count = async (sql: string) =>
  Number((await rows<{ count: string }>(room.context.database.source.manager, sql))[0].count);

describe('taking in files', () => {
  it('makes a stack of the pages of a file, in their order, and reads them', async () => {
    const stack = await room.takeInAndRead({
      'post.tif': await multiPageTiff('first sheet of the post', 'second sheet', 'third sheet'),
    });
    expect(stack).toMatchObject({ name: 'post.tif', pages: 3, read: 3, failed: 0, state: 'open' });
    expect(stack.pageList.map(({ fileNumber, pictured, reading }) => [fileNumber, pictured, reading])).toEqual(
      [1, 2, 3].map((number) => [number, true, 'read']),
    );
    const { words } = await room.ask(endpoints.pageText, { params: { id: stack.pageList[0].id } });
    expect(words.map(([text]) => text).join(' ')).toBe('first sheet of the post');
  });

  it('makes one stack of several pictures, in the order that they were given, whatever arrives first', async () => {
    const [a, b] = [await scanned('page one'), await scanned('page two')];
    const id = randomUUID();
    const put = (name: string, bytes: Buffer, position: number) =>
      room.sendFile(id, name, bytes, { position: String(position) });
    await put('2.jpg', b, 1);
    await room.work();
    await put('1.jpg', a, 0);
    await room.work();
    const { pageList } = await room.ask(endpoints.readStack, { params: { id } });
    expect(pageList.map(({ fileName }) => fileName)).toEqual(['1.jpg', '2.jpg']);
  });

  it('takes the text of a PDF that brings it, and the vector page stays for filing', async () => {
    const { pageList } = await room.takeInAndRead({
      'bill.pdf': await textPdf('Northwick Energy Ltd\nElectricity, April to June 2025\nTotal 145.80'),
    });
    const [row] = await rows<{ own_text: boolean }>(
      room.context.database.source.manager,
      'select own_text from page where id = $1',
      [pageList[0].id],
    );
    expect(row.own_text).toBe(true);
  });

  it('does not add a file twice when its transfer is repeated', async () => {
    const [stack, file] = [randomUUID(), randomUUID()];
    const send = async () => room.sendFile(stack, 'a.jpg', await scanned('once'), { file });
    await send();
    await send();
    await room.work();
    expect(await room.ask(endpoints.readStack, { params: { id: stack } })).toMatchObject({ pages: 1 });
  });

  it('keeps the same bytes once', async () => {
    const bytes = await scanned('the same again');
    await room.takeIn({ 'a.jpg': bytes });
    const before = await count('select count(*) from blob');
    await room.takeIn({ 'b.jpg': bytes });
    expect(await count('select count(*) from blob')).toBe(before);
    await room.work();
  });

  it('leaves nothing behind of a transfer that breaks off', async () => {
    const chunksBefore = await count('select count(*) from blob_chunk');
    const stackId = randomUUID();
    const broken = (async function* () {
      yield Buffer.alloc(3_000_000, 1);
      throw Object.assign(new Error('aborted'), { code: 'ECONNRESET' });
    })();
    const taking = takeInBytes(
      room.context,
      await theProgram(room.context.database.source.manager),
      { stackId, fileId: randomUUID(), stackName: 's', fileName: 'half.pdf', position: 0 },
      broken,
    );
    await expect(taking).rejects.toMatchObject({ code: 'upload-interrupted' });
    expect(await count('select count(*) from blob_chunk')).toBe(chunksBefore);
    expect(await room.refusal(endpoints.readStack, { params: { id: stackId } })).toMatchObject({ code: 'not-found' });
  });

  it.each([
    ['broken.jpg', async () => Buffer.from('ffd8ffe000104a46', 'hex'), 'file-broken'],
    ['really a zip.pdf', async () => ZIP, 'archive-broken'],
    ['locked.pdf', lockedPdf, 'file-encrypted'],
    ['long.pdf', () => longPdf(5000), 'too-many-pages'],
    ['huge.png', async () => hugePng(30_000, 30_000), 'picture-too-large'],
  ])('keeps %s as it came, with its sentence, while the rest goes on', async (name, make, code) => {
    const bytes = Buffer.from(await make());
    const stack = await room.takeInAndRead({ [name]: bytes, 'good.jpg': await scanned('good') });
    expect(stack.pages).toBe(1);
    const [refused] = stack.files;
    expect(refused).toMatchObject({ state: 'refused', problem: { code, happened: expect.stringContaining(name) } });
    const original = await room.send(endpoints.originalFile, { params: { id: refused.id } });
    expect(original.raw.equals(bytes)).toBe(true);
    expect(original.headers['content-disposition']).toContain('attachment');
  });

  it('refuses an empty file with a sentence', async () => {
    await expect(room.takeIn({ 'nothing.pdf': Buffer.alloc(0) })).rejects.toThrow('0 bytes');
  });

  it('lets go of a refused file, and of the stack if nothing else is in it', async () => {
    const stack = await room.takeInAndRead({ 'really a zip.pdf': ZIP });
    await room.ask(endpoints.dismissFile, { params: { id: stack.files[0].id } });
    expect((await room.ask(endpoints.listStacks, {})).map(({ id }) => id)).not.toContain(stack.id);
  });
});

describe('reading', () => {
  it('can be stopped, goes on where it stopped, and reads no page twice', async () => {
    const id = await room.takeIn({ 'three.pdf': await scannedPdf('one sheet', 'two sheets', 'three sheets') });
    await room.work(['take-in', 'picture']);
    await room.ask(endpoints.stopReading, { params: { id } });
    await room.work();
    expect(await room.ask(endpoints.readStack, { params: { id } })).toMatchObject({ read: 0, readingStopped: true });
    await room.ask(endpoints.startReading, { params: { id } });
    await room.work();
    expect(await room.ask(endpoints.readStack, { params: { id } })).toMatchObject({ read: 3, readingStopped: false });
    const readAt = () =>
      rows(room.context.database.source.manager, 'select page_id, read_at from reading order by page_id');
    const before = await readAt();
    const [first] = (await room.ask(endpoints.readStack, { params: { id } })).pageList;
    await room.context.jobs.ask(room.context.database.source.manager, 'read', {
      pageId: first.id,
      turn: 0,
      version: '',
    });
    await room.work();
    expect(await readAt()).toEqual(before);
  });
});
