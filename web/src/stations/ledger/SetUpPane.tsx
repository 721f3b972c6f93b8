import { useState } from 'react';
import { endpoints } from '@crow/contract/endpoints';
import { Account, ACCOUNT_KINDS, Books, Category } from '@crow/contract/ledger';
import { isDay } from '@crow/core/reading/dayForms';
import { BOOK_COUNTRIES, BookCountry, CURRENCY_OF } from '@crow/core/ledger/books/taxCodes';
import { ACCOUNT_NAMES } from '../../parts/books/words';
import { AmountField } from '../../parts/books/PartsEditor';
import { shownDay, typedDay } from '../../parts/days';
import { Button, Choice, inputLook, Tick } from '../../parts/controls';
import { useChange, useFolders } from '../../queries';
import { Senders } from './Senders';

const COUNTRY_NAMES: Record<BookCountry, string> = {
  GB: 'United Kingdom',
  DE: 'Germany',
  FR: 'France',
  CH: 'Switzerland',
  US: 'United States',
};

/** How the books are kept: whose tax they know, whether papers are entered by themselves, categories and accounts. */
export function SetUpPane({ books }: { books: Books }) {
  const change = useChange(endpoints.changeBooks, ['ledger']);
  return (
    <div className="min-h-0 flex-1 space-y-6 overflow-y-auto p-4 md:px-6">
      <div className="space-y-2">
        <Choice
          label="Tax and money of"
          shown
          value={books.country}
          choices={BOOK_COUNTRIES.map((value) => ({ value, name: COUNTRY_NAMES[value] }))}
          onChange={(country) => change.mutate({ body: { country } })}
        />
        <div className="flex max-w-96 items-center gap-2">
          <span aria-hidden className="shrink-0">
            Books of
          </span>
          <Name
            label="Whose books these are"
            name={books.holder}
            onChange={(holder) => change.mutate({ body: { holder } })}
          />
        </div>
        <Tick checked={books.byThemselves} onChange={(byThemselves) => change.mutate({ body: { byThemselves } })}>
          Bills and receipts are entered when they are filed, unless I say otherwise for one of them or its sender
        </Tick>
        <EnteredFolders folders={books.folders} />
      </div>
      <div className="flex flex-wrap items-start gap-x-12 gap-y-6">
        <Categories categories={books.categories} />
        <div className="max-w-full space-y-6">
          <Accounts accounts={books.accounts} currency={CURRENCY_OF[books.country]} />
          <LineRules rules={books.lineRules} />
        </div>
      </div>
      <Senders categories={books.categories} />
    </div>
  );
}

/** Folders of which all papers are entered, or none by themselves. */
function EnteredFolders({ folders }: { folders: Books['folders'] }) {
  const { data: all = [] } = useFolders();
  const change = useChange(endpoints.changeBooks, ['ledger']);
  const [path, setPath] = useState('');
  const put = (to: { folderId: string; enters: boolean }[]) =>
    change.mutate({ body: { folders: to.map(({ folderId, enters }) => ({ folderId, enters })) } });
  const chosen = all.find((folder) => folder.path === path);
  const add = (enters: boolean) => {
    if (!chosen) return;
    put([...folders.filter(({ folderId }) => folderId !== chosen.id), { folderId: chosen.id, enters }]);
    setPath('');
  };
  return (
    <section aria-label="Folders and the books" className="max-w-[640px] text-sm">
      <ul>
        {folders.map(({ folderId, path: own, enters }) => (
          <li key={folderId} className="flex items-center gap-3 border-b border-rule py-1">
            <span className="min-w-0 flex-1 truncate">
              What is filed in {own.replaceAll('/', ' / ')} is{' '}
              {enters ? 'entered, whatever kind it is' : 'not entered by itself'}
            </span>
            <button
              className="shrink-0 text-xs text-quiet underline underline-offset-2 hover:text-ink"
              aria-label={`As elsewhere in ${own}`}
              onClick={() => put(folders.filter((each) => each.folderId !== folderId))}
            >
              as elsewhere
            </button>
          </li>
        ))}
      </ul>
      <div className="mt-1 flex flex-wrap items-center gap-2">
        <Choice
          label="Otherwise in"
          shown
          value={path}
          choices={[{ value: '', name: 'a folder …' }, ...all.map((each) => ({ value: each.path, name: each.path }))]}
          onChange={setPath}
        />
        <Button disabled={!chosen} onClick={() => add(true)}>
          Enter everything
        </Button>
        <Button disabled={!chosen} onClick={() => add(false)}>
          Enter nothing by itself
        </Button>
      </div>
    </section>
  );
}

