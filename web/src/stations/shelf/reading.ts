import { Page } from '@crow/contract/pages';
import { Turn } from '@crow/core/geometry';

/** How large pages are shown: as is comfortable to read, as wide as there is room, whole, or so many times the comfortable size. */
export type Zoom = 'usual' | 'width' | 'page' | number;

export const PADDING = 24;
export const PAGE_GAP = 20;
/** Lines longer than on a page of this width, in CSS pixels, are hard to follow. */
const COMFORTABLE = 900;
const LEAST_WIDTH = 120;
export const LEAST_ZOOM = 0.25;
export const MOST_ZOOM = 6;
const STEP = 1.25;

/** What there is room for, in CSS pixels. */
export interface Room {
  width: number;
  height: number;
}

const isSideways = (turn: Turn) => turn % 180 !== 0;

/** The width and height of a page as it is shown in the window, in CSS pixels. */
export function shownSize(page: Page, { zoom, turn, room }: { zoom: Zoom; turn: Turn; room: Room }): Room {
  const [width, height] = isSideways(turn) ? [page.height, page.width] : [page.width, page.height];
  const most = Math.max(LEAST_WIDTH, room.width - 2 * PADDING);
  const usual = Math.min(COMFORTABLE, most);
  const whole = Math.max(LEAST_WIDTH, ((room.height - 2 * PADDING) * width) / height);
  const across =
    zoom === 'usual' ? usual : zoom === 'width' ? most : zoom === 'page' ? Math.min(most, whole) : usual * zoom;
  return { width: across, height: (across * height) / width };
}

/** The zoom a step larger or smaller than what is shown. */
export function zoomedBy(steps: number, page: Page, shown: { zoom: Zoom; turn: Turn; room: Room }): number {
  const now = shownSize(page, shown).width / shownSize(page, { ...shown, zoom: 'usual' }).width;
  return limited(now * STEP ** steps);
}

export const limited = (zoom: number) => Math.max(LEAST_ZOOM, Math.min(MOST_ZOOM, zoom));
