import * as fontkit from 'fontkit';
import { PDFArray, PDFDocument, PDFFont, PDFHexString, PDFName, PDFPage, PDFRef, PDFString } from '@cantoo/pdf-lib';
import { Box } from '../../geometry';
import { printable } from '../standardText';
import { Colour, INK_LOOKS, Mark, MarkAbout, onWords } from './mark';
import { viewOf } from './pageView';
import { extentOf, Measure, Shape, shapesOf, TEXT_SIZE } from './shapes';

export type PageMark = Mark & MarkAbout;

/** The letters that marks are written in: TrueType fonts. */
export interface MarkFonts {
  plain: Uint8Array;
  bold: Uint8Array;
}

interface Letters {
  plain: PDFFont;
  bold: PDFFont;
  measure: Measure;
}

/**
 * Puts marks on the pages of a PDF as annotations with appearances (ISO 32000-1, 12.5), by an incremental update (7.5.6): the bytes
 * of the PDF stay as they are, and what is new follows them.
 * @param marks of each page, in their order
 * @throws whatever the PDF library throws for a PDF that it can't read
 */
export async function markPdf(
  bytes: Uint8Array,
  marks: readonly (readonly PageMark[])[],
  fonts: MarkFonts,
): Promise<Uint8Array> {
  const pdf = await PDFDocument.load(bytes, { forIncrementalUpdate: true, updateMetadata: false });
  const letters = await embedLetters(pdf, marks, fonts);
  pdf.getPages().forEach((page, at) => {
    for (const mark of marks[at] ?? []) annotate(pdf, page, mark, letters);
  });
  return pdf.save();
}

/** The same marks as part of the pages, which nobody can take up or move any more. */
export async function flattenMarks(
  bytes: Uint8Array,
  marks: readonly (readonly PageMark[])[],
  fonts: MarkFonts,
): Promise<Uint8Array> {
  const pdf = await PDFDocument.load(bytes, { updateMetadata: false });
  const letters = await embedLetters(pdf, marks, fonts);
  pdf.getPages().forEach((page, at) => {
    const own = marks[at] ?? [];
    if (own.length === 0) return;
    const { context } = pdf;
    page.node.normalize();
    page.node.wrapContentStreams(context.register(context.stream('q')), context.register(context.stream('Q')));
    const placed = own.map((mark, index) => {
      const { form, extent } = formOf(pdf, mark, letters);
      const name = PDFName.of(`CrowMark${index}`);
      page.node.setXObject(name, form);
      const [, , , height] = extent;
      const view = viewOf(page);
      return `q ${view.back.join(' ')} cm 1 0 0 1 ${extent[0]} ${view.height - extent[1] - height} cm ${name.asString()} Do Q`;
    });
    page.node.addContentStream(context.register(context.flateStream(placed.join('\n'))));
  });
  return pdf.save();
}

async function embedLetters(
  pdf: PDFDocument,
  marks: readonly (readonly PageMark[])[],
  fonts: MarkFonts,
): Promise<Letters> {
  const writes = marks.flat().filter(({ kind }) => !onWords(kind) && kind !== 'drawing' && kind !== 'comment');
  if (writes.length === 0) return { plain: null!, bold: null!, measure: () => 0 };
  pdf.registerFontkit(fontkit as never);
  const plain = await pdf.embedFont(fonts.plain, { subset: true });
  const bold = await pdf.embedFont(fonts.bold, { subset: true });
  const measure: Measure = (text, size, isBold) => {
    const font = isBold ? bold : plain;
    return font.widthOfTextAtSize(printable(text, font), size);
  };
  return { plain, bold, measure };
}

