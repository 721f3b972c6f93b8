import { Page } from '@crow/contract/pages';
import { page } from '../../testing/papers';
import { limited, LEAST_ZOOM, MOST_ZOOM, PADDING, shownSize, zoomedBy } from './reading';

const SHEET: Page = page({ width: 1000, height: 1400 });
const room = { width: 700, height: 500 };
const at = (zoom: Parameters<typeof shownSize>[1]['zoom'], turn: 0 | 90 = 0) => shownSize(SHEET, { zoom, turn, room });

it('shows a page as wide as there is room, and no wider than lines can be followed', () => {
  expect(at('usual').width).toBe(700 - 2 * PADDING);
  expect(shownSize(SHEET, { zoom: 'usual', turn: 0, room: { width: 2000, height: 900 } }).width).toBe(900);
  expect(shownSize(SHEET, { zoom: 'width', turn: 0, room: { width: 2000, height: 900 } }).width).toBe(
    2000 - 2 * PADDING,
  );
});

it('shows a whole page, turned or not', () => {
  expect(at('page').height).toBeCloseTo(500 - 2 * PADDING);
  const turned = at('page', 90);
  expect(turned.width / turned.height).toBeCloseTo(1.4);
  expect(turned.height).toBeLessThanOrEqual(500 - 2 * PADDING);
});

it('goes on from what is shown, step by step, and not beyond what makes sense', () => {
  const shown = { zoom: 'page' as const, turn: 0 as const, room };
  const larger = zoomedBy(1, SHEET, shown);
  expect(shownSize(SHEET, { ...shown, zoom: larger }).width).toBeCloseTo(1.25 * at('page').width);
  expect([limited(99), limited(0.01)]).toEqual([MOST_ZOOM, LEAST_ZOOM]);
});
