import { Lock } from 'lucide-react';
import { BookedLine, BookTie, Entry } from '@crow/contract/ledger';
import { nameOfCode } from '@crow/core/ledger/books/taxCodes';
import { dayOf } from '@crow/core/reading/dayForms';
import { daysBetween } from '@crow/core/shelf/days';
import { isProven, tieInWords } from '../../parts/books/words';
import { shownDay } from '../../parts/days';
import { figure, money } from '../../parts/words';
import { PageProps } from './pageForm';

/** The corner of an entry's paper: drawn with its fold where there is one, dotted where there is none. */
function Corner({ entry, onOpen }: { entry: Entry; onOpen: () => void }) {
  const proven = isProven(entry);
  const name = proven
    ? `Lay the paper of entry ${entry.serial} open`
    : `Entry ${entry.serial} has no paper: find one, or ask for one`;
  return (
    <button
      tabIndex={-1}
      aria-label={name}
      title={name}
      className="flex h-full w-full items-center justify-center"
      onClick={(event) => {
        event.stopPropagation();
        onOpen();
      }}
    >
      <svg width="20" height="24" viewBox="0 0 20 24" aria-hidden>
        <path
          d="M2.5 1.5 H13 L17.5 6 V22.5 H2.5 Z M13 1.5 V6 H17.5"
          fill={proven ? '#ffffff' : 'none'}
          stroke={proven ? '#5d5966' : 'var(--attention)'}
          strokeWidth="1.2"
          strokeDasharray={proven ? undefined : '1.5 2.5'}
        />
        {proven && <path d="M5.5 10 H14.5 M5.5 13.5 H14.5 M5.5 17 H11" stroke="#8b8694" strokeWidth="1" />}
      </svg>
    </button>
  );
}

const cell =
  'flex h-full min-w-0 flex-col justify-center overflow-hidden border-b border-rule px-2 leading-tight whitespace-nowrap';
const figures = `${cell} items-end font-mono border-l border-l-rule`;

/** An entry on its rule. */
export function EntryCells({ entry, categoryName, chosen, current, onOpen, onChoose }: { entry: Entry } & PageProps) {
  const { day, who, what, number, currency, units, parts, checkedAt, serial, id } = entry;
  const [net, tax] = [parts.reduce((sum, part) => sum + part.net, 0), parts.reduce((sum, part) => sum + part.tax, 0)];
  const look = `${chosen.has(id) ? 'bg-accent-soft' : id === current ? 'bg-raised' : ''}`;
  const edge = id === current ? 'shadow-[inset_3px_0_0_var(--accent)]' : '';
  const categories = [...new Set(parts.map(({ categoryId }) => (categoryId ? categoryName(categoryId) : '')))];
  const show = (amount: number) => figure({ units: amount, currency });
  return (
    <>
      <span role="gridcell" className={`border-b border-rule ${look} ${edge}`}>
        <Corner entry={entry} onOpen={() => onOpen(entry)} />
      </span>
      <span role="gridcell" className={`${cell} font-mono ${look}`}>
        {shownDay(day)}
        <span className="flex items-center gap-1 text-xs text-quiet">
          {checkedAt && <Lock size={11} aria-label="checked" />}
          <input
            type="checkbox"
            tabIndex={-1}
            aria-label={`Choose entry ${serial}`}
            className="size-3 accent-accent"
            checked={chosen.has(id)}
            onClick={(event) => event.stopPropagation()}
            onChange={() => onChoose(id)}
          />
          {serial}
        </span>
      </span>
      <span role="gridcell" className={`${cell} ${look}`} title={[who, what].filter(Boolean).join(' · ')}>
        <span className="truncate font-semibold">{who}</span>
        <span className="truncate text-xs">
          {!isProven(entry) && <span className="text-attention">{noPaperInWords(entry)}</span>}
          {!isProven(entry) && what && ' · '}
          <span className="text-quiet">{what}</span>
        </span>
      </span>
      <span role="gridcell" className={`${cell} ${look}`} title={[number, ...categories].filter(Boolean).join(' · ')}>
        <span className="truncate font-mono">{number || ' '}</span>
        <span className={`truncate text-xs ${categories.includes('') ? 'text-attention' : 'text-quiet'}`}>
          {categories.map((name) => name || 'no category').join(', ')}
        </span>
      </span>
      <span role="gridcell" className={`${figures} ${look}`}>
        {show(net)}
      </span>
      <span
        role="gridcell"
        className={`${figures} ${look}`}
        title={parts.map(({ taxCode }) => (taxCode ? nameOfCode(taxCode, day) : 'tax not known')).join(', ')}
      >
        {tax === 0 ? '–' : show(tax)}
      </span>
      <span role="gridcell" className={`${figures} font-semibold ${look}`}>
        {show(units)}
        <span className="font-sans text-xs font-normal text-quiet">{currency}</span>
      </span>
      <span role="gridcell" className={`${figures} ${look}`}>
        <Paid entry={entry} />
      </span>
    </>
  );
}

