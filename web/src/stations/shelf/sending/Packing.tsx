import { useEffect } from 'react';
import { addressOf } from '@crow/contract/client';
import { endpoints } from '@crow/contract/endpoints';
import { Parcel } from '@crow/contract/sending';
import { Button, ProblemText } from '../../../parts/controls';
import { bytes } from '../../../parts/words';
import { useChange, useParcel } from '../../../queries';

/** Waits until a copy is made, which takes seconds a page when it is bound anew, and has it saved then. */
export function Packing({ parcel, onDone }: { parcel: Parcel; onDone: () => void }) {
  const { data = parcel } = useParcel(parcel.id);
  const { id, state, fileName, problem } = data;
  const stop = useChange(endpoints.endParcel, ['parcel'], onDone);
  const address = addressOf(endpoints.parcelFile, { params: { id } });
  const ready = state === 'ready';
  useEffect(() => {
    if (!ready) return;
    const link = document.createElement('a');
    link.href = address;
    link.download = '';
    link.click();
  }, [ready, address]);
  return (
    <div className="flex flex-col gap-3">
      {problem ? (
        <ProblemText report={problem} />
      ) : (
        <p role="status">
          {ready
            ? `“${fileName}” is made, ${bytes(data.bytes ?? 0)}; your browser saves it.`
            : 'The copy is being made. You can go on meanwhile; it is saved when it is done, as long as this stays open.'}
        </p>
      )}
      <div className="flex justify-end gap-2">
        {ready ? (
          <>
            <a className="self-center underline" href={address}>
              Save it again
            </a>
            <Button main autoFocus onClick={onDone}>
              Done
            </Button>
          </>
        ) : (
          <Button onClick={() => (problem ? onDone() : stop.mutate({ params: { id } }))}>
            {problem ? 'Close' : 'Stop'}
          </Button>
        )}
      </div>
    </div>
  );
}
