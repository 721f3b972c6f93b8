import { ReactNode, useState } from 'react';
import { Link } from 'react-router';
import { endpoints } from '@crow/contract/endpoints';
import { Document } from '@crow/contract/documents';
import { PaperBooks, PaperBooksWish } from '@crow/contract/ledger';
import { EntryPart, sumOf } from '@crow/core/ledger/books/draft';
import { CURRENCY_OF } from '@crow/core/ledger/books/taxCodes';
import { AccountChoice, AmountField, PartsEditor } from '../../parts/books/PartsEditor';
import { alikeInWords, inFours, problemInWords, rateInWords, whyCategory } from '../../parts/books/words';
import { Tick } from '../../parts/controls';
import { money } from '../../parts/words';
import { useBooks, useChange, usePaperBooks } from '../../queries';

/** How a paper goes into the books when it is filed: under what, how it is taxed, from where it is paid; or of which entry it is the paper. */
export function BooksNote({ document: { id, facts } }: { document: Document }) {
  const { data: paper } = usePaperBooks(id);
  const { data: books } = useBooks();
  const save = useChange(endpoints.changePaperBooks, ['ledger']);
  /** Shares that do not add up yet: kept once they do. */
  const [held, setHeld] = useState<EntryPart[]>();
  if (!paper || !books) return null;
  const say = (wish: Partial<PaperBooksWish>) => save.mutate({ params: { id }, body: wish as PaperBooksWish });
  const day = facts.find(({ name }) => name === 'date')?.value ?? new Date().toISOString().slice(0, 10);
  const put = (parts: EntryPart[]) => {
    const adds = sumOf(parts) === paper.units;
    setHeld(adds ? undefined : parts);
    if (adds) say({ parts });
  };
  if (paper.entry)
    return (
      <Frame>
        <p className="text-sm">
          In the books as{' '}
          <Link className="underline" to={`/ledger?entry=${paper.entry.id}`}>
            entry {paper.entry.serial}
          </Link>
          .
        </p>
      </Frame>
    );
  const attached = paper.fits.find((fit) => fit.id === paper.attachTo);
  if (attached)
    return (
      <Frame>
        <p className="text-sm">
          The paper of entry {attached.serial}: {attached.who}, {money(attached)}. It has {alikeInWords(attached.alike)}
          .
        </p>
        <button className="text-sm text-accent underline underline-offset-2" onClick={() => say({ attachTo: null })}>
          Not of this one
        </button>
      </Frame>
    );
  if (paper.as === 'nothing' && !paper.enters && !paper.said && paper.fits.length === 0)
    return (
      <button
        className="text-sm text-quiet underline underline-offset-2"
        onClick={() => say({ enters: true, attachTo: null })}
      >
        Enter it in the books …
      </button>
    );
  return (
    <Frame>
      <Tick checked={paper.enters} onChange={(enters) => say({ enters, attachTo: null })} className="text-sm">
        {paper.as === 'reminder' ? 'Enter it, though it reminds of another' : 'Enter it when it is filed'}
      </Tick>
      {paper.fits.length > 0 && (
        <ul className="text-sm" aria-label="Entries that it may be the paper of">
          {paper.fits.map((fit) => (
            <li key={fit.id}>
              <button
                className="text-left text-accent underline underline-offset-2"
                onClick={() => say({ attachTo: fit.id })}
              >
                Perhaps of entry {fit.serial}: {fit.who}, {money(fit)}
              </button>{' '}
              <span className="text-quiet">{alikeInWords(fit.alike)}</span>
            </li>
          ))}
        </ul>
      )}
      {paper.enters && (
        <>
          <PartsEditor
            parts={held ?? paper.parts}
            units={paper.units}
            currency={paper.currency}
            day={day}
            country={books.country}
            onChange={put}
          />
          <p className="text-xs text-quiet">{whyCategory(paper.why)}</p>
          {paper.sender && <SenderNote sender={paper.sender} />}
          {paper.currency !== CURRENCY_OF[books.country] && (
            <div className="text-xs text-quiet">
              <span aria-hidden>In {CURRENCY_OF[books.country]}</span>
              <AmountField
                label={`In ${CURRENCY_OF[books.country]}`}
                units={paper.ownUnits ?? 0}
                currency={CURRENCY_OF[books.country]}
                onChange={(ownUnits) => say({ ownUnits: ownUnits === 0 ? null : ownUnits })}
              />
              {rateInWords({ ...paper, ownUnits: paper.ownUnits ?? null }, CURRENCY_OF[books.country])}
            </div>
          )}
          <div className="text-xs text-quiet">
            <span aria-hidden>Paid from</span>
            <AccountChoice value={paper.accountId} onChange={(accountId) => say({ accountId })} />
          </div>
        </>
      )}
      {paper.enters && paper.problems.length > 0 && (
        <p role="status" className="text-sm text-attention">
          ! Not entered as it is: {paper.problems.map(problemInWords).join('; ')}.
        </p>
      )}
      {!paper.enters && paper.problems.includes('entered-already') && (
        <p role="status" className="text-sm text-attention">
          ! {problemInWords('entered-already')}.
        </p>
      )}
    </Frame>
  );
}

/** A sender that is not known yet, with what will be; and a bank account that is another than before. */
function SenderNote({ sender }: { sender: NonNullable<PaperBooks['sender']> }) {
  const { known, address, taxNumber, iban, ibanBefore } = sender;
  if (ibanBefore)
    return (
      <p role="status" className="text-sm text-attention">
        ! Its bank account is another than before, which was {inFours(ibanBefore)}: ask the sender before you pay.
      </p>
    );
  if (known) return null;
  const said = [address, taxNumber, iban && inFours(iban)].filter(Boolean);
  return (
    <p className="text-xs text-quiet">
      New sender{said.length > 0 ? <>, known from now on with {said.join(' · ')}</> : ', known from now on'}
    </p>
  );
}

function Frame({ children }: { children: ReactNode }) {
  return (
    <section aria-label="Books" data-books className="w-full space-y-1 border-l-2 border-rule pl-3">
      <h3 className="text-xs text-quiet">Books</h3>
      {children}
    </section>
  );
}
