import { PDFArray, PDFDict, PDFDocument, PDFHexString, PDFName, PDFNumber, PDFString } from '@cantoo/pdf-lib';

/** Who signs, when, and what for. */
export interface Signing {
  /** As the certificate calls them. */
  name: string;
  at: Date;
  /** What it means to them; '' for nothing. */
  reason: string;
}

/** Room for a signature with its certificates, in bytes. */
const ROOM = 16_384;
/** Stands for a place in the file until that is known; as wide as any in a file of less than 10 GB. */
const ANY = 9_999_999_999;
/** Flags of an annotation that is printed and can't be changed (ISO 32000-2, 12.5.3). */
const PRINT_AND_LOCKED = 132;
/** There are signatures, and the file is to be changed by appending only (ISO 32000-2, 12.7.3). */
const SIGNATURES_EXIST_APPEND_ONLY = 3;

/**
 * A PDF with a signature in it: of the form ETSI.CAdES.detached (PAdES baseline B-B, ETSI EN 319 142-1), in a field without a picture on
 * the first page, by an incremental update: what was there stays as it is, to the byte.
 * @param sign gives the CMS over the bytes (DER, detached), with the signing certificate as a signed attribute
 * @throws Error when the PDF can't be read, or the signature is larger than there is room for
 */
export async function signPdf(
  bytes: Uint8Array,
  { name, at, reason }: Signing,
  sign: (signed: Uint8Array) => Promise<Uint8Array>,
): Promise<Uint8Array> {
  const pdf = await PDFDocument.load(bytes, { forIncrementalUpdate: true, updateMetadata: false });
  const { context } = pdf;
  const [page] = pdf.getPages();
  const signature = context.register(
    context.obj({
      Type: 'Sig',
      Filter: 'Adobe.PPKLite',
      SubFilter: 'ETSI.CAdES.detached',
      ByteRange: [0, ANY, ANY, ANY],
      Contents: PDFHexString.of('0'.repeat(2 * ROOM)),
      M: PDFString.fromDate(at),
      Name: PDFHexString.fromText(name),
      ...(reason && { Reason: PDFHexString.fromText(reason) }),
    }),
  );
  const fields = fieldsOf(pdf);
  const field = context.register(
    context.obj({
      Type: 'Annot',
      Subtype: 'Widget',
      FT: 'Sig',
      T: PDFString.of(`Signature ${fields.size() + 1}`),
      V: signature,
      F: PRINT_AND_LOCKED,
      Rect: [0, 0, 0, 0],
      P: page.ref,
    }),
  );
  fields.push(field);
  const annotations = page.node.Annots() ?? context.obj([]);
  annotations.push(field);
  page.node.set(PDFName.of('Annots'), annotations);
  const saved = await pdf.save({ useObjectStreams: false });
  return fill(saved, bytes.length, sign);
}

/** The list of the form's fields, which is made where there is none. */
function fieldsOf(pdf: PDFDocument): PDFArray {
  const { context, catalog } = pdf;
  const form = catalog.lookupMaybe(PDFName.of('AcroForm'), PDFDict) ?? (context.obj({}) as PDFDict);
  if (!catalog.has(PDFName.of('AcroForm'))) catalog.set(PDFName.of('AcroForm'), context.register(form));
  form.set(PDFName.of('SigFlags'), PDFNumber.of(SIGNATURES_EXIST_APPEND_ONLY));
  const fields = form.lookupMaybe(PDFName.of('Fields'), PDFArray) ?? (context.obj([]) as PDFArray);
  form.set(PDFName.of('Fields'), fields);
  return fields;
}

/** Writes where the signed bytes are, and the signature over them, into the room that was left for both. */
async function fill(
  saved: Uint8Array,
  from: number,
  sign: (signed: Uint8Array) => Promise<Uint8Array>,
): Promise<Uint8Array> {
  const bytes = Uint8Array.from(saved);
  const added = latin1(bytes.subarray(from));
  const range = new RegExp(`\\[\\s*0\\s+${ANY}\\s+${ANY}\\s+${ANY}\\s*\\]`).exec(added);
  const room = added.indexOf(`<${'0'.repeat(2 * ROOM)}>`);
  if (!range || room < 0) throw new Error('the room for a signature is not there');
  const [begin, end] = [from + room, from + room + 2 * ROOM + 2];
  const places = `[0 ${begin} ${end} ${bytes.length - end}]`.padEnd(range[0].length);
  write(bytes, from + range.index, places);
  const signed = new Uint8Array(bytes.length - (end - begin));
  signed.set(bytes.subarray(0, begin));
  signed.set(bytes.subarray(end), begin);
  const signature = await sign(signed);
  if (signature.length > ROOM) throw new Error('the signature is larger than there is room for');
  write(bytes, begin + 1, [...signature].map((byte) => byte.toString(16).padStart(2, '0')).join(''));
  return bytes;
}

function latin1(bytes: Uint8Array): string {
  return new TextDecoder('latin1').decode(bytes);
}

function write(bytes: Uint8Array, at: number, text: string): void {
  for (let index = 0; index < text.length; index++) bytes[at + index] = text.charCodeAt(index);
}
