import { screen, waitFor } from '@testing-library/react';
import { endpoints } from '@crow/contract/endpoints';
import { Person } from '@crow/contract/people';
import { newId } from '../../testing/papers';
import { notice, show, StandInServer } from '../../testing/window';
import { Persons } from './Persons';

const COMMON = { byPhrase: true, allFolders: false, folders: [] };

function open() {
  const session = (part: object) => ({
    id: newId(),
    browser: 'Firefox on Linux',
    device: '',
    since: '2026-11-20T08:00:00Z',
    used: '2026-11-27T08:00:00Z',
    own: false,
    ...part,
  });
  let people: Person[] = [
    { id: newId(), name: 'Owner', role: 'owner', ...COMMON, byPhrase: false, sessions: [session({ own: true })] },
    { id: newId(), name: 'Tove', role: 'helper', ...COMMON, sessions: [session({ browser: 'Safari on an iPad' })] },
  ];
  const server = new StandInServer()
    .on(endpoints.listPeople, () => people)
    .on(endpoints.addPerson, ({ body }) => {
      people = [...people, { ...COMMON, id: newId(), name: body.name, role: body.role, sessions: [] }];
      return undefined;
    })
    .on(endpoints.removePerson, ({ params }) => {
      people = people.filter(({ id }) => id !== params.id);
      return undefined;
    })
    .on(endpoints.endSession, ({ params }) => {
      people = people.map((each) => ({ ...each, sessions: each.sessions.filter(({ id }) => id !== params.id) }));
      return undefined;
    });
  return { ...show(<Persons />, server), server };
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
  await user.click(screen.getByRole('button', { name: 'Save' }));
  await notice(/Tove comes in by another pass phrase/);
  expect(server.askedOf(endpoints.changePassPhrase)[0].body).toEqual({ passPhrase: 'harbour rope and tar' });
  expect(screen.queryByLabelText('Another pass phrase for Tove')).toBeNull();
});

it('lets a reader see some folders only', async () => {
  const { user, server } = open();
  const [workshop, yarn, home] = ['Workshop', 'Workshop/Yarn', 'Home'].map((path) => ({
    id: newId(),
    parentId: null as string | null,
    name: path.split('/').at(-1)!,
    path,
    documents: 1,
    inside: 1,
  }));
  server.on(endpoints.listFolders, () => [workshop, { ...yarn, parentId: workshop.id }, home]);
  await user.type(await screen.findByLabelText('Name'), 'Per');
  await user.type(screen.getByLabelText('Pass phrase'), 'harbour rope and tar');
  await user.click(screen.getByRole('radio', { name: /Reader/ }));
  await user.click(screen.getByRole('checkbox', { name: 'all folders' }));
  await user.click(await screen.findByRole('checkbox', { name: 'Workshop' }));
  // What lies in a folder is seen with it.
  expect(screen.getByRole<HTMLInputElement>('checkbox', { name: 'Yarn' })).toMatchObject({
    checked: true,
    disabled: true,
  });
  await user.click(screen.getByRole('button', { name: 'Let in' }));
  await notice(/Per can come in/);
  expect(server.askedOf(endpoints.addPerson)[0].body).toMatchObject({
    role: 'reader',
    allFolders: false,
    folders: [workshop.id],
  });
});
