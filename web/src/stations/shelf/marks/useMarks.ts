import { useQueryClient } from '@tanstack/react-query';
import { useMemo, useRef, useState } from 'react';
import { endpoints } from '@crow/contract/endpoints';
import { NewMark, ShownMark } from '@crow/contract/marks';
import { ask } from '../../../api';
import { useNotices } from '../../../parts/notices';
import { useMarksOf, useMe } from '../../../queries';

/** How some marks were before, and how they are then; null where there was or is none. */
type Change = { id: string; before: ShownMark | null; after: ShownMark | null }[];
/** What is undone in one go, and what it is about. */
interface Step {
  change: Change;
  about?: string;
}

const NO_MARKS: ShownMark[] = [];

export interface Marks {
  marks: readonly ShownMark[];
  /** A mark as it is by now, also before it is shown so. */
  find: (id: string) => ShownMark | null;
  /** Puts marks, or changes those of the same identifiers. @param about what the step is about; two in a row about the same are one */
  put: (marks: NewMark[], about?: string) => void;
  remove: (ids: string[]) => void;
  undo?: () => void;
  redo?: () => void;
}

/**
 * The marks of a document, and how they are changed: at once on the screen, then on the server; what it refuses is told and taken
 * back. Each step can be undone and done again.
 */
export function useMarks(documentId: string): Marks {
  const client = useQueryClient();
  const { tell } = useNotices();
  const me = useMe().data;
  const known = useMarksOf(documentId).data ?? NO_MARKS;
  /** What is on its way to the server; whatever it tells meanwhile, this is done. */
  const [pending, setPending] = useState<Change[]>([]);
  const underWay = useRef<Change[]>([]);
  const marks = useMemo(() => pending.reduce<readonly ShownMark[]>(applied, known), [pending, known]);
  const [done, setDone] = useState<Step[]>([]);
  const [undone, setUndone] = useState<Step[]>([]);
  const key = ['marks', documentId];
  const turn = useRef<Promise<unknown>>(Promise.resolve());

  const send = async (change: Change) => {
    underWay.current = [...underWay.current, change];
    setPending(underWay.current);
    const put = change.flatMap(({ after }) => (after ? [bare(after)] : []));
    const remove = change.flatMap(({ id, after }) => (after ? [] : [id]));
    try {
      // One after the other: what is changed and then removed is gone.
      const sent = turn.current.then(async () => {
        const [first, ...more] = inPieces(put);
        let told = await ask(endpoints.changeMarks, { params: { id: documentId }, body: { put: first, remove } });
        for (const piece of more)
          told = await ask(endpoints.changeMarks, { params: { id: documentId }, body: { put: piece, remove: [] } });
        return told;
      });
      turn.current = sent.catch(() => undefined);
      client.setQueryData<ShownMark[]>(key, await sent);
    } catch (error) {
      tell({ error });
      await client.invalidateQueries({ queryKey: key });
    } finally {
      underWay.current = underWay.current.filter((each) => each !== change);
      setPending(underWay.current);
    }
  };
  const act = (change: Change, about?: string) => {
    const last = done.at(-1);
    const goesOn = about !== undefined && last?.about === about;
    setDone(
      goesOn ? [...done.slice(0, -1), { about, change: joined(last.change, change) }] : [...done, { about, change }],
    );
    setUndone([]);
    void send(change);
  };
  const find = (id: string) =>
    underWay.current
      .reduce<readonly ShownMark[]>(applied, client.getQueryData<ShownMark[]>(key) ?? NO_MARKS)
      .find((each) => each.id === id) ?? null;
  return {
    marks,
    find,
    put: (given, about) =>
      act(
        given.map((mark) => {
          const before = find(mark.id);
          const told = before ?? { by: me?.name ?? '', at: new Date().toISOString(), replies: [] };
          return { id: mark.id, before, after: { ...told, ...mark } };
        }),
        about,
      ),
    remove: (ids) => act(ids.map((id) => ({ id, before: find(id), after: null }))),
    ...(done.length > 0 && {
      undo: () => {
        const step = done.at(-1)!;
        setDone(done.slice(0, -1));
        setUndone([...undone, step]);
        void send(step.change.map(({ id, before, after }) => ({ id, before: after, after: before })));
      },
    }),
    ...(undone.length > 0 && {
      redo: () => {
        const step = undone.at(-1)!;
        setUndone(undone.slice(0, -1));
        setDone([...done, step]);
        void send(step.change);
      },
    }),
  };
}

/** So many characters of marks go to the server in one go: initials on every page of a book are more. */
const MOST_AT_ONCE = 800_000;

/** Marks in pieces that are not too large, one at least. */
function inPieces(marks: NewMark[]): NewMark[][] {
  const pieces: NewMark[][] = [[]];
  let size = 0;
  for (const mark of marks) {
    const own = JSON.stringify(mark).length;
    if (size > 0 && size + own > MOST_AT_ONCE) {
      pieces.push([]);
      size = 0;
    }
    pieces.at(-1)!.push(mark);
    size += own;
  }
  return pieces;
}

function applied(now: readonly ShownMark[], change: Change): ShownMark[] {
  const changed = new Map(change.map(({ id, after }) => [id, after]));
  const kept = now.flatMap((mark) => (changed.has(mark.id) ? (changed.get(mark.id) ?? []) : mark));
  return [...kept, ...change.flatMap(({ id, after }) => (after && !now.some((mark) => mark.id === id) ? after : []))];
}

/** Two changes as one: from before the first to after the second. */
function joined(first: Change, second: Change): Change {
  const befores = new Map(first.map(({ id, before }) => [id, before]));
  const ids = new Set(second.map(({ id }) => id));
  return [
    ...first.filter(({ id }) => !ids.has(id)),
    ...second.map((each) => (befores.has(each.id) ? { ...each, before: befores.get(each.id)! } : each)),
  ];
}

function bare({ id, pageId, kind, ink, boxes, strokes, text }: ShownMark): NewMark {
  return { id, pageId, kind, ink, boxes, strokes, text };
}
