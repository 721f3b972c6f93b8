import { PDFDocument, PDFPage, rgb, RGB } from '@cantoo/pdf-lib';
import { embedFonts, Face, Fonts } from './fonts';

interface TextStyle {
  face?: Face;
  size?: number;
  colour?: RGB;
  align?: 'left' | 'right' | 'centre';
}

const INK = rgb(0.1, 0.1, 0.13);
const MARGIN = 62;

/** A sheet of paper being written on from the top downwards; points, origin at the upper left. */
export class Sheet {
  y = MARGIN;

  constructor(
    readonly page: PDFPage,
    private readonly fonts: Fonts,
    readonly margin = MARGIN,
  ) {}

  get width(): number {
    return this.page.getWidth();
  }

  /** Writes at a place without moving on. */
  put(text: string, x: number, { face = 'plain', size = 10.5, colour = INK, align = 'left' }: TextStyle = {}): void {
    const font = this.fonts[face];
    const length = font.widthOfTextAtSize(text, size);
    const left = align === 'right' ? x - length : align === 'centre' ? x - length / 2 : x;
    this.page.drawText(text, { x: left, y: this.page.getHeight() - this.y - size, size, font, color: colour });
  }

  /** Writes a line and moves below it. */
  line(text: string, style: TextStyle = {}): void {
    const { size = 10.5, align = 'left' } = style;
    const x = align === 'right' ? this.width - this.margin : align === 'centre' ? this.width / 2 : this.margin;
    this.put(text, x, style);
    this.y += size * 1.42;
  }

  /** Writes a paragraph, broken into lines that fit. */
  paragraph(text: string, style: TextStyle = {}): void {
    const { face = 'plain', size = 10.5 } = style;
    const most = this.width - 2 * this.margin;
    let row = '';
    for (const word of text.split(' ')) {
      const longer = row ? `${row} ${word}` : word;
      if (this.fonts[face].widthOfTextAtSize(longer, size) > most) {
        this.line(row, style);
        row = word;
      } else row = longer;
    }
    this.line(row, style);
    this.gap(size * 0.7);
  }

  rule(thickness = 0.7): void {
    const y = this.page.getHeight() - this.y - 2;
    this.page.drawLine({
      start: { x: this.margin, y },
      end: { x: this.width - this.margin, y },
      thickness,
      color: INK,
    });
    this.y += 8;
  }

  gap(height: number): void {
    this.y += height;
  }

  /** Writes cells in columns that end (numbers) or begin (text) at the given places. */
  row(cells: { text: string; x: number; align?: 'left' | 'right' }[], style: TextStyle = {}): void {
    for (const { text, x, align } of cells) this.put(text, x, { ...style, align });
    this.y += (style.size ?? 10.5) * 1.55;
  }
}

export type DrawSheet = (sheet: Sheet) => void;

export const A4: [number, number] = [595.28, 841.89];

/** Draws sheets into a PDF, a page each. */
export async function drawPdf(
  sheets: DrawSheet[],
  { size = A4, margin }: { size?: [number, number]; margin?: number } = {},
): Promise<Uint8Array> {
  const pdf = await PDFDocument.create({ updateMetadata: false });
  const fonts = await embedFonts(pdf);
  for (const draw of sheets) draw(new Sheet(pdf.addPage(size), fonts, margin));
  return pdf.save();
}
