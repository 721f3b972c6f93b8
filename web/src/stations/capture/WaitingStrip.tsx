import { useEffect, useMemo } from 'react';
import { Transfer } from '../../parts/intake';

/** So many of the last pages are shown; their number says how many there are. */
const MOST_SHOWN = 12;

/** The pages that were taken and wait on this device, the latest last, small. */
export function WaitingStrip({ waiting }: { waiting: Transfer[] }) {
  if (waiting.length === 0) return null;
  const shown = waiting.slice(-MOST_SHOWN);
  return (
    <div className="flex h-14 shrink-0 items-center gap-2 overflow-x-auto border-t border-rule bg-sunken px-3">
      <span role="status" className="shrink-0 text-sm whitespace-nowrap">
        <span className="font-mono">{waiting.length}</span> on this device
      </span>
      <ol aria-label="Pages that wait on this device" className="flex gap-2">
        {shown.map((transfer, at) => (
          <li key={transfer.id} title={transfer.name}>
            <Small transfer={transfer} number={waiting.length - shown.length + at + 1} />
          </li>
        ))}
      </ol>
    </div>
  );
}

/** A picture that waits, small. */
export function Small({ transfer: { bytes, name }, number }: { transfer: Transfer; number: number }) {
  const address = useMemo(() => (bytes.type.startsWith('image/') ? URL.createObjectURL(bytes) : undefined), [bytes]);
  useEffect(() => {
    return () => {
      if (address) URL.revokeObjectURL(address);
    };
  }, [address]);
  return address ? (
    <img src={address} alt={`Page ${number}, ${name}`} className="h-11 w-auto max-w-16 bg-paper object-cover" />
  ) : (
    <span className="block h-11 max-w-24 truncate bg-raised px-2 text-sm leading-11">{name}</span>
  );
}