/** A name that is typed over; what is left empty is put back. */
function Name({
  label,
  name,
  hint,
  onChange,
}: {
  label: string;
  name: string;
  hint?: string;
  onChange: (name: string) => void;
}) {
  const [typed, setTyped] = useState<string>();
  const leave = () => {
    const to = typed?.trim();
    setTyped(undefined);
    if (to && to !== name) onChange(to);
  };
  return (
    <input
      aria-label={label}
      className="h-8 w-full border-b border-rule bg-transparent outline-none focus:border-accent focus:bg-raised"
      maxLength={60}
      placeholder={hint}
      value={typed ?? name}
      onChange={({ target }) => setTyped(target.value)}
      onBlur={leave}
      onKeyDown={(event) => {
        if (event.key === 'Enter') leave();
        if (event.key === 'Escape') setTyped(undefined);
      }}
    />
  );
}

function Retire({ retired, name, onChange }: { retired: boolean; name: string; onChange: (retired: boolean) => void }) {
  return (
    <button
      className="shrink-0 text-xs text-quiet underline underline-offset-2 hover:text-ink"
      aria-label={retired ? `Use ${name} again` : `Do not use ${name} any more`}
      onClick={() => onChange(!retired)}
    >
      {retired ? 'use again' : 'retire'}
    </button>
  );
}

/** What was on an account at the beginning of a day. */
function Opening({
  account,
  currency,
  opening,
  onChange,
}: {
  account: string;
  currency: string;
  opening: Account['opening'];
  onChange: (opening: Account['opening']) => void;
}) {
  const [day, setDay] = useState<string>();
  const shown = opening ? shownDay(opening.day) : '';
  const leave = () => {
    const to = day === undefined ? '' : typedDay(day);
    setDay(undefined);
    if (isDay(to) && to !== opening?.day) onChange({ day: to, units: opening?.units ?? 0 });
    else if (day === '' && opening) onChange(null);
  };
  if (!opening)
    return (
      <button
        className="w-52 shrink-0 text-right text-xs text-quiet underline underline-offset-2 hover:text-ink"
        aria-label={`Say what was on ${account} at the beginning`}
        onClick={() => onChange({ day: `${new Date().getFullYear()}-01-01`, units: 0 })}
      >
        say its balance
      </button>
    );
  return (
    <span className="flex w-52 shrink-0 items-center gap-1 text-xs text-quiet">
      <span className="w-24">
        <AmountField
          label={`Balance of ${account} at the beginning`}
          units={opening.units}
          currency={currency}
          onChange={(units) => onChange({ day: opening.day, units })}
        />
      </span>
      on
      <input
        aria-label={`Day on which the balance of ${account} begins`}
        className="h-7 w-24 border-b border-rule bg-transparent font-mono outline-none focus:border-accent focus:bg-raised"
        value={day ?? shown}
        onChange={({ target }) => setDay(target.value)}
        onBlur={leave}
        onKeyDown={(event) => {
          if (event.key === 'Enter') leave();
          if (event.key === 'Escape') setDay(undefined);
        }}
      />
    </span>
  );
}

function Categories({ categories }: { categories: Category[] }) {
  const make = useChange(endpoints.makeCategory, ['ledger']);
  const change = useChange(endpoints.changeCategory, ['ledger']);
  const [name, setName] = useState('');
  const [side, setSide] = useState<Category['side']>('cost');
  return (
    <section aria-label="Categories" className="w-80">
      <h2 className="mb-1 font-semibold">Categories</h2>
      <ul>
        {categories.map(({ id, name: own, side: of, retired }) => (
          <li key={id} className={`flex items-center gap-3 ${retired ? 'opacity-60' : ''}`}>
            <Name
              label={`Name of ${own}`}
              name={own}
              onChange={(to) => change.mutate({ params: { id }, body: { name: to } })}
            />
            {of === 'income' && <span className="text-xs text-quiet">income</span>}
            <Retire
              name={own}
              retired={retired}
              onChange={(to) => change.mutate({ params: { id }, body: { retired: to } })}
            />
          </li>
        ))}
      </ul>
      <form
        className="mt-2 flex gap-2"
        onSubmit={(event) => {
          event.preventDefault();
          if (name.trim()) make.mutate({ body: { name: name.trim(), side } }, () => setName(''));
        }}
      >
        <input
          aria-label="A new category"
          className={inputLook}
          placeholder="A new category"
          maxLength={80}
          value={name}
          onChange={({ target }) => setName(target.value)}
        />
        <span className="shrink-0">
          <Choice
            label="Of"
            value={side}
            choices={[
              { value: 'cost', name: 'costs' },
              { value: 'income', name: 'income' },
            ]}
            onChange={(to) => setSide(to as Category['side'])}
          />
        </span>
        <Button type="submit">Add</Button>
      </form>
    </section>
  );
}

