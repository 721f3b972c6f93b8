import { fireEvent, screen, waitFor, within } from '@testing-library/react';
import { Route, Routes } from 'react-router';
import { ShelfReply, UnderstoodQuestion } from '@crow/contract/asking';
import { endpoints } from '@crow/contract/endpoints';
import { newId } from '../../../testing/papers';
import { show, StandInServer } from '../../../testing/window';
import { ChosenProvider } from '../chosen';
import { FindPane } from '../FindPane';

const understood: UnderstoodQuestion = {
  wants: 'sum',
  per: 'paper',
  fact: 'total',
  which: 'latest',
  about: ['power'],
  who: [],
  kinds: ['invoice'],
  folder: null,
  by: 'date',
  period: { from: '2025-01-01', until: '2025-12-31' },
  against: null,
  amounts: null,
};
const pageId = newId();
const source = (name: string, units: number) => ({
  id: newId(),
  folderId: newId(),
  name,
  date: '2025-03-01',
  fact: 'total' as const,
  pageId,
  box: [0.5, 0.25, 0.125, 0.02] as [number, number, number, number],
  money: { units, currency: 'GBP' },
  lines: [],
});
const sources = [source('Power of March', 8000), source('Power of May', 9000)];
const reply: ShelfReply = {
  understood,
  senders: ['Northlight Power', 'Tern Parcels'],
  cannot: null,
  answer: {
    sums: [{ units: 17_000, currency: 'GBP' }],
    over: null,
    against: null,
    count: null,
    days: [],
    who: [],
    values: [],
    leftOut: [{ kind: 'reminder', papers: 1 }],
    sources,
  },
};

function open(
  question: string,
  answer = (changed?: UnderstoodQuestion): ShelfReply => ({ ...reply, understood: changed ?? understood }),
) {
  const server = new StandInServer()
    .on(endpoints.listFolders, () => [])
    .on(endpoints.listSearches, () => [])
    .on(endpoints.askShelf, ({ body }) => answer(body.understood));
  const pane = (
    <ChosenProvider>
      <FindPane />
    </ChosenProvider>
  );
  const station = (
    <Routes>
      <Route path="/shelf/:folder?/:document?" element={pane} />
    </Routes>
  );
  return { server, ...show(station, server, `/shelf/?find=${encodeURIComponent(question)}`) };
}

const answer = async () => within(await screen.findByRole('region', { name: 'Answer' }));
const told = async () => within((await answer()).getByRole('status'));
const conditions = async () => within(await screen.findByRole('group', { name: 'How it was understood' }));

it('answers what is asked, says what it comes from and what was left out, and looks for no words', async () => {
  const { server } = open('How much did we pay for power in 2025?');
  const said = await answer();
  said.getByText('170.00 GBP');
  said.getByText(/From 2 papers, of 2025-03-01\. Without 1 reminder: bills say the same\./);
  expect(server.askedOf(endpoints.find)).toEqual([]);
});

it('opens a paper where the sum stands', async () => {
  const { user, address } = open('How much did we pay for power in 2025?');
  await user.click((await answer()).getByRole('button', { name: /Power of May/ }));
  expect(decodeURIComponent(address())).toContain(`${sources[1].folderId}/${sources[1].id}`);
  expect(decodeURIComponent(address())).toContain(`at=${pageId}:0.5000,0.2500,0.1250,0.0200`);
});

it('shows how it was understood, and asks again when a condition is taken out or changed', async () => {
  const { user, server } = open('How much did we pay for power in 2025?');
  const shown = await conditions();
  shown.getByText('about “power”');
  shown.getByText('dated 2025');
  const asked = () => server.askedOf(endpoints.askShelf).at(-1)!.body.understood;
  await user.click(shown.getAllByRole('button', { name: 'Take this condition out' })[0]);
  await waitFor(() => expect(asked()).toMatchObject({ about: [], kinds: ['invoice'] }));
  await user.selectOptions(shown.getByLabelText('What is wanted'), 'how much tax');
  await waitFor(() => expect(asked()).toMatchObject({ wants: 'sum', fact: 'tax', about: [] }));
  await user.click(shown.getByRole('button', { name: 'dated 2025' }));
  fireEvent.change(await screen.findByLabelText('From'), { target: { value: '2024-07-01' } });
  await waitFor(() => expect(asked()).toMatchObject({ period: { from: '2024-07-01', until: '2025-12-31' } }));
  await user.keyboard('{Escape}');
  await user.click(shown.getByRole('button', { name: 'as it was understood' }));
  await waitFor(() => shown.getByText('about “power”'));
});

it('offers to ask without words that no paper is about, while something else says what it is about', async () => {
  const wanted = { ...understood, about: ['power', 'habit'] };
  const { user, server } = open('How much does our power habit cost?', (changed) =>
    changed
      ? { ...reply, understood: changed }
      : { ...reply, understood: wanted, answer: null, cannot: { why: 'about', words: ['habit'], papers: 0 } },
  );
  await user.click((await told()).getByRole('button', { name: 'Ask without “habit”' }));
  await waitFor(() =>
    expect(server.askedOf(endpoints.askShelf).at(-1)).toMatchObject({ body: { understood: { about: ['power'] } } }),
  );
  await waitFor(async () => (await told()).getByText('170.00 GBP'));
});

it.each([
  [{ why: 'paid', words: [], papers: 0 }, 'No paper says whether it was paid.'],
  [{ why: 'about', words: ['gym'], papers: 0 }, 'No paper on the shelf is about “gym”.'],
  [{ why: 'none such', words: [], papers: 0 }, 'There is no such paper on the shelf.'],
  [{ why: 'not on them', words: [], papers: 3 }, '3 papers may be meant, but none of them says it.'],
  [{ why: 'words', words: [], papers: 0 }, 'No paper on the shelf answers this.'],
] as const)('says why nothing answers: %j', async (cannot, words) => {
  open('How much for the gym?', () => ({
    understood: null,
    answer: null,
    senders: [],
    cannot: { ...cannot, words: [...cannot.words] },
  }));
  (await told()).getByText(words);
});

it.each([
  ['day', { days: [{ day: '2027-05-31', id: sources[0].id, name: 'x', vendor: null }] }, '2027-05-31'],
  ['value', { values: ['NL-4', 'NL-5'] }, 'NL-4, NL-5'],
  ['count', { count: 1 }, '1 paper'],
  ['who', { who: 'abcdefgh'.split('').map((name) => ({ name, sums: [] })) }, 'a, b, c, d, e, f and 2 more'],
  ['average', {}, '170.00 GBP on average'],
  ['sum', { against: [{ units: 20_000, currency: 'GBP' }] }, '30.00 GBP less: 170.00 GBP, beside 200.00 GBP'],
  ['sum', { against: [{ units: 20_000, currency: 'EUR' }] }, '170.00 GBP, beside 200.00 EUR'],
  ['sum', { against: [{ units: 17_000, currency: 'GBP' }] }, 'The same: 170.00 GBP, beside 170.00 GBP'],
] as const)('tells a %s', async (wants, part, words) => {
  open('How much was it?', () => ({
    ...reply,
    understood: { ...understood, wants },
    answer: { ...reply.answer!, ...(part as object) },
  }));
  (await told()).getByText(words);
});
