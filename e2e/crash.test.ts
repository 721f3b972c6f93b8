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
  const query = new URLSearchParams({ stack, file: randomUUID(), stackName: name, name, position: '0' });
  for (const end = Date.now() + 40_000; Date.now() < end; await sleep(200)) {
    const sent = await program
      .fetch(`/api/files?${query}`, {
        method: 'PUT',
        body: new Uint8Array(bytes),
        headers: { 'content-type': 'application/octet-stream' },
      })
      .catch(() => undefined);
    if (sent?.ok) return;
  }
  throw new Error('The file did not arrive.');
}

/**
 * Goes the whole path with one file, with something killed at a moment of it: after so many milliseconds in the stage given.
 * Whatever is killed, the file's pages must be there, be read, and be filed once.
 */
async function goThePath(
  name: string,
  kill: { part: Part; stage: 'sending' | 'reading' | 'filing'; after: number },
): Promise<void> {
  const strike = async (stage: typeof kill.stage) => {
    if (kill.stage !== stage) return;
    await sleep(kill.after);
    program.kill(kill.part);
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

it.each([
  ['server', 'sending', 5],
  ['worker', 'reading', 0],
  ['worker', 'reading', 700],
  ['database', 'reading', 300],
  ['server', 'reading', 200],
  ['worker', 'filing', 30],
  ['server', 'filing', 60],
  ['database', 'filing', 20],
] as const)(
  'loses nothing and files nothing twice when the %s is killed while %s (after %d ms)',
  async (part, stage, after) => {
    await goThePath(`${part} ${stage} ${after}`, { part, stage, after });
  },
);

it('has filed every document of before exactly once', async () => {
  const files = readdirSync(join(program.shelf, 'Crash'));
  expect(files).toHaveLength(8);
  expect((await program.ask(endpoints.overview, {})).filed).toBe(8);
});