/** What a mark looks like, as a form whose origin is the lower left corner of its extent. @returns the form, and its extent on the page as shown */
function formOf(pdf: PDFDocument, mark: PageMark, letters: Letters, matrix?: number[]): { form: PDFRef; extent: Box } {
  const { context } = pdf;
  const shapes = shapesOf(mark, letters.measure);
  const extent = extentOf(shapes, letters.measure);
  const [left, top, width, height] = extent;
  const drawing = shapes
    .map((shape) => drawShape(shape, (x, y) => `${number(x - left)} ${number(height - (y - top))}`, letters))
    .join('\n');
  const fonts = shapes.some(({ is }) => is === 'words')
    ? { Font: { Plain: letters.plain.ref, Bold: letters.bold.ref } }
    : {};
  const form = context.register(
    context.flateStream(drawing, {
      Type: 'XObject',
      Subtype: 'Form',
      BBox: [0, 0, width, height],
      ...(matrix && { Matrix: matrix }),
      // A wash darkens what it lies on instead of covering it.
      Resources: { ExtGState: { Wash: { BM: 'Multiply' } }, ...fonts },
      Group: { S: 'Transparency' },
    }),
  );
  return { form, extent };
}

const number = (value: number) => String(Math.round(value * 1000) / 1000);
const colour = (rgb: Colour) => rgb.map(number).join(' ');

function drawShape(shape: Shape, at: (x: number, y: number) => string, { plain, bold }: Letters): string {
  switch (shape.is) {
    case 'wash':
    case 'fill': {
      const [x, y, width, height] = shape.box;
      const state = shape.is === 'wash' ? '/Wash gs ' : '';
      return `q ${state}${colour(shape.colour)} rg ${at(x, y + height)} ${number(width)} ${number(height)} re f Q`;
    }
    case 'frame': {
      const [x, y, width, height] = shape.box;
      const pen = `${colour(shape.colour)} RG ${number(shape.width)} w [${shape.dash.join(' ')}] 0 d`;
      return `q ${pen} ${at(x, y + height)} ${number(width)} ${number(height)} re S Q`;
    }
    case 'line': {
      const pen = `1 J 1 j ${colour(shape.colour)} RG ${number(shape.width)} w [${shape.dash.join(' ')}] 0 d`;
      const path = shape.places.map(([x, y], index) => `${at(x, y)} ${index === 0 ? 'm' : 'l'}`).join(' ');
      return `q ${pen} ${path} S Q`;
    }
    case 'words': {
      const font = shape.bold ? bold : plain;
      const text = font.encodeText(printable(shape.words, font)).toString();
      const name = shape.bold ? '/Bold' : '/Plain';
      return `q ${colour(shape.colour)} rg BT ${name} ${number(shape.size)} Tf ${at(...shape.at)} Td ${text} Tj ET Q`;
    }
  }
}

const SUBTYPES = {
  highlight: 'Highlight',
  underline: 'Underline',
  strike: 'StrikeOut',
  drawing: 'Ink',
  text: 'FreeText',
  comment: 'Text',
  stamp: 'Stamp',
  signature: 'Stamp',
} as const;
/** What a viewer is to do with an annotation: print it. */
const PRINT = 4;

/** Makes objects that nothing holds yet; for each change to one the library would look through the whole file for what holds it. */
function apart<Made>({ context }: PDFDocument, make: () => Made): Made {
  const { snapshot } = context;
  context.snapshot = undefined;
  try {
    return make();
  } finally {
    context.snapshot = snapshot;
  }
}

