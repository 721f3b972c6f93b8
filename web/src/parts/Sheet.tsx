import { PointerEvent, ReactNode, useRef } from 'react';

/** How far the sheet is pulled before it follows, in pixels. */
const PULL = 24;

/**
 * What belongs to the picture, the paper or the list on a narrow screen: a sheet at its foot that is pulled up and down, or opened by a tap on
 * its head. The head and the foot are always to be seen.
 */
export function Sheet({
  open,
  onOpen,
  name,
  head,
  foot,
  children,
}: {
  open: boolean;
  onOpen: (open: boolean) => void;
  /** What is in it, for who does not see it. */
  name: string;
  head: ReactNode;
  foot: ReactNode;
  children: ReactNode;
}) {
  const from = useRef<number>(undefined);
  const pulled = useRef(false);
  const pull = ({ clientY }: PointerEvent) => {
    if (from.current === undefined || Math.abs(clientY - from.current) < PULL) return;
    onOpen(clientY < from.current);
    pulled.current = true;
    from.current = undefined;
  };
  return (
    <footer className="flex max-h-[72%] shrink-0 flex-col border-t border-rule bg-sunken">
      <button
        aria-expanded={open}
        aria-label={name}
        className="flex w-full shrink-0 touch-none flex-col items-stretch px-3 pt-1.5 pb-2 text-left"
        onPointerDown={({ clientY }) => {
          from.current = clientY;
          pulled.current = false;
        }}
        onPointerMove={pull}
        onPointerUp={() => (from.current = undefined)}
        onClick={() => !pulled.current && onOpen(!open)}
      >
        <span aria-hidden className="mx-auto mb-1 h-1 w-10 bg-quiet/50" />
        {!open && head}
      </button>
      <div className={`min-h-0 flex-1 flex-col gap-3 overflow-y-auto px-3 pb-2 ${open ? 'flex' : 'hidden'}`}>
        {children}
      </div>
      <div className="flex shrink-0 flex-col px-3 pb-2">{foot}</div>
    </footer>
  );
}
