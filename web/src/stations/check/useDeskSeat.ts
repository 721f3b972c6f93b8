import { useEffect } from 'react';
import { AtWork } from '@crow/contract/documents';
import { endpoints } from '@crow/contract/endpoints';
import { ask } from '../../api';
import { THIS_WINDOW, useAtWork } from '../../queries';

/** It is said again this often that this window is still at a document; in milliseconds. */
const SAY_EVERY_MS = 15_000;

/** What was said last; what follows waits for it, so that the server never hears of leaving one document after coming to the next. */
let saying: Promise<unknown> = Promise.resolve();
function say(document: string | null): void {
  saying = saying.then(() =>
    ask(endpoints.beAtWork, { body: { window: THIS_WINDOW, document } }).catch(() => undefined),
  );
}

/** Says that this window has a document before it, as long as it is shown. @returns who else has */
export function useDeskSeat(documentId: string): AtWork[] {
  const { data: others = [] } = useAtWork();
  useEffect(() => {
    const sayWhileSeen = () => say(window.document.visibilityState === 'visible' ? documentId : null);
    sayWhileSeen();
    const timer = setInterval(() => window.document.visibilityState === 'visible' && say(documentId), SAY_EVERY_MS);
    window.document.addEventListener('visibilitychange', sayWhileSeen);
    return () => {
      clearInterval(timer);
      window.document.removeEventListener('visibilitychange', sayWhileSeen);
      say(null);
    };
  }, [documentId]);
  return others.filter((each) => each.documentId === documentId);
}
