import { screen, waitFor } from '@testing-library/react';
import { endpoints } from '@crow/contract/endpoints';
import { NewMark, ShownMark } from '@crow/contract/marks';
import { newId } from '../../../testing/papers';
import { notice, Refusal, show, StandInServer } from '../../../testing/window';
import { MarkNote } from './MarkNote';
import { useMarks } from './useMarks';

const [PAGE, COMMENT, STAMP] = [newId(), newId(), newId()];
const mark = (id: string, part: Partial<NewMark> = {}): NewMark => ({
  id,
  pageId: PAGE,
  kind: 'comment',
  ink: 'amber',
  boxes: [[10, 10, 16, 16]],
  strokes: [],
  text: 'Who pays?',
  ...part,
});
const LONG_STROKE = Array.from({ length: 4000 }, (_, at): [number, number, number] => [at / 4000, 0.5, 1.25]);
const known = (given: NewMark): ShownMark => ({ ...given, by: 'Una', at: '2027-01-02T10:00:00.000Z', replies: [] });

function open(start: ShownMark[] = []) {
  let kept = start;
  const server = new StandInServer()
    .on(endpoints.listMarks, () => kept)
    .on(endpoints.changeMarks, ({ body }) => {
      const ids = [...body.remove, ...body.put.map(({ id }) => id)];
      kept = [...kept.filter(({ id }) => !ids.includes(id)), ...body.put.map((put) => known(put as NewMark))];
      return kept;
    });
  function Marks() {
    const marks = useMarks(PAGE);
    const comment = marks.marks.find(({ id }) => id === COMMENT);
    return (
      <>
        <output>{marks.marks.map(({ text }) => text).join('|')}</output>
        <button onClick={() => marks.put([mark(STAMP, { kind: 'stamp', text: 'PAID' })])}>stamp</button>
        <button
          onClick={() => {
            const now = marks.find(STAMP)!;
            marks.put([{ ...now, boxes: [[now.boxes[0][0] + 2, 10, 16, 16]] }], 'moving');
          }}
        >
          move
        </button>
        <button
          onClick={() => {
            marks.put([mark(COMMENT, { text: 'short' })]);
            marks.remove([COMMENT]);
          }}
        >
          put and remove
        </button>
        <button
          onClick={() =>
            marks.put(
              Array.from({ length: 30 }, () => mark(newId(), { kind: 'signature', strokes: [LONG_STROKE], text: '' })),
            )
          }
        >
          sign thirty pages
        </button>
        <button onClick={marks.undo} disabled={!marks.undo}>
          undo
        </button>
        <button onClick={marks.redo} disabled={!marks.redo}>
          redo
        </button>
        {comment && <MarkNote documentId={PAGE} marks={marks} selected={comment} onSelect={() => undefined} />}
      </>
    );
  }
  const shown = show(<Marks />, server, '/shelf/');
  return {
    server,
    kept: () => kept,
    click: (name: string) => shown.user.click(screen.getByRole('button', { name })),
    ...shown,
  };
}

const seen = () => screen.getByRole('status').textContent;

it('shows a mark at once, undoes it and does it again', async () => {
  const { click, kept } = open();
  await click('stamp');
  expect(seen()).toBe('PAID');
  await waitFor(() => expect(kept()).toHaveLength(1));
  await click('undo');
  expect(seen()).toBe('');
  await waitFor(() => expect(kept()).toEqual([]));
  await click('redo');
  await waitFor(() => expect(kept().map(({ text }) => text)).toEqual(['PAID']));
});

it('sends many marks in pieces that the server takes, and undoes them in one go', async () => {
  const { user, server } = open();
  await user.click(screen.getByRole('button', { name: 'sign thirty pages' }));
  await waitFor(() => expect(screen.getByRole('status').textContent).toBe('|'.repeat(29)));
  const sent = () =>
    server.askedOf(endpoints.changeMarks).map((each) => (each as { body: { put: unknown[] } }).body.put);
  await waitFor(() => expect(sent().flat()).toHaveLength(30));
  expect(sent().length).toBeGreaterThan(2);
  for (const piece of sent()) expect(JSON.stringify(piece).length).toBeLessThan(2_000_000);
  const before = sent().length;
  await user.click(screen.getByRole('button', { name: 'undo' }));
  await waitFor(() => expect(server.askedOf(endpoints.changeMarks).length).toBe(before + 1));
  await waitFor(() => expect(screen.getByRole('status').textContent).toBe(''));
});

it('undoes steps about the same in one go, and not what was done before them', async () => {
  const { click, kept } = open();
  await click('stamp');
  for (let step = 0; step < 3; step++) await click('move');
  await waitFor(() => expect(kept()[0].boxes[0][0]).toBe(16));
  await click('undo');
  await waitFor(() => expect(kept()[0].boxes[0][0]).toBe(10));
  await click('undo');
  await waitFor(() => expect(kept()).toEqual([]));
});

it('sends changes one after the other', async () => {
  const { click, server, kept } = open();
  await click('put and remove');
  await waitFor(() => expect(server.askedOf(endpoints.changeMarks)).toHaveLength(2));
  expect(server.askedOf(endpoints.changeMarks).map(({ body }) => [body.put.length, body.remove.length])).toEqual([
    [1, 0],
    [0, 1],
  ]);
  await waitFor(() => expect(kept()).toEqual([]));
  expect(seen()).toBe('');
});

it('takes back what the server refuses, and says why', async () => {
  const { click, server } = open();
  server.on(endpoints.changeMarks, () => new Refusal('The paper is in the bin.'));
  await click('stamp');
  await notice(/in the bin/);
  await waitFor(() => expect(seen()).toBe(''));
});

it('keeps what is typed into a comment without being told to, and follows an undo', async () => {
  const { click, kept, user } = open([known(mark(COMMENT))]);
  const field = await screen.findByLabelText<HTMLTextAreaElement>('The comment');
  await user.type(field, ' Soon?');
  await waitFor(() => expect(kept()[0].text).toBe('Who pays? Soon?'));
  await click('undo');
  await waitFor(() => expect(kept()[0].text).toBe('Who pays?'));
  expect(field.value).toBe('Who pays?');
});

it('shows whoever only reads what a comment says, with its answers, and nothing to change', () => {
  const comment = {
    ...known(mark(COMMENT)),
    replies: [{ by: 'Imre', at: '2027-01-03T10:00:00.000Z', text: 'We do.' }],
  };
  show(<MarkNote documentId={PAGE} selected={comment} onSelect={() => undefined} />, new StandInServer(), '/shelf/');
  screen.getByText('Who pays?');
  screen.getByText(/We do\./);
  expect(screen.queryByRole('textbox')).toBeNull();
  expect(screen.queryByRole('button')).toBeNull();
});
