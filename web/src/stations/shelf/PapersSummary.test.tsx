import { screen, within } from '@testing-library/react';
import { endpoints } from '@crow/contract/endpoints';
import { Glance } from '@crow/contract/folders';
import { dayOf } from '@crow/core/reading/dayForms';
import { addDays } from '@crow/core/shelf/days';
import { folder, summary } from '../../testing/papers';
import { show, StandInServer } from '../../testing/window';
import { PapersSummary } from './PapersSummary';
import { ShelfFront } from './ShelfFront';

const TODAY = dayOf(new Date());
const GBP = (units: number) => ({ units, currency: 'GBP' });
const server = () => new StandInServer().on(endpoints.listFolders, () => []);

it('adds papers up, says what is left out, and opens what is due', async () => {
  const opened: string[] = [];
  const bill = summary({ name: 'Oars', vendor: 'Ash', total: GBP(1250), date: TODAY, dueDate: addDays(TODAY, 1) });
  const papers = [
    bill,
    summary({ kind: 'reminder', vendor: 'Ash', total: GBP(1250) }),
    summary({ vendor: 'Birch', total: null }),
  ];
  const { user } = show(
    <PapersSummary title="All together" documents={papers} onOpen={(id) => opened.push(id)} />,
    server(),
    '/shelf/',
  );
  expect(
    within(screen.getByRole('list', { name: 'Sums' }))
      .getAllByRole('listitem')
      .map((each) => each.textContent),
  ).toEqual(['12.50 GBP']);
  screen.getByText(/Not added, since bills say the same: 1 reminder\. 1 paper without a total\./);
  screen.getByText(/tomorrow/);
  await user.click(screen.getByRole('button', { name: 'Oars' }));
  expect(opened).toEqual([bill.id]);
});

it('says which of papers that come every month seems to be missing', () => {
  const months = [4, 3, 1].map((back) => addDays(TODAY, -30 * back));
  const papers = [...months, TODAY].map((date) => summary({ vendor: 'Fen Water', date, total: GBP(100) }));
  show(<PapersSummary title="All together" documents={papers} onOpen={() => undefined} />, server(), '/shelf/');
  screen.getByText('Seems to be missing');
  screen.getByText(/one comes every month; there is none between/);
});

describe('the shelf with nothing chosen', () => {
  const front = (glance: Partial<Glance>, folders = [folder('Boat')]) =>
    show(
      <ShelfFront />,
      new StandInServer()
        .on(endpoints.listFolders, () => folders)
        .on(endpoints.overview, () => ({
          ...{ stacks: 2, arriving: 0, watched: 0, check: 0, filing: 0, filed: 1, unread: 0, ties: 0 },
          ...{ changedOnDisk: 0, strangers: 0, troubles: [] },
        }))
        .on(endpoints.shelfGlance, () => ({ latest: [], comingUp: [], folders: [], ...glance })),
      '/shelf/',
    );

  it('tells what came, what is due, what waits and what folders add up to', async () => {
    const boat = folder('Boat');
    const oars = summary({ name: 'Oars', state: 'filed', folderId: boat.id, total: GBP(120_050) });
    front(
      {
        latest: [oars],
        comingUp: [{ document: oars, what: 'due', day: TODAY, inDays: -3 }],
        folders: [{ id: boat.id, sums: [GBP(120_050)] }],
      },
      [{ ...boat, documents: 1, inside: 1 }],
    );
    within(await screen.findByRole('region', { name: 'Came lately' })).getByText('Oars');
    within(screen.getByRole('region', { name: 'Due or ending' })).getByText(/was due .*, 3 days ago/);
    await within(screen.getByRole('region', { name: 'Waits' })).findByText('2 stacks to sort');
    within(screen.getByRole('region', { name: 'Folders' })).getByText('1,200.50 GBP');
  });

  it('says what to do next while there is no folder', async () => {
    front({}, []);
    await screen.findByText('The shelf is empty');
  });
});
