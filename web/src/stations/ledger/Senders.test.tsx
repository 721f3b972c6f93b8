import { screen, waitFor, within } from '@testing-library/react';
import { endpoints } from '@crow/contract/endpoints';
import { Category, Sender } from '@crow/contract/ledger';
import { newId } from '../../testing/papers';
import { notice, show, StandInServer } from '../../testing/window';
import { Senders } from './Senders';

const OFFICE: Category = { id: newId(), name: 'Office', side: 'cost', retired: false };
const sender = (name: string, given: Partial<Sender> = {}): Sender => ({
  id: newId(),
  name,
  address: 'Mill Lane, Cressbrook CB4 1QA',
  taxNumber: 'GB318224706',
  iban: 'DE44500105175407324931',
  categoryId: null,
  entries: 3,
  last: '2026-10-02',
  ...given,
});
const open = (senders: Sender[]) => {
  const server = new StandInServer()
    .on(endpoints.listSenders, () => senders)
    .on(endpoints.changeSender, () => undefined);
  return { server, ...show(<Senders categories={[OFFICE]} />, server) };
};

it('lists who sends bills, finds one, and puts right what is known of them, with the way back', async () => {
  const [yarns, dye] = [sender('Halden & Firth Yarns'), sender('Marlowe Dye Works', { taxNumber: '' })];
  const { user, server } = open([yarns, dye]);
  await user.type(await screen.findByRole('searchbox', { name: 'Find a sender' }), 'marlowe');
  const table = screen.getByRole('table', { name: 'Senders' });
  expect(within(table).queryByText(yarns.name)).toBeNull();
  await user.type(screen.getByLabelText(`Tax number of ${dye.name}`), 'GB774019351{Enter}');
  await user.click((await notice('Marlowe Dye Works is changed.')).getByRole('button', { name: /Undo/ }));
  await waitFor(() =>
    expect(server.askedOf(endpoints.changeSender)).toEqual([
      { params: { id: dye.id }, body: { taxNumber: 'GB774019351' } },
      { params: { id: dye.id }, body: { taxNumber: '' } },
    ]),
  );
  await user.selectOptions(screen.getByLabelText(`Under what bills of ${dye.name} are entered`), 'Office');
  await waitFor(() => expect(server.askedOf(endpoints.changeSender).at(-1)?.body).toEqual({ categoryId: OFFICE.id }));
});

it('shows as many as can be looked through, and how many more there are', async () => {
  open(Array.from({ length: 75 }, (_, at) => sender(`Sender ${at}`)));
  await screen.findByText('15 more senders: type a part of a name.');
  expect(screen.getAllByRole('row')).toHaveLength(61);
});
