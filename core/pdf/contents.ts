import {
  PDFArray,
  PDFDict,
  PDFDocument,
  PDFHexString,
  PDFName,
  PDFNumber,
  PDFObject,
  PDFRef,
  PDFString,
} from '@cantoo/pdf-lib';
import { Box } from '../geometry';
import { viewOf } from './marks/pageView';

/** A line of a PDF's outline. */
export interface OutlineLine {
  title: string;
  /** From 0. */
  level: number;
  /** From 0. */
  page: number;
  /** How far down on it, as a share. */
  top: number;
}

/** A link on a page of a PDF: to an address elsewhere, or to a page of its own. */
export interface PageLink {
  /** From 0. */
  page: number;
  /** In shares of the page as it is shown. */
  box: Box;
  address: string | null;
  /** From 0. */
  to: { page: number; top: number } | null;
}

export interface PdfContents {
  outline: OutlineLine[];
  links: PageLink[];
}

const MOST_LINES = 2000;
const MOST_LINKS = 20_000;
const DEEPEST = 12;
/** Addresses that a link may lead to; whatever else it asks for (to start a program, to run a script) it does not do. */
const ADDRESS = /^(https?|mailto):/i;

/**
 * The outline of a PDF (ISO 32000-2, 12.3.3) and the links on its pages (12.5.6.5).
 * @throws whatever the PDF library throws for a PDF that it can't read
 */
export async function contentsOf(bytes: Uint8Array): Promise<PdfContents> {
  const pdf = await PDFDocument.load(bytes, { updateMetadata: false });
  const reader = new Destinations(pdf);
  return { outline: reader.outline(), links: reader.links() };
}

/** A class of objects in a PDF; none of these is made by its constructor. */
interface KindOf<Kind> {
  prototype: Kind;
  [Symbol.hasInstance](value: unknown): boolean;
}

class Destinations {
  private readonly pages: ReturnType<PDFDocument['getPages']>;
  private readonly places: Map<PDFObject, number>;

  constructor(private readonly pdf: PDFDocument) {
    this.pages = pdf.getPages();
    this.places = new Map(this.pages.map(({ ref }, at) => [ref, at]));
  }

  outline(): OutlineLine[] {
    const lines: OutlineLine[] = [];
    const seen = new Set<PDFObject>();
    const walk = (first: PDFObject | undefined, level: number) => {
      for (let at = first; at && level < DEEPEST && lines.length < MOST_LINES;) {
        const item = this.look(at, PDFDict);
        // One that is in its own chain would have no end.
        if (!item || seen.has(item)) return;
        seen.add(item);
        const to = this.goesTo(item);
        const title = this.textOf(item.get(PDFName.of('Title')));
        if (to && title.trim()) lines.push({ title: title.trim(), level, ...to });
        walk(item.get(PDFName.of('First')), level + 1);
        at = item.get(PDFName.of('Next'));
      }
    };
    walk(this.look(this.pdf.catalog.get(PDFName.of('Outlines')), PDFDict)?.get(PDFName.of('First')), 0);
    return lines;
  }

  links(): PageLink[] {
    return this.pages
      .flatMap((page, number) => {
        const view = viewOf(page);
        const annotations = this.look(page.node.get(PDFName.of('Annots')), PDFArray)?.asArray() ?? [];
        return annotations.flatMap((each): PageLink[] => {
          const link = this.look(each, PDFDict);
          if (!link || link.get(PDFName.of('Subtype')) !== PDFName.of('Link')) return [];
          const corners = this.numbers(link.get(PDFName.of('Rect')));
          const action = this.look(link.get(PDFName.of('A')), PDFDict);
          const address = action ? this.textOf(action.get(PDFName.of('URI'))).trim() : '';
          const to = this.goesTo(link);
          if (corners.length !== 4 || !(ADDRESS.test(address) || to)) return [];
          const [a, b] = [view.toShown(corners[0], corners[1]), view.toShown(corners[2], corners[3])];
          const [left, top] = [Math.min(a[0], b[0]), Math.min(a[1], b[1])];
          const box: Box = [
            left / view.width,
            top / view.height,
            Math.abs(a[0] - b[0]) / view.width,
            Math.abs(a[1] - b[1]) / view.height,
          ];
          return [{ page: number, box, address: ADDRESS.test(address) ? address : null, to: to ?? null }];
        });
      })
      .slice(0, MOST_LINKS);
  }

