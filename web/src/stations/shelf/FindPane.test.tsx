import { screen, waitFor, within } from '@testing-library/react';
import { UserEvent } from '@testing-library/user-event';
import { Link, Route, Routes, useNavigate } from 'react-router';
import { endpoints } from '@crow/contract/endpoints';
import { DocumentSummary } from '@crow/contract/documents';
import { FoundDocument } from '@crow/contract/finding';
import { folder, newId, summary } from '../../testing/papers';
import { notice, Refusal, show, StandInServer } from '../../testing/window';
import { ChosenProvider } from './chosen';
import { FindPane } from './FindPane';

const yarn = folder('Workshop/Yarn');
const filed = (name: string, part: Partial<DocumentSummary> = {}) =>
  summary({ name, state: 'filed', folderId: yarn.id, folderPath: yarn.path, ...part });

function found(document: DocumentSummary, hits = 1): FoundDocument {
  const pieces = [
    { text: 'twelve skeins of', hit: false },
    { text: 'madder', hit: true },
  ];
  return { document, hits, morePages: 0, lines: [{ pageId: newId(), pageNumber: 1, pieces }] };
}

const papers = [
  found(filed('Yarn of May', { date: '2025-05-04' }), 3),
  found(filed('Yarn of June', { date: '2026-06-02' })),
  found(filed('Rent', { kind: 'letter', vendor: 'Harbour Council', date: '2026-06-10' })),
];

function WayBack() {
  const navigate = useNavigate();
  return <button onClick={() => void navigate(-1)}>Way back</button>;
}

function open(at = '/shelf/?find=', answer: FoundDocument[] = papers) {
  const server = new StandInServer()
    .on(endpoints.listFolders, () => [yarn, folder('Workshop/Rent')])
    .on(endpoints.find, ({ query }) => ({
      found: answer.slice(0, query.most ?? 20),
      more: answer.length > (query.most ?? 20),
      alsoSearched: [],
      inSort: [],
    }));
  const pane = (
    <ChosenProvider>
      <Link to={`/shelf/?find=${encodeURIComponent('tag:"to claim"')}`}>Elsewhere</Link>
      <WayBack />
      <FindPane />
    </ChosenProvider>
  );
  const station = (
    <Routes>
      <Route path="/shelf/:folder?/:document?" element={pane} />
    </Routes>
  );
  return { server, ...show(station, server, at) };
}

const field = () => screen.getByRole<HTMLInputElement>('searchbox', { name: 'Find' });
const names = () =>
  within(screen.getByLabelText('Found documents'))
    .getAllByRole('button')
    .map((each) => each.textContent);

it('shows the lines that match with the words marked, and says how many documents there are', async () => {
  const { user, address } = open();
  expect(window.document.activeElement).toBe(field());
  await user.type(field(), 'madder');
  await screen.findByText('3 documents');
  expect(names()).toEqual(['Yarn of May', 'Yarn of June', 'Rent']);
  screen.getByText('3 hits');
  expect(screen.getAllByText('madder').map(({ tagName }) => tagName)).toEqual(['MARK', 'MARK', 'MARK']);
  expect(address()).toBe('/shelf/?find=madder');
});

it('goes from one found document to the next with the arrow keys, and leaves with Escape', async () => {
  const { user, address } = open('/shelf/?find=madder');
  await screen.findByText('3 documents');
  await user.click(field());
  await user.keyboard('{ArrowDown}');
  expect(address()).toBe(`/shelf/${yarn.id}/${papers[0].document.id}?find=madder`);
  await user.keyboard('{ArrowDown}{ArrowDown}{ArrowDown}');
  expect(address()).toContain(papers[2].document.id);
  await user.keyboard('{ArrowUp}');
  expect(address()).toContain(papers[1].document.id);
  await user.keyboard('{Escape}');
  expect(address()).toBe('/shelf/');
});

it('is narrowed by a click on what was found, and put in another order', async () => {
  const { user, server } = open('/shelf/?find=madder');
  await screen.findByText('3 documents');
  await user.selectOptions(screen.getByLabelText('Only of one who'), 'who:"Halden & Firth Yarns Ltd"');
  expect(field().value).toBe('madder who:"Halden & Firth Yarns Ltd" ');
  await user.selectOptions(screen.getByLabelText('Only of one date'), '2026 (2)');
  expect(field().value).toBe('madder who:"Halden & Firth Yarns Ltd" date:2026 ');
  await user.selectOptions(screen.getByLabelText('Order'), 'oldest first');
  await waitFor(() =>
    expect(server.askedOf(endpoints.find).at(-1)!.query).toMatchObject({
      q: 'madder who:"Halden & Firth Yarns Ltd" date:2026 ',
      sort: 'oldest',
    }),
  );
});

it('says what can be typed, what was not found, and which spellings were read, too', async () => {
  const { user, server } = open('/shelf/?find=', []);
  screen.getByText('more than a hundred, in whatever currency');
  await user.click(screen.getByRole('button', { name: 'total>100' }));
  expect(field().value).toBe('total>100 ');
  await screen.findByText(/^Nothing found/);
  server.on(endpoints.find, () => ({
    found: papers.slice(0, 1),
    more: false,
    alsoSearched: ['rnadder', 'maddor'],
    inSort: [],
  }));
  await user.clear(field());
  await user.type(field(), 'madder');
  await screen.findByText('1 document · read as rnadder, maddor, too');
});

