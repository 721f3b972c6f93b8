import { FastifyInstance } from 'fastify';
import { object, string, number } from 'yup';
import { endpoints } from '@crow/contract/endpoints';
import { Problem } from '@crow/contract/problems';
import { Context } from '../context';
import { describeBlob } from '../store/blobs';
import { rows } from '../store/database';
import { summariseStacks } from '../store/stackRows';
import { printedDividers } from '../services/dividers';
import { unlockFile } from '../services/unlocking';
import { takeInBytes } from '../services/intake';
import { movePages, weaveStacks, weaving } from '../services/movingPages';
import * as stacks from '../services/stacks';
import { sendBlob } from './sendBlob';
import { lengthOf, receive, serve } from './serve';

const arrival = object({
  stack: string().uuid().required(),
  file: string().uuid().required(),
  stackName: string().max(300).required(),
  name: string().max(500).required(),
  position: number().integer().min(0).max(1_000_000).required(),
  /** Before which page its pages go, or of which page they are another capture; to the end of the stack without. */
  before: string().uuid(),
  again: string().uuid(),
  /** The document that they go into. */
  document: string().uuid(),
});

/** Taking in files, and arranging the stacks that they become. */
export function stackRoutes(app: FastifyInstance, context: Context): void {
  const { manager } = context.database.source;
  serve(app, endpoints.listStacks, () => summariseStacks(manager, `s.state = 'open' and s.binned_at is null`));
  serve(app, endpoints.readStack, ({ params }) => stacks.readStack(manager, params.id));
  serve(app, endpoints.arrangeStack, async ({ actor, params, body }) => {
    await stacks.arrange(context, actor, params.id, body.base, body.pages);
    return stacks.readStack(manager, params.id);
  });
  serve(app, endpoints.movePages, ({ actor, params, body }) => movePages(context, actor, params.id, body));
  serve(app, endpoints.showWeaving, ({ params, query }) => weaving(manager, params.id, query.backs));
  serve(app, endpoints.weaveStacks, ({ actor, params, body }) => weaveStacks(context, actor, params.id, body.backs));
  serve(app, endpoints.undoStack, async ({ params }) => {
    await stacks.stepArrangement(context, params.id, -1);
    return stacks.readStack(manager, params.id);
  });
  serve(app, endpoints.redoStack, async ({ params }) => {
    await stacks.stepArrangement(context, params.id, 1);
    return stacks.readStack(manager, params.id);
  });
  serve(app, endpoints.sortStack, async ({ actor, params }) => ({
    documents: await stacks.makeDocuments(context, actor, params.id),
  }));
  serve(app, endpoints.unsortStack, async ({ actor, params }) => ({
    stack: await stacks.takeBack(context, actor, params.id),
  }));
  serve(app, endpoints.stopReading, ({ actor, params }) => stacks.stopReading(context, actor, params.id));
  serve(app, endpoints.startReading, ({ actor, params }) => stacks.startReading(context, actor, params.id));
  serve(app, endpoints.deleteStack, ({ actor, params }) => stacks.binStack(context, actor, params.id, true));
  serve(app, endpoints.bringBackStack, ({ actor, params }) => stacks.binStack(context, actor, params.id, false));
  serve(app, endpoints.dismissFile, ({ actor, params }) => stacks.dismissFile(context, actor, params.id));
  serve(app, endpoints.unlockFile, ({ actor, params, body }) => unlockFile(context, actor, params.id, body.password));
  serve(app, endpoints.originalFile, async ({ params, reply }) => {
    const [file] = await rows<{ name: string; blob_id: string }>(
      manager,
      'select name, coalesce(locked_blob_id, blob_id) as blob_id from source_file where id = $1',
      [params.id],
    );
    if (!file) throw new Problem('not-found', { what: 'The file' });
    // Whatever it is, the browser saves it and never opens it here.
    return sendBlob(context, reply, await describeBlob(context.database, file.blob_id), {
      mediaType: 'application/octet-stream',
      fileName: file.name,
      download: true,
    });
  });

  serve(app, endpoints.dividerSheets, async ({ query, reply }) => {
    const pdf = await printedDividers({ folder: query.folder || null, kind: query.kind ?? null }, query.copies);
    return reply
      .type('application/pdf')
      .header('content-disposition', 'inline; filename="Divider sheets.pdf"')
      .send(Buffer.from(pdf));
  });

  receive(app, '/files', arrival, async (told, bytes, request, reply) => {
    const { stack: stackId, file: fileId, stackName, name: fileName, position, document: documentId } = told;
    const landing = { before: told.before ?? null, again: told.again ?? null };
    const place = {
      stackId,
      fileId,
      stackName,
      fileName,
      position,
      landing,
      documentId,
      bytes: lengthOf(request),
    };
    await takeInBytes(context, request.actor, place, bytes);
    return reply.code(201).send();
  });
}
