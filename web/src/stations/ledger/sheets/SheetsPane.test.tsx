import { act, screen, waitFor, within } from '@testing-library/react';
import { endpoints } from '@crow/contract/endpoints';
import { Place, Sheet } from '@crow/contract/keeping';
import { SHOWN } from '../../../testing/missing';
import { newId } from '../../../testing/papers';
import { notice, show, StandInServer } from '../../../testing/window';
import { SheetOf } from '../../shelf/SheetOf';
import { sayState } from './sheetGroups';
import { SheetsPane } from './SheetsPane';

// The tests' window lays nothing out; rows are drawn for as much as is seen.
Object.defineProperties(Element.prototype, {
  clientWidth: { get: () => SHOWN.width },
  clientHeight: { get: () => SHOWN.height },
});

const BINDER: Place = { id: newId(), name: 'Binder 2026', takes: true, retired: false };
const BOX: Place = { id: newId(), name: 'Deed box', takes: false, retired: false };
const sheet = (name: string, given: Partial<Sheet> = {}): Sheet => ({
  documentId: newId(),
  name,
  folderId: newId(),
  folderPath: 'Workshop/Yarn',
  kind: 'invoice',
  vendor: 'Saltgate Yarns',
  day: '2026-05-04',
  placeId: BINDER.id,
  state: 'may go',
  mayGoFrom: '2026-05-04',
  faults: [],
  why: 'A legible copy is a record like the sheet',
  source: 'VATA 1994',
  said: null,
  fileUntil: '2032-12-31',
  goneAt: null,
  goneBy: null,
  ...given,
});

function open(sheets: Sheet[], places = [BINDER, BOX]) {
  const server = new StandInServer()
    .on(endpoints.listSheets, () => ({ places, sheets, comparedAt: null, comparing: false, archive: null }))
    .on(endpoints.changeSheets, () => undefined)
    .on(endpoints.compareFiles, () => undefined)
    .on(endpoints.lookThroughArchive, () => ({ same: 212, different: 1, missing: 3 }))
    .on(endpoints.makePlace, () => BOX)
    .on(endpoints.changePlace, () => BOX);
  return { server, ...show(<SheetsPane placeId={undefined} />, server) };
}

it('ticks off what may go by the binder it lies in, writes it down as shredded, and takes that back', async () => {
  const [first, second] = [sheet('Warp'), sheet('Weft')];
  const { user, server } = open([first, second, sheet('Title', { placeId: BOX.id, state: 'keep', mayGoFrom: null })]);
  const grid = await screen.findByRole('grid', { name: 'Sheets by where they lie' });
  expect(within(grid).queryByText('Title')).toBeNull();
  expect(screen.getByRole('button', { name: 'They are shredded' })).toHaveProperty('disabled', true);
  await user.click(within(grid).getByRole('checkbox', { name: /^Binder 2026/ }));
  await screen.findByText('2 sheets ticked');
  await user.click(screen.getByRole('button', { name: 'They are shredded' }));
  await notice('2 sheets written down as shredded.');
  const ids = [first.documentId, second.documentId];
  expect(server.askedOf(endpoints.changeSheets)[0]).toEqual({ body: { ids, gone: true } });
  await user.click(screen.getByRole('button', { name: 'Undo' }));
  await waitFor(() => expect(server.askedOf(endpoints.changeSheets)[1]).toEqual({ body: { ids, gone: false } }));
});

it('is worked by keys', async () => {
  const [first, second] = [sheet('Warp'), sheet('Weft')];
  const { user } = open([first, second]);
  const grid = await screen.findByRole('grid', { name: 'Sheets by where they lie' });
  act(() => grid.focus());
  await user.keyboard('{ArrowDown} ');
  await screen.findByText('1 sheet ticked');
  expect(within(grid).getByRole('checkbox', { name: 'Weft' })).toHaveProperty('checked', true);
  await user.keyboard('{Home} ');
  await screen.findByText('2 sheets ticked');
});

