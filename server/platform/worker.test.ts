import { setTimeout as sleep } from 'node:timers/promises';
import { endpoints } from '@crow/contract/endpoints';
import { rows } from './database';
import { scanned } from '../testing/made';
import { TestRoom } from '../testing/room';
import { giveUp } from '../handlers';
import { Rescue, Worker } from './worker';

let room: TestRoom;
beforeEach(async () => void (room = await TestRoom.open()));
afterEach(() => room.close());

async function until(condition: () => Promise<boolean>): Promise<void> {
  for (let tries = 0; tries < 100; tries++, await sleep(50)) if (await condition()) return;
  throw new Error('it did not happen');
}
const loseLeases = () =>
  rows(
    room.context.database.source.manager,
    // Waits until they are gone: a lease that is still there afterwards is a new one.
    `select pg_terminate_backend(l.pid, 5000) from pg_locks l join pg_database d on d.oid = l.database
     where l.locktype = 'advisory' and l.classid = 7015 and d.datname = current_database()`,
  );
const leases = async () =>
  (
    await rows(
      room.context.database.source.manager,
      `select 1 from pg_locks l join pg_database d on d.oid = l.database
       where l.locktype = 'advisory' and l.classid = 7015 and l.granted and d.datname = current_database()`,
    )
  ).length;
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
  const rescue = new Rescue(room.context, 0);
  await rescue.look();
  expect((await jobs())[0].state).toBe('active');
  // A killed process loses its connections, and makes no new ones: so does this one.
  void dying.stop();
  await loseLeases();
  await until(async () => {
    await rescue.look();
    return (await jobs())[0].state !== 'active';
  });
  const next = new Worker(room.context, ['read'], { read: async ({ pageId }) => void done.push(pageId) });
  next.start();
  await until(async () => done.length > 0);
  await next.stop();
  expect((await jobs())[0].state).toBe('completed');
});

it('leaves its work to a worker that lost its connection and came again', async () => {
  let finish = () => undefined as void;
  let times = 0;
  const worker = new Worker(room.context, ['read'], {
    read: () => {
      times++;
      return new Promise((resolve) => (finish = resolve));
    },
  });
  worker.start();
  await ask();
  await until(() => Promise.resolve(times === 1));
  await loseLeases();
  await until(async () => (await leases()) === 1);
  const rescue = new Rescue(room.context, 0);
  await rescue.look();
  expect((await jobs())[0].state).toBe('active');
  finish();
  await until(async () => (await jobs())[0].state === 'completed');
  await worker.stop();
  expect(times).toBe(1);
});

it('goes on after it lost its connection while there was nothing to do', async () => {
  let times = 0;
  const worker = new Worker(room.context, ['read'], { read: async () => void times++ });
  worker.start();
  await until(async () => (await leases()) === 1);
  for (let lost = 1; lost <= 5; lost++) {
    await loseLeases();
    await ask();
    await until(() => Promise.resolve(times === lost));
  }
  await worker.stop();
});

it('gives back what the database went away in the middle of, so that nobody could be told how it ended', async () => {
  let times = 0;
  const worker = new Worker(room.context, ['read'], {
    read: async () => {
      times++;
    },
  });
  // The first time, nothing can be said of how it ended.
  const complete = jest.spyOn(room.context.jobs.boss, 'complete').mockImplementationOnce(() => {
    throw new Error('Connection terminated unexpectedly');
  });
  const fail = jest.spyOn(room.context.jobs.boss, 'fail').mockImplementationOnce(() => {
    throw new Error('Connection terminated unexpectedly');
  });
  worker.start();
  await ask();
  await until(async () => (await jobs())[0].state === 'completed');
  await worker.stop();
  expect(times).toBe(2);
  complete.mockRestore();
  fail.mockRestore();
});

it('takes no try from work that was only interrupted, however often within reason, and gives up what ends every worker', async () => {
  const { jobs: queue, database } = room.context;
  await ask();
  const interrupt = async () => {
    const job = (await queue.fetch('read'))!;
    expect(job.retryCount).toBe(0);
    await queue.giveBack(database.source.manager, 'read', job.id);
  };
  for (let times = 0; times < 20; times++) await interrupt();
  expect((await jobs())[0].state).toBe('created');
  for (let times = 20; times < 25; times++) await interrupt();
  expect(await queue.fetchGivenUp()).toMatchObject({ kind: 'read' });
});

it('hears of work at once, and asks for none while there is none', async () => {
  const done: number[] = [];
  const worker = new Worker(room.context, ['read'], { read: async () => void done.push(Date.now()) });
  const fetching = jest.spyOn(room.context.jobs, 'fetch');
  worker.start();
  await until(() => Promise.resolve(fetching.mock.calls.length > 0));
  await sleep(700);
  expect(fetching.mock.calls.length).toBeLessThan(3);
  const began = Date.now();
  await ask();
  await until(() => Promise.resolve(done.length > 0));
  // It would look by itself after half a minute.
  expect(done[0] - began).toBeLessThan(10_000);
  await worker.stop();
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
