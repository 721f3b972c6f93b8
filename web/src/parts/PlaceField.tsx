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
  const { data: places = [] } = usePlaces(value);
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
      <datalist id={list}>
        {places.map((place) => (
          <option key={place} value={place} />
        ))}
      </datalist>
    </label>
  );
}
