import { Plus, X } from 'lucide-react';
import { useState } from 'react';
import { EntryPart, shareOf } from '@crow/core/ledger/books/draft';
import { BookCountry, nameOfCode, TAX_CODES, taxCodesOn } from '@crow/core/ledger/books/taxCodes';
import { Category } from '@crow/contract/ledger';
import { endpoints } from '@crow/contract/endpoints';
import { useBooks, useChange } from '../../queries';
import { typedAmount, unitsTyped } from './amounts';

const NEW = 'new';
const lookOfField =
  'h-7 w-full min-w-0 border-b border-rule bg-transparent text-ink outline-none focus:border-accent focus:bg-raised pointer-coarse:h-11';

/** Under which category something is entered; a new one is made on the spot. */
export function CategoryChoice({
  label,
  value,
  onChange,
}: {
  label: string;
  value: string | null;
  onChange: (id: string | null) => void;
}) {
  const { data: books } = useBooks();
  const [typing, setTyping] = useState(false);
  const make = useChange(endpoints.makeCategory, ['ledger'], ({ id }) => onChange(id));
  const shown = (books?.categories ?? []).filter(({ id, retired }) => !retired || id === value);
  if (typing)
    return (
      <input
        // Whoever asks for a new one types its name next.
        autoFocus
        aria-label={`${label}: name of a new one`}
        className={lookOfField}
        placeholder="Name of the new category"
        maxLength={80}
        onKeyDown={(event) => {
          const name = event.currentTarget.value.trim();
          if (event.key === 'Escape') setTyping(false);
          if (event.key !== 'Enter') return;
          event.preventDefault();
          setTyping(false);
          if (name) make.mutate({ body: { name, side: 'cost' } });
        }}
        onBlur={() => setTyping(false)}
      />
    );
  return (
    <select
      aria-label={label}
      className={`${lookOfField} -ml-1 cursor-pointer ${value ? '' : 'text-attention'}`}
      value={value ?? ''}
      onChange={({ target }) => (target.value === NEW ? setTyping(true) : onChange(target.value || null))}
    >
      <option value="">no category</option>
      <Side categories={shown} side="cost" name="Costs" />
      <Side categories={shown} side="income" name="Income" />
      <option value={NEW}>New category …</option>
    </select>
  );
}

function Side({ categories, side, name }: { categories: Category[]; side: Category['side']; name: string }) {
  return (
    <optgroup label={name}>
      {categories
        .filter((each) => each.side === side)
        .map((each) => (
          <option key={each.id} value={each.id}>
            {each.name}
          </option>
        ))}
    </optgroup>
  );
}

/** How something is taxed: the codes that hold in the country of the books on that day, and the one that it has. */
export function TaxChoice({
  label,
  value,
  day,
  country,
  onChange,
}: {
  label: string;
  value: string | null;
  day: string;
  country: BookCountry;
  onChange: (code: string, rate: number | null) => void;
}) {
  const own = taxCodesOn(country, day);
  const codes = [...new Set([...own.map(({ code }) => code), ...(value ? [value] : [])])];
  return (
    <select
      aria-label={label}
      className={`${lookOfField} -ml-1 cursor-pointer ${value ? '' : 'text-attention'}`}
      value={value ?? ''}
      onChange={({ target }) => {
        const code =
          own.find((each) => each.code === target.value) ?? TAX_CODES.find((each) => each.code === target.value);
        if (code) onChange(code.code, code.rate);
      }}
    >
      {!value && <option value="">not known: choose</option>}
      {codes.map((code) => (
        <option key={code} value={code}>
          {nameOfCode(code, day)}
        </option>
      ))}
    </select>
  );
}

/**
 * The shares of an entry over categories and treatments of tax. One share has just these two; several have their sums, and have to come to the total.
 * @param onChange hears of every change, also of one that does not add up yet
 */
