import { screen, within } from '@testing-library/react';
import { endpoints } from '@crow/contract/endpoints';
import { Parcel } from '@crow/contract/sending';
import { parcel } from '../../../testing/papers';
import { show, StandInServer } from '../../../testing/window';
import { SentPane } from './SentPane';

function open(parcels: Parcel[]) {
  const server = new StandInServer()
    .on(endpoints.listParcels, () => parcels)
    .on(endpoints.sendAgain, ({ params }) => parcels.find(({ id }) => id === params.id)!)
    .on(endpoints.endParcel, ({ params }) => parcels.find(({ id }) => id === params.id)!);
  return { server, ...show(<SentPane />, server, '/shelf/sent') };
}
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
