import { randomUUID } from 'node:crypto';
import { existsSync, readdirSync } from 'node:fs';
import { join } from 'node:path';
import { setTimeout as sleep } from 'node:timers/promises';
import { endpoints } from '@crow/contract/endpoints';
import { scannedPdf } from '@crow/server/testing/made';
import { Program, until } from './program';

const PAGES = 4;
type Part = Parameters<Program['kill']>[0];

let program: Program;
beforeAll(async () => void (program = await Program.start()));
afterAll(() => program?.end());

/** Sends a file as often as it takes until it has arrived, as the window does when told to try again. */
async function sendUntilTaken(stack: string, name: string, bytes: Buffer): Promise<void> {
  const file = randomUUID();
  for (const end = Date.now() + 40_000; Date.now() < end; await sleep(200)) {
    const sent = await program.sendFile(name, bytes, { stack, file }).catch(() => undefined);
    if (sent?.ok) return;
  }
  throw new Error('The file did not arrive.');
}

type Stage = 'sending' | 'reading' | 'filing';
/** Something that is killed so many milliseconds into a stage. */
type Kill = readonly [part: Part, stage: Stage, after: number];

/**
 * Goes the whole path with one file, with something killed at moments of it. Whatever is killed, the file's pages must be there,
 * be read, and be filed once.
 */
async function goThePath(name: string, kills: readonly Kill[]): Promise<void> {
  const strike = async (stage: Stage) => {
    const kill = kills.find(([, when]) => when === stage);
    if (!kill) return;
    await sleep(kill[2]);
    program.kill(kill[0]);
  };
  const stack = randomUUID();
  const bytes = await scannedPdf(
    ...Array.from({ length: PAGES }, (_, index) => `${name} sheet ${index + 1}\nin a pile of paper`),
  );
  await Promise.all([sendUntilTaken(stack, name, bytes), strike('sending')]);
  const read = () => program.askUntilAnswered(endpoints.readStack, { params: { id: stack } });
  await Promise.all([until(async () => (await read()).pages === PAGES), strike('reading')]);
  await until(async () => (await read()).read === PAGES);
  expect((await read()).pageList.map(({ fileNumber, reading }) => [fileNumber, reading])).toEqual(
    Array.from({ length: PAGES }, (_, index) => [index + 1, 'read']),
  );

  await program.askUntilAnswered(endpoints.sortStack, { params: { id: stack } }).catch(() => undefined);
  const [document] = (await program.askUntilAnswered(endpoints.listWaiting, {})).slice(-1);
  const file = async () => {
    await program.askUntilAnswered(endpoints.fileDocument, {
      params: { id: document.id },
      body: { name, folderPath: 'Crash' },
    });
  };
  // Asked again after an answer that was lost, filing may say that it has been done.
  await Promise.all([file().catch(() => undefined), strike('filing')]);
  await until(
    async () =>
      (await program.askUntilAnswered(endpoints.readDocument, { params: { id: document.id } })).state === 'filed',
  );
  await until(() => existsSync(join(program.shelf, 'Crash', `${name}.pdf`)));
  expect(readdirSync(join(program.shelf, 'Crash')).filter((each) => each.startsWith(name))).toEqual([`${name}.pdf`]);
}

const PATHS: Kill[][] = [
  [
    ['server', 'sending', 5],
    ['worker', 'reading', 0],
    ['database', 'filing', 20],
  ],
  [
    ['database', 'reading', 300],
    ['worker', 'filing', 30],
  ],
  [
    ['server', 'reading', 200],
    ['server', 'filing', 60],
  ],
  [['worker', 'reading', 700]],
];

it.each(
  PATHS.map((kills) => [kills.map(([part, stage, after]) => `${part} ${stage} ${after}`).join(', '), kills] as const),
)('loses nothing and files nothing twice when things are killed: %s', goThePath);

it('has filed every document of before exactly once', async () => {
  expect(readdirSync(join(program.shelf, 'Crash'))).toHaveLength(PATHS.length);
  expect((await program.ask(endpoints.overview, {})).filed).toBe(PATHS.length);
});
