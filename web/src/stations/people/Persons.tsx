import { FormEvent, useState } from 'react';
import { JOINING, newPerson, Person } from '@crow/contract/people';
import { endpoints } from '@crow/contract/endpoints';
import { Button, inputLook } from '../../parts/controls';
import { useNotices } from '../../parts/notices';
import { useChange, useFolders, usePeople } from '../../queries';
import { Sessions } from './Sessions';

const ROLES: Record<(typeof JOINING)[number], { name: string; may: string }> = {
  helper: {
    name: 'Helper',
    may: 'takes in, sorts, checks, files and finds. Settings, the bin and watched folders stay yours.',
  },
  reader: { name: 'Reader', may: 'finds, opens and takes copies of what is filed, and changes nothing.' },
};
const ROLE_NAMES: Record<string, string> = { owner: 'owner', helper: 'helper', reader: 'reader' };

/** Who comes in by name and pass phrase, what they may do, and what they are in by. */
export function Persons() {
  const { data: people = [] } = usePeople();
  return (
    <div className="mx-auto grid max-w-5xl items-start gap-x-12 gap-y-8 p-4 md:grid-cols-[minmax(0,1fr)_22rem] md:p-8">
      <ul className="divide-y divide-rule border-y border-rule">
        {people
          .filter(({ role }) => role !== 'device')
          .map((person) => (
            <One key={person.id} person={person} />
          ))}
      </ul>
      <LetIn />
    </div>
  );
}

const EMPTY = { name: '', passPhrase: '', role: 'helper' as const, allFolders: true, folders: [] as string[] };

function LetIn() {
  const [adding, setAdding] = useState<Omit<typeof EMPTY, 'role'> & { role: (typeof JOINING)[number] }>(EMPTY);
  const [wrong, setWrong] = useState<string>();
  const { tell } = useNotices();
  const add = useChange(endpoints.addPerson, ['people'], (_, { body }) => {
    setAdding(EMPTY);
    tell({ text: `${body.name} can come in by name and pass phrase.` });
  });
  const submit = async (event: FormEvent) => {
    event.preventDefault();
    try {
      const body = await newPerson.validate(adding);
      setWrong(undefined);
      add.mutate({ body });
    } catch (error) {
      setWrong((error as Error).message);
    }
  };
  return (
    <form className="flex flex-col gap-3" onSubmit={(event) => void submit(event)}>
      <h2 className="text-lg font-semibold">Let somebody in</h2>
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
      <fieldset>
        <legend className="mb-1 text-quiet">As</legend>
        {JOINING.map((role) => (
          <label key={role} className="flex items-start gap-2 py-1">
            <input
              type="radio"
              name="role"
              className="mt-1 accent-accent"
              checked={adding.role === role}
              onChange={() => setAdding({ ...adding, role })}
            />
            <span>
              <strong className="font-semibold">{ROLES[role].name}</strong> {ROLES[role].may}
            </span>
          </label>
        ))}
      </fieldset>
      {adding.role === 'reader' && (
        <FolderChoice value={adding} onChange={(folders) => setAdding({ ...adding, ...folders })} />
      )}
      <p role="status" className="text-attention">
        {wrong}
      </p>
      <Button
        main
        type="submit"
        className="self-start"
        disabled={adding.name.trim() === '' || adding.passPhrase === '' || add.isPending}
      >
        Let in
      </Button>
    </form>
  );
}

interface Granted {
  allFolders: boolean;
  folders: string[];
}

/** Which folders a reader sees: all, or some with what lies in them. */
function FolderChoice({ value, onChange }: { value: Granted; onChange: (value: Granted) => void }) {
  const { data: folders = [] } = useFolders();
  const { allFolders, folders: chosen } = value;
  return (
    <fieldset>
      <legend className="mb-1 text-quiet">Sees</legend>
      <label className="flex items-center gap-2 py-1">
        <input
          type="checkbox"
          className="accent-accent"
          checked={allFolders}
          onChange={() => onChange({ allFolders: !allFolders, folders: chosen })}
        />
        all folders
      </label>
      {!allFolders && (
        <ul aria-label="Folders" className="max-h-52 overflow-y-auto border border-rule bg-raised px-2 py-1">
          {folders.length === 0 && <li className="py-1 text-quiet">There are no folders yet.</li>}
          {folders.map(({ id, path, parentId }) => {
            const above = chosen.some((each) => path.startsWith(`${folders.find((f) => f.id === each)?.path}/`));
            return (
              <li key={id}>
                <label
                  className="flex items-center gap-2 py-0.5"
                  style={{ paddingLeft: parentId ? 16 * (path.split('/').length - 1) : 0 }}
                >
                  <input
                    type="checkbox"
                    className="accent-accent"
                    checked={above || chosen.includes(id)}
                    disabled={above}
                    onChange={() =>
                      onChange({
                        allFolders,
                        folders: chosen.includes(id) ? chosen.filter((each) => each !== id) : [...chosen, id],
                      })
                    }
                  />
                  {path.split('/').at(-1)}
                </label>
              </li>
            );
          })}
        </ul>
      )}
    </fieldset>
  );
}

function One({ person }: { person: Person }) {
  const { id, name, role, byPhrase, allFolders, folders, sessions } = person;
  const remove = useChange(endpoints.removePerson, ['people']);
  const [asked, setAsked] = useState(false);
  const sees = allFolders ? 'all folders' : folders.map(({ path }) => path).join(', ') || 'no folder';
  return (
    <li className="py-3">
      <p className="flex items-center gap-2">
        <span className="min-w-0 flex-1 truncate text-lg font-semibold">
          {name} <span className="text-base font-normal text-quiet">{ROLE_NAMES[role]}</span>
        </span>
        {role !== 'owner' &&
          (asked ? (
            <>
              <Button onClick={() => remove.mutate({ params: { id } })}>Let in no more</Button>
              <Button onClick={() => setAsked(false)}>Cancel</Button>
            </>
          ) : (
            <button type="button" className="underline" aria-label={`Remove ${name}`} onClick={() => setAsked(true)}>
              Remove
            </button>
          ))}
      </p>
      {role === 'reader' && (
        <OtherFolders id={id} name={name} sees={sees} now={{ allFolders, folders: folders.map((each) => each.id) }} />
      )}
      <Sessions name={name} sessions={sessions} />
      {byPhrase && <AnotherPhrase id={id} name={name} />}
    </li>
  );
}

function OtherFolders({ id, name, sees, now }: { id: string; name: string; sees: string; now: Granted }) {
  const [changing, setChanging] = useState<Granted>();
  const change = useChange(endpoints.changeFolders, ['people'], () => setChanging(undefined));
  if (!changing)
    return (
      <p>
        Sees {sees}.{' '}
        <button
          type="button"
          className="underline"
          aria-label={`Other folders for ${name}`}
          onClick={() => setChanging(now)}
        >
          Other folders
        </button>
      </p>
    );
  return (
    <div className="flex flex-col items-start gap-2 py-1">
      <FolderChoice value={changing} onChange={setChanging} />
      <span className="flex gap-2">
        <Button main onClick={() => change.mutate({ params: { id }, body: changing })}>
          Save
        </Button>
        <Button onClick={() => setChanging(undefined)}>Cancel</Button>
      </span>
    </div>
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
        Save
      </Button>
      <Button onClick={() => setTyped(undefined)}>Cancel</Button>
    </div>
  );
}
