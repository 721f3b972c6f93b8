import { money, Currency } from './money';
import { DrawSheet, drawPdf } from './sheet';

/** Who the demo's papers are addressed to. */
export const STUDIO = ['Wickford Loom', 'Imre Castellane', '4 Netmakers Yard', 'Orrin Harbour OH2 7LM'];
export const HOME = ['Mr I. Castellane', '19 Beacon Terrace', 'Orrin Harbour OH1 3TW'];

/** Who a paper is from, as its letterhead says. */
export interface Sender {
  name: string;
  lines: string[];
  face: 'bold' | 'bookBold' | 'typedBold';
}

function letterhead(sheet: Parameters<DrawSheet>[0], { name, lines, face }: Sender): void {
  sheet.line(name, { face, size: 20 });
  for (const line of lines) sheet.line(line, { size: 9 });
  sheet.rule(1.2);
  sheet.gap(20);
}

function addressed(sheet: Parameters<DrawSheet>[0], to: string[]): void {
  for (const line of to) sheet.line(line);
  sheet.gap(22);
}

interface InvoiceWords {
  title: string;
  number: string;
  date: string;
  due: string;
  columns: [string, string, string, string];
  net: string;
  tax: string;
  total: string;
  thanks: string;
}

const WORDS: Record<'en' | 'de' | 'fr', InvoiceWords> = {
  en: {
    title: 'Invoice',
    number: 'Invoice no.',
    date: 'Date',
    due: 'Due date',
    columns: ['Description', 'Quantity', 'Price', 'Amount'],
    net: 'Net',
    tax: 'VAT 20 %',
    total: 'Total',
    thanks: 'Please pay within 30 days. Thank you for your order.',
  },
  de: {
    title: 'Rechnung',
    number: 'Rechnungsnummer',
    date: 'Datum',
    due: 'Zahlbar bis',
    columns: ['Bezeichnung', 'Menge', 'Preis', 'Betrag'],
    net: 'Summe netto',
    tax: 'MwSt. 19 %',
    total: 'Gesamtbetrag',
    thanks: 'Bitte überweisen Sie den Betrag bis zum genannten Tag. Mit freundlichen Grüßen',
  },
  fr: {
    title: 'Facture',
    number: 'Facture n°',
    date: 'Date',
    due: 'Échéance',
    columns: ['Désignation', 'Quantité', 'Prix', 'Montant'],
    net: 'Total HT',
    tax: 'TVA 20 %',
    total: 'Total TTC',
    thanks: 'Nous vous remercions de votre commande. Règlement à réception.',
  },
};
const TAX_RATE = { en: 0.2, de: 0.19, fr: 0.2 };

function writtenDate(iso: string, language: 'en' | 'de' | 'fr', plusDays = 0): string {
  const date = new Date(`${iso}T12:00:00Z`);
  date.setUTCDate(date.getUTCDate() + plusDays);
  const locale = { en: 'en-GB', de: 'de-DE', fr: 'fr-FR' }[language];
  const form =
    language === 'en'
      ? ({ day: 'numeric', month: 'long', year: 'numeric' } as const)
      : ({ day: '2-digit', month: '2-digit', year: 'numeric' } as const);
  return new Intl.DateTimeFormat(locale, { ...form, timeZone: 'UTC' }).format(date);
}

/** Lines are [what, quantity, price in cents]. */
export type Line = [string, number, number];

