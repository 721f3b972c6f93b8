import { headingsOf, numberingFaults, printedNumbers, sayNumberingFault } from './book';
import { Word } from './words';

const [WIDTH, HEIGHT] = [1000, 1500];

/** A page with lines of words, each so far down and so tall. */
function page(...lines: [text: string, y: number, tall?: number][]) {
  const words = lines.flatMap(([text, y, tall = 20], line) =>
    text.split(' ').map((each, at): Word => ({
      text: each,
      confidence: 0.95,
      baseline: y + tall,
      box: [100 + 90 * at, y, 80, tall],
      line,
    })),
  );
  return { width: WIDTH, height: HEIGHT, words };
}

const BODY: [string, number][] = [
  ['Linen takes the dye slowly and keeps it 40 years', 400],
  ['so the vat is left standing over night and stirred', 430],
];
const numbered = (number: number | string) => page(...BODY, [String(number), 1430]);
const faultsOf = (...numbers: (number | string)[]) =>
  numberingFaults(printedNumbers(numbers.map(numbered))).map(sayNumberingFault);

describe('the numbers printed on pages', () => {
  it('are told where they count on, at the foot or in a running head', () => {
    const pages = [
      page(...BODY, ['12', 1430]),
      page(['The dye works 13', 60], ...BODY),
      page(['14 The dye works', 60], ...BODY),
      page(...BODY, ['– 15 –', 1430]),
    ];
    expect(printedNumbers(pages)).toEqual([12, 13, 14, 15]);
  });

  it('are known of pages between them, before and behind on which none is to be seen', () =>
    expect(printedNumbers(['', 7, 8, '', 10, 11, ''].map(numbered))).toEqual([6, 7, 8, 9, 10, 11, 12]));

  it('are none on pages in front of the first', () =>
    expect(printedNumbers(['', '', '', 1, 2, 3, 4, 5].map(numbered))).toEqual([null, null, null, 1, 2, 3, 4, 5]));

  it('are none where other numbers stand at the foot', () => {
    expect(printedNumbers([1204, 88, 7, 319, 20].map(numbered))).toEqual([null, null, null, null, null]);
    expect(printedNumbers([1, 2].map(numbered))).toEqual([null, null]);
  });

  it('are not misled by one that was misread, be it the first, the last or one between', () => {
    expect(faultsOf(20, 21, 82, 23, 24, 25)).toEqual([]);
    expect(faultsOf(20, 21, 22, 23, 29)).toEqual([]);
    expect(faultsOf(13, 20, 21, 22, 23)).toEqual([]);
  });
});

describe('pages', () => {
  it('that are all there in their order are not remarked upon', () => expect(faultsOf(3, 4, 5, 6, 7)).toEqual([]));

  it('that are missing are told', () => {
    expect(faultsOf(3, 4, 5, 8, 9, 10)).toEqual(['Pages 6 to 7 seem to be missing.']);
    expect(faultsOf(3, 4, 5, 7, 8)).toEqual(['Page 6 seems to be missing.']);
    expect(faultsOf(12, 13, 14, 16, 17, 17, 18)).toEqual([
      'Page 15 seems to be missing.',
      'Page 17 seems to be there twice.',
    ]);
    expect(faultsOf(3, 4, 5, '', 9, 10, 11)).toEqual(['2 pages between 5 and 9 seem to be missing.']);
  });

  it('that were taken twice are told, one by itself or both of an open book', () => {
    expect(faultsOf(3, 4, 5, 5, 6, 7)).toEqual(['Page 5 seems to be there twice.']);
    expect(faultsOf(3, 4, 5, 6, 7, 7)).toEqual(['Page 7 seems to be there twice.']);
    expect(faultsOf(4, 5, 6, 7, 6, 7, 8, 9)).toEqual([
      'Page 6 seems to be there twice.',
      'Page 7 seems to be there twice.',
    ]);
  });
});

describe('headings', () => {
  const plain = () => page(['The Harbour Weaver', 60, 30], ...BODY);
  const chapter = (title: string, below?: string) =>
    page(
      ['The Harbour Weaver', 60, 30],
      [title, 200, 40],
      ...(below ? [[below, 250, 40] as [string, number, number]] : []),
      ...BODY,
    );

  it('are lines in larger letters, and what calls itself a chapter, but not what stands on every page', () => {
    const pages = [
      chapter('Warp and weft'),
      plain(),
      chapter('Of madder', 'and of weld'),
      plain(),
      page(['Kapitel 3 Die Küpe', 200], ...BODY),
      plain(),
    ];
    expect(headingsOf(pages)).toEqual([
      { text: 'Warp and weft', page: 0, top: 200 / HEIGHT },
      { text: 'Of madder and of weld', page: 2, top: 200 / HEIGHT },
      { text: 'Kapitel 3 Die Küpe', page: 4, top: 200 / HEIGHT },
    ]);
  });

  it('are none in a short paper, nor where nearly every line is large', () => {
    expect(headingsOf([chapter('Warp'), chapter('Weft'), plain()])).toEqual([]);
    const poster = (at: number) =>
      page([`Sale ${at} now`, 100, 60], [`All must go ${at}`, 400, 60], ...BODY, ['x', 900]);
    expect(headingsOf([1, 2, 3, 4, 5, 6, 7].map(poster))).toEqual([]);
  });
});
