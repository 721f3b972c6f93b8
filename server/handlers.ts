import { Problem } from '@crow/contract/problems';
import { Context } from './platform/context';
import { Document, Page, SourceFile } from './platform/entities';
import { announce } from './platform/live';
import { bindDocument, weighDocument } from './shelf/binding';
import { markDocument } from './shelf/marking';
import { findPages, refuse } from './capture/intake';
import { PictureDesk, picturePage } from './pages/pagePictures';
import { readPage, settle } from './reading/reading';
import { Shelf } from './shelf/shelf';
import { SourceShelf } from './capture/sources';
import { proveFiles } from './keeping/proving';
import { proposeTies } from './ledger/ties';
import { CopyPlaces } from './sending/copyPlaces';
import { packParcel, Parcels, settleParcel } from './sending/parcels';
import { GivenUp, Handlers, Work } from './platform/jobs';

export function workerHandlers(context: Context, sources: SourceShelf): Handlers {
  const pictures = new PictureDesk(context, sources);
  return {
    'take-in': ({ fileId }) => findPages(context, fileId),
    picture: ({ pageId }) => picturePage(context, sources, pageId),
    read: ({ pageId, turn, version }) => readPage(context, sources, pageId, turn, version),
    bind: ({ documentId, actorId }) => bindDocument(context, sources, documentId, actorId),
    mark: ({ documentId, actorId }) => markDocument(context, documentId, actorId),
    pack: ({ parcelId }) => packParcel(context, { sources, pictures }, parcelId),
    match: () => proposeTies(context),
    weigh: ({ documentId }) => weighDocument(context, sources, documentId),
  };
}

export function shelfHandlers(shelf: Shelf): Handlers {
  return { shelve: ({ documentId, actorId }) => shelf.shelve(documentId, actorId) };
}

export function proofHandlers(shelf: Shelf): Handlers {
  return { prove: () => proveFiles(shelf) };
}

export function copyHandlers(places: CopyPlaces): Handlers {
  return { copy: ({ placeId }) => places.agree(placeId) };
}

export function postHandlers(parcels: Parcels): Handlers {
  return { post: ({ parcelId }) => parcels.post(parcelId) };
}

/** Work that failed again and again is written down where the person sees it, instead of waiting for ever. */
export async function giveUp(context: Context, { kind, data }: GivenUp): Promise<void> {
  const { manager } = context.database.source;
  if (kind === 'take-in') {
    const file = await manager.findOneBy(SourceFile, { id: (data as Work['take-in']).fileId });
    if (file) await refuse(context, file, new Problem('file-broken', { name: file.name, format: 'a file with pages' }));
  } else if (kind === 'read') {
    const { pageId, turn, version } = data as Work['read'];
    const page = await manager.findOneBy(Page, { id: pageId });
    const problem = new Problem('page-not-read', { detail: 'the recogniser failed on it several times' }).report;
    if (page && page.turn === turn && page.version === version && page.reading === 'waiting')
      await settle(context, page, { reading: 'failed', problem });
  } else if (kind === 'picture') {
    const { pageId } = data as Work['picture'];
    const page = await manager.findOneBy(Page, { id: pageId });
    if (!page) return;
    const file = await manager.findOneBy(SourceFile, { id: page.sourceFileId });
    const name = file?.name ?? 'the file';
    const problem = new Problem('page-not-drawn', { page: page.sourceNumber + 1, name }).report;
    await manager.update(Page, { id: pageId }, { problem, prepared: true });
    // Nothing waits for what will never come: the page counts as looked at, and its document goes on without its text.
    await settle(context, page, { reading: 'failed', problem });
    await announce(manager, 'stack', page.stackId);
  } else if (kind === 'mark') {
    const { documentId } = data as Work['mark'];
    const document = await manager.findOneBy(Document, { id: documentId });
    if (!document) return;
    await manager.update(
      Document,
      { id: documentId },
      { problem: new Problem('not-marked', { name: document.name }).report },
    );
    await announce(manager, 'document', documentId);
  } else if (kind === 'pack') {
    const { parcelId } = data as Work['pack'];
    await settleParcel(context, parcelId, { state: 'refused', problem: new Problem('not-bound').report });
  } else if (kind === 'bind') {
    const { documentId } = data as Work['bind'];
    await manager.update(Document, { id: documentId }, { problem: new Problem('not-bound').report });
    await announce(manager, 'document', documentId);
  }
}
