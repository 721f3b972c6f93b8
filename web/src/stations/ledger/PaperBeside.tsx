import { useQuery } from '@tanstack/react-query';
import { X } from 'lucide-react';
import { Link } from 'react-router';
import { endpoints } from '@crow/contract/endpoints';
import { Entry } from '@crow/contract/ledger';
import { ask } from '../../api';
import { alikeInWords, inFours, isProven } from '../../parts/books/words';
import { Button, IconButton } from '../../parts/controls';
import { shownDay } from '../../parts/days';
import { useNotices } from '../../parts/notices';
import { PagePicture, sizeFor } from '../../parts/PagePicture';
import { SquareCode } from '../../parts/SquareCode';
import { money } from '../../parts/words';
import { useChange, useDocument, useEntryVersions } from '../../queries';

const WIDTH = 400;

/** The papers of an entry, laid open beside the page; or what may be its paper, and how to ask for a copy. */
export function PaperBeside({ entry, onClose }: { entry: Entry; onClose: () => void }) {
  const { papers, serial, who } = entry;
  const { tell } = useNotices();
  const attach = useChange(endpoints.attachPaper, ['ledger', 'document']);
  const detach = useChange(endpoints.detachPaper, ['ledger', 'document']);
  const takeOff = (documentId: string, role: Entry['papers'][number]['role']) =>
    detach.mutate({ params: { id: entry.id, documentId } }, () =>
      tell({
        text: 'The paper is off the entry.',
        action: {
          label: 'Undo',
          run: () => attach.mutate({ params: { id: entry.id }, body: { documentId, role } }),
        },
      }),
    );
  return (
    <aside
      aria-label={`Papers of entry ${serial}`}
      className="flex w-[424px] max-w-full shrink-0 flex-col border-l border-rule bg-sunken max-md:w-full"
    >
      <header className="flex h-10 shrink-0 items-center gap-2 border-b border-rule px-3">
        <h2 className="min-w-0 flex-1 truncate font-semibold">
          {serial} · {who}
        </h2>
        <IconButton name="Close (Esc)" onClick={onClose}>
          <X size={16} />
        </IconButton>
      </header>
      <div className="min-h-0 flex-1 space-y-4 overflow-y-auto p-3">
        {!isProven(entry) && <NoPaper entry={entry} />}
        {papers.map(({ documentId, role }) => (
          <section key={documentId}>
            <OnePaper id={documentId} isReminder={role === 'reminder'} />
            <button
              className="mt-1 text-sm text-quiet underline underline-offset-2"
              onClick={() => takeOff(documentId, role)}
            >
              Not of this entry: take it off
            </button>
          </section>
        ))}
        {entry.paid < entry.units && <PayIt entry={entry} />}
        <Before id={entry.id} />
      </div>
    </aside>
  );
}

function OnePaper({ id, isReminder }: { id: string; isReminder: boolean }) {
  const { data: document } = useDocument(id);
  if (!document) return null;
  const address = document.state === 'check' ? `/check/${id}` : `/shelf/${document.folderId}/${id}`;
  return (
    <>
      <p className="mb-1 text-sm">
        {isReminder && <span className="text-attention">reminds of it: </span>}
        <Link className="underline underline-offset-2" to={address}>
          {document.name || 'a paper that waits in Check'}
        </Link>
      </p>
      {document.pageList.map((page, at) => (
        <div
          key={page.id}
          className="mb-3 w-full shadow-paper"
          style={{ aspectRatio: `${page.width} / ${page.height}` }}
        >
          <PagePicture page={page} size={sizeFor(WIDTH, page)} alt={`Page ${at + 1} of ${document.name}`} />
        </div>
      ))}
    </>
  );
}

