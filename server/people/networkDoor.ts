import { readFileSync } from 'node:fs';
import { createServer, Server } from 'node:https';
import { IncomingMessage, ServerResponse } from 'node:http';
import { AddressInfo } from 'node:net';
import { FastifyInstance } from 'fastify';
import { NetworkDoor as ShownDoor } from '@crow/contract/people';
import { Problem } from '@crow/contract/problems';
import { Authority, ServerCertificate } from './authority';
import { ownNames } from './origins';
import { Context } from '../platform/context';
import { Setting } from '../platform/entities';
import { Asking, record } from '../platform/history';
import { announce } from '../platform/live';

const SETTING = 'door';
/** A machine gets another address when it wakes up in another network. */
const LOOK_EVERY_MS = 30_000;
/** A certificate is good for a year; one that is this old is made anew. */
const RENEW_AFTER_MS = 300 * 24 * 3_600_000;

/** What the owner has set up outside of the program, for other devices. */
export interface DoorPlan {
  /** Where the authority that is made on this machine is kept. */
  folder: string;
  /** The port for other devices; 0 takes any. */
  port: number;
  /** The owner's own origin (CROW_ORIGIN). */
  named?: URL;
  /** PEM files of the owner's own certificate and the key to it (CROW_CERTIFICATE, CROW_CERTIFICATE_KEY); these are shown then. */
  certificate?: { certificateFile: string; keyFile: string };
}

/**
 * The door for other devices: the same application, over TLS, at all addresses of this machine. Shut unless the owner opens it; whoever comes
 * by it needs a session as everybody does.
 */
export class NetworkDoor {
  private server: Server | undefined;
  private authority: Authority | undefined;
  private shown: { names: string[]; at: number } | undefined;
  /** The owner's own certificate, as it was read last. */
  private own: string | undefined;
  private problem: Problem | undefined;
  private looking: NodeJS.Timeout | undefined;
  /** The port by which this machine itself reaches the program. */
  private here: () => number | undefined = () => undefined;
  private handle: (request: IncomingMessage, response: ServerResponse) => void = () => undefined;

  constructor(
    private readonly context: Context,
    private readonly plan: DoorPlan,
  ) {}

  /** Opens it if it was open when the program ended. */
  async start(app: FastifyInstance): Promise<void> {
    this.handle = app.routing as unknown as typeof this.handle;
    this.here = () => (app.server.address() as AddressInfo | null)?.port;
    const kept = await this.context.database.source.manager.findOneBy(Setting, { name: SETTING });
    if ((kept?.value as { open?: boolean } | undefined)?.open) await this.tryToOpen();
  }

  /** @throws Problem 'door-no-address', 'door-stuck' */
  async change(actor: Asking, open: boolean): Promise<ShownDoor> {
    const { source } = this.context.database;
    this.problem = undefined;
    if (open) await this.open();
    else await this.shut();
    await source.transaction(async (manager) => {
      await manager.upsert(Setting, { name: SETTING, value: { open } }, ['name']);
      await record(manager, actor, open ? 'opened' : 'shut', 'door', null);
      await announce(manager, 'people', null);
    });
    return this.show();
  }

  async show(): Promise<ShownDoor> {
    const open = this.server !== undefined || this.isBehindProxy;
    return {
      open,
      byProxy: this.isBehindProxy,
      addresses: open ? this.addresses : [],
      fingerprint: this.server && this.authority ? await this.authority.fingerprint() : null,
      problem: this.problem?.report ?? null,
    };
  }

  /** Where a device comes in that is let in by a code. @throws Problem 'door-shut' */
  get entrance(): string {
    const [first] = this.server || this.isBehindProxy ? this.addresses : [];
    if (!first) throw new Problem('door-shut');
    return first;
  }

  /** Where browsers reach the program, and whether those of other devices do. */
  get reach(): { address: string; reached: boolean } {
    const [first] = this.server || this.isBehindProxy ? this.addresses : [];
    return { address: first ?? `http://127.0.0.1:${this.here() ?? 80}`, reached: first !== undefined };
  }

