import { ComponentProps } from 'react';
import { screen, waitFor } from '@testing-library/react';
import { DocumentSummary } from '@crow/contract/documents';
import { endpoints } from '@crow/contract/endpoints';
import { Parcel } from '@crow/contract/sending';
import { parcel, settings, summary } from '../../../testing/papers';
import { notice, Refusal, show, StandInServer } from '../../../testing/window';
import CopiesDialog from './CopiesDialog';

const PAPERS = [
  summary({ name: 'Lease', state: 'filed', bytes: 9_000_000 }),
  summary({ name: 'Oars', state: 'filed', bytes: 8_000_000 }),
];
const BILL = summary({
  ...{
    name: 'Mill',
    state: 'filed',
    kind: 'invoice',
    vendor: 'Harbour Fibre Mill',
    date: '2026-03-14',
    number: 'HF-1',
  },
  ...{ bytes: 20_000, total: { units: 18420, currency: 'GBP' } },
});

function open(
  documents: DocumentSummary[] = PAPERS,
  {
    from = 'Imre <imre@wickford-loom.example>' as string | null,
    role = 'owner' as 'owner' | 'reader',
    hidden = undefined as ComponentProps<typeof CopiesDialog>['hidden'],
  } = {},
) {
  let made: Parcel | undefined;
  // What is wished for is told by what is asked; making the copies is the server's.
  const server = new StandInServer()
    .on(endpoints.whoAmI, () => ({ id: PAPERS[0].id, name: 'Imre', role }))
    .on(endpoints.readSettings, () => settings())
    .on(endpoints.mailWays, () => ({ from, addresses: ['ada@books.example'] }))
    .on(endpoints.documentSizes, () => [{ size: 'small' as const, bytes: 4_000 }])
    .on(endpoints.weighDocument, () => undefined)
    .on(endpoints.makeCopies, () => new Refusal('One of them has no PDF.'))
    .on(endpoints.makeParcel, ({ body: { link, mail } }) => {
      const code = ['10', '01'];
      made = parcel({
        ...{ way: link ? 'link' : mail ? 'mail' : 'save', state: 'packing', fileName: 'Mill.pdf', done: null },
        link: link
          ? {
              ...{ address: 'http://127.0.0.1:1/look/abc', code, reached: false, ends: '2026-03-21T09:00:00.000Z' },
              ...{ mostLooks: link.looks, locked: link.password !== '', looks: [] },
            }
          : null,
      });
      return made;
    })
    .on(endpoints.listPlaces, () => ['/media/stick'])
    .on(endpoints.addCopyPlace, ({ body: { path, keep } }) => ({
      ...{ id: PAPERS[0].id, path, scope: 'papers' as const, of: '2', keep },
      ...{ copies: 0, wanted: 0, agreed: null, left: [], problem: null },
    }))
    .on(endpoints.readParcel, () => made!)
    .on(endpoints.endParcel, () => made!);
  const closed = jest.fn();
  return {
    server,
    closed,
    ...show(<CopiesDialog documents={documents} hidden={hidden} onClose={closed} />, server, '/shelf/'),
  };
}
const wished = (server: StandInServer) => server.askedOf(endpoints.makeCopies)[0]?.body;
const packed = (server: StandInServer) => server.askedOf(endpoints.makeParcel)[0]?.body;

it('asks for what is chosen, and says why it can’t be had', async () => {
  const { user, server } = open();
  await user.selectOptions(screen.getByLabelText('Bound'), 'all in one');
  await user.selectOptions(screen.getByLabelText('Marks'), 'as part of the pages');
  await user.type(screen.getByLabelText(/Password to open/), 'harbour');
  await user.click(screen.getByLabelText('may be printed'));
  await user.click(screen.getByRole('button', { name: 'Save it' }));
  await notice(/no PDF/);
  expect(wished(server)).toMatchObject({
    ids: PAPERS.map(({ id }) => id),
    form: 'merged',
    marks: 'flat',
    password: 'harbour',
    mayPrint: false,
    mail: null,
  });
});

it('copies the papers into a folder of the machine, as they are filed, once', async () => {
  const { user, server, closed } = open();
  await user.selectOptions(screen.getByLabelText('Hand over'), 'in a folder of this machine');
  expect(screen.queryByLabelText('Marks')).toBeNull();
  expect(screen.getByRole('button', { name: 'Copy there' })).toHaveProperty('disabled', true);
  await user.type(screen.getByLabelText(/^Folder of this machine/), '/media/stick');
  await user.click(screen.getByRole('button', { name: 'Copy there' }));
  await waitFor(() => expect(closed).toHaveBeenCalled());
  expect(server.askedOf(endpoints.addCopyPlace)[0]?.body).toEqual({
    ...{ path: '/media/stick', keep: false, folderId: null },
    documentIds: PAPERS.map(({ id }) => id),
  });
});

it('offers no folder of the machine to somebody who only reads', async () => {
  open(PAPERS, { role: 'reader' });
  await waitFor(() => expect(screen.queryByRole('option', { name: 'in a folder of this machine' })).toBeNull());
  screen.getByRole('option', { name: 'saved on this device' });
});

it('binds several papers to one book for reading devices', async () => {
  const { user, server } = open();
  await user.selectOptions(screen.getByLabelText('As'), 'book for reading devices (EPUB)');
  await user.selectOptions(screen.getByLabelText('Bound'), 'all in one');
  await user.click(screen.getByRole('button', { name: 'Save it' }));
  await waitFor(() => expect(wished(server)).toMatchObject({ as: 'epub', form: 'merged' }));
});

