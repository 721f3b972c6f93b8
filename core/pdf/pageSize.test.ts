import { pageSize } from './pageSize';

it('goes by the resolution where there is one', () => {
  expect(pageSize(1654, 2339, 200)).toEqual([595.44, 842.04]);
});
it('does not believe resolutions that cameras make up', () => {
  expect(pageSize(2481, 3508, 72)).toEqual([595.28, 841.89]);
});
it('tells paper by its shape, on its side, too', () => {
  expect(pageSize(3300, 2550)).toEqual([792, 612]);
  expect(pageSize(3508, 2481)).toEqual([841.89, 595.28]);
});
it('lays any other picture on a page no longer than A4', () => {
  const [width, height] = pageSize(1000, 4000);
  expect(height).toBeCloseTo(841.89);
  expect(width / height).toBeCloseTo(0.25);
});
