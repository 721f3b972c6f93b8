import type * as Tus from 'tus-js-client';
import { addressOf } from '@crow/contract/client';
import type { ProblemReport } from '@crow/contract/problems';
import { FINISH, UPLOADS } from '@crow/contract/uploads';
import { Outbox, Sending, Waiting } from './outboxStore';

/** So many files are on their way at the same time. */
const AT_ONCE = 2;
const LOCK = 'crow-outbox';
const SESSION_ENDED = 401;

/** How sending ended: everything that could be sent was; the line was cut; nothing was to be sent yet; this browser is not let in. */
export type Sent = 'all' | 'no-line' | 'held' | 'not-let-in';

interface How {
  /** The library that does it, which is not on the way to the first view. */
  load: () => Promise<typeof Tus>;
  /** Whether somebody has told it to send now, whatever was chosen. */
  told?: boolean;
  /** How requests are made where the usual way is not there, as in a service worker. */
  stack?: Tus.HttpStack;
}

/**
 * Sends what waits, in its order, each file going on where it broke off, and forgets it once it is taken in; then sends on to Check what was
 * said to be finished. One window, or the service worker,
 * sends for all of a browser; others wait until it is done.
 */
export async function sendWaiting(outbox: Outbox, how: How): Promise<Sent> {
  if (typeof navigator === 'undefined' || !('locks' in navigator)) return sendAll(outbox, how);
  return navigator.locks.request(LOCK, () => sendAll(outbox, how)) as Promise<Sent>;
}

/** Whether files may go now by themselves. */
export function maySend(sending: Sending, connection: Connection | undefined): boolean {
  if (sending === 'when-told') return false;
  return sending === 'by-itself' || !isMetered(connection);
}

interface Connection {
  type?: string;
  saveData?: boolean;
}

/** What the browser knows of the line (Network Information API); little, in some browsers. */
export const lineOf = (): Connection | undefined => (navigator as { connection?: Connection }).connection;

const isMetered = (connection: Connection | undefined): boolean =>
  connection?.saveData === true || connection?.type === 'cellular';

async function sendAll(outbox: Outbox, how: How): Promise<Sent> {
  const { told = false } = how;
  if (!told && !maySend(await outbox.sending(), lineOf())) {
    await finishStacks(outbox);
    return 'held';
  }
  const begun = new Set<string>();
  let ended: Sent = 'all';
  const lane = async (): Promise<void> => {
    while (ended === 'all') {
      const next = (await outbox.list()).find(({ id, problem }) => !problem && !begun.has(id));
      if (!next) return;
      begun.add(next.id);
      const failed = await send(outbox, next, how);
      if (failed === undefined) continue;
      if (typeof failed === 'string') ended = failed;
      else await outbox.amend(next.id, { address: undefined, problem: failed });
    }
  };
  await Promise.all(Array.from({ length: AT_ONCE }, lane));
  // What is finished may go on even when something of another stack could not.
  const finished = await finishStacks(outbox);
  return ended === 'all' ? finished : ended;
}

/** Sends on to Check what is finished and of which nothing waits here. */
async function finishStacks(outbox: Outbox): Promise<Sent> {
  for (const stack of await outbox.toFinish()) {
    const address = addressOf({ path: FINISH }, { params: { id: stack } });
    const answer = await fetch(address, { method: 'POST' }).catch(() => undefined);
    const says = answer?.ok ? undefined : answer ? whatAnswerSays(answer.status, await answer.text()) : 'no-line';
    if (typeof says === 'string') return says;
    await outbox.finished(stack, says);
  }
  return 'all';
}

/** Sends one file. @returns nothing when it is taken in; why nothing more can be sent now; or what is wrong with it */
async function send(outbox: Outbox, waiting: Waiting, { load, stack }: How): Promise<Sent | ProblemReport | undefined> {
  const { Upload, DetailedError } = await load();
  const { id, told, bytes, address } = waiting;
  const metadata = Object.entries({ ...told, file: id }).flatMap(([name, value]) =>
    value === undefined ? [] : [[name, String(value)]],
  );
  let kept: Promise<void> | undefined;
  let unheard = () => {};
  const sent = new Promise<Sent | ProblemReport | undefined>((resolve) => {
    const upload = new Upload(bytes, {
      endpoint: `/api${UPLOADS}`,
      uploadUrl: address ?? null,
      metadata: Object.fromEntries(metadata) as Record<string, string>,
      // Where it goes on is kept with the file itself; when to try again, whoever calls decides.
      storeFingerprintForResuming: false,
      retryDelays: null,
      ...(stack && { httpStack: stack }),
      onUploadUrlAvailable: () => {
        if (upload.url && upload.url !== address) kept = outbox.amend(id, { address: upload.url });
      },
      onProgress: (sent) => outbox.tell({ kind: 'progress', id, sent }),
      onSuccess: () => {
        void Promise.resolve(kept)
          .then(() => outbox.remove(id))
          .then(() => {
            outbox.tell({ kind: 'sent', id });
            resolve(undefined);
          });
      },
      onError: (error) => {
        const answer = error instanceof DetailedError ? error.originalResponse : null;
        resolve(answer ? whatAnswerSays(answer.getStatus(), answer.getBody()) : 'no-line');
      },
    });
    unheard = outbox.listen((news) => {
      if (news.kind !== 'discarded' || news.id !== id) return;
      void upload.abort(true).catch(() => undefined);
      resolve(undefined);
    });
    upload.start();
  });
  return sent.finally(() => unheard());
}

function whatAnswerSays(status: number, body: string): Sent | ProblemReport {
  if (status === SESSION_ENDED) return 'not-let-in';
  if (status === 0 || status >= 500) return 'no-line';
  try {
    const report = JSON.parse(body) as ProblemReport;
    if (report.happened) return report;
  } catch {
    // Not of this program: something between it and here has answered.
  }
  return 'no-line';
}
