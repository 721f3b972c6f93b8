import { execFileSync } from 'node:child_process';
import { randomUUID } from 'node:crypto';
import { readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { PDFDocument, PDFName, PDFString } from '@cantoo/pdf-lib';
import { endpoints } from '@crow/contract/endpoints';
import { NewMark } from '@crow/contract/marks';
import { Turn } from '@crow/core/geometry';
import { readMarks } from '@crow/core/pdf/marks/readMarks';
import { storeBytes } from '../platform/blobs';
import { Document } from '../platform/entities';
import { scratchFolder, textPdf } from '../testing/made';
import { TestRoom } from '../testing/room';
import { flatPdfOf } from './marking';

let room: TestRoom;
let id: string;
let pageId: string;
let path: string;
beforeAll(async () => {
  room = await TestRoom.open();
  id = await room.documentOf(
    'lease.pdf',
    await textPdf('Lease of the boat house\nfrom 1 May 2027', 'Signed at the quay'),
  );
  await room.file(id, 'Lease', 'Boat');
  await room.workOnAll();
  pageId = (await room.ask(endpoints.readDocument, { params: { id } })).pageList[0].id;
  path = join(room.shelf.root, 'Boat/Lease.pdf');
});
afterAll(() => room.close());

const mark = (part: Partial<NewMark> = {}): NewMark => ({
  id: randomUUID(),
  pageId,
  kind: 'highlight',
  ink: 'amber',
  boxes: [[50, 60, 200, 14]],
  strokes: [],
  text: 'Lease of the boat house',
  ...part,
});
const change = async (put: NewMark[], remove: string[] = []) => {
  const marks = await room.ask(endpoints.changeMarks, { params: { id }, body: { put, remove } });
  await room.workOnAll();
  return marks;
};
const turnPage = (turn: Turn) =>
  room.ask(endpoints.changePages, { body: { changes: [{ id: pageId, recipe: null, turn }] } });
const onDisk = async () =>
  (await readMarks(readFileSync(path))).map((marks) => marks.map(({ kind, text }) => [kind, text]));
const pdf = async (query: { marks?: 'with' | 'without' | 'flat' } = {}) =>
  (await room.send(endpoints.documentPdf, { params: { id }, query })).raw;
const document = () => room.context.database.source.manager.findOneByOrFail(Document, { id });

it('puts marks into the filed PDF behind its own bytes, and takes them out again', async () => {
  const before = await pdf();
  const stamp = mark({ kind: 'stamp', ink: 'sea', boxes: [[300, 100, 90, 40]], text: 'COPY\n2027-05-02' });
  await change([mark(), stamp]);
  expect(await onDisk()).toEqual([
    [
      ['highlight', 'Lease of the boat house'],
      ['stamp', 'COPY\n2027-05-02'],
    ],
    [],
  ]);
  expect(readFileSync(path).subarray(0, before.length).equals(before)).toBe(true);
  execFileSync('qpdf', ['--check', path]);
  expect(execFileSync('pdftotext', [path, '-'], { encoding: 'utf8' })).toMatch(/COPY/);
  expect((await pdf({ marks: 'without' })).equals(before)).toBe(true);
  const all = await room.ask(endpoints.listMarks, { params: { id } });
  await change(
    [],
    all.map((each) => each.id),
  );
  expect((await pdf()).equals(before)).toBe(true);
  expect(readFileSync(path).equals(before)).toBe(true);
  expect((await document()).bareBlobId).toBeNull();
});

it('gives a copy with the marks as part of the pages', async () => {
  const [{ id: one }] = await change([mark({ kind: 'text', boxes: [[50, 200, 160, 30]], text: 'ask Ada' })]);
  const flat = join(scratchFolder(), 'flat.pdf');
  writeFileSync(flat, await pdf({ marks: 'flat' }));
  execFileSync('qpdf', ['--check', flat]);
  expect(await readMarks(readFileSync(flat))).toEqual([[], []]);
  expect(execFileSync('pdftotext', [flat, '-'], { encoding: 'utf8' })).toMatch(/ask Ada/);
  await change([], [one]);
});

it('tells who answered what to a comment, in the PDF, too', async () => {
  const comment = mark({ kind: 'comment', boxes: [[20, 20, 16, 16]], text: 'Is this the old rent?' });
  await change([comment]);
  const body = { text: 'No, the new one.' };
  const [told] = await room.ask(endpoints.replyToMark, { params: { id, mark: comment.id }, body });
  expect(told.replies).toMatchObject([body]);
  await room.workOnAll();
  expect((await readMarks(readFileSync(path)))[0][0].replies).toMatchObject([body]);
  await change([], [comment.id]);
});

it('puts a removed comment back with what was answered to it', async () => {
  const comment = mark({ kind: 'comment', boxes: [[20, 20, 16, 16]], text: 'Who pays?' });
  const [before] = await change([comment]);
  await room.ask(endpoints.replyToMark, { params: { id, mark: comment.id }, body: { text: 'We do.' } });
  expect(await change([], [comment.id])).toEqual([]);
  const [after] = await change([comment]);
  expect(after).toMatchObject({ by: before.by, at: before.at, replies: [{ text: 'We do.' }] });
  await change([], [comment.id]);
});

it('says so where the PDF does not let itself be changed', async () => {
  const { manager } = room.context.database.source;
  const odd = await room.documentOf('odd.pdf', await textPdf('A paper from elsewhere'));
  await room.file(odd, 'Odd', 'Boat');
  await room.workOnAll();
  const broken = await storeBytes(room.context.database, Buffer.from('%PDF-1.7 and nothing more'));
  await manager.update(Document, { id: odd }, { pdfBlobId: broken.id });
  await expect(flatPdfOf(room.context, odd)).rejects.toMatchObject({ report: { code: 'not-marked' } });
});

it('keeps the marks when the PDF is bound anew, and turns them with their page', async () => {
  const [{ id: one }] = await change([mark()]);
  const { pageList } = await room.ask(endpoints.readDocument, { params: { id } });
  const { pointWidth, pointHeight } = pageList[0];
  await turnPage(90);
  await room.workOnAll();
  const [{ boxes }] = await room.ask(endpoints.listMarks, { params: { id } });
  expect(boxes[0].map(Math.round)).toEqual([Math.round(pointHeight - 60 - 14), 50, 14, 200]);
  expect((await onDisk())[0]).toEqual([['highlight', 'Lease of the boat house']]);
  expect(pointWidth).toBeLessThan(pointHeight);
  await turnPage(0);
  await change([], [one]);
});

describe('what another program marked on the file', () => {
  const edit = async (work: (pdf: PDFDocument) => void) => {
    const opened = await PDFDocument.load(readFileSync(path));
    work(opened);
    writeFileSync(path, await opened.save());
    await room.changes.inspect();
    await room.workOnAll();
  };

  it('comes back in, with changes and without what was taken away, and asks nobody', async () => {
    await change(
      [],
      (await room.ask(endpoints.listMarks, { params: { id } })).map((each) => each.id),
    );
    const [stays, goes] = [mark({ text: 'stays' }), mark({ boxes: [[50, 100, 90, 14]], text: 'goes' })];
    await change([stays, goes]);
    await edit((opened) => {
      const page = opened.getPage(0);
      const list = page.node.Annots()!;
      list.remove(1);
      const added = {
        Type: 'Annot',
        Subtype: 'Text',
        Rect: [100, 600, 118, 618],
        Contents: PDFString.of('from elsewhere'),
        T: PDFString.of('Una'),
      };
      list.push(opened.context.register(opened.context.obj(added)));
      page.node.set(PDFName.of('Annots'), list);
    });
    const marks = await room.ask(endpoints.listMarks, { params: { id } });
    expect(marks.map(({ text, by }) => [text, by === 'Una'])).toEqual([
      ['stays', false],
      ['from elsewhere', true],
    ]);
    expect((await document()).problem).toBeNull();
    expect((await onDisk())[0].map(([, text]) => text)).toEqual(['stays', 'from elsewhere']);
    await change(
      [],
      marks.map((each) => each.id),
    );
  });

  it('leaves what was marked here since the file was written', async () => {
    const before = readFileSync(path);
    const [{ id: moved }] = await change([mark({ text: 'moved here' })]);
    const old = readFileSync(path);
    await change([mark({ id: moved, text: 'moved here', boxes: [[50, 300, 90, 14]] }), mark({ text: 'put here' })]);
    expect(before.equals(old)).toBe(false);
    // Somebody answers in another program, in the file as it is now; here a mark is moved before that is noticed.
    const opened = await PDFDocument.load(readFileSync(path));
    const list = opened.getPage(0).node.Annots()!;
    const answer = {
      Type: 'Annot',
      Subtype: 'Text',
      Rect: [0, 0, 9, 9],
      T: PDFString.of('Una'),
      Contents: PDFString.of('Yes.'),
    };
    list.push(opened.context.register(opened.context.obj({ ...answer, IRT: list.get(0), RT: 'R' })));
    const saved = await opened.save();
    const put = [mark({ id: moved, text: 'moved here', boxes: [[50, 400, 90, 14]] })];
    await room.ask(endpoints.changeMarks, { params: { id }, body: { put, remove: [] } });
    writeFileSync(path, saved);
    await room.changes.inspect();
    await room.workOnAll();
    const marks = await room.ask(endpoints.listMarks, { params: { id } });
    expect(marks.map(({ text, boxes, replies }) => [text, boxes[0][1], replies.map((reply) => reply.text)])).toEqual([
      ['moved here', 400, ['Yes.']],
      ['put here', 60, []],
    ]);
    await change(
      [],
      marks.map((each) => each.id),
    );
  });

  it('is asked about where the pages were changed as well', async () => {
    await edit((opened) => void opened.removePage(1));
    expect((await document()).problem).toMatchObject({ code: 'shelf-file-changed' });
  });
});

it('refuses marks on pages of another document, and leaves those that are there', async () => {
  const other = await room.documentOf('other.pdf', await textPdf('Something else'));
  const { pageList } = await room.ask(endpoints.readDocument, { params: { id: other } });
  const body = { put: [mark({ pageId: pageList[0].id })], remove: [] };
  expect(await room.refusal(endpoints.changeMarks, { params: { id }, body })).toMatchObject({ code: 'not-found' });
  const waiting = { put: [mark({ pageId: pageList[0].id })], remove: [] };
  expect(await room.refusal(endpoints.changeMarks, { params: { id: other }, body: waiting })).toMatchObject({
    code: 'document-elsewhere',
  });
});

it('keeps signatures for whoever made them', async () => {
  const signature = { id: randomUUID(), text: 'Imre Castellane', strokes: [], shape: 4 };
  await room.ask(endpoints.keepSignature, { body: signature });
  expect(await room.ask(endpoints.listSignatures, {})).toEqual([signature]);
  await room.ask(endpoints.forgetSignature, { params: { id: signature.id } });
  expect(await room.ask(endpoints.listSignatures, {})).toEqual([]);
});
