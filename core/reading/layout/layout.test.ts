import { Raster } from '../../imaging/raster';
import { Ink } from '../../imaging/ink';
import { inkPieces } from '../../imaging/components';
import { takeOutDots } from './dottedLines';
import { takeOutEmptyBoxes } from './emptyBoxes';
import { evenPage } from './evenPage';
import { layOut } from './pageLayout';
import { takeOutRules } from './ruledLines';
import { findSegments, Segment } from './segments';
import { boxOnPage, cutStrips } from './strips';

type Rectangle = [x: number, y: number, width: number, height: number];

function blank(width: number, height: number, paper = 240): Raster {
  return { width, height, channels: 1, data: new Uint8Array(width * height).fill(paper) };
}

function fill({ width, data }: Raster, [x, y, w, h]: Rectangle, value = 20): void {
  for (let row = y; row < y + h; row++) data.fill(value, row * width + x, row * width + x + w);
}

/** Letters as upright strokes with a foot, 14 pixels high, each 10 wide with 4 between; a dot above every third. */
function line(page: Raster, x: number, y: number, letters: number, { slope = 0, dots = false, value = 20 } = {}): void {
  for (let at = 0; at < letters; at++) {
    const left = x + at * 14;
    const top = y + Math.round(slope * (left - x));
    fill(page, [left, top, 3, 14], value);
    fill(page, [left, top + 11, 10, 3], value);
    if (dots && at % 3 === 0) fill(page, [left, top - 8, 3, 4], value);
  }
}

function inkOf({ width, height, data }: Raster): Ink {
  return { width, height, data: Uint8Array.from(data, (value) => (value < 128 ? 1 : 0)) };
}

const wide = ({ left, right }: Segment) => right - left + 1;

describe('dotted lines', () => {
  it('are taken out, below a row and before a figure, and full stops and the dots of letters are kept', () => {
    const page = blank(700, 200);
    line(page, 40, 60, 20, { dots: true });
    for (let x = 40; x < 660; x += 5) fill(page, [x, 90, 2, 2]);
    for (let x = 340; x < 560; x += 9) fill(page, [x, 140, 3, 3]);
    for (const x of [600, 612, 624]) fill(page, [x, 140, 3, 3]);
    const before = inkOf(page);
    const ink = inkOf(page);
    const taken = takeOutDots(ink, inkPieces(ink), 14);
    const pixels = ({ data }: Ink, from: number, to: number) =>
      data.subarray(from * 700, to * 700).reduce((sum, value) => sum + value, 0);
    expect(pixels(ink, 40, 80)).toBe(pixels(before, 40, 80));
    expect(pixels(ink, 88, 94)).toBe(0);
    expect(pixels(ink, 138, 145)).toBe(3 * 9);
    expect(taken).toHaveLength(pixels(before, 88, 94) + pixels(before, 138, 145) - 3 * 9);
  });
});

describe('small signs that follow each other as dots do', () => {
  /** Signs with a hollow, eight pixels high, as far apart as dots. */
  const signs = (widths: number[]) => {
    const page = blank(700, 200);
    let x = 40;
    for (let sign = 0; sign < 24; sign++) {
      const wide = widths[sign % widths.length];
      fill(page, [x, 60, wide, 1]);
      fill(page, [x, 67, wide, 1]);
      fill(page, [x, 60, 1, 8]);
      fill(page, [x + wide - 1, 60, 1, 8]);
      x += wide + 3;
    }
    return inkOf(page);
  };

  it('are kept where they are letters, beside others twice as high', () => {
    const ink = signs([7, 5, 9]);
    expect(takeOutDots(ink, inkPieces(ink), 16)).toEqual([]);
  });

  it('are taken out where they are asterisks, of which each is as wide as the next', () => {
    const ink = signs([7]);
    takeOutDots(ink, inkPieces(ink), 16);
    expect(ink.data.includes(1)).toBe(false);
  });
});

