import { Character } from '../spelled';
import { settleCapitals } from './letterForms';
import { ReadStrip } from './shapes';

const [FOOT, SMALL, CAPITAL] = [40, 18, 28];

/** A line as it was read, its letters blocks that are as tall as those of the other text: small ones, or all others as capitals. */
function printed(read: string, paper: string, confidence = 0.98): ReadStrip {
  const picture = {
    width: 20 + 24 * read.length,
    height: 50,
    channels: 1 as const,
    data: new Uint8Array((20 + 24 * read.length) * 50).fill(255),
  };
  const words = [{ characters: [] as Character[], confidence: 0.9 }];
  [...read].forEach((text, at) => {
    if (text === ' ') return words.push({ characters: [], confidence: 0.9 });
    const tall = /[acemnorsuvwxz]/.test(paper[at]) ? SMALL : CAPITAL;
    const left = 10 + 24 * at;
    for (let y = FOOT - tall; y < FOOT; y++)
      picture.data.fill(0, y * picture.width + left, y * picture.width + left + 20);
    return words[words.length - 1].characters.push({ text, box: [left, FOOT - tall, 20, tall], confidence });
  });
  return { words, picture };
}

function settled(...strips: ReadStrip[]): string[] {
  settleCapitals(strips);
  return strips.map(({ words }) =>
    words.map(({ characters }) => characters.map(({ text }) => text).join('')).join(' '),
  );
}

describe('a letter that has the form of its capital', () => {
  it('is one when it stands as tall as the others, at the beginning of a word', () => {
    expect(settled(printed('wool from Harbour', 'Wool from Harbour'))).toEqual(['Wool from Harbour']);
    expect(settled(printed('Harbour Wool, 3 X', 'Harbour wool, 3 x'))).toEqual(['Harbour wool, 3 x']);
  });

  it('is told by the capitals of other lines where its own has none', () => {
    expect(settled(printed('wares', 'Wares'), printed('Mende', 'Mende'))).toEqual(['Wares', 'Mende']);
  });

  it('is a small one at the beginning of a web address', () => {
    expect(settled(printed('Harbour Www.loom', 'Harbour Www.loom'))).toEqual(['Harbour www.loom']);
  });

  it('stays as it was read when it is sure, within a word, or when nothing shows how tall a capital is', () => {
    expect(settled(printed('wool from Harbour', 'Wool from Harbour', 0.999))).toEqual(['wool from Harbour']);
    expect(settled(printed('loWer Harbour', 'lower Harbour'))).toEqual(['loWer Harbour']);
    expect(settled(printed('wares', 'Wares'))).toEqual(['wares']);
    expect(settled(printed('WOOL HARBOUR', 'WOOL HARBOUR'))).toEqual(['WOOL HARBOUR']);
  });
});
