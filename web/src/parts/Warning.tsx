import { endpoints } from '@crow/contract/endpoints';
import { Page } from '@crow/contract/pages';
import { warningOf } from '@crow/core/imaging/legibility';
import { useChange } from '../queries';
import { Key } from './controls';

type Judged = Pick<Page, 'id' | 'legibility' | 'damaged' | 'waved' | 'dropped'>;

const DAMAGED = 'This picture is damaged, and only part of it can be shown. Scan or photograph the page again.';

/** What a page should be looked at for, until it is dealt with or found good enough. */
export function warningOn({ legibility, damaged, waved, dropped }: Judged): string | undefined {
  if (waved || dropped) return undefined;
  return damaged ? DAMAGED : legibility ? warningOf(legibility) : undefined;
}

/** The mark on a page that hardly can be read, or whose text runs off its edge. */
export function WarningMark({ page }: { page: Judged }) {
  const warning = warningOn(page);
  if (!warning) return null;
  return (
    <span
      role="img"
      aria-label={`Look at this page: ${warning}`}
      title={warning}
      className="absolute top-1 right-1 flex size-5 items-center justify-center bg-attention font-mono font-semibold text-ground"
    >
      !
    </span>
  );
}

export function useWave() {
  const wave = useChange(endpoints.wavePages, ['stack', 'document']);
  return (page: Judged, waved = true) => wave.mutate({ body: { pages: [page.id], waved } });
}

/** The warning in words, and what can be done about it. */
export function WarningLine({ page, onTidy, hint }: { page: Judged; onTidy: () => void; hint?: string }) {
  const wave = useWave();
  const warning = warningOn(page);
  if (!warning) return null;
  return (
    <p
      role="status"
      className="flex flex-wrap items-baseline gap-x-3 border-l-4 border-attention bg-raised px-3 py-1.5 text-sm"
    >
      <span>
        <strong className="font-semibold text-attention">!</strong> {warning}
      </span>
      <button className="underline underline-offset-2" onClick={onTidy}>
        Tidy it
      </button>
      <button className="underline underline-offset-2" onClick={() => wave(page)}>
        Good enough {hint && <Key>{hint}</Key>}
      </button>
    </p>
  );
}
