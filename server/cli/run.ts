import { fork } from 'node:child_process';
import { existsSync, mkdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { join, resolve } from 'node:path';
import { Jobs } from '../platform/jobs';
import { makeEntryKey } from '../people/sessions';
import { connect, migrate } from '../platform/database';
import { Cluster, clusterUrl, prepareCluster, startPostgres, waitForEarlierEnd, waitUntilReady } from './cluster';
import { Kept } from './kept';
import { freePort } from './ports';

const WORKERS = 2;

export interface Running {
  /** Where the program answers browsers that have been let in. */
  address: string;
  /** Makes an address that lets one browser in, once. */
  entrance(): Promise<string>;
  databaseUrl: string;
  shelf: string;
  /** Where the stand-in scanner answers, if there is one. */
  scanner?: string;
  /** Where the stand-in mail server takes mails, and shows them, if there is one. */
  mail?: { port: number; page: string };
  /** The processes, by name: database, server, worker 1, worker 2, and the stand-in devices. */
  parts: Map<string, Kept>;
  stop(): Promise<void>;
}

/** The folder that the built program lies in; the web application is beside it. */
const BUILD = join(import.meta.dirname, '.');

/**
 * Starts the whole program for one home folder: database, migrations, server and workers, each started again if it ends.
 * @throws Error with a sentence when the home is in use
 */
export async function run(home: string, say: (line: string) => void, { standIns = false } = {}): Promise<Running> {
  // Whatever the program writes is for its owner alone.
  process.umask(0o077);
  mkdirSync(home, { recursive: true });
  const lock = takeLock(home);
  const cluster = prepareCluster(home);
  await waitForEarlierEnd(cluster);
  const parts = new Map<string, Kept>();
  const stop = async () => {
    const others = [...parts.values()].filter(({ name }) => name !== 'database');
    await Promise.all(others.map((part) => part.stop('SIGTERM')));
    await parts.get('database')?.stop('SIGINT', 20_000);
    rmSync(lock, { force: true });
  };
  try {
    return await startParts(home, cluster, parts, stop, say, standIns);
  } catch (error) {
    await stop();
    throw error;
  }
}

/**
 * Where the program runs that uses a home folder, if one does: its process, and, once it has them, its address and the port of
 * its database.
 */
export function runningIn(home: string): { pid: string; address: string; databasePort: number } | undefined {
  const lock = join(home, 'running');
  if (!existsSync(lock)) return undefined;
  const [pid, address, databasePort] = readFileSync(lock, 'utf8').split('\n');
  const alive = existsSync(`/proc/${pid}`) && readFileSync(`/proc/${pid}/cmdline`, 'utf8').includes('crow');
  return alive ? { pid, address, databasePort: Number(databasePort) } : undefined;
}

/** An address at which a program lets one browser in, once. */
export async function newEntrance(address: string, databaseUrl: string): Promise<string> {
  const database = await connect(databaseUrl, { poolSize: 1 });
  try {
    return `${address}/enter?key=${await makeEntryKey(database.source.manager)}`;
  } finally {
    await database.source.destroy();
  }
}

function takeLock(home: string): string {
  const other = runningIn(home);
  if (other)
    throw new Error(`It is running already${other.address && `, at ${other.address}`} (process ${other.pid}).`);
  const lock = join(home, 'running');
  writeFileSync(lock, `${process.pid}\n`);
  return lock;
}

async function startParts(
  home: string,
  cluster: Cluster,
  parts: Map<string, Kept>,
  stop: () => Promise<void>,
  say: (line: string) => void,
  standIns: boolean,
): Promise<Running> {
  const keep = (part: Kept) => {
    parts.set(part.name, part);
    part.start();
  };
  const restarted = (name: string, code: number | null) =>
    say(`The ${name} ended unexpectedly (${code ?? 'killed'}); starting it again.`);
  const databasePort = await freePort();
  keep(new Kept('database', () => startPostgres(cluster, databasePort), restarted));
  await waitUntilReady(cluster, databasePort);
  const databaseUrl = clusterUrl(cluster, databasePort);
  await prepareDatabase(databaseUrl);

  const scratch = join(home, 'scratch');
  rmSync(scratch, { recursive: true, force: true });
  mkdirSync(scratch, { recursive: true });
  const shelf = process.env.CROW_SHELF ? resolve(process.env.CROW_SHELF) : join(home, 'shelf');
  const port = await keptPort(join(home, 'port'));
  const doorPort = process.env.CROW_DOOR_PORT ?? (await keptPort(join(home, 'door-port')));
  const scannerPort = standIns ? await keptPort(join(home, 'scanner-port')) : undefined;
  const mailPort = standIns ? await keptPort(join(home, 'mail-port')) : undefined;
  const mailPagePort = standIns ? await keptPort(join(home, 'mail-page-port')) : undefined;
  const environment = {
    ...process.env,
    CROW_DATABASE: databaseUrl,
    CROW_SHELF: shelf,
    CROW_DATABASE_FOLDER: cluster.folder,
    CROW_HOME_FOLDER: resolve(home),
    CROW_WEB: join(BUILD, '../web'),
    CROW_PORT: `${port}`,
    CROW_DOOR_PORT: `${doorPort}`,
    TMPDIR: scratch,
    CROW_SCRATCH: scratch,
    ...(scannerPort && { CROW_SCANNER_PORT: `${scannerPort}` }),
    ...(mailPort && { CROW_MAIL_PORT: `${mailPort}`, CROW_MAIL_PAGE_PORT: `${mailPagePort}` }),
  };
  const node =
    (entry: string, flags: string[] = []) =>
    () =>
      fork(join(BUILD, entry), {
        env: environment,
        stdio: ['ignore', 'ignore', 'pipe', 'ipc'],
        detached: true,
        execArgv: ['--enable-source-maps', ...flags],
      });
  const server = new Kept('server', node('server.mjs', ['--max-semi-space-size=8']), restarted);
  keep(server);
  for (let number = 1; number <= WORKERS; number++) keep(new Kept(`worker ${number}`, node('worker.mjs'), restarted));
  if (scannerPort) keep(new Kept('stand-in scanner', node('scanner.mjs'), restarted));
  if (mailPort) keep(new Kept('stand-in mail server', node('mail.mjs'), restarted));
  await listening(server);
  const address = `http://127.0.0.1:${port}`;
  writeFileSync(join(home, 'running'), `${process.pid}\n${address}\n${databasePort}\n`);
  return {
    address,
    entrance: () => newEntrance(address, databaseUrl),
    databaseUrl,
    shelf,
    scanner: scannerPort ? `http://127.0.0.1:${scannerPort}` : undefined,
    mail: mailPort ? { port: mailPort, page: `http://127.0.0.1:${mailPagePort}` } : undefined,
    parts,
    stop,
  };
}

/** The port that was taken last time, if it is free, so that addresses stay the same. */
async function keptPort(file: string): Promise<number> {
  const port = await freePort(existsSync(file) ? Number(readFileSync(file, 'utf8')) : 0);
  writeFileSync(file, `${port}`);
  return port;
}

async function prepareDatabase(url: string): Promise<void> {
  const database = await connect(url, { poolSize: 2 });
  await migrate(database);
  await database.source.destroy();
  const jobs = await Jobs.open(url, { supervise: false });
  await jobs.prepare();
  await jobs.close();
}

function listening(server: Kept): Promise<void> {
  return new Promise((resolve, reject) => {
    server.child?.on('message', () => resolve());
    server.child?.on('exit', (code) => reject(new Error(`The server could not start (it ended with ${code}).`)));
  });
}
