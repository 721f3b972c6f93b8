import { rgb } from '@cantoo/pdf-lib';
import { Chance } from '../piles/chance';
import { NAME_PARTS, VOCABULARY } from '../piles/words';
import { Canvas, Family, Style, TrueWord } from './canvas';
import { FURTHER, Labels, LABELS, Tongue, variants } from './labels';

/** Rules are written against the one half; the other, in other fonts, words and layouts, only measures. */
export type Half = 'tuned' | 'untuned';

export interface TrueLine {
  description: string;
  quantity: number;
  unitPrice: number;
  amount: number;
}

/** What a paper says; null where it doesn't. Money in units of its currency, dates as ISO 8601. */
export interface TrueFacts {
  kind: 'receipt' | 'invoice' | 'letter' | 'statement';
  vendor: string;
  date: string | null;
  dueDate: string | null;
  number: string | null;
  currency: string | null;
  net: number | null;
  tax: number | null;
  taxRate: number | null;
  total: number | null;
  lines: TrueLine[];
}

export interface ReadingPaper {
  pdf: Uint8Array;
  /** In points. */
  size: [number, number];
  /** ISO 639-2. */
  language: string;
  words: TrueWord[];
  facts: TrueFacts;
}

const FONTS: Record<Half, { paper: Family[]; receipt: Family[] }> = {
  tuned: {
    paper: ['arimo', 'tinos', 'source-sans-3', 'libre-baskerville', 'roboto'],
    receipt: ['courier-prime', 'cousine', 'vt323'],
  },
  untuned: {
    paper: ['open-sans', 'lora', 'eb-garamond', 'cousine', 'arimo'],
    receipt: ['share-tech-mono', 'cousine', 'arimo'],
  },
};

const A4: [number, number] = [595, 842];
const DARK = rgb(0.13, 0.22, 0.35);

interface Firm {
  name: string;
  address: string[];
  contact: string[];
  iban: string;
  vat: string;
}

interface Desk {
  chance: Chance;
  half: Half;
  labels: Labels;
  tongue: Tongue;
  canvas: Canvas;
  firm: Firm;
  size: number;
  margin: number;
  currency: string;
  /** How money is written: by the locale's separators or another's, with or without its sign. */
  money: (cents: number, signed?: boolean) => string;
  date: (date: Date) => string;
}

/** A paper by its number: the same number gives the same paper. */
export async function makeReadingPaper(seed: number, half: Half, tongues: Tongue[]): Promise<ReadingPaper> {
  const chance = new Chance(seed * 7919 + (half === 'tuned' ? 1 : 500_009));
  const kind = chance.pick(['invoice', 'invoice', 'invoice', 'receipt', 'receipt', 'letter', 'statement'] as const);
  const tongue = chance.pick(tongues);
  const labels = LABELS[tongue];
  const family = chance.pick(kind === 'receipt' ? FONTS[half].receipt : FONTS[half].paper);
  const canvas = await Canvas.create(family);
  const currency = chance.pick(labels.currencies);
  const signAt = chance.whole(0, 3);
  const dateForm = chance.whole(0, 5);
  const desk: Desk = {
    chance,
    half,
    labels,
    tongue,
    canvas,
    firm: makeFirm(chance, tongue, labels),
    size: chance.between(8.5, 11) * (family === 'libre-baskerville' || family === 'cousine' ? 0.88 : 1),
    margin: chance.between(40, 70),
    currency,
    money: (cents, signed = true) => written(cents, currency, labels.locale, signed ? signAt : -1),
    date: (date) => dated(date, labels.locale, dateForm),
  };
  const facts = { invoice, receipt, letter, statement }[kind](desk);
  return {
    pdf: await canvas.save(),
    size: [canvas.width, canvas.height],
    language: labels.language,
    words: canvas.words,
    facts,
  };
}

