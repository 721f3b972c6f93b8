import { endpoints } from '@crow/contract/endpoints';
import { textPdf } from '../testing/made';
import { TestRoom } from '../testing/room';

let room: TestRoom;
beforeAll(async () => {
  room = await TestRoom.open();
}, 120_000);
afterAll(() => room.close());

const FIRST = 'DE44 5001 0517 5407 3249 31';
const OTHER = 'DE89 3704 0044 0532 0130 00';
const bill = (number: string, iban: string) =>
  textPdf(
    `Färberei Grünau GmbH\nHinter der Mühle 12\n99817 Lindenau\nUSt-IdNr. DE136695976\n\nRechnung\nRechnungsnummer: ${number}\nRechnungsdatum: 02.10.2026\n\nNetto 100,00 EUR\nMwSt 19% 19,00 EUR\nGesamtbetrag 119,00 EUR\n\nIBAN: ${iban}`,
  );
const taken = async (number: string, iban: string) => room.documentOf(`${number}.pdf`, await bill(number, iban));
const senderOn = async (id: string) => (await room.ask(endpoints.paperBooks, { params: { id }, query: {} })).sender;
const list = () => room.ask(endpoints.listSenders, {});
const NAME = 'Färberei Grünau GmbH';

it('makes a sender known by the first paper that is entered, with what it says', async () => {
  const id = await taken('R-1', FIRST);
  const says = {
    address: 'Hinter der Mühle 12, 99817 Lindenau',
    taxNumber: 'DE136695976',
    iban: FIRST.replaceAll(' ', ''),
  };
  expect(await senderOn(id)).toEqual({ ...says, known: false, ibanBefore: null });
  expect(await list()).toEqual([]);
  await room.file(id, 'R-1', 'Workshop');
  expect(await list()).toEqual([
    { id: expect.any(String) as string, name: NAME, ...says, categoryId: null, entries: 1, last: '2026-10-02' },
  ]);
});

it('warns of another bank account before it is paid, and keeps the one that is known', async () => {
  const id = await taken('R-2', OTHER);
  expect(await senderOn(id)).toMatchObject({ known: true, ibanBefore: FIRST.replaceAll(' ', '') });
  await room.file(id, 'R-2', 'Workshop');
  expect((await list())[0].iban).toBe(FIRST.replaceAll(' ', ''));
  const { entries } = await room.ask(endpoints.readLedger, {});
  const entry = entries.find(({ number }) => number === 'R-2')!;
  expect(await room.ask(endpoints.entryPayment, { params: { id: entry.id } })).toMatchObject({
    iban: OTHER.replaceAll(' ', ''),
    ibanBefore: FIRST.replaceAll(' ', ''),
  });
});

it('enters bills under what somebody said for their sender, whatever those before were under', async () => {
  const { categories } = await room.ask(endpoints.readBooks, {});
  const office = categories.find(({ name }) => name === 'Office')!.id;
  const [{ id: senderId }] = await list();
  await room.ask(endpoints.changeSender, { params: { id: senderId }, body: { categoryId: office, iban: OTHER } });
  expect((await list())[0]).toMatchObject({ categoryId: office, iban: OTHER.replaceAll(' ', '') });
  const id = await taken('R-3', OTHER);
  const { parts, why, sender } = await room.ask(endpoints.paperBooks, { params: { id }, query: {} });
  expect([parts[0].categoryId, why.code, sender?.ibanBefore]).toEqual([office, 'sender', null]);
});

it('takes no tax number for a sender’s that stands on papers of others: that is of whoever gets them', async () => {
  const bytes = await textPdf(
    'Spinnerei Moor GmbH\nDeichweg 3\n26506 Norden\n\nRechnung\nRechnungsnummer: M-1\nRechnungsdatum: 03.10.2026\nUSt-IdNr. DE136695976\n\nNetto 100,00 EUR\nMwSt 19% 19,00 EUR\nGesamtbetrag 119,00 EUR',
  );
  const id = await room.documentOf('moor.pdf', bytes);
  // The number is known as another's; somebody says who it is from.
  await room.ask(endpoints.changeFact, { params: { id, name: 'vendor' }, body: { value: 'Spinnerei Moor GmbH' } });
  expect(await senderOn(id)).toMatchObject({ taxNumber: '', address: 'Deichweg 3, 26506 Norden' });
});

it('says of a sender that is not there that it is not', async () => {
  const nobody = '00000000-0000-4000-8000-000000000000';
  await expect(room.ask(endpoints.changeSender, { params: { id: nobody }, body: { iban: '' } })).rejects.toThrow(
    'not-found',
  );
});

it('pairs papers on the shelf with the entries that lack them, attaches them in one go, and takes them off again', async () => {
  const { categories } = await room.ask(endpoints.readBooks, {});
  const typed = async (number: string, day: string, units: number) =>
    room.ask(endpoints.makeEntry, {
      body: {
        ...{ day, due: null, who: 'Corvin Energy', what: '', number, currency: 'GBP', units },
        ...{ accountId: null, ownUnits: null },
        parts: [{ categoryId: categories[0].id, taxCode: 'GB-N', rate: null, net: units, tax: 0 }],
      },
    });
  await room.ask(endpoints.changeBooks, { body: { byThemselves: false } });
  const paper = async (number: string, total: string) => {
    const id = await room.documentOf(
      `${number}.pdf`,
      await textPdf(
        `Corvin Energy\nMill Lane 4, Wickford\n\nInvoice\nInvoice number: ${number}\nInvoice date: 2 October 2026\n\nTotal £${total}`,
      ),
    );
    // Nobody knows of the entry yet.
    await room.file(id, number, 'Workshop');
    return id;
  };
  const [first, second] = [await paper('CE-41', '31.00'), await paper('CE-42', '42.00')];
  const [one, two] = [await typed('CE-41', '2026-10-02', 3100), await typed('', '2026-10-05', 4200)];
  const lacking = async () => room.ask(endpoints.papersWithoutEntry, {});
  const fits = new Map((await lacking()).map(({ paper: { id }, fit }) => [id, fit]));
  expect(fits.get(first)).toMatchObject({ entryId: one.id, sure: true });
  expect(fits.get(second)).toMatchObject({ entryId: two.id });
  const pairs = [
    { documentId: first, entryId: one.id },
    { documentId: second, entryId: two.id },
  ];
  await room.ask(endpoints.attachPapers, { body: { pairs } });
  expect((await lacking()).some(({ paper: { id } }) => id === first || id === second)).toBe(false);
  await room.ask(endpoints.detachPapers, { body: { pairs } });
  expect(await lacking()).toHaveLength(2);
});
