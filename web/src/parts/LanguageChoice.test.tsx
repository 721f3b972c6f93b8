import { screen, waitFor } from '@testing-library/react';
import { endpoints } from '@crow/contract/endpoints';
import { LanguageList } from '@crow/contract/settings';
import { settings } from '../testing/papers';
import { notice, Refusal, show, StandInServer } from '../testing/window';
import { LanguageChoice } from './LanguageChoice';

const KNOWN: LanguageList = {
  installed: [
    { code: 'eng', name: 'English', toldApart: true },
    { code: 'deu', name: 'German', toldApart: true },
    { code: 'fra', name: 'French', toldApart: true },
  ],
  addable: [
    { code: 'swe', name: 'Swedish' },
    { code: 'pol', name: 'Polish' },
  ],
};

async function open() {
  let [now, known] = [settings(), KNOWN];
  const server = new StandInServer()
    .on(endpoints.readSettings, () => now)
    .on(endpoints.listLanguages, () => known)
    .on(
      endpoints.changeSettings,
      ({ body }) => (now = { ...now, ...(body.languages && { languages: body.languages }) }),
    )
    .on(endpoints.addLanguage, ({ body }) => {
      const added = known.addable.find(({ code }) => code === body.code)!;
      now = { ...now, languages: [...now.languages, added.code] };
      return (known = {
        installed: [...known.installed, { ...added, toldApart: false }],
        addable: known.addable.filter((each) => each !== added),
      });
    });
  const shown = show(<LanguageChoice />, server);
  await screen.findByLabelText('French');
  return { ...shown, server };
}

const box = (name: string | RegExp) => screen.getByLabelText<HTMLInputElement>(name);

it('takes a language in and out, and never lets the last one go', async () => {
  const { user, server } = await open();
  expect([/English/, /German/, /French/].map((name) => box(name).checked)).toEqual([true, true, false]);
  await user.click(box(/French/));
  await waitFor(() => expect(box(/French/).checked).toBe(true));
  for (const name of [/English/, /German/]) {
    await user.click(box(name));
    await waitFor(() => expect(box(name).checked).toBe(false));
  }
  await user.click(box(/French/));
  expect(box(/French/).checked).toBe(true);
  expect(server.askedOf(endpoints.changeSettings).map(({ body }) => body.languages)).toEqual([
    ['eng', 'deu', 'fra'],
    ['deu', 'fra'],
    ['fra'],
  ]);
});

it('adds one by its name, and none that is not in the list', async () => {
  const { user, server } = await open();
  const add = screen.getByRole<HTMLButtonElement>('button', { name: 'Add' });
  await user.type(screen.getByLabelText('Another language'), 'Klingon');
  screen.getByText('Choose one from the list.');
  expect(add.disabled).toBe(true);
  await user.clear(screen.getByLabelText('Another language'));
  await user.type(screen.getByLabelText('Another language'), 'swedish{Enter}');
  await screen.findByLabelText('Swedish');
  expect(server.askedOf(endpoints.addLanguage)).toEqual([{ body: { code: 'swe' } }]);
  expect(screen.getByLabelText<HTMLInputElement>('Another language').value).toBe('');
});

it('says why one could not be added, and keeps what was typed', async () => {
  const { user, server } = await open();
  server.on(endpoints.addLanguage, () => new Refusal('Debian’s packages can’t be reached.'));
  await user.type(screen.getByLabelText('Another language'), 'Polish{Enter}');
  await notice(/can’t be reached/);
  expect(screen.getByLabelText<HTMLInputElement>('Another language').value).toBe('Polish');
});
