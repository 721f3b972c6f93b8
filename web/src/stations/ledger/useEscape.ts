import { RefObject, useEffect, useRef } from 'react';

/** A form that is left with Escape, from its fields as well. */
export function useEscape(onClose: () => void): RefObject<HTMLFormElement | null> {
  const form = useRef<HTMLFormElement>(null);
  useEffect(() => {
    const leave = (event: KeyboardEvent) => event.key === 'Escape' && !event.defaultPrevented && onClose();
    const own = form.current!;
    own.addEventListener('keydown', leave);
    return () => own.removeEventListener('keydown', leave);
  }, [onClose]);
  return form;
}
