import { useState } from 'react';

/** A field with a proposed value. */
export interface Held<Value> {
  /** What stands in the field. */
  value: Value;
  /** Whether that may differ from what is proposed: somebody is in the field, or wrote it. */
  isHeld: boolean;
  /** To be called when the cursor comes into the field, and when it leaves it. */
  hold: () => void;
  release: () => void;
  write: (value: Value) => void;
  /** Takes the proposal again. */
  giveBack: () => void;
}

/**
 * Holds what stands in a field while somebody is in it, whatever is proposed meanwhile. What they write stays; a field that they
 * leave as it was, or as it is proposed, follows the proposals again.
 */
export function useHeld<Value>(proposed: Value): Held<Value> {
  const [held, setHeld] = useState<{ value: Value; written: boolean }>();
  return {
    value: held ? held.value : proposed,
    isHeld: held !== undefined,
    hold: () => setHeld((before) => before ?? { value: proposed, written: false }),
    release: () => setHeld((before) => (before?.written && before.value !== proposed ? before : undefined)),
    write: (value) => setHeld({ value, written: true }),
    giveBack: () => setHeld(undefined),
  };
}