function written(cents: number, currency: string, locale: string, signAt: number): string {
  const sign = { GBP: '£', USD: '$', EUR: '€', CHF: 'CHF' }[currency]!;
  const place = currency === 'CHF' && locale === 'de-DE' ? 'de-CH' : locale;
  const plain = (cents / 100)
    .toLocaleString(place, { minimumFractionDigits: 2, useGrouping: 'always' as never })
    .replace(/[\s\u202f\u00a0]/g, ' ')
    .replace(/[’]/g, "'");
  if (signAt < 0) return plain;
  const before = currency === 'GBP' || currency === 'USD';
  if (signAt === 3) return before ? `${plain} ${currency}` : `${currency} ${plain}`;
  return before ? `${sign}${plain}` : `${plain} ${sign}`;
}

function dated(date: Date, locale: string, form: number): string {
  const [year, month, day] = [date.getUTCFullYear(), date.getUTCMonth() + 1, date.getUTCDate()];
  const two = (value: number) => String(value).padStart(2, '0');
  const separator = { 'en-GB': '/', 'de-DE': '.', 'fr-FR': '/', 'nl-NL': '-' }[locale] ?? '/';
  if (form === 0)
    return date.toLocaleDateString(locale, { day: 'numeric', month: 'long', year: 'numeric', timeZone: 'UTC' });
  if (form === 1)
    return locale === 'en-GB'
      ? date.toLocaleDateString(locale, { day: 'numeric', month: 'short', year: 'numeric', timeZone: 'UTC' })
      : [two(day), two(month), year].join(separator);
  if (form === 2) return `${year}-${two(month)}-${two(day)}`;
  if (form === 3) return [two(day), two(month), two(year % 100)].join(separator);
  return [two(day), two(month), year].join(separator);
}

const iso = (date: Date) => date.toISOString().slice(0, 10);
const DAY = 86_400_000;

function makeFirm(chance: Chance, tongue: Tongue, labels: Labels): Firm {
  const words = tongue === 'en' || tongue === 'de' || tongue === 'fr' ? VOCABULARY[tongue] : FURTHER[tongue];
  const own = chance.pick(NAME_PARTS[0]) + chance.pick(NAME_PARTS[1]);
  const [trade, form] = [chance.pick(words.trades), chance.pick(words.forms)];
  const name = (chance.of(0.5) ? `${own} ${trade} ${form}` : `${trade} ${own} ${form}`).trim();
  const number = chance.whole(1, 180);
  const [street, town] = [chance.pick(words.streets), chance.pick(words.towns)];
  const country = { en: 'GB', de: 'DE', fr: 'FR', es: 'ES', it: 'IT', nl: 'NL', pt: 'PT' }[tongue];
  const web = `${own.toLowerCase()}-${tongue}.example`;
  return {
    name,
    address: [
      tongue === 'en' || tongue === 'fr' ? `${number} ${street}` : `${street} ${number}`,
      tongue === 'en' ? `${town} OH${chance.whole(1, 9)} ${chance.whole(1, 9)}TW` : `${chance.digits(5)} ${town}`,
    ],
    contact: [`Tel. ${chance.digits(5)} ${chance.digits(6)}`, `www.${web}`, `post@${web}`],
    iban: iban(chance, country),
    vat: `${labels.vatNumber} ${country}${chance.digits(9)}`,
  };
}

/** An account number with its check digits (ISO 13616), in groups of four. */
function iban(chance: Chance, country: string): string {
  const account = chance.digits(18);
  const numeric = `${account}${country.charCodeAt(0) - 55}${country.charCodeAt(1) - 55}00`;
  const check = 98n - (BigInt(numeric) % 97n);
  return `${country}${String(check).padStart(2, '0')}${account}`.replace(/(.{4})/g, '$1 ').trim();
}

function goods({ chance, tongue }: Desk): string {
  return chance.pick(
    tongue === 'en' || tongue === 'de' || tongue === 'fr' ? VOCABULARY[tongue].goods : FURTHER[tongue].goods,
  );
}

