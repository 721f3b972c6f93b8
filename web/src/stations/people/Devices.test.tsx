import { screen } from '@testing-library/react';
import { endpoints } from '@crow/contract/endpoints';
import { NetworkDoor, Person } from '@crow/contract/people';
import { newId } from '../../testing/papers';
import { show, StandInServer } from '../../testing/window';
import { Devices } from './Devices';

const SHUT: NetworkDoor = { open: false, byProxy: false, addresses: [], fingerprint: null, problem: null };
const OPEN: NetworkDoor = {
  open: true,
  byProxy: false,
  addresses: ['https://192.168.7.20:4443', 'https://loom.local:4443'],
  fingerprint: 'AB CD',
  problem: null,
};
const session = (part: object) => ({
  id: newId(),
  browser: 'Safari on an iPhone',
  device: '',
  since: new Date().toISOString(),
  used: new Date().toISOString(),
  own: false,
  ...part,
});

function open(door: NetworkDoor) {
  const owner: Person = {
    id: newId(),
    name: 'Imre',
    role: 'owner',
    byPhrase: false,
    allFolders: false,
    folders: [],
    sessions: [],
  };
  let now = door;
  const server = new StandInServer()
    .on(endpoints.readDoor, () => now)
    .on(endpoints.changeDoor, ({ body }) => (now = body.open ? OPEN : SHUT))
    .on(endpoints.listPeople, () => [owner])
    .on(endpoints.letDeviceIn, () => ({
      address: 'https://192.168.7.20:4443/enter?key=abc',
      code: ['101', '010', '111'],
      goodUntil: new Date(Date.now() + 300_000).toISOString(),
    }));
  return { ...show(<Devices />, server), server, owner };
}

it('opens the door, and says where it is and what its certificate looks like', async () => {
  const { user } = open(SHUT);
  expect(screen.queryByText('Let a device in')).toBeNull();
  await user.click(await screen.findByRole('button', { name: 'Open the door' }));
  await screen.findByText('https://192.168.7.20:4443');
  expect(screen.getByLabelText('Fingerprint of the certificate').textContent).toBe('AB CD');
  await user.click(screen.getByRole('button', { name: 'Shut the door' }));
  await screen.findByRole('button', { name: 'Open the door' });
});

it('shows a code for a phone of the owner’s own, and says when it has come in', async () => {
  const { user, server, owner, arrive } = open(OPEN);
  await user.type(await screen.findByLabelText('What is it called?'), 'My phone');
  await user.click(screen.getByRole('button', { name: 'Show the code' }));
  await screen.findByRole('img', { name: 'Code that lets “My phone” in' });
  expect(server.askedOf(endpoints.letDeviceIn)[0].body).toEqual({ name: 'My phone', person: owner.id });
  owner.sessions = [session({ device: 'My phone' })];
  await arrive();
  await screen.findByRole('heading', { name: '“My phone” is in' });
  expect(screen.queryByRole('img')).toBeNull();
});

it('lets a device in that only captures', async () => {
  const { user, server } = open(OPEN);
  await user.type(await screen.findByLabelText('What is it called?'), 'Tablet');
  await user.selectOptions(screen.getByLabelText('It comes in'), 'by itself, only to capture');
  await user.click(screen.getByRole('button', { name: 'Show the code' }));
  await screen.findByRole('img');
  expect(server.askedOf(endpoints.letDeviceIn)[0].body).toEqual({ name: 'Tablet' });
});

it('leaves the door to the proxy that is in front', async () => {
  open({ ...OPEN, byProxy: true, addresses: ['https://papers.example.org'], fingerprint: null });
  await screen.findByText('https://papers.example.org');
  expect(screen.queryByRole('button', { name: /the door$/ })).toBeNull();
  expect(screen.queryByLabelText('Fingerprint of the certificate')).toBeNull();
});
