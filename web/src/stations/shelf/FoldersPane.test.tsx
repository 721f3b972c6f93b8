import { act, fireEvent, screen, waitFor, within } from '@testing-library/react';
import { useState } from 'react';
import { Route, Routes } from 'react-router';
import { endpoints } from '@crow/contract/endpoints';
import { Folder } from '@crow/contract/folders';
import { Overview } from '@crow/contract/settings';
import { folder, newId, summary } from '../../testing/papers';
import { notice, Refusal, show, StandInServer } from '../../testing/window';
import { BinPane } from './BinPane';
import { ChangedOnDiskPane } from './DiskChoices';
import { FoldersPane } from './FoldersPane';

const OVERVIEW: Overview = {
  stacks: 0,
  arriving: 0,
  watched: 0,
  check: 0,
  filing: 0,
  filed: 2,
  unread: 0,
  ties: 0,
  changedOnDisk: 0,
  strangers: 0,
  troubles: [],
};

function open({ folders = [] as Folder[], at = '/shelf/', changedOnDisk = 0 } = {}) {
  const server = new StandInServer()
    .on(endpoints.listFolders, () => folders)
    .on(endpoints.overview, () => ({ ...OVERVIEW, changedOnDisk }))
    .on(endpoints.makeFolder, ({ body }) => {
      folders.push(folder(body.path));
      return folders.at(-1)!;
    });
  const station = (
    <Routes>
      <Route path="/shelf/:folder?/:document?" element={<FoldersPane />} />
    </Routes>
  );
  return { server, folders, ...show(station, server, at) };
}

const tree = () => screen.getByRole('list', { name: 'Folders' });

it('makes a folder and goes to it, and one inside another', async () => {
  const { user, server, folders, address } = open({ folders: [folder('Workshop')] });
  await user.click(await screen.findByRole('button', { name: 'New folder' }));
  await user.type(await screen.findByLabelText('Its name'), 'Home{Enter}');
  await waitFor(() => expect(address()).toBe(`/shelf/${folders[1].id}`));
  await within(tree()).findByText('Home');
  await user.click(screen.getByRole('button', { name: 'More about Workshop' }));
  await user.click(await screen.findByText('New folder in it …'));
  await user.type(await screen.findByLabelText('Its name'), 'Rent{Enter}');
  await waitFor(() =>
    expect(server.askedOf(endpoints.makeFolder).map(({ body }) => body.path)).toEqual(['Home', 'Workshop/Rent']),
  );
});

it('keeps what was typed when the server refuses it, and says why', async () => {
  const { user, server } = open({ folders: [folder('Workshop')] });
  server.on(endpoints.changeFolder, () => new Refusal('There is a folder of that name.'));
  await user.click(await screen.findByRole('button', { name: 'More about Workshop' }));
  await user.click(await screen.findByText('Rename …'));
  const field = await screen.findByLabelText<HTMLInputElement>('Its name');
  expect(field.value).toBe('Workshop');
  await user.clear(field);
  await user.type(field, 'Home{Enter}');
  await notice(/There is a folder of that name/);
  expect(screen.getByLabelText<HTMLInputElement>('Its name').value).toBe('Home');
});

async function drop(ids: string[], name: string) {
  const row = (await screen.findByText(name)).closest('li')!;
  const type = 'application/x-crow-document';
  const dataTransfer = { types: [type], getData: (asked: string) => (asked === type ? ids.join(' ') : '') };
  fireEvent.dragOver(row, { dataTransfer });
  fireEvent.drop(row, { dataTransfer });
}

it('takes what is dropped on a folder', async () => {
  const rent = folder('Rent');
  const { server } = open({ folders: [rent] });
  server.on(endpoints.changeDocuments, () => []);
  const ids = [newId(), newId()];
  await drop(ids, 'Rent');
  await notice('2 documents moved to Rent.');
  expect(server.askedOf(endpoints.changeDocuments)[0].body.changes).toMatchObject(
    ids.map((id) => ({ id, folderId: rent.id })),
  );
});

