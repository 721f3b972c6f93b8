import { plainText, restoreWord, storeWord, turnPageText, Word } from './words';

const word = (text: string, line: number, box: Word['box'] = [10, 20, 30, 10]): Word => ({
  text,
  line,
  box,
  confidence: 0.9,
  baseline: 28,
});

it('puts the words of a line together and lines below each other', () => {
  expect(plainText([word('Dye', 0), word('Works', 0), word('Invoice', 1)])).toBe('Dye Works\nInvoice');
});

it('keeps a word as it was through storing, to a tenth of a pixel', () => {
  const stored = storeWord({ ...word('Größe', 3), box: [1.234, 5.678, 9.04, 2] });
  expect(restoreWord(JSON.parse(JSON.stringify(stored)))).toEqual({
    text: 'Größe',
    line: 3,
    box: [1.2, 5.7, 9, 2],
    confidence: 0.9,
    baseline: 28,
  });
});

it('turns a reading with its page', () => {
  const turned = turnPageText({ width: 100, height: 200, language: 'eng', words: [word('a', 0)] }, 90);
  expect([turned.width, turned.height]).toEqual([200, 100]);
  expect(turned.words[0].box).toEqual([170, 10, 10, 30]);
});
