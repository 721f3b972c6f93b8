import { useSyncExternalStore } from 'react';

const NARROW = '(width < 48rem)';
/** Narrow, or a phone that lies on its side. */
const SMALL = '(width < 48rem) or (height < 30rem)';

/** Narrower than what three panes side by side need: a tablet, upright. */
const MEDIUM = '(width < 64rem)';

function useMedia(query: string): boolean {
  return useSyncExternalStore(
    (changed) => {
      const media = window.matchMedia(query);
      media.addEventListener('change', changed);
      return () => media.removeEventListener('change', changed);
    },
    () => window.matchMedia(query).matches,
  );
}

/** Whether the screen is narrower than where the layout changes: a phone, upright. */
export function useNarrow(): boolean {
  return useMedia(NARROW);
}

/** Whether the screen is a phone's, upright or on its side. */
export function useSmall(): boolean {
  return useMedia(SMALL);
}

/** Whether the screen has room for two panes side by side and not for three. */
export function useMedium(): boolean {
  return useMedia(MEDIUM);
}
