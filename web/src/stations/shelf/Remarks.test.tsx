import { act, screen, waitFor } from '@testing-library/react';
import { useState } from 'react';
import { endpoints } from '@crow/contract/endpoints';
import { newId } from '../../testing/papers';
import { notice, show, StandInServer } from '../../testing/window';
import { Remarks } from './Remarks';

function open(part: { tags?: string[]; note?: string } = {}) {
  const paper = { id: newId(), tags: ['to claim'], note: 'Lent out', ...part };
  const server = new StandInServer()
    .on(endpoints.listTags, () => [{ tag: 'Fair 2026', papers: 3 }])
    .on(endpoints.remarkOnDocuments, () => undefined);
  const changes = () => server.askedOf(endpoints.remarkOnDocuments).map(({ body }) => body.changes[0]);
  return { paper, changes, ...show(<Remarks document={paper} />, server, '/shelf') };
}

it('adds a tag beside those that are there, each once', async () => {
  const { user, changes, paper } = open();
  const field = await screen.findByLabelText('Add a tag');
  await user.type(field, ' Fair 2026 {Enter}');
  await user.type(field, 'to claim{Enter}');
  await waitFor(() => expect(changes()).toEqual([{ id: paper.id, add: ['Fair 2026'] }]));
});

it('takes a tag off, and gives it back when that is undone', async () => {
  const { user, changes } = open({ tags: ['a', 'b'] });
  await user.click(await screen.findByRole('button', { name: 'Take “a” off' }));
  const said = await notice('“a” is taken off.');
  await user.click(said.getByRole('button', { name: 'Undo' }));
  await waitFor(() => expect(changes()).toMatchObject([{ remove: ['a'] }, { add: ['a'] }]));
});

it('leads from a tag to the papers that have it', async () => {
  const { user, address } = open();
  await user.click(await screen.findByRole('button', { name: 'to claim' }));
  expect(decodeURIComponent(address().replaceAll('+', ' '))).toContain('find=tag:"to claim"');
});

it('keeps a note as soon as one leaves it, and nothing when it is as before', async () => {
  const { user, changes } = open();
  const note = await screen.findByLabelText('Note');
  await user.click(note);
  await user.tab();
  expect(changes()).toEqual([]);
  await user.type(note, ' to Ragnhild');
  await user.tab();
  await waitFor(() => expect(changes()).toMatchObject([{ note: 'Lent out to Ragnhild' }]));
});

it('keeps what is being written when another window changes the note, and shows that where nothing is', async () => {
  const server = new StandInServer().on(endpoints.listTags, () => []);
  let write = (_: string) => {};
  const Paper = () => {
    const [note, setNote] = useState('Lent out');
    write = (to) => act(() => setNote(to));
    return <Remarks document={{ id: newId(), tags: [], note }} />;
  };
  const { user } = show(<Paper />, server, '/shelf');
  const field = await screen.findByRole<HTMLTextAreaElement>('textbox', { name: 'Note' });
  write('Came back');
  expect(field.value).toBe('Came back');
  await user.type(field, ' today');
  write('Lost');
  expect(field.value).toBe('Came back today');
});
