import { screen, waitFor, within } from '@testing-library/react';
import { endpoints } from '@crow/contract/endpoints';
import { folder, newId, settings } from '../../testing/papers';
import { notice, Refusal, show, StandInServer } from '../../testing/window';
import WaysOfFiling from './WaysOfFiling';

const [usual] = settings().filing;

function open(saved = settings()) {
  let now = saved;
  const server = new StandInServer()
    .on(endpoints.readSettings, () => now)
    .on(endpoints.listFolders, () => [folder('Workshop/Rent')])
    .on(endpoints.filingExamples, () => [
      {
        id: newId(),
        name: 'Yarn',
        values: { kind: 'invoice', who: 'Halden & Firth', date: '2026-11-12', amount: '184.20', currency: 'GBP' },
      },
      { id: newId(), name: '', values: { kind: 'letter', who: 'Harbour Council' } },
    ])
    .on(endpoints.changeSettings, ({ body }) => (now = { ...now, ...(body.filing && { filing: body.filing }) }));
  return { ...show(<WaysOfFiling />, server), server };
}

const pattern = () => screen.findByLabelText<HTMLInputElement>('Pattern of the name');
const papers = () =>
  within(screen.getByRole('region', { name: 'On your papers' }))
    .getAllByRole('listitem')
    .map((row) => row.firstElementChild!.textContent);

it('tries a pattern on real papers while it is typed, and leaves nothing over where a fact is missing', async () => {
  const { user } = open();
  const field = await pattern();
  await user.clear(field);
  await user.type(field, '{{who}[[, {{date:DD.MM.YY}][[ ({{amount})]');
  await waitFor(() => expect(papers()).toEqual(['Halden & Firth, 12.11.26 (184.20)', 'Harbour Council']));
});

it('says what is wrong with a pattern, and does not keep it', async () => {
  const { user, server } = open();
  const field = await pattern();
  await user.type(field, ' {{colour}');
  expect(field.getAttribute('aria-invalid')).toBe('true');
  expect(screen.getByRole<HTMLButtonElement>('button', { name: 'Keep' }).disabled).toBe(true);
  await user.click(screen.getByRole('button', { name: 'Discard changes' }));
  expect((await pattern()).value).toBe(usual.pattern);
  expect(server.askedOf(endpoints.changeSettings)).toEqual([]);
});

it('shows what another window keeps, but not under the hand', async () => {
  const { user, server, arrive } = open();
  const field = await pattern();
  let now = settings({ filing: [{ ...usual, pattern: '{who}' }] });
  server.on(endpoints.readSettings, () => now);
  await arrive();
  await waitFor(() => expect(field.value).toBe('{who}'));
  await user.type(field, ' mine');
  now = settings({ filing: [{ ...usual, pattern: '{date}' }] });
  await arrive();
  await screen.findByText(/Changed in another window/);
  expect(field.value).toBe('{who} mine');
  await user.click(screen.getByRole('button', { name: 'Take the other ones' }));
  await waitFor(async () => expect((await pattern()).value).toBe('{date}'));
});

it('keeps another way for a kind and a folder, and takes that back', async () => {
  const { user, server } = open();
  await pattern();
  await user.click(screen.getByRole('button', { name: /Another way/ }));
  expect(screen.getByRole<HTMLButtonElement>('button', { name: 'Keep' }).disabled).toBe(true);
  await user.type(screen.getByLabelText('What it is called'), 'Rent');
  await user.click(screen.getByLabelText('Letter'));
  await user.type(screen.getByLabelText('Only in the folder'), 'Workshop/Rent');
  await user.selectOptions(screen.getByLabelText('Size of the PDF'), 'Small');
  screen.getByText('letter in Workshop / Rent');
  await user.click(screen.getByRole('button', { name: 'Keep' }));
  const said = await notice('Papers are filed like this from now on.');
  expect(server.askedOf(endpoints.changeSettings)[0].body.filing).toEqual([
    usual,
    { ...usual, name: 'Rent', kinds: ['letter'], within: 'Workshop/Rent', size: 'small' },
  ]);
  await user.click(said.getByText('Undo'));
  await waitFor(() => expect(server.askedOf(endpoints.changeSettings)[1].body.filing).toEqual([usual]));
});

it('does not take two ways of one name, and keeps what was typed when the server refuses it', async () => {
  const { user, server } = open();
  await pattern();
  await user.click(screen.getByRole('button', { name: /Another way/ }));
  await user.type(screen.getByLabelText('What it is called'), 'Usual');
  await screen.findByText('There are two ways called “Usual”.');
  await user.type(screen.getByLabelText('What it is called'), ' two');
  server.on(endpoints.changeSettings, () => new Refusal('It is not ready.'));
  await user.click(screen.getByRole('button', { name: 'Keep' }));
  await notice(/It is not ready/);
  expect(screen.getByLabelText<HTMLInputElement>('What it is called').value).toBe('Usual two');
});

it('puts what can be known where the cursor is', async () => {
  const { user } = open();
  const field = await pattern();
  field.setSelectionRange(6, 6);
  await user.click(screen.getByRole('button', { name: 'number' }));
  expect(field.value).toBe('{date}{number} {who} {kind}');
});
