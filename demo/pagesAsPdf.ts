import { PDFDocument } from '@cantoo/pdf-lib';
import { SCAN_DPI } from './capture';

/** Scanned pages (JPEG) as the PDF that a scanner's own program makes of them: pictures only, no text. */
export async function pagesAsPdf(pages: Uint8Array[]): Promise<Uint8Array> {
  const pdf = await PDFDocument.create({ updateMetadata: false });
  for (const bytes of pages) {
    const picture = await pdf.embedJpg(bytes);
    const size: [number, number] = [(picture.width * 72) / SCAN_DPI, (picture.height * 72) / SCAN_DPI];
    pdf.addPage(size).drawImage(picture, { x: 0, y: 0, width: size[0], height: size[1] });
  }
  return pdf.save();
}
