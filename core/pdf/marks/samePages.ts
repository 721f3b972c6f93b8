import { decodePDFRawStream, PDFArray, PDFDocument, PDFPage, PDFRawStream } from '@cantoo/pdf-lib';

/**
 * Whether two PDFs have the same pages, whatever is annotated on them: as many, of the same sizes, drawn by the same operators.
 * @throws whatever the PDF library throws for a PDF that it can't read
 */
export async function haveSamePages(one: Uint8Array, other: Uint8Array): Promise<boolean> {
  const [a, b] = await Promise.all([one, other].map((bytes) => PDFDocument.load(bytes, { updateMetadata: false })));
  const [pages, others] = [a.getPages(), b.getPages()];
  return pages.length === others.length && pages.every((page, at) => drawnBy(page) === drawnBy(others[at]));
}

function drawnBy(page: PDFPage): string {
  const contents = page.node.Contents();
  const streams = contents instanceof PDFArray ? contents.asArray().map((_, at) => contents.lookup(at)) : [contents];
  const operators = streams.map((stream) =>
    stream instanceof PDFRawStream ? new TextDecoder('latin1').decode(decodePDFRawStream(stream).decode()) : '',
  );
  const { width, height } = page.getCropBox();
  return [
    Math.round(width),
    Math.round(height),
    page.getRotation().angle,
    operators.join('\n').replace(/\s+/g, ' '),
  ].join();
}
