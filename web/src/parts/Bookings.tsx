import { Document } from '@crow/contract/documents';
import { shownDay } from './days';

/** What a statement books: each with its day, and the balance after it where that is printed. */
export function Bookings({ bookings }: Pick<Document, 'bookings'>) {
  return (
    <table aria-label="What it books" className="w-full text-sm">
      <tbody>
        {bookings.map(({ date, text, amount, balance }, at) => (
          <tr key={at} className="border-t border-rule align-top">
            <td className="py-1 pr-2">
              <span className="block font-mono text-xs text-quiet">{shownDay(date)}</span>
              {text}
            </td>
            <td className="py-1 text-right font-mono whitespace-nowrap">
              {amount.toFixed(2)}
              {balance !== null && <span className="block text-xs text-quiet">{balance.toFixed(2)}</span>}
            </td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}
