import { isGoodTextLayer, parseBboxLayout } from './bboxLayout';
import { Word } from './words';

const XML = `<doc><page width="200.0" height="100.0"><flow><block><line xMin="1" yMin="1" xMax="60" yMax="11">
<word xMin="10.0" yMin="20.0" xMax="40.0" yMax="30.0">Größe</word><word xMin="42.0" yMin="20.0" xMax="50.0" yMax="30.0">&lt;5&gt;</word>
</line><line xMin="1" yMin="1" xMax="60" yMax="11"><word xMin="10.0" yMin="40.0" xMax="20.0" yMax="50.0">x</word></line></block></flow></page>
<page width="50" height="50"></page></doc>`;

it('reads the words of each page, scaled', () => {
  const [first, second] = parseBboxLayout(XML, 2);
  expect(first).toMatchObject({ width: 400, height: 200 });
  expect(first.words.map(({ text, box, line }) => ({ text, box, line }))).toEqual([
    { text: 'Größe', box: [20, 40, 60, 20], line: 0 },
    { text: '<5>', box: [84, 40, 16, 20], line: 0 },
    { text: 'x', box: [20, 80, 20, 20], line: 1 },
  ]);
  expect(second.words).toEqual([]);
});

describe('judging the text that a page brings', () => {
  const layer = (...texts: string[]): Word[] =>
    texts.map((text) => ({ text, box: [0, 0, 1, 1], confidence: 1, line: 0, baseline: 1 }));

  it('trusts ordinary words, numbers and signs', () => {
    expect(isGoodTextLayer(layer('Rechnung', 'Nr.', '2025-0731', '436,31', '€', '(netto)', 'Größe', 'l’œuvre'))).toBe(
      true,
    );
  });
  it('does not trust a few stray words, such as a stamp on a scanned page', () => {
    expect(isGoodTextLayer(layer('Scanned', 'page', '1'))).toBe(false);
  });
  it('does not trust characters without meaning', () => {
    expect(isGoodTextLayer(layer(...Array.from({ length: 10 }, () => '\uE012\uE013\uE014')))).toBe(false);
    expect(isGoodTextLayer(layer('Inv\uFFFDice', 'n\uFFFD', 'a', 'b', 'c', 'd', 'e'))).toBe(false);
  });
  it('does not trust rows of signs', () => {
    expect(isGoodTextLayer(layer('§$%', '&/(', '=?`', '*+~', '#_-', '<>|', 'word'))).toBe(false);
  });
});
