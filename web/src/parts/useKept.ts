import { useState } from 'react';

/** State that this browser keeps, so that it is the same the next time; what was kept in an older form is dropped. */
export function useKept<Value extends object>(
  key: string,
  usual: Value,
  fits: (kept: object) => boolean = () => true,
): [Value, (value: Value) => void] {
  const [value, setValue] = useState(() => {
    try {
      const kept = JSON.parse(localStorage.getItem(key) ?? 'null') as Value | null;
      return kept && fits(kept) ? { ...usual, ...kept } : usual;
    } catch {
      return usual;
    }
  });
  const keep = (next: Value) => {
    setValue(next);
    localStorage.setItem(key, JSON.stringify(next));
  };
  return [value, keep];
}