describe('the dashed frame of what is to be cut out', () => {
  it('is taken out on all sides, and hyphens under each other are kept', () => {
    const page = blank(700, 500);
    for (let x = 40; x < 660; x += 24) for (const y of [40, 460]) fill(page, [x, y, 14, 5]);
    for (let y = 52; y < 450; y += 24) for (const x of [40, 649]) fill(page, [x, y, 5, 14]);
    const list = blank(700, 500);
    for (let row = 0; row < 16; row++) fill(list, [100, 60 + 24 * row, 8, 2]);
    const hyphens = inkOf(list);
    const ink = { ...hyphens, data: inkOf(page).data.map((value, at) => value | hyphens.data[at]) };
    takeOutDots(ink, inkPieces(ink), 10);
    expect(ink.data).toEqual(hyphens.data);
  });
});

it('keeps the points of a column of figures, which follow each other as dots do', () => {
  const page = blank(700, 700);
  for (let row = 0; row < 20; row++) {
    for (const x of [100, 112, 130]) fill(page, [x, 60 + 24 * row, 9, 14]);
    fill(page, [124, 71 + 24 * row, 3, 3]);
  }
  const ink = inkOf(page);
  expect(takeOutDots(ink, inkPieces(ink), 10)).toEqual([]);
});

it('keeps the ones of a column of figures, which follow each other as dashes do', () => {
  const page = blank(700, 700);
  for (let row = 0; row < 20; row++)
    for (const x of [100, 112, 124]) fill(page, [x, 60 + 24 * row, x === 100 ? 4 : 9, 14]);
  const ink = inkOf(page);
  expect(takeOutDots(ink, inkPieces(ink), 10)).toEqual([]);
});

it('takes out what is left of a torn line beside a column, and no narrow letters under each other', () => {
  const page = blank(900, 900);
  const lengths = [12, 27, 14, 40, 11, 22, 35, 10, 18, 30];
  for (const [row, length] of lengths.entries()) {
    line(page, 60, 60 + row * 60, 30);
    fill(page, [600, 50 + row * 60, 3, length]);
    // Letters as narrow, in a column of their own with a letter on either side.
    for (const [x, wide] of [
      [700, 9],
      [714, 3],
      [722, 9],
    ])
      fill(page, [x, 60 + row * 60, wide, 9 + (row % 3) * 5]);
  }
  const ink = inkOf(page);
  const before = inkPieces(ink);
  takeOutDots(ink, before, 14);
  const left = inkPieces(ink).map((piece) => piece.left);
  expect(left.filter((x) => x >= 590 && x < 620)).toEqual([]);
  expect(left).toHaveLength(before.length - lengths.length);
});

it('takes out boxes to be ticked while they are empty, and no letters or ticked ones', () => {
  const page = blank(700, 300);
  const box = (x: number, y: number) => {
    for (const at of [0, 22]) fill(page, [x, y + at, 25, 3]);
    for (const at of [0, 22]) fill(page, [x + at, y, 3, 25]);
  };
  const ring = (x: number, y: number) => {
    for (let row = -12; row <= 12; row++)
      for (let column = -12; column <= 12; column++) {
        const away = Math.hypot(row, column);
        if (away <= 12 && away > 9) fill(page, [x + column, y + row, 1, 1]);
      }
  };
  for (const y of [40, 100]) box(60, y);
  box(60, 160);
  for (let at = 0; at < 19; at++) fill(page, [63 + at, 163 + at, 2, 2]);
  ring(200, 60);
  const ink = inkOf(page);
  const taken = takeOutEmptyBoxes(ink, inkPieces(ink), 14);
  const rows = new Set(taken.map((at) => Math.floor(at / 700)));
  expect(taken.length).toBe(2 * (2 * 25 * 3 + 2 * 19 * 3));
  expect([Math.min(...rows), Math.max(...rows)]).toEqual([40, 124]);
  expect(taken.every((at) => at % 700 < 100)).toBe(true);
});

