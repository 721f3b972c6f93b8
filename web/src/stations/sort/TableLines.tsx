import { endpoints } from '@crow/contract/endpoints';
import { Stack } from '@crow/contract/stacks';
import { Key, Progress } from '../../parts/controls';
import { ArrangedPage } from '../../parts/useArrangement';
import { count } from '../../parts/words';
import { useChange } from '../../queries';
import { gapInWords, isDoubtful } from './gaps';

/** What is proposed before the page in focus, and why. */
export function GapLine({
  page,
  onAccept,
  onOther,
}: {
  page: ArrangedPage;
  onAccept: () => void;
  onOther: () => void;
}) {
  const words = page.dropped ? undefined : gapInWords(page);
  const doubtful = isDoubtful(page);
  return (
    <p
      role="status"
      className={`flex min-h-9 shrink-0 flex-wrap items-baseline gap-x-3 border-l-4 px-5 py-1.5 text-sm ${doubtful ? 'border-attention bg-raised' : 'border-transparent text-quiet'}`}
    >
      <span>
        {words && (
          <>
            {doubtful && <strong className="font-semibold text-attention">? </strong>}
            Before page {page.index + 1}: {words}
          </>
        )}
      </span>
      {doubtful && (
        <>
          <button className="underline underline-offset-2" onClick={onAccept}>
            Right <Key>Enter</Key>
          </button>
          <button className="underline underline-offset-2" onClick={onOther}>
            {page.cutBefore ? 'No, it goes on' : 'No, cut here'} <Key>x</Key>
          </button>
        </>
      )}
    </p>
  );
}

/** How far the pages of a stack are read. */
export function ReadingLine({ stack }: { stack: Stack }) {
  const stop = useChange(endpoints.stopReading, ['stack']);
  const start = useChange(endpoints.startReading, ['stack']);
  const { pages, read, readingStopped, failed, id } = stack;
  if (read >= pages && failed === 0) return null;
  return (
    <div className="flex h-9 shrink-0 items-center gap-4 border-b border-rule px-6 text-sm text-quiet">
      <span className="w-44">
        {readingStopped ? 'Reading is stopped: ' : 'Reading: '}
        {read} of {pages} pages
      </span>
      <div className="w-64">
        <Progress value={read} of={pages} label="Pages read" />
      </div>
      {read < pages &&
        (readingStopped ? (
          <button className="underline" onClick={() => start.mutate({ params: { id } })}>
            Go on reading
          </button>
        ) : (
          <button className="underline" onClick={() => stop.mutate({ params: { id } })}>
            Stop
          </button>
        ))}
      {failed > 0 && (
        <span className="text-danger">
          ! {count(failed, 'page')} with a problem ·{' '}
          <button className="underline" onClick={() => start.mutate({ params: { id } })}>
            Try again
          </button>
        </span>
      )}
    </div>
  );
}
