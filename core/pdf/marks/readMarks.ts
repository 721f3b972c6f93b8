import { PDFArray, PDFDict, PDFDocument, PDFHexString, PDFName, PDFNumber, PDFPage, PDFString } from '@cantoo/pdf-lib';
import { Box } from '../../geometry';
import { Ink, INK_LOOKS, INKS, MARK_KINDS, MarkKind, onWords, Stroke } from './mark';
import { digestOf } from './digest';
import { KIND, PageMark } from './markPdf';
import { PageView, viewOf } from './pageView';
import { COMMENT_SIDE } from './shapes';

const KINDS: Record<string, MarkKind> = {
  Highlight: 'highlight',
  Underline: 'underline',
  Squiggly: 'underline',
  StrikeOut: 'strike',
  Ink: 'drawing',
  FreeText: 'text',
  Text: 'comment',
};
const SUBTYPE = PDFName.of('Subtype');
/** Of a drawing that doesn't say, in points. */
const USUAL_WIDTH = 1.5;

/** What is annotated on a page. */
export interface Annotated {
  /** Of a mark that another program made, `id` is ''. */
  marks: PageMark[];
  /** What there is no mark like here (links, fields, shapes, stamps of other programs), each by a text that tells it. */
  others: string[];
}

/**
 * The marks on the pages of a PDF, those of other programs included, as far as there are marks like them here.
 * @throws whatever the PDF library throws for a PDF that it can't read
 */
export async function readMarks(bytes: Uint8Array): Promise<PageMark[][]> {
  return (await readAnnotated(bytes)).map(({ marks }) => marks);
}

/**
 * All that is annotated on the pages of a PDF.
 * @throws whatever the PDF library throws for a PDF that it can't read
 */
export async function readAnnotated(bytes: Uint8Array): Promise<Annotated[]> {
  const pdf = await PDFDocument.load(bytes, { updateMetadata: false });
  return pdf.getPages().map(annotatedOn);
}

function annotatedOn(page: PDFPage): Annotated {
  const view = viewOf(page);
  const list = page.node.Annots();
  const others: string[] = [];
  const found: { mark: PageMark; dict: PDFDict }[] = [];
  const answers: { to: PDFDict; by: string; at: string; text: string }[] = [];
  for (let at = 0; at < (list?.size() ?? 0); at++) {
    const dict = list!.lookup(at);
    if (!(dict instanceof PDFDict)) continue;
    const to = dict.lookup(PDFName.of('IRT'));
    if (to instanceof PDFDict)
      answers.push({ to, by: textOf(dict, 'T'), at: dayOf(dict), text: textOf(dict, 'Contents') });
    else {
      const mark = markOf(dict, view);
      if (mark) found.push({ mark, dict });
      // A popup is the window of another annotation.
      else if (dict.lookup(SUBTYPE) !== PDFName.of('Popup')) others.push(digestOf(dict, page.doc.context, ['AP']));
    }
  }
  for (const { to, ...reply } of answers) found.find(({ dict }) => dict === to)?.mark.replies.push(reply);
  return { marks: found.map(({ mark }) => mark), others };
}

function markOf(dict: PDFDict, view: PageView): PageMark | undefined {
  const subtype = dict.lookup(SUBTYPE);
  const own = (dict.lookup(KIND) as PDFName | undefined)?.decodeText?.().split(' ') ?? [];
  const kind =
    MARK_KINDS.find((each) => each === own[0]) ?? KINDS[subtype instanceof PDFName ? subtype.decodeText() : ''];
  const rect = numbersOf(dict, 'Rect');
  if (!kind || rect.length !== 4) return undefined;
  const ink = INKS.find((each) => each === own[1]) ?? nearestInk(numbersOf(dict, 'C'));
  const corner = boxBetween(view.toShown(rect[0], rect[1]), view.toShown(rect[2], rect[3]));
  const boxes = onWords(kind) ? quads(numbersOf(dict, 'QuadPoints'), view) : [corner];
  const strokes = kind === 'drawing' ? strokesOf(dict, view) : [];
  if (boxes.length === 0 || (kind === 'drawing' && strokes.length === 0)) return undefined;
  if (kind === 'comment') boxes[0] = [...view.toShown(rect[0], rect[3]), COMMENT_SIDE, COMMENT_SIDE];
  return {
    id: own.length > 0 ? textOf(dict, 'NM') : '',
    kind,
    ink,
    boxes,
    strokes,
    text: textOf(dict, 'Contents'),
    by: textOf(dict, 'T'),
    at: dayOf(dict),
    replies: [],
  };
}