describe('segments', () => {
  it('are two cells on either side of a ruled line, but the figures in a comb of boxes are one', () => {
    const page = blank(900, 300);
    line(page, 60, 100, 12);
    for (let at = 0; at < 8; at++) fill(page, [500 + at * 24, 100, 9, 14]);
    const rule = (left: number) => ({ direction: 'down' as const, left, right: left + 1, top: 80, bottom: 140 });
    const { segments: one } = findSegments(inkOf(page));
    const between = (one[0].left + one[0].right) >> 1;
    const { segments } = findSegments(inkOf(page), [
      rule(between),
      ...[1, 2, 3, 4, 5, 6, 7].map((at) => rule(492 + at * 24)),
    ]);
    expect(one.map(({ members }) => members.length)).toEqual([12, 8]);
    expect(segments.map(({ members }) => members.length).sort()).toEqual([6, 6, 8]);
  });

  it('are the two lines that a long letter of the one holds together with the other', () => {
    const page = blank(900, 300);
    line(page, 100, 100, 20);
    line(page, 100, 124, 20);
    fill(page, [238, 100, 15, 38]);
    const { segments } = findSegments(inkOf(page));
    // Of the letter that is in both, each has its part.
    expect(segments.map(({ members }) => members.length).sort()).toEqual([20, 20]);
    expect(segments.map(({ upper }) => Math.round(upper)).sort((a, b) => a - b)).toEqual([100, 124]);
  });

  it('are a large line and a small one close below it, whose letters a tail holds together', () => {
    const page = blank(900, 300);
    for (let at = 0; at < 14; at++) fill(page, [100 + at * 32, 100, 22, 26]);
    for (let at = 0; at < 16; at++) fill(page, [100 + at * 16, 130, 10, 14]);
    // A letter of the large line with a tail that runs into the small one.
    fill(page, [228, 100, 8, 40]);
    const { segments, components, labels } = findSegments(inkOf(page));
    const [large, small] = segments.toSorted((a, b) => a.top - b.top);
    expect([large.letter, small.letter]).toEqual([26, 14]);
    expect([large.members.length, small.members.length]).toEqual([14, 16]);
    const cut = components.filter(({ left, right }) => left <= 232 && right >= 232);
    expect(cut.map(({ top, bottom }) => [top, bottom]).sort(([a], [b]) => a - b)).toEqual([
      [100, 133],
      [134, 143],
    ]);
    // The tail stays with its letter as far down as tails go.
    expect(labels[133 * 900 + 232]).not.toBe(labels[134 * 900 + 232]);
  });

  it('stay whole where all their letters stand on one line, however tall one of them is', () => {
    const page = blank(900, 300);
    line(page, 100, 130, 20);
    fill(page, [240, 104, 3, 40]);
    expect(findSegments(inkOf(page)).segments).toHaveLength(1);
  });

  it('are two lines where a bar stands beside both, and the bar is in neither', () => {
    const page = blank(900, 1200);
    for (let row = 0; row < 6; row++) line(page, 100, 400 + row * 40, 40);
    fill(page, [100, 100, 9, 50]);
    line(page, 122, 104, 12);
    line(page, 122, 132, 30);
    const { segments } = findSegments(inkOf(page));
    const near = segments.filter(({ top }) => top < 200).map(({ left, top, members }) => [left, top, members.length]);
    expect(near).toEqual([
      [122, 104, 12],
      [122, 132, 30],
    ]);
  });

  it('keep a tall narrow letter at the beginning of a heading', () => {
    const page = blank(900, 1200);
    for (let row = 0; row < 6; row++) line(page, 100, 400 + row * 40, 40);
    fill(page, [100, 100, 8, 40]);
    for (let at = 0; at < 6; at++) fill(page, [120 + at * 30, 112, 22, 28]);
    const { segments } = findSegments(inkOf(page));
    expect(segments.find(({ top }) => top < 200)).toMatchObject({ left: 100, members: { length: 7 } });
  });
});

