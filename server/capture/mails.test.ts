import { createTransport } from 'nodemailer';
import { endpoints } from '@crow/contract/endpoints';
import { textPdf } from '../testing/made';
import { TestRoom } from '../testing/room';

let room: TestRoom;
beforeAll(async () => {
  room = await TestRoom.open();
});
afterAll(() => room.close());

interface Mail {
  subject?: string;
  text?: string;
  html?: string;
  attachments?: { filename?: string; content: Uint8Array | string; contentType?: string; cid?: string }[];
}
async function eml(mail: Mail): Promise<Buffer> {
  const { message } = await createTransport({ streamTransport: true, buffer: true, newline: 'windows' }).sendMail({
    from: 'Jörg Ährenfeld <joerg@aehrenfeld.example>',
    to: 'Imre Castellane <imre@wickford.example>',
    date: new Date('2026-05-04T09:30:00Z'),
    ...mail,
    attachments: mail.attachments?.map((each) => ({
      ...each,
      content: typeof each.content === 'string' ? each.content : Buffer.from(each.content),
    })),
  });
  return message as Buffer;
}
const files = async (stackId: string) => {
  const { pageList, files: all } = await room.ask(endpoints.readStack, { params: { id: stackId } });
  return {
    pages: pageList.map(({ fileName }) => fileName),
    refused: all.flatMap(({ problem }) => problem?.happened ?? []),
  };
};
const takeIn = async (named: Record<string, Uint8Array>) => files((await room.takeInAndRead(named)).id);

it('takes what is attached to a mail, and neither its logo nor what is no paper', async () => {
  const mail = await eml({
    subject: 'Your invoice',
    text: 'Please find it attached.',
    html: '<p>Please find it <img src="cid:logo"> attached.</p>',
    attachments: [
      { filename: 'invoice 12.pdf', content: await textPdf('Linden Cloth\nInvoice no. 12\nTotal 20.00') },
      { filename: 'terms.pdf', content: await textPdf('Linden Cloth\nTerms') },
      { filename: 'logo.png', content: new Uint8Array(200).fill(7), contentType: 'image/png', cid: 'logo' },
      { filename: 'meeting.ics', content: 'BEGIN:VCALENDAR', contentType: 'text/calendar' },
    ],
  });
  expect(await takeIn({ 'mail.eml': mail })).toEqual({ pages: ['invoice 12.pdf', 'terms.pdf'], refused: [] });
});

it('makes a mail with nothing attached a paper, with sender, day and subject as facts', async () => {
  const mail = await eml({
    subject: 'Liefertermin für das Garn',
    text: 'Guten Tag,\n\ndas Garn kommt am Montag.\nGrüße',
  });
  const { id, pageList } = await room.takeInAndRead({ 'note.eml': mail });
  expect(pageList.map(({ fileName }) => fileName)).toEqual(['Liefertermin für das Garn.pdf']);
  const { documents } = await room.ask(endpoints.sortStack, { params: { id } });
  const { facts } = await room.ask(endpoints.readDocument, { params: { id: documents[0] } });
  const values = Object.fromEntries(facts.map(({ name, value }) => [name, value]));
  expect(values).toMatchObject({
    kind: 'letter',
    vendor: 'Jörg Ährenfeld',
    date: '2026-05-04',
    subject: 'Liefertermin für das Garn',
  });
  const { found } = await room.ask(endpoints.find, { query: { q: 'Garn Montag' } });
  expect(found.map(({ document }) => document.id)).toEqual(documents);
});

it('is of the day on which it was sent where it was sent, and of none where it says none', async () => {
  const sent = async (date: string) => {
    const mail = `From: Una <una@far.example>\r\nTo: imre@wickford.example\r\nSubject: Late\r\n${date}\r\nIt is late here.\r\n`;
    const { facts } = await room.ask(endpoints.readDocument, {
      params: { id: await room.documentOf('late.eml', Buffer.from(mail)) },
    });
    return facts.find(({ name }) => name === 'date')?.value;
  };
  expect(await sent('Date: Mon, 4 May 2026 22:30:00 -0500\r\n')).toBe('2026-05-04');
  expect(await sent('Date: Tue, 5 May 2026 01:30:00 +0900\r\n')).toBe('2026-05-05');
  expect(await sent('')).toBeUndefined();
});

it('takes a mailbox apart, in its order, with lines that were quoted', async () => {
  const mails = [
    await eml({ subject: 'One', text: 'First\nFrom here on it goes' }),
    await eml({
      subject: 'Two',
      text: 'Second',
      attachments: [{ filename: 'two.pdf', content: await textPdf('Paper two') }],
    }),
    await eml({ subject: 'Three', html: '<p>Third <b>one</b></p>' }),
  ];
  const box = mails
    .map(
      (each) =>
        `From joerg@aehrenfeld.example Mon May  4 09:30:00 2026\n${each
          .toString('latin1')
          .replaceAll('\r\n', '\n')
          .replace(/^(>*From )/gm, '>$1')
          .replace(/^>From: /m, 'From: ')}\n`,
    )
    .join('\n');
  expect(await takeIn({ 'archive.mbox': Buffer.from(box, 'latin1') })).toEqual({
    pages: ['One.pdf', 'two.pdf', 'Three.pdf'],
    refused: [],
  });
  const { inSort } = await room.ask(endpoints.find, { query: { q: '"From here on"' } });
  expect(inSort).toHaveLength(1);
});

it('keeps a mailbox of which a mail is larger than any, and takes in the others', async () => {
  const envelope = 'From joerg@aehrenfeld.example Mon May  4 09:30:00 2026\n';
  const mail = async (subject: string) =>
    (await eml({ subject, text: subject })).toString('latin1').replaceAll('\r\n', '\n');
  const huge = `From: x@far.example\nSubject: Huge\n\n${`${'x'.repeat(75)}\n`.repeat(900_000)}`;
  const box = [await mail('First'), huge, await mail('Third')].map((each) => `${envelope}${each}\n`).join('\n');
  expect(await takeIn({ 'some.mbox': Buffer.from(box, 'latin1') })).toEqual({
    pages: ['First.pdf', 'Third.pdf'],
    refused: [
      'Some of the mails in “some.mbox” can’t be read, or are larger than 64 MB: number 2, counted from the first.',
    ],
  });
});

it('keeps a mail that says nothing, and says so; and goes on when one attachment is broken', async () => {
  const empty = await eml({ text: '' });
  expect((await takeIn({ 'empty.eml': empty, 'paper.pdf': await textPdf('A paper') })).refused).toEqual([
    '“empty.eml” is a mail that says nothing, with nothing attached.',
  ]);
  const half = await eml({
    subject: 'Two',
    attachments: [
      { filename: 'broken.pdf', content: '%PDF-1.7 and nothing more' },
      { filename: 'whole.pdf', content: await textPdf('A whole paper') },
    ],
  });
  const { pages, refused } = await takeIn({ 'half.eml': half });
  expect(pages).toEqual(['whole.pdf']);
  expect(refused).toHaveLength(1);
});

it('takes a text that only looks a little like a mail for none', async () => {
  const { refused } = await takeIn({
    'notes.txt': Buffer.from('Subject: dyes\n\nbuy more'),
    'p.pdf': await textPdf('p'),
  });
  expect(refused).toHaveLength(1);
  expect(refused[0]).toMatch(/does not contain any pages/);
});
