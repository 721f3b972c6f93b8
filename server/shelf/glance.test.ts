import { endpoints } from '@crow/contract/endpoints';
import { dayOf } from '@crow/core/reading/dayForms';
import { addDays } from '@crow/core/shelf/days';
import { FactName } from '@crow/contract/facts';
import { textPdf } from '../testing/made';
import { TestRoom } from '../testing/room';

const TODAY = dayOf(new Date());

let room: TestRoom;
let [cloth, thread, reminder]: string[] = [];
beforeAll(async () => {
  room = await TestRoom.open();
  cloth = await paper('Linden Cloth', { kind: 'invoice', total: '120.50', date: '2026-03-04', number: 'LC-1' });
  thread = await paper('Ash Thread', { kind: 'invoice', total: '20.00', dueDate: addDays(TODAY, 5), tax: '4.00' });
  reminder = await paper('Ash Thread', { kind: 'reminder', total: '25.00', dueDate: addDays(TODAY, 200) });
  await room.file(cloth, 'Cloth', 'Studio/Cloth');
  await room.file(thread, 'Thread', 'Studio');
  await room.file(reminder, 'Reminder', 'Studio');
}, 120_000);
afterAll(() => room.close());

async function paper(vendor: string, facts: Partial<Record<FactName, string>>): Promise<string> {
  const id = await room.documentOf(`${vendor}.pdf`, await textPdf(`${vendor}\nsomething on paper`));
  for (const [name, value] of Object.entries({ currency: 'GBP', vendor, ...facts }))
    await room.ask(endpoints.changeFact, { params: { id, name: name as FactName }, body: { value } });
  return id;
}

it('tells what came last, what is due soon, and what folders add up to with those inside them', async () => {
  const { latest, comingUp, folders } = await room.ask(endpoints.shelfGlance, {});
  expect(latest.map(({ id }) => id)).toEqual([reminder, thread, cloth]);
  expect(comingUp.map(({ document, what, inDays }) => [document.id, what, inDays])).toEqual([[thread, 'due', 5]]);
  const paths = new Map((await room.ask(endpoints.listFolders, {})).map(({ id, path }) => [id, path]));
  expect(Object.fromEntries(folders.map(({ id, sums }) => [paths.get(id), sums]))).toEqual({
    Studio: [{ currency: 'GBP', units: 14050 }],
    'Studio/Cloth': [{ currency: 'GBP', units: 12050 }],
  });
});

it('lists what is in a folder, and in those inside it when that is asked', async () => {
  const studio = (await room.ask(endpoints.listFolders, {})).find(({ path }) => path === 'Studio')!;
  const list = async (query: { inside?: boolean }) =>
    (await room.ask(endpoints.listDocuments, { params: { id: studio.id }, query })).map(({ id }) => id);
  expect(await list({})).toEqual([reminder, thread]);
  const all = await room.ask(endpoints.listDocuments, { params: { id: studio.id }, query: { inside: true } });
  expect(all.find(({ id }) => id === cloth)).toMatchObject({
    number: 'LC-1',
    date: '2026-03-04',
    total: { units: 12050, currency: 'GBP' },
  });
});

describe('papers as a table', () => {
  const table = async (ids: string[], rows: 'papers' | 'lines' | 'rates') =>
    (await room.send(endpoints.shelfTable, { body: { ids, rows, as: 'csv' } })).raw
      .toString()
      .slice(1)
      .trimEnd()
      .split('\r\n');

  it('have a row each, in the order in which they were named', async () => {
    const [heads, ...rows] = await table([thread, cloth], 'papers');
    expect(heads).toBe('Date,From,Number,Name,Kind,Currency,Net,Tax,Total,Due,Ends,Pages,Folder');
    expect(rows).toEqual([
      `,Ash Thread,,Thread,invoice,GBP,,4,20,${addDays(TODAY, 5)},,1,Studio`,
      '2026-03-04,Linden Cloth,LC-1,Cloth,invoice,GBP,,,120.5,,,1,Studio/Cloth',
    ]);
  });

  it('have a row for each rate of tax, where there is tax', async () => {
    expect((await table([cloth, thread], 'rates')).slice(1)).toEqual([',Ash Thread,,Thread,,,4,GBP']);
  });

  it('say so where there is no row', async () => {
    const body = { ids: [cloth], rows: 'lines' as const, as: 'xlsx' as const };
    expect(await room.refusal(endpoints.shelfTable, { body })).toMatchObject({ code: 'no-rows' });
  });
});
