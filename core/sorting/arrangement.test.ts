import fc from 'fast-check';
import {
  Arrangement,
  cutEverywhere,
  documentsOf,
  keepWhole,
  movePages,
  setDropped,
  toggleCut,
  turnPages,
} from './arrangement';

/** Pages from letters, a bar for each cut, a minus behind dropped ones: `ab|c-d`. */
function table(written: string): Arrangement {
  return [...written.matchAll(/(\|?)(\w)(-?)/g)].map(([, cut, id, dropped]) => ({
    id,
    cutBefore: cut === '|',
    turn: 0,
    version: '',
    dropped: dropped === '-',
  }));
}
function written(arrangement: Arrangement): string {
  return arrangement.map(({ id, cutBefore, dropped }) => `${cutBefore ? '|' : ''}${id}${dropped ? '-' : ''}`).join('');
}
const documents = (arrangement: Arrangement) =>
  documentsOf(arrangement).map((pages) => pages.map(({ id }) => id).join(''));

describe('the documents that cuts make', () => {
  it('follow the cuts', () => expect(documents(table('ab|c|de'))).toEqual(['ab', 'c', 'de']));
  it('leave dropped pages out', () => expect(documents(table('ab-|c'))).toEqual(['a', 'c']));
  it('keep a cut whose page was dropped', () => expect(documents(table('a|b-c'))).toEqual(['a', 'c']));
  it('are none of them empty', () => expect(documents(table('a-|b-|c'))).toEqual(['c']));
});

it('cuts and joins before a page, never before the first', () => {
  expect(written(toggleCut(table('abc'), 'b'))).toBe('a|bc');
  expect(written(toggleCut(table('a|bc'), 'b'))).toBe('abc');
  expect(written(toggleCut(table('abc'), 'a'))).toBe('abc');
});

it('keeps everything whole, or cuts everywhere', () => {
  expect(written(keepWhole(table('a|b|c')))).toBe('abc');
  expect(written(cutEverywhere(table('abc')))).toBe('a|b|c');
});

it('drops pages visibly and brings them back', () => {
  const dropped = setDropped(table('abc'), new Set(['b']), true);
  expect(written(dropped)).toBe('ab-c');
  expect(written(setDropped(dropped, new Set(['b']), false))).toBe('abc');
});

it('turns pages on, all the way round', () => {
  const once = turnPages(table('ab'), new Set(['a']), 270);
  expect(once.map(({ turn }) => turn)).toEqual([270, 0]);
  expect(turnPages(once, new Set(['a']), 90)[0].turn).toBe(0);
});

describe('moving pages', () => {
  it.each([
    ['abc', 'a', 'c', 'bac'],
    ['abc', 'a', null, 'bca'],
    ['ab|cd', 'c', 'b', 'acb|d'],
    ['ab|cd', 'd', 'c', 'ab|dc'],
    ['ab|cd', 'a', 'd', 'b|cad'],
    ['a|b|c', 'b', null, 'a|cb'],
    ['abcd', 'bc', null, 'adbc'],
  ])('%s, moving %s before %s, gives %s', (from, moved, before, to) => {
    expect(written(movePages(table(from), new Set(moved), before))).toBe(to);
  });

  it('never loses or doubles a page', () => {
    const arrangement = fc
      .integer({ min: 1, max: 12 })
      .chain((length) =>
        fc.tuple(
          fc.array(fc.boolean(), { minLength: length, maxLength: length }),
          fc.subarray([...Array(length).keys()].map(String)),
          fc.integer({ min: 0, max: length }),
        ),
      );
    fc.assert(
      fc.property(arrangement, ([cuts, moved, to]) => {
        const before = cuts.map((cut, index) => ({
          id: String(index),
          cutBefore: index > 0 && cut,
          turn: 0 as const,
          version: '',
          dropped: false,
        }));
        const after = movePages(before, new Set(moved), before[to]?.id ?? null);
        expect(after.map(({ id }) => id).sort()).toEqual(before.map(({ id }) => id).sort());
        expect(after[0].cutBefore).toBe(false);
      }),
    );
  });
});
