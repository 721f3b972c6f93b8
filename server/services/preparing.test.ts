import { endpoints } from '@crow/contract/endpoints';
import { Stack } from '@crow/contract/shapes';
import { encodePhoto } from '@crow/demo/capture';
import { LaidSheet, renderView, View } from '@crow/demo/view';
import { Raster } from '@crow/core/imaging/raster';
import { TestRoom } from '../testing/room';

let room: TestRoom;
beforeAll(async () => void (room = await TestRoom.open()));
afterAll(() => room.close());

/** A sheet with rows of print, somewhat like words. */
function printed(width: number, height: number, seed: number): Raster {
  const data = new Uint8Array(width * height).fill(245);
  for (let y = 30; y < height - 30; y++)
    for (let x = 30; x < width - 30; x++)
      if (y % 24 < 8 && (Math.floor(x / 7) * 5 + Math.floor(y / 24) * seed) % 8 < 5 && x % 7 < 5)
        data[y * width + x] = 50;
  return { width, height, channels: 1, data };
}

function laid(picture: Raster, width: number, height: number, x = 0): LaidSheet {
  return { picture, width, height, at: [x, 0], angle: 0.05 };
}

function photo(sheets: LaidSheet[], shows: number): Promise<Buffer> {
  const view: View = {
    width: 900,
    height: 1200,
    seed: 3,
    table: 'darkWood',
    sheets,
    things: [],
    camera: { shows, lean: 0.2, leanTo: 1, roll: 0, focal: 0.85 },
    light: { level: 1, falloff: 0.2, from: 1, warmth: 0.2 },
    shadows: [],
    blur: 0,
    noise: 2,
  };
  return encodePhoto(renderView(view));
}

const reload = ({ id }: Stack) => room.ask(endpoints.readStack, { params: { id } });

it('makes the sheet in a photo flat: its outline, its paper and a look are found', async () => {
  const stack = await room.takeInAndRead({ 'IMG_1.jpg': await photo([laid(printed(600, 848, 3), 210, 297)], 350) });
  const [page] = stack.pageList;
  expect(page.recipe?.corners).toHaveLength(4);
  expect(page.recipe?.paper).toEqual([595.28, 841.89]);
  expect(page.recipe?.look).toBe('grey');
  expect(page.confidence).toBeGreaterThan(0.8);
  expect(page.legibility?.score).toBeGreaterThan(0);
});

it('makes a page of each of several receipts in one photo, in reading order', async () => {
  const receipts = [printed(200, 500, 3), printed(200, 500, 5)];
  const sheets = receipts.map((picture, index) => laid(picture, 80, 200, index * 110 - 55));
  const stack = await room.takeInAndRead({ 'IMG_2.jpg': await photo(sheets, 320) });
  expect(stack.pageList.map(({ fileNumber, pictured }) => [fileNumber, pictured])).toEqual([
    [1, true],
    [1, true],
  ]);
  const lefts = stack.pageList.map(({ recipe }) => recipe!.corners![0][0]);
  expect(lefts[0]).toBeLessThan(lefts[1]);
});

it('changes how a page is made as a step that can be undone', async () => {
  const stack = await room.takeInAndRead({ 'IMG_3.jpg': await photo([laid(printed(600, 848, 3), 210, 297)], 350) });
  const [{ id, recipe, version, turn }] = stack.pageList;
  await room.ask(endpoints.changePages, { body: { changes: [{ id, recipe: { ...recipe!, look: 'bilevel' }, turn }] } });
  const changed = (await reload(stack)).pageList[0];
  expect(changed.recipe?.look).toBe('bilevel');
  expect(changed.version).not.toBe(version);
  await room.ask(endpoints.undoStack, { params: { id: stack.id } });
  expect((await reload(stack)).pageList[0].version).toBe(version);
});
