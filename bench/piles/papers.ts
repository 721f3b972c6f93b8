import { A4, DrawSheet, Sheet } from '@crow/demo/sheet';
import { Face } from '@crow/demo/fonts';
import { Chance } from './chance';
import { Language, NAME_PARTS, Vocabulary, VOCABULARY } from './words';

export type PaperKind = 'receipt' | 'invoice' | 'letter' | 'statement' | 'other';

/** A paper that was made: what it is, and its pages to be drawn. */
export interface MadePaper {
  kind: PaperKind;
  language: Language;
  size: [width: number, height: number];
  margin: number;
  sheets: DrawSheet[];
}

/** Somebody who sends papers, always in the same dress. */
export interface Firm {
  name: string;
  language: Language;
  address: string[];
  lines: string[];
  foot: string[];
  dress: Dress;
}

interface Dress {
  face: Face;
  bold: Face;
  size: number;
  margin: number;
  head: 'left' | 'centre' | 'right' | 'plain';
  headSize: number;
  /** The name again at the head of further pages. */
  headAgain: boolean;
  footer: 'none' | 'first' | 'all';
  numbering: 'none' | 'alone' | 'of' | 'furtherOnly';
  numberAt: 'foot' | 'head';
  numberAlign: 'left' | 'centre' | 'right';
  numberForm: number;
  /** Further pages name what they belong to. */
  refersBack: boolean;
  carries: boolean;
  overleaf: boolean;
  /** How full a page is when a new one is begun: some papers leave much of a page empty. */
  fullest: number;
  /** Conditions in small print on a page of their own behind invoices. */
  conditions: boolean;
}

const WEIGHTED_NUMBERING = ['none', 'none', 'alone', 'alone', 'of', 'of', 'of', 'furtherOnly'] as const;

export function makeFirm(chance: Chance, language: Language): Firm {
  const words = VOCABULARY[language];
  const own = chance.pick(NAME_PARTS[0]) + chance.pick(NAME_PARTS[1]);
  const trade = chance.pick(words.trades);
  const form = chance.pick(words.forms);
  const name = (chance.of(0.5) ? `${own} ${trade} ${form}` : `${trade} ${own} ${form}`).trim();
  const number = String(chance.whole(1, 180));
  const street = chance.pick(words.streets);
  const town = chance.pick(words.towns);
  const code = language === 'en' ? `OH${chance.whole(1, 9)} ${chance.whole(1, 9)}TW` : chance.digits(5);
  const address = [
    words.streetFirst ? `${street} ${number}` : `${number} ${street}`,
    language === 'en' ? `${town} ${code}` : `${code} ${town}`,
  ];
  const web = `${own.toLowerCase()}-${language}.example`;
  const typed = chance.of(0.15);
  const book = chance.of(0.35);
  return {
    name,
    language,
    address,
    lines: chance.some(
      [...address, `${words.phone} ${chance.digits(5)} ${chance.digits(6)}`, `www.${web}`, `post@${web}`],
      0.7,
    ),
    foot: [
      `${name} · ${address.join(' · ')}`,
      language === 'en'
        ? `Registered no. ${chance.digits(8)} · VAT GB ${chance.digits(9)}`
        : `IBAN ${language === 'de' ? 'DE' : 'FR'}${chance.digits(2)} ${chance.digits(4)} ${chance.digits(4)} ${chance.digits(4)}`,
    ],
    dress: {
      face: typed ? 'typed' : book ? 'book' : 'plain',
      bold: typed ? 'typedBold' : book ? 'bookBold' : 'bold',
      size: chance.between(8.8, 11.5) * (book ? 0.9 : 1),
      margin: chance.between(42, 78),
      head: chance.pick(['left', 'left', 'centre', 'right', 'plain']),
      headSize: chance.between(12, 26),
      headAgain: chance.of(0.3),
      footer: chance.pick(['none', 'first', 'all', 'all']),
      numbering: chance.pick(WEIGHTED_NUMBERING),
      numberAt: chance.pick(['foot', 'foot', 'head']),
      numberAlign: chance.pick(['left', 'centre', 'right']),
      numberForm: chance.whole(0, 9),
      refersBack: chance.of(0.45),
      carries: chance.of(0.5),
      overleaf: chance.of(0.12),
      fullest: chance.of(0.25) ? chance.between(0.4, 0.95) : 1,
      conditions: chance.of(0.12),
    },
  };
}

