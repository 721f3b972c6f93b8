import { useState } from 'react';
import { endpoints } from '@crow/contract/endpoints';
import { useChange, useLanguages, useSettings } from '../queries';
import { Button, inputLook } from './controls';

/** The languages that papers are in; the first one chosen is the usual one. Others can be added. */
export function LanguageChoice() {
  const { data: settings } = useSettings();
  const { data: known } = useLanguages();
  const save = useChange(endpoints.changeSettings, ['settings']);
  const chosen = settings?.languages ?? [];
  const toggle = (code: string) => {
    const languages = chosen.includes(code) ? chosen.filter((each) => each !== code) : [...chosen, code];
    if (languages.length > 0) save.mutate({ body: { languages } });
  };
  return (
    <>
      <h2 className="mt-4 border-t border-rule pt-3 font-semibold">Languages of your papers</h2>
      <p className="mb-2 text-sm text-quiet">
        The language of each paper is detected. The fewer you choose, the faster and better they are read. The first one
        chosen is the default.
      </p>
      {known?.installed.map(({ code, name }) => {
        const place = chosen.indexOf(code);
        return (
          <label key={code} className="flex items-center gap-2 py-1">
            <input type="checkbox" className="accent-accent" checked={place >= 0} onChange={() => toggle(code)} />
            {name}
            {place === 0 && <span className="ml-auto text-sm text-quiet">default</span>}
          </label>
        );
      })}
      {known && <AddLanguage addable={known.addable} />}
    </>
  );
}

function AddLanguage({ addable }: { addable: { code: string; name: string }[] }) {
  const [typed, setTyped] = useState('');
  const add = useChange(endpoints.addLanguage, ['settings'], () => setTyped(''));
  const wanted = addable.find(({ name }) => name.toLowerCase() === typed.trim().toLowerCase());
  return (
    <form
      className="mt-2 border-t border-rule pt-3"
      onSubmit={(event) => {
        event.preventDefault();
        if (wanted) add.mutate({ body: { code: wanted.code } });
      }}
    >
      <label className="text-sm" htmlFor="another-language">
        Another language
      </label>
      <div className="mt-1 flex gap-2">
        <input
          id="another-language"
          list="more-languages"
          className={inputLook}
          placeholder="Swedish, Polish …"
          value={typed}
          disabled={add.isPending}
          onChange={(event) => setTyped(event.target.value)}
        />
        <Button type="submit" disabled={!wanted || add.isPending}>
          {add.isPending ? 'Adding …' : 'Add'}
        </Button>
      </div>
      <datalist id="more-languages">
        {addable.map(({ code, name }) => (
          <option key={code} value={name} />
        ))}
      </datalist>
      <p role="status" className="mt-1 text-sm text-quiet">
        {add.isPending
          ? 'Downloading and installing it; this takes about a minute.'
          : typed && !wanted
            ? 'Choose one from the list.'
            : 'It is installed from Debian’s packages, which needs a network connection once.'}
      </p>
    </form>
  );
}
