/** What one window has to tell the others of the same browser. */
const CHANNEL = 'crow-live';
const LOCK = 'crow-live';

/**
 * Listens to the server's stream of changes until stopped. All windows of a browser share one stream, since a browser keeps only a
 * few connections to a server: the window that holds the lock has it and passes on what it hears; when it closes, another one takes over.
 * Where there are no locks to be had, each window has a stream of its own.
 */
export function listenLive(hear: (data: string) => void): () => void {
  const ending = new AbortController();
  const { signal } = ending;
  if (!('locks' in navigator) || !('BroadcastChannel' in window)) {
    openStream(hear, signal);
  } else {
    const channel = new BroadcastChannel(CHANNEL);
    channel.onmessage = ({ data }: MessageEvent<string>) => hear(data);
    signal.addEventListener('abort', () => channel.close());
    const lead = () =>
      new Promise<void>((over) => {
        signal.addEventListener('abort', () => over());
        openStream((data) => {
          hear(data);
          channel.postMessage(data);
        }, signal);
      });
    navigator.locks.request(LOCK, { signal }, lead).catch(() => undefined);
  }
  const leave = () => ending.abort();
  window.addEventListener('pagehide', leave, { signal });
  // Shown again from the browser's memory, it knows nothing of what happened meanwhile.
  const back = (event: PageTransitionEvent) => event.persisted && location.reload();
  window.addEventListener('pageshow', back);
  return () => {
    window.removeEventListener('pageshow', back);
    leave();
  };
}

function openStream(hear: (data: string) => void, signal: AbortSignal): void {
  const events = new EventSource('/api/events');
  events.onmessage = ({ data }: MessageEvent<string>) => hear(data);
  signal.addEventListener('abort', () => events.close());
}
