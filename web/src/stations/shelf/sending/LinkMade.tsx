import { Link } from 'react-router';
import { Parcel } from '@crow/contract/sending';
import { Button, ProblemText } from '../../../parts/controls';
import { shownMoment } from '../../../parts/days';
import { useNotices } from '../../../parts/notices';
import { useParcel } from '../../../queries';
import { SquareCode } from '../../../parts/SquareCode';

/** The address of a link that was made, to be given on. */
export function LinkMade({ parcel, onDone }: { parcel: Parcel; onDone: () => void }) {
  const { data = parcel } = useParcel(parcel.id);
  const { tell } = useNotices();
  const { state, problem } = data;
  const link = data.link!;
  const copy = async () => {
    try {
      await navigator.clipboard.writeText(link.address!);
      tell({ text: 'The address is copied.' });
    } catch {
      tell({ text: 'This browser does not let it be copied; select it and copy it yourself.' });
    }
  };
  return (
    <div className="flex flex-col gap-3">
      {problem && <ProblemText report={problem} />}
      <p role="status">
        {state === 'packing'
          ? 'The copy is being made; the address is good already. '
          : 'Whoever has this address sees the copy, and nothing else. '}
        It ends on {shownMoment(link.ends)}
        {link.mostLooks ? `, or after ${link.mostLooks} looks` : ''}; until then you can end it under Sent.
      </p>
      {!link.reached && (
        <p className="border-l-4 border-attention px-3">
          Only this machine reaches it: to have others look, open the door under{' '}
          <Link className="underline" to="/people?part=devices">
            People and devices
          </Link>
          , or have a name of your own lead here; the link is good for that too.
        </p>
      )}
      <div className="flex flex-wrap items-start gap-4">
        {link.code && <SquareCode rows={link.code} name="The address as a square code" />}
        <p aria-label="Address of the link" className="min-w-56 flex-1 font-mono text-sm break-all select-all">
          {link.address}
        </p>
      </div>
      <div className="flex justify-end gap-2">
        <Button onClick={() => void copy()}>Copy the address</Button>
        <Button main autoFocus onClick={onDone}>
          Done
        </Button>
      </div>
    </div>
  );
}
