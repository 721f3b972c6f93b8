import { useState } from 'react';
import { Plus, X } from 'lucide-react';
import { readAmount } from '@crow/core/reading/facts/money';
import { endpoints } from '@crow/contract/endpoints';
import { Document } from '@crow/contract/documents';
import { useChange } from '../../queries';

interface Typed {
  rate: string;
  net: string;
  tax: string;
}

const figure = (typed: string): number | null => {
  const amount = readAmount(typed);
  return amount ? amount.cents / 100 : null;
};
const PARTS = [
  ['rate', 'Rate, %'],
  ['net', 'on'],
  ['tax', 'Tax'],
] as const;

/** Tax by rate, where there are several: looked over, changed, added and taken away. */
export function Taxes({ document: { id, taxes } }: { document: Document }) {
  const save = useChange(endpoints.changeTaxes, ['document']);
  /** What is being typed, until it is saved; what arrives meanwhile does not change it. */
  const [held, setHeld] = useState<Typed[]>();
  const shown =
    held ??
    taxes.map(({ rate, net, tax }) => ({
      rate: String(rate),
      net: net === null ? '' : net.toFixed(2),
      tax: tax.toFixed(2),
    }));
  const keep = async (rows: Typed[]) => {
    const complete = rows.flatMap(({ rate, net, tax }) => {
      const [percent, amount] = [figure(rate), figure(tax)];
      return percent === null || amount === null ? [] : [{ rate: percent, net: figure(net), tax: amount }];
    });
    // One that is begun waits for the rest of it.
    if (complete.length < rows.length) return;
    await save.mutateAsync({ params: { id }, body: { taxes: complete } }).catch(() => undefined);
    setHeld(undefined);
  };
  const change = (row: number, part: keyof Typed, value: string) =>
    setHeld(shown.map((each, at) => (at === row ? { ...each, [part]: value } : each)));
  if (shown.length === 0)
    return (
      <button
        className="text-sm text-quiet underline underline-offset-2"
        onClick={() => setHeld([{ rate: '', net: '', tax: '' }])}
      >
        Tax by rate …
      </button>
    );
  return (
    <fieldset className="border-l-2 border-rule pl-3 text-sm">
      <legend className="text-xs text-quiet">Tax by rate</legend>
      {shown.map((row, at) => (
        <div key={at} className="flex items-center gap-1">
          {PARTS.map(([part, name]) => (
            <input
              key={part}
              aria-label={`${name}, ${at + 1}`}
              placeholder={name}
              value={row[part]}
              autoComplete="off"
              className="h-7 w-full min-w-0 border-b border-rule bg-transparent text-right font-mono outline-none focus:border-accent focus:bg-raised"
              onChange={(event) => change(at, part, event.target.value)}
              onBlur={() => held && void keep(held)}
              onKeyDown={(event) => event.key === 'Escape' && setHeld(undefined)}
            />
          ))}
          <button
            aria-label={`Take away rate ${at + 1}`}
            className="text-quiet hover:text-ink"
            onClick={() => void keep(shown.filter((_, other) => other !== at))}
          >
            <X size={14} />
          </button>
        </div>
      ))}
      <button
        className="flex items-center gap-1 text-xs text-quiet hover:text-ink"
        onClick={() => setHeld([...shown, { rate: '', net: '', tax: '' }])}
      >
        <Plus size={14} aria-hidden /> Another rate
      </button>
    </fieldset>
  );
}
