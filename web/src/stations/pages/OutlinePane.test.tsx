import { act, render, screen } from '@testing-library/react';
import { bendOver } from '@crow/core/imaging/bend/bend';
import { Quad, wholeQuad } from '@crow/core/imaging/quad';
import { OutlinePane } from './OutlinePane';

const corners: Quad = [
  [0.1, 0.1],
  [0.9, 0.12],
  [0.88, 0.9],
  [0.12, 0.88],
];
/** Its upper and lower side hang down in the middle. */
const bend = bendOver(wholeQuad(1, 1), ([u, v]) => [u, v + 0.1 * Math.sin(Math.PI * u)]);

let size = { width: 0, height: 0 };
beforeAll(() => {
  class Measured {
    constructor(private readonly tell: ResizeObserverCallback) {}
    observe(): void {
      act(() => this.tell([{ contentRect: size } as ResizeObserverEntry], this));
    }
    unobserve(): void {}
    disconnect(): void {}
  }
  globalThis.ResizeObserver = Measured;
});

function show(bent: boolean) {
  const source = Object.assign(new Image(), { src: 'data:,' });
  Object.defineProperties(source, { naturalWidth: { value: 400 }, naturalHeight: { value: 500 } });
  return render(
    <OutlinePane
      source={source}
      corners={corners}
      bend={bent ? bend : undefined}
      unsure={false}
      onChange={() => undefined}
    />,
  );
}

it('waits for room to be shown in, also with a sheet that isn’t flat', () => {
  show(true);
  expect(screen.queryByAltText('The page as it came')).toBeNull();
});

it('draws the sides of a sheet as they are bent', () => {
  size = { width: 456, height: 556 };
  const points = (container: HTMLElement) =>
    (
      container
        .querySelector('path')!
        .getAttribute('d')!
        .split('Z')[1]
        .match(/[\d.]+[ ,][\d.]+/g) ?? []
    ).map((each) => each.split(/[ ,]/).map(Number));
  const straight = points(show(false).container);
  const bent = points(show(true).container);
  expect(straight).toHaveLength(4);
  const lowest = Math.max(...straight.slice(0, 2).map(([, y]) => y));
  expect(bent.filter(([, y]) => y > lowest + 20 && y < lowest + 60).length).toBeGreaterThan(5);
});
