import { screen, waitFor, within } from '@testing-library/react';
import { endpoints } from '@crow/contract/endpoints';
import { AtWork, Document } from '@crow/contract/documents';
import { Choice, Choices } from '@crow/contract/facts';
import { doubtful, document, fact, page, settings } from '../../testing/papers';
import { notice, Refusal, show, StandInServer } from '../../testing/window';
import Check from './Check';

const OVERVIEW = {
  stacks: 0,
  arriving: 0,
  watched: 0,
  check: 0,
  filing: 0,
  filed: 3,
  unread: 0,
  ties: 0,
  changedOnDisk: 0,
  strangers: 0,
  troubles: [],
};

/** What every paper here offers for its facts. */
function choicesOn({ pageList: [{ id: pageId }] }: Document): Choices {
  const at = (value: string, beside: string): Choice => ({ value, beside, pageId, box: [0.1, 0.2, 0.1, 0.02] });
  return {
    days: [at('2026-11-05', 'Invoice date'), at('2026-11-19', 'pay by')],
    sums: [at('495.64', 'Total'), at('79.14', 'VAT')],
    numbers: [],
    names: [at('Alderton Dye Works', ''), { value: 'Harbour Council', beside: '', pageId: null, box: null }],
    rates: [],
    currencies: [],
  };
}

/** Who else is at which paper. */
let atWork: AtWork[] = [];
afterEach(() => void (atWork = []));

/** The Check station with documents that wait, which are filed, put to the back and binned as on the server. */
function open(waiting: Document[], { at = '/check' } = {}) {
  const known = new Map(waiting.map((each) => [each.id, each]));
  const order = waiting.map(({ id }) => id);
  const leave = (id: string) => order.splice(order.indexOf(id), 1);
  const server = new StandInServer()
    .on(endpoints.listAtWork, () => atWork)
    .on(endpoints.beAtWork, () => undefined)
    .on(endpoints.listWaiting, () => order.map((id) => known.get(id)!))
    .on(endpoints.readDocument, ({ params }) => known.get(params.id)!)
    .on(endpoints.readSettings, () => settings())
    .on(endpoints.listFolders, () => [])
    .on(endpoints.listDocuments, () => [])
    .on(endpoints.doubtfulWords, () => [])
    .on(endpoints.listChoices, ({ params }) => choicesOn(known.get(params.id)!))
    .on(endpoints.overview, () => OVERVIEW)
    .on(endpoints.documentSizes, () => [])
    .on(endpoints.pageText, () => ({ width: 1654, height: 2339, language: 'eng', words: [], handwriting: [] }))
    .on(endpoints.fileDocument, ({ params, body }) => {
      leave(params.id);
      const filed = {
        ...known.get(params.id)!,
        state: 'filing' as const,
        name: body.name,
        folderPath: 'Workshop/Yarn',
      };
      known.set(params.id, filed);
      return filed;
    })
    .on(endpoints.unfileDocument, ({ params }) => {
      const back = { ...known.get(params.id)!, state: 'check' as const };
      known.set(params.id, back);
      order.unshift(params.id);
      return back;
    })
    .on(endpoints.putToBack, ({ params }) => {
      order.push(...leave(params.id));
      return undefined;
    })
    .on(endpoints.binDocument, ({ params }) => {
      leave(params.id);
      known.set(params.id, { ...known.get(params.id)!, binnedAt: '2026-11-20T10:00:00.000Z' });
      return undefined;
    })
    .on(endpoints.changeFact, ({ params, body }) => {
      const before = known.get(params.id)!;
      const facts = before.facts.filter(({ name }) => name !== params.name);
      if (body.value) facts.push(fact(params.name, body.value, { confirmed: true, by: 'Imre' }));
      known.set(params.id, { ...before, facts });
      return known.get(params.id)!;
    });
  return { server, ...show(<Check />, server, at, '/check/:id?') };
}

it('leads nobody to a paper that somebody else has before them, and says so where one goes there all the same', async () => {
  const [rent, yarn] = [document({ name: 'Rent' }), document({ name: 'Yarn' })];
  atWork = [{ documentId: rent.id, name: 'Tove', own: false }];
  const { user, server } = open([rent, yarn]);
  await screen.findByDisplayValue('Yarn');
  expect(screen.queryByText(/on the desk, too/)).toBeNull();
  expect(server.askedOf(endpoints.beAtWork).at(-1)?.body.document).toBe(yarn.id);
  await user.keyboard('{ArrowLeft}');
  await screen.findByDisplayValue('Rent');
  await screen.findByText(/on the desk, too/);
  expect(screen.getByText('Tove')).not.toBeNull();
});

