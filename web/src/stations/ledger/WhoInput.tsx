import { InputHTMLAttributes, useId } from 'react';
import { Entry } from '@crow/contract/ledger';

/** A field for whom an entry is of; those who have entries already are at hand. */
export function WhoInput({ entries, ...rest }: InputHTMLAttributes<HTMLInputElement> & { entries: readonly Entry[] }) {
  const names = useId();
  return (
    <>
      <input aria-label="Who" list={names} autoComplete="off" {...rest} />
      <datalist id={names}>
        {[...new Set(entries.map(({ who }) => who))].map((who) => (
          <option key={who} value={who} />
        ))}
      </datalist>
    </>
  );
}