describe('ruled lines', () => {
  it('are taken out, slanted ones too, and strokes that cross them are kept whole', () => {
    const page = blank(600, 200);
    for (let x = 20; x < 580; x++) fill(page, [x, 100 + Math.round((x - 20) / 80), 1, 3]);
    fill(page, [300, 80, 4, 45]);
    const ink = inkOf(page);
    const { rules } = takeOutRules(ink, 14);
    expect(rules).toEqual([expect.objectContaining({ direction: 'across' })]);
    expect(ink.data[104 * 600 + 100] + ink.data[106 * 600 + 500]).toBe(0);
    for (let y = 80; y < 125; y++) expect(ink.data[y * 600 + 301]).toBe(1);
  });

  it('from one to the next are taken out, however short, and a tall stroke that stands on one is kept', () => {
    const page = blank(900, 200);
    for (const y of [60, 100]) fill(page, [40, y, 800, 2]);
    for (const x of [40, 400, 838]) fill(page, [x, 60, 2, 42]);
    fill(page, [600, 76, 3, 24]);
    const ink = inkOf(page);
    const { rules } = takeOutRules(ink, 14);
    const standing = rules.filter(({ direction }) => direction === 'down').map(({ left }) => left);
    expect(standing.sort((a, b) => a - b)).toEqual([40, 400, 838]);
    expect(ink.data[80 * 900 + 400]).toBe(0);
    expect(ink.data[80 * 900 + 601]).toBe(1);
  });

  it('of a box go on all four sides, and the letters in it stay', () => {
    const page = blank(600, 300);
    for (const side of [
      [50, 50, 400, 2],
      [50, 148, 400, 2],
      [50, 50, 2, 100],
      [448, 50, 2, 100],
    ] as Rectangle[])
      fill(page, side);
    line(page, 80, 90, 12);
    const ink = inkOf(page);
    const letters =
      inkOf(page)
        .data.slice(85 * 600, 110 * 600)
        .reduce((sum, value) => sum + value, 0) -
      25 * 4;
    const { rules } = takeOutRules(ink, 14);
    expect(rules.map(({ direction }) => direction).sort()).toEqual(['across', 'across', 'down', 'down']);
    expect(ink.data.reduce((sum, value) => sum + value, 0)).toBe(letters);
  });

  it('are not seen in the feet of bold figures that nearly touch', () => {
    const page = blank(600, 100);
    for (let at = 0; at < 5; at++) {
      fill(page, [50 + at * 20, 57, 17, 4]);
      // Little stands on each foot: the thin end of a slanting stroke.
      fill(page, [53 + at * 20, 40, 3, 17]);
    }
    const ink = inkOf(page);
    const before = ink.data.reduce((sum, value) => sum + value, 0);
    expect(takeOutRules(ink, 14).rules).toEqual([]);
    expect(ink.data.reduce((sum, value) => sum + value, 0)).toBe(before);
    // A rule as short as that, in one piece, is one.
    const ruled = blank(600, 100);
    fill(ruled, [50, 57, 97, 4]);
    expect(takeOutRules(inkOf(ruled), 14).rules).toHaveLength(1);
  });

  it('are not seen in bold letters whose feet touch', () => {
    const page = blank(600, 100);
    for (let at = 0; at < 12; at++) {
      fill(page, [50 + at * 13, 40, 7, 20]);
      fill(page, [50 + at * 13, 56, 13, 4]);
    }
    const ink = inkOf(page);
    const before = ink.data.reduce((sum, value) => sum + value, 0);
    takeOutRules(ink, 14);
    expect(ink.data.reduce((sum, value) => sum + value, 0)).toBe(before);
  });
});

describe('segments', () => {
  it('are lines and cells: a wide gap in a row parts them', () => {
    const page = blank(1000, 200);
    line(page, 50, 50, 20);
    line(page, 500, 50, 6);
    line(page, 50, 100, 30);
    const { segments } = findSegments(inkOf(page));
    expect(segments.map(wide).sort((a, b) => a - b)).toEqual([6 * 14 - 4, 20 * 14 - 4, 30 * 14 - 4]);
  });

  it('keep their own dots though the page is askew and lines stand close', () => {
    const page = blank(1400, 300);
    line(page, 50, 60, 80, { slope: 0.012, dots: true });
    line(page, 50, 94, 80, { slope: 0.012, dots: true });
    const { segments } = findSegments(inkOf(page));
    expect(segments).toHaveLength(2);
    for (const { members, slope } of segments) {
      expect(members).toHaveLength(80 + 27);
      expect(slope).toBeCloseTo(0.012, 2);
    }
  });

  it('leave specks of dust out', () => {
    const page = blank(600, 200);
    line(page, 50, 50, 20);
    fill(page, [400, 150, 1, 2]);
    expect(findSegments(inkOf(page)).segments).toHaveLength(1);
  });
});