const HEAD: [string, number, number, number, number, number, number, number][] = [
  ['Harbour', 100, 100, 90, 20, 0.99, 0, 118],
  ['Council,', 200, 100, 90, 20, 0.99, 0, 118],
];
const heading = (name: string) => screen.findByRole('heading', { name });

it('files one document after the other with a key, shows where it went, and takes it back', async () => {
  const suggestion = { path: 'Workshop/Yarn', reason: 'the last four went there' };
  const { user, server } = open([
    document({ suggestion }),
    document({
      suggestion,
      facts: [fact('kind', 'letter'), fact('vendor', 'Harbour Council'), fact('date', '2026-11-13')],
    }),
  ]);
  await heading('1 of 2');
  await user.keyboard('{Control>}{Enter}{/Control}');
  await heading('1 of 1');
  expect(screen.getByLabelText<HTMLInputElement>('Name').value).toBe('2026-11-13 Harbour Council Letter');
  const said = await notice(/is filed in Workshop \/ Yarn/);
  await user.click(said.getByText('Undo'));
  await heading('1 of 2');
  expect(server.askedOf(endpoints.unfileDocument)).toHaveLength(1);
  await user.keyboard('{Control>}{Enter}{/Control}');
  await heading('1 of 1');
  await user.keyboard('{Control>}{Enter}{/Control}');
  await heading('Nothing waits to be checked');
});

it('keeps the document on the desk when it can’t be filed, and says why', async () => {
  const { user, server } = open([document({ suggestion: { path: 'Workshop/Yarn', reason: 'by kind and year' } })]);
  server.on(endpoints.fileDocument, () => new Refusal('The disk is full.'));
  await heading('1 of 1');
  await user.keyboard('{Control>}{Enter}{/Control}');
  await notice(/The disk is full/);
  await heading('1 of 1');
});

it('shows what a paper lists or books below its notes, and nothing where it does neither', async () => {
  const line = { description: 'Madder, skeins', quantity: 12, unitPrice: 12.5, discount: 10, amount: 135 };
  const booking = { date: '2026-09-03', text: 'Studio rent', amount: -410, balance: null };
  const { user } = open([
    document({ name: 'Bill', lines: [line] }),
    document({ name: 'Account', bookings: [booking] }),
  ]);
  const listed = within(await screen.findByRole('table', { name: 'Its lines' }));
  listed.getByText('Madder, skeins');
  listed.getByText('12 × 12.50 less 10 %');
  listed.getByText('135.00');
  expect(screen.queryByRole('table', { name: 'What it books' })).toBeNull();
  await user.click(screen.getByRole('button', { name: /^The next one/ }));
  await screen.findByRole('table', { name: 'What it books' });
  expect(screen.queryByRole('table', { name: 'Its lines' })).toBeNull();
});

it('puts a document to the back, walks through those that wait, and puts one into the bin and back', async () => {
  const [one, two, three] = ['One', 'Two', 'Three'].map((vendor) => document({ facts: [fact('vendor', vendor)] }));
  const { user, server } = open([one, two, three]);
  const name = async (value: string) =>
    waitFor(() => expect(screen.getByLabelText<HTMLInputElement>('Who').value).toBe(value));
  await heading('1 of 3');
  await user.keyboard('{Control>}b{/Control}');
  await heading('1 of 3');
  await name('Two');
  await user.click(screen.getByRole('button', { name: /^The next one/ }));
  await name('Three');
  await user.click(screen.getByRole('button', { name: 'To the bin' }));
  await heading('2 of 2');
  expect(server.askedOf(endpoints.binDocument)).toEqual([{ params: { id: three.id } }]);
  const said = await notice('The document is in the bin.');
  server.on(endpoints.bringBackDocument, () => undefined);
  await user.click(said.getByText('Bring it back'));
  await waitFor(() => expect(server.askedOf(endpoints.bringBackDocument)).toEqual([{ params: { id: three.id } }]));
});