it('shows more when there are more', async () => {
  const many = Array.from({ length: 30 }, (_, at) => found(filed(`Paper ${at}`)));
  const { user } = open('/shelf/?find=madder', many);
  await screen.findByText('The first 20 documents');
  await user.click(screen.getByRole('button', { name: 'Show more' }));
  await screen.findByText('30 documents');
});

describe('with several chosen', () => {
  const choose = async (user: UserEvent, ...chosen: string[]) => {
    for (const name of chosen) await user.click(await screen.findByLabelText(`Choose ${name}`));
    await screen.findByText(`${chosen.length} chosen`);
  };

  it('moves them to a folder in one go, and back to where each was', async () => {
    const { user, server } = open('/shelf/?find=madder');
    const target = folder('Workshop/Dyes');
    server.on(endpoints.makeFolder, () => target).on(endpoints.changeDocuments, () => []);
    await choose(user, 'Yarn of May', 'Rent');
    await user.keyboard('m');
    await user.type(await screen.findByLabelText('To the folder'), 'Workshop/Dyes{Enter}{Enter}');
    const said = await notice('2 documents moved to Workshop / Dyes.');
    const ids = [papers[0], papers[2]].map(({ document }) => document.id);
    expect(server.askedOf(endpoints.changeDocuments)[0].body.changes).toMatchObject(
      ids.map((id) => ({ id, folderId: target.id })),
    );
    await user.click(said.getByText('Undo'));
    await waitFor(() =>
      expect(server.askedOf(endpoints.changeDocuments)[1].body.changes).toMatchObject(
        ids.map((id) => ({ id, folderId: yarn.id })),
      ),
    );
  });

  it('keeps them chosen, and says why, when they can’t go into the bin', async () => {
    const { user, server } = open('/shelf/?find=madder');
    server.on(endpoints.changeDocuments, () => new Refusal('One is being written.'));
    await choose(user, 'Yarn of May', 'Yarn of June');
    await user.click(screen.getByRole('button', { name: 'Bin' }));
    await notice(/One is being written/);
    screen.getByText('2 chosen');
    server.on(endpoints.changeDocuments, () => []);
    await user.click(screen.getByRole('button', { name: 'Bin' }));
    await notice('2 documents went into the bin.');
    expect(screen.queryByText('2 chosen')).toBeNull();
  });

  it('renames those that the ways of filing would name otherwise, after showing how', async () => {
    const { user, server } = open('/shelf/?find=madder');
    server
      .on(endpoints.proposedNames, ({ body }) =>
        body.ids.map((id, at) => ({
          id,
          name: at === 0 ? 'Yarn of May' : 'Rent',
          proposed: at === 0 ? '2025-05 Yarn' : 'Rent',
        })),
      )
      .on(endpoints.changeDocuments, () => []);
    await choose(user, 'Yarn of May', 'Rent');
    await user.click(screen.getByRole('button', { name: /^Rename/ }));
    const list = await screen.findByRole('list', { name: 'New names' });
    await waitFor(() => expect(within(list).getAllByRole('listitem')).toHaveLength(1));
    await user.click(screen.getByRole('button', { name: /^Rename 1 document/ }));
    await notice('1 document renamed.');
    expect(server.askedOf(endpoints.changeDocuments)[0].body.changes).toMatchObject([
      { id: papers[0].document.id, name: '2025-05 Yarn' },
    ]);
  });

  it('chooses all between two with the shift key, and none with Escape', async () => {
    const { user } = open('/shelf/?find=madder');
    await choose(user, 'Yarn of May');
    await user.keyboard('{Shift>}');
    await user.click(screen.getByText('Rent'));
    await user.keyboard('{/Shift}');
    await screen.findByText('3 chosen');
    field().blur();
    await user.keyboard('{Escape}');
    expect(screen.queryByText('3 chosen')).toBeNull();
  });
});

it('looks for what a link elsewhere asks for, whatever was typed before', async () => {
  const { user, server, address } = open('/shelf/?find=madder');
  await screen.findByText('Yarn of May');
  await user.clear(field());
  await user.type(field(), 'weld');
  await waitFor(() => expect(server.askedOf(endpoints.find).at(-1)!.query.q).toBe('weld'));
  await user.click(screen.getByRole('link', { name: 'Elsewhere' }));
  await waitFor(() => expect(server.askedOf(endpoints.find).at(-1)!.query.q).toBe('tag:"to claim"'));
  // It stays so: what was typed before does not come back.
  await new Promise((resolve) => setTimeout(resolve, 400));
  expect(field().value).toBe('tag:"to claim"');
  await user.click(screen.getByRole('button', { name: 'Way back' }));
  await waitFor(() => expect(field().value).toBe('weld'));
  await new Promise((resolve) => setTimeout(resolve, 400));
  expect(address()).toContain('find=weld');
});
