import { screen, waitFor, within } from '@testing-library/react';
import { endpoints } from '@crow/contract/endpoints';
import { Books, PaperBooks } from '@crow/contract/ledger';
import { document, fact, newId } from '../../testing/papers';
import { show, StandInServer } from '../../testing/window';
import { BooksNote } from './BooksNote';

const [MATERIALS, OFFICE, BANK] = [newId(), newId(), newId()];
const BOOKS: Books = {
  country: 'GB',
  byThemselves: true,
  holder: '',
  closedUntil: null,
  lineRules: [],
  folders: [],
  categories: [
    { id: MATERIALS, name: 'Materials', side: 'cost', retired: false },
    { id: OFFICE, name: 'Office', side: 'cost', retired: false },
  ],
  accounts: [
    { id: BANK, name: 'Bank account', kind: 'bank', currency: 'GBP', number: '', retired: false, opening: null },
  ],
};
const PART = { categoryId: MATERIALS, taxCode: 'GB-S', rate: 20, net: 10_000, tax: 2_000 };
const PAPER: PaperBooks = {
  enters: true,
  sender: null,
  ownUnits: null,
  said: false,
  as: 'entry',
  units: 12_000,
  currency: 'GBP',
  parts: [PART],
  accountId: null,
  why: { code: 'usual', text: '4' },
  problems: [],
  entry: null,
  fits: [],
  attachTo: null,
};
const FIT = {
  id: newId(),
  serial: 12,
  who: 'Corvin Energy',
  day: '2026-10-02',
  units: 12_000,
  currency: 'GBP',
  confidence: 0.6,
  sure: false,
  alike: ['amount', 'who'],
};

function open(given: Partial<PaperBooks> = {}) {
  let now: PaperBooks = { ...PAPER, ...given };
  const own = document({ facts: [fact('date', '2026-10-02')] });
  const server = new StandInServer()
    .on(endpoints.readBooks, () => BOOKS)
    .on(endpoints.paperBooks, () => now)
    .on(endpoints.makeCategory, ({ body: { name, side } }) => ({ id: OFFICE, name, side, retired: false }))
    .on(endpoints.changePaperBooks, ({ body }) => {
      const said = Object.fromEntries(Object.entries(body).filter(([, value]) => value !== undefined));
      now = { ...now, ...said, parts: body.parts ?? now.parts, enters: body.enters ?? now.enters } as PaperBooks;
      return now;
    });
  const said = () => server.askedOf(endpoints.changePaperBooks).map(({ body }) => body);
  return { server, said, ...show(<BooksNote document={own} />, server) };
}
const group = async () => within(await screen.findByRole('region', { name: 'Books' }));

it('has the usual category of the sender with the reason, and keeps another that is chosen', async () => {
  const { user, said } = open();
  const books = await group();
  expect(books.getByText('usual for this sender, 4 times')).toBeTruthy();
  await user.selectOptions(books.getByLabelText('Category'), 'Office');
  await user.selectOptions(books.getByLabelText('Tax'), 'Zero rate 0 %');
  await user.selectOptions(books.getByLabelText('Paid from'), 'Bank account (GBP)');
  await waitFor(() =>
    expect(said()).toMatchObject([
      { parts: [{ ...PART, categoryId: OFFICE }] },
      { parts: [{ taxCode: 'GB-Z', rate: 0, net: 12_000, tax: 0 }] },
      { accountId: BANK },
    ]),
  );
});

it('is split, and kept once the shares come to the total', async () => {
  const { user, said } = open();
  const books = await group();
  await user.click(books.getByRole('button', { name: 'Split' }));
  await user.clear(books.getByLabelText('Net, share 1'));
  await user.type(books.getByLabelText('Net, share 1'), '40{Enter}');
  expect((await books.findByText(/short of the total/)).textContent).toContain('72.00');
  expect(said()).toEqual([{ parts: [PART, { ...PART, net: 0, tax: 0 }] }]);
  await user.clear(books.getByLabelText('Net, share 2'));
  await user.type(books.getByLabelText('Net, share 2'), '60{Enter}');
  await waitFor(() => expect(said()).toHaveLength(2));
  expect(said()[1].parts).toMatchObject([
    { net: 4_000, tax: 800 },
    { net: 6_000, tax: 1_200 },
  ]);
});

it('makes a category on the spot', async () => {
  const { user, server, said } = open();
  const books = await group();
  await user.selectOptions(books.getByLabelText('Category'), 'New category …');
  await user.type(books.getByLabelText('Category: name of a new one'), 'Sheep{Enter}');
  await waitFor(() => expect(said()).toHaveLength(1));
  expect(server.askedOf(endpoints.makeCategory)).toEqual([{ body: { name: 'Sheep', side: 'cost' } }]);
});

it('says why it is not entered as it is, and what it is already', async () => {
  open({ problems: ['not-adding-up', 'no-who'] });
  expect((await (await group()).findByRole('status')).textContent).toContain(
    'net and tax do not come to the total; it is not known from whom it is',
  );
});

it('is of an entry that is there: surely, with the way off; perhaps, at a click', async () => {
  const { user, said } = open({ enters: false, fits: [{ ...FIT, sure: true }], attachTo: FIT.id });
  const books = await group();
  expect(books.getByText(/The paper of entry 12: Corvin Energy, 120.00 GBP/).textContent).toContain(
    'the same amount and sender',
  );
  await user.click(books.getByRole('button', { name: 'Not of this one' }));
  await user.click(await books.findByRole('button', { name: /Perhaps of entry 12/ }));
  await waitFor(() => expect(said()).toMatchObject([{ attachTo: null }, { attachTo: FIT.id }]));
});

it('a letter is entered only when somebody says so', async () => {
  const { user, said } = open({ as: 'nothing', enters: false, parts: [PART] });
  await user.click(await screen.findByRole('button', { name: 'Enter it in the books …' }));
  await waitFor(() => expect(said()).toMatchObject([{ enters: true }]));
  expect(await screen.findByLabelText('Category')).toBeTruthy();
});

it('says what a new sender will be known with, and warns of a bank account that is another than before', async () => {
  const sender = {
    address: 'Mill Lane 4',
    taxNumber: '',
    iban: 'DE44500105175407324931',
    known: false,
    ibanBefore: null,
  };
  open({ sender });
  await screen.findByText('New sender, known from now on with Mill Lane 4 · DE44 5001 0517 5407 3249 31');
  open({ sender: { ...sender, known: true, ibanBefore: 'DE89370400440532013000' } });
  await screen.findByText(/! Its bank account is another than before, which was DE89 3704 0044 0532 0130 00/);
});

it('says what a bill in other money comes to in one’s own, at which rate', async () => {
  const { user, said } = open({ currency: 'EUR' });
  const own = (await group()).getByLabelText('In GBP');
  await user.clear(own);
  await user.type(own, '103.20{Tab}');
  await waitFor(() => expect(said()).toMatchObject([{ ownUnits: 10_320 }]));
  await screen.findByText('1 EUR = 0.86000 GBP');
});
