import { screen, waitFor, within } from '@testing-library/react';
import { endpoints } from '@crow/contract/endpoints';
import { Books, Entry } from '@crow/contract/ledger';
import { folder, newId } from '../../testing/papers';
import { notice, show, StandInServer } from '../../testing/window';
import { SetUpPane } from './SetUpPane';
import { quarterBefore, SumsPane } from './SumsPane';

// Nothing is drawn in the tests' window.
jest.mock('./BookChart', () => ({ __esModule: true, default: () => null }));

const [MATERIALS, POST, BANK] = [newId(), newId(), newId()];
const BOOKS: Books = {
  country: 'GB',
  byThemselves: true,
  holder: '',
  closedUntil: null,
  lineRules: [],
  folders: [],
  categories: [
    { id: MATERIALS, name: 'Materials', side: 'cost', retired: false },
    { id: POST, name: 'Post', side: 'cost', retired: false },
  ],
  accounts: [
    {
      id: BANK,
      name: 'Bank account',
      kind: 'bank',
      currency: 'GBP',
      number: 'GB00-4021',
      retired: false,
      opening: null,
    },
  ],
};
const entry = (day: string, categoryId: string, net: number, given: Partial<Entry> = {}): Entry => ({
  id: newId(),
  serial: 1,
  revision: 1,
  day,
  due: null,
  who: 'A',
  what: '',
  number: '',
  currency: 'GBP',
  units: net * 1.2,
  accountId: null,
  ownUnits: null,
  parts: [{ categoryId, taxCode: 'GB-S', rate: 20, net, tax: net * 0.2 }],
  papers: [],
  paid: 0,
  worth: null,
  checkedAt: null,
  ...given,
});
const ENTRIES = [
  entry('2026-07-02', MATERIALS, 10_000, { due: '2026-11-28' }),
  entry('2026-08-09', POST, 500, { paid: 600, checkedAt: '2026-09-01' }),
  entry('2025-07-02', MATERIALS, 20_000, { paid: 24_000 }),
];
const cells = (row: HTMLElement) =>
  within(row)
    .getAllByRole('cell')
    .map(({ textContent }) => textContent);

it('adds a year up beside the one before, by what is asked, and what is owed by its age', async () => {
  const { user } = show(
    <SumsPane books={BOOKS} ledger={{ entries: ENTRIES, lines: [], ties: [], asBefore: [] }} today="2026-11-29" />,
    new StandInServer(),
  );
  const year = within(screen.getByRole('table', { name: '2026 in GBP' }));
  expect(cells(year.getByRole('row', { name: /Materials/ }))).toEqual([
    '1',
    '100.00',
    '20.00',
    '120.00',
    '240.00',
    '−120.00',
  ]);
  expect(cells(year.getByRole('row', { name: /All together/ }))[3]).toBe('126.00');
  await user.selectOptions(screen.getByLabelText('Added up'), 'by treatment of tax');
  expect(cells(year.getByRole('row', { name: /Standard rate 20 % \(GB-S\)/ }))[3]).toBe('126.00');
  expect(screen.getByText(/^Tax charged/).textContent).toMatch(
    /^Tax charged 0\.00, tax paid \d+\.\d\d: −\d+\.\d\d apart/,
  );
  await user.selectOptions(screen.getByLabelText('Time'), 'quarter 4');
  expect(screen.getByRole('table', { name: 'quarter 4 2026 in GBP' })).toBeTruthy();
  await user.selectOptions(screen.getByLabelText('Time'), 'whole year');
  const owed = within(screen.getByRole('table', { name: 'Owed, in GBP' }));
  expect(cells(owed.getByRole('row', { name: /for up to 30 days/ }))).toEqual(['120.00', '0.00']);
});

it('a period is the last quarter at first, says what it lacks, and is checked and closed as a whole with the way back', async () => {
  expect(quarterBefore('2026-11-29')).toEqual(['2026-07-01', '2026-09-30']);
  expect(quarterBefore('2026-02-01')).toEqual(['2025-10-01', '2025-12-31']);
  const server = new StandInServer().on(endpoints.checkEntries, () => undefined).on(endpoints.changeBooks, () => BOOKS);
  const { user } = show(
    <SumsPane books={BOOKS} ledger={{ entries: ENTRIES, lines: [], ties: [], asBefore: [] }} today="2026-11-29" />,
    server,
  );
  const period = within(screen.getByRole('region', { name: 'Hand a period over' }));
  expect(period.getByText(/2 entries/).textContent).toBe('2 entries, 2 of them have no paper, 1 not checked.');
  await user.click(period.getByRole('button', { name: 'Check and close it' }));
  await user.click((await notice('The books are closed until 2026-09-30.')).getByRole('button', { name: /Undo/ }));
  await waitFor(() =>
    expect(server.askedOf(endpoints.checkEntries).map(({ body }) => body)).toEqual([
      { ids: [ENTRIES[0].id], checked: true },
      { ids: [ENTRIES[0].id], checked: false },
    ]),
  );
  expect(server.askedOf(endpoints.changeBooks).map(({ body }) => body)).toEqual([
    { closedUntil: '2026-09-30' },
    { closedUntil: null },
  ]);
});

