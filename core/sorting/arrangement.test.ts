import fc from 'fast-check';
import {
  acceptCut,
  Arrangement,
  asProposed,
  completed,
  cutBehind,
  cutEvery,
  cutEverywhere,
  documentsOf,
  followProposals,
  joinPages,
  keepWhole,
  landed,
  landingPlace,
  movePages,
  putTogether,
  sendToBack,
  setDropped,
  toggleCut,
  turnPages,
} from './arrangement';

/** Pages from letters, a bar for each cut, a minus behind dropped ones: `ab|c-d`. */
function table(written: string): Arrangement {
  return [...written.matchAll(/(\|?)(\w)(-?)/g)].map(([, cut, id, dropped]) => ({
    id,
    cutBefore: cut === '|',
    cutDecided: false,
    turn: 0,
    version: '',
    dropped: dropped === '-',
    dropDecided: false,
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

it('joins what lies between the first and the last of some pages', () =>
  expect(written(joinPages(table('|a|b|c|d'), new Set(['b', 'd'])))).toBe('|a|bcd'));

it('cuts every so many pages, and behind pages that separate', () => {
  expect(written(cutEvery(table('abc-de'), 2))).toBe('abc-|de');
  expect(written(cutBehind(table('ab|cde'), new Set(['b', 'd'])))).toBe('ab-|cd-|e');
});

describe('what is proposed', () => {
  const proposals = [
    { id: 'a', begins: true, aside: false },
    { id: 'b', begins: true, aside: false },
    { id: 'c', begins: false, aside: true },
    { id: 'd', begins: false, aside: false },
  ];
  it('is followed where nobody has decided', () => {
    expect(written(followProposals(table('abcd'), proposals))).toBe('a|bc-d');
  });
  it('never undoes what a person decided', () => {
    const joined = toggleCut(table('a|bcd'), 'b');
    const cut = toggleCut(joined, 'd');
    const kept = setDropped(cut, new Set(['c']), false);
    expect(written(followProposals(kept, proposals))).toBe('abc|d');
    expect(written(followProposals(acceptCut(table('abcd'), 'b'), proposals))).toBe('abc-d');
  });
  it('is followed again once decisions are taken back', () => {
    expect(written(followProposals(asProposed(keepWhole(table('abcd'))), proposals))).toBe('a|bc-d');
  });
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
    // Whole documents stay documents.
    ['a|b|c', 'b', null, 'a|c|b'],
    ['ab|cd', 'cd', 'a', 'cd|ab'],
    ['a|bc|d', 'bc', 'a', 'bc|a|d'],
    ['a|bc|d', 'bcd', 'a', 'bc|d|a'],
    ['ab|cd', 'cd', 'b', 'acdb'],
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
          cutDecided: false,
          dropDecided: false,
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

describe('pages that come later', () => {
  const there = [0, 1, 2, 5].map((number) => ({ id: `p${number}`, number }));
  const place = (number: number, landing = {}) =>
    landingPlace(there, number, { before: null, again: null, ...landing });

  it('go to the end, and before pages that were sent after them', () => {
    expect(place(6)).toBe(4);
    expect(place(3)).toBe(3);
  });

  it('go before a page, behind those that were sent there before', () => {
    expect(place(6, { before: 'p1' })).toBe(1);
    expect(
      landingPlace(
        [
          { id: 'a', number: 0 },
          { id: 'x', number: 4 },
          { id: 'z', number: 6 },
          { id: 'b', number: 1 },
        ],
        5,
        { before: 'b', again: null },
      ),
    ).toBe(2);
  });

  it('go right behind the page that they are another capture of', () => expect(place(6, { again: 'p1' })).toBe(2));
  it('go to the end when that page is gone', () => expect(place(6, { before: 'gone' })).toBe(4));

  it('join the document that they land in, and are dropped when that is undone', () => {
    const { before, after } = landed(table('abX|c'), new Set(['X']), null);
    expect([written(before), written(after)]).toEqual(['abX-|c', 'ab|Xc']);
    expect(written(landed(table('a|bXc'), new Set(['X']), null).after)).toBe('a|bXc');
  });

  it('begin the document whose first page they land before', () => {
    expect(written(landed(table('abX'), new Set(['X']), null).after)).toBe('abX');
    expect(written(landed(table('aXY|bc'), new Set(['X', 'Y']), null).after)).toBe('a|XYbc');
  });

  it('take the place of a page that was captured again', () => {
    const { before, after } = landed(table('a|bXc'), new Set(['X']), 'b');
    expect([written(before), written(after)]).toEqual(['a|bX-c', 'a|b-Xc']);
    expect(documents(after)).toEqual(['a', 'Xc']);
  });

  it('stay behind the pages that they follow when an older arrangement comes back', () => {
    expect(written(completed(table('ba|c'), table('aXbYc')))).toBe('bYaX|c');
    expect(written(completed(table('ab'), table('XYab')))).toBe('XYab');
  });

  it('are never lost nor doubled', () => {
    const ids = fc.uniqueArray(fc.constantFrom(...'abcdefgh'), { minLength: 1 });
    fc.assert(
      fc.property(ids, ids, (older, now) => {
        const old = table(older.filter((id) => now.includes(id)).join(''));
        const result = completed(old, table(now.join('')));
        expect(result.map(({ id }) => id).sort()).toEqual([...now].sort());
      }),
    );
  });
});

it('puts the sheets of one picture together: the first becomes the whole picture', () => {
  const apart = table('abc|d').map((page) => ({ ...page, version: 'part', turn: 90 as const }));
  const whole = putTogether(apart, ['b', 'c']);
  expect(written(whole)).toBe('abc-|d');
  expect(whole[1]).toMatchObject({ version: '', turn: 0 });
  expect(whole[3]).toMatchObject({ version: 'part', turn: 90 });
});

describe('to the back', () => {
  const back = (from: string, ...ids: string[]) => written(sendToBack(table(from), new Set(ids)));

  it('lays a document behind the others, and the one after it still begins', () =>
    expect(back('ab|cd|ef', 'a', 'b')).toBe('cd|ef|ab'));

  it('makes pages out of the middle of a document one of their own', () =>
    expect(back('abc|def', 'b')).toBe('ac|def|b'));

  it('keeps several documents apart, and a stack that all of it is sent to the back of as it is', () => {
    expect(back('a|b|cd|ef', 'b', 'c', 'd')).toBe('a|ef|b|cd');
    expect(back('ab|c', 'a', 'b', 'c')).toBe('ab|c');
  });
});
