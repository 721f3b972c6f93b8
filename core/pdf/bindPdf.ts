import {
  degrees,
  PDFArray,
  PDFDict,
  PDFDocument,
  PDFHexString,
  PDFName,
  PDFNumber,
  PDFPage,
  PDFRawStream,
  PDFRef,
  PDFString,
} from '@cantoo/pdf-lib';
import { addTurns, Box, Orientation, Turn } from '../geometry';
import { Heading } from '../reading/book';
import { Word } from '../reading/words';
import { isPlainPicturePage } from './archival';
import { ASCENT, DESCENT, GLYPH_WIDTH, glyphlessFont } from './glyphlessFont';
import { DocumentMetadata, PRODUCER, xmpPacket } from './metadata';
import { srgbProfile } from './srgbProfile';
import { CharacterSet, invisibleText } from './textLayer';

/** An encoded picture that a PDF can hold as it is. */
export interface EncodedPicture {
  /** JPEG (grey or RGB), or CCITT group 4 with white as 0 (TIFF's usual sense). */
  format: 'jpeg' | 'ccitt';
  bytes: Uint8Array;
  /** Size as stored, in pixels, before `orientation` is applied. */
  width: number;
  height: number;
  /** How much of it, from its upper left corner, is the page; the rest is padding. */
  shown: [width: number, height: number];
  /** 1 for grey and black and white, 3 for RGB. */
  channels: 1 | 3;
  orientation: Orientation;
  /** Ink that is painted over it. */
  stencils?: EncodedStencil[];
}

/** Ink of one colour: a stencil mask (ISO 32000-1, 8.9.6.2) in JBIG2, painted where it is black. */
export interface EncodedStencil {
  bytes: Uint8Array;
  /** Size as stored, in pixels. */
  width: number;
  height: number;
  colour: [red: number, green: number, blue: number];
  /** Where all of it lies, as shares of the page before its orientation is applied, from the upper left; it may reach over the edge. */
  place: Box;
}

interface Recognised {
  /** Words in pixels of a picture of the page as shown, `width` × `height`. */
  words: Word[];
  width: number;
  height: number;
}

export type BindPage =
  | {
      kind: 'picture';
      picture: EncodedPicture;
      /** Size of the page as shown, in points. */ size: [number, number];
      text?: Recognised;
    }
  | {
      kind: 'pdf';
      /** A PDF that holds the page. */
      bytes: Uint8Array;
      /** Which page of it, from 0. */
      index: number;
      turn: Turn;
      /** What was recognised on it; absent when the page's own text is good. */
      text?: Recognised;
    };

export interface BoundPdf {
  bytes: Uint8Array;
  /** Whether it was declared PDF/A-2b. */
  archival: boolean;
}

/** How one finds one's way in a PDF. */
export interface Contents {
  /** The number printed on each page, null where there is none. */
  labels?: readonly (number | null)[];
  headings?: readonly Heading[];
}

const FONT_TAG = 'CrowText';

/**
 * Binds pages into one searchable PDF: pictures with an invisible text layer, each word under its picture; pages of PDFs
 * taken over as they are, with a text layer where they had none; page labels and an outline where they are given. Declared PDF/A-2b when every page is a plain picture.
 * @throws whatever the PDF library throws for a source PDF that it can't read
 */
export async function bindPdf(
  pages: BindPage[],
  metadata: DocumentMetadata,
  { labels = [], headings = [] }: Contents = {},
): Promise<BoundPdf> {
  const pdf = await PDFDocument.create({ updateMetadata: false });
  const characters = new CharacterSet();
  const font = pdf.context.nextRef();
  const sources = new Map<Uint8Array, PDFDocument>();
  let archival = pages.length > 0;
  for (const page of pages) {
    if (page.kind === 'picture') addPicturePage(pdf, page, font, characters);
    else {
      let source = sources.get(page.bytes);
      if (!source) sources.set(page.bytes, (source = await PDFDocument.load(page.bytes, { updateMetadata: false })));
      const [copy] = await pdf.copyPages(source, [page.index]);
      archival &&= isPlainPicturePage(copy);
      addTakenOverPage(pdf, copy, page, font, characters);
    }
  }
  if (characters.codes.size > 0) writeFont(pdf, font, characters);
  writeMetadata(pdf, metadata, archival);
  if (labels.some((number, at) => number !== null && number !== at + 1)) writeLabels(pdf, labels);
  if (headings.length > 0) writeOutline(pdf, headings);
  return { bytes: await pdf.save({ useObjectStreams: true, addDefaultPage: false }), archival };
}