function head({ chance, canvas, firm, size, margin, half }: Desk): number {
  const form = half === 'tuned' ? chance.whole(0, 3) : chance.whole(2, 5);
  const right = canvas.width - margin;
  const large = chance.between(14, 24);
  const small: Style = { size: Math.max(7, size - 1.5) };
  if (form === 0 || form === 4) {
    // A band of colour with the name in white, or a logo beside it.
    if (form === 0) {
      canvas.box(0, 0, canvas.width, 62, DARK, 0);
      canvas.text(firm.name, margin, 22, { bold: true, size: 18, colour: rgb(1, 1, 1) });
    } else {
      canvas.disc(margin + 18, 48, 18, rgb(0.7, 0.3, 0.2));
      canvas.text(firm.name, margin + 46, 38, { bold: true, size: 17, colour: DARK });
    }
    canvas.text([...firm.address, ...firm.contact.slice(0, 2)].join(' · '), margin, 74, small);
    return 108;
  }
  const align = form === 1 ? 'centre' : form === 2 ? 'right' : 'left';
  const x = align === 'centre' ? canvas.width / 2 : align === 'right' ? right : margin;
  canvas.text(firm.name, x, 34, { bold: true, size: large, align, colour: chance.of(0.3) ? DARK : undefined });
  let y = 34 + large * 1.4;
  for (const line of [...firm.address, ...firm.contact]) {
    canvas.text(line, x, y, { ...small, align });
    y += size * 1.25;
  }
  if (form === 5) canvas.line([margin, y + 2], [right, y + 2], 1.4);
  return y + 16;
}

const OWNER: Record<string, string[]> = {
  street: ['4 Netmakers Yard', 'Orrin Harbour OH2 7LM'],
};

function addressee({ chance, canvas, firm, size, margin }: Desk, y: number): number {
  if (chance.of(0.4)) {
    canvas.text([firm.name, ...firm.address].join(', '), margin, y, { size: 6.5 });
    y += 12;
  }
  for (const line of [chance.pick(['Wickford Loom', 'Mr Imre Castellane', 'Imre Castellane']), ...OWNER.street]) {
    canvas.text(line, margin, y, { size });
    y += size * 1.35;
  }
  return y + chance.between(10, 30);
}

