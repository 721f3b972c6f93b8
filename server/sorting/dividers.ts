import { dividerPdf } from '@crow/core/pdf/dividerPdf';
import { Divider, dividerCode } from '@crow/core/sorting/divider';
import { squareCode } from '../engines/squareCode';

/** Divider sheets to be printed, as a PDF. */
export function printedDividers(divider: Divider, copies: number): Promise<Uint8Array> {
  const code = dividerCode(divider);
  const lines = [
    'A new document begins behind this sheet.',
    ...(divider.folder ? [`Folder: ${divider.folder.replaceAll('/', ' / ')}`] : []),
    ...(divider.kind ? [`Kind: ${divider.kind}`] : []),
    'Lay it on top of each document and scan them all in one pile; it is taken out by itself. It can be used again and again, either way up.',
  ];
  return dividerPdf(squareCode(code), { title: 'Divider sheet', lines, small: code, copies });
}
