import { Ink } from '../../imaging/ink';
import { isSmallPrint } from './smallPrint';

/** Rows of hollow letters of a height; they touch where there is no gap between them. */
function rows(height: number, { gap = 3, across = 600, down = 400 } = {}): Ink {
  const data = new Uint8Array(across * down);
  for (let top = 10; top + height < down; top += 2 * height) {
    for (let left = 20; left + height < across - 20; left += height + gap) {
      for (let y = 0; y < height; y++)
        for (let x = 0; x < height; x++)
          if (y === 0 || x === 0 || x === height - 1 || y === height - 1) data[(top + y) * across + left + x] = 1;
    }
  }
  return { width: across, height: down, data };
}

/** Rows of which each is one piece. */
const runTogether = () => rows(6, { gap: 0 });

const never = () => Promise.reject(new Error('was asked for'));

it.each([
  ['low letters', 8, true],
  ['usual letters', 16, false],
])('tells %s, without a larger page', async (_, height, small) => {
  await expect(isSmallPrint(rows(height), never)).resolves.toBe(small);
});

it('tells letters that have run together by how many they are on the page enlarged', async () => {
  await expect(isSmallPrint(runTogether(), async () => rows(16, { across: 1200, down: 800 }))).resolves.toBe(true);
  await expect(isSmallPrint(runTogether(), async () => runTogether())).resolves.toBe(false);
});

it('leaves a large page as it is', async () => {
  await expect(isSmallPrint(rows(8, { across: 2200, down: 2200 }), never)).resolves.toBe(false);
});
