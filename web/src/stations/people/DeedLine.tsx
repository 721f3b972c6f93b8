import { Deed } from '@crow/contract/history';
import { shownMoment } from '../../parts/days';
import { deedWords } from './deedWords';

/** One deed: when, who, what. */
export function DeedLine({ deed }: { deed: Deed }) {
  return (
    <span className="flex flex-wrap gap-x-3">
      <time dateTime={deed.at} className="font-mono text-sm text-quiet">
        {shownMoment(deed.at)}
      </time>
      <span className="min-w-0 flex-1 basis-60 break-words">
        <strong className="font-semibold">{deed.who}</strong> {deedWords(deed)}
      </span>
    </span>
  );
}