/** That an entry has no paper, and for how long when that is more than a week. */
function noPaperInWords({ day }: Entry): string {
  const days = daysBetween(day, dayOf(new Date()));
  return days > DAYS_TO_COME ? `no paper for ${days} days` : 'no paper';
}

/** Papers come some days after what they are of. */
const DAYS_TO_COME = 7;

/** The same where there is hardly room. */
export function SmallCells({ entry, categoryName, chosen, current, onOpen, onChoose }: { entry: Entry } & PageProps) {
  const { id, serial, who, day, parts, units, currency } = entry;
  const look = chosen.has(id) ? 'bg-accent-soft' : id === current ? 'bg-raised' : '';
  const [{ categoryId }] = parts;
  return (
    <>
      <span role="gridcell" className={`border-b border-rule ${look}`}>
        <Corner entry={entry} onOpen={() => onOpen(entry)} />
      </span>
      <span role="gridcell" className={`${cell} ${look}`}>
        <span className="truncate font-semibold">{who}</span>
        <span className="flex items-center gap-1.5 truncate text-xs text-quiet">
          <input
            type="checkbox"
            tabIndex={-1}
            aria-label={`Choose entry ${serial}`}
            className="size-3 accent-accent"
            checked={chosen.has(id)}
            onClick={(event) => event.stopPropagation()}
            onChange={() => onChoose(id)}
          />
          {shownDay(day)}
          {!isProven(entry) && <span className="text-attention">no paper</span>}
          <span className="truncate">{categoryId ? categoryName(categoryId) : 'no category'}</span>
        </span>
      </span>
      <span role="gridcell" className={`${figures} ${look}`}>
        <span className="font-semibold">{figure({ units, currency })}</span>
        <span className="text-xs">
          <Paid entry={{ ...entry, due: null }} />
        </span>
      </span>
    </>
  );
}

function Paid({ entry: { paid, units, currency, due } }: { entry: Entry }) {
  if (paid === units) return <span className="text-sure">✓ paid</span>;
  if (paid !== 0)
    return (
      <>
        {figure({ units: paid, currency })}
        <span className="text-xs text-attention">in part</span>
      </>
    );
  return (
    <>
      open
      {due && <span className="font-sans text-xs text-quiet">due {shownDay(due)}</span>}
    </>
  );
}

/** A line of a statement, with what it pays and what can be done about that. */
export function LineCell({
  line,
  tie,
  chosenLines,
  onChooseLine,
  onTake,
  onTakeOff,
  asBefore,
  onEnterLine,
}: { line: BookedLine | undefined; tie: BookTie | undefined } & PageProps) {
  if (!line) return <span role="gridcell" className="border-b border-rule" />;
  const { id, day, who, text, units, currency } = line;
  const before = asBefore.get(id);
  return (
    <span
      role="gridcell"
      className={`${cell} ${chosenLines.has(id) ? 'bg-accent-soft' : ''}`}
      title={[who, text].filter(Boolean).join(' · ')}
    >
      <span className="flex items-baseline justify-between gap-2">
        <span className="truncate">
          <span className="mr-1.5 font-mono text-xs text-quiet">{shownDay(day).slice(-5)}</span>
          {who || text}
        </span>
        <span className="shrink-0 font-mono">{figure({ units, currency })}</span>
      </span>
      <span className="flex items-baseline justify-between gap-2 text-xs text-quiet">
        <span className="truncate">
          {tie ? tieInWords(tie) : before ? `as before: ${before.what || before.who}` : who && text}
        </span>
        <span className="flex shrink-0 gap-2">
          {!tie?.made && (
            <button
              tabIndex={-1}
              className="underline underline-offset-2 hover:text-ink"
              aria-pressed={chosenLines.has(id)}
              aria-label={`Choose the line of ${shownDay(day)}, ${who || text}, ${money({ units, currency })}`}
              onClick={() => onChooseLine(id)}
            >
              {chosenLines.has(id) ? 'chosen' : 'choose'}
            </button>
          )}
          {!tie && (
            <button
              tabIndex={-1}
              className={`underline underline-offset-2 ${before ? 'text-accent' : 'hover:text-ink'}`}
              aria-label={`Enter ${who || text}, ${money({ units, currency })}${before ? `, as before: ${before.what || before.who}` : ', for which no bill comes'}`}
              onClick={() => onEnterLine(line)}
            >
              enter
            </button>
          )}
          {tie && !tie.made && (
            <button
              tabIndex={-1}
              className="text-accent underline underline-offset-2"
              aria-label={`Tie ${who || text}, ${money({ units, currency })}: ${tieInWords(tie)}`}
              onClick={() => onTake(tie)}
            >
              tie
            </button>
          )}
          {tie && (
            <button
              tabIndex={-1}
              className="underline underline-offset-2 hover:text-ink"
              aria-label={`Take the tie off ${who || text}, ${money({ units, currency })}`}
              onClick={() => onTakeOff(tie)}
            >
              {tie.made ? 'take off' : 'no'}
            </button>
          )}
        </span>
      </span>
    </span>
  );
}