describe('strips', () => {
  it('hold one segment alone, made level, with capitals of one height', () => {
    const page = blank(1400, 300, 255);
    line(page, 50, 60, 80, { slope: 0.012 });
    line(page, 50, 84, 80, { slope: 0.012 });
    const found = findSegments(inkOf(page));
    const [strip] = cutStrips(page, found, found.segments, 28);
    expect(strip.scale).toBeCloseTo(2, 1);
    // Level: as high as a line, though its box on the page is twice that.
    expect(strip.picture.height).toBeLessThan(28 + 2 * 14);
    const dark = [0, 1].map((half) => {
      const rows: number[] = [];
      for (let y = 0; y < strip.picture.height; y++)
        for (let x = half * 1200; x < half * 1200 + 900; x++)
          if (strip.picture.data[y * strip.picture.width + x] < 100) rows.push(y);
      return [Math.min(...rows), Math.max(...rows)];
    });
    expect(Math.abs(dark[0][0] - dark[1][0])).toBeLessThanOrEqual(1);
    expect(Math.abs(dark[0][1] - dark[1][1])).toBeLessThanOrEqual(1);
  });

  it('tell where on the page a box on them is', () => {
    const page = blank(400, 120, 255);
    line(page, 50, 60, 16);
    const found = findSegments(inkOf(page));
    const [strip] = cutStrips(page, found, found.segments, 28);
    const margin = 50 - strip.left;
    const [x, y, width, height] = boxOnPage(strip, [margin * strip.scale, margin * strip.scale, 20, 28]);
    expect([x, y, width, height].map(Math.round)).toEqual([50, 60, 10, 14]);
  });
});

describe('an even page', () => {
  it('has white paper and dark ink, whatever the light', () => {
    const page = blank(900, 1200);
    line(page, 100, 300, 40);
    for (let at = 0; at < page.data.length; at++) page.data[at] *= 0.45 + 0.5 * ((at % 900) / 900);
    const { page: even, ink } = evenPage(page);
    expect(even.data[600 * 900 + 50]).toBeGreaterThan(235);
    expect(even.data[600 * 900 + 850]).toBeGreaterThan(235);
    expect(ink.data[305 * 900 + 101]).toBe(1);
    expect(ink.data[600 * 900 + 50]).toBe(0);
  });

  it('has light print on a dark band turned to dark on white', () => {
    const page = blank(900, 1200);
    fill(page, [0, 0, 900, 110], 60);
    line(page, 100, 50, 20, { value: 235 });
    line(page, 100, 500, 40);
    const { ink } = evenPage(page);
    expect(ink.data[56 * 900 + 101]).toBe(1);
    expect(ink.data[30 * 900 + 600]).toBe(0);
  });

  it('keeps black letters with holes that touch as they are: they are no dark ground', () => {
    const page = blank(900, 1200);
    line(page, 100, 500, 40);
    for (let letter = 0; letter < 8; letter++) {
      fill(page, [100 + 28 * letter, 100, 28, 34]);
      fill(page, [110 + 28 * letter, 112, 8, 10], 240);
      // Where two meet they are notched.
      fill(page, [97 + 28 * letter, 100, 7, 12], 240);
    }
    const { ink } = evenPage(page);
    expect(ink.data[130 * 900 + 150]).toBe(1);
    expect(ink.data[116 * 900 + 114]).toBe(0);
  });
});

describe('print much lighter than the rest of its page', () => {
  const isInk = (ink: Ink, x: number, y: number) => ink.data[y * ink.width + x];
  const withFaint = (draw: (page: Raster) => void) => {
    const page = blank(900, 1200);
    for (let row = 0; row < 10; row++) line(page, 100, 400 + row * 40, 40);
    draw(page);
    return evenPage(page).ink;
  };

  it('is ink, as far as it has sharp edges and letters beside it', () => {
    const ink = withFaint((page) => line(page, 100, 200, 12, { value: 178 }));
    expect(isInk(ink, 101, 205)).toBe(1);
    expect(isInk(ink, 109, 205)).toBe(0);
    expect(isInk(ink, 101, 405)).toBe(1);
  });

  it('is none where it shows through from the other side, or is a speck or a tint', () => {
    const ink = withFaint((page) => {
      line(page, 100, 200, 12, { value: 178 });
      // Soft edges, as paper gives to what is behind it.
      const sharp = page.data.slice();
      for (let y = 180; y < 230; y++)
        for (let x = 90; x < 300; x++) {
          let sum = 0;
          for (let dy = -3; dy <= 3; dy++) for (let dx = -3; dx <= 3; dx++) sum += sharp[(y + dy) * 900 + x + dx];
          page.data[y * 900 + x] = sum / 49;
        }
      fill(page, [500, 205, 10, 12], 178);
      fill(page, [600, 150, 250, 100], 185);
    });
    expect(isInk(ink, 101, 205)).toBe(0);
    expect(isInk(ink, 505, 210)).toBe(0);
    expect(isInk(ink, 700, 200)).toBe(0);
  });
});

