import { connectedComponents, Component } from '../components';
import { Ink } from '../ink';
import { renderLook } from '../looks';
import { findOutlines } from '../outline/findOutlines';
import { scaleQuad } from '../quad';
import { bytesOf, Raster, shrink } from '../raster';
import { glimpseOf } from '../recipe';
import { PenLine, penLines } from './penLines';

/** A signature as lines, their places and widths as shares of its height, from its upper left corner. */
export interface TracedSignature {
  lines: PenLine[];
  /** How wide it is for its height. */
  shape: number;
}

/** Why there is no signature in a picture. */
export type NoSignature = 'empty' | 'too-much';

/** Sizes (pixels): of a picture in which a signature is looked for, and of the signature itself, longer side. */
const LOOKED_AT = 1600;
const TRACED = 700;
/** How sure it is that a sheet of paper lies in the picture. */
const SURE_SHEET = 0.6;
/** More pieces of ink than this, or more lines, are no signature, but a page. */
const MOST_PIECES = 120;
const MOST_LINES = 400;
/** What lies along an edge of the picture for so much of it (a share) is no ink of a pen. */
const ALONG_EDGE = 0.5;
/** Pieces of less than this share of the largest one are specks. */
const SPECK = 0.004;
/** Pieces at a border are no part of a signature when they have less than this share of the largest one. */
const END = 0.1;
/** A row of which so much is ink (shares of the width) is of a ruled line, and one beside it. */
const [RULED, BESIDE_RULED] = [0.7, 0.3];
/** Room around the signature when it is looked at closely, as a share of its size. */
const MARGIN = 0.04;

/**
 * The signature in a picture of one on paper: a photo, a scan, or a picture that is transparent already. The sheet is found and the
 * light evened; what is left of it is the ink, as lines of a pen, without the paper.
 * @param picture RGB, RGBA or grey
 * @returns why there is none: nothing is written, or so much that it is a page and no signature
 */
export function signatureFrom(picture: Raster): TracedSignature | NoSignature {
  const opaque = onWhite(picture);
  const [sheet] = findOutlines(shrink(opaque, LOOKED_AT), { quick: true, most: 1 });
  const longSide = longSideOf(opaque);
  const scale = Math.max(1, longSide / LOOKED_AT);
  const isSheet = sheet !== undefined && sheet.confidence >= SURE_SHEET;
  const flat = isSheet ? glimpseOf(opaque, scaleQuad(sheet.corners, scale), { longSide }) : opaque;
  const rough = inkOf(shrink(flat, LOOKED_AT));
  const pieces = written(rough);
  if (pieces.kept.length === 0) return 'empty';
  if (pieces.kept.length > MOST_PIECES) return 'too-much';
  const around = boxOf(pieces.kept);
  const [ink, box] = onlyWritten(inkOf(shrink(cut(flat, around, longSideOf(flat) / longSideOf(rough)), TRACED)));
  if (!box) return 'empty';
  const [width, height] = [box.right - box.left + 1, box.bottom - box.top + 1];
  const lines = penLines(ink).map((line) =>
    line.map(([x, y, wide]): PenLine[number] => [(x - box.left) / height, (y - box.top) / height, wide / height]),
  );
  if (lines.length > MOST_LINES) return 'too-much';
  return { lines, shape: width / height };
}

const longSideOf = ({ width, height }: Pick<Raster, 'width' | 'height'>): number => Math.max(width, height);

/** A picture that nothing shines through: what is transparent becomes white. */
function onWhite(picture: Raster): Raster {
  const { width, height, channels } = picture;
  if (channels !== 4) return picture;
  const data = bytesOf(picture);
  const out = new Uint8Array(3 * width * height);
  for (let from = 0, to = 0; from < data.length; from += 4, to += 3) {
    const share = data[from + 3] / 255;
    for (let side = 0; side < 3; side++) out[to + side] = Math.round(255 + share * (data[from + side] - 255));
  }
  return { width, height, channels: 3, data: out };
}

function inkOf(picture: Raster): Ink {
  const { width, height, data } = renderLook(picture, 'bilevel');
  const ink = { width, height, data: Uint8Array.from(data, (value) => (value < 128 ? 1 : 0)) };
  return withoutRules(ink);
}