/** Content that is laid out line by line; each piece says how high it is. */
interface Piece {
  height: number;
  draw: (sheet: Sheet) => void;
  /** What is carried over when the page ends before it. */
  carry?: string;
}

/** A paper of a firm, by chance: one of its kinds, as long as it comes out. */
export function makePaper(chance: Chance, firm: Firm, kind: PaperKind): MadePaper {
  const { language } = firm;
  if (kind === 'receipt') return { kind, language, ...receipt(chance, firm) };
  const writer = { invoice, letter, statement, other }[kind];
  const { first, again, pieces } = writer(chance, firm, VOCABULARY[language]);
  const sheets = paginate(firm, first, again, pieces);
  if (kind === 'invoice' && firm.dress.conditions) sheets.push(conditionsPage(chance, firm));
  return { kind, language, size: A4, margin: firm.dress.margin, sheets };
}

function amount(cents: number, { locale, currency }: Vocabulary): string {
  const written = (cents / 100).toLocaleString(locale, { minimumFractionDigits: 2 }).replace(/\s/g, ' ');
  return currency === '£' ? `£${written}` : `${written} €`;
}

function day(chance: Chance, { locale }: Vocabulary, long: boolean): string {
  const date = new Date(Date.UTC(chance.whole(2022, 2026), chance.whole(0, 11), chance.whole(1, 28)));
  return long
    ? date.toLocaleDateString(locale, { day: 'numeric', month: 'long', year: 'numeric', timeZone: 'UTC' })
    : date.toLocaleDateString(locale, { day: '2-digit', month: '2-digit', year: 'numeric', timeZone: 'UTC' });
}

function text(
  { dress }: Firm,
  content: string,
  style: { face?: Face; size?: number; align?: 'left' | 'right' | 'centre' } = {},
): Piece {
  const size = style.size ?? dress.size;
  return { height: size * 1.42, draw: (sheet) => sheet.line(content, { face: dress.face, size, ...style }) };
}

function gap(height: number): Piece {
  return { height, draw: (sheet) => sheet.gap(height) };
}

function rule(): Piece {
  return { height: 8, draw: (sheet) => sheet.rule() };
}

/** A paragraph line by line, so that it may break over the page. */
function paragraph(firm: Firm, content: string): Piece[] {
  const { face, size, margin } = firm.dress;
  const most = A4[0] - 2 * margin;
  // The width of letters is taken from the mean of the fonts: lines come out a little ragged, as they do.
  const wide = size * (face === 'typed' ? 0.6 : face === 'book' ? 0.58 : 0.49);
  const lines: string[] = [];
  let row = '';
  for (const word of content.split(' ')) {
    if ((row.length + word.length + 1) * wide > most && row) {
      lines.push(row);
      row = word;
    } else row = row ? `${row} ${word}` : word;
  }
  lines.push(row);
  return [...lines.map((line) => text(firm, line)), gap(size * 0.7)];
}

function row(firm: Firm, cells: string[], ends: number[], bold = false, carry?: string): Piece {
  const { bold: boldFace, face, size } = firm.dress;
  return {
    height: size * 1.55,
    carry,
    draw: (sheet) =>
      sheet.row(
        cells.map((cell, index) => ({ text: cell, x: ends[index], align: index === 0 ? 'left' : 'right' })),
        { face: bold ? boldFace : face, size },
      ),
  };
}

interface Written {
  /** At the head of the first page. */
  first: Piece[];
  /** At the head of the further ones: what they belong to, and a table's heads again. */
  again: Piece[];
  pieces: Piece[];
}

