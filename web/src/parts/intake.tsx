import { createContext, ReactNode, useCallback, useContext, useEffect, useMemo, useRef, useState } from 'react';
import { compareNames } from '@crow/core/filing/names';
import { ProblemReport } from '@crow/contract/problems';
import { queryStale } from './stale';

/** A file on its way into the program. */
export interface Transfer {
  id: string;
  stackId: string;
  stackName: string;
  name: string;
  position: number;
  file: File;
  sent: number;
  state: 'waiting' | 'sending' | 'done' | 'failed';
  problem?: ProblemReport;
}

interface Intake {
  transfers: Transfer[];
  takeIn: (files: File[]) => void;
  /** Adds a file to a stack that may exist already; it becomes one with its first file. */
  addTo: (stack: { id: string; name: string }, file: File, position: number) => void;
  retry: (id: string) => void;
  forget: (id: string) => void;
}

const IntakeContext = createContext<Intake | null>(null);
export const useIntake = () => useContext(IntakeContext)!;

const AT_ONCE = 2;
const PICTURE = /\.(jpe?g|png|heic|heif|webp)$/i;
const KEEP_DONE_MS = 4000;

/** How chosen files become stacks: pictures together are one, every other file is one of its own. */
export function groupFiles(files: File[]): { name: string; files: File[] }[] {
  const isPicture = (file: File) => PICTURE.test(file.name) || /^image\/(jpeg|png|heic|heif|webp)$/.test(file.type);
  const pictures = files.filter(isPicture).sort((a, b) => compareNames(a.name, b.name));
  const others = files.filter((file) => !isPicture(file));
  const groups = others.map((file) => ({ name: file.name, files: [file] }));
  if (pictures.length === 0) return groups;
  const name = pictures.length === 1 ? pictures[0].name : `${pictures[0].name} and ${pictures.length - 1} more`;
  return [...groups, { name, files: pictures }];
}

/** Takes in files that are chosen, dropped anywhere on the window, or pasted, a few at a time, with their progress. */
export function IntakeProvider({ children }: { children: ReactNode }) {
  const [transfers, setTransfers] = useState<Transfer[]>([]);
  const running = useRef(new Set<string>());
  const change = useCallback((id: string, part: Partial<Transfer>) => {
    setTransfers((before) => before.map((each) => (each.id === id ? { ...each, ...part } : each)));
  }, []);

  const takeIn = useCallback((files: File[]) => {
    const added = groupFiles(files).flatMap((group) => {
      const stackId = crypto.randomUUID();
      return group.files.map((file, position): Transfer => ({
        id: crypto.randomUUID(),
        stackId,
        stackName: group.name,
        name: file.name,
        position,
        file,
        sent: 0,
        state: 'waiting',
      }));
    });
    setTransfers((before) => [...before, ...added]);
  }, []);

  const addTo = useCallback((stack: { id: string; name: string }, file: File, position: number) => {
    const added: Transfer = {
      id: crypto.randomUUID(),
      stackId: stack.id,
      stackName: stack.name,
      name: file.name,
      position,
      file,
      sent: 0,
      state: 'waiting',
    };
    setTransfers((before) => [...before, added]);
  }, []);

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
      takeIn,
      addTo,
      forget,
      retry: (id: string) => change(id, { state: 'waiting', sent: 0, problem: undefined }),
    }),
    [transfers, takeIn, addTo, forget, change],
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
  { id, stackId, stackName, name, position, file }: Transfer,
  onProgress: (sent: number) => void,
): Promise<ProblemReport | undefined> {
  return new Promise((resolve) => {
    const request = new XMLHttpRequest();
    const query = new URLSearchParams({
      stack: stackId,
      file: id,
      stackName,
      name: name || 'Pasted picture',
      position: String(position),
    });
    request.open('PUT', `/api/files?${query}`);
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