describe('the notes in the margin', () => {
  const place = { box: [0.6, 0.8, 0.1, 0.01] as [number, number, number, number] };

  it('stand in the order of the page, the first doubtful one with the cursor in it', async () => {
    const pageList = [page()];
    const at = (y: number) => ({
      pageId: pageList[0].id,
      box: [0.6, y, 0.1, 0.01] as [number, number, number, number],
    });
    open([
      document({
        pageList,
        facts: [
          fact('total', '184.20', { ...at(0.9), confidence: 0.5 }),
          fact('kind', 'invoice', at(0.1)),
          fact('vendor', 'Halden & Firth Yarns Ltd', at(0.05)),
          fact('date', '2026-11-12', at(0.2)),
        ],
      }),
    ]);
    await heading('1 of 1');
    const notes = await waitFor(() => {
      const shown = [...window.document.querySelectorAll<HTMLElement>('[data-note]')];
      expect(shown).toHaveLength(4);
      return shown;
    });
    expect(notes.map((note) => note.dataset.note)).toEqual(['vendor', 'kind', 'date', 'total']);
    await waitFor(() => expect(window.document.activeElement).toBe(screen.getByLabelText('Total')));
    expect(screen.getByText('? look at this')).toBeTruthy();
  });

  it('are typed over, left as they were with Escape, and go on to filing with Enter', async () => {
    const { user, server } = open([document({ facts: [fact('kind', 'letter'), fact('vendor', 'Harbuor Council')] })]);
    const who = await screen.findByLabelText<HTMLInputElement>('Who');
    await user.clear(who);
    await user.type(who, 'Somebody{Escape}');
    expect(who.value).toBe('Harbuor Council');
    await user.clear(who);
    await user.type(who, 'Harbour Council{Enter}');
    await screen.findByText('✓ by hand');
    expect(server.askedOf(endpoints.changeFact)).toMatchObject([
      { params: { name: 'vendor' }, body: { value: 'Harbour Council', pageId: null } },
    ]);
  });

  /** What the list that is open shows. */
  const offered = () =>
    screen
      .queryAllByRole('listbox', { name: 'What the paper says' })
      .flatMap((list) => within(list).queryAllByRole('option'))
      .map(({ textContent }) => textContent);

  it('offer with the arrow down what the paper says, and take it with Enter, with its place', async () => {
    const paper = document({ facts: [fact('kind', 'letter'), fact('date', '2026-11-05', { confidence: 0.5 })] });
    const { user, server } = open([paper]);
    const date = await screen.findByLabelText('Date');
    await user.click(date);
    await screen.findByRole('button', { name: 'Date: what the paper says' });
    expect(offered()).toEqual([]);
    await user.keyboard('{ArrowDown}');
    // Not what it says already.
    expect(offered()).toEqual(['2026-11-19pay by']);
    await user.keyboard('{Enter}');
    await screen.findByText('✓ by hand');
    expect(server.askedOf(endpoints.changeFact)).toMatchObject([
      {
        params: { name: 'date' },
        body: { value: '2026-11-19', pageId: paper.pageList[0].id, box: [0.1, 0.2, 0.1, 0.02] },
      },
    ]);
    expect(window.document.activeElement).not.toBe(date);
  });

  it('offer it by the sign beside them as well, and take what is clicked', async () => {
    const paper = document({ facts: [fact('kind', 'letter'), fact('date', '2026-11-05', { confidence: 0.5 })] });
    const { user, server } = open([paper]);
    await user.click(await screen.findByLabelText('Date'));
    await user.click(await screen.findByRole('button', { name: 'Date: what the paper says' }));
    await user.click(screen.getByRole('option', { name: /2026-11-19/ }));
    await screen.findByText('✓ by hand');
    expect(server.askedOf(endpoints.changeFact)).toMatchObject([
      { params: { name: 'date' }, body: { value: '2026-11-19', pageId: paper.pageList[0].id } },
    ]);
    expect(offered()).toEqual([]);
  });

  it('offer names that other papers have once some of them is typed, and none is taken by going on', async () => {
    const { user, server } = open([document({ facts: [fact('kind', 'letter'), fact('vendor', 'Aldert0n')] })]);
    const who = await screen.findByLabelText<HTMLInputElement>('Who');
    await user.click(who);
    await user.keyboard('{ArrowDown}');
    await waitFor(() => expect(offered()).toEqual(['Alderton Dye Works']));
    await user.keyboard('{Escape}');
    expect(offered()).toEqual([]);
    await user.clear(who);
    await user.type(who, 'harb');
    await screen.findByRole('option', { name: 'Harbour Council' });
    await user.keyboard('{ArrowDown}{Enter}');
    await screen.findByText('✓ by hand');
    expect(server.askedOf(endpoints.changeFact)).toMatchObject([
      { params: { name: 'vendor' }, body: { value: 'Harbour Council', pageId: null } },
    ]);
    await user.clear(who);
    await user.type(who, 'Alder{Enter}');
    await waitFor(() => expect(server.askedOf(endpoints.changeFact)).toHaveLength(2));
    expect(server.askedOf(endpoints.changeFact)[1]).toMatchObject({ body: { value: 'Alder' } });
  });

  it('tell what a divider sheet said from what a person typed', async () => {
    const said = { confirmed: true, why: 'as its divider sheet says' };
    open([document({ facts: [fact('kind', 'statement', said), fact('vendor', 'Harbour Council')] })]);
    await screen.findByText('✓ as its divider sheet says');
    expect(screen.queryByText(/by hand/)).toBeNull();
  });

  it('say what was put right, and what does not add up; and that the paper may be here already', async () => {
    const twin = document({ name: 'Yarn of November', state: 'filed' });
    open([
      document({
        facts: [fact('kind', 'invoice'), fact('total', '184.20', { ...place, repaired: true })],
        checks: ['Net and tax make 184.20, the total is 194.20.'],
        duplicates: [{ id: twin.id, name: twin.name, state: 'filed', folderId: null, why: 'the same number' }],
      }),
    ]);
    await screen.findByText('± put right: only so it adds up');
    const doubts = screen.getByText(/Net and tax make 184.20/).closest('ul')!;
    within(doubts).getByText('Yarn of November');
    within(doubts).getByText(/has the same number/);
  });

  it('offer the other day that a date may be, and take it', async () => {
    const { user, server } = open([
      document({
        facts: [fact('kind', 'letter'), fact('date', '2026-06-10', { confidence: 0.5, other: '2026-10-06' })],
      }),
    ]);
    await user.click(await screen.findByRole('button', { name: 'or 2026-10-06?' }));
    await waitFor(() =>
      expect(server.askedOf(endpoints.changeFact)).toMatchObject([
        { params: { name: 'date' }, body: { value: '2026-10-06' } },
      ]),
    );
  });

  it('offer the other kind that a paper may be, and take it', async () => {
    const { user, server } = open([
      document({
        facts: [fact('kind', 'invoice', { confidence: 0.6, other: 'credit note' }), fact('date', '2026-06-10')],
      }),
    ]);
    await user.click(await screen.findByRole('button', { name: 'or Credit note?' }));
    await waitFor(() =>
      expect(server.askedOf(endpoints.changeFact)).toMatchObject([
        { params: { name: 'kind' }, body: { value: 'credit note' } },
      ]),
    );
  });

  it('take what is picked on the page', async () => {
    const pageList = [page()];
    const { user, server } = open([document({ pageList, facts: [fact('kind', 'letter')] })]);
    server.on(endpoints.pageText, () => ({
      width: 1000,
      height: 1400,
      language: 'eng',
      words: HEAD,
      handwriting: [],
    }));
    await user.click(await screen.findByLabelText('Who'));
    await user.click(await screen.findByText('Council,'));
    await waitFor(() =>
      expect(server.askedOf(endpoints.changeFact)).toMatchObject([
        {
          params: { name: 'vendor' },
          body: { value: 'Council', pageId: pageList[0].id, box: [0.2, 100 / 1400, 0.09, 20 / 1400] },
        },
      ]),
    );
  });
});