function letterhead(firm: Firm): Piece[] {
  const { dress, name, lines } = firm;
  if (dress.head === 'plain') return [text(firm, name), ...lines.map((line) => text(firm, line)), gap(18)];
  const align = dress.head;
  return [
    { ...text(firm, name, { face: dress.bold, size: dress.headSize, align }) },
    ...lines.map((line) => text(firm, line, { size: 8.5, align })),
    ...(align === 'left' ? [rule()] : []),
    gap(20),
  ];
}

function addressee(chance: Chance, firm: Firm, words: Vocabulary): Piece[] {
  if (chance.of(0.06)) return [];
  const street = words.streetFirst ? 'Leuchtturmweg 4' : '4 Lighthouse Row';
  return [
    ...(chance.of(0.3) ? [text(firm, `${firm.name}, ${firm.address.join(', ')}`, { size: 6.5 })] : []),
    ...[
      chance.pick(words.owners),
      street,
      firm.language === 'en' ? 'Orrin Harbour OH2 6LW' : '26131 Orrin Harbour',
    ].map((line) => text(firm, line)),
    gap(chance.between(14, 40)),
  ];
}

function invoice(chance: Chance, firm: Firm, words: Vocabulary): Written {
  const { dress } = firm;
  const number = chance.pick([
    chance.digits(5),
    `${chance.whole(2022, 2026)}-${chance.digits(4)}`,
    `R${chance.digits(6)}`,
    `INV/${chance.digits(5)}`,
  ]);
  const right = A4[0] - dress.margin;
  const ends = [dress.margin, right - 180, right - 92, right];
  const title = chance.pick(words.invoice);
  const label = chance.pick(words.invoiceNumber);
  const titled = chance.of(0.3);
  const first = [
    ...letterhead(firm),
    ...addressee(chance, firm, words),
    text(firm, titled ? `${title} ${number}` : title, { face: dress.bold, size: chance.between(12, 18) }),
    gap(4),
    ...(titled
      ? []
      : [row(firm, [label, ''], [dress.margin, 0])].map((piece) => ({
          ...piece,
          draw: (sheet: Sheet) =>
            sheet.row(
              [
                { text: label, x: dress.margin },
                { text: number, x: dress.margin + 120 },
              ],
              { face: dress.face, size: dress.size },
            ),
        }))),
    labelled(firm, words.date, day(chance, words, chance.of(0.4))),
    ...(chance.of(0.7) ? [labelled(firm, words.due, day(chance, words, false))] : []),
    ...(chance.of(0.5) ? [labelled(firm, words.customer, chance.digits(6))] : []),
    gap(16),
  ];
  const heads = [row(firm, words.columns, ends, true), rule()];
  const count = chance.pick([1, 2, 3, 4, 5, 6, 8, 12, 18, 30, 42, 60, 75, 95]);
  let net = 0;
  const lines = Array.from({ length: count }, () => {
    const quantity = chance.whole(1, 12);
    const price = chance.whole(120, 9800);
    net += quantity * price;
    const carry = amount(net, words);
    const what = chance.pick(words.goods);
    return row(
      firm,
      [what, String(quantity), amount(price, words), amount(quantity * price, words)],
      ends,
      false,
      carry,
    );
  });
  const tax = Math.round(net * words.taxRate);
  const sums: [string, number, boolean][] = [
    [words.net, net, false],
    [words.tax, tax, false],
    [chance.pick(words.total), net + tax, true],
  ];
  return {
    first: [...first, ...heads],
    again: [
      ...(dress.refersBack
        ? [text(firm, `${title} ${number}${chance.of(0.5) ? `, ${words.continued}` : ''}`), gap(10)]
        : []),
      ...(chance.of(0.75) ? heads : []),
    ],
    pieces: [
      ...lines,
      rule(),
      ...sums.map(([name, cents, bold]) => ({
        ...row(firm, ['', name, '', amount(cents, words)], ends, bold),
      })),
      gap(chance.between(12, 30)),
      ...chance.some(words.terms, 0.6).flatMap((term) => paragraph(firm, term)),
      ...(chance.of(0.2) ? [text(firm, words.closings[0])] : []),
    ],
  };
}

