import { PDFDocument, PDFFont, StandardFonts } from '@cantoo/pdf-lib';
import { DocumentMetadata, PRODUCER } from './metadata';

/** A page for a small screen, in points, and how its text is set. */
const PAGE: [width: number, height: number] = [298, 420];
const MARGIN = 18;
const SIZE = 12;
const LEADING = 16;
const BETWEEN = 6;

/** A picture between paragraphs. */
export interface SetPicture {
  jpeg: Uint8Array;
  /** How wide it is on the paper, in points. */
  width: number;
}

/**
 * A PDF of text set anew for reading on a small screen (A6), with the pictures that stand in it.
 * @param pages the paragraphs and pictures of each page of the paper, in reading order; each begins on a page of its own
 */
export async function textOnlyPdf(
  pages: readonly (readonly (string | SetPicture)[])[],
  { title, created, language }: Omit<DocumentMetadata, 'fileId'>,
): Promise<Uint8Array> {
  const pdf = await PDFDocument.create({ updateMetadata: false });
  const font = await pdf.embedFont(StandardFonts.Helvetica);
  const width = PAGE[0] - 2 * MARGIN;
  for (const paragraphs of pages) {
    let page = pdf.addPage(PAGE);
    let y = PAGE[1] - MARGIN;
    for (const paragraph of paragraphs) {
      if (typeof paragraph !== 'string') {
        const image = await pdf.embedJpg(paragraph.jpeg);
        const scale = Math.min(
          1,
          width / paragraph.width,
          (PAGE[1] - 2 * MARGIN) / (image.height * (paragraph.width / image.width)),
        );
        const [wide, high] = [paragraph.width * scale, image.height * (paragraph.width / image.width) * scale];
        if (y - high < MARGIN) {
          page = pdf.addPage(PAGE);
          y = PAGE[1] - MARGIN;
        }
        y -= high;
        page.drawImage(image, { x: MARGIN, y, width: wide, height: high });
        y -= BETWEEN;
        continue;
      }
      for (const line of wrapped(writable(paragraph, font), font, width)) {
        if (y - LEADING < MARGIN) {
          page = pdf.addPage(PAGE);
          y = PAGE[1] - MARGIN;
        }
        y -= LEADING;
        page.drawText(line, { x: MARGIN, y, size: SIZE, font });
      }
      y -= BETWEEN;
    }
  }
  pdf.setTitle(title, { showInWindowTitleBar: true });
  pdf.setCreationDate(created);
  pdf.setModificationDate(created);
  pdf.setProducer(PRODUCER);
  pdf.setCreator(PRODUCER);
  if (language) pdf.setLanguage(language);
  return pdf.save();
}

/** What the font has no letter for is written without its accents, or else left out. */
function writable(text: string, font: PDFFont): string {
  const has = new Set(font.getCharacterSet());
  return [...text]
    .map((letter) => {
      if (has.has(letter.codePointAt(0)!)) return letter;
      return [...letter.normalize('NFKD')].filter((part) => has.has(part.codePointAt(0)!)).join('');
    })
    .join('');
}

function wrapped(text: string, font: PDFFont, width: number): string[] {
  const fits = (line: string) => font.widthOfTextAtSize(line, SIZE) <= width;
  const lines: string[] = [];
  let line = '';
  for (const word of text.split(' ').filter(Boolean)) {
    const longer = line ? `${line} ${word}` : word;
    if (fits(longer)) {
      line = longer;
      continue;
    }
    if (line) lines.push(line);
    line = word;
    // A word wider than the page is cut.
    while (!fits(line)) {
      let end = line.length - 1;
      while (end > 1 && !fits(line.slice(0, end))) end--;
      lines.push(line.slice(0, end));
      line = line.slice(end);
    }
  }
  if (line) lines.push(line);
  return lines;
}
