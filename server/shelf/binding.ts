import { createHash } from 'node:crypto';
import { EntityManager } from 'typeorm';
import { BindPage, bindPdf, BoundPdf } from '@crow/core/pdf/bindPdf';
import { Beside } from '@crow/core/filing/pattern';
import { Recipe } from '@crow/core/imaging/recipe';
import { Turn, turnSize } from '@crow/core/geometry';
import { PageText, restoreWords, StoredWord, turnPageText } from '@crow/core/reading/words';
import { languageTag } from '@crow/core/reading/otherLanguages';
import { Context } from '../platform/context';
import { BINDING_SIZES, BindingSize, bindingPicture } from '../engines/bindingPictures';
import { extractPdfPages } from '../engines/qpdf';
import { withScratch } from '../engines/scratch';
import { isScanUnderText } from '../engines/scanUnderText';
import { SourceInfo } from '../engines/sourceFile';
import { storeBytes } from '../platform/blobs';
import { rows } from '../platform/database';
import { announce } from '../platform/live';
import { makeBesides } from './besides';
import { SourceShelf } from '../capture/sources';

/** A page to be bound: which page of which file, how it is turned, what it says. */
export interface PageToBind {
  info: SourceInfo;
  /** From 0. */
  number: number;
  turn: Turn;
  /** Whether the text is the page's own, which it keeps. */
  own: boolean;
  text?: Pick<PageText, 'width' | 'height' | 'words'>;
  /** Whether a PDF page is taken over as it is; else its picture is. A page with text of its own that is no good is drawn anew. */
  asIs: boolean;
  recipe?: Recipe | null;
}

/**
 * Turns pages of files into what a PDF is bound from. Pages of the same PDF are taken out of it together; those that are only
 * scanned, with or without text over them, are drawn anew when the PDF is to be smaller than in full.
 */
export async function preparePages(given: PageToBind[], size: BindingSize, folder: string): Promise<BindPage[]> {
  const pages: PageToBind[] = [];
  for (const page of given) pages.push({ ...page, asIs: page.asIs && (await staysAsItIs(page, size, folder)) });
  const taken = new Map<SourceInfo, { bytes: Uint8Array; order: Map<number, number> }>();
  for (const info of new Set(pages.filter((page) => page.asIs).map((page) => page.info))) {
    const numbers = [...new Set(pages.filter((page) => page.asIs && page.info === info).map((page) => page.number))];
    const bytes = await extractPdfPages(
      info.path,
      info.name,
      numbers.map((number) => number + 1),
      folder,
    );
    taken.set(info, { bytes, order: new Map(numbers.map((number, index) => [number, index])) });
  }
  const prepared: BindPage[] = [];
  for (const { info, number, turn, own, text, asIs, recipe } of pages) {
    if (asIs) {
      const { bytes, order } = taken.get(info)!;
      prepared.push({ kind: 'pdf', bytes, index: order.get(number)!, turn, text: own ? undefined : text });
      continue;
    }
    const { pointWidth, pointHeight } = info.pages[number];
    const [width, height] = recipe?.paper ?? [pointWidth, pointHeight];
    const picture = await bindingPicture(info, number, turn, size, folder, recipe ?? null);
    prepared.push({ kind: 'picture', picture, size: turnSize(width, height, turn), text });
  }
  return prepared;
}

/** Whether a page of a PDF is taken over: in full, or with text and drawings of its own that a picture would coarsen. */
async function staysAsItIs(
  { info, number, turn, own, text }: PageToBind,
  size: BindingSize,
  folder: string,
): Promise<boolean> {
  if (size === 'full') return true;
  if (!own || !text) return own;
  return !(await isScanUnderText(
    info,
    number,
    turnPageText({ language: '', ...text }, ((360 - turn) % 360) as Turn),
    folder,
  ));
}

/** Binds pages into a searchable PDF. */
export function bindPages(
  pages: PageToBind[],
  { title, created, language, size }: { title: string; created: Date; language: string; size: BindingSize },
): Promise<BoundPdf> {
  return withScratch(async (folder) => {
    const prepared = await preparePages(pages, size, folder);
    const fileId = createHash('md5').update(`${title} ${created.toISOString()} ${pages.length}`).digest();
    return bindPdf(prepared, { title, created, language: language ? languageTag(language) : undefined, fileId });
  });
}