/** How lines of statements without bills are entered. */
function LineRules({ rules }: { rules: Books['lineRules'] }) {
  const forget = useChange(endpoints.forgetLineRule, ['ledger']);
  if (rules.length === 0) return null;
  return (
    <section aria-label="Lines without bills" className="w-[560px] max-w-full">
      <h2 className="mb-1 font-semibold">Lines without bills</h2>
      <ul>
        {rules.map(({ id, key, outward, who, what }) => (
          <li key={id} className="flex items-center gap-3 border-b border-rule py-1">
            <span className="min-w-0 flex-1 truncate">
              <span className="font-mono text-xs">{key}</span> {outward ? '' : '(coming in) '}is entered as {who}
              {what && `, ${what}`}
            </span>
            <button
              className="shrink-0 text-xs text-quiet underline underline-offset-2 hover:text-ink"
              onClick={() => forget.mutate({ params: { id } })}
            >
              forget
            </button>
          </li>
        ))}
      </ul>
    </section>
  );
}

function Accounts({ accounts, currency }: { accounts: Account[]; currency: string }) {
  const make = useChange(endpoints.makeAccount, ['ledger']);
  const change = useChange(endpoints.changeAccount, ['ledger']);
  const [name, setName] = useState('');
  const [kind, setKind] = useState<Account['kind']>('bank');
  return (
    <section aria-label="Accounts" className="w-[740px] max-w-full">
      <h2 className="mb-1 font-semibold">Accounts</h2>
      <ul>
        {accounts.map(({ id, name: own, kind: of, currency: money, number, retired, opening }) => (
          <li key={id} className={`flex flex-wrap items-center gap-x-3 sm:flex-nowrap ${retired ? 'opacity-60' : ''}`}>
            <Name
              label={`Name of ${own}`}
              name={own}
              onChange={(to) => change.mutate({ params: { id }, body: { name: to } })}
            />
            {of === 'cash' ? (
              <span className="w-full" />
            ) : (
              <Name
                label={`IBAN or number of ${own}`}
                hint="IBAN or number"
                name={number}
                onChange={(to) => change.mutate({ params: { id }, body: { number: to } })}
              />
            )}
            <span className="w-20 shrink-0 text-xs whitespace-nowrap text-quiet">
              {ACCOUNT_NAMES[of]}, {money}
            </span>
            <Opening
              account={own}
              currency={money}
              opening={opening}
              onChange={(to) => change.mutate({ params: { id }, body: { opening: to } })}
            />
            <Retire
              name={own}
              retired={retired}
              onChange={(to) => change.mutate({ params: { id }, body: { retired: to } })}
            />
          </li>
        ))}
      </ul>
      <form
        className="mt-2 flex gap-2"
        onSubmit={(event) => {
          event.preventDefault();
          if (name.trim()) make.mutate({ body: { name: name.trim(), kind, currency, number: '' } }, () => setName(''));
        }}
      >
        <input
          aria-label="A new account"
          className={inputLook}
          placeholder="A new account"
          maxLength={80}
          value={name}
          onChange={({ target }) => setName(target.value)}
        />
        <span className="shrink-0">
          <Choice
            label="Kind"
            value={kind}
            choices={ACCOUNT_KINDS.map((value) => ({ value, name: ACCOUNT_NAMES[value] }))}
            onChange={setKind}
          />
        </span>
        <Button type="submit">Add</Button>
      </form>
    </section>
  );
}
