import { FastifyReply, FastifyRequest } from 'fastify';
import { LiveEvent } from '@crow/contract/settings';
import { LiveListener } from '../live';

/** Changes are sent at most this often; between, they are gathered. */
const GATHER_MS = 120;
const HEARTBEAT_MS = 20_000;

/** Tells every open window what has changed, as server-sent events. */
export class LiveHub {
  private readonly windows = new Set<FastifyReply>();
  private readonly gathered = new Map<string, LiveEvent>();
  private timer: NodeJS.Timeout | undefined;
  private readonly heartbeat: NodeJS.Timeout;
  private readonly listener: LiveListener;

  constructor(databaseUrl: string) {
    this.listener = new LiveListener(databaseUrl, (event) => this.gather(event));
    this.heartbeat = setInterval(() => this.windows.forEach(({ raw }) => raw.write(': still here\n\n')), HEARTBEAT_MS);
    this.heartbeat.unref();
  }

  start(): Promise<void> {
    return this.listener.start();
  }

  attend(request: FastifyRequest, reply: FastifyReply): void {
    reply.hijack();
    reply.raw.writeHead(200, {
      'content-type': 'text/event-stream',
      'cache-control': 'no-store',
      'x-accel-buffering': 'no',
      connection: 'keep-alive',
    });
    reply.raw.write('retry: 1000\n\ndata: {"kind":"hello"}\n\n');
    this.windows.add(reply);
    request.raw.on('close', () => this.windows.delete(reply));
  }

  private gather(event: LiveEvent | null): void {
    // After the database was away, anything may have changed: the same as a new beginning for the windows.
    if (!event) return this.send('{"kind":"hello"}');
    this.gathered.set(`${event.kind} ${event.id}`, event);
    this.timer ??= setTimeout(() => {
      this.timer = undefined;
      for (const each of this.gathered.values()) this.send(JSON.stringify(each));
      this.gathered.clear();
    }, GATHER_MS);
  }

  private send(data: string): void {
    for (const { raw } of this.windows) raw.write(`data: ${data}\n\n`);
  }

  async close(): Promise<void> {
    clearInterval(this.heartbeat);
    clearTimeout(this.timer);
    for (const { raw } of this.windows) raw.end();
    await this.listener.close();
  }
}
