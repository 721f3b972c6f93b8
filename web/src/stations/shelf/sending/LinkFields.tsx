import { NewParcel } from '@crow/contract/sending';
import { Choice, inputLook } from '../../../parts/controls';
import { count } from '../../../parts/words';

export type LinkWish = NonNullable<NewParcel['link']>;
export const USUAL_LINK: LinkWish = { name: '', days: 7, looks: null, password: '' };

const DAYS = [1, 3, 7, 14, 30, 90].map((value) => ({ value, name: `after ${count(value, 'day')}` }));
const ANY = 0;
const LOOKS = [ANY, 1, 3, 10].map((value) => ({
  value,
  name: value ? `after ${count(value, 'look')}` : 'after any number of looks',
}));

/** When a link ends, and what it asks for. */
export function LinkFields({
  value,
  usual,
  onChange,
}: {
  value: LinkWish;
  /** What stands there if nothing is typed. */
  usual: string;
  onChange: (link: LinkWish) => void;
}) {
  const change = (part: Partial<LinkWish>) => onChange({ ...value, ...part });
  return (
    <>
      <label>
        What whoever follows it reads first ({usual} if empty)
        <input
          className={`${inputLook} mt-1`}
          maxLength={120}
          value={value.name}
          onChange={(event) => change({ name: event.target.value })}
        />
      </label>
      <div className="flex flex-wrap items-end gap-x-6 gap-y-2">
        <Choice label="It ends" shown value={value.days} choices={DAYS} onChange={(days) => change({ days })} />
        <Choice
          label="or"
          shown
          value={value.looks ?? ANY}
          choices={LOOKS}
          onChange={(looks) => change({ looks: looks || null })}
        />
        <label className="min-w-56 flex-1">
          Password that the link asks for (none if empty)
          <input
            className={`${inputLook} mt-1`}
            autoComplete="off"
            value={value.password}
            onChange={(event) => change({ password: event.target.value })}
          />
        </label>
      </div>
    </>
  );
}