function invoice(desk: Desk): TrueFacts {
  const { chance, canvas, labels, half, size, margin, firm, money } = desk;
  canvas.addPage(A4);
  const right = canvas.width - margin;
  let y = head(desk);
  const top = y;
  y = addressee(desk, y);
  const issued = new Date(Date.UTC(chance.whole(2023, 2026), chance.whole(0, 11), chance.whole(1, 28)));
  const due = chance.of(0.75) ? new Date(issued.getTime() + DAY * chance.pick([7, 14, 21, 30])) : null;
  const number = chance.pick([
    chance.digits(5),
    `${issued.getUTCFullYear()}-${chance.digits(4)}`,
    `R${chance.digits(6)}`,
    `INV-${chance.digits(5)}`,
    `${chance.digits(4)}/${issued.getUTCFullYear() % 100}`,
  ]);
  const label = (name: 'invoice' | 'number' | 'date' | 'due' | 'customer' | 'net' | 'tax' | 'total') =>
    chance.pick(variants(labels[name], half));
  const metas: [string, string][] = [
    [label('number'), number],
    [label('date'), desk.date(issued)],
    ...(chance.of(0.5) ? [[label('customer'), chance.digits(6)] as [string, string]] : []),
    ...(due ? [[label('due'), desk.date(due)] as [string, string]] : []),
  ];
  const title = label('invoice');
  canvas.text(title, margin, y, { bold: true, size: size + chance.between(4, 9) });
  const form = half === 'tuned' ? chance.whole(0, 3) : chance.whole(2, 4);
  y += size * 2.6;
  if (form === 0) {
    // Under the title, in two columns.
    for (const [name, value] of metas) {
      canvas.text(name, margin, y, { size });
      canvas.text(value, margin + 130, y, { size, bold: chance.of(0.3) });
      y += size * 1.5;
    }
  } else if (form === 1 || form === 4) {
    // On the right beside the address, names on the left of the values or ending beside them.
    let at = top + 4;
    for (const [name, value] of metas) {
      if (form === 1) canvas.text(name, right - 170, at, { size });
      else canvas.text(/[:.#]$/.test(name) ? name : `${name}:`, right - 85, at, { size, align: 'right' });
      canvas.text(value, form === 1 ? right : right - 78, at, { size, align: form === 1 ? 'right' : 'left' });
      at += size * 1.5;
    }
    y = Math.max(y, at);
  } else if (form === 2) {
    // A grid of boxes, names above values.
    const wide = (right - margin) / metas.length;
    metas.forEach(([name, value], index) => {
      canvas.box(margin + index * wide, y, wide, size * 3.2);
      canvas.text(name, margin + index * wide + 5, y + 4, { size: Math.max(7, size - 2) });
      canvas.text(value, margin + index * wide + 5, y + 4 + size * 1.3, { size });
    });
    y += size * 4.2;
  } else {
    // In lines of running text.
    for (const pair of [metas.slice(0, 2), metas.slice(2)]) {
      canvas.text(
        pair.map(([name, value]) => `${name}${/:$/.test(name) ? '' : ':'} ${value}`).join('    '),
        margin,
        y,
        { size },
      );
      y += size * 1.6;
    }
  }
  y += chance.between(8, 22);
  const rate = chance.pick(labels.rates);
  const count = chance.pick([1, 2, 3, 4, 5, 7, 10, 14]);
  const lines: TrueLine[] = [];
  const columns = [margin + 4, right - 178, right - 90, right - 4];
  const grid = chance.pick(['none', 'rules', 'full', 'shaded'] as const);
  const rowHeight = size * (grid === 'none' ? 1.55 : 1.9);
  if (grid === 'shaded') canvas.box(margin, y, right - margin, rowHeight, rgb(0.86, 0.88, 0.9), 0);
  labels.columns.forEach((name, at) =>
    canvas.text(name, columns[at], y + size * 0.35, { bold: true, size, align: at ? 'right' : 'left' }),
  );
  const tableTop = y;
  y += rowHeight;
  canvas.line([margin, y], [right, y], 0.8);
  const position = chance.of(0.3);
  for (let at = 0; at < count; at++) {
    const quantity = chance.of(0.15) ? chance.whole(3, 40) / 4 : chance.whole(1, 24);
    const price = chance.whole(120, 24_000);
    const amount = Math.round(quantity * price);
    const description = goods(desk);
    lines.push({ description, quantity, unitPrice: price / 100, amount: amount / 100 });
    if (grid === 'shaded' && at % 2 === 1) canvas.box(margin, y, right - margin, rowHeight, rgb(0.94, 0.95, 0.96), 0);
    const base = y + size * 0.35;
    canvas.text(position ? `${at + 1}  ${description}` : description, columns[0], base, { size });
    canvas.text(quantity.toLocaleString(labels.locale), columns[1], base, { size, align: 'right' });
    canvas.text(money(price, false), columns[2], base, { size, align: 'right' });
    canvas.text(money(amount, false), columns[3], base, { size, align: 'right' });
    y += rowHeight;
    if (grid === 'rules' || grid === 'full') canvas.line([margin, y], [right, y], 0.4);
  }
  if (grid === 'full') {
    for (const x of [margin, right - 215, right - 150, right - 78, right]) canvas.line([x, tableTop], [x, y], 0.5);
    canvas.line([margin, tableTop], [right, tableTop], 0.5);
  }
  const net = Math.round(lines.reduce((sum, each) => sum + each.amount, 0) * 100);
  const tax = Math.round((net * rate) / 100);
  const rateWritten = rate.toLocaleString(labels.locale);
  const sums: [string, number, boolean][] = [
    [label('net'), net, false],
    [label('tax').replace('{r}', rateWritten), tax, false],
    [label('total'), net + tax, true],
  ];
  y += 10;
  const boxed = chance.of(0.25);
  if (boxed) canvas.box(right - 220, y - 3, 220, size * 1.7 * 3 + 8);
  for (const [name, cents, bold] of sums) {
    canvas.text(name, right - 212, y, { size, bold });
    canvas.text(money(cents), right - 6, y, { size, bold, align: 'right' });
    y += size * 1.7;
  }
  y += 16;
  const terms =
    desk.tongue === 'en' || desk.tongue === 'de' || desk.tongue === 'fr'
      ? VOCABULARY[desk.tongue].terms
      : FURTHER[desk.tongue].sentences;
  for (const term of chance.some(terms, 0.5)) y = paragraph(desk, term, y);
  if (chance.of(0.15))
    canvas.stamp(
      chance.pick(['PAID', 'BEZAHLT', 'RECEIVED']),
      margin + 60,
      Math.min(y + 60, 740),
      chance.between(-14, 14),
      rgb(0.7, 0.15, 0.15),
    );
  const foot = [`${firm.name} · ${firm.address.join(' · ')}`, `IBAN ${firm.iban}`, firm.vat];
  if (chance.of(0.5)) foot.forEach((line, at) => canvas.text(line, margin, 800 + at * 9, { size: 7 }));
  else {
    const third = (right - margin) / 3;
    [
      [firm.name, ...firm.address],
      ['IBAN', firm.iban.slice(0, 14), firm.iban.slice(15)],
      firm.vat.split(/ (?=\S+$)/),
    ].forEach((column, at) =>
      column.forEach((line, row) => canvas.text(line, margin + third * at, 796 + row * 9, { size: 7 })),
    );
  }
  return {
    kind: 'invoice',
    vendor: firm.name,
    date: iso(issued),
    dueDate: due && iso(due),
    number,
    currency: desk.currency,
    net: net / 100,
    tax: tax / 100,
    taxRate: rate,
    total: (net + tax) / 100,
    lines,
  };
}

/** Text broken into lines that fit between two edges. @returns where it ends */
function paragraph(
  { canvas, size, margin }: Desk,
  text: string,
  y: number,
  left = margin,
  right = canvas.width - margin,
): number {
  let row = '';
  const put = () => {
    canvas.text(row, left, y, { size });
    y += size * 1.4;
  };
  for (const word of text.split(' ')) {
    const longer = row ? `${row} ${word}` : word;
    if (canvas.widthOf(longer, { size }) > right - left && row) {
      put();
      row = word;
    } else row = longer;
  }
  put();
  return y + size * 0.6;
}

function receipt(desk: Desk): TrueFacts {
  const { chance, canvas, labels, half, firm, money } = desk;
  const wide = chance.pick([164, 210, 227]);
  const count = chance.whole(1, 12);
  canvas.addPage([wide, 230 + count * 24]);
  const size = chance.between(7.6, 9.4) * (canvas.family === 'vt323' ? 1.45 : 1) * (wide === 164 ? 0.82 : 1);
  const margin = 12;
  const right = wide - margin;
  const step = size * 1.32;
  let y = 14;
  const say = (left: string, end = '', style: Style = {}) => {
    if (left) canvas.text(left, margin, y, { size, ...style });
    if (end) canvas.text(end, right, y, { size, ...style, align: 'right' });
    y += step * ((style.size ?? size) / size);
  };
  const middle = (text: string, style: Style = {}) => {
    const fits = Math.min(
      style.size ?? size,
      ((style.size ?? size) * (wide - 16)) / canvas.widthOf(text, { size, ...style }),
    );
    canvas.text(text, wide / 2, y, {
      size,
      ...style,
      ...(fits < (style.size ?? size) ? { size: fits } : {}),
      align: 'centre',
    });
    y += step * ((style.size ?? size) / size);
  };
  const rule = () => {
    if (half === 'untuned' || chance.of(0.6)) canvas.line([margin, y + 2], [right, y + 2], 0.7);
    else {
      const dashes = '-'.repeat(Math.floor((right - margin) / canvas.widthOf('-', { size })));
      canvas.text(dashes, margin, y - 3, { size, optional: true });
    }
    y += 7;
  };
  middle(firm.name, { bold: true, size: size * 1.25 });
  firm.address.forEach((line) => middle(line));
  if (chance.of(0.6)) middle(firm.contact[0]);
  if (chance.of(0.5)) middle(firm.vat);
  y += 5;
  if (chance.of(0.7)) middle(chance.pick(variants(labels.receipt, half)), { bold: true });
  const issued = new Date(Date.UTC(chance.whole(2023, 2026), chance.whole(0, 11), chance.whole(1, 28)));
  const time = `${chance.whole(8, 19)}:${chance.whole(10, 59)}`;
  const number = chance.of(0.7) ? chance.digits(chance.whole(4, 7)) : null;
  const numbered = number && `${chance.pick(['No.', 'Nr.', 'Bon', '#'])} ${number}`.replace('# ', '#');
  if (half === 'tuned') {
    say(desk.date(issued), time);
    if (numbered) say(numbered);
  } else {
    if (numbered) say(numbered, time);
    say(`${chance.pick(variants(labels.date, half))}: ${desk.date(issued)}`);
  }
  rule();
  const lines: TrueLine[] = [];
  const most = Math.floor((right - margin) / canvas.widthOf('n', { size })) - 9;
  for (let at = 0; at < count; at++) {
    const quantity = chance.of(0.3) ? chance.whole(2, 6) : 1;
    const price = chance.whole(85, 4200);
    const description = goods(desk).slice(0, Math.min(22, most)).trim();
    const amount = quantity * price;
    lines.push({ description, quantity, unitPrice: price / 100, amount: amount / 100 });
    if (quantity > 1 && half === 'tuned') {
      say(description);
      say(`  ${quantity} x ${money(price, false)}`, money(amount, false));
    } else if (quantity > 1) {
      say(`${quantity} x ${description}`.slice(0, most), money(amount, false));
    } else say(description, money(amount, false));
  }
  rule();
  const total = Math.round(lines.reduce((sum, each) => sum + each.amount, 0) * 100);
  const rate = chance.pick(labels.rates);
  const tax = Math.round((total * rate) / (100 + rate));
  say(chance.pick(variants(labels.total, half)).slice(0, 16), money(total), {
    bold: true,
    size: size * chance.pick([1, 1.15, 1.3]),
  });
  const paid = chance.of(0.4) ? Math.ceil(total / 1000) * 1000 : total;
  say(chance.pick(variants(paid > total ? labels.cash : labels.card, half)), money(paid));
  if (paid > total) say(labels.change, money(paid - total));
  const taxed = chance.of(0.7);
  const rateWritten = rate.toLocaleString(labels.locale);
  if (taxed) {
    y += 4;
    say(chance.pick(variants(labels.tax, half)).replace('{r}', rateWritten), money(tax));
    if (chance.of(0.5)) say(chance.pick(variants(labels.net, half)), money(total - tax));
  }
  const netSaid =
    taxed &&
    canvas.words.some(({ text }) => text.replace(/[^\d.,'’]/g, '') === money(total - tax).replace(/[^\d.,'’]/g, ''));
  y += 8;
  middle(chance.pick(variants(labels.thanks, half)));
  return {
    kind: 'receipt',
    vendor: firm.name,
    date: iso(issued),
    dueDate: null,
    number,
    currency: desk.currency,
    net: netSaid ? (total - tax) / 100 : null,
    tax: taxed ? tax / 100 : null,
    taxRate: taxed ? rate : null,
    total: total / 100,
    lines,
  };
}

const NOTHING = {
  dueDate: null,
  number: null,
  currency: null,
  net: null,
  tax: null,
  taxRate: null,
  total: null,
  lines: [],
};

function letter(desk: Desk): TrueFacts {
  const { chance, canvas, labels, half, firm, size, margin, tongue } = desk;
  canvas.addPage(A4);
  const words = tongue === 'en' || tongue === 'de' || tongue === 'fr' ? VOCABULARY[tongue] : FURTHER[tongue];
  let y = addressee(desk, head(desk));
  const date = new Date(Date.UTC(chance.whole(2023, 2026), chance.whole(0, 11), chance.whole(1, 28)));
  const onTheRight = chance.of(0.5);
  canvas.text(desk.date(date), onTheRight ? canvas.width - margin : margin, y, {
    size,
    align: onTheRight ? 'right' : 'left',
  });
  y += size * 2.6;
  if (chance.of(0.8)) {
    canvas.text(chance.pick(words.subjects), margin, y, { bold: true, size: size * 1.1 });
    y += size * 2.4;
  }
  y = paragraph(desk, chance.pick(variants(labels.dear, half)), y);
  const body = Array.from({ length: chance.whole(2, 5) }, () =>
    Array.from({ length: chance.whole(1, 4) }, () => chance.pick(words.sentences)).join(' '),
  );
  if (half === 'untuned' && chance.of(0.2)) {
    // In two columns.
    const middle = canvas.width / 2;
    const split = Math.ceil(body.length / 2);
    let [left, right] = [y, y];
    for (const each of body.slice(0, split)) left = paragraph(desk, each, left, margin, middle - 12);
    for (const each of body.slice(split)) right = paragraph(desk, each, right, middle + 12);
    y = Math.max(left, right);
  } else for (const each of body) y = paragraph(desk, each, y);
  y = paragraph(desk, chance.pick(variants(labels.closing, half)), y + 6);
  y += 30;
  canvas.text(`${chance.pick(NAME_PARTS[0])} ${chance.pick(NAME_PARTS[0])}${chance.pick(NAME_PARTS[1])}`, margin, y, {
    size,
  });
  if (chance.of(0.5)) canvas.text(`IBAN ${firm.iban} · ${firm.vat}`, margin, 810, { size: 7 });
  return { kind: 'letter', vendor: firm.name, date: iso(date), ...NOTHING };
}

function statement(desk: Desk): TrueFacts {
  const { chance, canvas, labels, half, firm, size, margin, money } = desk;
  canvas.addPage(A4);
  const right = canvas.width - margin;
  let y = addressee(desk, head(desk));
  canvas.text(chance.pick(variants(labels.statement, half)), margin, y, { bold: true, size: size * 1.5 });
  y += size * 2.6;
  const date = new Date(Date.UTC(chance.whole(2023, 2026), chance.whole(1, 11), chance.whole(1, 28)));
  canvas.text(`${chance.pick(variants(labels.date, half))}: ${desk.date(date)}`, margin, y, { size });
  y += size * 2;
  canvas.line([margin, y], [right, y], 0.8);
  let balance = chance.whole(20_000, 900_000);
  canvas.text(labels.balance[0], margin, y + 5, { size });
  canvas.text(money(balance, false), right, y + 5, { size, align: 'right' });
  y += size * 1.9;
  const count = chance.whole(5, 16);
  for (let at = 0; at < count; at++) {
    const change = chance.whole(-30_000, 32_000);
    balance += change;
    const booked = new Date(date.getTime() - DAY * (count - at + 1));
    canvas.text(desk.date(booked), margin, y, { size });
    canvas.text(`${chance.pick(NAME_PARTS[0])}${chance.pick(NAME_PARTS[1])}`, margin + 110, y, { size });
    canvas.text(money(change, false), right - 90, y, { size, align: 'right' });
    canvas.text(money(balance, false), right, y, { size, align: 'right' });
    y += size * 1.6;
  }
  canvas.line([margin, y], [right, y], 0.8);
  canvas.text(labels.balance[1], margin, y + 5, { size, bold: true });
  canvas.text(money(balance), right, y + 5, { size, bold: true, align: 'right' });
  canvas.text(`IBAN ${firm.iban}`, margin, 805, { size: 7.5 });
  return { kind: 'statement', vendor: firm.name, date: iso(date), ...NOTHING };
}
