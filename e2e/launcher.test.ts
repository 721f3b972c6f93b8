import { BATCH } from '@crow/demo/papers';
import { pagesAsPdf } from '@crow/demo/pagesAsPdf';
import { scanPaper } from '@crow/demo/capture';
import { execFileSync, spawnSync } from 'node:child_process';
import { chmodSync, mkdirSync, mkdtempSync, readFileSync, rmSync, statSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join, resolve } from 'node:path';
import { scanned, scratchFolder, textPdf, ZIP } from '@crow/server/testing/made';
import { endpoints } from '@crow/contract/endpoints';
import { prepareCluster } from '@crow/server/cli/cluster';
import { Program } from './program';

const CROW = resolve('.crow/build/node/crow.mjs');
const folder = scratchFolder();
const crow = (...args: string[]) => {
  const { status, stdout, stderr } = spawnSync('node', [CROW, ...args], { encoding: 'utf8', cwd: folder });
  return {
    status,
    lines: stdout
      .trim()
      .split('\n')
      .filter(Boolean)
      .map((line) => JSON.parse(line) as Record<string, unknown>),
    stderr,
  };
};
const fileOf = (name: string, bytes: Uint8Array) => {
  writeFileSync(join(folder, name), bytes);
  return name;
};

describe('starting and ending', () => {
  afterEach(() => Program.endAll());

  it('leaves no process behind on Ctrl-C or when the launcher is killed, and finds everything again at the next start', async () => {
    const first = await Program.start();
    await first.ask(endpoints.makeFolder, { body: { path: 'Kept' } });
    expect(
      first
        .processes()
        .filter(({ part }) => part !== 'other')
        .map(({ part }) => part)
        .sort(),
    ).toEqual(['database', 'server', 'worker', 'worker']);
    expect(await first.stop('SIGINT')).toEqual([]);
    const made = () => statSync(join(prepareCluster(first.home).folder, 'PG_VERSION')).ino;
    const before = made();
    const second = await Program.start('start', first.home);
    expect(second.address).toBe(first.address);
    expect(await second.stop('SIGKILL')).toEqual([]);
    const third = await Program.start('start', first.home);
    expect((await third.ask(endpoints.listFolders, {})).map(({ path }) => path)).toEqual(['Kept']);
    expect(made()).toBe(before);
  });

  it('takes up a start that broke off half-way', async () => {
    const home = mkdtempSync(resolve('.crow/e2e-'));
    // The place of the database was chosen, and its making begun.
    const { folder: place } = prepareCluster(home);
    rmSync(place, { recursive: true });
    mkdirSync(`${place}.making/base`, { recursive: true });
    writeFileSync(`${place}.pw`, 'half');
    const again = await Program.start('start', home);
    expect(await again.ask(endpoints.listFolders, {})).toEqual([]);
  });

  it('starts in a home that nobody else may enter, once, keeps what it writes to its owner, and lets nobody in from elsewhere', async () => {
    const closed = mkdtempSync(join(tmpdir(), 'crow-closed-'));
    chmodSync(closed, 0o700);
    const program = await Program.start('start', join(closed, 'deep', 'home'));
    await program.ask(endpoints.makeFolder, { body: { path: 'There' } });
    const modes = [program.home, program.shelf, join(program.home, 'scratch')].map(
      (path) => statSync(path).mode & 0o077,
    );
    expect(modes).toEqual([0, 0, 0]);
    expect(statSync(join(program.home, 'database-password')).mode & 0o077).toBe(0);
    expect(readFileSync(join(program.home, 'database-password'), 'utf8').length).toBeGreaterThan(20);

    const { status, stderr } = spawnSync('node', [CROW, 'start'], {
      encoding: 'utf8',
      env: { ...process.env, CROW_HOME: program.home },
    });
    expect(status).toBe(1);
    expect(stderr).toContain(program.address);

    const listening = readFileSync('/proc/net/tcp', 'utf8')
      .split('\n')
      .filter((line) => / 0A /.test(line));
    const port = Number(new URL(program.address).port).toString(16).toUpperCase().padStart(4, '0');
    expect(listening.filter((line) => line.includes(`:${port} `)).map((line) => line.trim().split(/\s+/)[1])).toEqual([
      `0100007F:${port}`,
    ]);
  });
});