interface PageRow {
  id: string;
  source_file_id: string;
  source_number: number;
  turn: Turn;
  recipe: Recipe | null;
  format: string;
  own: boolean | null;
  brings_text: boolean;
  width: number | null;
  height: number | null;
  language: string | null;
  words: StoredWord[] | null;
}

/** Binds a document that is being filed, or is filed and has changed, and stores its PDF. */
export async function bindDocument(
  context: Context,
  sources: SourceShelf,
  documentId: string,
  actorId: string,
): Promise<void> {
  const { database, jobs } = context;
  const { manager } = database.source;
  const [document] = await rows<{
    state: string;
    name: string;
    filed_at: Date | null;
    pdf_size: BindingSize;
    beside: Beside[];
  }>(manager, `select state, name, filed_at, pdf_size, beside from document d where id = $1 and binned_at is null`, [
    documentId,
  ]);
  if (!document || document.state === 'check') return;
  const madeFrom = await contentOf(manager, documentId);
  const bound = await withPages(manager, sources, documentId, (pages, language) =>
    bindPages(pages, {
      title: document.name,
      created: document.filed_at ?? new Date(),
      language,
      size: document.pdf_size,
    }),
  );
  const blob = await storeBytes(database, bound.bytes);
  const besides = await makeBesides(context, sources, documentId, { title: document.name, forms: document.beside });
  await database.source.transaction(async (inside) => {
    // Whoever changes a document or a page of it locks the document first.
    await inside.query('select 1 from document where id = $1 for no key update', [documentId]);
    if ((await contentOf(inside, documentId)) !== madeFrom) {
      // Changed meanwhile: this PDF is of how it was, and is thrown away.
      await jobs.askOnce(inside, 'bind', { documentId, actorId });
      return;
    }
    // The one before stays, in case that something is wrong with the new one.
    await inside.query(
      `insert into document_version (document_id, number, pdf_blob_id)
       select id, coalesce((select max(number) from document_version where document_id = id), 0) + 1, pdf_blob_id
       from document where id = $1 and pdf_blob_id is not null and pdf_blob_id <> $2 and state = 'filed'`,
      [documentId, blob.id],
    );
    const changed = await rows(
      inside,
      `update document set pdf_blob_id = $2, archival = $3, problem = null where id = $1 and state <> 'check' returning id`,
      [documentId, blob.id, bound.archival],
    );
    if (changed.length === 0) return;
    await inside.query('delete from document_file where document_id = $1', [documentId]);
    await inside.query(
      `insert into document_file (document_id, ending, blob_id)
       select $1, ending, blob_id from unnest($2::text[], $3::uuid[]) as made (ending, blob_id)`,
      [documentId, besides.map(({ ending }) => ending), besides.map(({ blobId }) => blobId)],
    );
    await jobs.ask(inside, 'shelve', { documentId, actorId });
    await announce(inside, 'document', documentId);
  });
}

/**
 * What a PDF is made from, as a short text that differs when anything of it does: the pages in their order, how they are made, the
 * text on them (each change of a row gets a number of its own, `xmin`), and what the PDF is to be like.
 */
async function contentOf(manager: EntityManager, documentId: string): Promise<string | null> {
  const [found] = await rows<{ content: string | null }>(
    manager,
    `select md5(concat_ws(',', d.name, d.pdf_size, d.beside::text, (
       select string_agg(concat_ws(' ', p.id, p.version, p.turn, r.xmin), ',' order by dp.number)
       from document_page dp join page p on p.id = dp.page_id
       left join reading r on r.page_id = p.id and r.turn = p.turn and r.version = p.version where dp.document_id = d.id
     ))) as content from document d where d.id = $1`,
    [documentId],
  );
  return found?.content ?? null;
}

/** What a document's pages are like: with other pages, or pages made otherwise, its PDF has another size. */
const PAGES_KEY = `(select md5(string_agg(concat_ws(' ', p.id, p.version, p.turn), ',' order by dp.number))
  from document_page dp join page p on p.id = dp.page_id where dp.document_id = $1)`;