/**
 * Ink without level lines that the paper is ruled with from side to side: a stroke under a name leaves room on both sides. What crosses a
 * line stays.
 */
function withoutRules(ink: Ink): Ink {
  const { width, height } = ink;
  const data = Uint8Array.from(ink.data);
  const shares = Array.from({ length: height }, (_, y) => {
    let count = 0;
    for (let x = 0; x < width; x++) count += ink.data[y * width + x];
    return count / width;
  });
  for (let y = 0; y < height; y++) {
    if (shares[y] < RULED) continue;
    let [top, bottom] = [y, y];
    while (top > 0 && shares[top - 1] >= BESIDE_RULED) top--;
    while (bottom < height - 1 && shares[bottom + 1] >= BESIDE_RULED) bottom++;
    for (let x = 0; x < width; x++) {
      const isCrossed = [top - 1, bottom + 1].some(
        (row) => row >= 0 && row < height && ink.data[row * width + x] === 1,
      );
      if (!isCrossed) for (let row = top; row <= bottom; row++) data[row * width + x] = 0;
    }
    y = bottom;
  }
  return { width, height, data };
}

/** The pieces of ink that were written, and which piece each pixel is of. */
function written(ink: Ink): { kept: Component[]; labels: Int32Array; isKept: boolean[] } {
  const { components, labels } = connectedComponents(ink);
  const { width, height } = ink;
  const isEdge = ({ left, top, right, bottom }: Component) => {
    const across = right - left + 1 > ALONG_EDGE * width && (top === 0 || bottom === height - 1);
    const down = bottom - top + 1 > ALONG_EDGE * height && (left === 0 || right === width - 1);
    return across || down;
  };
  const inner = components.filter((each) => !isEdge(each));
  const largest = Math.max(0, ...inner.map(({ pixels }) => pixels));
  // What is left at a border of a line that runs beyond it is little.
  const isEnd = ({ left, top, right, bottom, pixels }: Component) =>
    (left === 0 || top === 0 || right === width - 1 || bottom === height - 1) && pixels < END * largest;
  const isKept = components.map((each) => !isEdge(each) && !isEnd(each) && each.pixels >= Math.max(3, SPECK * largest));
  return { kept: components.filter((_, at) => isKept[at]), labels, isKept };
}

/** The ink that was written, and how far it reaches; nothing where none was. */
function onlyWritten(ink: Ink): [Ink, Omit<Component, 'pixels'> | undefined] {
  const { kept, labels, isKept } = written(ink);
  const data = Uint8Array.from(labels, (label) => (label > 0 && isKept[label - 1] ? 1 : 0));
  return [{ ...ink, data }, kept.length > 0 ? boxOf(kept) : undefined];
}

function boxOf(pieces: Component[]): Omit<Component, 'pixels'> {
  return {
    left: Math.min(...pieces.map(({ left }) => left)),
    top: Math.min(...pieces.map(({ top }) => top)),
    right: Math.max(...pieces.map(({ right }) => right)),
    bottom: Math.max(...pieces.map(({ bottom }) => bottom)),
  };
}

/** A part of a picture with some room around. @param scale how much larger the picture is than what the part is told in */
function cut(picture: Raster, { left, top, right, bottom }: Omit<Component, 'pixels'>, scale: number): Raster {
  const room = MARGIN * Math.max(right - left, bottom - top) + 2;
  const [x, y] = [left, top].map((value) => Math.max(0, Math.floor((value - room) * scale)));
  const width = Math.min(picture.width, Math.ceil((right + 1 + room) * scale)) - x;
  const height = Math.min(picture.height, Math.ceil((bottom + 1 + room) * scale)) - y;
  const { channels } = picture;
  const data = bytesOf(picture);
  const out = new Uint8Array(width * height * channels);
  for (let row = 0; row < height; row++) {
    const from = ((y + row) * picture.width + x) * channels;
    out.set(data.subarray(from, from + width * channels), row * width * channels);
  }
  return { width, height, channels, data: out };
}
