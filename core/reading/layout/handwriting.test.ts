import { Component } from '../../imaging/components';
import { SpelledWord } from '../spelled';
import { unreadHandwriting } from './handwriting';
import { Segment } from './segments';

/** Lines of ten letters, each as high as is said, whose feet stand as far off the line as is said. */
function linesOf(lines: { letter: number; off: (at: number) => number; sure: number }[]) {
  const components: Component[] = [];
  const segments = lines.map(({ letter, off }, line): Segment => {
    const [left, foot] = [100, 100 + line * 60];
    const members = Array.from({ length: 10 }, (_, at) => {
      const bottom = foot + off(at);
      components.push({
        left: left + at * 20,
        right: left + at * 20 + 12,
        top: bottom - letter - Math.abs(off(at)) + 1,
        bottom,
        pixels: 100,
      });
      return components.length;
    });
    const edges = { left, right: left + 200, top: foot - letter, bottom: foot, upper: foot - letter, lower: foot };
    return { ...edges, letter, tall: letter, slope: 0, members };
  });
  const read = lines.map(({ sure }): SpelledWord[] => [
    {
      confidence: sure,
      characters: [...'tenletters'].map((text) => ({ text, box: [0, 0, 12, 20], confidence: sure })),
    },
  ]);
  return unreadHandwriting(segments, components, read);
}

const level = () => 0;
const uneven = (at: number) => [0, 7, -6, 4, -9, 8, -3, 10, -7, 5][at];

it('marks a line by hand among print that is read', () => {
  const print = { letter: 24, off: level, sure: 0.995 };
  const written = { letter: 24, off: uneven, sure: 0.9 };
  expect(linesOf([print, print, print, written, print, print])).toEqual([false, false, false, true, false, false]);
});

it('takes lines in one height for print where none of the page can be read well, as in an old book', () => {
  const old = { letter: 24, off: uneven, sure: 0.9 };
  const scribbled = { letter: 34, off: uneven, sure: 0.9 };
  expect(linesOf([old, old, old, old, scribbled, old, old])).toEqual([false, false, false, false, true, false, false]);
});

it('marks all of a page whose lines have no height in common', () => {
  const lines = [20, 26, 33, 24, 29, 38, 22].map((letter) => ({ letter, off: uneven, sure: 0.9 }));
  expect(linesOf(lines)).toEqual(lines.map(() => true));
});