describe('crow read', () => {
  it('prints all of it to a pipe that is read slowly', async () => {
    const words = Array.from({ length: 24 }, (_, line) => `Line ${line} of a long agreement about yarn and dye`).join(
      '\n',
    );
    const path = fileOf('long.pdf', await textPdf(...Array.from({ length: 20 }, () => words)));
    const command = `"${process.execPath}" "${CROW}" read "${join(folder, path)}" | (sleep 3; cat)`;
    const printed = execFileSync('sh', ['-c', command], { encoding: 'utf8', maxBuffer: 1e8 });
    expect(printed.length).toBeGreaterThan(200_000);
    expect((JSON.parse(printed) as { pages: object[] }).pages).toHaveLength(20);
  });

  it('prints a line for each file, in order, and goes on after a bad one', async () => {
    const names = [
      fileOf('a.jpg', await scanned('Quayside Parcels\nRECEIPT\n21/10/2026\nTOTAL 31.40')),
      fileOf('bad.pdf', ZIP),
      fileOf(
        'b.pdf',
        await textPdf('Spinnerei Wiesengrund GmbH\nRechnung\nDatum 20.05.2025\nBetrag für die Ware und das Porto'),
      ),
    ];
    const { status, lines } = crow('read', ...names);
    expect(status).toBe(1);
    expect(lines.map(({ file }) => file)).toEqual(names);
    expect(lines[1].error).toMatch(/does not contain any pages/);
    const [receipt, , invoice] = lines as unknown as {
      pages: { width: number; text: string; words: { text: string; box: number[]; confidence: number }[] }[];
      facts: Record<string, { value: string | number; page: number; box: number[]; confidence: number } | null>;
    }[];
    expect(receipt.pages[0].text).toContain('Quayside Parcels');
    expect(receipt.facts).toMatchObject({
      kind: { value: 'receipt', page: 1 },
      date: { value: '2026-10-21' },
      total: { value: 31.4 },
      // No sign of a currency stands on it, and none is made up.
      currency: null,
      tax: null,
    });
    expect(invoice.facts).toMatchObject({
      kind: { value: 'invoice' },
      vendor: { value: 'Spinnerei Wiesengrund GmbH' },
      date: { value: '2025-05-20' },
    });
    const [word] = receipt.pages[0].words;
    expect(word.box.every((value) => value >= 0 && value <= 2000)).toBe(true);
    expect(Object.keys(receipt.facts)).toEqual([
      'kind',
      'vendor',
      'date',
      'dueDate',
      'number',
      'currency',
      'net',
      'tax',
      'taxRate',
      'total',
      'amountDue',
      'reference',
      'customer',
      'order',
      'policy',
      'iban',
      'period',
      'ends',
      'opening',
      'closing',
      'lines',
      'bookings',
      'taxes',
      'subject',
    ]);
  });

  it('refuses languages and options that it does not know', () => {
    expect(crow('read', 'a.jpg', '--languages', 'klingon').stderr).toContain('klingon');
    expect(crow('read', 'a.jpg', '--colour', 'red').status).toBe(1);
    expect(crow('read').status).toBe(1);
  });
});

describe('crow sort', () => {
  it('prints where the documents of a pile begin, and which pages are blank', async () => {
    const papers = BATCH.slice(0, 3);
    const sheets = await Promise.all(
      papers.map(async (paper, index) => scanPaper(await paper.draw(), paper.pages, index)),
    );
    const blank = await scanned(' ');
    const pile = fileOf('pile.pdf', await pagesAsPdf([...sheets[0], blank, ...sheets[1], ...sheets[2]]));
    const { status, lines } = crow('sort', pile, fileOf('bad.pdf', ZIP));
    expect(status).toBe(1);
    const [{ documents, dropped }, bad] = lines as unknown as {
      documents: { pages: number[]; kind: string; confidence: number }[];
      dropped: number[];
      error?: string;
    }[];
    expect(documents.map(({ pages, kind }) => [pages, kind])).toEqual([
      [[1], 'invoice'],
      [[3, 4], 'letter'],
      [[5], 'invoice'],
    ]);
    expect(dropped).toEqual([2]);
    expect(Math.min(...documents.map(({ confidence }) => confidence))).toBeGreaterThan(0.9);
    expect(bad.error).toMatch(/does not contain any pages/);
  });
});

