import { PDFDocument, rgb } from '@cantoo/pdf-lib';
import { A4, Sheet } from '@crow/demo/sheet';
import { embedFonts } from '@crow/demo/fonts';
import { Chance } from './chance';
import { Firm, makeFirm, MadePaper, makePaper, PaperKind } from './papers';
import { Language } from './words';

/** A pile of papers as it goes through the feeder, and what it consists of. */
export interface Pile {
  pdf: Uint8Array;
  /** What each page is. */
  pages: PileePage[];
}

interface PileePage {
  /** The number of its document, from 0; -1 for blank sheets and backs. */
  document: number;
  kind: PaperKind | 'blank';
  language: Language;
}

const KINDS: PaperKind[] = [
  'receipt',
  'receipt',
  'invoice',
  'invoice',
  'invoice',
  'letter',
  'letter',
  'letter',
  'statement',
  'other',
];

/** A pile by number: several papers of one sender in a row now and then; one-sided or two-sided, then with blank backs. */
export async function makePile(seed: number, most: number): Promise<Pile> {
  const chance = new Chance(seed * 2654435761);
  const usual: Language = chance.pick(['en', 'en', 'de', 'fr']);
  const language = (): Language => (chance.of(0.8) ? usual : chance.pick(['en', 'de', 'fr']));
  const twoSided = chance.of(0.4);
  const known = Array.from({ length: 4 }, () => makeFirm(chance, language()));
  const papers: MadePaper[] = [];
  let count = 0;
  while (count < most) {
    const firm: Firm = chance.of(0.4) ? chance.pick(known) : makeFirm(chance, language());
    const kind = chance.pick(KINDS);
    for (let again = chance.of(0.2) ? chance.whole(2, 4) : 1; again > 0 && count < most; again--) {
      const paper = makePaper(chance, firm, chance.of(0.85) ? kind : chance.pick(KINDS));
      papers.push(paper);
      count += paper.sheets.length;
    }
  }
  const pdf = await PDFDocument.create({ updateMetadata: false });
  const fonts = await embedFonts(pdf);
  const pages: PileePage[] = [];
  const blank = (size: [number, number], like: Pick<PileePage, 'language'>) => {
    pdf.addPage(size);
    pages.push({ document: -1, kind: 'blank', language: like.language });
  };
  papers.forEach((paper, document) => {
    paper.sheets.forEach((draw, index) => {
      const page = pdf.addPage(paper.size);
      draw(new Sheet(page, fonts, paper.margin));
      if (chance.of(0.06)) dust(chance, page);
      pages.push({ document, kind: paper.kind, language: paper.language });
      // Printed on both sides or on one, as the firm does; a leaf that ends on its front has a blank back.
      const last = index === paper.sheets.length - 1;
      if (twoSided && (last ? pages.length % 2 === 1 : document % 3 === 0 && pages.length % 2 === 1))
        blank(paper.size, paper);
    });
    if (!twoSided && chance.of(0.03)) blank(A4, paper);
  });
  return { pdf: await pdf.save(), pages };
}

function dust(chance: Chance, page: ReturnType<PDFDocument['addPage']>): void {
  for (let speck = 0; speck < 5; speck++)
    page.drawCircle({
      x: chance.between(0, page.getWidth()),
      y: chance.between(0, page.getHeight()),
      size: 0.5,
      color: rgb(0.3, 0.3, 0.3),
    });
}

/** Where documents begin: the numbers of their first pages, from 0. */
export function beginnings({ pages }: Pick<Pile, 'pages'>): number[] {
  return pages.flatMap(({ document }, at) =>
    document >= 0 && pages.findIndex((page) => page.document === document) === at ? [at] : [],
  );
}
