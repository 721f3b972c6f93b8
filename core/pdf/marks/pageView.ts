import { PDFPage } from '@cantoo/pdf-lib';
import { Turn } from '../../geometry';

/** How a page is shown, and the ways between there and the page as it is written. */
export interface PageView {
  /** In points, as shown. */
  width: number;
  height: number;
  turn: Turn;
  /** From the page as shown, its lower left corner, y upwards, to the page as written. */
  back: number[];
  /** From the page as shown, its upper left corner, y downwards, to the page as written. */
  toPage: (x: number, y: number) => [number, number];
  /** The other way. */
  toShown: (x: number, y: number) => [number, number];
}

export function viewOf(page: PDFPage): PageView {
  const crop = page.getCropBox();
  const turn = (((page.getRotation().angle % 360) + 360) % 360) as Turn;
  const sideways = turn % 180 !== 0;
  const backs: Record<Turn, number[]> = {
    0: [1, 0, 0, 1, crop.x, crop.y],
    90: [0, 1, -1, 0, crop.x + crop.width, crop.y],
    180: [-1, 0, 0, -1, crop.x + crop.width, crop.y + crop.height],
    270: [0, -1, 1, 0, crop.x, crop.y + crop.height],
  };
  const back = backs[turn] ?? backs[0];
  const [a, b, c, d, e, f] = back;
  const [width, height] = sideways ? [crop.height, crop.width] : [crop.width, crop.height];
  return {
    width,
    height,
    turn,
    back,
    toPage: (x, y) => [a * x + c * (height - y) + e, b * x + d * (height - y) + f],
    // A quarter turn is undone by its transpose.
    toShown: (x, y) => [a * (x - e) + b * (y - f), height - (c * (x - e) + d * (y - f))],
  };
}
