import { KeyboardEvent, useEffect, useMemo, useRef, useState } from 'react';
import { linesOf, restoreWords, Word } from '@crow/core/reading/words';
import { Page } from '@crow/contract/pages';
import { usePageText } from '../queries';
import { PickedWord } from './PageSheet';

interface WordCursorProps {
  page: Page;
  /** Where it begins, in shares of the page. */
  near: PickedWord['box'] | null;
  onPick: (word: PickedWord, extend: boolean) => void;
  onLeave: () => void;
  /** Called when it goes beyond the page's first or last line. */
  onBeyond: (by: -1 | 1) => void;
}

/** Goes from word to word on a page by the arrow keys; Enter picks the word, with Shift adds it to what was picked. */
export function WordCursor({ page, near, onPick, onLeave, onBeyond }: WordCursorProps) {
  const { data: text } = usePageText(page.id, page.turn, page.version, page.reading === 'read');
  const lines = useMemo(() => (text ? linesOf(restoreWords(text.words)) : []), [text]);
  const [at, setAt] = useState<{ line: number; place: number }>();
  const place = at ?? startIn(lines, near, text?.height ?? 1);
  const word: Word | undefined = lines[place.line]?.[place.place];
  const field = useRef<HTMLDivElement>(null);
  useEffect(() => {
    field.current?.focus({ preventScroll: true });
    field.current?.querySelector('[data-word]')?.scrollIntoView?.({ block: 'nearest' });
  });
  if (!text) return null;
  const share = ([x, y, w, h]: Word['box']): PickedWord['box'] => [
    x / text.width,
    y / text.height,
    w / text.width,
    h / text.height,
  ];
  const toLine = (by: -1 | 1) => {
    const line = lines[place.line + by];
    if (!line) return onBeyond(by);
    const middle = word ? word.box[0] + word.box[2] / 2 : 0;
    const distances = line.map(({ box }) => Math.abs(box[0] + box[2] / 2 - middle));
    setAt({ line: place.line + by, place: distances.indexOf(Math.min(...distances)) });
  };
  const along = (by: -1 | 1) => {
    if (lines[place.line]?.[place.place + by]) setAt({ line: place.line, place: place.place + by });
    else if (lines[place.line + by])
      setAt({ line: place.line + by, place: by > 0 ? 0 : lines[place.line + by].length - 1 });
  };
  const hear = (event: KeyboardEvent) => {
    const deeds: Record<string, () => void> = {
      ArrowLeft: () => along(-1),
      ArrowRight: () => along(1),
      ArrowUp: () => toLine(-1),
      ArrowDown: () => toLine(1),
      Enter: () => word && onPick({ text: word.text, pageId: page.id, box: share(word.box) }, event.shiftKey),
      Escape: onLeave,
    };
    if (!deeds[event.key] || event.ctrlKey || event.metaKey) return;
    event.preventDefault();
    event.stopPropagation();
    deeds[event.key]();
  };
  const [x, y, w, h] = word ? share(word.box) : [0, 0, 0, 0];
  return (
    // eslint-disable-next-line jsx-a11y/no-noninteractive-element-interactions -- an application takes all keys itself
    <div
      ref={field}
      role="application"
      aria-label="Words of the page: arrow keys go from word to word, Enter picks one"
      tabIndex={0}
      className="absolute inset-0 z-10 outline-none"
      onKeyDown={hear}
      onBlur={onLeave}
    >
      {word && (
        <span
          data-word
          className="absolute bg-[#1c5d63]/20 outline-2 outline-[#1c5d63]"
          style={{ left: `${x * 100}%`, top: `${y * 100}%`, width: `${w * 100}%`, height: `${h * 100}%` }}
        />
      )}
      <span className="sr-only" role="status">
        {word?.text}
      </span>
    </div>
  );
}

/** The first word of the line nearest to a place. */
function startIn(lines: Word[][], near: PickedWord['box'] | null, height: number): { line: number; place: number } {
  if (!near) return { line: 0, place: 0 };
  const middle = (near[1] + near[3] / 2) * height;
  let [best, distance] = [0, Infinity];
  lines.forEach((line, number) => {
    const away = Math.abs(line[0].box[1] + line[0].box[3] / 2 - middle);
    if (away < distance) [best, distance] = [number, away];
  });
  return { line: best, place: 0 };
}
