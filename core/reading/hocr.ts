import { Box } from '../geometry';
import { decodeEntities } from './entities';
import { Word } from './words';

const ELEMENT =
  /<span class='(ocr_line|ocr_header|ocr_caption|ocr_textfloat|ocrx_word)'[^>]*title=(?:"([^"]*)"|'([^']*)')[^>]*>([^<]*(?:<(?:strong|em)>[^<]*(?:<\/(?:strong|em)>)?)*)/g;

interface LineGeometry {
  left: number;
  bottom: number;
  slope: number;
  offset: number;
}

/**
 * The words of a page from hOCR (the open format for recognised text, hocr-spec 1.2), with their boxes, confidences and
 * the baseline of their line. Words without text are left out.
 */
export function parseHocr(hocr: string): Word[] {
  const words: Word[] = [];
  let line = -1;
  let geometry: LineGeometry = { left: 0, bottom: 0, slope: 0, offset: 0 };
  for (const [, kind, quoted, single, inner] of hocr.matchAll(ELEMENT)) {
    const properties = quoted ?? single;
    const corners = numbersAfter(properties, 'bbox');
    if (corners.length < 4) continue;
    const [left, top, right, bottom] = corners;
    if (kind !== 'ocrx_word') {
      line += 1;
      const [slope = 0, offset = 0] = numbersAfter(properties, 'baseline');
      geometry = { left, bottom, slope, offset };
      continue;
    }
    const text = decodeEntities(inner.replace(/<[^>]*>/g, '')).trim();
    if (!text) continue;
    const box: Box = [left, top, right - left, bottom - top];
    const [percent = 0] = numbersAfter(properties, 'x_wconf');
    words.push({
      text,
      box,
      confidence: percent / 100,
      line: Math.max(line, 0),
      baseline: baselineUnder(box, geometry),
    });
  }
  return words;
}

function numbersAfter(properties: string, name: string): number[] {
  const found = new RegExp(`(?:^|;\\s*)${name} ([-\\d. ]+)`).exec(properties);
  return found ? found[1].trim().split(/\s+/).map(Number) : [];
}

/** The line's baseline at the middle of the word, kept within the word's own box. */
function baselineUnder([x, y, width, height]: Box, { left, bottom, slope, offset }: LineGeometry): number {
  const middle = x + width / 2 - left;
  return Math.min(y + height, Math.max(y + height / 2, bottom + offset + slope * middle));
}

/** A character as it was read: where it stands, and how sure the reading is, from 0 to 1. */
export interface Character {
  text: string;
  box: Box;
  confidence: number;
}

const PIECE =
  /<div class='ocr_page'|<span class='ocrx_word'[^>]*title=(?:"([^"]*)"|'([^']*)')|<span class='ocrx_cinfo'[^>]*title=(?:"([^"]*)"|'([^']*)')[^>]*>([^<]*)</g;

/** A word that was read character by character. */
export interface SpelledWord {
  characters: Character[];
  /** From 0 to 1. */
  confidence: number;
}

/** The words of each page of an hOCR document that tells its characters, too (`hocr_char_boxes`), whatever lines they are in. */
export function parseSpelledHocr(hocr: string): SpelledWord[][] {
  const pages: SpelledWord[][] = [];
  for (const [, wordA, wordB, letterA, letterB, inner] of hocr.matchAll(PIECE)) {
    const [ofWord, ofLetter] = [wordA ?? wordB, letterA ?? letterB];
    if (ofLetter !== undefined) {
      const [left, top, right, bottom] = numbersAfter(ofLetter, 'x_bboxes');
      const [percent = 0] = numbersAfter(ofLetter, 'x_conf');
      const text = decodeEntities(inner);
      pages
        .at(-1)
        ?.at(-1)
        ?.characters.push({ text, box: [left, top, right - left, bottom - top], confidence: percent / 100 });
    } else if (ofWord !== undefined) {
      const [percent = 0] = numbersAfter(ofWord, 'x_wconf');
      pages.at(-1)?.push({ characters: [], confidence: percent / 100 });
    } else pages.push([]);
  }
  return pages.map((words) => words.filter(({ characters }) => characters.length > 0));
}