export function invoice(
  sender: Sender,
  number: string,
  date: string,
  lines: Line[],
  { language = 'en' as 'en' | 'de' | 'fr', to = STUDIO } = {},
): () => Promise<Uint8Array> {
  const words = WORDS[language];
  const currency: Currency = language === 'en' ? '£' : '€';
  const first: DrawSheet = (sheet) => {
    letterhead(sheet, sender);
    addressed(sheet, to);
    sheet.line(words.title, { face: 'bold', size: 17 });
    sheet.gap(4);
    const facts = [
      [words.number, number],
      [words.date, writtenDate(date, language)],
      [words.due, writtenDate(date, language, 30)],
    ];
    for (const [label, value] of facts)
      sheet.row([
        { text: label, x: sheet.margin },
        { text: value, x: sheet.margin + 120 },
      ]);
    sheet.gap(18);
    const columns = [sheet.margin, 360, 440, sheet.width - sheet.margin];
    sheet.row(
      words.columns.map((text, index) => ({ text, x: columns[index], align: index === 0 ? 'left' : 'right' })),
      { face: 'bold' },
    );
    sheet.rule();
    let net = 0;
    for (const [what, quantity, price] of lines) {
      net += quantity * price;
      const cells = [what, String(quantity), money(price, currency), money(quantity * price, currency)];
      sheet.row(cells.map((text, index) => ({ text, x: columns[index], align: index === 0 ? 'left' : 'right' })));
    }
    sheet.rule();
    const tax = Math.round(net * TAX_RATE[language]);
    const sums: [string, number][] = [
      [words.net, net],
      [words.tax, tax],
      [words.total, net + tax],
    ];
    sums.forEach(([label, cents], index) =>
      sheet.row(
        [
          { text: label, x: 360, align: 'right' },
          { text: money(cents, currency), x: columns[3], align: 'right' },
        ],
        { face: index === 2 ? 'bold' : 'plain' },
      ),
    );
    sheet.gap(28);
    sheet.paragraph(words.thanks);
  };
  return () => drawPdf([first]);
}

export function letter(
  sender: Sender,
  date: string,
  subject: string,
  paragraphs: string[],
  { language = 'en' as 'en' | 'de' | 'fr', to = HOME, signed = 'J. Orde', second = [] as string[] } = {},
): () => Promise<Uint8Array> {
  const greeting = { en: 'Dear Mr Castellane,', de: 'Sehr geehrter Herr Castellane,', fr: 'Monsieur,' }[language];
  const closing = { en: 'Yours sincerely,', de: 'Mit freundlichen Grüßen', fr: 'Cordialement,' }[language];
  const end: DrawSheet = (sheet) => {
    sheet.line(closing);
    sheet.gap(6);
    sheet.line(signed, { face: 'hand', size: 24 });
    sheet.line(sender.name, { size: 9 });
  };
  const sheets: DrawSheet[] = [
    (sheet) => {
      letterhead(sheet, sender);
      addressed(sheet, to);
      sheet.line(writtenDate(date, language), { align: 'right' });
      sheet.gap(14);
      sheet.line(subject, { face: 'bold', size: 12 });
      sheet.gap(8);
      sheet.paragraph(greeting);
      for (const paragraph of paragraphs) sheet.paragraph(paragraph);
      if (second.length === 0) end(sheet);
      else sheet.line('Page 1 of 2', { align: 'centre', size: 8.5 });
    },
  ];
  if (second.length > 0) {
    sheets.push((sheet) => {
      sheet.line(`${sender.name} · Page 2 of 2`, { size: 8.5 });
      sheet.gap(20);
      for (const paragraph of second) sheet.paragraph(paragraph);
      end(sheet);
    });
  }
  return () => drawPdf(sheets);
}

/** What is taken back of a bill. */
export function creditNote(
  sender: Sender,
  number: string,
  date: string,
  bill: string,
  lines: Line[],
): () => Promise<Uint8Array> {
  return () =>
    drawPdf([
      (sheet) => {
        letterhead(sheet, sender);
        addressed(sheet, STUDIO);
        sheet.line(`Credit note ${number}`, { face: 'bold', size: 17 });
        sheet.gap(4);
        sheet.line(`Date ${writtenDate(date, 'en')}`);
        sheet.line(`For our invoice ${bill}`);
        sheet.gap(18);
        const right = sheet.width - sheet.margin;
        const put = (text: string, cents: number, face: 'bold' | 'plain' = 'plain') =>
          sheet.row(
            [
              { text, x: sheet.margin },
              { text: `-${money(cents)}`, x: right, align: 'right' },
            ],
            { face },
          );
        const net = lines.reduce((sum, [, quantity, price]) => sum + quantity * price, 0);
        for (const [what, quantity, price] of lines) put(`${quantity} x ${what}, returned`, quantity * price);
        sheet.rule();
        put('Net', net);
        put('VAT 20 %', Math.round(net * TAX_RATE.en));
        put('Total credited', net + Math.round(net * TAX_RATE.en), 'bold');
      },
    ]);
}

