import {
  decodePDFRawStream,
  PDFArray,
  PDFContext,
  PDFDict,
  PDFName,
  PDFObject,
  PDFRawStream,
  PDFRef,
} from '@cantoo/pdf-lib';

/** What is packed otherwise when a program writes a file anew, or leads back up, and says nothing of what is seen. */
const PASSED_OVER = ['Length', 'Filter', 'DecodeParms', 'Parent', 'P', 'Popup', 'M', 'LastModified', 'PieceInfo'];
/** Filters that only pack; other streams are compared as they are packed. */
const PACKING = ['FlateDecode', 'LZWDecode', 'ASCII85Decode', 'ASCIIHexDecode', 'RunLengthDecode'];

/**
 * Text that is the same for two objects of PDFs exactly when all that they hold is, however it is numbered and packed; pages among it are
 * passed over.
 * @param without names of entries that do not count
 */
export function digestOf(object: PDFObject | undefined, context: PDFContext, without: readonly string[] = []): string {
  const digest = new Digest();
  add(digest, object, { context, without: [...PASSED_OVER, ...without], seen: new Map() });
  return digest.toString();
}

interface Walk {
  context: PDFContext;
  without: readonly string[];
  /** What was come across, by its turn: objects may lead to each other in circles. */
  seen: Map<PDFObject, number>;
}

function add(digest: Digest, given: PDFObject | undefined, walk: Walk): void {
  const object = given instanceof PDFRef ? walk.context.lookup(given) : given;
  if (object instanceof PDFArray || object instanceof PDFDict || object instanceof PDFRawStream) {
    const before = walk.seen.get(object);
    if (before !== undefined) return digest.text(`again ${before}`);
    walk.seen.set(object, walk.seen.size);
  }
  if (object instanceof PDFArray) {
    digest.text('[');
    for (const each of object.asArray()) add(digest, each, walk);
    digest.text(']');
  } else if (object instanceof PDFDict) addEntries(digest, object, walk);
  else if (object instanceof PDFRawStream) {
    addEntries(digest, object.dict, walk);
    digest.bytes(unpacked(object));
  } else digest.text(String(object));
}

function addEntries(digest: Digest, dict: PDFDict, walk: Walk): void {
  if (dict.lookup(PDFName.of('Type')) === PDFName.of('Page')) return digest.text('a page');
  const entries = dict.entries().map(([name, value]) => [name.decodeText(), value] as const);
  digest.text('<<');
  for (const [name, value] of entries.sort(([a], [b]) => (a < b ? -1 : 1))) {
    if (walk.without.includes(name)) continue;
    digest.text(name);
    add(digest, value, walk);
  }
  digest.text('>>');
}

/** The bytes of a stream without what only packs them. */
export function unpacked(stream: PDFRawStream): Uint8Array {
  const filter = stream.dict.lookup(PDFName.of('Filter'));
  const names = filter instanceof PDFArray ? filter.asArray() : filter ? [filter] : [];
  const packed = names.every((name) => name instanceof PDFName && PACKING.includes(name.decodeText()));
  return packed ? decodePDFRawStream(stream).decode() : stream.getContents();
}

const [PRIME, FIRST, SECOND] = [0x01000193, 0x811c9dc5, 0x9e3779b9];

/** A hash of 64 bits: FNV-1a (Fowler, Noll & Vo 1991) twice, from two beginnings. It finds changes, and keeps nobody from hiding one. */
class Digest {
  private one = FIRST;
  private other = SECOND;
  private length = 0;

  bytes(bytes: Uint8Array): void {
    let { one, other } = this;
    for (const byte of bytes) {
      one = Math.imul(one ^ byte, PRIME);
      other = Math.imul(other ^ byte ^ (other >>> 15), PRIME);
    }
    Object.assign(this, { one, other });
    this.length += bytes.length;
  }

  text(text: string): void {
    this.bytes(new TextEncoder().encode(`${text} `));
  }

  toString(): string {
    return [this.one >>> 0, this.other >>> 0, this.length].join();
  }
}
