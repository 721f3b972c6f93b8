import { execFileSync, spawnSync } from 'node:child_process';
import { randomUUID } from 'node:crypto';
import {
  existsSync,
  mkdirSync,
  mkdtempSync,
  readdirSync,
  readFileSync,
  rmSync,
  statSync,
  writeFileSync,
} from 'node:fs';
import { createServer, Server } from 'node:http';
import { AddressInfo } from 'node:net';
import { basename, join, resolve } from 'node:path';
import { setTimeout as sleep } from 'node:timers/promises';
import { endpoints } from '@crow/contract/endpoints';
import { Program } from '@crow/e2e/program';
import { hostileFiles } from './hostile/files';
import { Chance } from './piles/chance';

/**
 * Attacks the program as it runs, and says what held: node scripts/bench.mjs attack [KILLS] [FOLDER with more hostile files]
 * Files that are broken in every way are taken in, sorted and filed; requests that no page of ours sends; scanners that never answer
 * and never end; a shelf whose disk is full, and whose drive goes away (as root only: small file systems are mounted); then server,
 * workers, database and launcher are killed at random moments, and the books are compared after each.
 */
const [kills = '200', folder] = process.argv.slice(2);
const KILLS = Number(kills);
const PATIENCE_MS = 120_000;
const SEED = 20_261_127;

const failures: string[] = [];
function report(what: string, held: boolean, figure = ''): void {
  if (!held) failures.push(what);
  console.log(`${held ? 'held  ' : 'FAILED'}  ${what}${figure && `: ${figure}`}`);
}

async function until(condition: () => Promise<boolean> | boolean, milliseconds = PATIENCE_MS): Promise<boolean> {
  for (const end = Date.now() + milliseconds; Date.now() < end; await sleep(150)) {
    if (await Promise.resolve(condition()).catch(() => false)) return true;
  }
  return false;
}

/** Sends a file as a stack of its own. @returns its id, and the status of the answer */
async function send(program: Program, name: string, bytes: Uint8Array, stack: string = randomUUID()) {
  const answer = await program.sendFile(name, bytes, { stack, file: stack }).catch(() => undefined);
  return { stack, status: answer?.status ?? 0 };
}

const idle = (program: Program) =>
  until(async () => {
    const { arriving, unread, filing } = await program.ask(endpoints.overview, {});
    return arriving + unread + filing === 0;
  });

/** Memory of the server process, in MB. */
function serverMegabytes(program: Program): number {
  const server = program.processes().find(({ part }) => part === 'server');
  const found = server && /VmRSS:\s+(\d+)/.exec(readFileSync(`/proc/${server.pid}/status`, 'utf8'));
  return found ? Math.round(Number(found[1]) / 1024) : 0;
}

async function hostileCorpus(program: Program): Promise<void> {
  const files = await hostileFiles();
  for (const name of folder ? readdirSync(folder) : [])
    if (statSync(join(folder, name)).isFile() && !name.endsWith('.md'))
      files.push([name, readFileSync(join(folder, name))]);
  for (const [name, bytes] of files) {
    const { status } = await send(program, basename(name), bytes);
    report(`taking in ${name}`, status === 201 || (status >= 400 && status < 500), String(status));
  }
  report('nothing of it is waited for for ever', await idle(program));
  const stacks = await program.ask(endpoints.listStacks, {});
  for (const { id, pages, name } of stacks) {
    if (pages === 0) continue;
    const refused = await program.ask(endpoints.sortStack, { params: { id } }).then(
      () => '',
      (error: Error) => error.message,
    );
    report(`sorting ${name}`, refused === '', refused);
  }
  const waiting = await program.ask(endpoints.listWaiting, {});
  for (const { id } of waiting) {
    const opened = await program.ask(endpoints.readDocument, { params: { id } }).catch(() => undefined);
    report('opening a document made of it', opened !== undefined);
    await program
      .ask(endpoints.fileDocument, { params: { id }, body: { name: 'Hostile', folderPath: 'Hostile' } })
      .catch(() => report('filing a document made of it', false));
  }
  await until(async () => {
    const { id } = (await program.ask(endpoints.listFolders, {})).find(({ path }) => path === 'Hostile')!;
    const filed = await program.ask(endpoints.listDocuments, { params: { id }, query: {} });
    return filed.every(({ state, problem }) => state === 'filed' || problem !== null);
  });
  for (const q of ['\u0308', '"', '((', "'", '&|!', 'total>9e99', 'date:9999-99', '-'.repeat(500), 'ﷺ'.repeat(200)])
    report(`finding ${JSON.stringify(q.slice(0, 12))}`, await answers(program, `/api/find?q=${encodeURIComponent(q)}`));
}

/** A paper of one page. */
type Text = (name: string) => Promise<Uint8Array>;

const answers = async (program: Program, path: string) => (await program.fetch(path)).status < 500;