/** What may be the paper of an entry that has none; and a letter that asks for a copy. */
function NoPaper({ entry }: { entry: Entry }) {
  const { data: fits } = useQuery({
    queryKey: ['ledger', 'fits', entry.id],
    queryFn: () => ask(endpoints.papersForEntry, { params: { id: entry.id } }),
  });
  const attach = useChange(endpoints.attachPaper, ['ledger', 'document']);
  return (
    <section aria-label="Its paper" className="space-y-2 text-sm">
      <p className="text-attention">! No paper proves this entry.</p>
      {fits && fits.length === 0 && <p className="text-quiet">No paper that is here seems to be of it.</p>}
      {(fits ?? []).map(({ documentId, name, alike, confidence }) => (
        <div key={documentId} className="flex items-start justify-between gap-2">
          <span className="min-w-0">
            <span className="block truncate">{name || 'a paper that waits in Check'}</span>
            <span className="text-xs text-quiet">
              {alikeInWords(alike)}, {Math.round(100 * confidence)} % likely
            </span>
          </span>
          <Button onClick={() => attach.mutate({ params: { id: entry.id }, body: { documentId, role: 'proof' } })}>
            Attach
          </Button>
        </div>
      ))}
      <a className="text-accent underline underline-offset-2" href={letterFor(entry)}>
        Write a mail that asks for a copy
      </a>
    </section>
  );
}

/** A mail that asks a sender for a copy of what an entry lacks (RFC 6068); to whom it goes is typed in the mail program. */
function letterFor({ number, day, units, currency, who }: Entry): string {
  const which = number ? `invoice ${number}` : 'invoice';
  const subject = `Copy of ${which} of ${shownDay(day)}`;
  const body = `Dear ${who},\n\nplease send us a copy of your ${which} of ${shownDay(day)} over ${money({ units, currency })}. We have entered it, but do not have the paper.\n\nWith thanks`;
  return `mailto:?subject=${encodeURIComponent(subject)}&body=${encodeURIComponent(body)}`;
}

const NOT_PAID: Record<string, string> = {
  'no-iban': 'No paper of this sender says where to pay.',
  'iban-wrong': 'The bank account on its paper is not right: its check figures don’t fit.',
  'not-euro': 'Payment codes are for euros only.',
};

/** How an entry is paid: a code that a banking app reads from the screen, and the same in words. */
function PayIt({ entry: { id, revision } }: { entry: Entry }) {
  const { data: payment } = useQuery({
    queryKey: ['ledger', 'payment', id, revision],
    queryFn: () => ask(endpoints.entryPayment, { params: { id } }),
  });
  if (!payment) return null;
  const { name, iban, ibanBefore, units, currency, reference, problem, code } = payment;
  return (
    <section aria-label="Pay it" className="space-y-2 text-sm">
      <h3 className="text-xs text-quiet">To pay</h3>
      {code && <SquareCode rows={code} name={`Payment code: ${money({ units, currency })} to ${name}`} />}
      <p>
        <span className="font-mono">{money({ units, currency })}</span> to {name}
        {iban && <span className="block font-mono">{inFours(iban)}</span>}
        {ibanBefore && (
          <span role="status" className="block text-attention">
            ! Another bank account than before, which was {inFours(ibanBefore)}: ask the sender before you pay.
          </span>
        )}
        <span className="block text-quiet">{reference}</span>
      </p>
      {problem && NOT_PAID[problem] && <p className="text-quiet">{NOT_PAID[problem]}</p>}
    </section>
  );
}

/** What an entry was before it was changed. */
function Before({ id }: { id: string }) {
  const { data: versions = [] } = useEntryVersions(id);
  if (versions.length === 0) return null;
  return (
    <section className="text-sm">
      <h3 className="text-xs text-quiet">Before it was changed</h3>
      <ul>
        {versions.map(({ revision, until, by, was }) => (
          <li key={revision} className="border-b border-rule py-1">
            {shownDay(was.day)} {was.who} {was.number}{' '}
            <span className="font-mono">{money({ units: was.units, currency: was.currency })}</span>
            <span className="block text-xs text-quiet">
              until {shownDay(until.slice(0, 10))}, changed by {by}
            </span>
          </li>
        ))}
      </ul>
    </section>
  );
}
