import { X } from 'lucide-react';
import { Popover } from 'radix-ui';
import { ReactNode } from 'react';
import { UnderstoodQuestion } from '@crow/contract/asking';
import { kindName } from '../../../parts/words';
import { amountWords, periodWords, wantsChoices } from './answerWords';

interface Props {
  understood: UnderstoodQuestion;
  /** Whom else may be meant. */
  senders: readonly string[];
  isChanged: boolean;
  /** Nothing to go back to how it was understood. */
  onChange: (to: UnderstoodQuestion | undefined) => void;
}

const BY = { date: 'dated', dueDate: 'due', ends: 'ending' } as const;

/** How a question was understood, as conditions each of which can be changed or taken out. */
export function HowUnderstood({ understood, senders, isChanged, onChange }: Props) {
  const { wants, per, fact, about, who, kinds, folder, by, period, against, amounts } = understood;
  const change = (to: Partial<UnderstoodQuestion>) => onChange({ ...understood, ...to });
  return (
    <div
      role="group"
      aria-label="How it was understood"
      className="flex flex-wrap items-center gap-x-2 gap-y-1.5 border-b border-rule px-4 py-2 text-sm"
    >
      <select
        aria-label="What is wanted"
        className="h-7 max-w-full bg-raised pl-1"
        value={`${wants} ${['count', 'papers', 'who'].includes(wants) ? 'total' : fact}`}
        onChange={(event) => {
          const [, to, of] = /^(.+) (\S+)$/.exec(event.target.value)!;
          change({ wants: to, fact: of } as Pick<UnderstoodQuestion, 'wants' | 'fact'>);
        }}
      >
        {wantsChoices(understood).map(({ value, name }) => (
          <option key={value} value={value}>
            {name}
          </option>
        ))}
      </select>
      {wants === 'average' && per !== 'paper' && (
        <Condition onRemove={() => change({ per: 'paper' })}>for each {per}</Condition>
      )}
      {about.map((word) => (
        <Condition key={word} onRemove={() => change({ about: about.filter((each) => each !== word) })}>
          about “{word}”
        </Condition>
      ))}
      {who.length > 0 ? (
        <Condition onRemove={() => change({ who: [] })}>
          from{' '}
          <select
            aria-label="From whom"
            className="max-w-48 bg-transparent"
            value={who[0]}
            onChange={(event) => change({ who: [event.target.value] })}
          >
            {[...new Set([...who, ...senders])].map((each) => (
              <option key={each}>{each}</option>
            ))}
          </select>
        </Condition>
      ) : null}
      {kinds.map((kind) => (
        <Condition key={kind} onRemove={() => change({ kinds: kinds.filter((each) => each !== kind) })}>
          {kindName(kind)}
        </Condition>
      ))}
      {folder !== null && (
        <Condition onRemove={() => change({ folder: null })}>in {folder.replaceAll('/', ' / ')}</Condition>
      )}
      {amounts && <Condition onRemove={() => change({ amounts: null })}>{amountWords(amounts)}</Condition>}
      {period ? (
        <Condition onRemove={() => change({ period: null, against: null })}>
          <PeriodChoice
            name={`${BY[by]} ${periodWords(period)}`}
            period={period}
            onChange={(to) => change({ period: to })}
          />
        </Condition>
      ) : (
        <PeriodChoice
          name="at any time"
          period={{ from: null, until: null }}
          onChange={(to) => change({ period: to })}
        />
      )}
      {against && (
        <Condition onRemove={() => change({ against: null })}>
          <PeriodChoice
            name={`beside ${periodWords(against)}`}
            period={against}
            onChange={(to) => change({ against: to })}
          />
        </Condition>
      )}
      {isChanged && (
        <button className="text-accent underline" onClick={() => onChange(undefined)}>
          as it was understood
        </button>
      )}
    </div>
  );
}

function Condition({ children, onRemove }: { children: ReactNode; onRemove: () => void }) {
  return (
    <span className="inline-flex min-h-7 max-w-full items-center gap-1 border border-rule bg-raised pl-2">
      <span className="min-w-0 truncate">{children}</span>
      <button
        aria-label="Take this condition out"
        title="Take this condition out"
        className="grid size-6 shrink-0 place-items-center hover:bg-sunken pointer-coarse:size-9"
        onClick={onRemove}
      >
        <X size={13} aria-hidden />
      </button>
    </span>
  );
}

type Period = NonNullable<UnderstoodQuestion['period']>;

function PeriodChoice({ name, period, onChange }: { name: string; period: Period; onChange: (to: Period) => void }) {
  const field = (end: 'from' | 'until', label: string) => (
    <label className="block">
      <span className="mb-1 block text-xs text-quiet">{label}</span>
      <input
        type="date"
        className="h-8 w-full border border-rule bg-paper px-2"
        value={period[end] ?? ''}
        onChange={(event) => onChange({ ...period, [end]: event.target.value || null })}
      />
    </label>
  );
  return (
    <Popover.Root>
      <Popover.Trigger asChild>
        <button className="underline decoration-dotted underline-offset-3">{name}</button>
      </Popover.Trigger>
      <Popover.Portal>
        <Popover.Content
          align="start"
          sideOffset={6}
          aria-label="Between which days"
          className="z-40 grid w-64 grid-cols-2 gap-3 border border-quiet bg-raised p-3 text-sm"
        >
          {field('from', 'From')}
          {field('until', 'Until')}
        </Popover.Content>
      </Popover.Portal>
    </Popover.Root>
  );
}
