import { FastifyInstance } from 'fastify';
import { endpoints } from '@crow/contract/endpoints';
import { Context } from '../platform/context';
import { asFile } from '../platform/http/sendBlob';
import { receive, serve } from '../platform/http/serve';
import { changeAccount, changeBooks, changeCategory, makeAccount, makeCategory, readBooks } from './books';
import {
  attachPaper,
  attachPapers,
  changeEntry,
  checkEntries,
  detachPaper,
  detachPapers,
  entryVersions,
  makeEntry,
  putBackEntry,
  readLedger,
  takeOutEntry,
} from './entries';
import { exportLedger } from './exporting';
import { changePaperBooks, enterPaper, paperBooks, papersForEntry, papersWithoutEntry } from './papers';
import { entryPayment, savePayments } from './payments';
import { periodArchive } from './period';
import { changeSender, listSenders } from './senders';
import { listStatements, statementsAmongPapers, takeInPaper, takeInStatement, takeOutStatement } from './statements';
import { takeInEntries } from './importing';
import { forgetLineRule } from './lineRules';
import { enterLines, takeOutEntries } from './lines';
import { makeTie, takeOffTies, takeTies } from './ties';

/** The books: entries with their papers, statements, and what ties them. */
export function ledgerRoutes(app: FastifyInstance, context: Context): void {
  const { manager } = context.database.source;
  serve(app, endpoints.readBooks, () => readBooks(manager));
  serve(app, endpoints.changeBooks, ({ actor, body }) => changeBooks(context, actor, body));
  serve(app, endpoints.makeCategory, ({ actor, body }) => makeCategory(context, actor, body));
  serve(app, endpoints.changeCategory, ({ actor, params, body }) => changeCategory(context, actor, params.id, body));
  serve(app, endpoints.makeAccount, ({ actor, body }) => makeAccount(context, actor, body));
  serve(app, endpoints.changeAccount, ({ actor, params, body }) => changeAccount(context, actor, params.id, body));

  serve(app, endpoints.readLedger, () => readLedger(manager));
  serve(app, endpoints.exportLedger, async ({ query, reply }) => {
    const { bytes, name, mediaType } = await exportLedger(manager, query);
    return asFile(reply, name, mediaType).send(bytes);
  });
  serve(app, endpoints.exportPeriod, async ({ query, reply }) =>
    asFile(reply, `Books ${query.from} to ${query.to}.zip`, 'application/zip').send(
      await periodArchive(context, query),
    ),
  );
  serve(app, endpoints.makeEntry, ({ actor, body }) => makeEntry(context, actor, body));
  serve(app, endpoints.changeEntry, ({ actor, params, body }) => changeEntry(context, actor, params.id, body));
  serve(app, endpoints.takeOutEntry, ({ actor, params }) => takeOutEntry(context, actor, params.id));
  serve(app, endpoints.putBackEntry, ({ actor, params }) => putBackEntry(context, actor, params.id));
  serve(app, endpoints.checkEntries, ({ actor, body }) => checkEntries(context, actor, body.ids, body.checked));
  serve(app, endpoints.entryPayment, ({ params }) => entryPayment(manager, params.id));
  serve(app, endpoints.savePayments, async ({ actor, body, reply }) =>
    asFile(reply, `Payments ${body.on}.xml`, 'application/xml').send(await savePayments(context, actor, body)),
  );
  serve(app, endpoints.entryVersions, ({ params }) => entryVersions(manager, params.id));

  serve(app, endpoints.paperBooks, ({ params, query }) => paperBooks(manager, params.id, query.folder));
  serve(app, endpoints.changePaperBooks, ({ params, body }) => changePaperBooks(context, params.id, body));
  serve(app, endpoints.enterPaper, ({ actor, params }) => enterPaper(context, actor, params.id));
  serve(app, endpoints.attachPaper, ({ actor, params, body }) => attachPaper(context, actor, params.id, body));
  serve(app, endpoints.detachPaper, ({ actor, params }) => detachPaper(context, actor, params.id, params.documentId));

  serve(app, endpoints.attachPapers, ({ actor, body }) => attachPapers(context, actor, body.pairs));
  serve(app, endpoints.detachPapers, ({ actor, body }) => detachPapers(context, actor, body.pairs));

  serve(app, endpoints.papersForEntry, ({ params }) => papersForEntry(manager, params.id));
  serve(app, endpoints.papersWithoutEntry, () => papersWithoutEntry(manager));

  receive(app, endpoints.sendStatement, (wish, bytes, { actor }) => takeInStatement(context, actor, wish, bytes));
  serve(app, endpoints.listSenders, () => listSenders(manager));
  serve(app, endpoints.changeSender, ({ actor, params, body }) => changeSender(context, actor, params.id, body));

  serve(app, endpoints.statementsAmongPapers, () => statementsAmongPapers(manager));
  serve(app, endpoints.takeInPaper, ({ actor, params, body }) => takeInPaper(context, actor, params.id, body));
  serve(app, endpoints.listStatements, () => listStatements(manager));
  serve(app, endpoints.takeOutStatement, ({ actor, params }) => takeOutStatement(context, actor, params.id));

  serve(app, endpoints.enterLines, ({ actor, body }) => enterLines(context, actor, body));
  serve(app, endpoints.takeOutEntries, ({ actor, body }) => takeOutEntries(context, actor, body.ids));
  receive(app, endpoints.sendEntries, (wish, bytes, { actor }) => takeInEntries(context, actor, wish, bytes));
  serve(app, endpoints.forgetLineRule, ({ actor, params }) => forgetLineRule(context, actor, params.id));

  serve(app, endpoints.makeTie, ({ actor, body }) => makeTie(context, actor, body));
  serve(app, endpoints.takeTies, ({ actor, body }) => takeTies(context, actor, body.ids));
  serve(app, endpoints.takeOffTies, ({ actor, body }) => takeOffTies(context, actor, body.ids, body.refuse));
}