/** Page labels (ISO 32000-1, 12.4.2): the printed numbers; pages in front that have none are counted in Roman numerals. */
function writeLabels(pdf: PDFDocument, labels: readonly (number | null)[]): void {
  const { context } = pdf;
  const ranges = context.obj([]) as PDFArray;
  labels.forEach((number, at) => {
    const before = labels[at - 1];
    if (at > 0 && (number === null ? before === null : before !== null && before === number - 1)) return;
    ranges.push(PDFNumber.of(at));
    ranges.push(context.obj(number === null ? { S: 'r', St: 1 } : { S: 'D', St: number }));
  });
  pdf.catalog.set(PDFName.of('PageLabels'), context.obj({ Nums: ranges }));
}

/** The headings as the document's outline (ISO 32000-1, 12.3.3), each leading to where it stands. */
function writeOutline(pdf: PDFDocument, headings: readonly Heading[]): void {
  const { context } = pdf;
  const pages = pdf.getPages();
  const outline = context.nextRef();
  const items = headings.map(() => context.nextRef());
  headings.forEach(({ text, page, top }, at) => {
    const [item, shown] = [context.obj({}) as PDFDict, pages[page]];
    item.set(PDFName.of('Title'), PDFHexString.fromText(text));
    item.set(PDFName.of('Parent'), outline);
    if (at > 0) item.set(PDFName.of('Prev'), items[at - 1]);
    if (at < items.length - 1) item.set(PDFName.of('Next'), items[at + 1]);
    const height = Math.round(shown.getHeight() * (1 - top));
    item.set(PDFName.of('Dest'), context.obj([shown.ref, PDFName.of('XYZ'), null, height, null]));
    context.assign(items[at], item);
  });
  context.assign(
    outline,
    context.obj({ Type: 'Outlines', First: items[0], Last: items[items.length - 1], Count: items.length }),
  );
  pdf.catalog.set(PDFName.of('Outlines'), outline);
}

/** Matrices that place the unit square of a stored picture on a page of the size 1 × 1, by EXIF orientation. */
const PLACEMENT: Record<Orientation, [number, number, number, number, number, number]> = {
  1: [1, 0, 0, 1, 0, 0],
  2: [-1, 0, 0, 1, 1, 0],
  3: [-1, 0, 0, -1, 1, 1],
  4: [1, 0, 0, -1, 0, 1],
  5: [0, -1, -1, 0, 1, 1],
  6: [0, -1, 1, 0, 0, 1],
  7: [0, 1, 1, 0, 0, 0],
  8: [0, 1, -1, 0, 1, 0],
};

type PicturePage = Extract<BindPage, { kind: 'picture' }>;

