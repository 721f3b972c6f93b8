import { endpoints } from '@crow/contract/endpoints';
import { Stack } from '@crow/contract/stacks';
import {
  Arrangement,
  arrangementOf,
  movePages,
  setDropped,
  toggleCut,
  turnPages,
} from '@crow/core/sorting/arrangement';
import { scannedPdf, textPdf } from '../testing/made';
import { TestRoom } from '../testing/room';

let room: TestRoom;
beforeAll(async () => void (room = await TestRoom.open()));
afterAll(() => room.close());

const sheets = ['Alpha sheet', 'Beta sheet', 'Gamma sheet', 'Delta sheet'].map(
  (text) => `${text} of the morning post\nwith a line below`,
);
const newStack = async () => room.takeInAndRead({ 'post.pdf': await textPdf(...sheets) });
const arrange = (stack: Stack, pages: Arrangement) =>
  room.ask(endpoints.arrangeStack, { params: { id: stack.id }, body: { base: stack.step, pages } });
const order = (stack: Stack) =>
  stack.pageList
    .map(({ fileNumber, cutBefore, dropped }) => `${cutBefore ? '|' : ''}${fileNumber}${dropped ? '-' : ''}`)
    .join('');

describe('the light table', () => {
  it('keeps each change as a step that can be undone and done again', async () => {
    let stack = await newStack();
    const ids = stack.pageList.map(({ id }) => id);
    stack = await arrange(stack, toggleCut(arrangementOf(stack.pageList), ids[2]));
    stack = await arrange(stack, setDropped(arrangementOf(stack.pageList), new Set([ids[3]]), true));
    stack = await arrange(stack, movePages(arrangementOf(stack.pageList), new Set([ids[0]]), null));
    expect(order(stack)).toBe('2|34-1');
    const undo = () => room.ask(endpoints.undoStack, { params: { id: stack.id } });
    const redo = () => room.ask(endpoints.redoStack, { params: { id: stack.id } });
    expect(order(await undo())).toBe('12|34-');
    expect(order(await undo())).toBe('12|34');
    const beginning = await undo();
    expect(order(beginning)).toBe('1234');
    expect(beginning).toMatchObject({ canUndo: false, canRedo: true });
    expect(order(await redo())).toBe('12|34');
    const changed = await arrange(await redo(), arrangementOf(beginning.pageList));
    expect(changed.canRedo).toBe(false);
  });

  it('refuses a change that was made on an older state', async () => {
    const stack = await newStack();
    await arrange(stack, toggleCut(arrangementOf(stack.pageList), stack.pageList[1].id));
    const late = { params: { id: stack.id }, body: { base: stack.step, pages: arrangementOf(stack.pageList) } };
    expect(await room.refusal(endpoints.arrangeStack, late)).toMatchObject({ code: 'stack-changed', status: 409 });
  });

  it('reads a page again after it was turned, and not when turned back', async () => {
    let stack = await room.takeInAndRead({
      'post.pdf': await scannedPdf('A sheet that was fed upright into the scanner'),
    });
    const [{ id }] = stack.pageList;
    stack = await arrange(stack, turnPages(arrangementOf(stack.pageList), new Set([id]), 90));
    expect(stack.pageList[0]).toMatchObject({ turn: 90, reading: 'waiting', width: 1754 });
    await room.work();
    const sideways = await room.ask(endpoints.pageText, { params: { id } });
    expect(sideways.width).toBeGreaterThan(sideways.height);
    await room.ask(endpoints.undoStack, { params: { id: stack.id } });
    await room.work();
    const upright = await room.ask(endpoints.pageText, { params: { id } });
    expect(upright.words.map(([text]) => text)).toContain('scanner');
  });

  it('serves the picture of a page as it is turned, for good', async () => {
    const { pageList } = await newStack();
    const params = { id: pageList[0].id, size: 'thumb' };
    const answer = await room.send(endpoints.pagePicture, { params, query: { turn: '90' } });
    expect(answer).toMatchObject({
      status: 200,
      headers: { 'content-type': 'image/webp', 'cache-control': expect.stringContaining('immutable') },
    });
    const again = await room.send(endpoints.pagePicture, { params, query: { turn: '90' } });
    expect(again.raw.equals(answer.raw)).toBe(true);
  });
});

describe('sending to Check', () => {
  it('makes a document of each group, in order, without the dropped pages', async () => {
    let stack = await newStack();
    const ids = stack.pageList.map(({ id }) => id);
    stack = await arrange(stack, setDropped(toggleCut(arrangementOf(stack.pageList), ids[1]), new Set([ids[2]]), true));
    const { documents } = await room.ask(endpoints.sortStack, { params: { id: stack.id } });
    const pages = await Promise.all(
      documents.map(async (id) =>
        (await room.ask(endpoints.readDocument, { params: { id } })).pageList.map(({ fileNumber }) => fileNumber),
      ),
    );
    expect(pages).toEqual([[1], [2, 4]]);
    const waiting = (await room.ask(endpoints.listWaiting, {})).map(({ id }) => id);
    expect(waiting.filter((id) => documents.includes(id))).toEqual(documents);
    expect(await room.refusal(endpoints.sortStack, { params: { id: stack.id } })).toMatchObject({
      code: 'stack-sorted',
    });
  });

  it('can be taken back as long as nothing of it is filed', async () => {
    const stack = await newStack();
    const { documents } = await room.ask(endpoints.sortStack, { params: { id: stack.id } });
    await room.ask(endpoints.unsortStack, { params: { id: stack.id } });
    expect((await room.ask(endpoints.readStack, { params: { id: stack.id } })).state).toBe('open');
    expect(await room.refusal(endpoints.readDocument, { params: { id: documents[0] } })).toMatchObject({
      code: 'not-found',
    });
    const again = await room.ask(endpoints.sortStack, { params: { id: stack.id } });
    await room.file(again.documents[0], 'Filed', 'Post');
    expect(await room.refusal(endpoints.unsortStack, { params: { id: stack.id } })).toMatchObject({
      code: 'documents-on-their-way',
    });
  });

  it('waits until every file of the stack has been taken in', async () => {
    const id = await room.takeIn({ 'post.pdf': await textPdf('not looked at yet') });
    expect(await room.refusal(endpoints.sortStack, { params: { id } })).toMatchObject({ code: 'stack-arriving' });
    await room.work();
  });

  it('needs a page at least', async () => {
    let stack = await newStack();
    stack = await arrange(
      stack,
      setDropped(arrangementOf(stack.pageList), new Set(stack.pageList.map(({ id }) => id)), true),
    );
    expect(await room.refusal(endpoints.sortStack, { params: { id: stack.id } })).toMatchObject({
      code: 'stack-empty',
    });
  });
});

it('puts a stack into the bin and brings it back as it was', async () => {
  const stack = await newStack();
  await room.ask(endpoints.deleteStack, { params: { id: stack.id } });
  expect((await room.ask(endpoints.listBin, {})).stacks.map(({ id }) => id)).toContain(stack.id);
  expect(await room.refusal(endpoints.readStack, { params: { id: stack.id } })).toMatchObject({ code: 'not-found' });
  await room.ask(endpoints.bringBackStack, { params: { id: stack.id } });
  expect(order(await room.ask(endpoints.readStack, { params: { id: stack.id } }))).toBe('1234');
});