it('tells that it was moved, and how to undo it, even when the folders have gone from the screen by then', async () => {
  const folders = [folder('Rent')];
  const server = new StandInServer().on(endpoints.listFolders, () => folders).on(endpoints.overview, () => OVERVIEW);
  let leave = () => {};
  const Station = () => {
    const [here, setHere] = useState(true);
    leave = () => act(() => setHere(false));
    return here && <FoldersPane />;
  };
  server.on(endpoints.changeDocuments, () => {
    leave();
    return [];
  });
  show(<Station />, server, '/shelf/');
  await drop([newId()], 'Rent');
  await notice('1 document moved to Rent.');
  expect(screen.queryByText('Rent')).toBeNull();
  expect(screen.getByRole('button', { name: 'Undo' })).toBeTruthy();
});

it('brings a ZIP in again and says what came and what did not', async () => {
  const { user } = open();
  const archive = new File(['zip'], 'shelf.zip', { type: 'application/zip' });
  globalThis.fetch = () =>
    Promise.resolve({
      ok: true,
      status: 200,
      json: () => Promise.resolve({ brought: 3, known: 1, missing: 2 }),
    } as Response);
  await user.upload(screen.getByLabelText(/Bring a ZIP in again/), archive);
  await notice(
    '3 documents from “shelf.zip” came back to the shelf. 1 document was on the shelf already. Of 2 documents the PDF is not in it.',
  );
});

it('leads to what somebody changed on disk, when there is something', async () => {
  const { user, address } = open({ changedOnDisk: 2 });
  await user.click(await screen.findByRole('button', { name: /Changed on disk/ }));
  expect(address()).toBe('/shelf/changed');
});

function at(element: React.ReactElement, server: StandInServer) {
  return show(
    <Routes>
      <Route path="/shelf/:folder?/:document?" element={element} />
    </Routes>,
    server,
    '/shelf/bin',
  );
}

it('settles all files that were changed in one way at once, or each by itself', async () => {
  const problem = (code: 'shelf-file-missing' | 'shelf-file-moved') => ({
    code,
    happened: `Something happened: ${code}.`,
    kept: 'Kept.',
    todo: 'Choose.',
  });
  const [one, two] = ['One', 'Two'].map((name) =>
    summary({ name, state: 'filed', problem: problem('shelf-file-missing') }),
  );
  const moved = summary({ name: 'Three', state: 'filed', problem: problem('shelf-file-moved') });
  const server = new StandInServer()
    .on(endpoints.listChangedOnDisk, () => [one, two, moved])
    .on(endpoints.settleOnDisk, () => undefined);
  const { user } = at(<ChangedOnDiskPane />, server);
  await screen.findByText('All 2 files missing:');
  const missing = within(screen.getByRole('region', { name: 'Files missing' }));
  await user.click(missing.getAllByRole('button', { name: 'Put it back' })[0]);
  const others = within(screen.getByRole('region', { name: 'Files moved' }));
  await waitFor(() =>
    expect(others.getByRole<HTMLButtonElement>('button', { name: 'Move the file back' }).disabled).toBe(false),
  );
  await user.click(others.getByRole('button', { name: 'Move the document, too' }));
  await waitFor(() =>
    expect(server.askedOf(endpoints.settleOnDisk).map(({ body }) => body)).toEqual([
      { ids: [one.id, two.id], choice: 'as-filed' },
      { ids: [moved.id], choice: 'as-on-disk' },
    ]),
  );
});

it('empties the bin only when asked twice, and brings back from it', async () => {
  const binned = summary({ name: 'Old rent', state: 'filed', folderPath: 'Workshop/Rent' });
  const server = new StandInServer()
    .on(endpoints.listBin, () => ({ documents: [binned], stacks: [] }))
    .on(endpoints.bringBackDocument, () => undefined)
    .on(endpoints.emptyBin, () => undefined);
  const { user } = at(<BinPane />, server);
  await user.click(await screen.findByRole('button', { name: 'Bring back to Workshop / Rent' }));
  expect(server.askedOf(endpoints.bringBackDocument)).toEqual([{ params: { id: binned.id } }]);
  await user.click(screen.getByRole('button', { name: 'Empty the bin …' }));
  screen.getByText(/Delete 1 for good, with the originals/);
  await user.click(screen.getByRole('button', { name: 'Keep' }));
  expect(server.askedOf(endpoints.emptyBin)).toEqual([]);
  await user.click(screen.getByRole('button', { name: 'Empty the bin …' }));
  await user.click(screen.getByRole('button', { name: 'Delete' }));
  await waitFor(() => expect(server.askedOf(endpoints.emptyBin)).toHaveLength(1));
});
