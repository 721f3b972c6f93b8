/** Does something once there is nothing else to do, or after the patience at the latest. Not every browser tells when that is. */
export function whenIdle(work: () => void, patienceMs: number): void {
  if ('requestIdleCallback' in window) requestIdleCallback(work, { timeout: patienceMs });
  else setTimeout(work, patienceMs / 2);
}
