import { randomUUID } from 'node:crypto';
import { ChildProcess, execFileSync, spawn } from 'node:child_process';
import { once } from 'node:events';
import { existsSync, mkdtempSync, readFileSync } from 'node:fs';
import { join, resolve } from 'node:path';
import { setTimeout as sleep } from 'node:timers/promises';
import { addressOf, asker, PIECE, uploadHeaders } from '@crow/contract/client';
import { endpoints } from '@crow/contract/endpoints';
import { Endpoint, Input, Output } from '@crow/contract/endpoint';
import { comeIn, Session } from '@crow/demo/comeIn';
import { PATIENCE_MS } from './patience';
import { deleteHome } from '@crow/server/cli/cluster';

const ENTRY = resolve('.crow/build/node/crow.mjs');

/** The program as a person runs it: launcher, database, server and workers, with a shelf of its own. */
export class Program {
  private static readonly running = new Set<Program>();

  private constructor(
    private readonly launcher: ChildProcess,
    readonly session: Session,
    readonly home: string,
  ) {}

  get address(): string {
    return this.session.address;
  }

  /** @param environment what the program is told beside where its home is */
  static async start(
    command: 'start' | 'demo' = 'start',
    home = mkdtempSync(resolve('.crow/e2e-')),
    environment: Record<string, string> = {},
  ): Promise<Program> {
    const launcher = spawn('node', [ENTRY, command], {
      env: { ...process.env, ...environment, CROW_HOME: home },
      stdio: ['ignore', 'pipe', 'pipe'],
    });
    let said = '';
    launcher.stdout.on('data', (piece: Buffer) => (said += piece.toString()));
    launcher.stderr.on('data', (piece: Buffer) => {
      said += piece.toString();
      // What the program itself calls an error is told beside the test that it happened in.
      if (/"level":50/.test(piece.toString())) process.stderr.write(piece);
    });
    for (const until = Date.now() + (command === 'demo' ? 3 : 1) * PATIENCE_MS; Date.now() < until; await sleep(50)) {
      const entrance = /Crow Shelf is at\s+(\S+)/.exec(said);
      if (entrance) {
        const program = new Program(launcher, await comeIn(entrance[1]), home);
        Program.running.add(program);
        return program;
      }
      if (launcher.exitCode !== null) break;
    }
    throw new Error(`The program did not start:\n${said}`);
  }

  /** An address that lets one more browser in. */
  entrance(): string {
    const env = { ...process.env, CROW_HOME: this.home };
    return execFileSync('node', [ENTRY, 'key'], { env, encoding: 'utf8' }).trim();
  }

  get shelf(): string {
    return join(this.home, 'shelf');
  }

  readonly ask = asker(async (address, call) => {
    const response = await this.fetch(address, { ...call });
    if (!response.ok) throw new Error(await response.text());
    return response;
  });

  /** Asks for an address of the program, as a browser that was let in. */
  fetch(
    path: string,
    { headers, ...request }: RequestInit & { headers?: Record<string, string> } = {},
  ): Promise<Response> {
    return fetch(this.address + path, { ...request, headers: { cookie: this.session.cookie, ...headers } });
  }

  /** Sends a file in one piece. @param where its stack, and what else is said of it */
  sendFile(
    name: string,
    bytes: Uint8Array,
    { stack, file = randomUUID() }: { stack: string; file?: string },
  ): Promise<Response> {
    const told = { stack, file, stackName: name, name, position: 0 };
    return this.fetch(addressOf(endpoints.sendFile, {}), {
      method: endpoints.sendFile.method,
      body: new Uint8Array(bytes),
      headers: { ...uploadHeaders(told, bytes.length), 'content-type': PIECE },
    });
  }

  /** The same, tried again while the program picks itself up after something was killed. */
  async askUntilAnswered<E extends Endpoint>(endpoint: E, input: Input<E>): Promise<Output<E>> {
    for (const until = Date.now() + 30_000; ; await sleep(200)) {
      try {
        return await this.ask(endpoint, input);
      } catch (error) {
        if (Date.now() > until) throw error;
      }
    }
  }

  /** Does away with all that was captured and is not filed: the next test is not to wait until that is read. */
  async clear(): Promise<void> {
    for (const { id } of await this.ask(endpoints.listStacks, {}))
      await this.ask(endpoints.deleteStack, { params: { id } });
    for (const { id } of await this.ask(endpoints.listWaiting, {}))
      await this.ask(endpoints.binDocument, { params: { id } });
  }

  /** The processes that belong to this run, by what they are. */
  processes(): { pid: number; part: 'server' | 'worker' | 'database' | 'other' }[] {
    const table = execFileSync('ps', ['-eo', 'pid=,ppid=,args='], { encoding: 'utf8' })
      .trim()
      .split('\n')
      .map((line) => /^\s*(\d+)\s+(\d+)\s+(.*)$/.exec(line)!)
      .map(([, pid, parent, command]) => ({ pid: Number(pid), parent: Number(parent), command }));
    const family = new Set([this.launcher.pid!]);
    for (let grown = true; grown;) {
      grown = false;
      for (const { pid, parent } of table) if (family.has(parent) && !family.has(pid)) grown = Boolean(family.add(pid));
    }
    family.delete(this.launcher.pid!);
    return table
      .filter(({ pid }) => family.has(pid))
      .map(({ pid, parent, command }) => {
        const ours = parent === this.launcher.pid;
        const part = /server\.mjs/.test(command)
          ? 'server'
          : /worker\.mjs/.test(command)
            ? 'worker'
            : ours && /postgres/.test(command)
              ? 'database'
              : 'other';
        return { pid, part };
      });
  }

  kill(part: 'server' | 'worker' | 'database'): void {
    for (const each of this.processes()) if (each.part === part) process.kill(each.pid, 'SIGKILL');
  }

  /** Ends it as Ctrl-C does; gives the processes that are left, which should be none. */
  async stop(signal: NodeJS.Signals = 'SIGINT'): Promise<number[]> {
    const before = this.processes();
    this.launcher.kill(signal);
    if (this.launcher.exitCode === null && this.launcher.signalCode === null) await once(this.launcher, 'exit');
    const left = () =>
      before.filter(
        ({ pid }) => existsSync(`/proc/${pid}`) && !/\) Z /.test(readFileSync(`/proc/${pid}/stat`, 'utf8')),
      );
    for (const until = Date.now() + 10_000; left().length > 0 && Date.now() < until;) await sleep(50);
    return left().map(({ pid }) => pid);
  }

  async end(): Promise<void> {
    await this.stop();
    deleteHome(this.home);
    Program.running.delete(this);
  }

  /** Ends those that a test that failed left running. */
  static async endAll(): Promise<void> {
    for (const program of Program.running) await program.end();
  }
}

/** Waits for something. @param told says, when it does not happen, what is there instead */
export async function until(
  condition: () => Promise<boolean> | boolean,
  milliseconds = PATIENCE_MS,
  told: () => Promise<unknown> | unknown = () => '',
): Promise<void> {
  for (const end = Date.now() + milliseconds; Date.now() < end; await sleep(100)) if (await condition()) return;
  throw new Error(`It did not happen in time. ${JSON.stringify(await told())}`);
}
