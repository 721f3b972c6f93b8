import { useLayoutEffect, useRef } from 'react';

/** What a key does; keys are written like `c`, `Shift+R`, `Ctrl+z`, `Ctrl+Enter`, `Alt+ArrowLeft`. */
export type KeyMap = Record<string, (event: KeyboardEvent) => void>;

/**
 * Listens for keys while mounted, from the moment that what they act on is seen. Plain keys, and those by which text is chosen, copied and undone, are left alone while somebody
 * types or a dialog is open; others with Ctrl (or Cmd) always work.
 */
export function useKeys(keys: KeyMap): void {
  const current = useRef(keys);
  useLayoutEffect(() => {
    current.current = keys;
  });
  useLayoutEffect(() => {
    const hear = (event: KeyboardEvent) => {
      if (event.defaultPrevented || event.isComposing) return;
      const name = nameOf(event);
      const run = current.current[name];
      if (!run) return;
      const ownOfFields = !name.startsWith('Ctrl+') || /^Ctrl\+[acvxyz]$/.test(name);
      if (ownOfFields && isTyping(event.target)) return;
      if (document.querySelector('[role="dialog"][data-state="open"], [role="menu"][data-state="open"]')) return;
      event.preventDefault();
      run(event);
    };
    window.addEventListener('keydown', hear);
    return () => window.removeEventListener('keydown', hear);
  }, []);
}

/** The name of the key that an event is about, as in a KeyMap. */
export function nameOf(event: Pick<KeyboardEvent, 'key' | 'ctrlKey' | 'metaKey' | 'altKey' | 'shiftKey'>): string {
  const { key, ctrlKey, metaKey, altKey, shiftKey } = event;
  const letter = key.length === 1;
  const parts = [];
  if (ctrlKey || metaKey) parts.push('Ctrl');
  if (altKey) parts.push('Alt');
  // Shift is part of what other characters are: only letters and named keys say it.
  if (shiftKey && (!letter || /[a-z]/i.test(key))) parts.push('Shift');
  parts.push(letter ? (shiftKey && !ctrlKey && !metaKey ? key : key.toLowerCase()) : key);
  return parts.join('+');
}

export function isTyping(target: EventTarget | null): boolean {
  if (target instanceof HTMLInputElement) return !['checkbox', 'radio', 'file', 'button'].includes(target.type);
  return target instanceof HTMLElement && (target.isContentEditable || ['TEXTAREA', 'SELECT'].includes(target.tagName));
}
