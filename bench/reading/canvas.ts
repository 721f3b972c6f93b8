import { readFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import { join } from 'node:path';
import * as fontkit from 'fontkit';
import { PDFDocument, PDFFont, PDFPage, rgb, RGB } from '@cantoo/pdf-lib';
import { unpackWoff } from '@crow/core/pdf/woff';

export type Family =
  | 'arimo'
  | 'tinos'
  | 'cousine'
  | 'roboto'
  | 'lora'
  | 'open-sans'
  | 'eb-garamond'
  | 'source-sans-3'
  | 'libre-baskerville'
  | 'courier-prime'
  | 'vt323'
  | 'share-tech-mono';

const ONE_WEIGHT: Family[] = ['vt323', 'share-tech-mono'];

/** A word as it was printed. */
export interface TrueWord {
  text: string;
  page: number;
  /** In points, from the upper left. */
  box: [x: number, y: number, width: number, height: number];
  /** Stamps and signatures may be read or not. */
  optional: boolean;
}

export interface Style {
  bold?: boolean;
  size?: number;
  align?: 'left' | 'right' | 'centre';
  colour?: RGB;
  optional?: boolean;
  family?: Family;
}

/** A PDF being written on, which keeps what was written where. Points, from the upper left. */
export class Canvas {
  readonly words: TrueWord[] = [];
  private page!: PDFPage;
  private pages = 0;
  private readonly fonts = new Map<string, PDFFont>();

  private constructor(
    readonly pdf: PDFDocument,
    readonly family: Family,
  ) {}

  static async create(family: Family, others: Family[] = []): Promise<Canvas> {
    const pdf = await PDFDocument.create({ updateMetadata: false });
    pdf.registerFontkit(fontkit as never);
    const canvas = new Canvas(pdf, family);
    for (const each of [family, ...others]) await canvas.embed(each);
    return canvas;
  }

  private async embed(family: Family): Promise<void> {
    const require = createRequire(join(process.cwd(), 'package.json'));
    const folder = join(require.resolve(`@fontsource/${family}/package.json`), '..', 'files');
    for (const weight of [400, 700]) {
      const actual = ONE_WEIGHT.includes(family) ? 400 : weight;
      const woff = readFileSync(join(folder, `${family}-latin-${actual}-normal.woff`));
      const font = await this.pdf.embedFont(unpackWoff(woff), { subset: true, customName: `${family}-${weight}` });
      this.fonts.set(`${family}-${weight}`, font);
    }
  }

  addPage(size: [number, number]): void {
    this.page = this.pdf.addPage(size);
    this.pages++;
  }

  get width(): number {
    return this.page.getWidth();
  }

  get height(): number {
    return this.page.getHeight();
  }

  widthOf(text: string, { bold, size = 10, family = this.family }: Style = {}): number {
    return this.font(family, bold).widthOfTextAtSize(text, size);
  }

  private font(family: Family, bold = false): PDFFont {
    return this.fonts.get(`${family}-${bold ? 700 : 400}`)!;
  }

  /** Writes a text; `y` is the upper edge of its line. */
  text(text: string, x: number, y: number, style: Style = {}): void {
    const { size = 10, align = 'left', colour = rgb(0.08, 0.08, 0.1), bold, family = this.family, optional } = style;
    const font = this.font(family, bold);
    const length = font.widthOfTextAtSize(text, size);
    const left = align === 'right' ? x - length : align === 'centre' ? x - length / 2 : x;
    this.page.drawText(text, { x: left, y: this.height - y - size * 0.86, size, font, color: colour });
    const space = font.widthOfTextAtSize(' ', size);
    let at = left;
    for (const word of text.split(' ')) {
      const wide = font.widthOfTextAtSize(word, size);
      if (word)
        this.words.push({ text: word, page: this.pages, box: [at, y, wide, size], optional: optional ?? false });
      at += wide + space;
    }
  }

  line(from: [number, number], to: [number, number], thickness = 0.6, colour = rgb(0.15, 0.15, 0.15)): void {
    this.page.drawLine({
      start: { x: from[0], y: this.height - from[1] },
      end: { x: to[0], y: this.height - to[1] },
      thickness,
      color: colour,
    });
  }

  box(x: number, y: number, width: number, height: number, fill?: RGB, border = 0.6): void {
    this.page.drawRectangle({
      x,
      y: this.height - y - height,
      width,
      height,
      color: fill,
      borderWidth: border,
      borderColor: border > 0 ? rgb(0.2, 0.2, 0.2) : undefined,
    });
  }

  disc(x: number, y: number, radius: number, fill: RGB): void {
    this.page.drawCircle({ x, y: this.height - y, size: radius, color: fill });
  }

  /** A stamp, turned; its words may be read or not. */
  stamp(text: string, x: number, y: number, degrees: number, colour: RGB): void {
    const size = 15;
    const font = this.font(this.family, true);
    const length = font.widthOfTextAtSize(text, size);
    const radians = (degrees * Math.PI) / 180;
    this.page.drawText(text, {
      x,
      y: this.height - y,
      size,
      font,
      color: colour,
      rotate: { type: 'degrees', angle: degrees } as never,
      opacity: 0.8,
    });
    const [dx, dy] = [length * Math.cos(radians), length * Math.sin(radians)];
    this.line([x - 4, y + 5], [x + dx, y + 5 - dy], 1.2, colour);
    this.line([x - 9, y - 15], [x + dx - 5, y - 15 - dy], 1.2, colour);
    for (const word of text.split(' '))
      this.words.push({ text: word, page: this.pages, box: [x, y - size, length, size], optional: true });
  }

  save(): Promise<Uint8Array> {
    return this.pdf.save();
  }
}
