import { Link2, Mail } from 'lucide-react';
import { useState } from 'react';
import { endpoints } from '@crow/contract/endpoints';
import { Parcel } from '@crow/contract/sending';
import { Button, Empty, ProblemText } from '../../../parts/controls';
import { shownMoment } from '../../../parts/days';
import { useNotices } from '../../../parts/notices';
import { bytes, count } from '../../../parts/words';
import { useChange, useParcels } from '../../../queries';
import { useShelfPlace } from '../shelfPlace';
import { CopyPlaceList } from './CopyPlaces';

/** What went out by mail, behind links and into folders, and what is on its way: what became of it, who looked, and how to end it. */
export function SentPane() {
  const { data } = useParcels(true);
  if (!data) return null;
  return (
    <div className="flex h-full flex-col">
      <header className="flex h-14 shrink-0 items-center border-b border-rule px-4">
        <h2 className="text-lg font-semibold">Sent</h2>
      </header>
      <CopyPlaceList />
      {data.length === 0 && (
        <Empty title="Nothing was sent yet">
          <p>Open a paper, or choose several, and take “Copy or send …”: by mail, or by a link that ends by itself.</p>
        </Empty>
      )}
      <ul aria-label="What was sent" className="min-h-0 flex-1 divide-y divide-rule overflow-y-auto">
        {data.map((parcel) => (
          <One key={parcel.id} parcel={parcel} />
        ))}
      </ul>
    </div>
  );
}

function One({ parcel }: { parcel: Parcel }) {
  const { id, way, title, to, papers, by, made, bytes: size, problem, state, link } = parcel;
  const { go } = useShelfPlace();
  const { tell } = useNotices();
  const again = useChange(endpoints.sendAgain, ['parcel']);
  const end = useChange(endpoints.endParcel, ['parcel']);
  const [shown, setShown] = useState(false);
  const Picture = way === 'mail' ? Mail : Link2;
  const running = state !== 'sent' && state !== 'ended';
  const copy = () =>
    void navigator.clipboard.writeText(link!.address!).then(
      () => tell({ text: 'The address is copied.' }),
      () => tell({ text: link!.address! }),
    );
  return (
    <li className="flex gap-3 px-4 py-3">
      <Picture size={17} aria-label={way === 'mail' ? 'Mail' : 'Link'} className="mt-0.5 shrink-0 text-quiet" />
      <div className="min-w-0 flex-1">
        <p className="flex flex-wrap items-baseline gap-x-3">
          <span className="font-semibold break-words">{title || 'without a subject'}</span>
          {to && <span className="break-all">to {to}</span>}
          <span className={`ml-auto ${state === 'refused' ? 'font-semibold text-danger' : 'text-quiet'}`}>
            {stateWords(parcel)}
          </span>
        </p>
        <p className="text-sm text-quiet">
          {papers.slice(0, shown ? undefined : MOST_NAMED).map(({ id: paper, name }, at) => (
            <span key={at}>
              {at > 0 && ', '}
              {paper ? (
                <button className="text-left underline" onClick={() => go({ document: paper })}>
                  {name || 'a paper'}
                </button>
              ) : (
                name
              )}
            </span>
          ))}
          {papers.length > MOST_NAMED && !shown && (
            <button className="ml-1 underline" onClick={() => setShown(true)}>
              and {papers.length - MOST_NAMED} more
            </button>
          )}
        </p>
        <p className="text-sm text-quiet">
          {shownMoment(made)} by {by}
          {size ? `, ${bytes(size)}` : ''}
          {link?.locked && ', with a password'}
        </p>
        {problem && <ProblemText report={problem} />}
        {link && link.looks.length > 0 && (
          <details className="text-sm">
            <summary>
              {count(link.looks.length, 'look')}, the last on {shownMoment(link.looks[0].at)}
            </summary>
            <ul className="pl-4">
              {link.looks.map(({ at, from, browser }) => (
                <li key={at}>
                  {shownMoment(at)}: {browser}, from {from}
                </li>
              ))}
            </ul>
          </details>
        )}
        {running && (
          <p className="mt-2 flex flex-wrap gap-2">
            {way === 'mail' && (state === 'waiting' || state === 'refused') && (
              <Button onClick={() => again.mutate({ params: { id } })}>Send it now</Button>
            )}
            {link?.address && <Button onClick={copy}>Copy the address</Button>}
            <Button onClick={() => end.mutate({ params: { id } })}>
              {way === 'mail' ? 'Don’t send it' : 'End it now'}
            </Button>
          </p>
        )}
      </div>
    </li>
  );
}

const MOST_NAMED = 4;

function stateWords({ way, state, done, nextTry, problem, link }: Parcel): string {
  if (state === 'packing') return 'being made';
  if (state === 'waiting') return problem && nextTry ? `tried again on ${shownMoment(nextTry)}` : 'on its way';
  if (state === 'sent') return `sent on ${shownMoment(done!)}`;
  if (state === 'refused') return way === 'mail' ? 'not sent' : 'could not be made';
  if (state === 'ended') return way === 'mail' ? 'not sent: stopped' : `ended${done ? ` on ${shownMoment(done)}` : ''}`;
  return `open until ${shownMoment(link!.ends)}${link!.looks.length === 0 ? ', nobody looked yet' : ''}`;
}