const numbersOf = (dict: PDFDict, name: string): number[] => {
  const list = dict.lookup(PDFName.of(name));
  return list instanceof PDFArray ? numbersIn(list) : [];
};
const numbersIn = (list: PDFArray): number[] =>
  list.asArray().flatMap((_, at) => {
    const value = list.lookup(at);
    return value instanceof PDFNumber ? value.asNumber() : [];
  });

function textOf(dict: PDFDict, name: string): string {
  const value = dict.lookup(PDFName.of(name));
  return value instanceof PDFString || value instanceof PDFHexString ? value.decodeText() : '';
}

/** When an annotation was made, ISO 8601; the beginning of time where it doesn't say. */
function dayOf(dict: PDFDict): string {
  const value = dict.lookup(PDFName.of('CreationDate')) ?? dict.lookup(PDFName.of('M'));
  try {
    if (value instanceof PDFString || value instanceof PDFHexString) return value.decodeDate().toISOString();
  } catch {
    // What is no date says nothing.
  }
  return new Date(0).toISOString();
}

function boxBetween([x, y]: [number, number], [toX, toY]: [number, number]): Box {
  return [Math.min(x, toX), Math.min(y, toY), Math.abs(toX - x), Math.abs(toY - y)];
}

/** Four corners a line of words, in whatever order a program wrote them. */
function quads(numbers: number[], view: PageView): Box[] {
  return Array.from({ length: Math.floor(numbers.length / 8) }, (_, at) => {
    const corners = [0, 2, 4, 6].map((each) => view.toShown(numbers[8 * at + each], numbers[8 * at + each + 1]));
    const [xs, ys] = [corners.map(([x]) => x), corners.map(([, y]) => y)];
    return boxBetween([Math.min(...xs), Math.min(...ys)], [Math.max(...xs), Math.max(...ys)]);
  });
}

function strokesOf(dict: PDFDict, view: PageView): Stroke[] {
  const list = dict.lookup(PDFName.of('InkList'));
  const border = dict.lookup(PDFName.of('BS'));
  const wide = border instanceof PDFDict ? border.lookup(PDFName.of('W')) : undefined;
  const width = wide instanceof PDFNumber ? wide.asNumber() : USUAL_WIDTH;
  if (!(list instanceof PDFArray)) return [];
  return list.asArray().flatMap((_, at) => {
    const line = list.lookup(at);
    if (!(line instanceof PDFArray)) return [];
    const numbers = numbersIn(line);
    const stroke = Array.from({ length: Math.floor(numbers.length / 2) }, (__, place): Stroke[number] => [
      ...view.toShown(numbers[2 * place], numbers[2 * place + 1]),
      width,
    ]);
    return stroke.length > 0 ? [stroke] : [];
  });
}

/** The ink whose colour is most like one that another program used. */
function nearestInk(colour: number[]): Ink {
  if (colour.length !== 3) return INKS[0];
  const far = (ink: Ink) =>
    Math.min(
      ...[INK_LOOKS[ink].wash, INK_LOOKS[ink].line].map((each) =>
        each.reduce((sum, value, at) => sum + (value - colour[at]) ** 2, 0),
      ),
    );
  return INKS.reduce((best, ink) => (far(ink) < far(best) ? ink : best), INKS[0]);
}
