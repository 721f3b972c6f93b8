import { addressOf } from '@crow/contract/client';
import { endpoints } from '@crow/contract/endpoints';
import { EntriesRead } from '@crow/contract/ledgerLines';
import { inWords, ProblemReport } from '@crow/contract/problems';
import { TestRoom } from '../testing/room';

let room: TestRoom;
beforeAll(async () => {
  room = await TestRoom.open();
}, 120_000);
afterAll(() => room.close());

const send = async (text: string, wish: { look?: boolean; columns?: string; turned?: boolean } = {}) => {
  const query = { name: 'entries.csv', ...wish };
  const { status, body } = await room.request('PUT', addressOf(endpoints.sendEntries, { query }), {
    body: Buffer.from(text),
    headers: { 'content-type': 'application/octet-stream' },
  });
  if (status >= 400) throw new Error(inWords(body as ProblemReport));
  return body as EntriesRead;
};
const entries = async () => (await room.ask(endpoints.readLedger, {})).entries;
const LIST =
  'Date,Supplier,Invoice,Category,Total,VAT\n13/02/2026,Saltgate,S-1,Materials,120.00,20.00\n14/02/2026,Avery,,Office,9.99,\n14/02/2026,Avery,,Office,9.99,\nno day,Nobody,,,1.00,';

it('shows entries as they are understood, takes those in that are not there yet, and has the way back', async () => {
  const looked = await send(LIST, { look: true });
  expect(looked).toMatchObject({
    columns: ['day', 'who', 'number', 'category', 'total', 'tax'],
    ...{ fresh: 3, known: 0, wrong: 1, ids: [], remembered: false },
    problems: [{ row: 4, why: '“no day” is no day' }],
  });
  expect(await entries()).toEqual([]);
  const taken = await send(LIST);
  expect(taken.ids).toHaveLength(3);
  expect((await entries()).map(({ who, units }) => [who, units])).toEqual([
    ['Saltgate', 12_000],
    ['Avery', 999],
    ['Avery', 999],
  ]);
  // The same file again brings nothing; one more of the same is new.
  expect(await send(LIST, { look: true })).toMatchObject({ fresh: 0, known: 3 });
  expect(await send(`${LIST}\n14/02/2026,Avery,,Office,9.99,`, { look: true })).toMatchObject({ fresh: 1, known: 3 });
  await room.ask(endpoints.takeOutEntries, { body: { ids: taken.ids } });
  expect(await entries()).toEqual([]);
});

it('remembers what columns with such heads hold', async () => {
  const odd = 'a,b,c\n2026-04-01,7.50,Avery';
  const columns = 'day,total,who';
  expect(await send(odd, { columns, turned: true })).toMatchObject({
    fresh: 1,
    sample: [{ units: -750, who: 'Avery' }],
  });
  expect(await send('a,b,c\n2026-05-01,8.50,Avery', { look: true })).toMatchObject({
    ...{ remembered: true, turned: true, columns: ['day', 'total', 'who'] },
    sample: [{ units: -850 }],
  });
});

it('takes nothing into what is closed', async () => {
  await room.ask(endpoints.changeBooks, { body: { closedUntil: '2026-02-13' } });
  expect(await send(LIST, { look: true })).toMatchObject({
    fresh: 2,
    problems: [{ row: 1, why: 'the books are closed for its time' }, { row: 4 }],
  });
});

it('says of what is no list that it is none', async () => {
  await expect(send('')).rejects.toThrow('is empty');
  await expect(send('one\ntwo')).rejects.toThrow('It has no columns.');
});