  /** Where an outline's line or a link leads, by its destination or by what it does. */
  private goesTo(item: PDFDict): { page: number; top: number } | undefined {
    const direct = item.get(PDFName.of('Dest'));
    if (direct) return this.place(direct);
    const action = this.look(item.get(PDFName.of('A')), PDFDict);
    return action?.get(PDFName.of('S')) === PDFName.of('GoTo') ? this.place(action.get(PDFName.of('D'))) : undefined;
  }

  /** A destination, written out or by its name (ISO 32000-2, 12.3.2). */
  private place(given: PDFObject | undefined, named = false): { page: number; top: number } | undefined {
    const found = given instanceof PDFRef ? this.pdf.context.lookup(given) : given;
    if (found instanceof PDFDict) return this.place(found.get(PDFName.of('D')), named);
    if (found instanceof PDFArray) {
      const first = found.get(0);
      const page = this.places.get(first) ?? (first instanceof PDFNumber ? first.asNumber() : -1);
      const shown = this.pages[page];
      if (!shown) return undefined;
      const [kind, [across, second]] = [found.get(1), this.numbers(found, 2)];
      const up = kind === PDFName.of('XYZ') ? second : kind === PDFName.of('FitH') ? across : undefined;
      const view = viewOf(shown);
      const top = up === undefined || Number.isNaN(up) ? 0 : view.toShown(0, up)[1] / view.height;
      return { page, top: Math.max(0, Math.min(1, top)) };
    }
    if (named) return undefined;
    const name = found instanceof PDFName ? found.decodeText() : this.textOf(found);
    return name ? this.place(this.byName(name), true) : undefined;
  }

  private byName(name: string): PDFObject | undefined {
    const old = this.look(this.pdf.catalog.get(PDFName.of('Dests')), PDFDict)?.get(PDFName.of(name));
    if (old) return old;
    const names = this.look(this.pdf.catalog.get(PDFName.of('Names')), PDFDict);
    const search = (given: PDFObject | undefined, depth: number): PDFObject | undefined => {
      const node = this.look(given, PDFDict);
      if (!node || depth > DEEPEST) return undefined;
      const own = this.look(node.get(PDFName.of('Names')), PDFArray)?.asArray() ?? [];
      for (let at = 0; at + 1 < own.length; at += 2) if (this.textOf(own[at]) === name) return own[at + 1];
      for (const kid of this.look(node.get(PDFName.of('Kids')), PDFArray)?.asArray() ?? []) {
        const found = search(kid, depth + 1);
        if (found) return found;
      }
      return undefined;
    };
    return search(names?.get(PDFName.of('Dests')), 0);
  }

  /** An object, if it is of a kind, wherever it is written. */
  private look<Kind extends PDFObject>(given: PDFObject | undefined, kind: KindOf<Kind>): Kind | undefined {
    const found = given instanceof PDFRef ? this.pdf.context.lookup(given) : given;
    return kind[Symbol.hasInstance](found) ? (found as Kind) : undefined;
  }

  private textOf(given: PDFObject | undefined): string {
    const found = given instanceof PDFRef ? this.pdf.context.lookup(given) : given;
    return found instanceof PDFString || found instanceof PDFHexString ? found.decodeText() : '';
  }

  /** The numbers of a list, NaN for what is none. */
  private numbers(given: PDFObject | undefined, from = 0): number[] {
    const all = this.look(given, PDFArray)?.asArray().slice(from) ?? [];
    return all.map((each) => this.look(each, PDFNumber)?.asNumber() ?? NaN);
  }
}
