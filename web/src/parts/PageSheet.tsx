import { DragEvent, memo, ReactNode, useEffect, useMemo, useRef, useState } from 'react';
import { restoreWord, restoreWords, StoredWord, Word, linesOf } from '@crow/core/reading/words';
import { Page } from '@crow/contract/pages';
import { usePageText } from '../queries';
import { PagePicture, sizeFor } from './PagePicture';
import { WordCorrection } from './WordCorrection';

interface SheetProps {
  page: Page;
  /** Place in the document, from 1. */
  number: number;
  /** How wide it is shown, in CSS pixels. */
  width: number;
  /** Marks over the picture. */
  children?: ReactNode;
  /** What lies over its words as well. */
  above?: ReactNode;
  /** Called when a word is clicked; words can then be dragged, too. */
  onWord?: (word: PickedWord, extend: boolean) => void;
}

/** A word picked on a page: its text, and where it stands as shares of the page. */
export interface PickedWord {
  text: string;
  pageId: string;
  box: [number, number, number, number];
}

export const WORD_MEDIA_TYPE = 'application/x-crow-word';

/** A page with its picture, and its words over it: they can be selected, copied, and picked. */
export function PageSheet({ page, number, width, children, above, onWord }: SheetProps) {
  const { data: text } = usePageText(page.id, page.turn, page.version, page.reading === 'read');
  const [correcting, setCorrecting] = useState<number>();
  const height = (width * page.height) / page.width;
  return (
    <section
      aria-label={`Page ${number}`}
      data-page={page.id}
      className="relative bg-paper shadow-paper"
      style={{ width, height, containerType: 'inline-size' }}
    >
      <PagePicture page={page} size={sizeFor(width, page)} alt={`Page ${number}`} />
      {children}
      {text && (
        <TextLayer
          words={text.words}
          width={text.width}
          height={text.height}
          pageId={page.id}
          onWord={onWord}
          onCorrect={setCorrecting}
        />
      )}
      {text?.handwriting.map(([x, y, w, h]) => (
        <span
          key={`${x} ${y}`}
          role="img"
          aria-label="Handwriting that was not read"
          title="Written by hand: this was not read."
          className="absolute border border-dashed border-[#8a5a10]"
          style={{ left: `${100 * x}%`, top: `${100 * y}%`, width: `${100 * w}%`, height: `${100 * h}%` }}
        >
          <span className="absolute top-0 left-full ml-1 whitespace-nowrap bg-[#f4e4c4] px-1 text-[11px] leading-4 text-[#5a3a08]">
            by hand
          </span>
        </span>
      ))}
      {above}
      {correcting !== undefined && text?.words[correcting] && (
        <WordCorrection
          key={correcting}
          pageId={page.id}
          index={correcting}
          word={restoreWord(text.words[correcting])}
          width={text.width}
          height={text.height}
          onClose={() => setCorrecting(undefined)}
        />
      )}
    </section>
  );
}

const MEASURED_AT = 100;
const measure = document.createElement('canvas').getContext('2d')!;
measure.font = `${MEASURED_AT}px sans-serif`;

interface LayerProps {
  words: StoredWord[];
  width: number;
  height: number;
  pageId: string;
  onWord?: SheetProps['onWord'];
  /** Called with a word's place among the page's words when it is clicked twice. */
  onCorrect: (index: number) => void;
}

/** So soon after the first a second click corrects a word, rather than picking it twice. */
const SECOND_CLICK_MS = 250;

/** Does what a click says once no second one can follow; at once when another place is clicked. */
function useSingleClick(): { soon: (todo: () => void) => void; never: () => void } {
  const waiting = useRef<{ timer: number; todo: () => void }>(undefined);
  const take = () => {
    const { timer, todo } = waiting.current ?? {};
    window.clearTimeout(timer);
    waiting.current = undefined;
    return todo;
  };
  useEffect(() => () => void take(), []);
  return {
    soon: (todo) => {
      take()?.();
      waiting.current = { todo, timer: window.setTimeout(() => take()?.(), SECOND_CLICK_MS) };
    },
    never: () => void take(),
  };
}

const TextLayer = memo(function TextLayer({ words: stored, width, height, pageId, onWord, onCorrect }: LayerProps) {
  const lines = useMemo(() => linesOf(restoreWords(stored)), [stored]);
  const { soon, never } = useSingleClick();
  const placeOf = ({ text, box }: Word) =>
    stored.findIndex(([each, x, y]) => each === text && x === box[0] && y === box[1]);
  const picked = ({ text, box: [x, y, w, h] }: Word): PickedWord => ({
    text,
    pageId,
    box: [x / width, y / height, w / width, h / height],
  });
  const pick = onWord
    ? (word: Word) => ({
        draggable: true,
        onClick: ({ detail, shiftKey }: { detail: number; shiftKey: boolean }) => {
          if (detail < 2) soon(() => onWord(picked(word), shiftKey));
        },
        onDragStart: (event: DragEvent) => {
          event.dataTransfer.setData(WORD_MEDIA_TYPE, JSON.stringify(picked(word)));
          event.dataTransfer.setData('text/plain', word.text);
        },
      })
    : () => ({});
  return (
    <div
      className={`text-layer absolute inset-0 overflow-hidden ${onWord ? 'select-none [&_span]:cursor-pointer [&_span:hover]:bg-accent/15' : ''}`}
    >
      {lines.map((line, index) => (
        <div key={index}>
          {line.map((word, place) => {
            const [x, y, w, h] = word.box;
            // In container units, so that nothing is measured again while zooming.
            const size = (100 * h) / width;
            const natural = (measure.measureText(word.text).width / MEASURED_AT) * size;
            return (
              <span
                key={place}
                {...pick(word)}
                data-box={[x / width, y / height, w / width, h / height].map((value) => value.toFixed(5)).join(' ')}
                onDoubleClick={() => {
                  never();
                  onCorrect(placeOf(word));
                }}
                style={{
                  left: `${(100 * x) / width}%`,
                  top: `${(100 * y) / height}%`,
                  fontSize: `${size}cqw`,
                  fontFamily: 'sans-serif',
                  transform: natural > 0 ? `scaleX(${((100 * w) / width / natural).toFixed(4)})` : undefined,
                }}
              >
                {word.text}{' '}
              </span>
            );
          })}
        </div>
      ))}
    </div>
  );
});
