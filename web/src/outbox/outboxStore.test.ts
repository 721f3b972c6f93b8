import 'fake-indexeddb/auto';
import { Outbox, Waiting } from './outboxStore';
import { maySend } from './sendWaiting';

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

it('tells once all files of a stack are gone, besides those that can’t be taken in', async () => {
  const box = open();
  await box.put(waiting('a', 1));
  await box.put(waiting('broken', 2));
  let sent = false;
  const told = box.whenSent('stack').then(() => (sent = true));
  await box.amend('broken', { problem: { code: 'file-empty', happened: 'It is empty.' } as never });
  expect(sent).toBe(false);
  await box.remove('a');
  await told;
  await box.whenSent('another stack');
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
