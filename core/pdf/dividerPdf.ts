import { PDFDocument, PDFFont, PDFPage, rgb, StandardFonts } from '@cantoo/pdf-lib';
import { broken, printable } from './standardText';

/** A square code, row by row; true is dark. */
export type CodeSquares = boolean[][];

const [WIDTH, HEIGHT] = [595.28, 841.89];
const MARGIN = 56;
/** Large enough for a coarse scan: a square of the code is two pixels wide at 75 dpi, whatever is in it. */
const CODE_SIDE = 190;
const BLACK = rgb(0, 0, 0);

/**
 * Sheets that part documents in the feeder, A4, all alike: the code twice, so that a crease or a hole spoils one at most; what it
 * means, for people; and a black bar along the edges, to find them in a pile from the side.
 * @param lines what the sheet says below its title
 * @param small the text in the code, once more as text, so that PDFs that keep text say it exactly
 */
export async function dividerPdf(
  code: CodeSquares,
  { title, lines, small, copies }: { title: string; lines: string[]; small: string; copies: number },
): Promise<Uint8Array> {
  const pdf = await PDFDocument.create();
  pdf.setTitle(title);
  const [plain, bold] = [
    await pdf.embedFont(StandardFonts.Helvetica),
    await pdf.embedFont(StandardFonts.HelveticaBold),
  ];
  const page = pdf.addPage([WIDTH, HEIGHT]);
  for (const x of [0, WIDTH - 14]) page.drawRectangle({ x, y: 0, width: 14, height: HEIGHT, color: BLACK });
  drawCode(page, code, { left: MARGIN, bottom: HEIGHT - MARGIN - CODE_SIDE, side: CODE_SIDE });
  drawCode(page, code, { left: WIDTH - MARGIN - CODE_SIDE, bottom: MARGIN, side: CODE_SIDE });
  let y = HEIGHT - MARGIN - CODE_SIDE - 70;
  const write = (text: string, font: PDFFont, size: number) => {
    for (const line of broken(text, font, size, WIDTH - 2 * MARGIN)) {
      page.drawText(line, { x: MARGIN, y, size, font, color: BLACK });
      y -= size * 1.4;
    }
  };
  write(title, bold, 34);
  y -= 6;
  for (const line of lines) write(line, plain, 15);
  y = Math.min(y - 10, MARGIN + CODE_SIDE - 10);
  page.drawText(printable(small, plain), { x: MARGIN, y: MARGIN / 2, size: 7, font: plain, color: BLACK });
  if (copies > 1) {
    const sheets = await pdf.copyPages(pdf, new Array<number>(copies - 1).fill(0));
    for (const sheet of sheets) pdf.addPage(sheet);
  }
  return pdf.save();
}

/** Draws a square code. @param place its lower left corner and its side, in points */
export function drawCode(
  page: PDFPage,
  code: CodeSquares,
  { left, bottom, side: whole }: { left: number; bottom: number; side: number },
): void {
  const side = whole / code.length;
  code.forEach((row, down) => {
    // Dark squares beside each other are drawn as one: no hairlines between them.
    for (let from = 0; from < row.length; from++) {
      if (!row[from]) continue;
      let to = from;
      while (row[to + 1]) to++;
      const y = bottom + whole - (down + 1) * side;
      page.drawRectangle({ x: left + from * side, y, width: (to - from + 1) * side, height: side, color: BLACK });
      from = to;
    }
  });
}
