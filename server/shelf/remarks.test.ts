import { endpoints } from '@crow/contract/endpoints';
import { textPdf } from '../testing/made';
import { TestRoom } from '../testing/room';

let room: TestRoom;
let [cloth, thread]: string[] = [];
beforeAll(async () => {
  room = await TestRoom.open();
  cloth = await room.documentOf('cloth.pdf', await textPdf('Linden Cloth\nbolts of linen'));
  thread = await room.documentOf('thread.pdf', await textPdf('Ash Thread\nspools for the fair'));
  await room.file(cloth, 'Cloth', 'Studio');
  await room.file(thread, 'Thread', 'Studio');
}, 120_000);
afterAll(() => room.close());

const remark = (id: string, to: { add?: string[]; remove?: string[]; note?: string }) =>
  room.ask(endpoints.remarkOnDocuments, { body: { changes: [{ id, ...to }] } });
const read = (id: string) => room.ask(endpoints.readDocument, { params: { id } });
const find = async (q: string) => (await room.ask(endpoints.find, { query: { q } })).found;
const ids = async (q: string) => (await find(q)).map(({ document }) => document.id);

it('keeps tags and a note, each without the other being told', async () => {
  await remark(cloth, { add: ['Fair 2026', 'to claim', 'FAIR 2026'] });
  await remark(cloth, { note: 'Lent to Ragnhild\nuntil Easter' });
  expect(await read(cloth)).toMatchObject({ tags: ['Fair 2026', 'to claim'], note: 'Lent to Ragnhild\nuntil Easter' });
  await remark(thread, { add: ['to claim'] });
  expect(await room.ask(endpoints.listTags, {})).toEqual([
    { tag: 'Fair 2026', papers: 1 },
    { tag: 'to claim', papers: 2 },
  ]);
});

it('finds them like what stands on the paper, with misspellings, and by tag alone', async () => {
  const [{ document, hits, lines }] = await find('ragnhild');
  expect([document.id, hits]).toEqual([cloth, 1]);
  expect(lines[0].pieces).toEqual([
    { text: 'Lent to', hit: false },
    { text: 'Ragnhild', hit: true },
  ]);
  expect(await ids('ragnhilt')).toEqual([cloth]);
  expect((await ids('fair')).sort()).toEqual([cloth, thread].sort());
  expect(await ids('tag:fair')).toEqual([cloth]);
  expect((await ids('tag:"to claim"')).sort()).toEqual([cloth, thread].sort());
  expect(await ids('tag:"to claim" linen')).toEqual([cloth]);
});

it('answers questions by them', async () => {
  const { answer } = await room.ask(endpoints.askShelf, { body: { question: 'How many papers about Ragnhild?' } });
  expect(answer!.sources.map(({ id }) => id)).toEqual([cloth]);
});

it('loses none of the tags that several give at once, and takes no more than there is room for', async () => {
  await Promise.all(['one', 'two', 'three'].map((tag) => remark(thread, { add: [tag] })));
  expect((await read(thread)).tags.toSorted()).toEqual(['one', 'three', 'to claim', 'two']);
  const many = Array.from({ length: 40 }, (_, at) => `tag ${at}`);
  const refused = await room.refusal(endpoints.remarkOnDocuments, { body: { changes: [{ id: thread, add: many }] } });
  expect(refused.happened).toBe('The request was not valid: a paper has 40 tags at most.');
  await remark(thread, { remove: ['one', 'two', 'three'] });
});

it('finds no more what was taken off', async () => {
  await remark(cloth, { remove: ['Fair 2026'], note: '' });
  expect((await read(cloth)).tags).toEqual(['to claim']);
  expect(await ids('ragnhild')).toEqual([]);
  expect(await ids('tag:fair')).toEqual([]);
});

it('comes back from an archive', async () => {
  await remark(thread, { note: 'Ordered by Imre' });
  const archive = await room.request('GET', '/api/shelf/archive');
  await room.ask(endpoints.binDocument, { params: { id: thread } });
  await room.ask(endpoints.emptyBin, {});
  await room.work();
  await room.request('PUT', '/api/shelf/archive?name=shelf.zip', {
    headers: { 'content-type': 'application/octet-stream' },
    body: archive.raw,
  });
  await room.work();
  const [{ document }] = await find('ordered imre');
  expect(document).toMatchObject({ name: 'Thread', tags: ['to claim'] });
});

it('refuses tags that are none, and papers that are not there', async () => {
  expect(
    await room.refusal(endpoints.remarkOnDocuments, { body: { changes: [{ id: cloth, add: [' '] }] } }),
  ).toMatchObject({
    code: 'not-valid',
  });
  expect(
    await room.refusal(endpoints.remarkOnDocuments, { body: { changes: [{ id: thread, add: ['late'] }] } }),
  ).toMatchObject({
    code: expect.stringMatching(/not-found|document-elsewhere/) as string,
  });
});