export function PartsEditor({
  parts,
  units,
  currency,
  day,
  country,
  onChange,
  across,
}: {
  parts: readonly EntryPart[];
  /** What they have to come to. */
  units: number;
  currency: string;
  day: string;
  country: BookCountry;
  onChange: (parts: EntryPart[]) => void;
  /** Whether category and tax stand beside each other. */
  across?: boolean;
}) {
  const put = (at: number, change: Partial<EntryPart>) =>
    onChange(parts.map((part, other) => (other === at ? { ...part, ...change } : part)));
  const left = units - parts.reduce((sum, { net, tax }) => sum + net + tax, 0);
  const split = () => onChange([...parts, { ...parts[parts.length - 1], net: left, tax: 0 }]);
  return (
    <div className="w-full">
      {parts.map((part, at) => {
        const which = parts.length > 1 ? `, share ${at + 1}` : '';
        return (
          <div
            key={at}
            className={`${parts.length > 1 ? 'mb-1 border-l-2 border-rule pl-2' : ''} ${across ? 'grid grid-cols-2 gap-x-3' : ''}`}
          >
            <div className="flex items-center gap-2">
              <CategoryChoice
                label={`Category${which}`}
                value={part.categoryId}
                onChange={(categoryId) => put(at, { categoryId })}
              />
              {parts.length > 1 && (
                <button
                  aria-label={`Take away share ${at + 1}`}
                  className="text-quiet hover:text-ink"
                  onClick={() => onChange(parts.filter((_, other) => other !== at))}
                >
                  <X size={14} />
                </button>
              )}
            </div>
            <TaxChoice
              label={`Tax${which}`}
              value={part.taxCode}
              day={day}
              country={country}
              onChange={(taxCode, rate) => put(at, { taxCode, rate, ...taxedAnew(part, rate) })}
            />
            {parts.length > 1 && (
              <div className="col-span-2 flex gap-2">
                {(['net', 'tax'] as const).map((name) => (
                  <AmountField
                    key={name}
                    label={`${name === 'net' ? 'Net' : 'Tax amount'}${which}`}
                    units={part[name]}
                    currency={currency}
                    onChange={(to) =>
                      put(
                        at,
                        name === 'net' && part.rate !== null
                          ? { net: to, tax: shareOf(to, part.rate, 100) }
                          : { [name]: to },
                      )
                    }
                  />
                ))}
              </div>
            )}
          </div>
        );
      })}
      {left !== 0 && (
        <p role="status" className="text-sm text-attention">
          ! {typedAmount(Math.abs(left), currency)} {left > 0 ? 'short of' : 'more than'} the total
        </p>
      )}
      <button
        className="flex items-center gap-1 text-xs text-quiet underline underline-offset-2 hover:text-ink"
        onClick={split}
      >
        <Plus size={13} aria-hidden /> {parts.length > 1 ? 'Another share' : 'Split'}
      </button>
    </div>
  );
}

/** Net and tax of the same sum by another rate, rounded half away from zero. */
export function taxedAnew(
  { net, tax }: Pick<EntryPart, 'net' | 'tax'>,
  rate: number | null,
): { net: number; tax: number } {
  const all = net + tax;
  const taxed = rate === null ? 0 : shareOf(all, rate, 100 + rate);
  return { net: all - taxed, tax: taxed };
}

/** An amount that is typed; what is no amount is put back. */
export function AmountField({
  label,
  units,
  currency,
  onChange,
  className = '',
}: {
  label: string;
  units: number;
  currency: string;
  onChange: (units: number) => void;
  className?: string;
}) {
  const [typed, setTyped] = useState<string>();
  const leave = () => {
    const to = typed === undefined ? undefined : unitsTyped(typed, currency);
    setTyped(undefined);
    if (to !== undefined && to !== units) onChange(to);
  };
  return (
    <input
      aria-label={label}
      className={`${lookOfField} text-right font-mono ${className}`}
      value={typed ?? typedAmount(units, currency)}
      autoComplete="off"
      inputMode="decimal"
      onFocus={(event) => event.target.select()}
      onChange={(event) => setTyped(event.target.value)}
      onBlur={leave}
      onKeyDown={(event) => {
        if (event.key === 'Enter') leave();
        if (event.key === 'Escape') setTyped(undefined);
      }}
    />
  );
}

/** From which account something is paid; none while that is not known. */
export function AccountChoice({
  value,
  onChange,
  className = lookOfField,
}: {
  value: string | null;
  onChange: (id: string | null) => void;
  className?: string;
}) {
  const { data: books } = useBooks();
  return (
    <select
      aria-label="Paid from"
      className={`${className} cursor-pointer`}
      value={value ?? ''}
      onChange={({ target }) => onChange(target.value || null)}
    >
      <option value="">not paid yet, or not known</option>
      {(books?.accounts ?? [])
        .filter(({ id, retired }) => !retired || id === value)
        .map(({ id, name, currency }) => (
          <option key={id} value={id}>
            {name} ({currency})
          </option>
        ))}
    </select>
  );
}
