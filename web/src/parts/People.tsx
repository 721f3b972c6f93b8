import { useState } from 'react';
import { X } from 'lucide-react';
import { endpoints } from '@crow/contract/endpoints';
import { newPerson, Person } from '@crow/contract/people';
import { useChange, useMe, usePeople } from '../queries';
import { Button, inputLook } from './controls';
import { shownMoment } from './days';
import { useNotices } from './notices';

const EMPTY = { name: '', passPhrase: '' };

/** Who may come in besides the owner, by name and pass phrase, and which browsers are in; only the owner sees it. */
export default function People() {
  const { data: me } = useMe();
  return me?.role === 'owner' ? <All /> : me ? <Me name={me.name} /> : null;
}

function All() {
  const { data: people = [] } = usePeople();
  const [adding, setAdding] = useState(EMPTY);
  const [wrong, setWrong] = useState<string>();
  const { tell } = useNotices();
  const add = useChange(endpoints.addPerson, ['people']);
  const submit = async () => {
    try {
      const body = await newPerson.validate({ ...adding, role: 'helper' });
      setWrong(undefined);
      await add.mutateAsync({ body }).then(
        () => {
          setAdding(EMPTY);
          tell({ text: `${body.name} can come in at this address, by name and pass phrase.` });
        },
        () => undefined,
      );
    } catch (error) {
      setWrong((error as Error).message);
    }
  };
  return (
    <form
      className="mt-4 border-t border-rule pt-3 text-sm"
      onSubmit={(event) => {
        event.preventDefault();
        void submit();
      }}
    >
      <h2 className="text-base font-semibold">People</h2>
      <ul className="mt-1 divide-y divide-rule">
        {people.map((person) => (
          <One key={person.id} person={person} />
        ))}
      </ul>
      <div className="mt-2 grid grid-cols-2 gap-2">
        <label>
          <span className="mb-1 block text-quiet">Name</span>
          <input
            className={inputLook}
            autoComplete="off"
            value={adding.name}
            onChange={(event) => setAdding({ ...adding, name: event.target.value })}
          />
        </label>
        <label>
          <span className="mb-1 block text-quiet">Pass phrase</span>
          <input
            className={inputLook}
            type="password"
            autoComplete="new-password"
            value={adding.passPhrase}
            onChange={(event) => setAdding({ ...adding, passPhrase: event.target.value })}
          />
        </label>
      </div>
      <p className="mt-1 text-quiet">
        Helpers take in, sort, check, file and find. Settings, the bin and watched folders stay yours.
      </p>
      <p role="status" className="mt-1 text-attention">
        {wrong}
      </p>
      <Button type="submit" disabled={adding.name.trim() === '' || adding.passPhrase === '' || add.isPending}>
        Let in
      </Button>
    </form>
  );
}

function One({ person: { id, name, role, sessions } }: { person: Person }) {
  const remove = useChange(endpoints.removePerson, ['people']);
  const end = useChange(endpoints.endSession, ['people']);
  const [asked, setAsked] = useState(false);
  return (
    <li className="py-1.5">
      <p className="flex items-center gap-2">
        <span className="min-w-0 flex-1 truncate font-semibold">
          {name} <span className="font-normal text-quiet">{role}</span>
        </span>
        {role !== 'owner' &&
          (asked ? (
            <>
              <Button onClick={() => remove.mutate({ params: { id } })}>Let in no more</Button>
              <Button onClick={() => setAsked(false)}>Cancel</Button>
            </>
          ) : (
            <button type="button" aria-label={`Remove ${name}`} onClick={() => setAsked(true)}>
              <X size={14} />
            </button>
          ))}
      </p>
      {role !== 'owner' && <AnotherPhrase id={id} name={name} />}
      {sessions.map((session) => (
        <p key={session.id} className="flex items-baseline gap-2 text-quiet">
          <span className="min-w-0 flex-1">
            {session.browser || 'A browser'}, {session.own ? 'this one' : `last here ${shownMoment(session.used)}`}
          </span>
          {!session.own && (
            <button
              type="button"
              className="underline"
              aria-label={`End the session of ${name} in ${session.browser || 'a browser'}`}
              onClick={() => end.mutate({ params: { id: session.id } })}
            >
              End
            </button>
          )}
        </p>
      ))}
    </li>
  );
}

/** Another pass phrase for whoever has forgotten theirs, or whom nobody should come in as any more. */
function AnotherPhrase({ id, name }: { id: string; name: string }) {
  const [typed, setTyped] = useState<string>();
  const { tell } = useNotices();
  const change = useChange(endpoints.changePassPhrase, ['people'], () => {
    setTyped(undefined);
    tell({ text: `${name} comes in by another pass phrase from now on.` });
  });
  if (typed === undefined)
    return (
      <button type="button" className="text-quiet underline" onClick={() => setTyped('')}>
        Another pass phrase
      </button>
    );
  return (
    <div className="flex items-end gap-2 py-1">
      <label className="min-w-0 flex-1">
        <span className="mb-1 block text-quiet">Another pass phrase for {name}</span>
        <input
          className={inputLook}
          type="password"
          autoComplete="new-password"
          autoFocus
          value={typed}
          onChange={(event) => setTyped(event.target.value)}
        />
      </label>
      <Button
        disabled={typed === '' || change.isPending}
        onClick={() => change.mutate({ params: { id }, body: { passPhrase: typed } })}
      >
        Give it
      </Button>
    </div>
  );
}

function Me({ name }: { name: string }) {
  const leave = useChange(endpoints.leave, [], () => window.location.reload());
  return (
    <p className="mt-4 flex items-center gap-2 border-t border-rule pt-3 text-sm">
      <span className="flex-1">You are here as {name}.</span>
      <Button onClick={() => leave.mutate({})}>Leave</Button>
    </p>
  );
}