  /** The certificate that devices are told to trust (DER); nothing where the owner brings one. */
  get certificate(): Buffer | undefined {
    return this.authority?.certificate;
  }

  async close(): Promise<void> {
    await this.shut();
  }

  /** A proxy on this machine is the door then, which the owner opens and shuts. */
  private get isBehindProxy(): boolean {
    return this.plan.named !== undefined && !this.plan.certificate;
  }

  private get addresses(): string[] {
    if (this.plan.named) return [this.plan.named.origin];
    const { port } = this.server!.address() as AddressInfo;
    return this.shown!.names.map((name) => `https://${name}:${port}`);
  }

  private async tryToOpen(): Promise<void> {
    try {
      await this.open();
    } catch (error) {
      if (!(error instanceof Problem)) throw error;
      // A machine that is not in its network yet: looked for again.
      this.problem = error;
      this.looking ??= this.lookAgain();
    }
  }

  private async open(): Promise<void> {
    if (this.server || this.isBehindProxy) return;
    const certificate = await this.certify();
    const server = createServer({ cert: certificate.certificate, key: certificate.key }, (request, response) =>
      this.handle(request, response),
    );
    try {
      await new Promise<void>((resolve, reject) => {
        server.once('error', reject);
        server.listen({ port: this.plan.port, host: '0.0.0.0' }, resolve);
      });
    } catch (error) {
      throw new Problem('door-stuck', { detail: (error as Error).message });
    }
    // As the door on this machine has it: a large file takes as long as it takes.
    server.requestTimeout = 0;
    this.server = server;
    this.problem = undefined;
    this.looking ??= this.lookAgain();
  }

  private async shut(): Promise<void> {
    clearInterval(this.looking);
    this.looking = undefined;
    const { server } = this;
    this.server = undefined;
    if (!server) return;
    const closed = new Promise((resolve) => server.close(resolve));
    server.closeAllConnections();
    await closed;
  }

  private lookAgain(): NodeJS.Timeout {
    const looking = setInterval(() => {
      this.keepUp().catch((error) => this.context.log.warn({ error }, 'looking after the door'));
    }, LOOK_EVERY_MS);
    return looking.unref();
  }

  /** Shows another certificate when the machine has other addresses, or the one shown is old. */
  private async keepUp(): Promise<void> {
    if (!this.server) return this.tryToOpen();
    if (this.plan.certificate) return this.showIfRenewed();
    const names = this.names();
    const isSame = names.join() === this.shown!.names.join();
    if ((isSame && Date.now() - this.shown!.at < RENEW_AFTER_MS) || names.length === 0) return;
    const { certificate, key } = await this.certify();
    this.server.setSecureContext({ cert: certificate, key });
    await announce(this.context.database.source.manager, 'people', null);
  }

  /** The owner's own certificate is renewed by whatever made it; the new one is shown without a new start. */
  private async showIfRenewed(): Promise<void> {
    const before = this.own;
    const { certificate, key } = await this.certify();
    if (certificate !== before) this.server!.setSecureContext({ cert: certificate, key });
  }

  private names(): string[] {
    return ownNames().filter((name) => this.authority!.vouchesFor(name));
  }

  /** @throws Problem 'door-no-address', 'door-stuck' */
  private async certify(): Promise<ServerCertificate> {
    if (this.plan.certificate) {
      const { certificateFile, keyFile } = this.plan.certificate;
      try {
        this.own = readFileSync(certificateFile, 'utf8');
        return { certificate: this.own, key: readFileSync(keyFile, 'utf8') };
      } catch (error) {
        throw new Problem('door-stuck', { detail: (error as Error).message });
      }
    }
    this.authority ??= await Authority.in(this.plan.folder, ownNames());
    const names = this.names();
    if (names.length === 0) throw new Problem('door-no-address');
    this.shown = { names, at: Date.now() };
    return this.authority.certify([...names, 'localhost', '127.0.0.1']);
  }
}
