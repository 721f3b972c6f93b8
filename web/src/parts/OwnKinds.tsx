import { useState } from 'react';
import { X } from 'lucide-react';
import { OwnKind, ownKind } from '@crow/contract/settings';
import { endpoints } from '@crow/contract/endpoints';
import { KINDS } from '@crow/core/reading/facts/kindList';
import { useChange, useSettings } from '../queries';
import { Button, inputLook } from './controls';
import { kindName } from './words';

const EMPTY: OwnKind = { name: '', like: 'other', words: [] };

/** Kinds of papers that the list does not have: what they are called, which kind they are like, and what their heading says. */
export default function OwnKinds() {
  const { data: settings } = useSettings();
  const [adding, setAdding] = useState(EMPTY);
  const [wrong, setWrong] = useState<string>();
  const save = useChange(endpoints.changeSettings, ['settings', 'document']);
  const own = settings?.ownKinds ?? [];
  const keep = (ownKinds: OwnKind[], done?: () => void) =>
    save.mutateAsync({ body: { ownKinds } }).then(done, () => undefined);
  const add = async () => {
    try {
      const kind = await ownKind.validate({ ...adding, name: adding.name.trim().toLowerCase() });
      if (own.some(({ name }) => name === kind.name)) throw new Error('There is such a kind already.');
      const words = kind.words.length > 0 ? kind.words : [kind.name];
      setWrong(undefined);
      await keep([...own, { ...kind, words }], () => setAdding(EMPTY));
    } catch (error) {
      setWrong((error as Error).message);
    }
  };
  return (
    <form
      className="mt-4 border-t border-rule pt-3 text-sm"
      onSubmit={(event) => {
        event.preventDefault();
        void add();
      }}
    >
      <h2 className="text-base font-semibold">Kinds of papers of your own</h2>
      {own.length > 0 && (
        <ul className="mt-1">
          {own.map(({ name, like, words }) => (
            <li key={name} className="flex items-start gap-2 py-1">
              <span className="min-w-0 flex-1">
                {kindName(name)}{' '}
                <span className="text-quiet">
                  like {kindName(like).toLowerCase()}; “{words.join('”, “')}”
                </span>
              </span>
              <button
                type="button"
                aria-label={`Remove the kind ${kindName(name)}`}
                onClick={() => void keep(own.filter((each) => each.name !== name))}
              >
                <X size={14} />
              </button>
            </li>
          ))}
        </ul>
      )}
      <div className="mt-2 grid grid-cols-2 gap-2">
        <label>
          <span className="mb-1 block text-quiet">What it is called</span>
          <input
            className={inputLook}
            value={adding.name}
            placeholder="membership"
            onChange={(event) => setAdding({ ...adding, name: event.target.value })}
          />
        </label>
        <label>
          <span className="mb-1 block text-quiet">Its papers are like</span>
          <select
            className={`${inputLook} cursor-pointer`}
            value={adding.like}
            onChange={(event) => setAdding({ ...adding, like: event.target.value as OwnKind['like'] })}
          >
            {KINDS.map((kind) => (
              <option key={kind} value={kind}>
                {kindName(kind)}
              </option>
            ))}
          </select>
        </label>
        <label className="col-span-2">
          <span className="mb-1 block text-quiet">Words in its heading, with commas between</span>
          <input
            className={inputLook}
            value={adding.words.join(',')}
            placeholder="membership card, annual subscription"
            onChange={(event) => setAdding({ ...adding, words: event.target.value.split(',') })}
            onBlur={() =>
              setAdding({ ...adding, words: adding.words.map((each) => each.trim()).filter((each) => each !== '') })
            }
          />
        </label>
      </div>
      <p role="status" className="mt-1 text-attention">
        {wrong}
      </p>
      <Button type="submit" disabled={adding.name.trim() === '' || save.isPending}>
        Add
      </Button>
    </form>
  );
}
