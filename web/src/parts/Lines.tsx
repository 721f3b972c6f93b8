import { Document } from '@crow/contract/documents';

type Line = Document['lines'][number];

/** What a paper lists: each with how much of it at which price, as far as that is printed, and its amount. */
export function Lines({ lines }: Pick<Document, 'lines'>) {
  return (
    <table aria-label="Its lines" className="w-full text-sm">
      <caption className="pb-1 text-left text-xs text-quiet">What it lists</caption>
      <tbody>
        {lines.map((line, at) => (
          <tr key={at} className="border-t border-rule align-top">
            <td className="py-1 pr-2">
              {line.description}
              {line.quantity !== null && (
                <span className="block font-mono text-xs text-quiet">{countOf(line as Counted)}</span>
              )}
            </td>
            <td className="py-1 text-right font-mono whitespace-nowrap">{line.amount.toFixed(2)}</td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}

type Counted = Line & { quantity: number };

/** “12 × 18.40 less 10 %” */
function countOf({ quantity, unitPrice, discount }: Counted): string {
  const price = unitPrice === null ? '' : ` × ${priceOf(unitPrice)}`;
  return `${quantity}${price || ' ×'}${discount ? ` less ${discount} %` : ''}`;
}

/** A price may have more decimals than an amount, never fewer. */
const priceOf = (price: number) =>
  price.toLocaleString('en', { minimumFractionDigits: 2, maximumFractionDigits: 4, useGrouping: false });
