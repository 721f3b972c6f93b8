import { PDFDocument, rgb, StandardFonts } from '@cantoo/pdf-lib';
import { CodeSquares, drawCode } from './dividerPdf';
import { broken } from './standardText';

const [WIDTH, HEIGHT] = [595.28, 841.89];
const [ACROSS, DOWN] = [2, 3];
const MARGIN = 28;
const CODE_SIDE = 150;
const SIZE = 20;
const BLACK = rgb(0, 0, 0);
const RULE = rgb(0.7, 0.7, 0.7);

/** Labels for boxes and binders, A4, six to a sheet to be cut along thin lines: the code, and the name for people. */
export async function labelsPdf(labels: readonly { name: string; code: CodeSquares }[]): Promise<Uint8Array> {
  const pdf = await PDFDocument.create();
  pdf.setTitle('Labels');
  const bold = await pdf.embedFont(StandardFonts.HelveticaBold);
  const [width, height] = [(WIDTH - 2 * MARGIN) / ACROSS, (HEIGHT - 2 * MARGIN) / DOWN];
  for (let first = 0; first < labels.length; first += ACROSS * DOWN) {
    const page = pdf.addPage([WIDTH, HEIGHT]);
    labels.slice(first, first + ACROSS * DOWN).forEach(({ name, code }, at) => {
      const x = MARGIN + (at % ACROSS) * width;
      const y = HEIGHT - MARGIN - (Math.floor(at / ACROSS) + 1) * height;
      page.drawRectangle({ x, y, width, height, borderColor: RULE, borderWidth: 0.5 });
      drawCode(page, code, { left: x + (width - CODE_SIDE) / 2, bottom: y + height - CODE_SIDE - 20, side: CODE_SIDE });
      broken(name, bold, SIZE, width - 32)
        .slice(0, 3)
        .forEach((line, row) => {
          const left = x + (width - bold.widthOfTextAtSize(line, SIZE)) / 2;
          page.drawText(line, {
            x: left,
            y: y + height - CODE_SIDE - 48 - row * SIZE * 1.2,
            size: SIZE,
            font: bold,
            color: BLACK,
          });
        });
    });
  }
  return pdf.save();
}
