import { PDFDocument, PDFPage, rgb, StandardFonts } from '@cantoo/pdf-lib';
import { MailData } from '../reading/facts/mailData';
import { broken, printable } from './standardText';

const [WIDTH, HEIGHT] = [595.28, 841.89];
const MARGIN = 56;
const SIZE = 10;
const LINE = 1.45;
const GREY = rgb(0.4, 0.4, 0.4);
const MOST_PAGES = 100;

/**
 * A mail drawn as a paper, A4. Letters that the standard fonts lack lose their accents.
 * @param text what it says, in lines
 */
export async function mailPdf({ from, to, subject, sent }: MailData, text: string): Promise<Uint8Array> {
  const pdf = await PDFDocument.create();
  const [plain, bold] = [
    await pdf.embedFont(StandardFonts.Helvetica),
    await pdf.embedFont(StandardFonts.HelveticaBold),
  ];
  pdf.setTitle(subject || from);
  let page: PDFPage = pdf.addPage([WIDTH, HEIGHT]);
  let y = HEIGHT - MARGIN;
  let isFull = false;
  const down = (by: number) => {
    y -= by;
    if (y > MARGIN) return;
    isFull = pdf.getPageCount() >= MOST_PAGES;
    if (isFull) return;
    page = pdf.addPage([WIDTH, HEIGHT]);
    y = HEIGHT - MARGIN - by;
  };
  const paragraph = (words: string, font = plain, size = SIZE) => {
    for (const line of broken(words, font, size, WIDTH - 2 * MARGIN)) {
      down(size * LINE);
      if (isFull) return;
      page.drawText(line, { x: MARGIN, y, size, font });
    }
  };
  paragraph(from, bold, 13);
  down(6);
  for (const [name, value] of [
    ['To', to],
    ['Date', sent?.slice(0, 10) ?? ''],
    ['Subject', subject],
  ]) {
    if (!value) continue;
    broken(value, plain, SIZE, WIDTH - 2 * MARGIN - 60).forEach((line, at) => {
      down(SIZE * LINE);
      if (isFull) return;
      if (at === 0) page.drawText(printable(`${name}:`, plain), { x: MARGIN, y, size: SIZE, font: plain, color: GREY });
      page.drawText(line, { x: MARGIN + 60, y, size: SIZE, font: plain });
    });
  }
  down(10);
  for (const line of text.split(/\r?\n/)) {
    if (isFull) break;
    if (line.trim()) paragraph(line);
    else down(SIZE * LINE * 0.6);
  }
  return pdf.save();
}
