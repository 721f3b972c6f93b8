import { screen, within } from '@testing-library/react';
import { endpoints } from '@crow/contract/endpoints';
import { document, fact, page } from '../../testing/papers';
import { notice, Refusal, show, StandInServer } from '../../testing/window';
import { AboutPane } from './AboutPane';
import { Place } from './shelfPlace';

function open() {
  const pageList = [page()];
  const box: Place['box'] = [0.6, 0.8, 0.1, 0.01];
  const paper = document({
    pageList,
    facts: [
      fact('total', '184.20', { pageId: pageList[0].id, box, why: 'beside “Total”', repaired: true }),
      fact('vendor', 'Halden & Firth Yarns Ltd'),
      fact('kind', 'invoice'),
    ],
    lines: [
      { description: 'Madder, 12 skeins', quantity: 12, unitPrice: 12.5, amount: 150 },
      { description: 'Swing tickets', quantity: 500, unitPrice: 0.142, discount: 10, amount: 63.9 },
    ],
    taxes: [{ rate: 20, net: 153.5, tax: 30.7 }],
    bookings: [{ date: '2026-09-03', text: 'Studio rent', amount: -410, balance: 884.36 }],
  });
  const server = new StandInServer();
  const went: Place[] = [];
  return { ...show(<AboutPane document={paper} onGoTo={(to) => went.push(to)} />, server), server, went, paper, box };
}

it('says what a paper is, with its facts in a fixed order, and leads to where one stands', async () => {
  const { user, went, paper, box } = open();
  const about = within(screen.getByRole('complementary', { name: 'About this document' }));
  about.getByText(paper.summary);
  expect(about.getAllByRole('term').map((each) => each.textContent)).toEqual(['Kind', 'Who', 'Total']);
  about.getByText('put right: only so it adds up');
  await user.click(about.getByRole('button', { name: '184.20' }));
  expect(went).toEqual([{ pageId: paper.pageList[0].id, box }]);
  expect(about.getByRole('link', { name: 'as CSV' }).getAttribute('href')).toBe(
    `/api/documents/${paper.id}/lines?as=csv`,
  );
  within(about.getByRole('table', { name: 'Tax by rate' })).getByText('30.70');
  about.getByText('12 × 12.50');
  about.getByText('500 × 0.142 less 10 %');
  within(about.getByRole('table', { name: 'What it books' })).getByText('-410.00');
});

it('answers a question with its place, and says so when nothing answers it', async () => {
  const { user, server, went, paper, box } = open();
  server.on(endpoints.askDocument, ({ query }) =>
    query.q === 'When is it due?'
      ? { text: '12 December 2026', pageId: paper.pageList[0].id, box }
      : { text: null, pageId: null, box: null },
  );
  const field = screen.getByLabelText<HTMLInputElement>('Ask about this paper');
  await user.type(field, 'When is it due?{Enter}');
  await screen.findByText('12 December 2026');
  expect(went).toHaveLength(1);
  await user.clear(field);
  await user.type(field, 'Who painted it?{Enter}');
  await screen.findByText('Nothing on the paper answers that.');
  expect(went).toHaveLength(1);
  // Nothing is asked without a question.
  await user.clear(field);
  await user.type(field, '   {Enter}');
  expect(server.askedOf(endpoints.askDocument)).toHaveLength(2);
});

it('tells why a question could not be answered', async () => {
  const { user, server } = open();
  server.on(endpoints.askDocument, () => new Refusal('The document is gone.'));
  await user.type(screen.getByLabelText('Ask about this paper'), 'When?{Enter}');
  await notice(/The document is gone/);
});
