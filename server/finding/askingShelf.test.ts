import { endpoints } from '@crow/contract/endpoints';
import { FactName } from '@crow/contract/facts';
import { textPdf } from '../testing/made';
import { TestRoom } from '../testing/room';

let room: TestRoom;
let [power, cloth, waiting]: string[] = [];
beforeAll(async () => {
  room = await TestRoom.open();
  power = await paper('Tarn Power\nElectricity\nTotal 80.00', {
    vendor: 'Tarn Power',
    kind: 'invoice',
    total: '80.00',
    date: '2025-02-03',
  });
  cloth = await paper('Linden Cloth\nTotal 120.50', {
    vendor: 'Linden Cloth',
    kind: 'invoice',
    total: '120.50',
    date: '2025-03-04',
  });
  waiting = await paper('Tarn Power\nElectricity\nTotal 90.00', {
    vendor: 'Tarn Power',
    kind: 'invoice',
    total: '90.00',
    date: '2025-04-03',
  });
  await room.file(power, 'Power of February', 'Home/Energy');
  await room.file(cloth, 'Cloth', 'Studio');
}, 120_000);
afterAll(() => room.close());

async function paper(text: string, facts: Partial<Record<FactName, string>>): Promise<string> {
  const id = await room.documentOf('paper.pdf', await textPdf(text));
  for (const [name, value] of Object.entries({ ...facts, currency: 'GBP' }))
    await room.ask(endpoints.changeFact, { params: { id, name: name as FactName }, body: { value } });
  return id;
}
const ask = (question: string) => room.ask(endpoints.askShelf, { body: { question } });

it('answers from what is filed, with the papers and the money of each', async () => {
  const { answer, understood, senders } = await ask('How much did we pay Tarn Power in 2025?');
  expect(answer!.sums).toEqual([{ units: 8000, currency: 'GBP' }]);
  expect(answer!.sources).toMatchObject([
    { id: power, name: 'Power of February', fact: 'total', money: { units: 8000 } },
  ]);
  expect(understood).toMatchObject({ who: ['Tarn Power'], period: { from: '2025-01-01', until: '2025-12-31' } });
  expect(senders).toEqual(['Linden Cloth', 'Tarn Power']);
});

it('answers as it is told to understand it, and counts what is filed meanwhile', async () => {
  const { understood } = await ask('How much did we pay Tarn Power in 2025?');
  const changed = { ...understood!, who: [], folder: 'Studio' };
  const asked = await room.ask(endpoints.askShelf, { body: { question: '?', understood: changed } });
  expect(asked.answer!.sources.map(({ id }) => id)).toEqual([cloth]);
  await room.file(waiting, 'Power of April', 'Home/Energy');
  expect((await ask('What did electricity cost in 2025?')).answer!.sums).toEqual([{ units: 17_000, currency: 'GBP' }]);
});

it('marks the place of what was read on the paper', async () => {
  await room.ask(endpoints.restoreFact, { params: { id: cloth, name: 'total' } });
  const { answer } = await ask('How much was the invoice from Linden Cloth?');
  expect(answer!.sums.map(({ units }) => units)).toEqual([12_050]);
  const [{ pageId, box }] = answer!.sources;
  expect(pageId).toBeTruthy();
  for (const share of box!) expect(share).toBeLessThan(1);
});

it('says why it does not answer', async () => {
  expect((await ask('Which invoices are unpaid?')).cannot).toMatchObject({ why: 'paid' });
  expect((await ask('How much for the gym?')).cannot).toEqual({ why: 'about', words: ['gym'], papers: 0 });
});
