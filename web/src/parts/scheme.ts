import { useSyncExternalStore } from 'react';

/** Light or dark as the system has it, or as somebody wants it in this browser. */
export const SCHEMES = ['system', 'light', 'dark'] as const;
export type Scheme = (typeof SCHEMES)[number];

const KEPT = 'crow-scheme';
const dark = matchMedia('(prefers-color-scheme: dark)');

export function chosenScheme(): Scheme {
  const kept = localStorage.getItem(KEPT) as Scheme | null;
  return kept && SCHEMES.includes(kept) ? kept : 'system';
}

export function chooseScheme(scheme: Scheme): void {
  localStorage.setItem(KEPT, scheme);
  show();
}

const watchers = new Set<() => void>();

function show(): void {
  const scheme = chosenScheme();
  document.documentElement.dataset.scheme = scheme === 'system' ? (dark.matches ? 'dark' : 'light') : scheme;
  for (const watcher of watchers) watcher();
}

/** The scheme in which the window is shown, for what is drawn in colours that it has to ask for. */
export function useShownScheme(): string | undefined {
  return useSyncExternalStore(
    (watcher) => {
      watchers.add(watcher);
      return () => watchers.delete(watcher);
    },
    () => document.documentElement.dataset.scheme,
  );
}

/** Shows the window in its scheme, from now on. */
export function followScheme(): void {
  show();
  dark.addEventListener('change', show);
  // Chosen in another window of the same browser.
  window.addEventListener('storage', ({ key }) => key === KEPT && show());
}
