import { useSyncExternalStore } from 'react';

const query = () => window.matchMedia('(width < 48rem)');

function subscribe(changed: () => void): () => void {
  const media = query();
  media.addEventListener('change', changed);
  return () => media.removeEventListener('change', changed);
}

/** Whether the screen is a phone's: narrower than where the layout changes. */
export function useNarrow(): boolean {
  return useSyncExternalStore(subscribe, () => query().matches);
}
