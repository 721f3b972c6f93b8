import { useEffect, useState } from 'react';
import { endpoints } from '@crow/contract/endpoints';
import { newDevice, Pairing, Person } from '@crow/contract/people';
import { Button, Choice, inputLook, ProblemText } from '../../parts/controls';
import { useChange, useDoor, usePeople } from '../../queries';
import { Sessions } from './Sessions';
import { SquareCode } from '../../parts/SquareCode';

/** The door for other devices, letting one in by a code, and those that are in. */
export function Devices() {
  const { data: door } = useDoor();
  const { data: people = [] } = usePeople();
  const devices = people.filter(({ role }) => role === 'device');
  return (
    <div className="mx-auto grid max-w-5xl items-start gap-x-12 gap-y-8 p-4 md:grid-cols-[minmax(0,1fr)_24rem] md:p-8">
      <div className="flex flex-col gap-8">
        <Door />
        <section aria-label="Devices that only capture">
          <h2 className="text-lg font-semibold">Devices that only capture</h2>
          {devices.length === 0 ? (
            <p className="text-quiet">
              None yet. A tablet beside the till, say: it takes pictures for your stacks and sees nothing else. Phones
              of your own are let in as you, and are listed under your name.
            </p>
          ) : (
            <ul className="divide-y divide-rule border-y border-rule">
              {devices.map((device) => (
                <One key={device.id} device={device} />
              ))}
            </ul>
          )}
        </section>
      </div>
      {door?.open && <LetIn people={people.filter(({ role }) => role !== 'device')} />}
    </div>
  );
}

function One({ device: { id, name, sessions } }: { device: Person }) {
  const remove = useChange(endpoints.removePerson, ['people']);
  return (
    <li className="py-2">
      <p className="flex items-center gap-2">
        <span className="min-w-0 flex-1 truncate font-semibold">{name}</span>
        <button
          type="button"
          className="underline"
          aria-label={`Remove ${name}`}
          onClick={() => remove.mutate({ params: { id } })}
        >
          Let in no more
        </button>
      </p>
      {sessions.length === 0 ? (
        <p className="text-quiet">has not come in yet</p>
      ) : (
        <Sessions name={name} sessions={sessions.map((session) => ({ ...session, device: '' }))} />
      )}
    </li>
  );
}

function Door() {
  const { data: door } = useDoor();
  const change = useChange(endpoints.changeDoor, ['people']);
  if (!door) return null;
  const { open, byProxy, addresses, fingerprint, problem } = door;
  return (
    <section aria-label="The door for other devices">
      <h2 className="text-lg font-semibold">The door for other devices</h2>
      {problem && <ProblemText report={problem} />}
      {open ? (
        <>
          <p>Phones, tablets and computers in your network that were let in reach this program at</p>
          <ul className="my-2">
            {addresses.map((address) => (
              <li key={address} className="font-mono break-all">
                {address}
              </li>
            ))}
          </ul>
          {fingerprint && (
            <>
              <p className="text-quiet">
                The way there is encrypted by a certificate that this machine made. A device warns of it until it trusts
                it; on the device,{' '}
                <a className="underline" href="/trust" target="_blank" rel="noreferrer">
                  how to trust it
                </a>{' '}
                is at <span className="font-mono break-all">{addresses[0]}/trust</span>. Before that, compare its
                fingerprint:
              </p>
              <p
                aria-label="Fingerprint of the certificate"
                className="my-2 max-w-[36ch] font-mono text-sm break-words"
              >
                {fingerprint}
              </p>
            </>
          )}
        </>
      ) : (
        <p className="text-quiet">
          Shut: nothing but this machine reaches the program. Open it to photograph papers with a phone, or to let
          somebody in at another computer of your network.
        </p>
      )}
      {!byProxy && (
        <Button
          className="mt-2"
          main={!open}
          disabled={change.isPending}
          onClick={() => change.mutate({ body: { open: !open } })}
        >
          {open ? 'Shut the door' : 'Open the door'}
        </Button>
      )}
    </section>
  );
}

