import { ArrowLeft } from 'lucide-react';
import { KeyboardEvent, useEffect, useRef, useState } from 'react';
import { useLocation, useNavigate, useParams } from 'react-router';
import { Document } from '@crow/contract/documents';
import { Doubtful, Page } from '@crow/contract/pages';
import { Button, Empty, IconButton, Key } from '../../parts/controls';
import { pictureAddress } from '../../parts/PagePicture';
import { useCorrection } from '../../parts/WordCorrection';
import { useSize } from '../../parts/useSize';
import { useDocument, useDoubtful } from '../../queries';

/** Words that may be misread, one after the other, each beside its picture with its line in view. */
export default function DoubtfulWords() {
  const { id = '' } = useParams();
  const { data: document } = useDocument(id);
  const { data: words, isFetchedAfterMount } = useDoubtful(id, { anew: true });
  if (!document || !words || !isFetchedAfterMount) return null;
  // The pass goes through what was doubtful when it began: a word that is settled stays in its place.
  return <Pass key={id} document={document} words={words} />;
}

type State = 'kept' | 'corrected' | 'skipped';

function Pass({ document, words: first }: { document: Document; words: Doubtful[] }) {
  const [words, setWords] = useState(first);
  const [at, setAt] = useState(0);
  const [states, setStates] = useState<State[]>([]);
  const correct = useCorrection();
  const navigate = useNavigate();
  const { state } = useLocation() as { state: { from?: string } | null };
  const leave = () => void navigate(state?.from ?? `/check/${document.id}`);
  const word = words[at];
  const settle = (how: State, text?: string) => {
    if (text !== undefined) {
      correct({ pageId: word.pageId, index: word.index, was: word.text, text });
      // Whoever comes back to it sees what it says now.
      setWords(words.map((each, place) => (place === at ? { ...each, text } : each)));
    }
    setStates(Object.assign([...states], { [at]: how }));
    setAt(at + 1);
  };
  return (
    <div className="flex h-full flex-col">
      <header className="flex h-14 shrink-0 items-center gap-3 border-b border-rule px-4">
        <IconButton name="Back (Esc)" onClick={leave}>
          <ArrowLeft size={17} />
        </IconButton>
        <h1 className="text-lg font-semibold">
          {word ? `Doubtful word ${at + 1} of ${words.length}` : 'Doubtful words'}
        </h1>
        <p className="mr-auto min-w-0 truncate text-quiet">{document.name || document.proposedName}</p>
        <span className="text-sm text-quiet">
          <Key>Enter</Key> keeps it, or what you type · <Key>Tab</Key> skips · <Key>Shift+Tab</Key> goes back ·{' '}
          <Key>Ctrl+Backspace</Key> is no text
        </span>
      </header>
      {word ? (
        <OneWord
          key={at}
          word={word}
          page={document.pageList.find((page) => page.id === word.pageId)}
          onKeep={(text) => settle(text === word.text ? 'kept' : 'corrected', text)}
          onSkip={() => settle('skipped')}
          onBack={() => setAt(Math.max(0, at - 1))}
          onLeave={leave}
        />
      ) : (
        <AllSeen words={words} states={states} onLeave={leave} onAgain={() => setAt(0)} />
      )}
      {word && <Coming words={words.slice(at + 1, at + 9)} />}
    </div>
  );
}

function AllSeen({
  words,
  states,
  onLeave,
  onAgain,
}: {
  words: Doubtful[];
  states: State[];
  onLeave: () => void;
  onAgain: () => void;
}) {
  const number = (state: State) => states.filter((each) => each === state).length;
  return (
    <Empty title={words.length === 0 ? 'No word is doubtful' : 'That was the last one'}>
      {words.length > 0 && (
        <p className="mb-4">
          {number('kept')} kept, {number('corrected')} corrected, {number('skipped')} skipped. The text, what Find finds
          and the PDF follow by themselves.
        </p>
      )}
      <span className="inline-flex gap-2">
        <Button main autoFocus onClick={onLeave}>
          Go on
        </Button>
        {number('skipped') > 0 && <Button onClick={onAgain}>From the beginning</Button>}
      </span>
    </Empty>
  );
}

/** How high a word is shown at least and at most, in CSS pixels, and how much of the page around its line. */
const [LOWEST, HIGHEST] = [26, 64];
const AROUND = 1.4;

