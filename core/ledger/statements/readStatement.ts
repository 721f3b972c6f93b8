import { readCamt } from './camt';
import { readCsvStatement } from './csvStatement';
import { readMt940 } from './mt940';
import { readOfx } from './ofx';
import { readQif } from './qif';
import { Statement, StatementError } from './statement';

/**
 * Reads a statement of any format and encoding, told by what is in it.
 * @throws StatementError with a sentence when it is none
 */
export function readStatement(bytes: Uint8Array): Statement {
  const text = textOf(bytes);
  const begin = text.slice(0, 20_000);
  if (!begin.trim()) throw new StatementError('It is empty.');
  if (/<OFX>|OFXHEADER/i.test(begin)) return readOfx(text);
  if (/<(\w+:)?Document[\s>]/.test(begin) && /camt\.05\d|BkToCstmr/.test(begin)) return readCamt(text);
  if (/^:20:/m.test(begin) && /^:(25P?|28C?|60[FM]|61):/m.test(text)) return readMt940(text);
  if (/^!(Type|Account|Option):/im.test(begin)) return readQif(text);
  return readCsvStatement(text);
}

/** The text in a file: UTF-8 or UTF-16 by its mark or by what fits; else Windows-1252, which Latin-1 is a part of. */
export function textOf(bytes: Uint8Array): string {
  if (bytes[0] === 0xff && bytes[1] === 0xfe) return new TextDecoder('utf-16le').decode(bytes);
  if (bytes[0] === 0xfe && bytes[1] === 0xff) return new TextDecoder('utf-16be').decode(bytes);
  try {
    return new TextDecoder('utf-8', { fatal: true }).decode(bytes);
  } catch {
    return new TextDecoder(saysLatin9(bytes) ? 'iso-8859-15' : 'windows-1252').decode(bytes);
  }
}

function saysLatin9(bytes: Uint8Array): boolean {
  return /encoding=["']iso-8859-15/i.test(new TextDecoder('windows-1252').decode(bytes.subarray(0, 200)));
}
