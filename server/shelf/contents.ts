import { In } from 'typeorm';
import { DocumentContents } from '@crow/contract/documents';
import { turnBox, turnSize } from '@crow/core/geometry';
import { PdfContents } from '@crow/core/pdf/contents';
import { SourceShelf } from '../capture/sources';
import { Context } from '../platform/context';
import { SourceFile } from '../platform/entities';
import { pagesOfDocument } from '../stack/queries';

/** So many files' outlines and links are kept in memory: they never change. */
const MOST_KEPT = 60;

/** The outline and the links of the PDFs that pages came in, as far as they lead to pages of the same document, or elsewhere. */
export class Contents {
  private readonly kept = new Map<string, Promise<PdfContents>>();

  constructor(
    private readonly context: Context,
    private readonly sources: SourceShelf,
  ) {}

  async of(documentId: string): Promise<DocumentContents> {
    const { manager } = this.context.database.source;
    const all = await pagesOfDocument(manager, documentId);
    // Pages that are made from pictures have neither.
    const pages = all.filter(({ recipe }) => recipe === null);
    const files = await manager.findBy(SourceFile, {
      id: In([...new Set(pages.map(({ fileId }) => fileId))]),
      format: 'pdf',
    });
    const found: DocumentContents = { outline: [], links: [] };
    for (const { id } of files) {
      const own = new Map(pages.filter(({ fileId }) => fileId === id).map((page) => [page.fileNumber - 1, page]));
      const placeOf = (to: { page: number; top: number } | null) => {
        const page = to && own.get(to.page);
        return page ? { pageId: page.id, top: to.top } : null;
      };
      const { outline, links } = await this.inFile(id);
      for (const { title, level, ...to } of outline) {
        const place = placeOf(to);
        if (place) found.outline.push({ title, level, to: place });
      }
      for (const { page: number, box, address, to } of links) {
        const page = own.get(number);
        const place = placeOf(to);
        if (!page || !(address || place)) continue;
        // As the page lies in the file, and from there as it is turned.
        const [width, height] = turnSize(page.pointWidth, page.pointHeight, page.turn);
        const [x, y, w, h] = box;
        const turned = turnBox([x * width, y * height, w * width, h * height], width, height, page.turn);
        const [a, b, c, d] = turned;
        found.links.push({
          pageId: page.id,
          box: [a / page.pointWidth, b / page.pointHeight, c / page.pointWidth, d / page.pointHeight],
          ...{ address, to: place },
        });
      }
    }
    return found;
  }

  private inFile(fileId: string): Promise<PdfContents> {
    const known = this.kept.get(fileId);
    if (known) return known;
    const read = this.sources.use(fileId, (info) => this.context.heavy.contents(info));
    this.kept.set(fileId, read);
    read.catch(() => this.kept.delete(fileId));
    if (this.kept.size > MOST_KEPT) this.kept.delete(this.kept.keys().next().value!);
    return read;
  }
}
