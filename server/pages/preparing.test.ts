import { endpoints } from '@crow/contract/endpoints';
import { Stack } from '@crow/contract/stacks';
import { encodePhoto } from '@crow/demo/capture';
import { LaidSheet, renderView, View } from '@crow/demo/view';
import { Raster } from '@crow/core/imaging/raster';
import { arrangementOf, putTogether } from '@crow/core/sorting/arrangement';
import { FILED } from '@crow/demo/papers';
import { sheetsOf, slipsOnGlass } from '@crow/standins/scanner/load';
import { scanSide } from '@crow/standins/scanner/sheet';
import { scanned } from '../testing/made';
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

describe('several receipts on the glass of a scanner', () => {
  /** Two receipts, askew, as a scanner set to this colour delivers them at 200 dpi; on a sheet of `ground`, or under the lid. */
  async function onGlass(colour: 'RGB24' | 'Grayscale8' | 'BlackAndWhite1', ground?: string): Promise<Buffer> {
    const receipts = FILED.filter(({ kind }) => kind === 'receipt').slice(0, 2);
    const slips = await Promise.all(
      receipts.map(async (paper, at) => {
        const [{ front }] = await sheetsOf(paper);
        return { slip: front, x: 30 + 290 * at, y: 40, degrees: at === 0 ? 3 : -2 };
      }),
    );
    const { front } = await slipsOnGlass('two receipts', slips, ground);
    return scanSide(front, undefined, { x: 0, y: 0, width: 2480, height: 3508 }, 200, colour, 'glass', 4);
  }

  it('become a page each, straight and as large as they are, and one page again when that is wanted', async () => {
    const stack = await room.takeInAndRead({ 'glass.jpg': await onGlass('Grayscale8') });
    expect(stack.pageList).toHaveLength(2);
    for (const { pointWidth, pointHeight, recipe } of stack.pageList) {
      // Their paper is 210 points wide and 460 high.
      expect(pointWidth).toBeGreaterThan(204);
      expect(pointWidth).toBeLessThan(216);
      expect(pointHeight).toBeGreaterThan(448);
      expect(pointHeight).toBeLessThan(472);
      const [[, left], [, right]] = recipe!.corners!;
      expect(left).not.toBeCloseTo(right, 3);
    }
    const pages = putTogether(
      arrangementOf(stack.pageList),
      stack.pageList.map(({ id }) => id),
    );
    const together = await room.ask(endpoints.arrangeStack, {
      params: { id: stack.id },
      body: { base: stack.step, pages },
    });
    expect(together.pageList.filter(({ dropped }) => !dropped)).toHaveLength(1);
    expect(together.pageList[0].pointWidth).toBeCloseTo(595, -1);
  });

  it('become a page each when they are stapled onto an empty sheet', async () => {
    const stack = await room.takeInAndRead({ 'expenses.jpg': await onGlass('Grayscale8', '#ffffff') });
    expect(stack.pageList.map(({ pointWidth }) => Math.round(pointWidth / 10))).toEqual([21, 21]);
  });

  it('are told apart by the paper between them when somebody says so and no edge is to be seen; undone in a step', async () => {
    const stack = await room.takeInAndRead({ 'glass.jpg': await onGlass('BlackAndWhite1') });
    expect(stack.pageList).toHaveLength(1);
    const [{ id, version }] = stack.pageList;
    await room.ask(endpoints.takeApart, { params: { id } });
    await room.work();
    const apart = await reload(stack);
    expect(apart.pageList.map(({ dropped, pictured, reading }) => [dropped, pictured, reading])).toEqual([
      [false, true, 'read'],
      [false, true, 'read'],
    ]);
    const undone = await room.ask(endpoints.undoStack, { params: { id: stack.id } });
    expect(undone.pageList.map((page) => page.dropped)).toEqual([false, true]);
    expect(undone.pageList[0].version).toBe(version);
  });

  it('are not seen where there is one paper', async () => {
    const stack = await room.takeInAndRead({ 'letter.jpg': await scanned('Dear Mr Castellane\nthe rent is paid') });
    const [{ id }] = stack.pageList;
    expect(await room.refusal(endpoints.takeApart, { params: { id } })).toMatchObject({ code: 'only-one-paper' });
  });
});
