import { Raster } from '../../imaging/raster';
import { Character, SpelledWord } from '../spelled';
import { hasBarredZeros, settleBarredZeros, settleByExample, settleSeparators } from './shapes';
import { respaced } from './spacing';
import { settle } from './spelling';
import { Strip } from './strips';

/** Words of figures and letters 20 wide and 30 high; a number is the gap before what follows, in pixels, else 4. */
function spelled(...pieces: (string | number)[]): SpelledWord {
  const characters: Character[] = [];
  let x = 0;
  for (const piece of pieces) {
    if (typeof piece === 'number') x += piece - 4;
    else
      for (const text of piece) {
        characters.push({ text, box: [x, 10, 20, 30], confidence: 0.99 });
        x += 24;
      }
  }
  return { characters, confidence: 0.9 };
}
const text = (words: SpelledWord[]) =>
  words.map(({ characters }) => characters.map((each) => each.text).join('')).join(' ');

function shifted(word: SpelledWord, by: number): SpelledWord {
  return { ...word, characters: word.characters.map((each) => ({ ...each, box: [each.box[0] + by, 10, 20, 30] })) };
}

describe('spaces', () => {
  it('are put where the paper has them', () => {
    const prose = [
      spelled('eins'),
      shifted(spelled('zwei'), 110),
      shifted(spelled('drei'), 220),
      shifted(spelled('vier'), 330),
    ];
    const [, tax] = respaced([prose, [spelled('19', 17, '%')]], 30);
    expect(text(tax)).toBe('19 %');
  });

  it('that part a number at its point are taken away', () => {
    const prose = [
      spelled('one'),
      shifted(spelled('two'), 96),
      shifted(spelled('three'), 192),
      shifted(spelled('four'), 336),
    ];
    const [, time] = respaced([prose, [spelled('12:'), shifted(spelled('30'), 77)]], 30);
    expect(text(time)).toBe('12:30');
  });

  it('are not invented between letters, nor before a point', () => {
    const [one] = respaced([[spelled('Summ', 12, 'e')]], 30);
    expect(text(one)).toBe('Summe');
    const [address] = respaced([[spelled('www', 15, '.loom')]], 30);
    expect(text(address)).toBe('www.loom');
  });
});

it('tells commas from points by how far they hang below the figures', () => {
  const word = spelled('1.234,56');
  word.characters[1].box = [28, 34, 6, 6];
  word.characters[5].box = [124, 34, 6, 12];
  word.characters[1].text = ',';
  word.characters[5].text = '.';
  settleSeparators([word]);
  expect(text([word])).toBe('1.234,56');
});

/** Figures drawn from pictures of cells: # is ink. */
const FIGURES: Record<string, string[]> = {
  plain: ['.####.', '#....#', '#....#', '#....#', '#....#', '#....#', '#....#', '.####.'],
  dotted: ['.####.', '#....#', '#....#', '######', '######', '#....#', '#....#', '.####.'],
  backslash: ['.####.', '##...#', '###..#', '#.##.#', '#..###', '#...##', '#....#', '.####.'],
  eight: ['.####.', '#....#', '#....#', '.####.', '.####.', '#....#', '#....#', '.####.'],
  three: ['#####.', '.....#', '.....#', '..###.', '.....#', '.....#', '.....#', '#####.'],
};

function drawn(...names: [name: string, read: string, confidence?: number][]): {
  words: SpelledWord[];
  picture: Raster;
} {
  const cell = 4;
  const picture: Raster = {
    width: names.length * 40 + 20,
    height: 60,
    channels: 1,
    data: new Uint8Array((names.length * 40 + 20) * 60).fill(255),
  };
  const characters = names.map(([name, read, confidence = 0.995], at): Character => {
    FIGURES[name].forEach((row, y) =>
      [...row].forEach((mark, x) => {
        if (mark !== '#') return;
        for (let dy = 0; dy < cell; dy++) {
          const start = (10 + y * cell + dy) * picture.width + 10 + at * 40 + x * cell;
          picture.data.fill(0, start, start + cell);
        }
      }),
    );
    return { text: read, box: [10 + at * 40, 10, 6 * cell, 8 * cell], confidence };
  });
  return { words: [{ characters, confidence: 0.9 }], picture };
}

describe('figures', () => {
  it('with a dot inside are zeros on a page that has no plain ones', () => {
    const strip = drawn(['dotted', '8'], ['dotted', '8'], ['dotted', '0'], ['eight', '8'], ['three', '3']);
    expect(hasBarredZeros([strip])).toBe(true);
    settleBarredZeros([strip]);
    expect(text(strip.words)).toBe('00083');
  });

  it('with a bar either way are zeros, whatever they were read as, and no figure besides', () => {
    const strip = drawn(['backslash', '9', 0.6], ['backslash', '6', 0.5], ['three', '3']);
    const [word] = strip.words;
    // The bar was read as the end of a seven by itself.
    word.characters.splice(1, 0, { text: '7', box: [14, 10, 12, 32], confidence: 0.5 });
    settleBarredZeros([strip]);
    expect(text(strip.words)).toBe('003');
    expect(word.characters[0].confidence).toBeGreaterThan(0.9);
  });

  it('with a bar are not read twice, as a figure and as the sign that its bar looks like', () => {
    const strip = drawn(['backslash', '0'], ['backslash', '0'], ['three', '3']);
    const [word] = strip.words;
    const [x, y, width, height] = word.characters[0].box;
    word.characters.splice(1, 0, { text: '@', box: [x + 0.6 * width, y, 0.8 * width, height], confidence: 0.9 });
    settleBarredZeros([strip]);
    expect(text(strip.words)).toBe('003');
  });

  it('that look like it are left alone where zeros are plain', () => {
    const strip = drawn(['plain', '0'], ['plain', '0'], ['plain', '0'], ['dotted', '8']);
    expect(hasBarredZeros([strip])).toBe(false);
  });

  it('that are doubted become what they look like on the same page', () => {
    const strip = drawn(['three', '3'], ['eight', '8'], ['three', '8', 0.9]);
    settleByExample([strip]);
    expect(text(strip.words)).toBe('383');
  });

  it('that are sure stay as they were read', () => {
    const strip = drawn(['three', '3'], ['eight', '8'], ['three', '8', 0.999]);
    settleByExample([strip]);
    expect(text(strip.words)).toBe('388');
  });
});

/** A strip of which the recogniser made a word: its letters so tall and so sure. */
function strip(word: string, height: number, confidence: number): { words: SpelledWord[]; strip: Strip } {
  const characters = [...word].map((text, at): Character => ({
    text,
    box: [10 + at * 20, 10, 16, height],
    confidence,
  }));
  const size = { width: 20 + word.length * 20, height: height + 20 };
  const picture = { ...size, channels: 1 as const, data: new Uint8Array(size.width * size.height).fill(255) };
  return {
    words: [{ characters, confidence }],
    strip: { picture, width: size.width, scale: 1, left: 0, top: 0, slope: 0 },
  };
}

describe('what stands behind a word', () => {
  it('have a colon behind a short form, where two points were read', () => {
    const settled = (word: string) => {
      const { words, strip: own } = strip(word, 30, 0.99);
      return text(settle([words], [own], 30, false)[0]);
    };
    expect(settled('No..')).toBe('No.:');
    expect(settled('more...')).toBe('more...');
    expect(settled('12..')).toBe('12..');
  });
});
