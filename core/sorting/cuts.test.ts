import { Word } from '../reading/words';
import { backsOf } from './backs';
import { proposeCuts, sayReasons } from './cuts';
import { PilePage } from './gaps';
import { signsOf } from './signs';

const A4: [number, number] = [595, 842];

/** A page of A4 whose lines stand below each other from the top; `~` leaves the rest of the page down to its foot empty. */
function page(...lines: string[]): PilePage {
  const words: Word[] = [];
  let y = 50;
  lines.forEach((text, line) => {
    if (text === '~') return void (y = 800);
    let x = 60;
    for (const each of text.split(' ')) {
      const width = 6 * each.length;
      words.push({ text: each, box: [x, y, width, 10], confidence: 0.95, line, baseline: y + 9 });
      x += width + 6;
    }
    y += 16;
  });
  return { size: A4, blank: false, signs: signsOf({ width: 595, height: 842, words, language: 'eng' }, A4) };
}
const blank: PilePage = { size: A4, blank: true, signs: null };
const unread: PilePage = { size: A4, blank: false, signs: null };

const prose = Array.from({ length: 40 }, (_, at) => `and so the warp was wound on for the ${at + 3} time that week`);
const invoice = (number: string, ...rest: string[]) =>
  page('Halden Yarns Ltd', '4 Mill Lane', 'Orrin Harbour OH2 6LW', 'Invoice', `Invoice no. ${number}`, ...rest);

describe('page numbers', () => {
  it.each([
    ['Page 2 of 3', { at: 2, of: 3 }],
    ['Seite 2/3', { at: 2, of: 3 }],
    ['Page 2 sur 3', { at: 2, of: 3 }],
    ['- 2 -', { at: 2, of: null }],
    ['2/3', { at: 2, of: 3 }],
    ['Halden Yarns Ltd · Page l of 2', { at: 1, of: 2 }],
    ['Seite 4', { at: 4, of: null }],
  ])('are read: %s', (written, number) => {
    expect(page('Some text of a letter', '~', written).signs!.number).toEqual(number);
    expect(page(written, 'Some text of a letter').signs!.number).toEqual(number);
  });

  it.each(['12.50', '2026', '3 of 2', 'Page 0 of 4'])('are not seen in %s', (written) => {
    expect(page('Some text', '~', written).signs!.number).toBeNull();
  });
});

describe('proposed cuts', () => {
  it('join pages whose numbers follow, and cut where they start again', () => {
    const pages = [
      invoice('HY-1042', ...prose, '~', 'Page 1 of 2'),
      page('Halden Yarns Ltd', ...prose.slice(0, 10), 'Total £44.00', '~', 'Page 2 of 2'),
      invoice('HY-1043', ...prose.slice(0, 8), 'Total £12.00', '~', 'Page 1 of 1'),
    ];
    const [first, second, third] = proposeCuts(pages);
    expect(first).toBeNull();
    expect(second!.chance).toBeLessThan(0.04);
    expect(sayReasons(second!.why, second!.chance).join()).toContain('page number');
    expect(third!.chance).toBeGreaterThan(0.96);
    expect(third!.sure).toBe(true);
  });

  it('cut between two papers of one sender that have no page numbers', () => {
    const one = invoice('HY-1042', 'Date 3 March 2026', 'Merino £30.00', 'Total £30.00');
    const other = invoice('HY-1043', 'Date 9 March 2026', 'Linen £12.00', 'Total £12.00');
    expect(proposeCuts([one, other])[1]!.chance).toBeGreaterThan(0.9);
  });

  it('take a table below somebody else’s letterhead for another one, though its columns are the same', () => {
    const lines = ['Reed and shuttle 12.00', 'Temple and raddle 14.00', 'Heddles, cotton 19.00'];
    const first = page('Halden Yarns Ltd', '4 Mill Lane', '3 March 2026', ...lines);
    const [, other] = proposeCuts([first, page('Norrvik Textil AB', '9 Pier Road', '9 April 2026', ...lines)]);
    const [, same] = proposeCuts([first, page(...lines)]);
    // Not enough to cut by itself, and far too much to be sure that it goes on.
    expect(other!).toMatchObject({ sure: false });
    expect(other!.chance).toBeGreaterThan(same!.chance + 0.3);
  });

  it('look past blank pages, about which nothing is proposed', () => {
    const [, between, after] = proposeCuts([invoice('HY-1', 'Total £3.00'), blank, invoice('HY-2', 'Total £4.00')]);
    expect(between).toBeNull();
    expect(after!.chance).toBeGreaterThan(0.9);
  });

  it('are never sure where a page is unread', () => {
    expect(proposeCuts([invoice('HY-1', 'Total £3.00'), unread])[1]!.sure).toBe(false);
  });

  it('cut where the paper changes to a slip', () => {
    const slip: PilePage = { ...page('Quayside Parcels', 'RECEIPT', 'TOTAL 3.40'), size: [210, 420] };
    expect(proposeCuts([invoice('HY-1', 'Total £3.00'), slip])[1]!.chance).toBeGreaterThan(0.9);
  });
});

describe('divider sheets', () => {
  const divider: PilePage = { size: A4, blank: false, divider: true, signs: null };

  it('part what lies before and behind them, whatever stands there', () => {
    const pages = [
      page(...prose, '~', 'Page 1 of 2'),
      divider,
      page(...prose, '~', 'Page 2 of 2'),
      divider,
      blank,
      page(...prose),
    ];
    const proposals = proposeCuts(pages);
    expect(proposals.map((proposal) => proposal && [proposal.chance, proposal.sure])).toEqual([
      null,
      null,
      [1, true],
      null,
      null,
      [1, true],
    ]);
    expect(sayReasons(proposals[2]!.why, 1)).toEqual(['a divider sheet lies before it']);
  });

  it('propose nothing for the first page behind one that begins the pile', () => {
    expect(proposeCuts([divider, page('Dear Sir')])).toEqual([null, null]);
  });
});

describe('backs', () => {
  it('are every second page when blank ones are', () =>
    expect(backsOf([false, true, false, false, false, true])).toEqual([false, true, false, true, false, true]));
  it('are not told by blank sheets between others', () => {
    expect(backsOf([false, true, true, false, true, false])).toEqual(new Array(6).fill(undefined));
    expect(backsOf([false, false, false, true])).toEqual(new Array(4).fill(undefined));
  });
});
