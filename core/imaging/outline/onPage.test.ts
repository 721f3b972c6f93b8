import { Quad } from '../quad';
import { Raster } from '../raster';
import { areOnPage } from './onPage';
import { Print } from './print';

const PANEL: Quad = [
  [60, 60],
  [360, 60],
  [360, 260],
  [60, 260],
];

/** Marks all over a ground, and a panel of another brightness with some, too. */
function page({ ground, panel, printed }: { ground: number; panel: number; printed: boolean }) {
  const [width, height] = [700, 800];
  const data = new Uint8Array(width * height);
  const isOnPanel = (x: number, y: number) => x >= 60 && x < 360 && y >= 60 && y < 260;
  for (let at = 0; at < data.length; at++) data[at] = isOnPanel(at % width, Math.floor(at / width)) ? panel : ground;
  const marks: Print['marks'] = [];
  for (let top = 30; top < height - 30; top += 24) {
    for (let left = 30; left < width - 40; left += 40) {
      if (!printed && !isOnPanel(left, top)) continue;
      marks.push({ left, top, right: left + 24, bottom: top + 8, pixels: 200 });
      for (let y = top; y < top + 8; y++) data.fill(30, y * width + left, y * width + left + 24);
    }
  }
  const picture: Raster = { width, height, channels: 1, data };
  return { picture, print: { marks, neighbour: [], group: [], areas: [] } };
}

it.each([
  ['a panel on a printed page', { ground: 225, panel: 170, printed: true }, true],
  ['a frame on a printed page', { ground: 225, panel: 225, printed: true }, true],
  ['a slip that lies on darker papers', { ground: 190, panel: 240, printed: true }, false],
  ['a sheet on a table', { ground: 120, panel: 230, printed: false }, false],
])('tells %s', (_, look, onPage) => {
  const { picture, print } = page(look);
  expect(areOnPage([PANEL], print, picture)).toBe(onPage);
});

it.each([
  ['a sheet without print among darker papers', { ground: 190, panel: 240, printed: true }, false],
  ['a picture without print', { ground: 225, panel: 120, printed: true }, true],
])('tells %s', (_, look, onPage) => {
  const { picture, print } = page(look);
  const [[left, top], , [right, bottom]] = PANEL;
  const beside = print.marks.filter(
    (mark) => mark.right < left || mark.left > right || mark.bottom < top || mark.top > bottom,
  );
  expect(areOnPage([PANEL], { ...print, marks: beside }, picture)).toBe(onPage);
});
