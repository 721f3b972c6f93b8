import { endpoints } from '@crow/contract/endpoints';
import { TestRoom } from '../testing/room';
import { Desks } from './atWork';

const [imre, tove] = [
  { id: 'i', name: 'Imre' },
  { id: 't', name: 'Tove' },
];

it('tells who else has a document before them, until they leave it or are not heard of any more', () => {
  let now = 0;
  const desks = new Desks(() => now);
  expect(desks.sit('window 1', tove, 'rent')).toBe(true);
  expect(desks.sit('window 1', tove, 'rent')).toBe(false);
  expect(desks.others('window 2', imre)).toEqual([{ documentId: 'rent', name: 'Tove', own: false }]);
  expect(desks.others('window 2', tove)).toEqual([{ documentId: 'rent', name: 'Tove', own: true }]);
  expect(desks.others('window 1', tove)).toEqual([]);
  desks.sit('window 1', tove, 'yarn');
  expect(desks.others('window 2', imre).map(({ documentId }) => documentId)).toEqual(['yarn']);
  now += 41_000;
  expect(desks.others('window 2', imre)).toEqual([]);
  desks.sit('window 1', tove, 'yarn');
  expect(desks.sit('window 1', tove, null)).toBe(true);
  expect(desks.others('window 2', imre)).toEqual([]);
});

it('is asked and told over the API', async () => {
  const room = await TestRoom.open();
  const [here, there, document] = ['1', '2', '3'].map((each) => each.repeat(8) + '-1111-4111-8111-111111111111');
  await room.ask(endpoints.beAtWork, { body: { window: there, document } });
  expect(await room.ask(endpoints.listAtWork, { query: { window: here } })).toEqual([
    { documentId: document, name: 'Owner', own: true },
  ]);
  await room.ask(endpoints.beAtWork, { body: { window: there, document: null } });
  expect(await room.ask(endpoints.listAtWork, { query: { window: here } })).toEqual([]);
  await room.close();
});
