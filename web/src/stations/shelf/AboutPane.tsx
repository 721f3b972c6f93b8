import { FormEvent, useState } from 'react';
import { addressOf } from '@crow/contract/client';
import { endpoints } from '@crow/contract/endpoints';
import { Document } from '@crow/contract/documents';
import { FactName } from '@crow/contract/facts';
import { ask } from '../../api';
import { Bookings } from '../../parts/Bookings';
import { Lines } from '../../parts/Lines';
import { Button, inputLook } from '../../parts/controls';
import { useNotices } from '../../parts/notices';
import { kindName } from '../../parts/words';
import { useDocumentHistory, useMay } from '../../queries';
import { NOTE_NAMES } from '../check/Note';
import { DeedLine } from '../people/DeedLine';
import { Remarks } from './Remarks';
import { SheetOf } from './SheetOf';
import { Place } from './shelfPlace';

interface Props {
  document: Document;
  onGoTo: (place: Place) => void;
}

/** What a document says of itself: a summary, its facts and lines, and answers to questions, each with its place on the page. */
export function AboutPane({ document, onGoTo }: Props) {
  const { summary, lines, facts, taxes, bookings } = document;
  const params = { id: document.id };
  const order = Object.keys(NOTE_NAMES) as FactName[];
  const sorted = facts.toSorted((a, b) => order.indexOf(a.name) - order.indexOf(b.name));
  return (
    <aside
      aria-label="About this document"
      className="w-76 shrink-0 space-y-5 overflow-y-auto border-l border-rule px-4 py-4"
    >
      <p className="text-base">{summary || 'Nothing is known of this paper yet.'}</p>
      <Questions id={document.id} onGoTo={onGoTo} />
      <Remarks document={document} />
      <SheetOf id={document.id} />
      {sorted.length > 0 && (
        <dl className="grid grid-cols-[auto_minmax(0,1fr)] gap-x-3">
          {sorted.map(({ name, value, pageId, box, why, repaired }) => {
            const shown = name === 'kind' ? kindName(value) : value;
            return (
              <div key={name} className="contents">
                <dt className="border-t border-rule py-1 text-quiet">{NOTE_NAMES[name]}</dt>
                <dd
                  className={`min-w-0 border-t border-rule py-1 ${name === 'kind' || name === 'vendor' ? '' : 'font-mono'}`}
                >
                  {pageId && box ? (
                    <button
                      className="max-w-full text-left break-words hover:underline"
                      title={why ?? 'See where it stands'}
                      onClick={() => onGoTo({ pageId, box })}
                    >
                      {shown}
                    </button>
                  ) : (
                    <span className="block break-words" title={why ?? undefined}>
                      {shown}
                    </span>
                  )}
                  {repaired && <span className="block text-xs text-quiet">put right: only so it adds up</span>}
                </dd>
              </div>
            );
          })}
        </dl>
      )}
      {taxes.length > 0 && (
        <table aria-label="Tax by rate" className="w-full text-sm">
          <tbody>
            {taxes.map(({ rate, net, tax }) => (
              <tr key={rate} className="border-t border-rule">
                <th scope="row" className="py-1 text-left font-normal text-quiet">
                  {rate} % tax
                </th>
                <td className="py-1 text-right font-mono text-quiet">{net !== null && `on ${net.toFixed(2)}`}</td>
                <td className="py-1 text-right font-mono">{tax.toFixed(2)}</td>
              </tr>
            ))}
          </tbody>
        </table>
      )}
      {lines.length + bookings.length > 0 && (
        <section aria-label="What it lists">
          {bookings.length > 0 && <Bookings bookings={bookings} />}
          {lines.length > 0 && <Lines lines={lines} />}
          <p className="mt-1 flex gap-3 text-sm">
            <a className="underline" href={addressOf(endpoints.documentLines, { params, query: { as: 'xlsx' } })}>
              as spreadsheet
            </a>
            <a className="underline" href={addressOf(endpoints.documentLines, { params, query: { as: 'csv' } })}>
              as CSV
            </a>
          </p>
        </section>
      )}
      <TextOut document={document} />
      <WhatWasDone id={document.id} />
    </aside>
  );
}

/** Who did what to it; asked for when it is opened. */
function WhatWasDone({ id }: { id: string }) {
  const [open, setOpen] = useState(false);
  const { data: deeds } = useDocumentHistory(id, open);
  if (!useMay('work')) return null;
  return (
    <details onToggle={(event) => setOpen(event.currentTarget.open)}>
      <summary className="cursor-pointer font-semibold">What was done</summary>
      <ol aria-label="What was done" className="divide-y divide-rule text-sm">
        {deeds?.map((deed) => (
          <li key={deed.id} className="py-1.5">
            <DeedLine deed={deed} />
          </li>
        ))}
      </ol>
    </details>
  );
}

function Questions({ id, onGoTo }: { id: string; onGoTo: (place: Place) => void }) {
  const [question, setQuestion] = useState('');
  const [answer, setAnswer] = useState<{ to: string; text: string | null }>();
  const { tell } = useNotices();
  const put = async (event: FormEvent) => {
    event.preventDefault();
    const q = question.trim();
    if (!q) return;
    try {
      const { text, pageId, box } = await ask(endpoints.askDocument, { params: { id }, query: { q } });
      setAnswer({ to: q, text });
      if (pageId && box) onGoTo({ pageId, box: box as Place['box'] });
    } catch (error) {
      tell({ error });
    }
  };
  return (
    <form onSubmit={(event) => void put(event)}>
      <input
        className={inputLook}
        aria-label="Ask about this paper"
        placeholder="Ask: when is it due?"
        value={question}
        onChange={(event) => setQuestion(event.target.value)}
      />
      <p role="status" className="mt-1 min-h-5">
        {answer &&
          (answer.text ? (
            <strong className="font-semibold">{answer.text}</strong>
          ) : (
            <span className="text-quiet">Nothing on the paper answers that.</span>
          ))}
      </p>
    </form>
  );
}

function TextOut({ document }: { document: Document }) {
  const { tell } = useNotices();
  const address = addressOf(endpoints.documentText, { params: { id: document.id } });
  const copy = async () => {
    try {
      await navigator.clipboard.writeText(await (await fetch(address)).text());
      tell({ text: 'The text is copied.' });
    } catch {
      tell({ text: 'The browser did not let the text be copied; save it instead.' });
    }
  };
  return (
    <p className="flex items-center gap-3 text-sm">
      <Button onClick={() => void copy()}>Copy all text</Button>
      <a className="underline" href={address}>
        save as .txt
      </a>
    </p>
  );
}