it('says until when the books are closed, and opens them again', async () => {
  const server = new StandInServer().on(endpoints.changeBooks, () => BOOKS);
  const { user } = show(
    <SumsPane
      books={{ ...BOOKS, closedUntil: '2026-06-30' }}
      ledger={{ entries: ENTRIES, lines: [], ties: [], asBefore: [] }}
      today="2026-11-29"
    />,
    server,
  );
  await user.click(screen.getByRole('button', { name: 'Open them again' }));
  await notice(/The books are open again/);
  expect(server.askedOf(endpoints.changeBooks)[0].body).toEqual({ closedUntil: null });
});

it('adds what is in other money to one’s own as far as it is known what it comes to, and says what was on accounts', () => {
  const foreign = {
    currency: 'EUR',
    units: 10_000,
    parts: [{ categoryId: MATERIALS, taxCode: null, rate: null, net: 10_000, tax: 0 }],
  };
  const entries = [
    entry('2026-03-01', MATERIALS, 10_000),
    entry('2026-03-02', MATERIALS, 0, { ...foreign, worth: 8_640 }),
    entry('2026-03-03', MATERIALS, 0, { ...foreign, worth: null }),
  ];
  const lines = [
    {
      ...{ id: newId(), accountId: BANK, day: '2026-02-01', units: -3_000, currency: 'GBP', who: '', text: '' },
      balance: 7_000,
    },
  ];
  show(
    <SumsPane books={BOOKS} ledger={{ entries, lines, ties: [], asBefore: [] }} today="2026-11-29" />,
    new StandInServer(),
  );
  const year = within(screen.getByRole('table', { name: '2026 in GBP' }));
  expect(cells(year.getByRole('row', { name: /All together/ }))[3]).toBe('206.40');
  expect(screen.getByText(/1 entry in other money is not in this/)).toBeTruthy();
  const accounts = within(screen.getByRole('table', { name: 'Accounts in 2026' }));
  expect(cells(accounts.getByRole('row', { name: /Bank account/ }))).toEqual(['?', '0.00', '30.00', '70.00']);
});

it('categories and accounts are renamed, retired and added, and what is entered by itself is said', async () => {
  const server = new StandInServer()
    .on(endpoints.changeCategory, ({ params }) => ({ ...BOOKS.categories[0], id: params.id }))
    .on(endpoints.makeCategory, () => BOOKS.categories[0])
    .on(endpoints.makeAccount, () => BOOKS.accounts[0])
    .on(endpoints.changeAccount, () => BOOKS.accounts[0])
    .on(endpoints.changeBooks, () => BOOKS);
  const { user } = show(<SetUpPane books={BOOKS} />, server);
  await user.clear(screen.getByLabelText('Name of Post'));
  await user.type(screen.getByLabelText('Name of Post'), 'Parcels{Enter}');
  await user.click(screen.getByRole('button', { name: 'Do not use Materials any more' }));
  await waitFor(() =>
    expect(server.askedOf(endpoints.changeCategory)).toEqual([
      { params: { id: POST }, body: { name: 'Parcels' } },
      { params: { id: MATERIALS }, body: { retired: true } },
    ]),
  );
  await user.type(screen.getByLabelText('A new account'), 'Card');
  await user.selectOptions(screen.getByLabelText('Kind'), 'Card');
  await user.click(within(screen.getByRole('region', { name: 'Accounts' })).getByRole('button', { name: 'Add' }));
  await user.click(screen.getByRole('checkbox'));
  await user.selectOptions(screen.getByLabelText('Tax and money of'), 'Germany');
  await waitFor(() => expect(server.askedOf(endpoints.changeBooks)).toHaveLength(2));
  expect(server.askedOf(endpoints.makeAccount)).toEqual([
    { body: { name: 'Card', kind: 'card', currency: 'GBP', number: '' } },
  ]);
  expect(server.askedOf(endpoints.changeBooks).map(({ body }) => body)).toMatchObject([
    { byThemselves: false },
    { country: 'DE' },
  ]);
});

it('folders of which everything, or nothing by itself, is entered are named, and let go again', async () => {
  const [fairs, home] = [folder('Fairs'), folder('Household')];
  const server = new StandInServer()
    .on(endpoints.listFolders, () => [fairs, home])
    .on(endpoints.listSenders, () => [])
    .on(endpoints.changeBooks, () => BOOKS);
  const own = { folderId: home.id, path: 'Household', enters: false };
  const { user } = show(<SetUpPane books={{ ...BOOKS, folders: [own] }} />, server);
  await screen.findByRole('option', { name: 'Fairs' });
  await user.selectOptions(screen.getByLabelText('Otherwise in'), 'Fairs');
  await user.click(screen.getByRole('button', { name: 'Enter everything' }));
  await user.click(screen.getByRole('button', { name: 'As elsewhere in Household' }));
  await waitFor(() =>
    expect(server.askedOf(endpoints.changeBooks).map(({ body }) => body.folders)).toEqual([
      [
        { folderId: home.id, enters: false },
        { folderId: fairs.id, enters: true },
      ],
      [],
    ]),
  );
});
