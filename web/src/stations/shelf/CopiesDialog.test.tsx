import { screen, waitFor } from '@testing-library/react';
import { endpoints } from '@crow/contract/endpoints';
import { summary } from '../../testing/papers';
import { notice, Refusal, show, StandInServer } from '../../testing/window';
import { CopiesDialog } from './CopiesDialog';

const PAPERS = [
  summary({ name: 'Lease', state: 'filed', bytes: 9_000_000 }),
  summary({ name: 'Oars', state: 'filed', bytes: 8_000_000 }),
];

function open(documents = PAPERS) {
  // What is wished for is told by what is asked; making the copies is the server's.
  const server = new StandInServer().on(endpoints.makeCopies, () => new Refusal('One of them has no PDF.'));
  return { server, ...show(<CopiesDialog documents={documents} onClose={() => undefined} />, server, '/shelf/') };
}
const wished = (server: StandInServer) => server.askedOf(endpoints.makeCopies)[0]?.body;

it('asks for what is chosen, and says why it can’t be had', async () => {
  const { user, server } = open();
  await user.selectOptions(screen.getByLabelText('As'), 'one PDF of all');
  await user.selectOptions(screen.getByLabelText('Marks'), 'as part of the pages');
  await user.type(screen.getByLabelText(/Password/), 'harbour');
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

it('writes a mail with the names of the papers, and warns of one that is large', async () => {
  const { user, server } = open();
  await user.click(screen.getByLabelText(/in a mail/));
  screen.getByText(/Many mail servers refuse/);
  await user.type(screen.getByLabelText('To'), 'ada@books.example');
  await user.click(screen.getByRole('button', { name: 'Save the mail' }));
  await waitFor(() => expect(wished(server)).toBeDefined());
  expect(wished(server)!.mail).toEqual({
    to: 'ada@books.example',
    subject: '2 papers',
    text: 'Attached:\n– Lease\n– Oars\n',
  });
});

it('asks nothing about several papers of one', () => {
  open([PAPERS[0]]);
  expect(screen.queryByLabelText('As')).toBeNull();
});
