import { setTimeout as sleep } from 'node:timers/promises';
import { endpoints } from '@crow/contract/endpoints';
import { rows } from '../store/database';
import { scanned } from '../testing/made';
import { TestRoom } from '../testing/room';
import { giveUp } from './handlers';
import { rescueWork, Worker } from './worker';

let room: TestRoom;
beforeEach(async () => void (room = await TestRoom.open()));
afterEach(() => room.close());

async function until(condition: () => Promise<boolean>): Promise<void> {
  for (let tries = 0; tries < 100; tries++, await sleep(50)) if (await condition()) return;
  throw new Error('it did not happen');
}
const jobs = () =>
  rows<{ state: string; output: unknown }>(
    room.context.database.source.manager,
    `select state::text from jobs.job where name = 'read'`,
  );
const ask = () =>
  room.context.jobs.ask(room.context.database.source.manager, 'read', {
    pageId: '00000000-0000-4000-8000-000000000000',
    turn: 0,
    version: '',
  });

it('gives the work of a worker that died to the next one', async () => {
  const done: string[] = [];
  const dying = new Worker(room.context, ['read'], { read: () => new Promise(() => undefined) });
  dying.start();
  await ask();
  await until(async () => (await jobs())[0]?.state === 'active');
  // Nothing is taken from a worker that lives.
  await rescueWork(room.context);
  expect((await jobs())[0].state).toBe('active');
  // A killed process loses its connections: so does this one.
  await rows(
    room.context.database.source.manager,
    `select pg_terminate_backend(l.pid) from pg_locks l where l.locktype = 'advisory' and l.classid = 7015`,
  );
  await until(async () => {
    await rescueWork(room.context);
    return (await jobs())[0].state !== 'active';
  });
  const next = new Worker(room.context, ['read'], { read: async ({ pageId }) => void done.push(pageId) });
  next.start();
  await until(async () => done.length > 0);
  await next.stop();
  expect((await jobs())[0].state).toBe('completed');
});

it('tries failing work again, and gives it up where the person sees it', async () => {
  let tries = 0;
  const { id: stack } = await room.takeInAndRead({ 'a.jpg': await scanned('hello') });
  const [page] = (await room.ask(endpoints.readStack, { params: { id: stack } })).pageList;
  await rows(room.context.database.source.manager, `update page set reading = 'waiting'`);
  const failing = new Worker(room.context, ['read'], {
    read: async () => {
      tries++;
      throw new Error('out of memory');
    },
  });
  await room.context.jobs.ask(room.context.database.source.manager, 'read', { pageId: page.id, turn: 0, version: '' });
  failing.start();
  let given = await room.context.jobs.fetchGivenUp();
  await until(async () => Boolean((given ??= await room.context.jobs.fetchGivenUp())));
  await failing.stop();
  expect(tries).toBe(5);
  await giveUp(room.context, given!);
  const after = await room.ask(endpoints.readStack, { params: { id: stack } });
  expect(after.pageList[0]).toMatchObject({ reading: 'failed', problem: { code: 'page-not-read' } });
});

it('starts no work that was asked for in a transaction that failed', async () => {
  const { source } = room.context.database;
  const failing = source.transaction(async (manager) => {
    await room.context.jobs.ask(manager, 'read', {
      pageId: '00000000-0000-4000-8000-000000000000',
      turn: 0,
      version: '',
    });
    throw new Error('no');
  });
  await expect(failing).rejects.toThrow('no');
  expect(await jobs()).toEqual([]);
});
