import { screen, waitFor } from '@testing-library/react';
import { endpoints } from '@crow/contract/endpoints';
import { SigningKey } from '@crow/contract/signing';
import { document, newId } from '../../../testing/papers';
import { notice, Refusal, show, StandInServer } from '../../../testing/window';
import SignDialog from './SignDialog';

const LEASE = document({ name: 'Lease', state: 'filed', bytes: 9000 });
const KEY: SigningKey = {
  ...{ id: newId(), name: 'Imre Castellane', issuer: 'Imre Castellane' },
  ...{ until: '2036-03-14T09:00:00.000Z', fingerprint: 'AA BB' },
};

function open(keys: SigningKey[], { refuses = false } = {}) {
  const server = new StandInServer()
    .on(endpoints.listSigningKeys, () => keys)
    .on(endpoints.makeSigningKey, ({ body }) => [...keys, { ...KEY, name: body.name }])
    .on(endpoints.importSigningKey, () => [...keys, KEY])
    .on(endpoints.signDocument, ({ body }) =>
      refuses
        ? new Refusal('The key can’t be opened.')
        : [
            {
              ...{ number: 1, until: '2026-03-14T09:00:00.000Z', bytes: 9100 },
              signed: { by: 'Imre', certified: body.key ? KEY.name : null, reason: body.reason },
            },
          ],
    );
  const closed = jest.fn();
  return { server, closed, ...show(<SignDialog document={LEASE} onClose={closed} />, server, '/shelf/') };
}

it('keeps a copy without a key, which is what is proposed to whoever has none', async () => {
  const { user, server, closed } = open([]);
  await user.click(await screen.findByRole('button', { name: 'Keep the copy' }));
  await notice(/The copy is kept;/);
  expect(server.askedOf(endpoints.signDocument)[0].body).toEqual({ key: null, reason: '' });
  expect(closed).toHaveBeenCalled();
});

it('makes a key when one is wished for, and signs with it', async () => {
  const { user, server } = open([]);
  await user.selectOptions(await screen.findByLabelText('Signed digitally'), 'with a new key that is made here');
  await user.type(screen.getByLabelText(/Your name/), 'Imre Castellane');
  await user.type(screen.getByLabelText(/pass phrase/), 'short');
  await user.click(screen.getByRole('button', { name: 'Sign and keep it' }));
  expect((await screen.findByRole('alert')).textContent).toMatch(/at least 8/);
  await user.type(screen.getByLabelText(/pass phrase/), ' and longer');
  await user.type(screen.getByLabelText(/means/), 'I agree');
  await user.click(screen.getByRole('button', { name: 'Sign and keep it' }));
  await notice(/signed as Imre Castellane/);
  const key = { id: KEY.id, passPhrase: 'short and longer' };
  expect(server.askedOf(endpoints.signDocument)[0].body).toEqual({ key, reason: 'I agree' });
});

it('signs with the key that is there, and stays open when its pass phrase is wrong', async () => {
  const { user, closed } = open([KEY], { refuses: true });
  await user.type(await screen.findByLabelText('Its pass phrase'), 'wrong');
  await user.click(screen.getByRole('button', { name: 'Sign and keep it' }));
  await notice(/can’t be opened/);
  expect(closed).not.toHaveBeenCalled();
});

it('brings a key in from a file', async () => {
  const { user, server } = open([KEY]);
  await user.selectOptions(await screen.findByLabelText('Signed digitally'), 'with a key from a file (.p12, .pfx)');
  await user.upload(screen.getByLabelText(/The file with key/), new File([new Uint8Array([1, 2, 255])], 'ada.p12'));
  await user.type(screen.getByLabelText('Its password'), 'secret');
  await user.click(screen.getByRole('button', { name: 'Sign and keep it' }));
  await waitFor(() => expect(server.askedOf(endpoints.signDocument)).toHaveLength(1));
  expect(server.askedOf(endpoints.importSigningKey)[0].body).toEqual({ file: 'AQL/', passPhrase: 'secret' });
});
