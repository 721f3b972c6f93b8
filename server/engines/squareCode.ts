import bwip from 'bwip-js/node';
import { CodeSquares } from '@crow/core/pdf/dividerPdf';

/** A text as a square code (QR) that can be read with a quarter of it spoilt (level Q), or with 15 hundredths of it (M). */
export function squareCode(text: string, level: 'M' | 'Q' = 'Q'): CodeSquares {
  const [symbol] = bwip.raw('qrcode', text, { eclevel: level } as object);
  const { pixs, pixx, pixy } = symbol as { pixs: number[]; pixx: number; pixy: number };
  return Array.from({ length: pixy }, (_, row) =>
    Array.from(pixs.slice(row * pixx, (row + 1) * pixx), (dark) => dark === 1),
  );
}
