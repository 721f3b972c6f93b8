import { screen, waitFor } from '@testing-library/react';
import { endpoints } from '@crow/contract/endpoints';
import { settings } from '../testing/papers';
import { show, StandInServer } from '../testing/window';
import OwnKinds from './OwnKinds';

function open() {
  const server = new StandInServer();
  let kept = settings({ ownKinds: [{ name: 'seed list', like: 'other', words: ['seed list'] }] });
  server.on(endpoints.readSettings, () => kept);
  server.on(endpoints.changeSettings, ({ body }) => (kept = settings({ ownKinds: body.ownKinds ?? kept.ownKinds })));
  return { ...show(<OwnKinds />, server), server };
}

it('adds a kind with what it is like and what its heading says, and takes one away', async () => {
  const { user, server } = open();
  await screen.findByRole('button', { name: 'Remove the kind Seed list' });
  await user.type(screen.getByLabelText('What it is called'), 'Membership');
  await user.selectOptions(screen.getByLabelText('Its papers are like'), 'Invoice');
  await user.type(screen.getByLabelText(/Words in its heading/), 'membership card, annual subscription');
  await user.click(screen.getByRole('button', { name: 'Add' }));
  await screen.findByRole('button', { name: 'Remove the kind Membership' });
  expect(server.askedOf(endpoints.changeSettings).at(-1)!.body.ownKinds).toEqual([
    { name: 'seed list', like: 'other', words: ['seed list'] },
    { name: 'membership', like: 'invoice', words: ['membership card', 'annual subscription'] },
  ]);
  await user.click(screen.getByRole('button', { name: 'Remove the kind Seed list' }));
  await waitFor(() =>
    expect(server.askedOf(endpoints.changeSettings).at(-1)!.body.ownKinds).toMatchObject([{ name: 'membership' }]),
  );
});

it('says why a kind can’t be added', async () => {
  const { user, server } = open();
  await user.type(await screen.findByLabelText('What it is called'), 'Invoice');
  await user.click(screen.getByRole('button', { name: 'Add' }));
  await screen.findByText('There is such a kind already.');
  expect(server.askedOf(endpoints.changeSettings)).toEqual([]);
});
