import { FastifyInstance } from 'fastify';
import { endpoints } from '@crow/contract/endpoints';
import { DocumentSummary } from '@crow/contract/documents';
import { SourceShelf } from '../capture/sources';
import { readDocument } from '../checking/documents';
import { documentsById } from '../checking/documents';
import { PictureDesk } from '../pages/pagePictures';
import { describeBlob } from '../platform/blobs';
import { Context } from '../platform/context';
import { asFile, sendBlob } from '../platform/http/sendBlob';
import { serve } from '../platform/http/serve';
import { askForSizes, documentSizes } from './binding';
import { changeDocuments } from './changingDocuments';
import { Contents } from './contents';
import { documentText, epubOfDocuments, picturesOf, textPdfOf } from './exporting';
import { fileDocument, unfileDocument } from './filingDocuments';
import { changeMarks, flatPdfOf, marksOf, replyToMark } from './marking';
import { remarkOn, tagsInUse } from './remarks';
import { forgetSignature, keepSignature, signaturesOf } from './signatures';
import { forgetSigningKey, importSigningKey, makeSigningKey, signingKeysOf } from './signingKeys';
import { signDocument } from './signing';
import { linesAs, SPREADSHEET_TYPES } from './spreadsheets';
import { pdfOf, versionOf, versionsOf } from './versions';

/** Documents on the shelf: filing, renaming and moving them, their PDFs, and copies in other forms. */
export function documentRoutes(
  app: FastifyInstance,
  context: Context,
  { pictures, sources }: { pictures: PictureDesk; sources: SourceShelf },
): void {
  const contents = new Contents(context, sources);
  const { manager } = context.database.source;
  const summary = async (id: string): Promise<DocumentSummary> => (await documentsById(manager, [id]))[0];

  serve(app, endpoints.fileDocument, async ({ actor, params, body }) => {
    await fileDocument(context, actor, params.id, body);
    return summary(params.id);
  });
  serve(app, endpoints.unfileDocument, async ({ actor, params }) => {
    await unfileDocument(context, actor, params.id);
    return summary(params.id);
  });
  serve(app, endpoints.documentSizes, ({ params }) => documentSizes(manager, params.id));
  serve(app, endpoints.weighDocument, ({ params }) => askForSizes(context, params.id));
  serve(app, endpoints.changeDocument, async ({ actor, params, body }) => {
    await changeDocuments(context, actor, [{ id: params.id, ...body }]);
    return summary(params.id);
  });
  serve(app, endpoints.changeDocuments, async ({ actor, body }) => {
    await changeDocuments(context, actor, body.changes);
    return documentsById(
      manager,
      body.changes.map(({ id }) => id),
    );
  });
  serve(app, endpoints.remarkOnDocuments, ({ actor, body }) => remarkOn(context, actor, body.changes));
  serve(app, endpoints.listTags, () => tagsInUse(manager));
  serve(app, endpoints.binDocument, ({ actor, params }) =>
    changeDocuments(context, actor, [{ id: params.id, binned: true }]),
  );
  serve(app, endpoints.bringBackDocument, ({ actor, params }) =>
    changeDocuments(context, actor, [{ id: params.id, binned: false }]),
  );
  serve(app, endpoints.documentPdf, async ({ params, query, reply, request }) => {
    const { name, blobId } = await pdfOf(manager, params.id, { bare: query.marks === 'without' });
    if (query.marks === 'flat')
      return asFile(reply, `${name}.pdf`, 'application/pdf').send(Buffer.from(await flatPdfOf(context, params.id)));
    return sendBlob(context, reply, await describeBlob(context.database, blobId), {
      mediaType: 'application/pdf',
      fileName: `${name}.pdf`,
      download: 'download' in (request.query as object),
    });
  });
  const nameOf = async (id: string): Promise<string> => (await readDocument(manager, id)).name || 'document';
  serve(app, endpoints.documentText, async ({ params, reply }) => {
    const name = await nameOf(params.id);
    return asFile(reply, `${name}.txt`, 'text/plain; charset=utf-8').send(await documentText(manager, params.id));
  });
  const pictureOf: Parameters<typeof textPdfOf>[3] = async ({ id, turn, version }) =>
    (await pictures.picture(id, 'full', turn, version)).bytes;
  serve(app, endpoints.documentEpub, async ({ params, reply }) => {
    const { name, vendor } = await summary(params.id);
    const bytes = await epubOfDocuments(manager, name || 'Paper', [{ id: params.id, name, vendor }], pictureOf);
    return asFile(reply, `${name || 'document'}.epub`, 'application/epub+zip').send(Buffer.from(bytes));
  });
  serve(app, endpoints.documentTextPdf, async ({ params, reply }) => {
    const name = await nameOf(params.id);
    const bytes = await textPdfOf(manager, params.id, name, pictureOf);
    return asFile(reply, `${name}, text.pdf`, 'application/pdf').send(Buffer.from(bytes));
  });
  serve(app, endpoints.documentPictures, async ({ params, query, reply }) => {
    const name = await nameOf(params.id);
    const { content, ending } = await picturesOf(manager, pictures, params.id, query.as);
    return asFile(reply, `${name}.${ending}`, ending === 'zip' ? 'application/zip' : `image/${query.as}`).send(content);
  });
  serve(app, endpoints.documentLines, async ({ params, query, reply }) => {
    const name = await nameOf(params.id);
    return asFile(reply, `${name}.${query.as}`, SPREADSHEET_TYPES[query.as]).send(
      await linesAs(manager, params.id, query.as),
    );
  });
  serve(app, endpoints.documentContents, ({ params }) => contents.of(params.id));
  serve(app, endpoints.listMarks, ({ params }) => marksOf(manager, params.id));
  serve(app, endpoints.changeMarks, ({ actor, params, body }) => changeMarks(context, actor, params.id, body));
  serve(app, endpoints.replyToMark, ({ actor, params, body }) =>
    replyToMark(context, actor, params.id, params.mark, body.text),
  );
  serve(app, endpoints.listSignatures, ({ actor }) => signaturesOf(manager, actor));
  serve(app, endpoints.keepSignature, ({ actor, body }) => keepSignature(manager, actor, body));
  serve(app, endpoints.forgetSignature, ({ actor, params }) => forgetSignature(manager, actor, params.id));
  serve(app, endpoints.listSigningKeys, ({ actor }) => signingKeysOf(manager, actor));
  serve(app, endpoints.makeSigningKey, ({ actor, body }) => makeSigningKey(manager, actor, body));
  serve(app, endpoints.importSigningKey, ({ actor, body }) => importSigningKey(manager, actor, body));
  serve(app, endpoints.forgetSigningKey, ({ actor, params }) => forgetSigningKey(manager, actor, params.id));
  serve(app, endpoints.signDocument, async ({ actor, params, body }) => {
    await signDocument(context, actor, params.id, body);
    return versionsOf(manager, params.id);
  });
  serve(app, endpoints.listVersions, ({ params }) => versionsOf(manager, params.id));
  serve(app, endpoints.versionPdf, async ({ params, reply }) => {
    const { name, blobId } = await versionOf(manager, params.id, Number(params.number));
    return sendBlob(context, reply, await describeBlob(context.database, blobId), {
      mediaType: 'application/pdf',
      fileName: `${name}, version ${params.number}.pdf`,
      download: false,
    });
  });
}
