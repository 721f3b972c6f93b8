import { randomUUID } from 'node:crypto';
import { existsSync, mkdirSync, readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { FastifyInstance } from 'fastify';
import pino from 'pino';
import { addressOf, callOf, PIECE, uploadHeaders } from '@crow/contract/client';
import { Endpoint, Input, Output } from '@crow/contract/endpoint';
import { arrangementOf } from '@crow/core/sorting/arrangement';
import { endpoints } from '@crow/contract/endpoints';
import { ProblemReport } from '@crow/contract/problems';
import { Stack } from '@crow/contract/stacks';
import { buildApp } from '../app';
import { openContext, openSending } from '../assembly';
import { Context } from '../platform/context';
import { copyHandlers, postHandlers, proofHandlers, shelfHandlers, workerHandlers } from '../handlers';
import { Jobs, SERVER_QUEUES, WORKER_QUEUES, WorkKind } from '../platform/jobs';
import { LiveHub } from '../platform/http/liveHub';
import { PictureDesk } from '../pages/pagePictures';
import { Shelf } from '../shelf/shelf';
import { ShelfChanges } from '../shelf/shelfChanges';
import { ScanDesk } from '../capture/scanning';
import { NetworkDoor } from '../people/networkDoor';
import { letIn, makeEntryKey } from '../people/sessions';
import { SourceShelf } from '../capture/sources';
import { Uploads } from '../capture/uploads';
import { Watcher } from '../capture/watching';
import { CopyPlaces } from '../sending/copyPlaces';
import { Parcels } from '../sending/parcels';
import { connect } from '../platform/database';
import { theProgram } from '../platform/history';
import { newDatabase } from './databases';
import { scratchFolder } from './made';

export interface Answer<Body = unknown> {
  status: number;
  body: Body;
  headers: Record<string, unknown>;
  raw: Buffer;
}

/** The whole server without processes and ports: a database of its own, the routes, and the work done when a test says so. */
export class TestRoom {
  private constructor(
    readonly context: Context,
    readonly app: FastifyInstance,
    readonly shelf: Shelf,
    readonly changes: ShelfChanges,
    readonly watcher: Watcher,
    readonly networkDoor: NetworkDoor,
    readonly uploads: Uploads,
    readonly parcels: Parcels,
    private readonly copyPlaces: CopyPlaces,
    /** Where files are kept that are not all there yet. */
    readonly uploadsFolder: string,
    private readonly sources: SourceShelf,
    private readonly hub: LiveHub,
    /** The secret of the session in which it asks. */
    private readonly secret: string,
  ) {}

  static async open(): Promise<TestRoom> {
    const url = await newDatabase();
    const database = await connect(url);
    const jobs = await Jobs.open(url, { supervise: false });
    const context = openContext({ database, jobs, log: pino({ level: process.env.CROW_LOG ?? 'silent' }) });
    const sources = new SourceShelf(database);
    const folder = scratchFolder();
    const webFolder = join(folder, 'web');
    mkdirSync(webFolder);
    writeFileSync(join(webFolder, 'index.html'), '<title>Crow Shelf</title>');
    writeFileSync(join(webFolder, 'icon.svg'), '<svg xmlns="http://www.w3.org/2000/svg"/>');
    const shelf = new Shelf(context, join(folder, 'shelf'));
    await shelf.mark();
    const hub = new LiveHub(url);
    await hub.start();
    const watcher = new Watcher(context, [shelf.root], { stillMs: 0, stillEmptyMs: 0 });
    const changes = new ShelfChanges(shelf, await theProgram(database.source.manager));
    const networkDoor = new NetworkDoor(context, { folder: join(folder, 'authority'), port: 0 });
    const sending = openSending(context, { home: folder, ownFolders: [shelf.root], networkDoor });
    const uploads = new Uploads(context, join(folder, 'uploads'), `/api${endpoints.sendFile.path}`);
    await uploads.start();
    const app = await buildApp(context, {
      ...sending,
      networkDoor,
      uploads,
      pictures: new PictureDesk(context, sources),
      sources,
      hub,
      scans: new ScanDesk(context),
      watcher,
      changes,
      webFolder,
    });
    await app.ready();
    await networkDoor.start(app);
    const { manager } = database.source;
    const secret = await letIn(manager, await makeEntryKey(manager), 'the test');
    return new TestRoom(
      context,
      app,
      shelf,
      changes,
      watcher,
      networkDoor,
      uploads,
      sending.parcels,
      sending.copyPlaces,
      join(folder, 'uploads'),
      sources,
      hub,
      secret!,
    );
  }

  /** Asks an endpoint; the answer must be a good one. */
  async ask<E extends Endpoint>(endpoint: E, input: Input<E>): Promise<Output<E>> {
    const answer = await this.send(endpoint, input as object);
    if (answer.status >= 400) throw new Error(`${endpoint.method} ${endpoint.path}: ${JSON.stringify(answer.body)}`);
    return answer.body as Output<E>;
  }

  /** Asks an endpoint that must refuse; its problem. */
  async refusal<E extends Endpoint>(endpoint: E, input: Input<E>): Promise<ProblemReport & { status: number }> {
    const { status, body } = await this.send(endpoint, input as object);
    if (status < 400) throw new Error(`${endpoint.method} ${endpoint.path} was not refused`);
    return { ...(body as ProblemReport), status };
  }

  send(endpoint: Endpoint, input: object): Promise<Answer> {
    const { method, headers, body } = callOf(endpoint, input);
    return this.request(method, addressOf(endpoint, input), { headers, body });
  }

  /** What a browser that was let in at a host (with its port) shows of that. */
  cookieFor(host: string): string {
    return `crow_session_${host.split(':').pop()}=${this.secret}`;
  }

  async request(
    method: string,
    url: string,
    { body, headers = {} }: { body?: object | Buffer | string; headers?: Record<string, string> } = {},
  ): Promise<Answer> {
    const host = headers.host ?? '127.0.0.1:1';
    const response = await this.app.inject({
      method: method as 'GET',
      url,
      payload: body,
      headers: { host, cookie: this.cookieFor(host), ...headers },
    });
    const json = String(response.headers['content-type']).startsWith('application/json');
    return {
      status: response.statusCode,
      body: json ? response.json() : response.body,
      headers: response.headers,
      raw: response.rawPayload,
    };
  }

  /** Sends files as one stack; gives its id. */
  async takeIn(files: Record<string, Uint8Array>, stack: string = randomUUID()): Promise<string> {
    for (const [position, [name, bytes]] of Object.entries(files).entries()) {
      const { status, body } = await this.sendFile(stack, name, bytes, { position: String(position) });
      if (status >= 400) throw new Error(JSON.stringify(body));
    }
    return stack;
  }

  /** Sends one file to a stack. @param where its number, and where its pages go */
  async sendFile(
    stack: string,
    name: string,
    bytes: Uint8Array,
    where: Record<string, string>,
    headers: Record<string, string> = {},
  ): Promise<Answer> {
    const told = { stack, file: randomUUID(), stackName: name, name, position: '0', ...where };
    const answer = await this.request('POST', '/api/uploads', {
      body: Buffer.from(bytes),
      headers: { ...uploadHeaders(told, bytes.length), 'content-type': PIECE, ...headers },
    });
    // The protocol answers in plain text.
    const isProblem = answer.status >= 400 && String(answer.body).startsWith('{');
    return isProblem ? { ...answer, body: JSON.parse(String(answer.body)) as unknown } : answer;
  }

  /** Takes files in, does all the work there is, and gives the stack. */
  async takeInAndRead(files: Record<string, Uint8Array>): Promise<Stack> {
    const id = await this.takeIn(files);
    await this.work();
    return this.ask(endpoints.readStack, { params: { id } });
  }

  /** Takes a file in as one document, and gives its id. @param whole whether no page begins another, whatever is proposed */
  async documentOf(name: string, bytes: Uint8Array, { whole = false } = {}): Promise<string> {
    const { id, step, pageList } = await this.takeInAndRead({ [name]: bytes });
    const pages = arrangementOf(pageList).map((page) => ({ ...page, cutBefore: false, cutDecided: true }));
    if (whole) await this.ask(endpoints.arrangeStack, { params: { id }, body: { base: step, pages } });
    const { documents } = await this.ask(endpoints.sortStack, { params: { id } });
    return documents[0];
  }

  async file(id: string, name: string, folderPath: string): Promise<void> {
    await this.ask(endpoints.fileDocument, { params: { id }, body: { name, folderPath } });
    await this.work();
  }

  /** Does everything that waits in the queues, of the kinds given, until nothing waits; gives how much that was. */
  async work(kinds: WorkKind[] = [...WORKER_QUEUES, ...SERVER_QUEUES]): Promise<number> {
    const handlers = {
      ...workerHandlers(this.context, this.sources),
      ...shelfHandlers(this.shelf),
      ...postHandlers(this.parcels),
      ...proofHandlers(this.shelf),
      ...copyHandlers(this.copyPlaces),
    };
    let done = 0;
    for (;;) {
      let found = false;
      for (const kind of kinds) {
        const job = await this.context.jobs.fetch(kind);
        if (!job) continue;
        await (handlers[kind] as (data: unknown) => Promise<void>)(job.data);
        await this.context.jobs.boss.complete(kind, job.id);
        found = true;
        done++;
        break;
      }
      if (!found) return done;
    }
  }

  /** The same, with what waits a moment for more changes. */
  async workOnAll(): Promise<number> {
    await this.context.database.source.query(
      `update jobs.job set start_after = now() where state < 'active' and start_after > now()`,
    );
    return this.work();
  }

  onDisk(path: string): boolean {
    return existsSync(join(this.shelf.root, path));
  }

  diskBytes(path: string): Buffer {
    return readFileSync(join(this.shelf.root, path));
  }

  async close(): Promise<void> {
    await this.networkDoor.close();
    await this.hub.close();
    await this.app.close();
    await this.sources.close();
    await this.context.jobs.close();
    await this.context.database.source.destroy();
  }
}
