import { useEffect, useRef, useState } from 'react';
import { endpoints } from '@crow/contract/endpoints';
import { Word } from '@crow/core/reading/words';
import { useChange } from '../queries';
import { useNotices } from './notices';

interface Props {
  pageId: string;
  /** The word's place among the page's words. */
  index: number;
  word: Word;
  /** Size of the picture that its box refers to. */
  width: number;
  height: number;
  onClose: () => void;
}

/** Corrects what was read of a word, right at its place on the page. Enter keeps, Escape leaves it. */
export function WordCorrection({ pageId, index, word, width, height, onClose }: Props) {
  const [typed, setTyped] = useState(word.text);
  const field = useRef<HTMLInputElement>(null);
  const correct = useCorrection();
  useEffect(() => field.current?.select(), []);
  const keep = () => {
    if (typed.trim() !== word.text) correct({ pageId, index, was: word.text, text: typed.trim() });
    onClose();
  };
  const [x, y, , h] = word.box;
  return (
    <form
      className="absolute z-10 border border-accent bg-raised p-1"
      style={{ left: `${(100 * x) / width}%`, top: `calc(${(100 * (y + h)) / height}% + 3px)` }}
      onSubmit={(event) => {
        event.preventDefault();
        keep();
      }}
      onBlur={onClose}
    >
      <input
        ref={field}
        aria-label={`What “${word.text}” really says`}
        className="h-7 w-48 bg-raised px-1 font-mono text-ink outline-none"
        value={typed}
        spellCheck={false}
        onChange={(event) => setTyped(event.target.value)}
        onKeyDown={(event) => {
          event.stopPropagation();
          if (event.key === 'Escape') onClose();
        }}
      />
    </form>
  );
}

/** Corrects a word and tells so, with a way back. An empty text says that it is none. */
export function useCorrection(): (change: { pageId: string; index: number; was: string; text: string }) => void {
  const { tell } = useNotices();
  const takeBack = useChange(endpoints.correctWords, ['text', 'document']);
  // Told even when the word is left by then.
  const save = useChange(endpoints.correctWords, ['text', 'document'], (_, { params, body }) => {
    const [{ index, was, text }] = body.changes;
    if (was === text) return;
    const undo = () => takeBack.mutate({ params, body: { changes: [{ index, was: text, text: was }] } });
    tell({
      text: text ? `“${was}” is now “${text}”.` : `“${was}” is no longer treated as text.`,
      action: { label: 'Undo', run: undo },
    });
  });
  return ({ pageId, index, was, text }) =>
    save.mutate({ params: { id: pageId }, body: { changes: [{ index, was, text }] } });
}
