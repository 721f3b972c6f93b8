import { PDFArray, PDFDict, PDFName, PDFObject, PDFPage, PDFRawStream, PDFStream } from '@cantoo/pdf-lib';

const ALLOWED_FILTERS = new Set(['DCTDecode', 'FlateDecode', 'CCITTFaxDecode', 'JBIG2Decode', 'RunLengthDecode']);
const ALLOWED_COLOURS = new Set(['DeviceGray', 'DeviceRGB', 'CalGray', 'CalRGB', 'ICCBased', 'Indexed']);

/**
 * Whether a page taken over from another PDF holds nothing but plain pictures, so that the document may still be PDF/A-2b:
 * no fonts, forms, patterns, transparency or annotations, pictures in grey or RGB with permitted filters. Says no when in doubt.
 */
export function isPlainPicturePage(page: PDFPage): boolean {
  const annotations = page.node.lookup(PDFName.of('Annots'));
  if (annotations && !(annotations instanceof PDFArray && annotations.size() === 0)) return false;
  if (page.node.get(PDFName.of('AA')) || page.node.get(PDFName.of('Group'))) return false;
  const resources = page.node.Resources();
  if (!resources) return false;
  const known = new Set(['XObject', 'ProcSet']);
  for (const [key, value] of resources.entries()) {
    const dictionary = resources.context.lookup(value);
    const empty = dictionary instanceof PDFDict && dictionary.entries().length === 0;
    if (!known.has(key.decodeText()) && !empty) return false;
  }
  const pictures = resources.lookup(PDFName.of('XObject'));
  if (!(pictures instanceof PDFDict)) return false;
  return pictures.keys().every((name) => isPlainPicture(pictures.lookup(name)));
}

function isPlainPicture(object: PDFObject | undefined): boolean {
  if (!(object instanceof PDFRawStream || object instanceof PDFStream)) return false;
  const { dict } = object;
  if (dict.lookup(PDFName.of('Subtype')) !== PDFName.of('Image')) return false;
  if (['SMask', 'Mask', 'Alternates', 'OPI', 'Interpolate'].some((key) => dict.get(PDFName.of(key)))) return false;
  if (!namesOf(dict.lookup(PDFName.of('Filter'))).every((name) => ALLOWED_FILTERS.has(name))) return false;
  if (dict.get(PDFName.of('ImageMask'))) return true;
  const [colours, base] = namesOf(dict.lookup(PDFName.of('ColorSpace')));
  return ALLOWED_COLOURS.has(colours) && (colours !== 'Indexed' || base === undefined || ALLOWED_COLOURS.has(base));
}

function namesOf(object: PDFObject | undefined): string[] {
  if (object instanceof PDFName) return [object.decodeText()];
  if (!(object instanceof PDFArray)) return [];
  return object
    .asArray()
    .map((_, index) => object.lookup(index))
    .filter((item): item is PDFName => item instanceof PDFName)
    .map((name) => name.decodeText());
}
