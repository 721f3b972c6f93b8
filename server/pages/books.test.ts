import { randomUUID } from 'node:crypto';
import { endpoints } from '@crow/contract/endpoints';
import { Stack } from '@crow/contract/stacks';
import { arrangementOf } from '@crow/core/sorting/arrangement';
import { makeBent, makeSpread } from '@crow/demo/bentScenes';
import { openPages, prose } from '@crow/demo/book';
import { encodePhoto } from '@crow/demo/capture';
import { FILED } from '@crow/demo/papers';
import { seededRandom } from '@crow/demo/random';
import { demoSheet } from '@crow/demo/stock';
import { renderView } from '@crow/demo/view';
import { scanned } from '../testing/made';
import { TestRoom } from '../testing/room';

const [BOOK, FIRST] = [6, 12];
let room: TestRoom;
let spread: Buffer;
beforeAll(async () => {
  const { pages } = await openPages(BOOK, FIRST, 150);
  [room, spread] = await Promise.all([TestRoom.open(), encodePhoto(renderView(makeSpread(BOOK, pages, 2400)))]);
}, 60_000);
afterAll(() => room.close());

const reload = ({ id }: Stack) => room.ask(endpoints.readStack, { params: { id } });
const textOf = async (id: string) => {
  const { words } = await room.ask(endpoints.pageText, { params: { id } });
  return words.map(([text]) => text).join(' ');
};

/** Both pages, left before right, in one size, each with its own number and none of the other's. */
async function expectPages(stack: Stack): Promise<void> {
  const pages = stack.pageList.filter(({ dropped }) => !dropped);
  expect(pages.map(({ pictured, reading }) => [pictured, reading])).toEqual([
    [true, 'read'],
    [true, 'read'],
  ]);
  const [left, right] = pages;
  expect([left.pointWidth, left.pointHeight]).toEqual([right.pointWidth, right.pointHeight]);
  for (const { recipe } of pages) expect(recipe?.bend).toBeDefined();
  const texts = await Promise.all(pages.map(({ id }) => textOf(id)));
  expect(texts[0]).toContain('The Harbour Weaver');
  expect(texts[0]).toMatch(new RegExp(`\\b${FIRST}\\b`));
  expect(texts[1]).toMatch(new RegExp(`\\b${FIRST + 1}\\b`));
  expect(texts[1]).not.toContain('The Harbour Weaver');
}

it('a picture of an open book gives its two pages when it was taken as one', async () => {
  const id = randomUUID();
  await room.sendFile(id, 'Photo.jpg', spread, { bound: 'left' });
  await room.work();
  const stack = await room.ask(endpoints.readStack, { params: { id } });
  await expectPages(stack);
  // Looked for again, each page is the same one.
  for (const { id: page, recipe } of stack.pageList) {
    const found = await room.ask(endpoints.findSheet, { params: { id: page } });
    expect(found.recipe).toEqual(recipe);
  }
});

it('of a book that is bound at the right the right page comes first', async () => {
  const id = randomUUID();
  await room.sendFile(id, 'Photo.jpg', spread, { bound: 'right' });
  await room.work();
  const { pageList } = await room.ask(endpoints.readStack, { params: { id } });
  const texts = await Promise.all(pageList.map((page) => textOf(page.id)));
  expect(texts[0]).not.toContain('The Harbour Weaver');
  expect(texts[1]).toContain('The Harbour Weaver');
});

it('a picture of an open book is cut when somebody says that it is one, in a step that can be undone', async () => {
  const stack = await room.takeInAndRead({ 'IMG_7.jpg': spread });
  const [{ id, version }] = stack.pageList;
  expect(stack.pageList).toHaveLength(1);
  await room.ask(endpoints.cutBook, { params: { id } });
  await room.work();
  await expectPages(await reload(stack));
  const undone = await room.ask(endpoints.undoStack, { params: { id: stack.id } });
  expect(arrangementOf(undone.pageList).map(({ dropped }) => dropped)).toEqual([false, true]);
  expect(undone.pageList[0].version).toBe(version);
});

it('a page that shows no open book stays as it is', async () => {
  const text = prose(seededRandom(3), 80).replaceAll('. ', '.\n');
  const stack = await room.takeInAndRead({ 'letter.jpg': await scanned(text) });
  const [{ id }] = stack.pageList;
  expect(await room.refusal(endpoints.cutBook, { params: { id } })).toMatchObject({ code: 'no-open-book' });
});

it('a curled sheet is made flat, and whoever sees that it lies flat says so', async () => {
  const letter = FILED.find(({ kind }) => kind === 'letter')!;
  const photo = await encodePhoto(renderView(makeBent(14, 'rolled', await demoSheet(letter, 150), 1800)));
  const stack = await room.takeInAndRead({ 'IMG_8.jpg': photo });
  const [{ id, recipe, turn }] = stack.pageList;
  expect(recipe?.bend).toBeDefined();
  const flat = { ...recipe!, bend: undefined };
  await room.ask(endpoints.changePages, { body: { changes: [{ id, recipe: flat, turn }] } });
  expect((await reload(stack)).pageList[0].recipe?.bend).toBeUndefined();
  const nonsense = { ...recipe!, bend: { ...recipe!.bend!, across: 3 } };
  expect(
    await room.refusal(endpoints.changePages, { body: { changes: [{ id, recipe: nonsense, turn }] } }),
  ).toMatchObject({ code: 'not-valid' });
});

it('a sheet that is folded once is one page, whichever way its pieces are lit', async () => {
  const letter = FILED.find(({ kind }) => kind === 'letter')!;
  const photo = await encodePhoto(renderView(makeBent(4, 'folded', await demoSheet(letter, 200), 2200)));
  const stack = await room.takeInAndRead({ 'IMG_9.jpg': photo });
  expect(stack.pageList).toHaveLength(1);
  const [{ id, pointWidth, pointHeight }] = stack.pageList;
  expect(pointWidth / pointHeight).toBeCloseTo(210 / 297, 1);
  const { words } = await room.ask(endpoints.pageText, { params: { id } });
  expect(words.length).toBeGreaterThan(30);
});
