import { bytesOf, Raster } from '../imaging/raster';

/**
 * A bilevel picture as JBIG2 (ITU-T T.88, ISO/IEC 14492), in the form in which a PDF embeds it (ISO 32000-1, 7.4.7): a page with one
 * generic region, coded without loss. Each pixel is predicted from 16 before it by an adaptive arithmetic coder, which takes about
 * two thirds of what CCITT group 4 does; symbols are not shared, so that no letter can be taken for another.
 * @param mask grey; 0 is black, everything else white
 */
export function encodeJbig2(mask: Raster): Uint8Array {
  const { width, height } = mask;
  const page = [...u32(width), ...u32(height), ...u32(0), ...u32(0), LOSSLESS, 0, 0];
  const region = [...u32(width), ...u32(height), ...u32(0), ...u32(0), 0, TYPICAL_PREDICTION, ...NEIGHBOURS];
  const coded = encodeRows(mask);
  const data = new Uint8Array(region.length + coded.length);
  data.set(region);
  data.set(coded, region.length);
  return join([segment(0, PAGE_INFORMATION, Uint8Array.from(page)), segment(1, GENERIC_REGION, data)]);
}

const PAGE_INFORMATION = 48;
/** Immediate lossless generic region. */
const GENERIC_REGION = 39;
const LOSSLESS = 1;
/** Flags of the region: template 0, and rows that are like the one before told by one bit. */
const TYPICAL_PREDICTION = 8;
/** Where the four pixels of the template that may be placed freely are: as usual. */
const NEIGHBOURS = [3, -1, -3, -1, 2, -2, -2, -2].map((value) => value & 0xff);
/** The context in which it is told whether a row is like the one before (figure 8). */
const SAME_AS_ABOVE = 0x9b25;

function segment(number: number, type: number, data: Uint8Array): Uint8Array {
  const head = [...u32(number), type, 0, 1, ...u32(data.length)];
  return join([Uint8Array.from(head), data]);
}

const u32 = (value: number) => [value >>> 24, (value >>> 16) & 0xff, (value >>> 8) & 0xff, value & 0xff];

function join(parts: Uint8Array[]): Uint8Array {
  const whole = new Uint8Array(parts.reduce((sum, { length }) => sum + length, 0));
  let at = 0;
  for (const part of parts) {
    whole.set(part, at);
    at += part.length;
  }
  return whole;
}

/** Pixels left and right of a row that count as white, so that no place near the edge is a special one. */
const MARGIN = 4;

function encodeRows(mask: Raster): Uint8Array {
  const { width, height } = mask;
  const data = bytesOf(mask);
  const coder = new ArithmeticCoder();
  const length = width + 2 * MARGIN;
  let above2 = new Uint8Array(length);
  let above = new Uint8Array(length);
  let row = new Uint8Array(length);
  let wasSame = 0;
  for (let y = 0; y < height; y++) {
    let same = 1;
    for (let x = 0, at = y * width; x < width; x++, at++) {
      const bit = data[at] === 0 ? 1 : 0;
      row[x + MARGIN] = bit;
      if (bit !== above[x + MARGIN]) same = 0;
    }
    coder.encode(SAME_AS_ABOVE, same ^ wasSame);
    wasSame = same;
    if (!same) encodeRow(coder, row, above, above2, width);
    const free = above2;
    above2 = above;
    above = row;
    row = free;
  }
  return coder.end();
}

/** One row in the contexts of template 0 (figure 3), each made of the one before by shifting. */
function encodeRow(
  coder: ArithmeticCoder,
  row: Uint8Array,
  above: Uint8Array,
  above2: Uint8Array,
  width: number,
): void {
  // With the free pixels where they usually are, the template is three runs of neighbours: four to the left, seven above, five
  // above that.
  let left = 0;
  let middle = (above[MARGIN] << 2) | (above[MARGIN + 1] << 1) | above[MARGIN + 2];
  let upper = (above2[MARGIN] << 1) | above2[MARGIN + 1];
  for (let x = MARGIN; x < width + MARGIN; x++) {
    middle = ((middle << 1) | above[x + 3]) & 0x7f;
    upper = ((upper << 1) | above2[x + 2]) & 0x1f;
    const bit = row[x];
    coder.encode(contextOf(left, middle, upper), bit);
    left = ((left << 1) | bit) & 0xf;
  }
}

/** The bits in the standard's order: the free pixels stand apart from the runs that they continue. */
function contextOf(left: number, middle: number, upper: number): number {
  return (
    left |
    ((middle & 1) << 4) |
    (((middle >> 1) & 0x1f) << 5) |
    ((middle >> 6) << 10) |
    ((upper & 1) << 11) |
    (((upper >> 1) & 7) << 12) |
    ((upper >> 4) << 15)
  );
}

