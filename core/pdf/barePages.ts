import { PDFDocument, PDFName } from '@cantoo/pdf-lib';

/** What a page's dictionary holds beside what is drawn on it; some of it leads to other pages, or to what was there before. */
const BESIDES = ['Annots', 'AA', 'B', 'Metadata', 'PieceInfo', 'Thumb', 'StructParents', 'Tabs', 'VP', 'AF', 'DPart'];

/**
 * The pages of a PDF with nothing but what is drawn on them: no annotations, links, actions, thumbnails or private data.
 * @throws whatever the PDF library throws for a PDF that it can't read
 */
export async function barePages(bytes: Uint8Array): Promise<Uint8Array> {
  const pdf = await PDFDocument.load(bytes, { updateMetadata: false });
  for (const { node } of pdf.getPages()) for (const name of BESIDES) node.delete(PDFName.of(name));
  return pdf.save();
}