async function requests(program: Program): Promise<void> {
  const outside = (path: string, headers: Record<string, string> = {}) =>
    fetch(program.address + path, { headers, redirect: 'manual' }).then(({ status }) => status);
  report('no session, no answer', (await outside('/api/overview')) === 401);
  report('no session, no page', (await outside('/')) === 401);
  const { cookie } = program.session;
  report(
    'a page of another site',
    (await outside('/api/overview', { cookie, origin: 'http://elsewhere.example' })) === 403,
  );
  const before = serverMegabytes(program);
  const long = 'x'.repeat(64 * 1024 * 1024);
  for (const type of ['text/plain', 'application/json', 'application/x-www-form-urlencoded'])
    for (const path of ['/api/uploads', '/api/folders', '/api/shelf/archive?name=x'])
      await program
        .fetch(path, {
          method: path.includes('archive') ? 'PUT' : 'POST',
          body: long,
          headers: { 'content-type': type },
        })
        .catch(() => undefined);
  report(
    'requests of 64 MB of text',
    serverMegabytes(program) - before < 150,
    `${serverMegabytes(program) - before} MB more`,
  );
  const deep = `{"path":${'['.repeat(200_000)}${']'.repeat(200_000)}}`;
  const { status } = await program.fetch('/api/folders', {
    method: 'POST',
    body: deep,
    headers: { 'content-type': 'application/json' },
  });
  report('JSON nested 200,000 deep', status === 400, String(status));
  for (const path of ['/', '/proc', '/proc/self', '/sys', '/dev', '/etc', program.home]) {
    const refused = await program.ask(endpoints.watchFolder, { body: { path, purpose: 'sort', confirmed: true } }).then(
      () => false,
      () => true,
    );
    report(`watching ${path === program.home ? 'its own home' : path} is refused`, refused);
  }
  report('/api/about without its slash', (await program.fetch('/api/about')).status === 200);
}

/** A scanner that answers as it is told. */
async function scannerThat(
  answer: (url: string, write: (text: string) => void, end: () => void) => void,
): Promise<Server> {
  const server = createServer((request, response) => {
    response.writeHead(200, { 'content-type': 'text/xml' });
    answer(
      request.url ?? '',
      (text) => response.write(text),
      () => response.end(),
    );
    request.on('close', () => response.destroy());
  });
  await new Promise<void>((done) => server.listen(0, '127.0.0.1', done));
  return server;
}

async function scanners(program: Program): Promise<void> {
  const silent = await scannerThat(() => undefined);
  const began = Date.now();
  const address = (server: Server) => `http://127.0.0.1:${(server.address() as AddressInfo).port}/eSCL`;
  const add = (server: Server) =>
    program.ask(endpoints.addScanner, { body: { address: address(server) } }).then(
      () => true,
      () => false,
    );
  report(
    'a scanner that never answers is given up',
    !(await add(silent)),
    `${((Date.now() - began) / 1000).toFixed(0)} s`,
  );
  const before = serverMegabytes(program);
  let flooding = true;
  const endless = await scannerThat((_url, write) => {
    const flood = () => {
      if (!flooding) return;
      write('<a>'.repeat(100_000));
      setTimeout(flood, 1);
    };
    flood();
  });
  report('a scanner whose answer never ends is given up', !(await add(endless)));
  report(
    'and takes no memory',
    serverMegabytes(program) - before < 100,
    `${serverMegabytes(program) - before} MB more`,
  );
  flooding = false;
  for (const server of [silent, endless]) {
    server.closeAllConnections();
    server.close();
  }
}

/** A small file system of its own, where the machine lets us have one. */
function mountSmall(path: string, megabytes: number): boolean {
  mkdirSync(path, { recursive: true });
  try {
    execFileSync('mount', ['-t', 'tmpfs', '-o', `size=${megabytes}m,mode=0700`, 'tmpfs', path], { stdio: 'ignore' });
    return true;
  } catch {
    return false;
  }
}

async function fullDisk(text: Text): Promise<void> {
  const home = mkdtempSync(resolve('.crow/attack-'));
  const shelf = `${home}-shelf`;
  if (!mountSmall(shelf, 400)) {
    console.log('left out  full disks: no file system can be mounted here');
    return rmSync(home, { recursive: true, force: true });
  }
  const program = await Program.start('start', home, { CROW_SHELF: shelf });
  try {
    const file = async (name: string) => {
      const { stack, status } = await send(program, `${name}.pdf`, await text(name));
      if (status !== 201) return status;
      await idle(program);
      const { documents } = await program.ask(endpoints.sortStack, { params: { id: stack } });
      await program.ask(endpoints.fileDocument, { params: { id: documents[0] }, body: { name, folderPath: 'Full' } });
      return status;
    };
    const there = (name: string) => existsSync(join(shelf, 'Full', `${name}.pdf`));
    await file('before');
    report('filing on a disk with room', await until(() => there('before')));
    await send(program, 'waits.pdf', await text('waits'));
    await idle(program);
    writeFileSync(join(shelf, 'ballast'), Buffer.alloc(399 * 1024 * 1024), { flag: 'w' });
  } catch (error) {
    if ((error as NodeJS.ErrnoException).code !== 'ENOSPC') throw error;
  }
  try {
    const troubles = async () => (await program.ask(endpoints.overview, {})).troubles.map(({ code }) => code);
    report('a full disk is told', await until(async () => (await troubles()).includes('disk-full')));
    const { status } = await send(program, 'more.pdf', await text('more'));
    report('nothing more is taken in', status === 507, String(status));
    const [{ id }] = await program.ask(endpoints.listStacks, {});
    const { documents } = await program.ask(endpoints.sortStack, { params: { id } });
    await program.ask(endpoints.fileDocument, {
      params: { id: documents[0] },
      body: { name: 'waits', folderPath: 'Full' },
    });
    await sleep(3000);
    rmSync(join(shelf, 'ballast'));
    const there = () => existsSync(join(shelf, 'Full', 'waits.pdf'));
    report('what waits goes on by itself when there is room', await until(there));
    report('and the trouble is told no more', await until(async () => (await troubles()).length === 0));
    execFileSync('umount', ['-l', shelf]);
    report('a drive that is gone is told', await until(async () => (await troubles()).includes('shelf-gone')));
    report('nothing is written in its place', readdirSync(shelf).length === 0);
  } finally {
    await program.end();
    spawnSync('umount', ['-l', shelf]);
    rmSync(shelf, { recursive: true, force: true });
  }
}

