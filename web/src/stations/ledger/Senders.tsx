import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { endpoints } from '@crow/contract/endpoints';
import { Category, Sender } from '@crow/contract/ledger';
import { ask } from '../../api';
import { inputLook } from '../../parts/controls';
import { shownDay } from '../../parts/days';
import { useNotices } from '../../parts/notices';
import { count } from '../../parts/words';
import { useChange } from '../../queries';

/** So many are shown at once; the field finds the others. */
const MOST_SHOWN = 60;
const AS_BEFORE = '';

/** Who sends bills: what their papers say, to be put right. */
export function Senders({ categories }: { categories: readonly Category[] }) {
  const { data: senders = [] } = useQuery({
    queryKey: ['books', 'senders'],
    queryFn: () => ask(endpoints.listSenders, {}),
  });
  const [words, setWords] = useState('');
  if (senders.length === 0) return null;
  const wanted = words.trim().toLowerCase();
  const found = senders.filter(({ name, address, taxNumber, iban }) =>
    `${name} ${address} ${taxNumber} ${iban}`.toLowerCase().includes(wanted),
  );
  return (
    <section aria-label="Senders" className="max-w-full overflow-x-auto">
      <h2 className="mb-1 font-semibold">Senders</h2>
      <p className="mb-2 max-w-[640px] text-sm text-quiet">
        Whoever sends a bill is known from the first one that is entered. Where a later one names another bank account,
        you are told before you pay.
      </p>
      <input
        type="search"
        aria-label="Find a sender"
        placeholder="Name, address, number"
        className={`${inputLook} mb-2 max-w-64`}
        value={words}
        onChange={({ target }) => setWords(target.value)}
      />
      <table className="w-full min-w-[900px] text-sm" aria-label="Senders">
        <thead>
          <tr className="text-left">
            {['Name', 'Address', 'Tax number', 'Bank account', 'Entered under', 'Entries'].map((name) => (
              <th key={name} scope="col" className="border-b border-rule py-1 pr-4 font-semibold">
                {name}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {found.slice(0, MOST_SHOWN).map((sender) => (
            <SenderRow key={sender.id} sender={sender} categories={categories} />
          ))}
        </tbody>
      </table>
      {found.length > MOST_SHOWN && (
        <p className="mt-1 text-sm text-quiet">
          {count(found.length - MOST_SHOWN, 'more sender')}: type a part of a name.
        </p>
      )}
    </section>
  );
}

function SenderRow({ sender, categories }: { sender: Sender; categories: readonly Category[] }) {
  const { id, name, categoryId, entries, last } = sender;
  const { tell } = useNotices();
  const change = useChange(endpoints.changeSender, ['ledger']);
  const put = (field: 'address' | 'taxNumber' | 'iban', to: string) =>
    change.mutate({ params: { id }, body: { [field]: to } }, () =>
      tell({
        text: `${name} is changed.`,
        action: { label: 'Undo', run: () => change.mutate({ params: { id }, body: { [field]: sender[field] } }) },
      }),
    );
  return (
    <tr className="border-b border-rule">
      <th scope="row" className="max-w-56 truncate py-1 pr-4 text-left font-normal">
        {name}
      </th>
      {(
        [
          ['address', 'Address'],
          ['taxNumber', 'Tax number'],
          ['iban', 'Bank account'],
        ] as const
      ).map(([field, label]) => (
        <td key={field} className="pr-4">
          <Cell
            label={`${label} of ${name}`}
            value={sender[field]}
            mono={field !== 'address'}
            onChange={(to) => put(field, to)}
          />
        </td>
      ))}
      <td className="pr-4">
        <select
          aria-label={`Under what bills of ${name} are entered`}
          className="h-7 w-full min-w-36 cursor-pointer border-b border-rule bg-transparent"
          value={categoryId ?? AS_BEFORE}
          onChange={({ target }) => change.mutate({ params: { id }, body: { categoryId: target.value || null } })}
        >
          <option value={AS_BEFORE}>as those before</option>
          {categories
            .filter((each) => !each.retired || each.id === categoryId)
            .map((each) => (
              <option key={each.id} value={each.id}>
                {each.name}
              </option>
            ))}
        </select>
      </td>
      <td className="font-mono whitespace-nowrap">
        {entries}
        {last && <span className="text-xs text-quiet"> {shownDay(last)}</span>}
      </td>
    </tr>
  );
}

/** A text that is typed over, and may be emptied. */
function Cell({
  label,
  value,
  mono,
  onChange,
}: {
  label: string;
  value: string;
  mono: boolean;
  onChange: (to: string) => void;
}) {
  const [typed, setTyped] = useState<string>();
  const leave = () => {
    setTyped(undefined);
    if (typed !== undefined && typed.trim() !== value) onChange(typed.trim());
  };
  return (
    <input
      aria-label={label}
      title={value}
      className={`h-7 w-full min-w-40 border-b border-rule bg-transparent text-ellipsis outline-none focus:border-accent focus:bg-raised ${mono ? 'font-mono text-xs' : ''}`}
      maxLength={300}
      value={typed ?? value}
      onChange={({ target }) => setTyped(target.value)}
      onBlur={leave}
      onKeyDown={(event) => {
        if (event.key === 'Enter') event.currentTarget.blur();
        if (event.key === 'Escape') setTyped(undefined);
      }}
    />
  );
}