/** The states of a context's estimate (table E.1): probability, next state after the likelier and the other one, and whether they swap. */
const STATES: [qe: number, likelier: number, other: number, swap: number][] = [
  [0x5601, 1, 1, 1],
  [0x3401, 2, 6, 0],
  [0x1801, 3, 9, 0],
  [0x0ac1, 4, 12, 0],
  [0x0521, 5, 29, 0],
  [0x0221, 38, 33, 0],
  [0x5601, 7, 6, 1],
  [0x5401, 8, 14, 0],
  [0x4801, 9, 14, 0],
  [0x3801, 10, 14, 0],
  [0x3001, 11, 17, 0],
  [0x2401, 12, 18, 0],
  [0x1c01, 13, 20, 0],
  [0x1601, 29, 21, 0],
  [0x5601, 15, 14, 1],
  [0x5401, 16, 14, 0],
  [0x5101, 17, 15, 0],
  [0x4801, 18, 16, 0],
  [0x3801, 19, 17, 0],
  [0x3401, 20, 18, 0],
  [0x3001, 21, 19, 0],
  [0x2801, 22, 19, 0],
  [0x2401, 23, 20, 0],
  [0x2201, 24, 21, 0],
  [0x1c01, 25, 22, 0],
  [0x1801, 26, 23, 0],
  [0x1601, 27, 24, 0],
  [0x1401, 28, 25, 0],
  [0x1201, 29, 26, 0],
  [0x1101, 30, 27, 0],
  [0x0ac1, 31, 28, 0],
  [0x09c1, 32, 29, 0],
  [0x08a1, 33, 30, 0],
  [0x0521, 34, 31, 0],
  [0x0441, 35, 32, 0],
  [0x02a1, 36, 33, 0],
  [0x0221, 37, 34, 0],
  [0x0141, 38, 35, 0],
  [0x0111, 39, 36, 0],
  [0x0085, 40, 37, 0],
  [0x0049, 41, 38, 0],
  [0x0025, 42, 39, 0],
  [0x0015, 43, 40, 0],
  [0x0009, 44, 41, 0],
  [0x0005, 45, 42, 0],
  [0x0001, 45, 43, 0],
  [0x5601, 46, 46, 0],
];
const QE = Uint16Array.from(STATES, ([qe]) => qe);
const NEXT_LIKELIER = Uint8Array.from(STATES, ([, likelier]) => likelier);
const NEXT_OTHER = Uint8Array.from(STATES, ([, , other]) => other);
const SWAP = Uint8Array.from(STATES, ([, , , swap]) => swap);

/** The MQ coder (annex E; its registers and flow charts have the standard's names). */
class ArithmeticCoder {
  private bytes = new Uint8Array(1 << 14);
  /** The byte that may still get a carry; what is before the first one is not sent. */
  private bp = 0;
  private a = 0x8000;
  private c = 0;
  private ct = 12;
  private readonly state = new Uint8Array(1 << 16);
  private readonly likely = new Uint8Array(1 << 16);

  encode(context: number, bit: number): void {
    const state = this.state[context];
    const qe = QE[state];
    this.a -= qe;
    if (bit === this.likely[context]) {
      if (this.a & 0x8000) {
        this.c += qe;
        return;
      }
      if (this.a < qe) this.a = qe;
      else this.c += qe;
      this.state[context] = NEXT_LIKELIER[state];
    } else {
      if (this.a < qe) this.c += qe;
      else this.a = qe;
      if (SWAP[state]) this.likely[context] ^= 1;
      this.state[context] = NEXT_OTHER[state];
    }
    do {
      this.a = (this.a << 1) & 0xffff;
      this.c = this.c * 2;
      if (--this.ct === 0) this.byteOut();
    } while (!(this.a & 0x8000));
  }

  private byteOut(): void {
    if (this.bytes[this.bp] === 0xff) return this.stuffed();
    if (this.c >= 0x8000000) {
      this.bytes[this.bp]++;
      if (this.bytes[this.bp] === 0xff) {
        this.c &= 0x7ffffff;
        return this.stuffed();
      }
    }
    this.push((this.c >>> 19) & 0xff);
    this.c &= 0x7ffff;
    this.ct = 8;
  }

  /** After a byte of ones a bit is left free for a carry. */
  private stuffed(): void {
    this.push((this.c >>> 20) & 0xff);
    this.c &= 0xfffff;
    this.ct = 7;
  }

  private push(byte: number): void {
    if (++this.bp === this.bytes.length) {
      const larger = new Uint8Array(2 * this.bytes.length);
      larger.set(this.bytes);
      this.bytes = larger;
    }
    this.bytes[this.bp] = byte;
  }

  /** Sends what is left, and the marker that ends the data. */
  end(): Uint8Array {
    const most = this.c + this.a;
    this.c |= 0xffff;
    if (this.c >= most) this.c -= 0x8000;
    this.c *= 2 ** this.ct;
    this.byteOut();
    this.c *= 2 ** this.ct;
    this.byteOut();
    if (this.bytes[this.bp] !== 0xff) this.push(0xff);
    this.push(0xac);
    return this.bytes.slice(1, this.bp + 1);
  }
}
