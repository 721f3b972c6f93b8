import { DragEvent, KeyboardEvent, useState } from 'react';
import { flushSync } from 'react-dom';
import { RotateCcw } from 'lucide-react';
import { Choice, Choices, Fact, FactName } from '@crow/contract/facts';
import { shownDay, typedDay } from '../../parts/days';
import { PickedWord, WORD_MEDIA_TYPE } from '../../parts/PageSheet';
import { kindName } from '../../parts/words';
import { NoteInput } from './NoteInput';

export const NOTE_HEIGHT = 50;

/** The notes in the margin, and what they are called. */
export const NOTE_NAMES: Record<FactName, string> = {
  kind: 'Kind',
  vendor: 'Who',
  subject: 'Subject',
  date: 'Date',
  number: 'Number',
  reference: 'Reference',
  period: 'Period',
  dueDate: 'Due',
  net: 'Net',
  taxRate: 'Tax rate, %',
  tax: 'Tax',
  total: 'Total',
  amountDue: 'To pay',
  opening: 'Opening balance',
  closing: 'Closing balance',
  currency: 'Currency',
  customer: 'Customer number',
  order: 'Order number',
  policy: 'Policy number',
  ends: 'Ends',
  iban: 'Bank account',
};
const FIGURES: FactName[] = [
  'date',
  'number',
  'dueDate',
  'net',
  'taxRate',
  'tax',
  'total',
  'amountDue',
  'currency',
  'opening',
  'closing',
  'ends',
  'iban',
  'customer',
  'order',
  'policy',
  'reference',
];
const DAYS: FactName[] = ['date', 'dueDate', 'ends'];

/** What each fact is chosen from. */
const CHOSEN_FROM: Partial<Record<FactName, keyof Choices>> = {
  vendor: 'names',
  date: 'days',
  dueDate: 'days',
  ends: 'days',
  number: 'numbers',
  reference: 'numbers',
  customer: 'numbers',
  order: 'numbers',
  policy: 'numbers',
  net: 'sums',
  tax: 'sums',
  total: 'sums',
  amountDue: 'sums',
  opening: 'sums',
  closing: 'sums',
  taxRate: 'rates',
  currency: 'currencies',
};

interface NoteProps {
  name: FactName;
  fact: Fact | undefined;
  /** Whether a person says that the document has none. */
  emptied: boolean;
  doubtful: boolean;
  reading: boolean;
  /** The kinds of papers that there are. */
  kinds: readonly string[];
  /** What the paper says that it could be; nothing before that is known. */
  choices: Choices | undefined;
  /** Called with what is marked among those, and with nothing once nothing is. */
  onMark: (choice: Choice | undefined) => void;
  onActive: () => void;
  /** Resolves once it is saved. */
  onChange: (value: string, place?: PickedWord) => Promise<unknown>;
  onRestore: () => void;
  /** Called to pick a word on the page instead of typing. */
  onPick: () => void;
}

/**
 * A note in the margin: what was read, typed over or picked from the page. Enter goes on to the next one. While somebody is in it,
 * what arrives does not change it.
 */