describe('notes', () => {
  const bill = (part = {}) => document({ facts: [fact('kind', 'invoice'), fact('vendor', 'Halden & Firth')], ...part });
  const note = (name: string) => screen.getByLabelText<HTMLInputElement>(name);

  it('for what was not found are added with a key, and stay while somebody is in them', async () => {
    const { user, server } = open([bill()]);
    await heading('1 of 1');
    await waitFor(() => expect(window.document.activeElement).toBe(note('Date')));
    await user.keyboard('{Escape}+');
    await user.click(await screen.findByRole('menuitem', { name: 'Due' }));
    await waitFor(() => expect(window.document.activeElement).toBe(note('Due')));
    await user.keyboard('2026-12-01{Enter}');
    await waitFor(() =>
      expect(server.askedOf(endpoints.changeFact)).toMatchObject([
        { params: { name: 'dueDate' }, body: { value: '2026-12-01' } },
      ]),
    );
    // Another kind of paper has no such note; the ones that are there stay where they are.
    const before = [...window.document.querySelectorAll<HTMLElement>('[data-note]')].map(({ dataset }) => dataset.note);
    await user.selectOptions(note('Kind'), 'letter');
    await waitFor(() => expect(server.askedOf(endpoints.changeFact)).toHaveLength(2));
    expect(
      [...window.document.querySelectorAll<HTMLElement>('[data-note]')].map(({ dataset }) => dataset.note),
    ).toEqual(before);
  });

  it('are emptied, say so, and come back to what was read', async () => {
    const read = bill({
      facts: [
        fact('kind', 'invoice'),
        fact('vendor', 'Halden & Firth'),
        fact('date', '2026-11-12'),
        fact('total', '1.00'),
      ],
    });
    const { user, server } = open([read]);
    let emptied: ['vendor'] | [] = [];
    const now = () => ({
      ...read,
      emptied,
      facts: read.facts.filter(({ name }) => emptied.length === 0 || name !== 'vendor'),
    });
    server
      .on(endpoints.readDocument, now)
      .on(endpoints.changeFact, () => {
        emptied = ['vendor'];
        return now();
      })
      .on(endpoints.restoreFact, () => {
        emptied = [];
        return now();
      });
    await heading('1 of 1');
    await user.clear(note('Who'));
    await user.keyboard('{Enter}');
    await screen.findByText('✓ none, by hand');
    await user.click(screen.getByRole('button', { name: 'Who: back to what was read' }));
    await waitFor(() => expect(note('Who').value).toBe('Halden & Firth'));
  });

  it('keep what is being typed when something else arrives', async () => {
    const before = bill();
    const { user, server, arrive } = open([before]);
    await heading('1 of 1');
    await user.click(note('Who'));
    await user.keyboard('{End} Ltd');
    const facts = [fact('kind', 'letter'), fact('vendor', 'Somebody Else'), fact('date', '2026-11-13')];
    server.on(endpoints.readDocument, () => ({ ...before, facts }));
    await arrive();
    await waitFor(() => expect(note('Date').value).toBe('2026-11-13'));
    expect(note('Who').value).toBe('Halden & Firth Ltd');
    expect(window.document.activeElement).toBe(note('Who'));
    expect(note('Total')).toBeTruthy();
  });

  it('take words of the page by keys alone', async () => {
    const pageList = [page()];
    const { user, server } = open([bill({ pageList })]);
    server.on(endpoints.pageText, () => ({ width: 1000, height: 1400, language: 'eng', words: HEAD, handwriting: [] }));
    await heading('1 of 1');
    await user.click(note('Who'));
    await user.keyboard('{Alt>}{ArrowLeft}{/Alt}');
    const words = await screen.findByRole('application', { name: /^Words of the page/ });
    await waitFor(() => expect(window.document.activeElement).toBe(words));
    await user.keyboard('{ArrowRight}{Enter}');
    await waitFor(() =>
      expect(server.askedOf(endpoints.changeFact)).toMatchObject([
        { params: { name: 'vendor' }, body: { value: 'Council' } },
      ]),
    );
    await waitFor(() => expect(window.document.activeElement).toBe(note('Who')));
  });
});