describe('a page on which a thumb or a coin lies', () => {
  const covered = (level: number) => {
    const page = blank(900, 1200);
    for (let row = 0; row < 20; row++) line(page, 300, 100 + row * 40, 40, { value: level });
    for (let y = -180; y <= 180; y++) {
      const half = Math.round(Math.sqrt(180 ** 2 - y ** 2));
      fill(page, [0, 500 + y, Math.max(1, half), 1], 15);
    }
    return page;
  };

  it('has its pale print seen as print: how dark the thing is says nothing of that', () => {
    const page = covered(165);
    const { ink } = evenPage(page);
    expect([100, 500, 860].map((y) => ink.data[(y + 5) * 900 + 301])).toEqual([1, 1, 1]);
    expect(layOut(evenPage(page)).segments.filter(({ members }) => members.length >= 40)).toHaveLength(20);
  });

  it('keeps the paper around the thing white: it is no dark ground with light print', () => {
    const { page } = evenPage(covered(60));
    // In the corner of the box around it.
    expect(page.data[345 * 900 + 170]).toBeGreaterThan(235);
  });
});

describe('reading order', () => {
  const order = (page: Raster) =>
    layOut(evenPage(page)).segments.map(({ left, top }) => [Math.round(left / 100), Math.round(top / 10)]);

  it('goes row by row through a table', () => {
    const page = blank(1200, 1600);
    for (let row = 0; row < 5; row++) {
      line(page, 100, 200 + row * 40, 12);
      line(page, 800, 200 + row * 40, 4);
    }
    const found = layOut(evenPage(page));
    expect(found.rows).toEqual([0, 0, 1, 1, 2, 2, 3, 3, 4, 4]);
    expect(order(page).map(([x]) => x)).toEqual([1, 8, 1, 8, 1, 8, 1, 8, 1, 8]);
  });

  it('goes down three columns of prose that are out of step, though dirt stands beside one', () => {
    const page = blank(1200, 700);
    for (let row = 0; row < 12; row++) {
      for (const [column, x] of [60, 420, 780].entries()) line(page, x, 60 + row * 40 + column * 13, 22);
      fill(page, [1130, 62 + row * 40, 6, 12]);
    }
    const { segments } = layOut(evenPage(page));
    const columns = segments.filter(({ members }) => members.length >= 20).map(({ left }) => Math.floor(left / 360));
    expect(columns).toEqual([...columns].sort());
    expect(columns).toHaveLength(36);
  });

  it('puts no line beside the one below it, though an initial stands beside both', () => {
    const page = blank(900, 500);
    for (const x of [60, 90]) fill(page, [x, 100, 12, 60]);
    for (let row = 0; row < 10; row++) line(page, row < 2 ? 300 : 60, 106 + row * 34, 30);
    const { segments, rows } = layOut(evenPage(page));
    const lines = segments.flatMap(({ members }, at) => (members.length >= 30 ? [rows[at]] : []));
    expect(lines).toHaveLength(10);
    expect(new Set(lines).size).toBe(10);
  });

  it('goes down one column of prose and then the other', () => {
    const page = blank(1200, 1600);
    for (let row = 0; row < 6; row++) {
      line(page, 100, 200 + row * 40, 32);
      line(page, 650, 200 + row * 40, 32);
    }
    expect(order(page).map(([x]) => x)).toEqual([1, 1, 1, 1, 1, 1, 7, 7, 7, 7, 7, 7]);
  });
});
