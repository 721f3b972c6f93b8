import { FastifyInstance } from 'fastify';
import { endpoints } from '@crow/contract/endpoints';
import { announce } from '../platform/live';
import { Context } from '../platform/context';
import { serve } from '../platform/http/serve';
import { Desks } from './atWork';
import { correctWords, doubtfulWordsOf } from './correcting';
import { arrangeDocument, swapPage } from './documentPages';
import { changeFact, changeTaxes, listWaiting, putToBack, readDocument, restoreFact } from './documents';
import { finishStack, makeDocuments, takeBack } from './fromTheTable';
import { choicesFor } from './offered';
import { filingExamples, proposedNames } from './proposedFiling';

/** Documents as they are checked: from the light table and back, their facts, words and pages, and what is proposed for them. */
export function checkingRoutes(app: FastifyInstance, context: Context): void {
  const { manager } = context.database.source;
  serve(app, endpoints.sortStack, async ({ actor, params }) => ({
    documents: await makeDocuments(context, actor, params.id),
  }));
  serve(app, endpoints.finishStack, ({ actor, params }) => finishStack(context, actor, params.id));
  serve(app, endpoints.unsortStack, async ({ actor, params }) => ({
    stack: await takeBack(context, actor, params.id),
  }));
  const desks = new Desks();
  serve(app, endpoints.listAtWork, async ({ actor, query }) => desks.others(query.window, actor));
  serve(app, endpoints.beAtWork, async ({ actor, body }) => {
    if (desks.sit(body.window, actor, body.document)) await announce(manager, 'at-work', null);
  });
  serve(app, endpoints.listWaiting, () => listWaiting(manager));
  serve(app, endpoints.readDocument, ({ actor, params }) => readDocument(manager, params.id, actor.sight));
  serve(app, endpoints.changeFact, async ({ actor, params: { id, name }, body: { value, pageId, box } }) => {
    await changeFact(context, actor, id, name, value, { pageId, box });
    return readDocument(manager, id);
  });
  serve(app, endpoints.restoreFact, async ({ actor, params: { id, name } }) => {
    await restoreFact(context, actor, id, name);
    return readDocument(manager, id);
  });
  serve(app, endpoints.listChoices, ({ params }) => choicesFor(manager, params.id));
  serve(app, endpoints.changeTaxes, async ({ actor, params, body }) => {
    await changeTaxes(context, actor, params.id, body.taxes);
    return readDocument(manager, params.id);
  });
  serve(app, endpoints.arrangeDocument, async ({ actor, params, body }) => {
    await arrangeDocument(context, actor, params.id, body.pages);
    return readDocument(manager, params.id);
  });
  serve(app, endpoints.swapPage, ({ actor, params, body }) => swapPage(context, actor, params.id, body.page));
  serve(app, endpoints.putToBack, ({ actor, params }) => putToBack(context, actor, params.id));
  serve(app, endpoints.doubtfulWords, ({ params }) => doubtfulWordsOf(manager, params.id));
  serve(app, endpoints.correctWords, ({ actor, params, body }) =>
    correctWords(context, actor, params.id, body.changes),
  );
  serve(app, endpoints.filingExamples, () => filingExamples(manager));
  serve(app, endpoints.proposedNames, ({ body }) => proposedNames(manager, body.ids));
}