/** An account's month: [day, what, cents, out of the account where negative]. */
export function statement(
  sender: Sender,
  number: number,
  [from, to]: [string, string],
  opening: number,
  bookings: [string, string, number][],
): () => Promise<Uint8Array> {
  return () =>
    drawPdf([
      (sheet) => {
        letterhead(sheet, sender);
        addressed(sheet, STUDIO);
        sheet.line('Statement of account', { face: 'bold', size: 15 });
        sheet.line(`Statement number ${number}`);
        sheet.line(`${writtenDate(from, 'en')} to ${writtenDate(to, 'en')}`);
        sheet.gap(14);
        const [out, paidIn, right] = [380, 455, sheet.width - sheet.margin];
        const put = (day: string, what: string, cents: number | undefined, balance: number) =>
          sheet.row([
            { text: day, x: sheet.margin },
            { text: what, x: sheet.margin + 80 },
            ...(cents === undefined
              ? []
              : [{ text: money(Math.abs(cents)).slice(1), x: cents < 0 ? out : paidIn, align: 'right' as const }]),
            { text: money(balance).slice(1), x: right, align: 'right' as const },
          ]);
        sheet.row(
          [
            { text: 'Date', x: sheet.margin },
            { text: 'Details', x: sheet.margin + 80 },
            { text: 'Paid out', x: out, align: 'right' },
            { text: 'Paid in', x: paidIn, align: 'right' },
            { text: 'Balance', x: right, align: 'right' },
          ],
          { face: 'bold' },
        );
        sheet.rule();
        let balance = opening;
        put(writtenDate(from, 'de'), 'Opening balance', undefined, balance);
        for (const [day, what, cents] of bookings) put(writtenDate(day, 'de'), what, cents, (balance += cents));
        put(writtenDate(to, 'de'), 'Closing balance', undefined, balance);
      },
    ]);
}

const RECEIPT: [number, number] = [210, 460];

export function receipt(
  sender: Sender,
  number: string,
  date: string,
  time: string,
  lines: Line[],
): () => Promise<Uint8Array> {
  const draw: DrawSheet = (sheet) => {
    const right = sheet.width - sheet.margin;
    sheet.line(sender.name, { face: 'typedBold', size: 12, align: 'centre' });
    for (const line of sender.lines) sheet.line(line, { face: 'typed', size: 8.5, align: 'centre' });
    sheet.gap(8);
    sheet.line('RECEIPT', { face: 'typedBold', size: 10, align: 'centre' });
    sheet.row(
      [
        { text: writtenDate(date, 'de').replaceAll('.', '/'), x: sheet.margin },
        { text: time, x: right, align: 'right' },
      ],
      { face: 'typed', size: 9 },
    );
    sheet.row([{ text: `No. ${number}`, x: sheet.margin }], { face: 'typed', size: 9 });
    sheet.rule();
    let total = 0;
    for (const [what, quantity, price] of lines) {
      total += quantity * price;
      sheet.row(
        [
          { text: `${quantity} x ${what}`, x: sheet.margin },
          { text: money(quantity * price), x: right, align: 'right' },
        ],
        { face: 'typed', size: 9 },
      );
    }
    sheet.rule();
    sheet.row(
      [
        { text: 'TOTAL', x: sheet.margin },
        { text: money(total), x: right, align: 'right' },
      ],
      { face: 'typedBold', size: 11 },
    );
    sheet.row(
      [
        { text: 'Card', x: sheet.margin },
        { text: money(total), x: right, align: 'right' },
      ],
      { face: 'typed', size: 9 },
    );
    const tax = Math.round(total / 6);
    sheet.row(
      [
        { text: 'of it VAT 20 %', x: sheet.margin },
        { text: money(tax), x: right, align: 'right' },
      ],
      { face: 'typed', size: 9 },
    );
    sheet.gap(14);
    sheet.line('Thank you', { face: 'typed', size: 9, align: 'centre' });
  };
  return () => drawPdf([draw], { size: RECEIPT, margin: 16 });
}
