import { FormEvent, useState } from 'react';
import { addressOf } from '@crow/contract/client';
import { endpoints } from '@crow/contract/endpoints';
import { LONGEST_PLACE, Place, Sheet } from '@crow/contract/keeping';
import { Button, inputLook, Tick } from '../../../parts/controls';
import { useNotices } from '../../../parts/notices';
import { count } from '../../../parts/words';
import { useChange } from '../../../queries';

/** Boxes and binders: how many sheets lie in each, into which sheets go now, and their labels. */
export function Places({
  places,
  sheets,
  onLook,
}: {
  places: readonly Place[];
  sheets: readonly Sheet[];
  onLook: (id: string) => void;
}) {
  const { tell } = useNotices();
  const make = useChange(endpoints.makePlace, ['sheet']);
  const change = useChange(endpoints.changePlace, ['sheet']);
  const [name, setName] = useState('');
  const inUse = places.filter(({ retired }) => !retired);
  const add = (event: FormEvent) => {
    event.preventDefault();
    if (name.trim()) make.mutate({ body: { name: name.trim() } }, () => setName(''));
  };
  const retire = ({ id, name: its }: Place, takes: boolean) =>
    change.mutate({ params: { id }, body: { retired: true } }, () =>
      tell({
        text: `“${its}” is not chosen any more; what lies in it stays there.`,
        action: { label: 'Undo', run: () => change.mutate({ params: { id }, body: { retired: false, takes } }) },
      }),
    );
  const lying = (id: string) => sheets.filter(({ placeId, state }) => placeId === id && state !== 'gone').length;
  return (
    <aside
      aria-label="Boxes and binders"
      className="max-h-64 shrink-0 space-y-3 overflow-y-auto border-t border-rule p-4 lg:max-h-none lg:w-72 lg:border-t-0 lg:border-l"
    >
      <h2 className="font-semibold">Boxes and binders</h2>
      {inUse.length === 0 && (
        <p className="text-sm text-quiet">
          Say where sheets lie, and each is found again. Print a label for each; held before the camera, it is known.
        </p>
      )}
      <ul className="space-y-3">
        {inUse.map((place) => (
          <li key={place.id} className="border-b border-rule pb-2">
            <button
              className="block max-w-full truncate text-left font-semibold hover:underline"
              onClick={() => onLook(place.id)}
            >
              {place.name}
              <span className="ml-2 font-mono text-sm font-normal text-quiet">{count(lying(place.id), 'sheet')}</span>
            </button>
            <Tick
              checked={place.takes}
              onChange={(takes) => change.mutate({ params: { id: place.id }, body: { takes } })}
            >
              What is filed goes here
            </Tick>
            <span className="flex gap-4 text-sm">
              <a
                className="underline underline-offset-2"
                target="_blank"
                rel="noreferrer"
                href={addressOf(endpoints.placeLabels, { query: { id: place.id } })}
              >
                Print its label
              </a>
              <button className="underline underline-offset-2" onClick={() => retire(place, place.takes)}>
                Not used any more
              </button>
            </span>
          </li>
        ))}
      </ul>
      <form onSubmit={add} className="flex gap-2">
        <input
          className={inputLook}
          aria-label="Name of another box or binder"
          placeholder="Another box or binder"
          maxLength={LONGEST_PLACE}
          value={name}
          onChange={({ target }) => setName(target.value)}
        />
        <Button type="submit" disabled={!name.trim()}>
          Add
        </Button>
      </form>
      {inUse.length > 1 && (
        <a
          className="block text-sm underline underline-offset-2"
          target="_blank"
          rel="noreferrer"
          href={addressOf(endpoints.placeLabels, { query: {} })}
        >
          Print all labels
        </a>
      )}
    </aside>
  );
}