function annotate(pdf: PDFDocument, page: PDFPage, mark: PageMark, letters: Letters): void {
  const { context } = pdf;
  const { back, toPage } = viewOf(page);
  // Turned as the page is, so that it stands upright when the page is shown.
  const upright = mark.kind === 'comment' ? undefined : [...back.slice(0, 4), 0, 0];
  const { form, extent } = formOf(pdf, mark, letters, upright);
  const rect = rectOf(extent, toPage, { turns: mark.kind !== 'comment' });
  const look = INK_LOOKS[mark.ink];
  const annotation = apart(pdf, () => {
    const made = context.obj({
      Type: 'Annot',
      Subtype: SUBTYPES[mark.kind],
      Rect: rect,
      NM: PDFString.of(mark.id),
      T: PDFHexString.fromText(mark.by),
      Contents: PDFHexString.fromText(mark.text),
      CreationDate: PDFString.fromDate(new Date(mark.at)),
      M: PDFString.fromDate(new Date(mark.at)),
      C: [...(mark.kind === 'highlight' ? look.wash : look.line)],
      F: PRINT,
      AP: { N: form },
      P: page.ref,
    });
    if (onWords(mark.kind)) made.set(PDFName.of('QuadPoints'), context.obj(quadsOf(mark.boxes, toPage)));
    if (mark.kind === 'drawing') {
      const lines = mark.strokes.map((stroke) => stroke.flatMap(([x, y]) => toPage(x, y)));
      made.set(PDFName.of('InkList'), context.obj(lines));
      made.set(PDFName.of('BS'), context.obj({ W: mark.strokes[0]?.[0]?.[2] ?? 1 }));
    }
    if (mark.kind === 'text') made.set(PDFName.of('DA'), PDFString.of(`/Helv ${TEXT_SIZE} Tf ${colour(look.line)} rg`));
    if (mark.kind === 'comment') made.set(PDFName.of('Name'), PDFName.of('Comment'));
    if (mark.kind === 'signature') made.set(PDFName.of('Subj'), PDFHexString.fromText('Signature'));
    made.set(KIND, PDFName.of(`${mark.kind} ${mark.ink}`));
    return made;
  });
  const ref = context.register(annotation);
  const annotations = annotationsOf(page);
  annotations.push(ref);
  for (const { by, at, text } of mark.replies)
    annotations.push(
      context.register(
        context.obj({
          Type: 'Annot',
          Subtype: 'Text',
          Rect: rect,
          T: PDFHexString.fromText(by),
          Contents: PDFHexString.fromText(text),
          CreationDate: PDFString.fromDate(new Date(at)),
          M: PDFString.fromDate(new Date(at)),
          IRT: ref,
          RT: 'R',
          // Shown with what it answers, not by a sign of its own.
          F: PRINT | HIDDEN,
          NM: PDFString.of(`${mark.id} ${at}`),
        }),
      ),
    );
}

/**
 * Where an annotation lies on the page as written. One that does not turn with its page, as comments never do (ISO 32000-1, 12.5.6.4),
 * stands upright below and to the right of its upper left corner.
 */
function rectOf(
  [x, y, width, height]: Box,
  toPage: (x: number, y: number) => [number, number],
  { turns }: { turns: boolean },
): number[] {
  const [left, top] = toPage(x, y);
  if (!turns) return [left, top - height, left + width, top];
  const [right, bottom] = toPage(x + width, y + height);
  return [Math.min(left, right), Math.min(top, bottom), Math.max(left, right), Math.max(top, bottom)];
}

const HIDDEN = 2;
/** What kind of mark of ours an annotation is, and in which ink. */
export const KIND = PDFName.of('CrowMark');

/** The corners of boxes: upper left, upper right, lower left, lower right, as every viewer has them, whatever the standard says. */
function quadsOf(boxes: readonly Box[], toPage: (x: number, y: number) => [number, number]): number[] {
  return boxes.flatMap(([x, y, width, height]) => [
    ...toPage(x, y),
    ...toPage(x + width, y),
    ...toPage(x, y + height),
    ...toPage(x + width, y + height),
  ]);
}

/** The annotations of a page, made where there are none; a copy of their list where several pages may have it. */
function annotationsOf(page: PDFPage): PDFArray {
  const { node } = page;
  const { context } = node;
  const own = context.lookupMaybe(node.get(PDFName.of('Annots')), PDFArray);
  const list = context.obj(own ? own.asArray() : []);
  node.set(PDFName.of('Annots'), list);
  return list;
}
