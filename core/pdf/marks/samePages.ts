import { PDFArray, PDFDocument, PDFName, PDFPage, PDFRawStream } from '@cantoo/pdf-lib';
import { digestOf, unpacked } from './digest';

/**
 * Whether two PDFs are the same but for what is annotated on their pages: as many pages, of the same sizes, drawn by the same operators with the
 * same pictures and fonts; the same title, attachments, outline and values of fields.
 * @throws whatever the PDF library throws for a PDF that it can't read
 */
export async function areSameButForMarks(one: Uint8Array, other: Uint8Array): Promise<boolean> {
  const [a, b] = await Promise.all([one, other].map((bytes) => PDFDocument.load(bytes, { updateMetadata: false })));
  const [pages, others] = [a.getPages(), b.getPages()];
  return (
    pages.length === others.length &&
    besides(a) === besides(b) &&
    pages.every((page, at) => drawnBy(page) === drawnBy(others[at]))
  );
}

function drawnBy(page: PDFPage): string {
  const contents = page.node.Contents();
  const streams = contents instanceof PDFArray ? contents.asArray().map((_, at) => contents.lookup(at)) : [contents];
  const operators = streams.map((stream) =>
    stream instanceof PDFRawStream ? new TextDecoder('latin1').decode(unpacked(stream)) : '',
  );
  const { width, height } = page.getCropBox();
  return [
    Math.round(width),
    Math.round(height),
    page.getRotation().angle,
    digestOf(page.node.Resources(), page.doc.context),
    operators.join('\n').replace(/\s+/g, ' '),
  ].join();
}

/** What a PDF holds beside its pages that somebody may have changed. */
function besides(pdf: PDFDocument): string {
  const { catalog, context } = pdf;
  const form = catalog.AcroForm();
  return [
    ...[pdf.getTitle(), pdf.getAuthor(), pdf.getSubject(), pdf.getKeywords()].map((text) => text ?? ''),
    ...['Names', 'AF', 'Outlines'].map((name) => digestOf(catalog.get(PDFName.of(name)), context, ['ModDate'])),
    digestOf(form?.get(PDFName.of('Fields')), context, ['AP']),
  ].join('\n');
}