function addPicturePage(
  pdf: PDFDocument,
  { picture, size, text }: PicturePage,
  font: PDFRef,
  characters: CharacterSet,
): void {
  const [width, height] = size;
  const page = pdf.addPage([width, height]);
  const { context } = pdf;
  const dictionary: Record<string, string | number | PDFDict> = {
    Type: 'XObject',
    Subtype: 'Image',
    Width: picture.width,
    Height: picture.height,
    ColorSpace: picture.channels === 1 ? 'DeviceGray' : 'DeviceRGB',
    BitsPerComponent: picture.format === 'ccitt' ? 1 : 8,
    Filter: picture.format === 'ccitt' ? 'CCITTFaxDecode' : 'DCTDecode',
  };
  if (picture.format === 'ccitt') {
    dictionary.DecodeParms = context.obj({ K: -1, Columns: picture.width, Rows: picture.height });
  }
  const image = context.register(PDFRawStream.of(context.obj(dictionary), picture.bytes));
  page.node.setXObject(PDFName.of('Picture'), image);
  const matrix = placementOf(picture, width, height).map((value) => Number(value.toFixed(3)));
  const drawing = `q ${matrix.join(' ')} cm /Picture Do Q${stencilsOf(page, picture, width, height)}`;
  const layer = text?.words.length ? `\n${layerFor(page, text, width, height, font, characters)}` : '';
  page.node.addContentStream(context.register(context.flateStream(drawing + layer)));
}

/** Adds a page's stencils, and gives what paints them. */
function stencilsOf(
  page: PDFPage,
  { stencils = [], orientation }: EncodedPicture,
  width: number,
  height: number,
): string {
  const { context } = page.doc;
  const [a, b, c, d, e, f] = PLACEMENT[orientation];
  const onPage = [a * width, b * height, c * width, d * height, e * width, f * height].join(' ');
  return stencils
    .map(({ bytes, width: columns, height: rows, colour, place: [x, y, w, h] }, index) => {
      const dictionary = {
        Type: 'XObject',
        Subtype: 'Image',
        Width: columns,
        Height: rows,
        ImageMask: true,
        BitsPerComponent: 1,
        Filter: 'JBIG2Decode',
      };
      const name = `Ink${index + 1}`;
      page.node.setXObject(PDFName.of(name), context.register(PDFRawStream.of(context.obj(dictionary), bytes)));
      const paint = colour.map((value) => (value / 255).toFixed(3)).join(' ');
      const inPage = [w, 0, 0, h, x, 1 - y - h].map((value) => value.toFixed(6)).join(' ');
      return `\nq ${paint} rg ${onPage} cm ${inPage} cm /${name} Do Q`;
    })
    .join('');
}

/** Places the stored picture so that the part of it that is shown fills the page; padding falls outside. */
function placementOf(picture: EncodedPicture, width: number, height: number): number[] {
  const [a, b, c, d, e, f] = PLACEMENT[picture.orientation];
  const across = picture.width / picture.shown[0];
  const down = picture.height / picture.shown[1];
  return [a * across * width, b * across * height, c * down * width, d * down * height].concat(
    (e + c * (1 - down)) * width,
    (f + d * (1 - down)) * height,
  );
}

function layerFor(
  page: PDFPage,
  text: Recognised,
  width: number,
  height: number,
  font: PDFRef,
  characters: CharacterSet,
): string {
  const fontName = page.node.newFontDictionary(FONT_TAG, font).decodeText();
  return invisibleText(
    text.words,
    { scaleX: width / text.width, scaleY: height / text.height, pageHeight: height },
    fontName,
    characters,
  );
}

type PdfPage = Extract<BindPage, { kind: 'pdf' }>;

function addTakenOverPage(
  pdf: PDFDocument,
  page: PDFPage,
  { turn, text }: PdfPage,
  font: PDFRef,
  characters: CharacterSet,
): void {
  pdf.addPage(page);
  const rotation = addTurns(page.getRotation().angle, turn);
  page.setRotation(degrees(rotation));
  if (!text?.words.length) return;
  const { context } = pdf;
  const crop = page.getCropBox();
  const sideways = rotation % 180 !== 0;
  const shown: [number, number] = sideways ? [crop.height, crop.width] : [crop.width, crop.height];
  // From the page as it is shown (lower left origin) back to the page as it is written.
  const back: Record<Turn, number[]> = {
    0: [1, 0, 0, 1, crop.x, crop.y],
    90: [0, 1, -1, 0, crop.x + crop.width, crop.y],
    180: [-1, 0, 0, -1, crop.x + crop.width, crop.y + crop.height],
    270: [0, -1, 1, 0, crop.x, crop.y + crop.height],
  };
  page.node.normalize();
  const layer = `q ${back[rotation].join(' ')} cm\n${layerFor(page, text, shown[0], shown[1], font, characters)}\nQ`;
  page.node.wrapContentStreams(context.register(context.stream('q')), context.register(context.stream('Q')));
  page.node.addContentStream(context.register(context.flateStream(layer)));
}

