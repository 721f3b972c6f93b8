import { DragEvent, KeyboardEvent, useState } from 'react';
import { flushSync } from 'react-dom';
import { Fact, FactName, kinds } from '@crow/contract/shapes';
import { PickedWord, WORD_MEDIA_TYPE } from '../../parts/PageSheet';
import { KIND_NAMES } from '../../parts/words';

export const NOTE_HEIGHT = 50;

/** The notes in the margin, and what they are called. */
export const NOTE_NAMES: Record<FactName, string> = {
  kind: 'Kind',
  vendor: 'Who',
  subject: 'Subject',
  date: 'Date',
  number: 'Number',
  dueDate: 'Due',
  net: 'Net',
  taxRate: 'Tax rate, %',
  tax: 'Tax',
  total: 'Total',
  currency: 'Currency',
};
const FIGURES: FactName[] = ['date', 'number', 'dueDate', 'net', 'taxRate', 'tax', 'total', 'currency'];

interface NoteProps {
  name: FactName;
  fact: Fact | undefined;
  doubtful: boolean;
  reading: boolean;
  onActive: () => void;
  onChange: (value: string, place?: PickedWord) => void;
}

/** A note in the margin: what was read, typed over or picked from the page. Enter goes on to the next one. */
export function Note({ name, fact, doubtful, reading, onActive, onChange }: NoteProps) {
  const [typed, setTyped] = useState(fact?.value ?? '');
  const [over, setOver] = useState(false);
  const [known, setKnown] = useState(fact?.value);
  if (fact?.value !== known) {
    setKnown(fact?.value);
    setTyped(fact?.value ?? '');
  }
  const commit = () => {
    if (typed.trim() !== (fact?.value ?? '')) onChange(typed.trim());
  };
  const hear = (event: KeyboardEvent<HTMLElement>) => {
    if (event.ctrlKey || event.metaKey) return commit();
    if (event.key === 'Escape') {
      // At once: leaving the field keeps what stands in it then.
      flushSync(() => setTyped(fact?.value ?? ''));
      document.querySelector<HTMLElement>('[data-desk]')?.focus();
    } else if (event.key === 'Enter') goOn(event.currentTarget);
    else return;
    event.preventDefault();
  };
  const receive = (event: DragEvent) => {
    const word = event.dataTransfer.getData(WORD_MEDIA_TYPE);
    setOver(false);
    if (!word) return;
    event.preventDefault();
    const picked = JSON.parse(word) as PickedWord;
    onChange(picked.text, picked);
  };
  const look = `h-7 w-full bg-transparent text-base outline-none ${doubtful ? 'text-attention' : ''}`;
  const shared = { 'data-note': name, 'aria-label': NOTE_NAMES[name], onFocus: onActive, onKeyDown: hear };
  return (
    <div
      className={`border-l-2 py-0.5 pl-3 focus-within:border-accent focus-within:bg-raised ${over ? 'bg-accent-soft' : ''} ${doubtful ? 'border-attention' : 'border-rule'}`}
      style={{ height: NOTE_HEIGHT }}
      onDragOver={(event) => {
        if (!event.dataTransfer.types.includes(WORD_MEDIA_TYPE)) return;
        event.preventDefault();
        setOver(true);
      }}
      onDragLeave={() => setOver(false)}
      onDrop={receive}
    >
      <div className="flex justify-between pr-2 text-xs text-quiet">
        <span>{NOTE_NAMES[name]}</span>
        <span>{remark(fact, doubtful, reading)}</span>
      </div>
      {name === 'kind' ? (
        <select
          {...shared}
          className={`${look} -ml-1 cursor-pointer`}
          value={fact?.value ?? ''}
          onChange={(event) => onChange(event.target.value)}
        >
          <option value="">not known</option>
          {kinds.map((kind) => (
            <option key={kind} value={kind}>
              {KIND_NAMES[kind]}
            </option>
          ))}
        </select>
      ) : (
        <input
          {...shared}
          className={`${look} ${FIGURES.includes(name) ? 'font-mono' : ''}`}
          title={fact?.why ?? undefined}
          value={typed}
          autoComplete="off"
          placeholder={reading ? 'still being read …' : 'type, or pick a word'}
          onChange={(event) => setTyped(event.target.value)}
          onBlur={commit}
        />
      )}
    </div>
  );
}

function remark(fact: Fact | undefined, doubtful: boolean, reading: boolean): string {
  if (!fact) return reading ? '' : 'not found';
  if (fact.confirmed) return '✓ by hand';
  if (fact.repaired) return '± put right: only so it adds up';
  return doubtful ? '? look at this' : 'as read';
}

/** The next note, or the button that files. */
function goOn(from: HTMLElement): void {
  const stops = [...document.querySelectorAll<HTMLElement>('[data-note], [data-file-it]')];
  stops[stops.indexOf(from) + 1]?.focus();
}