function labelled(firm: Firm, label: string, value: string): Piece {
  const { dress } = firm;
  return {
    height: dress.size * 1.55,
    draw: (sheet) =>
      sheet.row(
        [
          { text: label, x: dress.margin },
          { text: value, x: dress.margin + 120 },
        ],
        { face: dress.face, size: dress.size },
      ),
  };
}

function prose(chance: Chance, firm: Firm, words: Vocabulary, paragraphs: number): Piece[] {
  return Array.from({ length: paragraphs }, () =>
    paragraph(firm, Array.from({ length: chance.whole(1, 5) }, () => chance.pick(words.sentences)).join(' ')),
  ).flat();
}

function letter(chance: Chance, firm: Firm, words: Vocabulary): Written {
  const { dress } = firm;
  const subject = chance.pick(words.subjects);
  const date = day(chance, words, chance.of(0.6));
  return {
    first: [
      ...letterhead(firm),
      ...addressee(chance, firm, words),
      text(firm, date, { align: chance.pick(['left', 'right']) }),
      gap(12),
      ...(chance.of(0.8) ? [text(firm, subject, { face: dress.bold, size: dress.size * 1.15 }), gap(8)] : []),
    ],
    again: dress.refersBack
      ? [text(firm, chance.of(0.5) ? `${firm.name}, ${date}` : subject, { size: 8.5 }), gap(14)]
      : [],
    pieces: [
      ...paragraph(firm, chance.pick(words.dear)),
      ...prose(chance, firm, words, chance.pick([1, 2, 3, 4, 5, 8, 10, 14, 18])),
      text(firm, chance.pick(words.closings)),
      gap(6),
      text(
        firm,
        `${chance.pick(NAME_PARTS[0])} ${chance.pick(NAME_PARTS[0])}${chance.pick(NAME_PARTS[1])}`,
        chance.of(0.6) ? { face: 'hand', size: 22 } : {},
      ),
      ...(chance.of(0.5) ? [text(firm, firm.name, { size: 9 })] : []),
      ...(chance.of(0.2) ? [gap(12), text(firm, `${words.enclosed}: ${chance.pick(words.subjects)}`)] : []),
    ],
  };
}

function statement(chance: Chance, firm: Firm, words: Vocabulary): Written {
  const { dress } = firm;
  const right = A4[0] - dress.margin;
  const ends = [dress.margin, right - 100, right];
  let balance = chance.whole(10_000, 900_000);
  const account = chance.digits(8);
  const heads = [row(firm, [words.date, words.columns[3], words.closing], ends, true), rule()];
  const opening = row(firm, [words.opening, '', amount(balance, words)], ends);
  const bookings = Array.from({ length: chance.pick([6, 10, 16, 24, 40, 60, 90]) }, () => {
    const change = chance.whole(-20_000, 22_000);
    balance += change;
    const what = `${day(chance, words, false)}  ${chance.pick(words.bookings)} ${chance.of(0.5) ? chance.pick(NAME_PARTS[0]) + chance.pick(NAME_PARTS[1]) : ''}`;
    return row(firm, [what, amount(change, words), amount(balance, words)], ends, false, amount(balance, words));
  });
  return {
    first: [
      ...letterhead(firm),
      ...addressee(chance, firm, words),
      text(firm, words.statement, { face: dress.bold, size: 15 }),
      text(firm, `${account} · ${day(chance, words, false)}`),
      gap(12),
      ...heads,
      opening,
    ],
    again: [...(dress.refersBack ? [text(firm, `${words.statement} ${account}`), gap(8)] : []), ...heads],
    pieces: [...bookings, rule(), row(firm, [words.closing, '', amount(balance, words)], ends, true)],
  };
}

