import { readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { PageText } from '@crow/core/reading/words';
import { PilePage } from '@crow/core/sorting/gaps';
import { signsOf } from '@crow/core/sorting/signs';

/** A made pile that has been read. */
export interface KeptPile {
  seed: number;
  pages: PilePage[];
  /** For each page the number of its document, -1 for blank ones. */
  documents: number[];
}

/** The piles in a folder of which `readPiles` has kept the words. */
export function keptPiles(folder: string): KeptPile[] {
  return readdirSync(folder)
    .filter((name) => name.endsWith('.words'))
    .map((name) => {
      const seed = Number(name.split('.')[0]);
      const texts = JSON.parse(readFileSync(join(folder, name), 'utf8')) as (PageText & { size: [number, number] })[];
      const truth = JSON.parse(readFileSync(join(folder, `${seed}.json`), 'utf8')) as { document: number }[];
      const documents = truth.map(({ document }) => document);
      return { seed, documents, pages: pileOf(texts, documents) };
    });
}

/** Whether the sheets were scanned on both sides is told by blank backs, as the program does it. */
function pileOf(texts: (PageText & { size: [number, number] })[], documents: number[]): PilePage[] {
  const twoSided = documents.some((document, at) => document < 0 && at % 2 === 1);
  return texts.map((text, at) => ({
    signs: signsOf(text, text.size),
    size: text.size,
    blank: documents[at] < 0,
    back: twoSided ? at % 2 === 1 : undefined,
  }));
}
