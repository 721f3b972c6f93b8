import { screen, waitFor } from '@testing-library/react';
import { endpoints } from '@crow/contract/endpoints';
import { Person } from '@crow/contract/people';
import { newId } from '../testing/papers';
import { notice, show, StandInServer } from '../testing/window';
import People from './People';

function open(role: 'owner' | 'helper' = 'owner') {
  const session = (part: object) => ({
    id: newId(),
    browser: 'Firefox on Linux',
    since: '2026-11-20T08:00:00Z',
    used: '2026-11-27T08:00:00Z',
    own: false,
    ...part,
  });
  let people: Person[] = [
    { id: newId(), name: 'Owner', role: 'owner', sessions: [session({ own: true })] },
    { id: newId(), name: 'Tove', role: 'helper', sessions: [session({ browser: 'Safari on an iPad' })] },
  ];
  const server = new StandInServer()
    .on(endpoints.whoAmI, () => ({ id: people[0].id, name: role === 'owner' ? 'Owner' : 'Tove', role }))
    .on(endpoints.listPeople, () => people)
    .on(endpoints.addPerson, ({ body }) => {
      const person: Person = { id: newId(), name: body.name, role: body.role, sessions: [] };
      people = [...people, person];
      return person;
    })
    .on(endpoints.removePerson, ({ params }) => {
      people = people.filter(({ id }) => id !== params.id);
      return undefined;
    })
    .on(endpoints.endSession, ({ params }) => {
      people = people.map((each) => ({ ...each, sessions: each.sessions.filter(({ id }) => id !== params.id) }));
      return undefined;
    });
  return { ...show(<People />, server), server };
}

it('lets somebody in by name and pass phrase, and says what is wrong with a short one', async () => {
  const { user, server } = open();
  await screen.findByText('Tove');
  await user.type(screen.getByLabelText('Name'), 'Runa');
  await user.type(screen.getByLabelText('Pass phrase'), 'loom');
  await user.click(screen.getByRole('button', { name: 'Let in' }));
  await screen.findByText(/at least 12 characters/);
  expect(server.askedOf(endpoints.addPerson)).toEqual([]);
  await user.type(screen.getByLabelText('Pass phrase'), ' weft and warp');
  await user.click(screen.getByRole('button', { name: 'Let in' }));
  await notice(/Runa can come in/);
  await screen.findByRole('button', { name: 'Remove Runa' });
  expect(screen.getByLabelText<HTMLInputElement>('Pass phrase').value).toBe('');
});

it('ends a session, but not the own one, and removes somebody after asking', async () => {
  const { user, server } = open();
  await user.click(await screen.findByRole('button', { name: 'End the session of Tove in Safari on an iPad' }));
  await waitFor(() => expect(screen.queryByText(/Safari/)).toBeNull());
  expect(screen.queryByRole('button', { name: /End the session of Owner/ })).toBeNull();
  await user.click(screen.getByRole('button', { name: 'Remove Tove' }));
  expect(server.askedOf(endpoints.removePerson)).toEqual([]);
  await user.click(screen.getByRole('button', { name: 'Let in no more' }));
  await waitFor(() => expect(screen.queryByText('Tove')).toBeNull());
});

it('gives another pass phrase', async () => {
  const { user, server } = open();
  server.on(endpoints.changePassPhrase, () => undefined);
  await user.click(await screen.findByRole('button', { name: 'Another pass phrase' }));
  await user.type(screen.getByLabelText('Another pass phrase for Tove'), 'harbour rope and tar');
  await user.click(screen.getByRole('button', { name: 'Give it' }));
  await notice(/Tove comes in by another pass phrase/);
  expect(server.askedOf(endpoints.changePassPhrase)[0].body).toEqual({ passPhrase: 'harbour rope and tar' });
  expect(screen.queryByLabelText('Another pass phrase for Tove')).toBeNull();
});

it('shows a helper nobody else', async () => {
  const { server } = open('helper');
  await screen.findByText('You are here as Tove.');
  expect(server.askedOf(endpoints.listPeople)).toEqual([]);
});