/** Delivery notes, agreements, minutes. */
function other(chance: Chance, firm: Firm, words: Vocabulary): Written {
  const { dress } = firm;
  const form = chance.pick(['delivery', 'contract', 'minutes'] as const);
  if (form === 'delivery') {
    const ends = [dress.margin, A4[0] - dress.margin];
    return {
      first: [
        ...letterhead(firm),
        ...addressee(chance, firm, words),
        text(firm, `${words.delivery} ${chance.digits(6)}`, { face: dress.bold, size: 14 }),
        labelled(firm, words.date, day(chance, words, false)),
        gap(14),
        row(firm, [words.columns[0], words.columns[1]], ends, true),
        rule(),
      ],
      again: [],
      pieces: Array.from({ length: chance.whole(2, 14) }, () =>
        row(firm, [chance.pick(words.goods), String(chance.whole(1, 9))], ends),
      ),
    };
  }
  if (form === 'contract') {
    const clauses = words.clauses.slice(0, chance.whole(4, words.clauses.length));
    return {
      first: [
        text(firm, words.contract, { face: dress.bold, size: 18, align: 'centre' }),
        gap(16),
        text(firm, `${firm.name}, ${firm.address.join(', ')}`),
        text(firm, chance.pick(words.owners)),
        gap(16),
      ],
      again: [],
      pieces: [
        ...clauses.flatMap((clause, index) => [
          text(firm, `${firm.language === 'de' ? '§ ' : ''}${index + 1}. ${clause}`, { face: dress.bold }),
          ...prose(chance, firm, words, chance.whole(1, 3)),
        ]),
        gap(20),
        text(firm, `${firm.address[1]}, ${day(chance, words, true)}`),
        text(firm, '________________        ________________'),
      ],
    };
  }
  return {
    first: [
      text(firm, `${words.minutes}, ${day(chance, words, true)}`, { face: dress.bold, size: 15 }),
      text(firm, firm.name),
      gap(14),
    ],
    again: [],
    pieces: Array.from({ length: chance.whole(3, 9) }, (_, index) => [
      text(firm, `${index + 1} ${chance.pick(words.subjects)}`, { face: dress.bold }),
      ...prose(chance, firm, words, chance.whole(1, 2)),
    ]).flat(),
  };
}

const FOOT = 46;

/** Lays pieces onto as many sheets as they need, with the firm's ways of numbering and going on. */
function paginate(firm: Firm, first: Piece[], again: Piece[], pieces: Piece[]): DrawSheet[] {
  const { dress } = firm;
  const words = VOCABULARY[firm.language];
  const most = (A4[1] - 1.15 * dress.margin - FOOT) * dress.fullest;
  const pages: Piece[][] = [];
  let carried: string | undefined;
  const begin = () => {
    const head =
      pages.length === 0
        ? first
        : [...(dress.headAgain ? [text(firm, firm.name, { size: 9 }), gap(10)] : []), ...again];
    pages.push([...head]);
    if (pages.length > 1 && dress.carries && carried)
      pages[pages.length - 1].push(carryRow(firm, words.brought, carried));
  };
  const heightOf = (page: Piece[]) => page.reduce((sum, piece) => sum + piece.height, dress.margin);
  begin();
  for (const piece of pieces) {
    let page = pages[pages.length - 1];
    if (heightOf(page) + piece.height > most - (dress.carries ? 16 : 0)) {
      if (dress.carries && carried) page.push(carryRow(firm, words.carried, carried));
      else if (dress.overleaf) page.push(text(firm, words.overleaf, { align: 'right', size: 8 }));
      begin();
      page = pages[pages.length - 1];
    }
    page.push(piece);
    carried = piece.carry;
  }
  return pages.map((page, index) => (sheet: Sheet) => {
    sheet.y = dress.margin;
    if (dress.numberAt === 'head') numbered(firm, sheet, index + 1, pages.length, 24);
    sheet.y = dress.margin;
    for (const piece of page) piece.draw(sheet);
    const low = A4[1] - FOOT;
    if (dress.footer === 'all' || (dress.footer === 'first' && index === 0))
      firm.foot.forEach((line, at) => {
        sheet.y = low + 10 * at;
        sheet.put(line, dress.margin, { size: 6.8 });
      });
    if (dress.numberAt === 'foot') numbered(firm, sheet, index + 1, pages.length, low - 14);
  });
}

