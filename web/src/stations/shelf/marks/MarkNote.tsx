import { FormEvent, useEffect, useLayoutEffect, useRef, useState } from 'react';
import { endpoints } from '@crow/contract/endpoints';
import { ShownMark } from '@crow/contract/marks';
import { Button, inputLook, Key } from '../../../parts/controls';
import { shownMoment } from '../../../parts/days';
import { useChange } from '../../../queries';
import { MARK_NAMES } from './tools';
import { Marks } from './useMarks';

const TYPING_PAUSE_MS = 700;

interface NoteProps {
  documentId: string;
  selected: ShownMark;
  onSelect: (id: string | undefined) => void;
  /** How marks are changed; absent for whoever only reads. */
  marks?: Marks;
  /** Puts the mark at the same place of all other pages. */
  onEveryPage?: () => void;
}

/** The mark that is picked up: who made it, what it says, what was answered; and what can be done with it. */
export function MarkNote({ documentId, marks, selected, onSelect, onEveryPage }: NoteProps) {
  const { id, kind, text, by, at, replies } = selected;
  const writes = kind === 'text' || kind === 'comment';
  return (
    <section
      aria-label="The mark"
      className="flex flex-wrap items-start gap-x-4 gap-y-2 border-b border-rule px-4 py-2"
    >
      <p className="pt-1 text-sm">
        <strong className="font-semibold">{MARK_NAMES[kind]}</strong>{' '}
        <span className="text-quiet">
          {by}, {shownMoment(at)}
        </span>
      </p>
      <div className="min-w-0 flex-1 basis-60">
        {writes && (marks ? <Words marks={marks} selected={selected} onSelect={onSelect} /> : <p>{text}</p>)}
        {replies.map((each) => (
          <p key={each.at} className="mt-1 text-sm">
            <strong className="font-semibold">{each.by}</strong> {each.text}{' '}
            <span className="text-quiet">{shownMoment(each.at)}</span>
          </p>
        ))}
        {marks && kind === 'comment' && text !== '' && <Answer documentId={documentId} mark={id} />}
      </div>
      {onEveryPage && <Button onClick={onEveryPage}>On every page</Button>}
      {marks && (
        <Button
          onClick={() => {
            marks.remove([id]);
            onSelect(undefined);
          }}
        >
          Remove <Key>Del</Key>
        </Button>
      )}
    </section>
  );
}

/** What a text or a comment says; what is typed is kept soon, whatever becomes of the window. */
function Words({ marks, selected, onSelect }: Pick<NoteProps, 'selected' | 'onSelect'> & { marks: Marks }) {
  const { id, kind, text } = selected;
  const [written, setWritten] = useState(text);
  // What is undone, or written elsewhere, shows here, unless something else is being written.
  const [known, setKnown] = useState(text);
  if (known !== text) {
    setKnown(text);
    if (written === known) setWritten(text);
  }
  const keep = () => {
    const now = marks.find(id);
    if (now && written.trim() && written !== now.text) marks.put([{ ...now, text: written }], `words ${id}`);
  };
  const latest = useRef(keep);
  useLayoutEffect(() => {
    latest.current = keep;
  });
  const isTyped = written !== text;
  useEffect(() => {
    if (!isTyped) return;
    const timer = setTimeout(() => latest.current(), TYPING_PAUSE_MS);
    return () => clearTimeout(timer);
  }, [written, isTyped]);
  return (
    <textarea
      aria-label={kind === 'text' ? 'What it says' : 'The comment'}
      className={`${inputLook} h-auto min-h-8 py-1`}
      rows={Math.min(5, written.split('\n').length)}
      value={written}
      autoFocus={text === ''}
      onChange={(event) => setWritten(event.target.value)}
      onBlur={keep}
      onKeyDown={(event) => {
        if (event.key !== 'Enter' || !(event.ctrlKey || event.metaKey)) return;
        keep();
        onSelect(undefined);
      }}
    />
  );
}

function Answer({ documentId, mark }: { documentId: string; mark: string }) {
  const [answer, setAnswer] = useState('');
  const reply = useChange(endpoints.replyToMark, ['document'], () => setAnswer(''));
  const send = (event: FormEvent) => {
    event.preventDefault();
    if (answer.trim()) reply.mutate({ params: { id: documentId, mark }, body: { text: answer } });
  };
  return (
    <form onSubmit={send} className="mt-1 flex gap-2">
      <input
        aria-label="Answer"
        placeholder="Answer …"
        className={inputLook}
        value={answer}
        onChange={(event) => setAnswer(event.target.value)}
      />
      <Button type="submit" disabled={!answer.trim()}>
        Answer
      </Button>
    </form>
  );
}
