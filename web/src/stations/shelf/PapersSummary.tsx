import { ReactNode, useMemo } from 'react';
import { DocumentSummary } from '@crow/contract/documents';
import { dayOf } from '@crow/core/reading/dayForms';
import { addUp, Group } from '@crow/core/shelf/addUp';
import { comingUp } from '@crow/core/shelf/comingUp';
import { findMissing, Missing } from '@crow/core/shelf/missing';
import { later } from '../../parts/later';
import { shownDay } from '../../parts/days';
import { count, inDays, money } from '../../parts/words';
import { useLike } from '../../queries';
import { monthName } from '../../parts/months';

const MonthChart = later(
  async () => (await import('./MonthChart')).default,
  () => <div className="h-28" />,
);
const MOST_SENDERS = 8;

interface SummaryProps {
  title: string;
  documents: readonly DocumentSummary[];
  onOpen: (id: string) => void;
}

/** What papers have in them, taken together: sums, from whom, by month, what is due or ends soon, what looks missing. */
export function PapersSummary({ title, documents, onOpen }: SummaryProps) {
  const like = useLike();
  const today = dayOf(new Date());
  const { added, coming, missing } = useMemo(
    () => ({
      added: addUp(documents, like),
      coming: comingUp(documents, today, like),
      missing: findMissing(documents, today),
    }),
    [documents, like, today],
  );
  const names = new Map(documents.map(({ id, name }) => [id, name]));
  const [main] = added.sums;
  const months = added.byMonth.filter(({ key }) => key !== null);
  return (
    <section aria-label={title} className="h-full overflow-y-auto bg-ground px-4 pt-4 pb-8">
      <h2 className="text-lg font-semibold">{title}</h2>
      <p className="mt-1 text-quiet">
        {count(added.papers, 'paper')}, {count(added.pages, 'page')}
        {added.from && added.from !== added.until && (
          <>
            , {shownDay(added.from)} to {shownDay(added.until!)}
          </>
        )}
      </p>
      {added.sums.length > 0 && (
        <ul aria-label="Sums" className="mt-3 font-mono text-xl">
          {added.sums.map((sum) => (
            <li key={sum.currency}>{money(sum)}</li>
          ))}
        </ul>
      )}
      <LeftOut leftOut={added.leftOut} withoutSum={added.withoutSum} />
      {main && months.length > 1 && (
        <Part title={added.sums.length > 1 ? `By month, ${main.currency ?? 'without a currency'}` : 'By month'}>
          <MonthChart months={months} currency={main.currency} />
          <details className="mt-1">
            <summary className="cursor-pointer text-sm text-quiet">in figures</summary>
            <Groups groups={months} nameOf={monthName} />
          </details>
        </Part>
      )}
      {added.byWho.length > 1 && (
        <Part title="From">
          <Groups
            groups={added.byWho.slice(0, MOST_SENDERS)}
            nameOf={(key) => key}
            more={added.byWho.length - MOST_SENDERS}
          />
        </Part>
      )}
      {coming.length > 0 && (
        <Part title="Due or ending">
          <ul>
            {coming.map(({ paper, what, day, inDays: days }) => (
              <li key={`${paper} ${what}`} className="border-b border-rule py-1.5 last:border-0">
                <button className="block w-full text-left hover:underline" onClick={() => onOpen(paper)}>
                  {names.get(paper)}
                </button>
                <ComingWords what={what} day={day} days={days} />
              </li>
            ))}
          </ul>
        </Part>
      )}
      {missing.length > 0 && (
        <Part title="Seems to be missing">
          <ul>
            {missing.map((each) => (
              <li
                key={`${each.vendor} ${each.kind} ${each.around}`}
                className="border-b border-rule py-1.5 last:border-0"
              >
                {each.vendor}, around {shownDay(each.around)}
                <p className="text-sm text-quiet">{whyMissing(each)}</p>
              </li>
            ))}
          </ul>
        </Part>
      )}
    </section>
  );
}

/** When something is due or ends, and how far off that is; what is past or near stands out, in words as well. */
export function ComingWords({ what, day, days }: { what: 'due' | 'ends'; day: string; days: number }) {
  const past = days < 0;
  const words = what === 'due' ? (past ? 'was due' : 'due') : past ? 'ended' : 'ends';
  return (
    <p className={`text-sm ${past ? 'text-danger' : days <= 7 ? 'text-attention' : 'text-quiet'}`}>
      {words} {shownDay(day)}, {inDays(days)}
    </p>
  );
}

function whyMissing({ months, after, last }: Missing): string {
  const often =
    months === 1
      ? 'one comes every month'
      : months === 12
        ? 'one comes every year'
        : `one comes every ${months} months`;
  return last
    ? `${often}, the last one is of ${shownDay(after)}`
    : `${often}; there is none between ${shownDay(after)} and the next`;
}

function Part({ title, children }: { title: string; children: ReactNode }) {
  return (
    <div className="mt-5">
      <h3 className="mb-1 font-semibold">{title}</h3>
      {children}
    </div>
  );
}

function Groups({ groups, nameOf, more = 0 }: { groups: Group[]; nameOf: (key: string) => string; more?: number }) {
  return (
    <>
      <ul>
        {groups.map(({ key, papers, sums }) => (
          <li key={key} className="flex items-baseline gap-2 border-b border-rule py-1 last:border-0">
            <span className="min-w-0 flex-1 break-words">{key === null ? 'not known' : nameOf(key)}</span>
            <span className="font-mono text-sm text-quiet" title={count(papers, 'paper')}>
              {papers}
            </span>
            <span className="text-right font-mono text-sm">
              {sums.map((sum) => (
                <span key={sum.currency} className="block whitespace-nowrap">
                  {money(sum)}
                </span>
              ))}
            </span>
          </li>
        ))}
      </ul>
      {more > 0 && <p className="text-sm text-quiet">and {more} more</p>}
    </>
  );
}

function LeftOut({ leftOut, withoutSum }: { leftOut: { kind: string; papers: number }[]; withoutSum: number }) {
  const kinds = leftOut.map(({ kind, papers }) => count(papers, kind));
  if (kinds.length === 0 && withoutSum === 0) return null;
  return (
    <p className="mt-1 text-sm text-quiet">
      {kinds.length > 0 && <>Not added, since bills say the same: {kinds.join(', ')}. </>}
      {withoutSum > 0 && <>{count(withoutSum, 'paper')} without a total.</>}
    </p>
  );
}