/** What nobody reads: a page of small print, without anything that says whose it is but for the foot. */
function conditionsPage(chance: Chance, firm: Firm): DrawSheet {
  const words = VOCABULARY[firm.language];
  const small = { ...firm, dress: { ...firm.dress, size: 7 } };
  const pieces = [
    text(small, words.conditions, { face: firm.dress.bold, size: 10 }),
    gap(8),
    ...Array.from({ length: chance.whole(6, 14) }, (_, index) => [
      text(small, `${index + 1}. ${chance.pick(words.clauses)}`, { face: firm.dress.bold }),
      ...prose(chance, small, words, 1),
    ]).flat(),
  ];
  return (sheet) => {
    sheet.y = firm.dress.margin;
    for (const piece of pieces) if (sheet.y < A4[1] - FOOT - 30) piece.draw(sheet);
  };
}

function carryRow(firm: Firm, label: string, value: string): Piece {
  const right = A4[0] - firm.dress.margin;
  return row(firm, [label, value], [firm.dress.margin, right], true);
}

function numbered(firm: Firm, sheet: Sheet, at: number, of: number, y: number): void {
  const { numbering, numberForm, numberAlign } = firm.dress;
  const words = VOCABULARY[firm.language];
  if (numbering === 'none' || (numbering === 'furtherOnly' && at === 1)) return;
  const forms = numbering === 'of' ? words.pageOf : words.pageAlone;
  const written =
    numbering === 'of'
      ? words.pageOf[numberForm % forms.length](at, of)
      : words.pageAlone[numberForm % forms.length](at);
  const x =
    numberAlign === 'left' ? sheet.margin : numberAlign === 'right' ? sheet.width - sheet.margin : sheet.width / 2;
  sheet.y = y;
  sheet.put(written, x, { size: 8, align: numberAlign, face: firm.dress.face });
}

function receipt(chance: Chance, firm: Firm): Pick<MadePaper, 'size' | 'margin' | 'sheets'> {
  const words = VOCABULARY[firm.language];
  const lines = Array.from({ length: chance.whole(1, 14) }, () => ({
    what: chance.pick(words.goods).slice(0, 22),
    cents: chance.whole(80, 6500),
  }));
  const total = lines.reduce((sum, { cents }) => sum + cents, 0);
  const margin = 14;
  const number = chance.digits(chance.whole(4, 7));
  const date = day(chance, words, false);
  const extra = chance.of(0.5);
  const draw: DrawSheet = (sheet) => {
    const right = sheet.width - margin;
    const small = { face: 'typed' as Face, size: 8.5 };
    sheet.y = 16;
    sheet.line(firm.name, { face: 'typedBold', size: 11, align: 'centre' });
    for (const line of firm.lines) sheet.line(line, { ...small, align: 'centre' });
    sheet.gap(6);
    sheet.line(chance.pick(words.receipt), { face: 'typedBold', size: 10, align: 'centre' });
    sheet.row(
      [
        { text: date, x: margin },
        { text: `${chance.whole(8, 19)}:${chance.whole(10, 59)}`, x: right, align: 'right' },
      ],
      small,
    );
    sheet.row([{ text: `No. ${number}`, x: margin }], small);
    sheet.rule();
    for (const { what, cents } of lines)
      sheet.row(
        [
          { text: what, x: margin },
          { text: amount(cents, words), x: right, align: 'right' },
        ],
        small,
      );
    sheet.rule();
    sheet.row(
      [
        { text: chance.pick(words.total), x: margin },
        { text: amount(total, words), x: right, align: 'right' },
      ],
      { face: 'typedBold', size: 10.5 },
    );
    sheet.row(
      [
        { text: words.card, x: margin },
        { text: amount(total, words), x: right, align: 'right' },
      ],
      small,
    );
    if (extra)
      sheet.row(
        [
          { text: words.tax, x: margin },
          { text: amount(Math.round(total / 6), words), x: right, align: 'right' },
        ],
        small,
      );
    sheet.gap(10);
    sheet.line(words.thanks, { ...small, align: 'centre' });
  };
  // Some are copied or stapled onto a sheet of A4.
  if (chance.of(0.12)) return { size: A4, margin, sheets: [draw] };
  return {
    size: [chance.pick([164, 210, 227]), 190 + 14 * (lines.length + firm.lines.length) + (extra ? 14 : 0)],
    margin,
    sheets: [draw],
  };
}