/** How many bytes a document's PDF has in each size, as far as that is known. */
export async function documentSizes(
  manager: EntityManager,
  documentId: string,
): Promise<{ size: BindingSize; bytes: number | null }[]> {
  const known = await rows<{ size: string; bytes: string }>(
    manager,
    `select size, bytes from document_size where document_id = $1 and pages = ${PAGES_KEY}`,
    [documentId],
  );
  return BINDING_SIZES.map((size) => {
    const found = known.find((each) => each.size === size);
    return { size, bytes: found ? Number(found.bytes) : null };
  });
}

/** Has it found out in the background how many bytes a document's PDF has in each size, unless that is known or asked for already. */
export async function askForSizes({ database, jobs }: Context, documentId: string): Promise<void> {
  const { manager } = database.source;
  const known = await documentSizes(manager, documentId);
  if (known.some(({ bytes }) => bytes === null)) await jobs.askOnce(manager, 'weigh', { documentId }, { gatherMs: 0 });
}

/** Of a long document, so many pages are weighed for all of them. */
const MOST_WEIGHED = 16;

/** At most so many of some things, evenly from the first to the last. */
function spread<Item>(items: readonly Item[], most: number): Item[] {
  if (items.length <= most) return [...items];
  return Array.from({ length: most }, (_, at) => items[Math.round((at * (items.length - 1)) / (most - 1))]);
}

/** Binds a document in every size that has not been weighed yet, to tell how large it is. */
export async function weighDocument({ database }: Context, sources: SourceShelf, documentId: string): Promise<void> {
  const { manager } = database.source;
  const [document] = await rows<{ name: string; pages: string | null }>(
    manager,
    `select name, ${PAGES_KEY} as pages from document where id = $1`,
    [documentId],
  );
  if (!document?.pages) return;
  for (const size of BINDING_SIZES) {
    const [known] = await rows(
      manager,
      'select 1 from document_size where document_id = $1 and pages = $2 and size = $3',
      [documentId, document.pages, size],
    );
    if (known) continue;
    const bytes = await withPages(manager, sources, documentId, async (pages, language) => {
      const some = spread(pages, MOST_WEIGHED);
      const bound = await bindPages(some, { title: document.name, created: new Date(), language, size });
      return Math.round((bound.bytes.length * pages.length) / some.length);
    });
    await manager.query(
      `insert into document_size (document_id, pages, size, bytes)
       select $1, $2, $3, $4 where exists (select 1 from document where id = $1) on conflict do nothing`,
      [documentId, document.pages, size, bytes],
    );
  }
  // Once, at the end: whoever looks asks again then, and would have it weighed twice before.
  await announce(manager, 'document', documentId);
}

/** The pages of a document as they are bound, while their files lie open. */
async function withPages<Result>(
  manager: EntityManager,
  sources: SourceShelf,
  documentId: string,
  work: (pages: PageToBind[], language: string) => Promise<Result>,
): Promise<Result> {
  const pages = await rows<PageRow>(
    manager,
    `select p.id, p.source_file_id, p.source_number, p.turn, c.recipe, f.format, r.own, r.width, r.height, r.language, r.words
     from document_page dp join page p on p.id = dp.page_id join source_file f on f.id = p.source_file_id
     left join recipe c on c.version = p.version left join reading r on r.page_id = p.id and r.turn = p.turn and r.version = p.version
     where dp.document_id = $1 order by dp.number`,
    [documentId],
  );
  return withFiles(sources, [...new Set(pages.map((page) => page.source_file_id))], (files) =>
    work(
      pages.map((page) => ({
        info: files.get(page.source_file_id)!,
        number: page.source_number,
        turn: page.turn,
        own: page.own === true,
        text: page.words ? { width: page.width!, height: page.height!, words: restoreWords(page.words) } : undefined,
        asIs: page.format === 'pdf' && !page.recipe,
        recipe: page.recipe,
      })),
      pages.find((page) => page.language)?.language ?? '',
    ),
  );
}

/** Lays several source files out at once. */
async function withFiles<Result>(
  sources: SourceShelf,
  ids: string[],
  work: (files: Map<string, SourceInfo>) => Promise<Result>,
  laid = new Map<string, SourceInfo>(),
): Promise<Result> {
  const [next, ...others] = ids;
  if (!next) return work(laid);
  return sources.use(next, (info) => withFiles(sources, others, work, laid.set(next, info)));
}