it('presses the button that has the focus, and nothing else, with Enter and Space', async () => {
  const { user, server } = open([document(), document()]);
  await heading('1 of 2');
  screen.getByRole('button', { name: /^The next one/ }).focus();
  await user.keyboard('{Enter}');
  await heading('2 of 2');
  screen.getByRole('button', { name: /^The next one/ }).focus();
  await user.keyboard(' ');
  await heading('1 of 2');
  expect(server.askedOf(endpoints.fileDocument)).toEqual([]);
});

it('says how far reading has come, and lets doubtful words be looked through', async () => {
  const words = [doubtful('rnadder', 3), doubtful('vveld', 7)];
  const { user, server, address } = open([document({ pageList: [page(), page({ reading: 'waiting' })], read: 1 })]);
  server.on(endpoints.doubtfulWords, () => words);
  await screen.findByText(/2 pages from Post of Thursday · reading, 1 done/);
  await user.click(await screen.findByRole('button', { name: /2 doubtful words/ }));
  expect(address()).toMatch(/^\/words\//);
});

it('tells what has become of a document that another window filed', async () => {
  const filed = document({ state: 'filed' });
  const { user } = open([document(), filed], { at: `/check/${filed.id}` });
  await heading('This document has been filed');
  await user.click(screen.getByText('Go on with the next one'));
  await heading('1 of 2');
});
