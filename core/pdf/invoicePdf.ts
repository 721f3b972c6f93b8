import { AFRelationship, PDFDocument, PDFFont, PDFPage, rgb, StandardFonts } from '@cantoo/pdf-lib';
import { InvoiceData } from '../reading/facts/invoiceData';
import { admitLines } from '../reading/facts/gate';
import { isIban } from '../reading/facts/signs';
import { broken, printable } from './standardText';

const [WIDTH, HEIGHT] = [595.28, 841.89];
const MARGIN = 56;
const LINE = 1.45;
const BLACK = rgb(0, 0, 0);
const GREY = rgb(0.4, 0.4, 0.4);
/** Where columns of the table of lines end, from the left edge: quantity, price of one, amount. */
const ENDS = [WIDTH - MARGIN - 165, WIDTH - MARGIN - 85, WIDTH - MARGIN];
const MOST_PAGES = 200;

/**
 * An electronic invoice drawn as a paper, A4, with the file that it was drawn from attached as its source (ISO 32000-2, associated
 * files), as EN 16931 asks of a visualisation. Letters that the standard fonts lack lose their accents; the file has them.
 */
export async function invoicePdf(data: InvoiceData, source: { name: string; bytes: Uint8Array }): Promise<Uint8Array> {
  const pdf = await PDFDocument.create();
  const [plain, bold] = [
    await pdf.embedFont(StandardFonts.Helvetica),
    await pdf.embedFont(StandardFonts.HelveticaBold),
  ];
  const title = data.kind === 'credit note' ? 'Credit note' : 'Invoice';
  pdf.setTitle([title, data.number, data.vendor].filter(Boolean).join(' '));
  await pdf.attach(source.bytes, source.name, { mimeType: 'application/xml', afRelationship: AFRelationship.Source });
  let page: PDFPage = pdf.addPage([WIDTH, HEIGHT]);
  let y = HEIGHT - MARGIN;
  /** Goes down by so many points, on a new page where there is no room. */
  const down = (by: number) => {
    y -= by;
    if (y > MARGIN || pdf.getPageCount() >= MOST_PAGES) return;
    page = pdf.addPage([WIDTH, HEIGHT]);
    y = HEIGHT - MARGIN - by;
  };
  const put = (text: string, { x = MARGIN, font = plain, size = 10, right = false, color = BLACK }: Look = {}) => {
    const shown = printable(text, font);
    page.drawText(shown, { x: right ? x - font.widthOfTextAtSize(shown, size) : x, y, size, font, color });
  };
  const paragraph = (text: string, look: Look = {}, width = WIDTH - 2 * MARGIN) => {
    for (const line of broken(text, look.font ?? plain, look.size ?? 10, width)) {
      down((look.size ?? 10) * LINE);
      put(line, look);
    }
  };
  const [seller = data.vendor ?? '', ...address] = data.parties?.seller ?? [];
  paragraph(seller, { font: bold, size: 15 });
  for (const line of address) paragraph(line, { color: GREY });
  down(14);
  for (const line of data.parties?.buyer ?? []) paragraph(line);
  down(14);
  paragraph(title, { font: bold, size: 18 });
  const said = (name: string, value: string | null | undefined) => {
    if (!value) return;
    down(10 * LINE);
    put(`${name}:`, { color: GREY });
    for (const [at, line] of broken(value, plain, 10, WIDTH - 2 * MARGIN - 130).entries()) {
      if (at > 0) down(10 * LINE);
      put(line, { x: MARGIN + 130 });
    }
  };
  said(`${title} number`, data.number);
  said('Date', data.date);
  said('Due date', data.dueDate);
  said('For invoice', data.reference);
  said('Order number', data.order);
  said('Contract number', data.policy);
  said('Period', data.period?.replace('/', ' to '));
  down(12);
  if (data.lines.length > 0) {
    down(10 * LINE);
    put('Description', { color: GREY });
    ['Quantity', 'Unit price', 'Amount'].forEach((head, at) => put(head, { x: ENDS[at], right: true, color: GREY }));
    // A file may list anything; what is drawn is what a bill can list.
    for (const { description, quantity, unitPrice, amount } of admitLines(data.lines)) {
      const rows = broken(description || '–', plain, 10, ENDS[0] - MARGIN - 60);
      rows.forEach((row, at) => {
        down(10 * LINE);
        put(row);
        if (at > 0) return;
        if (quantity !== null) put(String(quantity), { x: ENDS[0], right: true });
        if (unitPrice !== null) put(money(unitPrice), { x: ENDS[1], right: true });
        put(money(amount), { x: ENDS[2], right: true });
      });
    }
    down(6);
  }
  const sum = (name: string, value: number | null | undefined, font = plain) => {
    if (value === null || value === undefined) return;
    down(10 * LINE);
    put(name, { x: ENDS[0] - 60, font });
    put(`${data.currency ?? ''} ${money(value)}`.trim(), { x: ENDS[2], right: true, font });
  };
  sum('Net', data.net);
  const rates = (data.taxes ?? []).filter(({ rate }) => rate > 0);
  if (rates.length > 1) for (const { rate, tax } of rates) sum(`Tax at ${rate} %`, tax);
  sum(data.taxRate !== null && rates.length < 2 ? `Tax at ${data.taxRate} %` : 'Tax', data.tax);
  sum('Total', data.total, bold);
  sum('To pay', data.amountDue, bold);
  down(12);
  if (data.iban) said(isIban(data.iban) ? 'IBAN' : 'Bank account', data.iban);
  for (const note of data.notes ?? []) paragraph(note);
  down(10);
  paragraph(`Drawn from the data of “${source.name}”, which is attached.`, { size: 8, color: GREY });
  return pdf.save();
}

interface Look {
  x?: number;
  font?: PDFFont;
  size?: number;
  right?: boolean;
  color?: typeof BLACK;
}

const money = (value: number) => value.toFixed(2);
