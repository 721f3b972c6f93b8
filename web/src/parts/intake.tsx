import { createContext, ReactNode, useCallback, useContext, useEffect, useMemo, useRef, useState } from 'react';
import { compareNames } from '@crow/core/filing/names';
import { groupFiles } from '@crow/core/sorting/groupFiles';
import { addressOf } from '@crow/contract/client';
import { endpoints } from '@crow/contract/endpoints';
import { ProblemReport } from '@crow/contract/problems';
import { queryStale } from './stale';

/** A file on its way into the program. */
export interface Transfer {
  id: string;
  stackId: string;
  stackName: string;
  name: string;
  /** The number in which it is sent among the files of its stack. */
  position: number;
  place?: Place;
  file: File;
  sent: number;
  state: 'waiting' | 'sending' | 'done' | 'failed';
  problem?: ProblemReport;
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
  /** Where the next pages go; undefined for stacks of their own. */
  place: Place | undefined;
  setPlace: (place: Place | undefined) => void;
  /**
   * Takes in files where the next pages go, or else as stacks of their own.
   * @param otherwise gives the place for these and the next ones when there is none
   */
  takeIn: (files: File[], options?: { otherwise?: () => Place }) => void;
  retry: (id: string) => void;
  forget: (id: string) => void;
}

const IntakeContext = createContext<Intake | null>(null);
export const useIntake = () => useContext(IntakeContext)!;

const AT_ONCE = 2;
const KEEP_DONE_MS = 4000;

const inOrder = (files: File[]) => files.toSorted((a, b) => compareNames(a.name, b.name));

/** Takes in files that are chosen, dropped anywhere on the window, or pasted, a few at a time, with their progress. */
export function IntakeProvider({ children }: { children: ReactNode }) {
  const [transfers, setTransfers] = useState<Transfer[]>([]);
  const running = useRef(new Set<string>());
  const change = useCallback((id: string, part: Partial<Transfer>) => {
    setTransfers((before) => before.map((each) => (each.id === id ? { ...each, ...part } : each)));
  }, []);

  const [place, showPlace] = useState<Place>();
  /** The same, known at once also to a second picture taken right after the first. */
  const latestPlace = useRef(place);
  const setPlace = useCallback((next: Place | undefined) => {
    latestPlace.current = next;
    showPlace(next);
  }, []);
  /** How many files were sent to each stack. */
  const sent = useRef(new Map<string, number>());

  const takeIn = useCallback<Intake['takeIn']>(
    (files, { otherwise } = {}) => {
      if (otherwise && !latestPlace.current) setPlace(otherwise());
      const wanted = latestPlace.current;
      const groups = wanted
        ? [{ place: wanted, files: inOrder(files) }]
        : groupFiles(files).map(({ name, files: those }) => ({
            place: { stackId: crypto.randomUUID(), stackName: name, sent: 0 } as Place,
            files: those,
          }));
      const added = groups.flatMap(({ place: to, files: those }) =>
        those.map((file): Transfer => {
          const position = Math.max(to.sent, sent.current.get(to.stackId) ?? 0);
          sent.current.set(to.stackId, position + 1);
          const { stackId, stackName } = to;
          const { name } = file;
          return {
            id: crypto.randomUUID(),
            stackId,
            stackName,
            name,
            position,
            place: to,
            file,
            sent: 0,
            state: 'waiting',
          };
        }),
      );
      setTransfers((before) => [...before, ...added]);
      // A page is captured again once; then pages go to the end.
      if (wanted?.again) setPlace({ ...wanted, again: undefined });
    },
    [setPlace],
  );

  const forget = useCallback((id: string) => setTransfers((before) => before.filter((each) => each.id !== id)), []);

  useEffect(() => {
    const free = AT_ONCE - running.current.size;
    for (const transfer of transfers
      .filter((each) => each.state === 'waiting' && !running.current.has(each.id))
      .slice(0, free)) {
      running.current.add(transfer.id);
      change(transfer.id, { state: 'sending' });
      void send(transfer, (sent) => change(transfer.id, { sent })).then((problem) => {
        running.current.delete(transfer.id);
        change(transfer.id, problem ? { state: 'failed', problem } : { state: 'done', sent: transfer.file.size });
        if (!problem) setTimeout(() => forget(transfer.id), KEEP_DONE_MS);
        queryStale('stacks');
      });
    }
  }, [transfers, change, forget]);

  useEffect(() => {
    const under = () => running.current.size > 0;
    const warn = (event: BeforeUnloadEvent) => under() && event.preventDefault();
    window.addEventListener('beforeunload', warn);
    return () => window.removeEventListener('beforeunload', warn);
  }, []);

  const value = useMemo(
    () => ({
      transfers,
      place,
      setPlace,
      takeIn,
      forget,
      retry: (id: string) => change(id, { state: 'waiting', sent: 0, problem: undefined }),
    }),
    [transfers, place, setPlace, takeIn, forget, change],
  );
  return <IntakeContext.Provider value={value}>{children}</IntakeContext.Provider>;
}

const INTERRUPTED: ProblemReport = {
  code: 'upload-interrupted',
  happened: 'The transfer was interrupted.',
  kept: 'Nothing of this file was taken in.',
  todo: 'Try again.',
};

/** Sends a file; the problem if there was one. (fetch can't tell the progress of what it sends; XMLHttpRequest can.) */
function send(
  { id, stackId, stackName, name, position, place, file }: Transfer,
  onProgress: (sent: number) => void,
): Promise<ProblemReport | undefined> {
  return new Promise((resolve) => {
    const request = new XMLHttpRequest();
    const query = {
      stack: stackId,
      file: id,
      stackName,
      name: name || 'Pasted picture',
      position,
      before: place?.before,
      again: place?.again,
      document: place?.documentId,
    };
    request.open(endpoints.sendFile.method, addressOf(endpoints.sendFile, { query }));
    request.setRequestHeader('content-type', 'application/octet-stream');
    request.upload.onprogress = ({ loaded }) => onProgress(loaded);
    request.onload = () => resolve(request.status < 300 ? undefined : parseProblem(request.responseText));
    request.onerror = () => resolve(INTERRUPTED);
    request.send(file);
  });
}

function parseProblem(text: string): ProblemReport {
  try {
    const report = JSON.parse(text) as ProblemReport;
    return report.happened ? report : INTERRUPTED;
  } catch {
    return INTERRUPTED;
  }
}
