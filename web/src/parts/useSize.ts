import { RefCallback, useCallback, useState } from 'react';

/** The width and height of an element, kept up to date. */
export function useSize<E extends HTMLElement>(): [RefCallback<E>, { width: number; height: number }] {
  const [size, setSize] = useState({ width: 0, height: 0 });
  const ref = useCallback((element: E | null) => {
    if (!element) return;
    const observer = new ResizeObserver(([entry]) => {
      const { width, height } = entry.contentRect;
      // The same one as long as it is: whoever lays something out by it does so once.
      setSize((now) => (now.width === width && now.height === height ? now : { width, height }));
    });
    observer.observe(element);
    return () => observer.disconnect();
  }, []);
  return [ref, size];
}
