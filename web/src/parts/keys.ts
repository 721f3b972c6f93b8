import { useLayoutEffect, useRef, useSyncExternalStore } from 'react';

/** What a key does; keys are written like `c`, `Shift+R`, `Ctrl+z`, `Ctrl+Enter`, `Alt+ArrowLeft`. */
export type KeyMap = Record<string, (event: KeyboardEvent) => void>;
/** What keys do, in words, in the order in which they are shown: the keys parted by spaces, and the words. */
export type KeyWords = readonly (readonly [keys: string, does: string])[];

interface Mounted {
  words: KeyWords;
}

/** All that listen now, the first to come first. */
const mounted = new Set<Mounted>();
const watchers = new Set<() => void>();
let told: KeyWords[] = [];

function retell(): void {
  told = [...mounted].map(({ words }) => words).filter((words) => words.length > 0);
  for (const watcher of watchers) watcher();
}

/** What the keys do that act now, as whoever listens for them says. */
export function useKeyWords(): KeyWords[] {
  return useSyncExternalStore(
    (watcher) => {
      watchers.add(watcher);
      return () => watchers.delete(watcher);
    },
    () => told,
  );
}

const SINGLE = 'crow-single-keys';

/** Whether keys that are one character act; somebody who speaks to the machine, or whose hand slips, switches them off. */
export function singleKeysAct(): boolean {
  return localStorage.getItem(SINGLE) !== 'off';
}

export function letSingleKeysAct(act: boolean): void {
  localStorage.setItem(SINGLE, act ? 'on' : 'off');
}

/**
 * Listens for keys while mounted, from the moment that what they act on is seen. Whatever has the focus and takes a key itself
 * gets it; nothing acts while a dialog or a menu is open. Keys with Ctrl (or Cmd) work from fields, too, but for those by which text
 * is chosen, copied and undone.
 */
export function useKeys(keys: KeyMap, words: KeyWords = []): void {
  const current = useRef(keys);
  useLayoutEffect(() => {
    current.current = keys;
  });
  const said = JSON.stringify(words);
  useLayoutEffect(() => {
    const own = { words: JSON.parse(said) as KeyWords };
    mounted.add(own);
    retell();
    return () => {
      mounted.delete(own);
      retell();
    };
  }, [said]);
  useLayoutEffect(() => {
    const hear = (event: KeyboardEvent) => {
      if (event.defaultPrevented || event.isComposing) return;
      const name = nameOf(event);
      const run = current.current[name];
      if (!run || takesKey(event.target, name)) return;
      if (event.key.length === 1 && !event.ctrlKey && !event.metaKey && name !== '?' && !singleKeysAct()) return;
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

const PRESSED =
  'button, a[href], summary, [role="button"], [role="link"], [role="menuitem"], [role="checkbox"], [role="switch"]';
const CHOSEN =
  'select, input[type="radio"], input[type="range"], [role="radio"], [role="slider"], [role="tab"], [role="combobox"], [role="spinbutton"]';
const MOVES = /^(Shift\+|Ctrl\+)?(Arrow(Up|Down|Left|Right)|Home|End|PageUp|PageDown)$/;
/** What fields do by themselves with Ctrl held: choose, copy, paste, cut, undo, and go by words. */
const OF_FIELDS = /^Ctrl\+(Shift\+)?([acvxyzACVXYZ]|Arrow\w+|Home|End|Backspace|Delete)$/;

/** Whether what has the focus does something itself when a key is pressed: then nothing else does. */
export function takesKey(target: EventTarget | null, name: string): boolean {
  if (!(target instanceof HTMLElement)) return false;
  if (isTyping(target)) return !/^(Ctrl\+|Alt\+\d$)/.test(name) || OF_FIELDS.test(name);
  if (/^(Enter| )$/.test(name)) return target.closest(`${PRESSED}, input, [role="tab"], [role="radio"]`) !== null;
  return MOVES.test(name) && target.closest(CHOSEN) !== null;
}

/** Whether it is something like a button, which Enter presses. */
export function isPressed(target: EventTarget | null): boolean {
  return target instanceof HTMLElement && target.closest(PRESSED) !== null;
}

export function isTyping(target: EventTarget | null): boolean {
  if (target instanceof HTMLInputElement)
    return !['checkbox', 'radio', 'file', 'button', 'range', 'color', 'submit'].includes(target.type);
  return target instanceof HTMLElement && (target.isContentEditable || ['TEXTAREA', 'SELECT'].includes(target.tagName));
}

/** What lies over a station for a while: a dialog, a menu, a list to choose from. */
const OVER = '[role="dialog"], [role="alertdialog"], [role="menu"], [role="listbox"]';

/** Whether somebody is in a field, or in what lies over the station: nothing that arrives takes the focus from there. */
export function isEngaged(): boolean {
  return isTyping(document.activeElement) || document.activeElement?.closest(OVER) != null;
}
