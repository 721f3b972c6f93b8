import { writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { addressOf } from '@crow/contract/client';
import { endpoints } from '@crow/contract/endpoints';
import { Sheet } from '@crow/contract/keeping';
import { ProblemReport } from '@crow/contract/problems';
import { drawn, scanned, textPdf } from '../testing/made';
import { TestRoom } from '../testing/room';

let room: TestRoom;
beforeAll(async () => {
  room = await TestRoom.open();
}, 120_000);
afterAll(() => room.close());

const RECEIPT =
  'Wickford Stationers\nHarbour Street 2\n\nReceipt\nReceipt no. 55120\nDate 4 March 2026\n\nEnvelopes 12.00\nTotal GBP 12.00';
const filedScan = async (name: string, text = RECEIPT, folder = 'Workshop') => {
  const id = await room.documentOf(`${name}.jpg`, await scanned(text, { dpi: 200 }));
  await room.file(id, name, folder);
  return id;
};
const list = () => room.ask(endpoints.listSheets, {});
const sheetOf = async (id: string): Promise<Sheet> =>
  (await list()).sheets.find(({ documentId }) => documentId === id)!;
const say = (ids: string[], body: object) => room.ask(endpoints.changeSheets, { body: { ids, ...body } });
const compare = async () => {
  await room.ask(endpoints.compareFiles, {});
  expect((await list()).comparing).toBe(true);
  await room.workOnAll();
};
const lookThrough = async (bytes: Buffer) =>
  room.request('PUT', addressOf(endpoints.lookThroughArchive, { query: { name: 'November.zip' } }), {
    body: bytes,
    headers: { 'content-type': 'application/octet-stream' },
  });
const archive = async () => (await room.request('GET', addressOf(endpoints.shelfArchive, { query: {} }))).raw;
const prove = async () => {
  await compare();
  return (await lookThrough(await archive())).body;
};
const place = (name: string) => room.ask(endpoints.makePlace, { body: { name } });

describe('the sheet of a receipt', () => {
  let id: string;
  beforeAll(async () => {
    id = await filedScan('Envelopes');
  }, 60_000);

  it('is kept until its file is proven: compared byte by byte, and found in an archive', async () => {
    expect(await sheetOf(id)).toMatchObject({
      state: 'keep',
      faults: ['its file was not compared with the database yet', 'it is in no archive that was looked through'],
    });
    await compare();
    expect((await list()).comparedAt).not.toBeNull();
    expect((await sheetOf(id)).faults).toEqual(['it is in no archive that was looked through']);
    expect((await lookThrough(await archive())).body).toEqual({ same: 1, different: 0, missing: 0 });
    expect(await sheetOf(id)).toMatchObject({ state: 'may go', faults: [] });
    expect((await list()).archive).toMatchObject({ name: 'November.zip', papers: 1 });
  });

  it('goes at the shredder, which is on record, and can be taken back', async () => {
    await say([id], { gone: true });
    expect(await sheetOf(id)).toMatchObject({ state: 'gone', goneBy: expect.any(String) as string });
    const deeds = await room.ask(endpoints.documentHistory, { params: { id } });
    expect(deeds[0]).toMatchObject({ action: 'shredded the sheet of' });
    await say([id], { gone: false });
    expect(await sheetOf(id)).toMatchObject({ state: 'may go', goneAt: null });
  });

  it('is kept when somebody says so, and what is kept can’t be gone', async () => {
    await say([id], { said: 'keep' });
    expect(await sheetOf(id)).toMatchObject({ state: 'keep', why: 'Somebody said so', mayGoFrom: null });
    await expect(say([id], { gone: true })).rejects.toThrow('sheet-kept');
    await say([id], { said: null });
    expect((await sheetOf(id)).state).toBe('may go');
  });

  it('is kept again when its file on disk is not what it was', async () => {
    const { name } = await sheetOf(id);
    writeFileSync(join(room.shelf.root, 'Workshop', `${name}.pdf`), 'something else');
    await compare();
    expect(await sheetOf(id)).toMatchObject({
      state: 'keep',
      faults: ['its file on disk is not what the database has'],
    });
    await expect(say([id], { gone: true })).rejects.toThrow('sheet-kept');
  });
});

it('keeps a deed for good, whatever is proven', async () => {
  const id = await filedScan('Title', 'Certificate of title\nThis certifies that Imre Castellane owns the loom house.');
  await prove();
  if ((await sheetOf(id)).kind !== 'certificate') {
    await room.ask(endpoints.changeFact, { params: { id, name: 'kind' }, body: { value: 'certificate' } });
  }
  expect(await sheetOf(id)).toMatchObject({ state: 'keep', mayGoFrom: null, faults: [] });
});

it('knows what came as a file and never was a sheet, unless somebody says where that lies', async () => {
  const id = await room.documentOf('web.pdf', await textPdf(RECEIPT.replace('55120', '55121')));
  await room.file(id, 'From the web', 'Workshop');
  expect((await sheetOf(id)).state).toBe('none');
  const { id: placeId } = await place('Printed from the web');
  await say([id], { placeId });
  expect((await sheetOf(id)).state).toBe('keep');
});

describe('boxes and binders', () => {
  it('take the sheets of what is filed, one of them at a time', async () => {
    const [first, second] = [await place('Binder one'), await place('Binder two')];
    await room.ask(endpoints.changePlace, { params: { id: first.id }, body: { takes: true } });
    await room.ask(endpoints.changePlace, { params: { id: second.id }, body: { takes: true } });
    expect((await list()).places.filter(({ takes }) => takes)).toEqual([expect.objectContaining({ id: second.id })]);
    const id = await filedScan('Into the second');
    expect((await sheetOf(id)).placeId).toBe(second.id);
    // What came as a file is no sheet that could go anywhere.
    const file = await room.documentOf('mail.pdf', await textPdf(RECEIPT.replace('55120', '55130')));
    await room.file(file, 'By mail', 'Workshop');
    expect(await sheetOf(file)).toMatchObject({ placeId: null, state: 'none' });
    await room.ask(endpoints.changePlace, { params: { id: second.id }, body: { retired: true } });
    expect((await list()).places.some(({ takes }) => takes)).toBe(false);
  });

  it('have names of their own', async () => {
    await place('Deed box');
    await expect(place('deed BOX')).rejects.toThrow('place-there');
    const { places } = await list();
    const { id } = places.find(({ name }) => name === 'Deed box')!;
    await room.ask(endpoints.changePlace, { params: { id }, body: { retired: true } });
    expect(await place('Deed box')).toMatchObject({ id, retired: false });
  });

  it('are found again by their labels, which lay what follows there', async () => {
    const { id } = await place('Binder 2026');
    const { raw } = await room.request('GET', addressOf(endpoints.placeLabels, { query: { id } }));
    const label = await drawn(raw, { dpi: 150 });
    const { id: stack } = await room.takeInAndRead({
      '1.png': label,
      '2.jpg': await scanned(RECEIPT.replace('55120', '55200')),
    });
    const { pageList } = await room.ask(endpoints.readStack, { params: { id: stack } });
    expect(pageList[0]).toMatchObject({ dropped: true, divider: { place: { id, name: 'Binder 2026' } } });
    const { documents } = await room.ask(endpoints.sortStack, { params: { id: stack } });
    const [document] = documents;
    await room.file(document, 'By its label', 'Workshop');
    expect((await sheetOf(document)).placeId).toBe(id);
  });
});

it('says of a file that is no archive what it is', async () => {
  const { status, body } = await lookThrough(Buffer.from('no archive at all'));
  expect([status, (body as ProblemReport).code]).toEqual([422, 'archive-broken']);
});
