import { createContext, ReactNode, useCallback, useContext, useEffect, useMemo, useRef, useState } from 'react';
import { compareNames } from '@crow/core/filing/names';
import { groupFiles } from '@crow/core/sorting/groupFiles';
import { ProblemReport } from '@crow/contract/problems';
import { Binding } from '@crow/contract/stacks';
import { Outbox, Sending, Waiting } from '../outbox/outboxStore';
import { sendWaiting, Sent } from '../outbox/sendWaiting';
import { nextOrder } from '../outbox/shared';
import { ReportedProblem } from '../api';
import { useNotices } from './notices';
import { queryStale } from './stale';

/** A file on its way into the program. */
export interface Transfer {
  id: string;
  stackId: string;
  stackName: string;
  name: string;
  /** The page that it is another capture of, or goes before. */
  documentId?: string;
  bytes: Blob;
  /** When it was taken, in milliseconds. */
  at: number;
  sent: number;
  state: 'waiting' | 'sending' | 'done' | 'failed';
  problem?: ProblemReport;
  /** Whether it is gone when this window closes. */
  fleeting: boolean;
}

/** Where pages go that are taken in: into a stack, which may have to be made, or with it into a document. */
export interface Place {
  stackId: string;
  stackName: string;
  /** So many files have been sent to the stack, at most. */
  sent: number;
  documentId?: string;
  /** Before which page; at the end without. */
  before?: string;
  /** The page of which the next one is another capture. */
  again?: string;
}

interface Intake {
  transfers: Transfer[];
  /** Why nothing goes at the moment, if something waits. */
  halted: Exclude<Sent, 'all'> | undefined;
  sending: Sending;
  chooseSending: (sending: Sending) => void;
  /** Sends what waits now, whatever was chosen. */
  sendNow: () => void;
  /** How many files were taken in for a stack, in this window. */
  takenFor: (stackId: string) => number;
  /** Where the next pages go; undefined for stacks of their own. */
  place: Place | undefined;
  setPlace: (place: Place | undefined) => void;
  /**
   * Takes in files where the next pages go, or else as stacks of their own.
   * @param otherwise gives the place for these and the next ones when there is none
   * @param bound at which side the book is bound that they are pictures of
   */
  takeIn: (files: File[], options?: { otherwise?: () => Place; bound?: Binding | null }) => void;
  /** Sends a stack on to Check as one document, once all that was captured for it is taken in. */
  finish: (stackId: string) => void;
  retry: (id: string) => void;
  forget: (id: string) => void;
}

const IntakeContext = createContext<Intake | null>(null);
export const useIntake = () => useContext(IntakeContext)!;

const KEEP_DONE_MS = 4000;
/** A stack that was to go on to Check was discarded meanwhile, or has gone, and the line broke before that was told. */
const OVER = ['not-found', 'stack-sorted'];
/** How long is waited for a line, at first and at most, in milliseconds. */
const [SOON_MS, LATER_MS] = [2000, 30_000];
/** What the browser calls sending in the background. */
const SYNC = 'crow-outbox';

const inOrder = (files: File[]) => files.toSorted((a, b) => compareNames(a.name, b.name));
const outbox = new Outbox();

/**
 * Takes in files that are chosen, dropped anywhere on the window, pasted, or photographed: each waits in the outbox of this device until it is
 * taken in, and goes as soon as there is a line.
 */
export function IntakeProvider({ children }: { children: ReactNode }) {
  const { transfers, halted, sendNow, send } = useOutbox();
  const [sending, setSending] = useState<Sending>('not-metered');
  useEffect(() => void outbox.sending().then(setSending), []);

  const [place, showPlace] = useState<Place>();
  /** The same, known at once also to a second picture taken right after the first. */
  const latestPlace = useRef(place);
  const setPlace = useCallback((next: Place | undefined) => {
    latestPlace.current = next;
    showPlace(next);
  }, []);
  /** What is being put into the outbox. */
  const [taken, setTaken] = useState<ReadonlyMap<string, number>>(new Map());
  const keeping = useRef<Promise<unknown>>(Promise.resolve());
  /** How many files were sent to each stack. */
  const sent = useRef(new Map<string, number>());

  const takeIn = useCallback<Intake['takeIn']>(
    (files, { otherwise, bound } = {}) => {
      if (otherwise && !latestPlace.current) setPlace(otherwise());
      const wanted = latestPlace.current;
      const groups = wanted
        ? [{ place: wanted, files: inOrder(files) }]
        : groupFiles(files).map(({ name, files: those }) => ({
            place: { stackId: crypto.randomUUID(), stackName: name, sent: 0 } as Place,
            files: those,
          }));
      const added = groups.flatMap(({ place: to, files: those }) =>
        those.map((file): Waiting => {
          const position = Math.max(to.sent, sent.current.get(to.stackId) ?? 0);
          sent.current.set(to.stackId, position + 1);
          const { stackId: stack, stackName, before, again, documentId: document } = to;
          const name = file.name || 'Pasted picture';
          const told = { stack, stackName, name, position, before, again, document, ...(bound && { bound }) };
          return { id: crypto.randomUUID(), order: nextOrder(), told, bytes: file, at: Date.now() };
        }),
      );
      setTaken((before) => {
        const now = new Map(before);
        for (const { told } of added) now.set(told.stack, (now.get(told.stack) ?? 0) + 1);
        return now;
      });
      const kept = Promise.all(added.map((each) => outbox.put(each)));
      keeping.current = keeping.current.then(() => kept);
      void kept.then(send);
      // A page is captured again once; then pages go to the end.
      if (wanted?.again) setPlace({ ...wanted, again: undefined });
    },
    [setPlace, send],
  );

  const finish = useCallback(
    (stackId: string) => {
      setPlace(undefined);
      void keeping.current.then(() => outbox.finish(stackId)).then(send);
    },
    [send, setPlace],
  );

  const value = useMemo(
    () => ({
      transfers,
      halted,
      sending,
      chooseSending: (choice: Sending) => {
        setSending(choice);
        void outbox.chooseSending(choice).then(send);
      },
      sendNow,
      takenFor: (stackId: string) => taken.get(stackId) ?? 0,
      place,
      setPlace,
      takeIn,
      finish,
      forget: (id: string) => void outbox.discard(id),
      retry: (id: string) => void outbox.amend(id, { problem: undefined }).then(sendNow),
    }),
    [transfers, halted, sending, send, sendNow, taken, place, setPlace, takeIn, finish],
  );
  return <IntakeContext.Provider value={value}>{children}</IntakeContext.Provider>;
}

