import { assign } from './assign';

const when = { entry: (at: number) => at, line: (at: number) => at };
const chanceOf = (found: ReturnType<typeof assign>, entry: number, line: number) =>
  found.find((each) => each.entry === entry && each.line === line)?.confidence;

it('a pair that stands alone is as likely as its odds', () =>
  expect(chanceOf(assign([{ entry: 0, line: 0, odds: 3 }], when), 0, 0)).toBeCloseTo(0.75));

it('two that may be swapped are as likely either way', () => {
  const all = [0, 1].flatMap((entry) => [0, 1].map((line) => ({ entry, line, odds: 1e9 })));
  for (const { confidence } of assign(all, when)) expect(confidence).toBeCloseTo(0.5);
});

it('what only one can have makes the other sure', () => {
  const found = assign(
    [
      { entry: 0, line: 0, odds: 1e6 },
      { entry: 0, line: 1, odds: 1e6 },
      { entry: 1, line: 1, odds: 1e6 },
    ],
    when,
  );
  expect(chanceOf(found, 0, 0)).toBeGreaterThan(0.999);
  expect(chanceOf(found, 1, 1)).toBeGreaterThan(0.999);
});

it('of many of one kind those go together that are near in their order, however many they are', () => {
  const near = Array.from({ length: 400 }, (_, at) => at).flatMap((at) =>
    [-1, 0, 1].flatMap((step) =>
      at + step < 0 || at + step >= 400 ? [] : [{ entry: at, line: at + step, odds: step === 0 ? 1e5 : 1e2 }],
    ),
  );
  const found = assign(near, when);
  expect(found).toHaveLength(400);
  expect(found.every(({ entry, line, confidence }) => entry === line && confidence > 0.99)).toBe(true);
});