it('says what is still to be proven, and how', async () => {
  const faults = ['its file was not compared with the database yet', 'it is in no archive that was looked through'];
  const { user, server } = open([sheet('Warp', { state: 'keep', faults })]);
  await screen.findByText('May go: nothing');
  await user.click(screen.getByRole('button', { name: /^Not proven yet/ }));
  await screen.findByText(/! its file was not compared .*; it is in no archive/);
  await user.click(screen.getByRole('button', { name: 'Compare files' }));
  await waitFor(() => expect(server.askedOf(endpoints.compareFiles)).toHaveLength(1));
  await user.upload(screen.getByLabelText('An archive of the shelf'), new File(['zip'], 'November.zip'));
  await notice(/212 papers in “November.zip” as on the shelf; 1 paper in it is otherwise here; 3 papers/);
});

it('lays sheets elsewhere, each back where it was on Undo', async () => {
  const [first, second] = [sheet('Warp'), sheet('Weft', { placeId: null })];
  const { user, server } = open([first, second]);
  for (const name of ['Warp', 'Weft']) await user.click(await screen.findByRole('checkbox', { name }));
  await user.selectOptions(screen.getByRole('combobox', { name: 'They lie in' }), 'Deed box');
  await notice('2 sheets in “Deed box”.');
  await user.click(screen.getByRole('button', { name: 'Undo' }));
  await waitFor(() =>
    expect(server.askedOf(endpoints.changeSheets).slice(1)).toEqual([
      { body: { ids: [first.documentId], placeId: BINDER.id } },
      { body: { ids: [second.documentId], placeId: null } },
    ]),
  );
});

it('reminds of files that had to be kept until a day that has passed, and lists what is gone', async () => {
  const past = sheet('Old bill', {
    state: 'gone',
    fileUntil: '2020-12-31',
    goneAt: '2026-11-02T10:00:00.000Z',
    goneBy: 'Imre',
  });
  const { user } = open([past]);
  await user.click(await screen.findByRole('button', { name: /^Files past/ }));
  await screen.findByText('The file had to be kept until 2020-12-31');
  await user.click(screen.getByRole('button', { name: /^Gone/ }));
  await screen.findByText(/^Gone since 2026-11-02.*, by Imre$/);
});

it('adds boxes and binders, and says into which sheets go', async () => {
  const { user, server } = open([sheet('Warp')]);
  const aside = await screen.findByRole('complementary', { name: 'Boxes and binders' });
  await user.type(within(aside).getByRole('textbox'), 'Attic{Enter}');
  await waitFor(() => expect(server.askedOf(endpoints.makePlace)).toEqual([{ body: { name: 'Attic' } }]));
  await user.click(within(aside).getAllByRole('checkbox', { name: 'What is filed goes here' })[1]);
  await waitFor(() =>
    expect(server.askedOf(endpoints.changePlace)).toEqual([{ params: { id: BOX.id }, body: { takes: true } }]),
  );
  expect(within(aside).getAllByText('Print its label')[0]).toHaveProperty(
    'href',
    expect.stringContaining(BINDER.id) as unknown,
  );
});

it('stands beside an open paper', async () => {
  const own = sheet('Warp');
  const server = new StandInServer()
    .on(endpoints.whoAmI, () => ({ name: 'Imre', role: 'owner', id: newId() }) as never)
    .on(endpoints.readSheet, () => ({ sheet: own, places: [BINDER, BOX] }))
    .on(endpoints.changeSheets, () => undefined);
  const { user } = show(<SheetOf id={own.documentId} />, server);
  await screen.findByText('The sheet may go.');
  await screen.findByText('The file must be kept until 2032-12-31.');
  await user.selectOptions(screen.getByRole('combobox', { name: 'The sheet lies in' }), 'Deed box');
  await notice('The sheet lies in “Deed box”.');
  expect(server.askedOf(endpoints.changeSheets)).toEqual([{ body: { ids: [own.documentId], placeId: BOX.id } }]);
});

it.each<[Partial<Sheet>, string]>([
  [{ state: 'gone' }, 'The sheet is gone.'],
  [{ state: 'none' }, 'It came as a file; there is no sheet.'],
  [{ state: 'keep', mayGoFrom: '2031-01-01' }, 'Keep the sheet; it may go from 2031-01-01.'],
  [{ state: 'keep', mayGoFrom: null }, 'Keep the sheet.'],
  [{ state: 'keep', faults: ['a fact of it is doubtful'] }, 'Keep the sheet for now: a fact of it is doubtful.'],
])('says %j', (given, text) => expect(sayState(sheet('Warp', given))).toBe(text));