/** What waits, how far it has gone, and sending it: now, when there is a line again, and after a while. */
function useOutbox() {
  const [waiting, setWaiting] = useState<Waiting[]>([]);
  const [done, setDone] = useState<Transfer[]>([]);
  const [progress, setProgress] = useState<ReadonlyMap<string, number>>(new Map());
  const [halted, setHalted] = useState<Exclude<Sent, 'all'>>();
  const known = useRef<Waiting[]>([]);
  const running = useRef<Promise<void> | undefined>(undefined);
  const again = useRef<ReturnType<typeof setTimeout> | undefined>(undefined);
  const patience = useRef(SOON_MS);
  const { tell } = useNotices();

  const run = useCallback(function run(told: boolean): void {
    clearTimeout(again.current);
    const before = running.current;
    // What came while it was being sent is seen by the same run, or by one more.
    running.current = Promise.resolve(before).then(async () => {
      const ended = await sendWaiting(outbox, { told, load: () => import('tus-js-client') }).catch(
        (): Sent => 'no-line',
      );
      const left = (await outbox.list()).some(({ problem }) => !problem);
      setHalted(left && ended !== 'all' ? ended : undefined);
      if (ended !== 'no-line' || !left) {
        patience.current = SOON_MS;
        return;
      }
      void sendInBackground();
      again.current = setTimeout(() => run(told), patience.current);
      patience.current = Math.min(LATER_MS, patience.current * 2);
    });
  }, []);
  const send = useCallback(() => run(false), [run]);
  const sendNow = useCallback(() => run(true), [run]);

  useEffect(() => {
    const look = async () => {
      known.current = await outbox.list();
      setWaiting(known.current);
    };
    const unheard = outbox.listen((news) => {
      if (news.kind === 'progress') setProgress((now) => new Map(now).set(news.id, news.sent));
      else if (news.kind === 'changed') void look();
      else if (news.kind === 'finished') {
        queryStale('stacks');
        if (news.problem && !OVER.includes(news.problem.code)) tell({ error: new ReportedProblem(news.problem) });
      } else {
        const gone = known.current.find(({ id }) => id === news.id);
        if (news.kind === 'discarded' || !gone) return;
        const { id } = gone;
        setDone((now) => [...now, { ...shown(gone, gone.bytes.size), state: 'done' }]);
        setTimeout(() => setDone((now) => now.filter((each) => each.id !== id)), KEEP_DONE_MS);
        queryStale('stacks');
      }
    });
    void look();
    send();
    const online = () => {
      patience.current = SOON_MS;
      send();
    };
    window.addEventListener('online', online);
    // What is in this window's memory only is gone with it.
    const warn = (event: BeforeUnloadEvent) => known.current.some(({ fleeting }) => fleeting) && event.preventDefault();
    window.addEventListener('beforeunload', warn);
    return () => {
      unheard();
      clearTimeout(again.current);
      window.removeEventListener('online', online);
      window.removeEventListener('beforeunload', warn);
    };
  }, [send, tell]);

  const transfers = useMemo(
    () => [
      ...done.filter(({ id }) => !waiting.some((each) => each.id === id)),
      ...waiting.map((each) => shown(each, progress.get(each.id))),
    ],
    [waiting, done, progress],
  );
  return { transfers, halted, send, sendNow };
}

function shown({ id, told, bytes, at, problem, fleeting }: Waiting, sent: number | undefined): Transfer {
  const { stack: stackId, stackName, name, document: documentId } = told;
  const state = problem ? 'failed' : sent === undefined ? 'waiting' : 'sending';
  return {
    id,
    stackId,
    stackName,
    name,
    documentId,
    bytes,
    at,
    sent: sent ?? 0,
    state,
    problem,
    fleeting: fleeting ?? false,
  };
}

/** Has the browser send what waits when there is a line again, also with no window open, where it can do that. */
async function sendInBackground(): Promise<void> {
  const registration = (await navigator.serviceWorker?.getRegistration().catch(() => undefined)) as
    (ServiceWorkerRegistration & { sync?: { register(tag: string): Promise<void> } }) | undefined;
  await registration?.sync?.register(SYNC).catch(() => undefined);
}
