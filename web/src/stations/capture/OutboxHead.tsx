import { Button } from '../../parts/controls';
import { Transfer, useIntake } from '../../parts/intake';
import { SendingChoice } from '../../parts/SendingChoice';
import { count } from '../../parts/words';

/** What waits on this device, why, and how it goes on. */
export function OutboxHead({ waiting }: { waiting: Transfer[] }) {
  const { halted, sendNow } = useIntake();
  if (!halted || waiting.length === 0) return null;
  const many = count(waiting.length, 'file waits', 'files wait');
  const fleeting = waiting.filter((each) => each.fleeting).length;
  return (
    <section
      aria-label="What waits on this device"
      className="flex flex-col gap-2 border-b border-rule bg-attention-soft p-4"
    >
      <p role="status">
        <strong className="font-semibold">{many} on this device.</strong>{' '}
        {halted === 'no-line' && 'Crow Shelf can’t be reached from here now; they go by themselves when it can.'}
        {halted === 'held' && 'They go when you say so.'}
        {halted === 'not-let-in' && 'It is not let in any more; they are kept until it is.'}
      </p>
      {fleeting > 0 && (
        <p className="text-danger">
          The store of this device is full: {count(fleeting, 'file is', 'files are')} in this window only. Leave it open
          until they have gone.
        </p>
      )}
      <div className="flex flex-wrap items-center gap-3">
        {halted === 'not-let-in' ? (
          <a className="underline" href="/enter">
            Come in again
          </a>
        ) : (
          <Button main={halted === 'held'} className="max-md:h-11" onClick={sendNow}>
            Send now
          </Button>
        )}
        <SendingChoice />
      </div>
    </section>
  );
}
