import { act, screen, within } from '@testing-library/react';
import { useState } from 'react';
import { endpoints } from '@crow/contract/endpoints';
import { Document } from '@crow/contract/documents';
import { document, fact, folder, settings, summary } from '../../testing/papers';
import { show, StandInServer } from '../../testing/window';
import { Filing, FolderStrip } from './FolderStrip';

const yarn = folder('Workshop/Yarn', { documents: 1 });
const rent = folder('Workshop/Rent');

function open(part: Partial<Document> = {}, ways = settings()) {
  const filed: Filing[] = [];
  const server = new StandInServer()
    .on(endpoints.listFolders, () => [yarn, rent])
    .on(endpoints.readSettings, () => ways)
    .on(endpoints.listDocuments, ({ params }) =>
      params.id === yarn.id
        ? [summary({ name: '2026-11-12 Halden & Firth Yarns Ltd Invoice', state: 'filed', folderId: yarn.id })]
        : [],
    );
  const strip = (shown: Document) => <FolderStrip document={shown} onFile={(wish) => filed.push(wish)} busy={false} />;
  let arrive: (shown: Document) => void = () => undefined;
  function Strip() {
    const [shown, setShown] = useState(() => document(part));
    arrive = setShown;
    return strip(shown);
  }
  /** The document as the server tells it again. */
  const again = (shown: Document) => act(() => arrive(shown));
  return { ...show(<Strip />, server), again, filed, name: () => screen.getByLabelText<HTMLInputElement>('Name') };
}

it('makes the name from what was read, and files with one key where it is suggested', async () => {
  const { user, filed, name } = open({ suggestion: { path: 'Workshop/Rent', reason: 'the last four went there' } });
  expect(await screen.findByText(/the last four went there/)).toBeTruthy();
  expect(name().value).toBe('2026-11-12 Halden & Firth Yarns Ltd Invoice');
  await user.keyboard('{Control>}{Enter}{/Control}');
  expect(filed).toEqual([
    { name: '2026-11-12 Halden & Firth Yarns Ltd Invoice', size: 'balanced', beside: [], folderId: rent.id },
  ]);
});

it('shows what is in the folder, and gives another name where the name is taken', async () => {
  const { user, name } = open();
  await user.type(screen.getByLabelText('Folder'), 'yarn');
  // The first one listed is marked already.
  await user.keyboard('{Enter}');
  const inside = (await screen.findByText('Already in Workshop / Yarn')).parentElement!;
  await within(inside).findByText('2026-11-12 Halden & Firth Yarns Ltd Invoice');
  expect(name().value).toBe('2026-11-12 Halden & Firth Yarns Ltd Invoice (2)');
});

it('keeps what was typed as the name, and leads back to the one that was made', async () => {
  const { user, name } = open();
  await user.clear(name());
  await user.type(name(), 'Madder for the blue rug');
  await user.type(screen.getByLabelText('Folder'), 'Workshop/Rent');
  expect(name().value).toBe('Madder for the blue rug');
  await user.click(screen.getByRole('button', { name: /^Back to “2026-11-12 Halden/ }));
  expect(name().value).toBe('2026-11-12 Halden & Firth Yarns Ltd Invoice');
});

it('makes a new folder only when that is said, and goes to what is missing instead of filing', async () => {
  const { user, filed, name } = open();
  await user.click(screen.getByRole('button', { name: /^File it/ }));
  expect(window.document.activeElement).toBe(screen.getByLabelText('Folder'));
  await user.type(screen.getByLabelText('Folder'), 'Home/School');
  await user.keyboard('{Control>}{Enter}{/Control}');
  expect(filed).toEqual([]);
  expect(screen.getByText(/^No such folder/)).toBeTruthy();
  await user.keyboard('{Enter}');
  expect(screen.getByText('a new folder')).toBeTruthy();
  await user.clear(name());
  await user.click(screen.getByRole('button', { name: /^File it/ }));
  expect(window.document.activeElement).toBe(name());
  expect(filed).toEqual([]);
  await user.type(name(), 'Trip to the lighthouse{Enter}');
  expect(filed).toMatchObject([{ name: 'Trip to the lighthouse', folderPath: 'Home/School' }]);
});

it('follows the way of filing that fits the folder, or the one that is chosen', async () => {
  const [usual] = settings().filing;
  const ways = settings({
    filing: [
      usual,
      {
        ...usual,
        name: 'Rent',
        pattern: 'Rent {date:MMM YYYY}',
        within: 'Workshop/Rent',
        size: 'small',
        beside: ['text'],
      },
      { ...usual, name: 'By amount', pattern: '{who} {amount}' },
    ],
  });
  const { user, filed, name } = open({}, ways);
  await user.type(await screen.findByLabelText('Folder'), 'Workshop/Rent');
  expect(name().value).toBe('Rent Nov 2026');
  expect(screen.getByText(/^beside it/)).toBeTruthy();
  await user.selectOptions(screen.getByLabelText('Way of filing'), 'By amount');
  expect(name().value).toBe('Halden & Firth Yarns Ltd 184.20');
  await user.selectOptions(screen.getByLabelText('Way of filing'), 'Rent');
  await user.click(screen.getByRole('button', { name: /^File it/ }));
  expect(filed).toEqual([{ name: 'Rent Nov 2026', size: 'small', beside: ['text'], folderId: rent.id }]);
});

it('changes no field that somebody is in, whatever arrives', async () => {
  const before = document({ facts: [fact('kind', 'letter')] });
  const { user, filed, name, again } = open(before);
  await user.click(screen.getByLabelText('Folder'));
  await user.keyboard('Works');
  again(document({ ...before, suggestion: { path: 'Workshop/Yarn', reason: 'the last four went there' } }));
  await user.keyboard('hop/R');
  expect(screen.getByLabelText<HTMLInputElement>('Folder').value).toBe('Workshop/R');
  await user.keyboard('{Enter}');
  expect(screen.getByLabelText<HTMLInputElement>('Folder').value).toBe('Workshop/Rent');
  await user.click(name());
  await user.keyboard('{End}, seen');
  again(document({ ...before, facts: [fact('kind', 'letter'), fact('vendor', 'Harbour Council')] }));
  expect(name().value).toMatch(/, seen$/);
  await user.keyboard('{Control>}{Enter}{/Control}');
  expect(filed).toMatchObject([{ folderId: rent.id, name: expect.stringMatching(/, seen$/) }]);
});

it('takes what was read into fields that somebody only passed through', async () => {
  const before = document({ facts: [] });
  const { user, name, again } = open(before);
  await user.click(name());
  const arrived = {
    facts: [fact('vendor', 'Harbour Council')],
    suggestion: { path: 'Workshop/Yarn', reason: 'as ever' },
  };
  again(document({ ...before, ...arrived }));
  expect(name().value).not.toContain('Harbour Council');
  expect(screen.getByRole('button', { name: /“.*Harbour Council/ })).toBeTruthy();
  await user.tab({ shift: true });
  expect(name().value).toContain('Harbour Council');
});

it('lets a suggestion come into the field that nobody is in, and offers the likeliest folders where none is clear', async () => {
  const before = document({ likely: ['Workshop/Rent', 'Letters/2026'] });
  const { user, filed } = open(before);
  expect(screen.getByLabelText<HTMLInputElement>('Folder').value).toBe('');
  await user.click(await screen.findByRole('button', { name: /Letters \/ 2026 \(new\)/ }));
  expect(screen.getByText('a new folder')).toBeTruthy();
  await user.click(screen.getByRole('button', { name: /^File it/ }));
  expect(filed).toMatchObject([{ folderPath: 'Letters/2026' }]);
});
