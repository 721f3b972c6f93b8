import { randomUUID } from 'node:crypto';
import { endpoints } from '@crow/contract/endpoints';
import { Stack } from '@crow/contract/stacks';
import { ProblemReport } from '@crow/contract/problems';
import { scanned, scannedPdf, textPdf } from '../testing/made';
import { TestRoom } from '../testing/room';

let room: TestRoom;
beforeAll(async () => void (room = await TestRoom.open()));
afterAll(() => room.close());

const sheet = (text: string) => textPdf(`${text} sheet of the morning post\nwith a second line below`);
const threeSheets = async () =>
  room.takeInAndRead({ 'a.pdf': await sheet('Alpha'), 'b.pdf': await sheet('Beta'), 'c.pdf': await sheet('Gamma') });
const reload = ({ id }: Pick<Stack, 'id'>) => room.ask(endpoints.readStack, { params: { id } });
const order = ({ pageList }: Stack) =>
  pageList.map(({ fileName, dropped }) => fileName[0] + (dropped ? '-' : '')).join('');
const add = async (stack: Stack, name: string, where: Record<string, string>) => {
  const { status, body } = await room.sendFile(stack.id, name, await sheet(name), where);
  expect([status, body]).toEqual([201, '']);
};
const undo = (stack: Stack) => room.ask(endpoints.undoStack, { params: { id: stack.id } });
const idOf = (stack: Stack, letter: string) => stack.pageList.find(({ fileName }) => fileName.startsWith(letter))!.id;

describe('pages sent to a stack later', () => {
  it('go to its end, or before a page in the order in which they were sent', async () => {
    const stack = await threeSheets();
    const before = idOf(stack, 'b');
    // The second one arrives first.
    await add(stack, 'y.pdf', { position: '4', before });
    await room.work();
    await add(stack, 'x.pdf', { position: '3', before });
    await add(stack, 'z.pdf', { position: '5' });
    await room.work();
    expect(order(await reload(stack))).toBe('axybcz');
    // Undoing drops what was inserted, and loses nothing.
    expect(order(await undo(stack))).toBe('ax-ybcz');
  });

  it('take the place of a page that is captured again; undone, that page is back', async () => {
    const stack = await threeSheets();
    await add(stack, 'r.pdf', { position: '3', again: idOf(stack, 'b') });
    await room.work();
    const after = await reload(stack);
    expect(order(after)).toBe('ab-rc');
    expect(after.pageList[2].againOf).toBe(idOf(stack, 'b'));
    expect(order(await undo(stack))).toBe('abr-c');
    expect(order(await room.ask(endpoints.redoStack, { params: { id: stack.id } }))).toBe('ab-rc');
  });

  it('are refused when their page is in another stack, and when the stack has been sorted', async () => {
    const stack = await threeSheets();
    const foreign = (await threeSheets()).pageList[0].id;
    const to = (where: Record<string, string>) =>
      sheet('New').then((pdf) => room.sendFile(stack.id, 'n.pdf', pdf, where));
    expect((await to({ before: foreign })).status).toBe(404);
    await room.ask(endpoints.sortStack, { params: { id: stack.id } });
    expect(((await to({})).body as ProblemReport).code).toBe('stack-sorted');
    expect(((await to({ document: randomUUID() })).body as ProblemReport).code).toBe('not-found');
    expect(await room.work()).toBe(0);
  });
});