interface OneWordProps {
  word: Doubtful;
  page: Page | undefined;
  onKeep: (text: string) => void;
  onSkip: () => void;
  onBack: () => void;
  onLeave: () => void;
}

function OneWord({ word, page, onKeep, onSkip, onBack, onLeave }: OneWordProps) {
  const [typed, setTyped] = useState(word.text);
  const field = useRef<HTMLInputElement>(null);
  const [stripRef, { width }] = useSize<HTMLDivElement>();
  useEffect(() => {
    field.current?.focus();
    field.current?.select();
  }, []);
  const hear = (event: KeyboardEvent) => {
    if (event.key === 'Enter') onKeep(typed.trim() || word.text);
    else if (event.key === 'Tab') (event.shiftKey ? onBack : onSkip)();
    else if (event.key === 'Backspace' && (event.ctrlKey || event.metaKey)) onKeep('');
    else if (event.key === 'Escape') onLeave();
    else return;
    event.preventDefault();
  };
  const [x, y, w, h] = word.box;
  const [lineX, , lineWidth] = word.lineBox;
  const ratio = page ? page.height / page.width : 1.4;
  // So large that the line fits, and the word can be read easily.
  const fitting = width / Math.max(lineWidth + 0.04, 0.2);
  const pageWidth = Math.max(LOWEST / (h * ratio), Math.min(HIGHEST / (h * ratio), fitting));
  const pageHeight = pageWidth * ratio;
  const height = Math.max(90, (1 + 2 * AROUND) * h * pageHeight);
  const left =
    pageWidth * lineWidth <= width
      ? lineX * pageWidth - (width - lineWidth * pageWidth) / 2
      : (x + w / 2) * pageWidth - width / 2;
  const top = (y + h / 2) * pageHeight - height / 2;
  return (
    <div
      role="presentation"
      className="flex min-h-0 flex-1 flex-col items-center justify-center gap-6 px-8"
      onKeyDown={hear}
    >
      <div ref={stripRef} className="relative w-full overflow-hidden bg-paper shadow-paper" style={{ height }}>
        {page && width > 0 && (
          <>
            <img
              alt={`The line that “${word.text}” stands in`}
              src={pictureAddress(page.id, 'full', page.turn, page.version)}
              className="paper-picture absolute max-w-none"
              style={{ left: -left, top: -top, width: pageWidth, height: pageHeight }}
            />
            <span
              aria-hidden
              className="absolute border-b-3 border-[#b7791f] bg-[#b7791f]/15"
              style={{
                left: x * pageWidth - left - 3,
                top: y * pageHeight - top - 3,
                width: w * pageWidth + 6,
                height: h * pageHeight + 8,
              }}
            />
          </>
        )}
      </div>
      <div className="flex w-full items-baseline justify-center gap-2 font-mono text-xl">
        <span className="min-w-0 flex-1 truncate text-right text-quiet" dir="rtl">
          <bdi>{word.before}</bdi>
        </span>
        <input
          ref={field}
          aria-label="What the word says"
          className="border-b-3 border-attention bg-raised px-1 text-center text-ink outline-none"
          style={{ width: `${Math.max(4, typed.length + 3)}ch` }}
          spellCheck={false}
          value={typed}
          onChange={(event) => setTyped(event.target.value)}
        />
        <span className="min-w-0 flex-1 truncate text-quiet">{word.after}</span>
      </div>
      <div className="flex gap-2">
        <Button main hint="Enter" onClick={() => onKeep(typed.trim() || word.text)}>
          {typed.trim() === word.text ? 'It is right' : 'Correct it'}
        </Button>
        <Button hint="Tab" onClick={onSkip}>
          Skip
        </Button>
        <Button hint="Ctrl+⌫" onClick={() => onKeep('')}>
          No text
        </Button>
      </div>
    </div>
  );
}

function Coming({ words }: { words: Doubtful[] }) {
  return (
    <footer className="flex h-12 shrink-0 items-center gap-4 overflow-hidden border-t border-rule bg-sunken px-6">
      <span className="text-sm text-quiet">{words.length > 0 ? 'Then' : 'This is the last one.'}</span>
      {words.map((word) => (
        <span key={`${word.pageId} ${word.index}`} className="font-mono whitespace-nowrap">
          {word.text}
        </span>
      ))}
    </footer>
  );
}
