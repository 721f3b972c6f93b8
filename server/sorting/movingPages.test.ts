import { randomUUID } from 'node:crypto';
import { endpoints } from '@crow/contract/endpoints';
import { Stack } from '@crow/contract/stacks';
import { arrangementOf } from '@crow/core/sorting/arrangement';
import { textPdf } from '../testing/made';
import { TestRoom } from '../testing/room';

let room: TestRoom;
beforeAll(async () => void (room = await TestRoom.open()));
afterAll(() => room.close());

const read = (id: string) => room.ask(endpoints.readStack, { params: { id } });
const letters = (...names: string[]) => textPdf(...names.map((name) => `Letter ${name}\nfrom the harbour office`));
/** The pages of a stack by their first letter, a bar before each document, a minus for dropped ones. */
async function laid({ pageList }: Stack): Promise<string> {
  const texts = await Promise.all(
    pageList.map(async (page) => {
      const { words } = await room.ask(endpoints.pageText, { params: { id: page.id } });
      return `${page.cutBefore ? '|' : ''}${page.dropped ? '-' : ''}${words[1]?.[0] ?? ''}`;
    }),
  );
  return texts.join('');
}
const ids = ({ pageList }: Stack, ...places: number[]) => places.map((place) => pageList[place].id);
/** A stack in which nothing is proposed any more: one document. */
async function whole(...names: string[]): Promise<Stack> {
  const stack = await room.takeInAndRead({ 'post.pdf': await letters(...names) });
  const pages = arrangementOf(stack.pageList).map((page) => ({ ...page, cutBefore: false, cutDecided: true }));
  return room.ask(endpoints.arrangeStack, { params: { id: stack.id }, body: { base: stack.step, pages } });
}

describe('laying pages into another stack', () => {
  it('puts them at its end as a document of their own, and what they leave begins where it began', async () => {
    const [from, to] = [await whole('a', 'b', 'c', 'd'), await whole('x', 'y')];
    await room.ask(endpoints.movePages, { params: { id: to.id }, body: { pages: ids(from, 0, 2) } });
    expect(await laid(await read(from.id))).toBe('bd');
    expect(await laid(await read(to.id))).toBe('xy|ac');
    // The file is there in both stacks; its original can be had from either.
    const file = (await read(to.id)).files.at(-1)!;
    expect(file).toMatchObject({ name: 'post.pdf', pages: 2 });
    expect((await room.send(endpoints.originalFile, { params: { id: file.id } })).status).toBe(200);
  });

  it('makes a new stack where none is, and one that nothing is left in goes to the bin until its pages come back', async () => {
    const from = await whole('a', 'b');
    const before = arrangementOf(from.pageList);
    const id = randomUUID();
    await room.ask(endpoints.movePages, { params: { id }, body: { pages: ids(from, 1, 0), name: 'Set aside' } });
    expect(await read(id)).toMatchObject({ name: 'Set aside', pages: 2 });
    expect(await laid(await read(id))).toBe('ba');
    expect(await room.refusal(endpoints.readStack, { params: { id: from.id } })).toMatchObject({ code: 'not-found' });
    await room.ask(endpoints.movePages, {
      params: { id: from.id },
      body: { pages: before.map((page) => page.id), arrangement: before },
    });
    expect(await laid(await read(from.id))).toBe('ab');
  });

  it('loses no page when either stack goes back a step', async () => {
    const [from, to] = [await whole('a', 'b', 'c'), await whole('x')];
    await room.ask(endpoints.movePages, { params: { id: to.id }, body: { pages: ids(from, 1) } });
    expect(await laid(await room.ask(endpoints.undoStack, { params: { id: from.id } }))).toBe('ac');
    expect(await laid(await room.ask(endpoints.undoStack, { params: { id: to.id } }))).toBe('x-b');
    expect(await laid(await room.ask(endpoints.redoStack, { params: { id: to.id } }))).toBe('x|b');
  });

  it('leaves everything as it is when a stack has been sorted, or pages are still being looked at', async () => {
    const [from, to] = [await whole('a', 'b'), await whole('x')];
    await room.ask(endpoints.sortStack, { params: { id: to.id } });
    const pages = ids(from, 0);
    expect(await room.refusal(endpoints.movePages, { params: { id: to.id }, body: { pages } })).toMatchObject({
      code: 'stack-sorted',
    });
    const arriving = await room.takeIn({ 'new.pdf': await letters('n') });
    await room.work(['take-in']);
    const { pageList } = await read(arriving);
    const body = { pages: [pageList[0].id] };
    expect(await room.refusal(endpoints.movePages, { params: { id: from.id }, body })).toMatchObject({
      code: 'stack-arriving',
    });
    expect(await laid(await read(from.id))).toBe('ab');
  });

  it('keeps every page when the bin is emptied that its former stack went to', async () => {
    const [from, to] = [await whole('a'), await whole('x')];
    await room.ask(endpoints.movePages, { params: { id: to.id }, body: { pages: ids(from, 0) } });
    await room.ask(endpoints.emptyBin, {});
    expect(await laid(await read(to.id))).toBe('x|a');
  });
});

describe('weaving', () => {
  it('lays backs that came in reverse behind their fronts, and says what is missing', async () => {
    const fronts = await whole('a', 'c', 'e');
    const backs = await whole('f', 'd', 'b');
    const shown = await room.ask(endpoints.showWeaving, { params: { id: fronts.id }, query: { backs: backs.id } });
    expect(shown).toMatchObject({ sheets: 3, reversed: true, missing: [] });
    await room.ask(endpoints.weaveStacks, { params: { id: fronts.id }, body: { backs: backs.id } });
    expect((await laid(await read(fronts.id))).replaceAll('|', '')).toBe('abcdef');
    // And apart again.
    await room.ask(endpoints.movePages, { params: { id: backs.id }, body: { pages: shown.backs } });
    expect(await laid(await read(backs.id))).toMatch(/^f\|?d\|?b$/);
    expect((await laid(await read(fronts.id))).replaceAll('|', '')).toBe('ace');
  });

  it('notices that a side is missing', async () => {
    const [fronts, backs] = [await whole('a', 'c', 'e'), await whole('f', 'd')];
    const { missing, sheets } = await room.ask(endpoints.showWeaving, {
      params: { id: fronts.id },
      query: { backs: backs.id },
    });
    expect([missing.length, sheets]).toEqual([1, 3]);
    expect(missing[0]).toMatch(/^The back of sheet \d is missing\.$/);
  });
});