describe('pages added to a document', () => {
  const documentOf = async () => {
    const stack = await threeSheets();
    const { documents } = await room.ask(endpoints.sortStack, { params: { id: stack.id } });
    return { stack, id: documents[0] };
  };
  const read = (id: string) => room.ask(endpoints.readDocument, { params: { id } });
  const letters = async (id: string) => (await read(id)).pageList.map(({ fileName }) => fileName[0]).join('');

  it('stand at its end, before a page, or in place of one, also when it waits in Check', async () => {
    const { stack, id } = await documentOf();
    await add(stack, 'x.pdf', { position: '3', document: id });
    await add(stack, 'y.pdf', { position: '4', document: id, before: idOf(stack, 'a') });
    await add(stack, 'z.pdf', { position: '5', document: id, again: idOf(stack, 'c') });
    await room.work();
    expect(await letters(id)).toBe('yabzx');
    // Back on the light table, nothing has been lost.
    await room.ask(endpoints.unsortStack, { params: { id: stack.id } });
    expect(order(await reload(stack))).toBe('yabc-zx');
  });

  it('come into the PDF of a document that is filed already', async () => {
    const { stack, id } = await documentOf();
    await room.file(id, 'Post', 'Papers');
    const before = (await read(id)).bytes;
    await add(stack, 'x.pdf', { position: '3', document: id });
    await room.work();
    const after = await read(id);
    expect([after.state, after.pages]).toEqual(['filed', 4]);
    expect(after.bytes).not.toBe(before);
    expect(room.diskBytes('Papers/Post.pdf')).toHaveLength(after.bytes!);
  });

  it('can be put in another order, taken out and brought back, but not borrowed from other documents', async () => {
    const { stack, id } = await documentOf();
    const [a, b, c] = 'abc'.split('').map((letter) => idOf(stack, letter));
    const arrange = (pages: string[]) => room.ask(endpoints.arrangeDocument, { params: { id }, body: { pages } });
    await arrange([c, a]);
    expect(await letters(id)).toBe('ca');
    expect((await reload(stack)).pageList.find((page) => page.id === b)?.dropped).toBe(true);
    await arrange([a, b, c]);
    expect(await letters(id)).toBe('abc');
    const other = await documentOf();
    const borrowed = { params: { id }, body: { pages: [a, idOf(other.stack, 'b')] } };
    expect(await room.refusal(endpoints.arrangeDocument, borrowed)).toMatchObject({ code: 'not-found' });
    expect(await letters(id)).toBe('abc');
  });

  it('can change places with another capture of the same sheet', async () => {
    const { stack, id } = await documentOf();
    await add(stack, 'r.pdf', { position: '3', document: id, again: idOf(stack, 'b') });
    await room.work();
    const [b, again] = ['b', 'r'].map((letter) => letter);
    const now = await reload(stack);
    await room.ask(endpoints.swapPage, { params: { id: idOf(now, again) }, body: { page: idOf(now, b) } });
    expect(await letters(id)).toBe('abc');
  });
});

describe('warnings', () => {
  it('follow the page as it is made, and can be waved through until it is made anew', async () => {
    const stack = await room.takeInAndRead({
      'a.pdf': await scannedPdf(Array(14).fill('A sheet with many lines of the same print on it').join('\n')),
    });
    const [page] = stack.pageList;
    expect(page.legibility?.parts.complete).toBe(1);
    // Cut through the middle of the lines.
    const recipe = {
      corners: [
        [0, 0],
        [0.21, 0],
        [0.21, 1],
        [0, 1],
      ],
      angle: 0,
      look: 'asShot',
      paper: [120, 842],
      marks: [],
    };
    const body = { changes: [{ id: page.id, recipe: recipe as never, turn: 0 as const }] };
    await room.ask(endpoints.changePages, { body });
    await room.work();
    const cut = (await reload(stack)).pageList[0];
    expect(cut.legibility?.parts.complete).toBeLessThan(0.7);
    expect(cut.waved).toBe(false);

    await room.ask(endpoints.wavePages, { body: { pages: [page.id], waved: true } });
    expect((await reload(stack)).pageList[0].waved).toBe(true);
    await undo(stack);
    await room.work();
    const back = (await reload(stack)).pageList[0];
    expect([back.waved, back.legibility?.parts.complete]).toEqual([false, 1]);
  });

  it('are not made of pages that are text already', async () => {
    const stack = await room.takeInAndRead({ 'a.pdf': await sheet('Alpha') });
    expect(stack.pageList[0].legibility).toBeNull();
  });
});

it('a picture of an unreadable kind among good ones harms none of them', async () => {
  const stack = await room.takeInAndRead({ 'a.jpg': await scanned('A good sheet of paper') });
  const { status } = await room.sendFile(stack.id, 'b.jpg', Buffer.from('no picture'), {
    position: '1',
    again: stack.pageList[0].id,
  });
  expect(status).toBe(201);
  await room.work();
  const after = await reload(stack);
  expect(order(after)).toBe('a');
  expect(after.files[1]).toMatchObject({ state: 'refused' });
});