/** What was acknowledged must be there, once, whatever was killed. */
async function killed(program: Program, text: Text): Promise<void> {
  const chance = new Chance(SEED);
  const parts = ['server', 'worker', 'database'] as const;
  const acknowledged = new Map<string, string>();
  let [lost, doubled] = [0, 0];
  const books = async () => {
    const stacks = await program.askUntilAnswered(endpoints.listStacks, {});
    const ids = stacks.map(({ id }) => id);
    if (new Set(ids).size !== ids.length) doubled++;
    for (const [stack, name] of acknowledged) {
      const found = await program.askUntilAnswered(endpoints.readStack, { params: { id: stack } });
      if (found.files.filter((file) => file.name === name).length !== 1) lost++;
      if (found.pageList.length > 1) doubled++;
    }
  };
  for (let round = 0; round < KILLS; round++) {
    // A blow that falls on what is still getting up finds nothing to break.
    await program.askUntilAnswered(endpoints.overview, {});
    const name = `round ${round}.pdf`;
    const sending = send(program, name, await text(name));
    await sleep(chance.between(0, 250));
    const part = chance.pick(parts);
    program.kill(part);
    const { stack, status } = await sending;
    if (status === 201) acknowledged.set(stack, name);
    // Every so often what has come is sorted and filed while the next blow falls.
    if (round % 5 === 4) {
      const ready = (await program.askUntilAnswered(endpoints.listStacks, {})).filter(
        ({ pages, read }) => pages > 0 && read >= pages,
      );
      for (const { id } of ready.slice(0, 4)) {
        const { documents } = await program
          .ask(endpoints.sortStack, { params: { id } })
          .catch(() => ({ documents: [] as string[] }));
        for (const document of documents)
          void program
            .ask(endpoints.fileDocument, { params: { id: document }, body: { name: id, folderPath: 'Killed' } })
            .catch(() => undefined);
      }
    }
    if (round % 10 === 9) await books();
  }
  report(
    'everything comes to rest after the kills',
    await until(async () => {
      const { arriving, unread } = await program.askUntilAnswered(endpoints.overview, {});
      return arriving + unread === 0;
    }, 300_000),
  );
  for (const { id } of await program.askUntilAnswered(endpoints.listStacks, {}))
    await program.ask(endpoints.sortStack, { params: { id } }).catch(() => undefined);
  for (const { id } of await program.askUntilAnswered(endpoints.listWaiting, {})) {
    const { stackId } = await program.ask(endpoints.readDocument, { params: { id } });
    await program
      .ask(endpoints.fileDocument, { params: { id }, body: { name: stackId!, folderPath: 'Killed' } })
      .catch(() => undefined);
  }
  report(
    'everything is filed',
    await until(async () => (await program.ask(endpoints.overview, {})).filing === 0, 300_000),
  );
  await books();
  const onDisk = readdirSync(join(program.shelf, 'Killed')).map((name) => name.replace(/\.pdf$/, ''));
  const missing = [...acknowledged.keys()].filter((stack) => !onDisk.includes(stack));
  report(
    `${KILLS} kills: pages lost`,
    lost === 0 && missing.length === 0,
    `${lost + missing.length} of ${acknowledged.size}`,
  );
  const twice = onDisk.filter((name) => / \(\d+\)$/.test(name)).length;
  report(`${KILLS} kills: anything there twice`, doubled === 0 && twice === 0, String(doubled + twice));
}

const { textPdf } = await import('@crow/server/testing/made');
const text = (name: string) =>
  textPdf(`Saltgate Yarns Ltd\nDelivery note\nThe paper called ${name}\nTwelve skeins of madder`);
const program = await Program.start();
try {
  await requests(program);
  await scanners(program);
  await hostileCorpus(program);
  await fullDisk(text);
  if (KILLS > 0) await killed(program, text);
} finally {
  await program.end();
}
console.log(failures.length === 0 ? 'Everything held.' : `${failures.length} did not hold.`);
process.exit(failures.length === 0 ? 0 : 1);
