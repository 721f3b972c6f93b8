import { FastifyInstance } from 'fastify';
import { endpoints } from '@crow/contract/endpoints';
import { shareOf, turnSize } from '@crow/core/geometry';
import { Problem } from '@crow/contract/problems';
import { Context } from '../platform/context';
import { changePages, findSheet, PageChange, wavePages } from './changingPages';
import { PictureDesk } from './pagePictures';
import { SourceShelf } from '../capture/sources';
import { takeApart } from './takingApart';
import { Page, Reading } from '../platform/entities';
import { serve } from '../platform/http/serve';

const A_YEAR_SECONDS = 31_536_000;

/** Pages: their pictures and texts, and how they are made. */
export function pageRoutes(
  app: FastifyInstance,
  context: Context,
  { pictures, sources }: { pictures: PictureDesk; sources: SourceShelf },
): void {
  const { manager } = context.database.source;
  serve(app, endpoints.pagePicture, async ({ params, query, reply }) => {
    const { bytes, mediaType } = await pictures.picture(params.id, params.size, query.turn, query.version ?? '');
    // The address says everything that the picture depends on, so it never changes.
    return reply.type(mediaType).header('cache-control', `private, max-age=${A_YEAR_SECONDS}, immutable`).send(bytes);
  });
  serve(app, endpoints.changePages, async ({ actor, body }) => {
    const changes = body.changes as PageChange[];
    for (const { id } of changes) await app.insistOnSight(actor, 'page', id);
    return changePages(context, actor, changes);
  });
  serve(app, endpoints.wavePages, ({ actor, body }) => wavePages(context, actor, body.pages, body.waved));
  serve(app, endpoints.takeApart, ({ actor, params }) => takeApart(context, sources, actor, params.id, 'papers'));
  serve(app, endpoints.cutBook, ({ actor, params }) => takeApart(context, sources, actor, params.id, 'book'));
  serve(app, endpoints.findSheet, async ({ params }) => {
    const proposal = await findSheet(context, sources, params.id);
    return proposal;
  });
  serve(app, endpoints.pageText, async ({ params }) => {
    const page = await manager.findOneBy(Page, { id: params.id });
    if (!page) throw new Problem('not-found', { what: 'The page' });
    const reading = await manager.findOneBy(Reading, { pageId: page.id, turn: page.turn, version: page.version });
    if (reading) {
      const { width, height, language, words, handwriting } = reading;
      return { width, height, language, words, handwriting: handwriting.map((box) => shareOf(box, reading)) };
    }
    const [width, height] = turnSize(page.width, page.height, page.turn);
    return { width, height, language: '', words: [], handwriting: [] };
  });
}