describe('crow bind', () => {
  it('makes one searchable PDF of all files, smaller when asked', async () => {
    const names = [
      fileOf('c.jpg', await scanned('The first page of two', { dpi: 300 })),
      fileOf('d.pdf', await textPdf('The second page is a vector page')),
    ];
    const { status, lines } = crow('bind', ...names, '--out', 'out.pdf');
    expect(status).toBe(0);
    expect(lines).toEqual([{ out: 'out.pdf', pages: 2, bytes: readFileSync(join(folder, 'out.pdf')).length }]);
    expect(execFileSync('pdftotext', [join(folder, 'out.pdf'), '-'], { encoding: 'utf8' })).toMatch(
      /The first page of two[^]*The second page is a vector page/,
    );
    execFileSync('qpdf', ['--check', join(folder, 'out.pdf')]);
    const small = crow('bind', 'c.jpg', '--out', 'small.pdf', '--size', 'small');
    const full = crow('bind', 'c.jpg', '--out', 'full.pdf');
    expect(Number(small.lines[0].bytes)).toBeLessThan(0.5 * Number(full.lines[0].bytes));
  });

  it('leaves out what it can’t open, and says so', async () => {
    const { status, lines } = crow(
      'bind',
      'missing.pdf',
      fileOf('e.pdf', await textPdf('Only this one is there to be bound')),
      '--out',
      'one.pdf',
    );
    expect(status).toBe(1);
    expect(lines[0]).toMatchObject({ file: 'missing.pdf', error: expect.stringContaining('can’t be found') });
    expect(lines[1]).toMatchObject({ pages: 1 });
  });
});

it('passes every command on from where it is called, and says which there are', () => {
  const called = (...args: string[]) =>
    spawnSync(resolve('crow'), args, { encoding: 'utf8', cwd: folder, env: { ...process.env, CROW_HOME: '' } });
  const commands = [...called('help').stderr.matchAll(/^ {2}\.\/crow (\S+)/gm)].map(([, name]) => name);
  expect(commands).toEqual(expect.arrayContaining(['outline', 'clean', 'read', 'sort', 'bind', 'match']));
  fileOf('one.csv', new TextEncoder().encode('id,date,total\nE1,2026-03-01,184.20\n'));
  fileOf('bank.csv', new TextEncoder().encode('Date,Name,Amount\n2026-03-02,Avery Stores,-9.20\n'));
  const matched = called('match', '--entries', 'one.csv', '--statement', 'bank.csv');
  expect(JSON.parse(matched.stdout)).toMatchObject({ openEntries: ['E1'], openLines: [1] });
  expect(called('key').stderr).toMatch(/is not running/);
  expect(called('juggle')).toMatchObject({ status: 2, stderr: expect.stringContaining('./crow match') });
});

describe('crow match', () => {
  const utf8 = (name: string, text: string) => fileOf(name, new TextEncoder().encode(text));

  it('prints which lines of statements pay which entries, lines counted over all files, each once', () => {
    const entries = utf8(
      'entries.csv',
      'id,date,due,who,number,total,currency\nE1,2026-03-01,2026-03-15,Harbour Fibre Mill Ltd,HF-2291,184.20,GBP\nE2,2026-03-02,,Avery Stores,S-77,-50.00,GBP\nE3,2026-03-03,,Nobody paid,N-1,12.34,GBP\n',
    );
    const first = utf8('first.csv', 'Date,Name,Details,Amount\n14/03/2026,HARBOUR FIBRE MILL,HF2291,-184.20\n');
    const second = utf8(
      'second.csv',
      'Date,Name,Details,Amount\n14/03/2026,HARBOUR FIBRE MILL,HF2291,-184.20\n20/03/2026,AVERY STORES,S-77,50.00\n21/03/2026,Corner Grocer,card,-3.10\n',
    );
    const { status, lines, stderr } = crow('match', '--entries', entries, '--statement', first, second);
    expect(status).toBe(0);
    const [{ ties, openEntries, openLines }] = lines as unknown as [
      { ties: { entries: string[]; lines: number[] }[]; openEntries: string[]; openLines: number[] },
    ];
    expect(ties.map((tie) => [tie.entries, tie.lines]).sort()).toEqual([
      [['E1'], [1]],
      [['E2'], [3]],
    ]);
    expect([openEntries, openLines]).toEqual([['E3'], [4]]);
    expect(stderr).toContain('1 lines are in more than one file');
  });

  it('says what is wrong with a file, and goes on with the rest', () => {
    const entries = utf8('few.csv', 'id,date,total\nE1,2026-03-01,184.20\n');
    const { status, lines, stderr } = crow(
      'match',
      '--entries',
      entries,
      '--statement',
      utf8('bad.csv', 'hello'),
      'gone.csv',
    );
    expect(status).toBe(1);
    expect(lines[0]).toMatchObject({ ties: [], openEntries: ['E1'] });
    expect(stderr).toMatch(/bad\.csv: No bookings were found[^]*gone\.csv/);
    expect(crow('match', entries).status).toBe(2);
  });
});
