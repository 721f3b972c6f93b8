import { screen, waitFor } from '@testing-library/react';
import { endpoints } from '@crow/contract/endpoints';
import { Page } from '@crow/contract/pages';
import { Stack } from '@crow/contract/stacks';
import { newId, page } from '../../testing/papers';
import { notice, Refusal, show, StandInServer } from '../../testing/window';
import Sort from './Sort';

const gap = (chance: number, sure: boolean) => ({ chance, sure, why: ['another letterhead'] });

/** Four pages in two documents, as the server keeps them: each change is a step that can be undone. */
function open(parts: Partial<Page>[] = [{ cutBefore: true }, {}, { cutBefore: true }, {}]) {
  const first: Stack = {
    id: newId(),
    name: 'Post of Thursday',
    state: 'open',
    createdAt: '2026-11-20T09:00:00.000Z',
    files: [],
    onward: false,
    pages: parts.length,
    read: parts.length,
    failed: 0,
    documents: 1,
    doubtful: 0,
    readingStopped: false,
    firstPages: [],
    pageList: parts.map((part) => page(part)),
    step: 0,
    canUndo: false,
    canRedo: false,
  };
  const steps = [first];
  let at = 0;
  const now = () => ({ ...steps[at], step: at, canUndo: at > 0, canRedo: at < steps.length - 1 });
  const server = new StandInServer()
    .on(endpoints.readStack, now)
    .on(endpoints.listStacks, () => [])
    .on(endpoints.arrangeStack, ({ body }) => {
      const byId = new Map(first.pageList.map((each) => [each.id, each]));
      steps.splice(++at, steps.length, {
        ...first,
        pageList: body.pages.map((place) => ({ ...byId.get(place.id)!, ...place })),
      });
      return now();
    })
    .on(endpoints.undoStack, () => (at--, now()))
    .on(endpoints.redoStack, () => (at++, now()));
  const saved = () => steps[at].pageList;
  return { server, first, saved, ...show(<Sort />, server, `/sort/${first.id}`, '/sort/:id?') };
}

const counted = (text: string) => waitFor(() => expect(screen.getByText(/→/).textContent).toMatch(text));

it('cuts and joins with a key, and takes each step back and does it again', async () => {
  const { user, saved } = open();
  await counted('4 pages → 2 documents');
  await user.keyboard('{ArrowRight}c');
  await counted('3 documents');
  await user.keyboard('{ArrowRight}c');
  await counted('2 documents');
  await waitFor(() => expect(saved().map(({ cutBefore }) => cutBefore)).toEqual([true, true, false, false]));
  await user.keyboard('{Control>}z{/Control}');
  await counted('3 documents');
  await user.keyboard('{Control>}z{/Control}');
  await counted('2 documents');
  await user.keyboard('{Control>}y{/Control}');
  await counted('3 documents');
});

it('keeps all as one, or cuts at every page', async () => {
  const { user } = open();
  await counted('2 documents');
  await user.keyboard('w');
  await counted('1 document');
  await user.keyboard('s');
  await counted('4 documents');
});

it('turns, moves and drops what is selected, and brings it back', async () => {
  const { user, first, saved } = open();
  const [one, two, three, four] = first.pageList.map(({ id }) => id);
  await counted('2 documents');
  await user.keyboard('{Shift>}{ArrowRight}{/Shift}');
  screen.getByText(/2 pages selected/);
  await user.keyboard('r');
  await waitFor(() => expect(saved().map(({ turn }) => turn)).toEqual([90, 90, 0, 0]));
  await user.keyboard('{Alt>}{ArrowRight}{/Alt}');
  await waitFor(() => expect(saved().map(({ id }) => id)).toEqual([three, one, two, four]));
  await user.keyboard('{Delete}');
  await waitFor(() => expect(saved().map(({ dropped }) => dropped)).toEqual([false, true, true, false]));
  screen.getByRole('button', { name: /^Bring back/ });
  await user.keyboard('{Delete}');
  await waitFor(() => expect(saved().every(({ dropped }) => !dropped)).toBe(true));
});

it('walks through the doubtful gaps: one key accepts, one does the other thing', async () => {
  const { user, saved } = open([
    { cutBefore: true },
    { cutBefore: true, proposal: gap(0.6, false) },
    { proposal: gap(0.02, true) },
    { proposal: gap(0.4, false) },
  ]);
  await counted('2 doubtful gaps');
  await user.keyboard('n{Enter}');
  await counted('1 doubtful gap');
  // The next one comes by itself.
  await user.keyboard('x');
  await waitFor(() =>
    expect(saved().map(({ cutBefore, cutDecided }) => [cutBefore, cutDecided])).toEqual([
      [true, false],
      [true, true],
      [false, false],
      [true, true],
    ]),
  );
  expect(screen.queryByText(/doubtful gap/)).toBeNull();
});

it('goes back to what is saved when a change is refused, and says why', async () => {
  const { user, server } = open();
  await counted('2 documents');
  server.on(endpoints.arrangeStack, () => new Refusal('The stack was sorted meanwhile.'));
  await user.keyboard('{ArrowRight}c');
  await notice(/was sorted meanwhile/);
  await counted('2 documents');
});

it('sends the documents to Check once every change is saved', async () => {
  const { user, server, saved, address } = open();
  let cuts = 0;
  server.on(endpoints.sortStack, () => {
    cuts = saved().filter(({ cutBefore }) => cutBefore).length;
    return { documents: [newId(), newId(), newId()] };
  });
  await counted('2 documents');
  await user.keyboard('{ArrowRight}c{Control>}{Enter}{/Control}');
  await waitFor(() => expect(address()).toMatch(/^\/check/));
  expect(cuts).toBe(3);
});
