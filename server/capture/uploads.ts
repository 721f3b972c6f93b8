import { AsyncLocalStorage } from 'node:async_hooks';
import { createReadStream } from 'node:fs';
import { mkdir, readdir } from 'node:fs/promises';
import { join } from 'node:path';
import { FileStore } from '@tus/file-store';
import { Server, Upload } from '@tus/server';
import { FastifyReply, FastifyRequest } from 'fastify';
import { InferType } from 'yup';
import { Problem } from '@crow/contract/problems';
import { arrival } from '@crow/contract/stacks';
import { MOST_FILE_BYTES } from '../platform/blobs';
import { Context } from '../platform/context';
import { Stack } from '../platform/entities';
import { ActingAs } from '../platform/history';
import { takeInBytes } from './intake';

type Arrival = InferType<typeof arrival>;

/** A transfer that nobody went on with for so long is forgotten; a phone may have been away for weeks. */
const KEPT_MS = 30 * 24 * 3_600_000;

/**
 * Files that come piece by piece and go on where they broke off, by the open tus protocol (version 1.0.0; creation, creation with upload,
 * termination, expiration). A file is taken in once all of it is there, in the same request that brings its end; if that could not be, it is
 * with the next one that asks about it, or when the server starts again.
 */
export class Uploads {
  private readonly store: FileStore;
  private readonly server: Server;
  /** Files that are taken in, or can't be. */
  private readonly over = new Set<string>();
  /** Who asks, for what the library calls back. */
  private readonly asking = new AsyncLocalStorage<FastifyRequest>();

  /** @param folder where files are kept that are not all there yet @param path the address below which they are sent */
  constructor(
    private readonly context: Context,
    private readonly folder: string,
    path: string,
  ) {
    this.store = new FileStore({ directory: folder, expirationPeriodInMilliseconds: KEPT_MS });
    this.server = new Server({
      path,
      datastore: this.store,
      relativeLocation: true,
      // Pages of other sites have no business here; the door has refused them by now.
      allowedOrigins: () => false,
      // By whom and which: a file that is sent again goes on in its place, and nobody goes on with another's.
      namingFunction: (_request, told) => `${this.asker.id}.${told?.file}`,
      onIncomingRequest: async (request, id) => {
        if (request.method === 'POST') return;
        if (!id.startsWith(`${this.asker.id}.`)) throw answerOf(new Problem('not-found', { what: 'The transfer' }));
        if (request.method === 'HEAD') await this.takeIfAllThere(id, this.asker);
      },
      onUploadCreate: async (_request, upload) => {
        await this.insistOnGood(upload);
        return {};
      },
      onUploadFinish: async (_request, upload) => {
        await this.take(upload, this.asker);
        return {};
      },
      onResponseError: (_request, error) => {
        if ('body' in error) return undefined;
        this.context.log.warn({ error }, 'receiving a file');
        return answerOf(new Problem('not-ready'));
      },
    });
  }

  /** Takes in what was all there when the program ended, and forgets what nobody goes on with. */
  async start(): Promise<void> {
    await mkdir(this.folder, { recursive: true, mode: 0o700 });
    for (const name of await readdir(this.folder)) {
      const id = /^([0-9a-f-]{36}\.[0-9a-f-]{36})$/.exec(name)?.[1];
      if (!id) continue;
      const actor = { id: id.split('.')[0], name: '' };
      await this.takeIfAllThere(id, actor).catch((error) => this.context.log.warn({ error }, 'taking in a file again'));
    }
    await this.forgetWhatIsOver();
    await this.server.cleanUpExpiredUploads();
  }

  /** Answers a request of the protocol. */
  handle(request: FastifyRequest, reply: FastifyReply): void {
    reply.hijack();
    for (const [name, value] of Object.entries(reply.getHeaders()))
      if (value !== undefined) reply.raw.setHeader(name, value);
    reply.raw.setHeader('cache-control', 'no-store');
    this.asking
      .run(request, () => this.server.handle(request.raw, reply.raw))
      .catch((error) => {
        this.context.log.warn({ error }, 'receiving a file');
        reply.raw.destroy();
      })
      .finally(() => this.forgetWhatIsOver());
  }

  private get asker(): ActingAs {
    return this.asking.getStore()!.actor;
  }

  private async insistOnGood(upload: Upload): Promise<void> {
    try {
      const told = await toldOf(upload);
      await this.insistOnOwn(told);
      if (upload.size === undefined) throw new Problem('not-valid', { detail: 'it does not say how long it is' });
      if (upload.size === 0) throw new Problem('file-empty', { name: told.name });
      if (upload.size > MOST_FILE_BYTES) throw new Problem('file-too-large', { name: told.name });
      await this.context.disks?.insistOnRoom(upload.size);
    } catch (error) {
      throw answerOf(error);
    }
  }

  /** Whoever sees only their own stacks adds to no other, nor to a document. @throws Problem 'not-found' */
  private async insistOnOwn({ stack, document }: Arrival): Promise<void> {
    const { server, actor } = this.asking.getStore()!;
    if (actor.sight.of === 'everything') return;
    if (document) await server.insistOnSight(actor, 'document', document);
    const { manager } = this.context.database.source;
    if (await manager.existsBy(Stack, { id: stack })) await server.insistOnSight(actor, 'stack', stack);
  }

  private async takeIfAllThere(id: string, actor: ActingAs): Promise<void> {
    const upload = await this.store.getUpload(id).catch(() => undefined);
    if (upload?.size !== undefined && upload.size === upload.offset) await this.take(upload, actor);
  }

  private async take(upload: Upload, actor: ActingAs): Promise<void> {
    try {
      const told = await toldOf(upload);
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
        bound: told.bound,
        bytes: upload.size,
      };
      await takeInBytes(this.context, actor, place, createReadStream(join(this.folder, upload.id)));
    } catch (error) {
      // What can never be taken in is not asked about for ever; everything else stays for the next try.
      if (error instanceof Problem && error.status < 500 && error.report.code !== 'disk-full') this.over.add(upload.id);
      throw answerOf(error);
    }
    this.over.add(upload.id);
  }

  /** The library looks at a file once more after it has come: it is deleted when the request has been answered. */
  private async forgetWhatIsOver(): Promise<void> {
    for (const id of this.over) {
      this.over.delete(id);
      await this.store.remove(id).catch(() => undefined);
    }
  }
}

async function toldOf({ metadata }: Upload): Promise<Arrival> {
  return arrival.validate(metadata, { stripUnknown: true }).catch((error: Error) => {
    throw new Problem('not-valid', { detail: error.message });
  });
}

/** What the library answers with when something can't be. */
function answerOf(error: unknown): { status_code: number; body: string } {
  if (!(error instanceof Problem)) throw error;
  return { status_code: error.status, body: JSON.stringify(error.report) };
}
