import { Component } from '../../imaging/components';
import { Word } from '../words';
import { better, lettersLeft, worthOf } from './leftOver';

const isKnown = (word: string) => ['the', 'loom', 'stands', 'upstairs', 'harbour'].includes(word.toLowerCase());

/** Words beside each other on a line, all as sure. */
const line = (text: string, number: number, confidence = 0.95, left = 0): Word[] =>
  text.split(' ').map((each, at) => ({
    text: each,
    box: [left + 100 * at, 40 * number, 90, 20],
    confidence,
    line: number,
    baseline: 40 * number + 18,
  }));

/** Pieces of ink as large as letters, beside each other. */
const letters = (count: number, left: number, top: number): Component[] =>
  Array.from({ length: count }, (_, at) => ({
    left: left + 14 * at,
    right: left + 14 * at + 9,
    top,
    bottom: top + 15,
    pixels: 60,
  }));

it('counts letters where nothing was read, but no dots, rules and single marks', () => {
  const read = letters(8, 100, 100);
  const lost = letters(5, 100, 200);
  const rule: Component = { left: 0, right: 900, top: 300, bottom: 302, pixels: 2700 };
  const dot: Component = { left: 500, right: 503, top: 400, bottom: 403, pixels: 12 };
  const single = letters(1, 700, 500);
  const places: Word['box'][] = [[98, 98, 120, 20]];
  expect(lettersLeft([...read, ...lost, rule, dot, ...single], 16, 1000, places)).toBe(5);
  expect(lettersLeft(read, 16, 1000, places)).toBe(0);
});

it('holds known and sure words for something, and doubted ones that nobody knows for noise', () => {
  expect(worthOf(line('the loom', 0, 0.5), isKnown)).toBe(7);
  expect(worthOf(line('xqr ijl', 0, 0.3), isKnown)).toBeLessThan(0);
});

it('takes lines over that were lost, in their place, and leaves noise', () => {
  const own = [...line('the loom', 0), ...line('harbour', 2)];
  const whole = [...line('the lcom', 0, 0.6), ...line('stands upstairs', 1), ...line('xq i;', 3, 0.2)];
  const all = better(own, whole, isKnown);
  expect(all.map(({ text }) => text)).toEqual(['the', 'loom', 'stands', 'upstairs', 'harbour']);
  expect(all.map(({ line: number }) => number)).toEqual([0, 0, 1, 1, 2]);
});

it('takes a line of the other reading where it says clearly more, and keeps its own where it does not', () => {
  const own = [...line('tbe l00m stamds', 0, 0.4), ...line('harbour', 1)];
  const whole = [...line('the loom stands', 0, 0.8), ...line('harb0ur', 1, 0.6)];
  expect(better(own, whole, isKnown).map(({ text }) => text)).toEqual(['the', 'loom', 'stands', 'harbour']);
});

it('takes the other reading of a page as it is where it has more words and no more noise, with the own figures and lost lines', () => {
  const own = [
    ...line('tbe stamds upstairs', 0, 0.85),
    ...line('lom harbouv 17.50', 1, 0.85),
    ...line('loom', 5, 0.85, 2000),
  ];
  const whole = [
    ...line('the stands upstairs', 0, 0.6),
    ...line('loom harbour 17.60', 1, 0.6),
    ...line('the loom qx', 2, 0.6),
  ];
  expect(better(own, whole, isKnown).map(({ text }) => text)).toEqual([
    ...['the', 'stands', 'upstairs'],
    ...['loom', 'harbour', '17.50'],
    ...['the', 'loom', 'qx'],
    'loom',
  ]);
});

it('takes a word for one with a figure among its letters, where the other reading has one that is known', () =>
  expect(better(line('the harb0ur st4nds', 0), line('the harbour stxnds', 0), isKnown).map(({ text }) => text)).toEqual(
    [...['the', 'harbour', 'st4nds']],
  ));

it('drops what neither reading makes anything of', () => {
  const own = [...line('the loom', 0), ...line('~j xq', 1, 0.3)];
  expect(better(own, line('the loom', 0), isKnown).map(({ text }) => text)).toEqual(['the', 'loom']);
});

it('takes nothing from handwriting but what reads as print', () => {
  const place: Word['box'][] = [[0, 30, 600, 80]];
  const whole = [...line('stands upstairs', 1, 0.8), ...line('harbour tle qw', 2, 0.6)];
  expect(better(line('the loom', 0), whole, isKnown, place).map(({ text }) => text)).toEqual([
    ...['the', 'loom', 'stands', 'upstairs'],
  ]);
});

it('keeps its own reading of a page where the other one has more words only among noise', () => {
  const own = [
    ...line('D E F G', 0, 0.95),
    ...line('the loom', 1),
    ...line('stands upstairs', 2),
    ...line('the harbour', 3),
  ];
  const noise = ['xqrt the', 'vvji loom', 'rtzk the', 'pqfg loom', 'mmwx the'].flatMap((text, at) =>
    line(text, at + 4, 0.5),
  );
  const texts = better(own, [...own.slice(4), ...noise], isKnown).map(({ text }) => text);
  expect(texts.slice(0, 4)).toEqual(['D', 'E', 'F', 'G']);
});