export function Note({
  name,
  fact,
  emptied,
  doubtful,
  reading,
  kinds,
  choices,
  onMark,
  onActive,
  onChange,
  onRestore,
  onPick,
}: NoteProps) {
  const known = shownFact(name, fact);
  /** What stands in it since somebody came in; nothing while nobody is. */
  const [held, setHeld] = useState<{ typed: string; from: string }>();
  const [over, setOver] = useState(false);
  const enter = () => {
    setHeld((before) => before ?? { typed: known, from: known });
    onActive();
  };
  const leave = async () => {
    if (!held) return;
    const typed = held.typed.trim();
    // What was typed stays to be seen until it is saved, and is as it was when it can't be.
    if (typed !== held.from) await onChange(DAYS.includes(name) ? typedDay(typed) : typed).catch(() => undefined);
    setHeld(undefined);
  };
  const hear = (event: KeyboardEvent<HTMLElement>) => {
    if (event.altKey && event.key === 'ArrowLeft') onPick();
    else if (event.ctrlKey || event.metaKey) {
      if (event.key === 'Enter') flushSync(() => void leave());
      return;
    } else if (event.key === 'Escape') {
      // At once: leaving the field keeps what stands in it then.
      flushSync(() => setHeld(undefined));
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
    setHeld(undefined);
    void onChange(picked.text, picked);
  };
  const offered = offeredFor(name, fact, choices, held && held.typed !== held.from ? held.typed : undefined);
  const choose = ({ value, pageId, box }: Choice) => {
    flushSync(() => setHeld(undefined));
    onMark(undefined);
    void onChange(value, pageId && box ? { text: value, pageId, box: box as PickedWord['box'] } : undefined).catch(
      () => undefined,
    );
  };
  const look = `h-7 w-full bg-transparent text-base outline-none ${doubtful ? 'text-attention' : ''}`;
  const shared = { 'data-note': name, 'aria-label': NOTE_NAMES[name], onKeyDown: hear };
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
        <span className="flex items-center gap-1">
          {remark(fact, { emptied, doubtful, reading })}
          {fact?.other && !fact.confirmed && (
            <button
              className="text-attention underline underline-offset-2"
              title="It may be this as well: take it"
              onClick={() => void onChange(fact.other!)}
            >
              or {name === 'kind' ? kindName(fact.other) : asShown(name, fact.other)}?
            </button>
          )}
          {(fact?.confirmed || emptied) && (
            <button
              aria-label={`${NOTE_NAMES[name]}: back to what was read`}
              title="Back to what was read"
              className="hover:text-ink"
              onClick={onRestore}
            >
              <RotateCcw size={12} />
            </button>
          )}
        </span>
      </div>
      {name === 'kind' ? (
        <select
          {...shared}
          className={`${look} -ml-1 cursor-pointer`}
          value={fact?.value ?? ''}
          onFocus={onActive}
          onChange={(event) => void onChange(event.target.value)}
        >
          <option value="">not known</option>
          {kinds.map((kind) => (
            <option key={kind} value={kind}>
              {kindName(kind)}
            </option>
          ))}
        </select>
      ) : (
        <NoteInput
          note={name}
          label={NOTE_NAMES[name]}
          className={`${look} ${FIGURES.includes(name) ? 'font-mono' : ''}`}
          title={fact?.why ?? undefined}
          value={held?.typed ?? known}
          placeholder={reading ? 'still being read …' : 'type, or pick a word'}
          choices={offered}
          shown={(value) => asShown(name, value)}
          opensByTyping={name === 'vendor'}
          onFocus={enter}
          onType={(typed) => setHeld({ typed, from: held?.from ?? known })}
          onBlur={() => void leave()}
          onChoose={choose}
          onMark={onMark}
          onKey={hear}
        />
      )}
    </div>
  );
}

/** So many are offered at once. */
const MOST_OFFERED = 40;

/**
 * What a note offers: what it may be as well first, and not what it says already; what is typed narrows it. Names that only other
 * papers have are offered once something is typed.
 */
function offeredFor(
  name: FactName,
  fact: Fact | undefined,
  choices: Choices | undefined,
  typed: string | undefined,
): Choice[] {
  const group = CHOSEN_FROM[name];
  if (!group || !choices) return [];
  const sought = typed?.trim().toLowerCase();
  const fits = ({ value, pageId }: Choice) =>
    sought ? [value, asShown(name, value)].some((each) => each.toLowerCase().includes(sought)) : pageId !== null;
  const others = choices[group].filter((each) => each.value !== fact?.value && fits(each));
  const first = others.filter(({ value }) => value === fact?.other);
  return [...first, ...others.filter((each) => !first.includes(each))].slice(0, MOST_OFFERED);
}

function shownFact(name: FactName, fact: Fact | undefined): string {
  return fact ? asShown(name, fact.value) : '';
}

/** A value as it is shown, which for a day is as the person writes days. */
const asShown = (name: FactName, value: string) => (DAYS.includes(name) ? shownDay(value) : value);

function remark(
  fact: Fact | undefined,
  { emptied, doubtful, reading }: Pick<NoteProps, 'emptied' | 'doubtful' | 'reading'>,
): string {
  if (emptied) return '✓ none, by hand';
  if (!fact) return reading ? '' : 'not found';
  if (fact.confirmed) return fact.by ? '✓ by hand' : `✓ ${fact.why}`;
  if (fact.repaired) return '± put right: only so it adds up';
  return doubtful ? '? look at this' : 'as read';
}

/** The next note, or the button that files. */
function goOn(from: HTMLElement): void {
  const stops = [...document.querySelectorAll<HTMLElement>('[data-note], [data-file-it]')];
  stops[stops.indexOf(from) + 1]?.focus();
}
