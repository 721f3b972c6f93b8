import { Person } from '@crow/contract/people';
import { endpoints } from '@crow/contract/endpoints';
import { shownMoment } from '../../parts/days';
import { useChange } from '../../queries';

/** The browsers that somebody is in by, each to be ended. */
export function Sessions({ name, sessions }: Pick<Person, 'name' | 'sessions'>) {
  const end = useChange(endpoints.endSession, ['people']);
  return sessions.map(({ id, browser, device, own, used }) => {
    const what = [device, browser || 'a browser'].filter(Boolean).join(', ');
    return (
      <p key={id} className="flex items-baseline gap-2 text-quiet">
        <span className="min-w-0 flex-1">
          {what}, {own ? 'this one' : `last here ${shownMoment(used)}`}
        </span>
        {!own && (
          <button
            type="button"
            className="underline"
            aria-label={`End the session of ${name} in ${what}`}
            onClick={() => end.mutate({ params: { id } })}
          >
            End
          </button>
        )}
      </p>
    );
  });
}
