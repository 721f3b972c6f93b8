import { useId } from 'react';
import { usePlaces } from '../queries';
import { inputLook } from './controls';

/** A folder of the machine that the program runs on, by its path, which is completed from what there is. */
export function PlaceField({
  label,
  value,
  onChange,
}: {
  label: string;
  value: string;
  onChange: (path: string) => void;
}) {
  const list = useId();
  return (
    <label className="block">
      {label}
      <input
        className={`${inputLook} mt-1 font-mono`}
        placeholder="/media/stick/Papers"
        list={list}
        autoComplete="off"
        spellCheck={false}
        value={value}
        onChange={(event) => onChange(event.target.value)}
      />
      <PlaceList id={list} beginning={value} />
    </label>
  );
}

/** The folders of the machine whose paths begin so, for a field to offer. */
export function PlaceList({ id, beginning }: { id: string; beginning: string }) {
  const { data: places = [] } = usePlaces(beginning);
  return (
    <datalist id={id}>
      {places.map((place) => (
        <option key={place} value={place} />
      ))}
    </datalist>
  );
}
