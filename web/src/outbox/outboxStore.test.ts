import 'fake-indexeddb/auto';
import { openDB } from 'idb';
import { Outbox, Waiting } from './outboxStore';
import { maySend, sendWaiting } from './sendWaiting';

let name = 0;
const boxes: Outbox[] = [];
function open(called = `test ${++name}`): Outbox {
  const box = new Outbox(called);
  boxes.push(box);
  return box;
}
afterEach(() => Promise.all(boxes.splice(0).map((box) => box.close())));

const waiting = (id: string, order: number, part: Partial<Waiting> = {}): Waiting => ({
  id,
  order,
  told: { stack: 'stack', stackName: 'Post', name: `${id}.jpg`, position: order },
  bytes: new Blob([id]),
  at: 0,
  ...part,
});

it('keeps what waits in its order, also for whoever opens it later', async () => {
  const box = open('kept');
  await box.put(waiting('b', 2));
  await box.put(waiting('a', 1));
  await box.close();
  expect((await open('kept').list()).map(({ id }) => id)).toEqual(['a', 'b']);
});

it('notes where a file goes on, but brings none back that was discarded meanwhile', async () => {
  const box = open();
  await box.put(waiting('a', 1));
  await box.amend('a', { address: '/api/uploads/1' });
  expect((await box.list())[0].address).toBe('/api/uploads/1');
  await box.discard('a');
  await box.amend('a', { address: '/api/uploads/2' });
  expect(await box.list()).toEqual([]);
});

it('keeps in memory what the store has no room for, and says so', async () => {
  const box = open();
  await box.put(waiting('kept', 1));
  const full = jest.spyOn(IDBDatabase.prototype, 'transaction').mockImplementation(() => {
    throw new DOMException('full', 'QuotaExceededError');
  });
  await box.put(waiting('held', 2));
  full.mockRestore();
  expect((await box.list()).map(({ id, fleeting }) => [id, fleeting ?? false])).toEqual([
    ['kept', false],
    ['held', true],
  ]);
  await box.amend('held', { address: '/api/uploads/1' });
  expect((await box.list())[1].address).toBe('/api/uploads/1');
  await box.remove('held');
  expect((await box.list()).map(({ id }) => id)).toEqual(['kept']);
});

it('does without a store that hangs behind something else', async () => {
  const box = new Outbox('hung', 100);
  boxes.push(box);
  await box.put(waiting('kept', 1));
  const database = await openDB('hung');
  const { store, done } = database.transaction('waiting', 'readwrite');
  let busy = true;
  const hanging = (async () => {
    while (busy) await store.get('kept');
  })();
  await box.put(waiting('held', 2));
  expect((await box.list()).map(({ id, fleeting }) => [id, fleeting])).toEqual([['held', true]]);
  await box.remove('held');
  expect(await box.list()).toEqual([]);
  busy = false;
  await hanging;
  await done;
  database.close();
  expect((await open('hung').list()).map(({ id }) => id)).toContain('kept');
});

it('lets a stack go on once all of its files are gone, besides those that can’t be taken in', async () => {
  const box = open('finishing');
  await box.put(waiting('a', 1));
  await box.put(waiting('broken', 2));
  await box.finish('stack');
  await box.amend('broken', { problem: { code: 'file-empty', happened: 'It is empty.' } as never });
  expect(await box.toFinish()).toEqual([]);
  await box.close();
  const later = open('finishing');
  await later.remove('a');
  expect(await later.toFinish()).toEqual(['stack']);
  await later.finished('stack');
  expect(await later.toFinish()).toEqual([]);
});

describe('a stack that was said to be finished', () => {
  const answers = (status: number, body = '{}') =>
    jest.spyOn(globalThis, 'fetch').mockImplementation(() => Promise.resolve(new Response(body, { status })));
  const send = (box: Outbox) =>
    sendWaiting(box, { told: true, load: () => Promise.reject(new Error('nothing is to be sent')) });
  afterEach(() => jest.restoreAllMocks());

  it('goes on to Check when there is a line', async () => {
    const box = open();
    await box.finish('one');
    jest.spyOn(globalThis, 'fetch').mockRejectedValueOnce(new TypeError('no line'));
    expect(await send(box)).toBe('no-line');
    const asked = answers(200);
    expect(await send(box)).toBe('all');
    expect(asked.mock.lastCall).toEqual(['/api/stacks/one/finish', { method: 'POST' }]);
    expect(await box.toFinish()).toEqual([]);
  });

  it('goes on once, though another window of the browser knows of it, too', async () => {
    const [one, other] = [open('two windows'), open('two windows')];
    await other.finish('one');
    const asked = answers(200);
    await send(one);
    await send(other);
    expect(asked).toHaveBeenCalledTimes(1);
  });

  it('is forgotten when it can’t, and who listens is told why', async () => {
    const box = open();
    await box.finish('one');
    const heard = jest.fn();
    box.listen(heard);
    const problem = { code: 'stack-sorted', happened: 'It is sorted already.' };
    answers(409, JSON.stringify(problem));
    await send(box);
    expect(heard).toHaveBeenLastCalledWith({ kind: 'finished', stack: 'one', problem });
    expect(await box.toFinish()).toEqual([]);
  });
});

it.each([
  ['by-itself', { type: 'cellular' }, true],
  ['not-metered', { type: 'cellular' }, false],
  ['not-metered', { saveData: true }, false],
  ['not-metered', { type: 'wifi' }, true],
  ['not-metered', undefined, true],
  ['when-told', { type: 'wifi' }, false],
] as const)('%s over %j: %s', (sending, line, may) => expect(maySend(sending, line)).toBe(may));

it('remembers when files are to be sent', async () => {
  const box = open('choice');
  expect(await box.sending()).toBe('not-metered');
  await box.chooseSending('when-told');
  await box.close();
  expect(await open('choice').sending()).toBe('when-told');
});