const ONLY_CAPTURE = '';

/** Asks what the device is called and as whom it comes in, and shows the code to hold its camera at. */
function LetIn({ people }: { people: Person[] }) {
  const owner = people.find(({ role }) => role === 'owner')?.id ?? ONLY_CAPTURE;
  const [name, setName] = useState('');
  const [person, setPerson] = useState<string>();
  const [shown, setShown] = useState<Pairing & { name: string; person?: string }>();
  const make = useChange(endpoints.letDeviceIn, ['people'], (pairing, { body }) =>
    setShown({ ...pairing, name: body.name, person: body.person }),
  );
  const as = person ?? owner;
  if (shown) return <Code {...shown} people={people} onDone={() => setShown(undefined)} />;
  return (
    <form
      className="flex flex-col gap-3"
      onSubmit={(event) => {
        event.preventDefault();
        const body = newDevice.cast({ name, person: as === ONLY_CAPTURE ? undefined : as });
        make.mutate({ body });
      }}
    >
      <h2 className="text-lg font-semibold">Let a device in</h2>
      <label>
        <span className="mb-1 block text-quiet">What is it called?</span>
        <input
          className={inputLook}
          placeholder="Phone in the kitchen"
          maxLength={60}
          value={name}
          onChange={(event) => setName(event.target.value)}
        />
      </label>
      <Choice
        label="It comes in"
        shown
        value={as}
        choices={[
          ...people.map(({ id, name: who, role }) => ({ value: id, name: role === 'owner' ? 'as you' : `as ${who}` })),
          { value: ONLY_CAPTURE, name: 'by itself, only to capture' },
        ]}
        onChange={setPerson}
      />
      <Button main type="submit" className="self-start" disabled={name.trim() === '' || make.isPending}>
        Show the code
      </Button>
    </form>
  );
}

function Code({
  name,
  person,
  code,
  address,
  goodUntil,
  onDone,
}: Pairing & { name: string; person?: string; people: Person[]; onDone: () => void }) {
  const { data: people = [] } = usePeople();
  const left = useSecondsUntil(goodUntil);
  const isIn = people.some(
    (each) =>
      (person ? each.id === person : each.name === name) &&
      each.sessions.some(
        ({ device, since }) => device === name && Date.parse(since) > Date.parse(goodUntil) - CODE_LASTS_MS,
      ),
  );
  return (
    <section aria-label={`The code for ${name}`} className="flex flex-col items-start gap-3">
      <h2 className="text-lg font-semibold">{isIn ? `“${name}” is in` : `Hold the camera of “${name}” at this`}</h2>
      {!isIn && left > 0 && (
        <>
          <SquareCode rows={code} name={`Code that lets “${name}” in`} />
          <p className="text-quiet">
            Or open <span className="font-mono text-sm break-all select-all">{address}</span> there.
          </p>
        </>
      )}
      <p role="status">
        {isIn
          ? 'The code is used up. You can end its session in this list at any time.'
          : left > 0
            ? `Good once, for ${Math.floor(left / 60)}:${String(left % 60).padStart(2, '0')} more.`
            : 'The code is good no more.'}
      </p>
      <Button main={isIn || left <= 0} onClick={onDone}>
        {isIn ? 'Let another device in' : left > 0 ? 'Cancel' : 'Make another code'}
      </Button>
    </section>
  );
}

const CODE_LASTS_MS = 5 * 60_000;

function useSecondsUntil(moment: string): number {
  const left = () => Math.max(0, Math.ceil((Date.parse(moment) - Date.now()) / 1000));
  const [seconds, setSeconds] = useState(left);
  useEffect(() => {
    const timer = setInterval(() => setSeconds(left()), 1000);
    return () => clearInterval(timer);
  });
  return seconds;
}