it('writes a mail for the mail program with the names of the papers, and warns of one that is large', async () => {
  const { user, server } = open();
  await user.selectOptions(screen.getByLabelText('Hand over'), 'in a mail for your mail program (.eml)');
  screen.getByText(/Many mail servers refuse/);
  await user.type(screen.getByLabelText(/^To/), 'ada@books.example');
  await user.click(screen.getByRole('button', { name: 'Save the mail' }));
  await waitFor(() => expect(wished(server)).toBeDefined());
  expect(wished(server)!.mail).toEqual({
    to: 'ada@books.example',
    subject: '2 papers',
    text: 'Attached:\n– Lease\n– Oars\n',
  });
});

it('sends one paper by mail, with a subject by its facts, and goes on', async () => {
  const { user, server, closed } = open([BILL]);
  await user.selectOptions(
    screen.getByLabelText('Hand over'),
    await screen.findByRole('option', { name: /by mail, from imre@/ }),
  );
  await user.type(screen.getByLabelText(/^To/), 'ada@books.example');
  await user.selectOptions(screen.getByLabelText('Size'), await screen.findByRole('option', { name: 'small, 4.0 kB' }));
  await user.click(screen.getByRole('button', { name: 'Send it' }));
  await notice(/on its way/);
  expect(closed).toHaveBeenCalled();
  expect(packed(server)).toMatchObject({
    copies: { ids: [BILL.id], size: 'small' },
    mail: { to: 'ada@books.example', subject: 'Invoice HF-1 from Harbour Fibre Mill, 14 March 2026' },
    link: null,
  });
});

it('says that no account is set up, before anything is typed in vain', async () => {
  const { user } = open([BILL], { from: null });
  await user.selectOptions(screen.getByLabelText('Hand over'), 'by mail, from here');
  expect(await screen.findByRole('alert')).toHaveProperty('textContent', expect.stringContaining('No mail account'));
  expect(screen.getByRole('button', { name: 'Send it' })).toHaveProperty('disabled', true);
});

it('makes a link, shows its address, and says when only this machine reaches it', async () => {
  const { user, server } = open([BILL]);
  await user.selectOptions(
    screen.getByLabelText('Hand over'),
    await screen.findByRole('option', { name: /by a link/ }),
  );
  await user.selectOptions(screen.getByLabelText('or'), 'after 3 looks');
  await user.selectOptions(screen.getByLabelText('It ends'), 'after 1 day');
  await user.type(screen.getByLabelText(/that the link asks for/), 'Hafen');
  await user.click(screen.getByRole('button', { name: 'Make the link' }));
  expect((await screen.findByLabelText('Address of the link')).textContent).toBe('http://127.0.0.1:1/look/abc');
  screen.getByText(/Only this machine reaches it/);
  screen.getByRole('img', { name: 'The address as a square code' });
  expect(packed(server)!.link).toEqual({ name: 'Mill', days: 1, looks: 3, password: 'Hafen' });
});

it('waits for a copy that is bound anew, and can be stopped', async () => {
  const { user, server, closed } = open([BILL]);
  await user.selectOptions(screen.getByLabelText('Size'), 'balanced');
  await user.click(screen.getByRole('button', { name: 'Save it' }));
  await screen.findByText(/is being made/);
  await user.click(screen.getByRole('button', { name: 'Stop' }));
  await waitFor(() => expect(closed).toHaveBeenCalled());
  expect(server.askedOf(endpoints.endParcel)).toHaveLength(1);
});

it('asks nothing about several papers of one, and offers a reader nothing that goes out from here', async () => {
  open([PAPERS[0]], { role: 'reader' });
  expect(screen.queryByLabelText('Bound')).toBeNull();
  await waitFor(() => expect(screen.queryByRole('option', { name: /link/ })).toBeNull());
  expect(screen.queryByLabelText('Size')).toBeNull();
});

it('proposes nothing that stands on a paper in which parts are hidden', async () => {
  const hidden = [{ pageId: BILL.firstPageId, box: [0, 0, 1, 0.1] as [number, number, number, number] }];
  const { user, server } = open([BILL], { hidden });
  const way = screen.getByLabelText('Hand over');
  await user.selectOptions(way, await screen.findByRole('option', { name: /by mail, from imre@/ }));
  expect(screen.getByLabelText('Subject')).toHaveProperty('value', 'A paper, parts hidden');
  expect((screen.getByLabelText('Text') as HTMLTextAreaElement).value).not.toMatch(/Mill|HF-1|184/);
  await user.selectOptions(way, await screen.findByRole('option', { name: /by a link/ }));
  await user.click(screen.getByRole('button', { name: 'Make the link' }));
  await screen.findByLabelText('Address of the link');
  expect(packed(server)).toMatchObject({ copies: { hidden }, link: { name: 'A paper, parts hidden' } });
});

it('makes a mail for the mail program of the paper as it is filed, whatever size was chosen before', async () => {
  const { user, server } = open([BILL]);
  await user.selectOptions(await screen.findByLabelText('Size'), 'balanced');
  await user.selectOptions(screen.getByLabelText('Hand over'), 'in a mail for your mail program (.eml)');
  await user.click(screen.getByRole('button', { name: 'Save the mail' }));
  await waitFor(() => expect(wished(server)).toBeDefined());
  expect(wished(server)!.mail).not.toBeNull();
  expect(packed(server)).toBeUndefined();
});