function writeFont(pdf: PDFDocument, ref: PDFRef, characters: CharacterSet): void {
  const { context } = pdf;
  const name = 'AAAAAA+CrowShelfInvisible';
  const program = glyphlessFont();
  const file = context.register(context.flateStream(program, { Length1: program.length }));
  const descriptor = context.register(
    context.obj({
      Type: 'FontDescriptor',
      FontName: name,
      // Symbolic: the characters are not from a standard Latin set.
      Flags: 4,
      FontBBox: [0, DESCENT, GLYPH_WIDTH, ASCENT],
      ItalicAngle: 0,
      Ascent: ASCENT,
      Descent: DESCENT,
      CapHeight: ASCENT,
      StemV: 80,
      FontFile2: file,
    }),
  );
  // Every code is drawn by glyph 1, which is empty.
  const glyphOfCode = new Uint8Array(2 * (characters.codes.size + 1));
  for (let code = 1; code <= characters.codes.size; code++) glyphOfCode[2 * code + 1] = 1;
  const descendant = context.register(
    context.obj({
      Type: 'Font',
      Subtype: 'CIDFontType2',
      BaseFont: name,
      CIDSystemInfo: { Registry: PDFString.of('Adobe'), Ordering: PDFString.of('Identity'), Supplement: 0 },
      FontDescriptor: descriptor,
      DW: GLYPH_WIDTH,
      CIDToGIDMap: context.register(context.flateStream(glyphOfCode)),
    }),
  );
  context.assign(
    ref,
    context.obj({
      Type: 'Font',
      Subtype: 'Type0',
      BaseFont: name,
      Encoding: 'Identity-H',
      DescendantFonts: [descendant],
      ToUnicode: context.register(context.flateStream(characters.toUnicodeMap())),
    }),
  );
}

function writeMetadata(pdf: PDFDocument, metadata: DocumentMetadata, archival: boolean): void {
  const { context, catalog } = pdf;
  // Printed as large as the paper is, unless somebody says otherwise (ISO 32000-2, 12.2).
  catalog.set(PDFName.of('ViewerPreferences'), context.obj({ PrintScaling: 'None' }));
  pdf.setTitle(metadata.title, { showInWindowTitleBar: true });
  pdf.setCreationDate(metadata.created);
  pdf.setModificationDate(metadata.created);
  pdf.setProducer(PRODUCER);
  pdf.setCreator(PRODUCER);
  if (metadata.language) pdf.setLanguage(metadata.language);
  const packet = new TextEncoder().encode(xmpPacket(metadata, archival));
  catalog.set(PDFName.of('Metadata'), context.register(context.stream(packet, { Type: 'Metadata', Subtype: 'XML' })));
  const id = PDFHexString.of([...metadata.fileId].map((byte) => byte.toString(16).padStart(2, '0')).join(''));
  const ids = PDFArray.withContext(context);
  ids.push(id);
  ids.push(id);
  context.trailerInfo.ID = ids;
  if (!archival) return;
  const profile = context.register(context.flateStream(srgbProfile(), { N: PDFNumber.of(3) }));
  const intent = context.obj({
    Type: 'OutputIntent',
    S: 'GTS_PDFA1',
    OutputConditionIdentifier: PDFString.of('sRGB'),
    Info: PDFString.of('sRGB IEC61966-2.1'),
    DestOutputProfile: profile,
  });
  catalog.set(PDFName.of('OutputIntents'), context.obj([intent]));
}
