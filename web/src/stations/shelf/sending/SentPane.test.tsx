import { screen, within } from '@testing-library/react';
import { CopyPlace } from '@crow/contract/copyPlaces';
import { endpoints } from '@crow/contract/endpoints';
import { Parcel } from '@crow/contract/sending';
import { parcel } from '../../../testing/papers';
import { show, StandInServer } from '../../../testing/window';
import { SentPane } from './SentPane';

function open(parcels: Parcel[], places: CopyPlace[] = []) {
  const server = new StandInServer()
    .on(endpoints.listCopyPlaces, () => places)
    .on(endpoints.listPlaces, () => ['/media/stick/Papers'])
    .on(endpoints.addCopyPlace, ({ body }) => copyPlace({ path: body.path, keep: body.keep }))
    .on(endpoints.agreeCopyPlace, () => undefined)
    .on(endpoints.leaveCopyPlace, () => undefined)
    .on(endpoints.listParcels, () => parcels)
    .on(endpoints.sendAgain, ({ params }) => parcels.find(({ id }) => id === params.id)!)
    .on(endpoints.endParcel, ({ params }) => parcels.find(({ id }) => id === params.id)!);
  return { server, ...show(<SentPane />, server, '/shelf/sent') };
}
const copyPlace = (part: Partial<CopyPlace>): CopyPlace => ({
  ...{ id: '7d9f0c1e-2c1b-4c64-9a51-0d2a6f1f3b11', path: '/media/stick/Papers', scope: 'shelf', of: '', keep: true },
  ...{ copies: 38, wanted: 40, agreed: null, left: [], problem: null },
  ...part,
});
const line = async (text: string) => within((await screen.findByText(text)).closest('li')!);
const LINK: NonNullable<Parcel['link']> = {
  ...{ address: 'http://127.0.0.1:1/look/abc', code: null, reached: true, ends: '2026-03-21T09:00:00.000Z' },
  ...{
    mostLooks: null,
    locked: true,
    looks: [{ at: '2026-03-15T09:00:00.000Z', from: '192.168.1.9', browser: 'Firefox on Linux' }],
  },
};

it('says what became of each, and offers what can still be done', async () => {
  const problem = {
    code: 'mail-refused' as const,
    ...{ happened: 'The mail server refused it: nobody.', kept: 'The mail is kept.', todo: 'Send it again.' },
  };
  const refused = parcel({ title: 'Refused', state: 'refused', problem, done: null });
  const { user, server } = open([
    refused,
    parcel({ title: 'Gone' }),
    parcel({ way: 'link', title: 'Shared', state: 'ready', to: '', done: null, link: LINK }),
    parcel({ way: 'link', title: 'Over', state: 'ended', to: '', link: LINK }),
  ]);
  const first = await line('Refused');
  first.getByRole('alert');
  await user.click(first.getByRole('button', { name: 'Send it now' }));
  expect(server.askedOf(endpoints.sendAgain)[0]).toEqual({ params: { id: refused.id } });
  const gone = await line('Gone');
  gone.getByText(/^sent on/);
  expect(gone.queryByRole('button', { name: /Send|Don’t/ })).toBeNull();
  const shared = await line('Shared');
  shared.getByText(/Firefox on Linux, from 192.168.1.9/);
  await user.click(shared.getByRole('button', { name: 'End it now' }));
  expect(server.askedOf(endpoints.endParcel)).toHaveLength(1);
  expect((await line('Over')).queryByRole('button', { name: 'End it now' })).toBeNull();
});

it('tells what to do when nothing was sent', async () => {
  open([]);
  await screen.findByText(/Nothing was sent yet/);
});

it('says how far the copies in a folder are, what was left alone there, and lets them be looked at and left', async () => {
  const problem = {
    code: 'copies-gone' as const,
    happened: 'It is away.',
    kept: 'Nothing was written.',
    todo: 'Connect it.',
  };
  const gone = {
    id: '7d9f0c1e-2c1b-4c64-9a51-0d2a6f1f3b12',
    path: '/mnt/office',
    scope: 'folder' as const,
    of: 'Home/Energy',
  };
  const { user, server } = open(
    [],
    [copyPlace({ left: ['Boat/Lease.pdf (changed there)'] }), copyPlace({ ...gone, problem })],
  );
  const going = await line('/media/stick/Papers');
  going.getByText('38 of 40 copied');
  going.getByText('Left alone there: Boat/Lease.pdf (changed there)');
  await user.click(going.getByRole('button', { name: 'Look at it now' }));
  expect(server.askedOf(endpoints.agreeCopyPlace)).toHaveLength(1);
  const away = await line('/mnt/office');
  away.getByText('Home / Energy');
  away.getByRole('alert');
  await user.click(away.getByRole('button', { name: /^Stop keeping/ }));
  expect(server.askedOf(endpoints.leaveCopyPlace)[0]).toEqual({ params: { id: gone.id } });
});

it('has the whole shelf copied into a folder, once if that is wished', async () => {
  const { user, server } = open([]);
  await user.click(await screen.findByRole('button', { name: /^Copies of the shelf in a folder/ }));
  const dialog = within(await screen.findByRole('dialog'));
  expect(dialog.getByRole('button', { name: 'Keep copies there' })).toHaveProperty('disabled', true);
  await user.type(dialog.getByLabelText(/^Folder of this machine/), '/media/stick/Papers');
  await user.click(dialog.getByLabelText(/^keep them in step/));
  await user.click(dialog.getByRole('button', { name: 'Copy them there' }));
  expect(server.askedOf(endpoints.addCopyPlace)[0]).toEqual({
    body: { path: '/media/stick/Papers', keep: false, folderId: null, documentIds: null },
  });
  await screen.findByText(/The copies are on their way to/);
});
