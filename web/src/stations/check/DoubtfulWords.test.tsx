import { screen, waitFor } from '@testing-library/react';
import { Link, Route, Routes } from 'react-router';
import { endpoints } from '@crow/contract/endpoints';
import { useDoubtful } from '../../queries';
import { document, doubtful, page } from '../../testing/papers';
import { notice, show, StandInServer } from '../../testing/window';
import DoubtfulWords from './DoubtfulWords';

function open(texts: string[]) {
  const pageList = [page()];
  const paper = document({ pageList });
  const words = texts.map((text, index) => doubtful(text, index, { pageId: pageList[0].id }));
  const server = new StandInServer()
    .on(endpoints.readDocument, () => paper)
    .on(endpoints.doubtfulWords, () => words)
    .on(endpoints.correctWords, () => undefined);
  const shown = show(<DoubtfulWords />, server, `/words/${paper.id}`, '/words/:id');
  const changes = () => server.askedOf(endpoints.correctWords).map(({ body }) => body.changes[0]);
  return { ...shown, server, paper, changes };
}

const field = () => screen.findByLabelText<HTMLInputElement>('What the word says');

it('keeps with Enter, corrects what is typed, skips with Tab, and says what came of it', async () => {
  const { user, changes } = open(['madder', 'vveld', 'woad', '~~']);
  expect((await field()).value).toBe('madder');
  screen.getByText('twelve skeins of');
  screen.getByText('and six of weld');
  await user.keyboard('{Enter}');
  expect((await field()).value).toBe('vveld');
  // What is typed takes the place of what was read: it is selected.
  await user.keyboard('weld{Enter}');
  await user.keyboard('{Tab}');
  await user.keyboard('{Control>}{Backspace}{/Control}');
  await screen.findByRole('heading', { name: 'That was the last one' });
  expect(changes()).toEqual([
    { index: 0, was: 'madder', text: 'madder' },
    { index: 1, was: 'vveld', text: 'weld' },
    { index: 3, was: '~~', text: '' },
  ]);
  screen.getByText(/1 kept, 2 corrected, 1 skipped/);
  await user.click(screen.getByRole('button', { name: 'From the beginning' }));
  expect((await field()).value).toBe('madder');
});

it('opens at once though the words were just asked for, by the paper that it is come from', async () => {
  const paper = document({ pageList: [page()] });
  const server = new StandInServer()
    .on(endpoints.readDocument, () => paper)
    .on(endpoints.doubtfulWords, () => [doubtful('vveld', 0, { pageId: paper.pageList[0].id })]);
  function Paper() {
    const { data = [] } = useDoubtful(paper.id);
    return <Link to={`/words/${paper.id}`}>{data.length} doubtful</Link>;
  }
  const ways = (
    <Routes>
      <Route path="/check" element={<Paper />} />
      <Route path="/words/:id" element={<DoubtfulWords />} />
    </Routes>
  );
  const { user } = show(ways, server, '/check');
  await user.click(await screen.findByText('1 doubtful'));
  expect((await field()).value).toBe('vveld');
});

it('undoes a correction from the message, and by going back to the word', async () => {
  const { user, changes } = open(['vveld', 'woad']);
  await field();
  await user.keyboard('weld{Enter}');
  const said = await notice('“vveld” is now “weld”.');
  await user.click(said.getByText('Undo'));
  await waitFor(() => expect(changes()).toContainEqual({ index: 0, was: 'weld', text: 'vveld' }));
  (await field()).focus();
  await user.keyboard('{Shift>}{Tab}{/Shift}');
  expect((await field()).value).toBe('weld');
  screen.getByRole('heading', { name: 'Doubtful word 1 of 2' });
});

it('says so when there is none, and leaves with Escape', async () => {
  const { user, address, paper } = open([]);
  await screen.findByRole('heading', { name: 'No word is doubtful' });
  await user.click(screen.getByRole('button', { name: 'Go on' }));
  expect(address()).toBe(`/check/${paper.id}`);
});

it('goes back to where somebody came from with Escape, and keeps what was settled till then', async () => {
  const { user, address, paper, changes } = open(['vveld', 'woad']);
  await field();
  await user.keyboard('weld{Enter}');
  await field();
  await user.keyboard('{Escape}');
  expect(address()).toBe(`/check/${paper.id}`);
  expect(changes()).toHaveLength(1);
});
