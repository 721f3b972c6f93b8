import { ArrowLeft, Plus } from 'lucide-react';
import { useRef, useState } from 'react';
import { useNavigate } from 'react-router';
import { endpoints } from '@crow/contract/endpoints';
import { PDF_SIZES } from '@crow/contract/documents';
import { Settings } from '@crow/contract/settings';
import { KINDS } from '@crow/core/reading/facts/fact';
import { BESIDES, folderBy, nameBy, patternProblem, PLACEHOLDERS, USUAL_PATTERN } from '@crow/core/filing/pattern';
import { Button, Choice, IconButton, inputLook } from '../../parts/controls';
import { FolderInput } from '../../parts/FolderInput';
import { useNotices } from '../../parts/notices';
import { BESIDE_NAMES, KIND_NAMES } from '../../parts/words';
import { useChange, useFilingExamples, useFolders, useSettings } from '../../queries';

type Way = Settings['filing'][number];

/** How papers are named and where they go: ways of filing, each tried on the papers that came last while it is typed. */
export default function WaysOfFiling() {
  const { data: settings } = useSettings();
  return settings ? <Ways saved={settings.filing} /> : null;
}

function Ways({ saved }: { saved: Way[] }) {
  const navigate = useNavigate();
  const { tell } = useNotices();
  const [ways, setWays] = useState(saved);
  const [at, setAt] = useState(0);
  const save = useChange(endpoints.changeSettings, ['settings', 'document']);
  const way = ways[Math.min(at, ways.length - 1)];
  const change = (part: Partial<Way>) =>
    setWays(ways.map((each, index) => (index === at ? { ...each, ...part } : each)));
  const changed = JSON.stringify(ways) !== JSON.stringify(saved);
  const clash = ways.find(({ name }, index) => ways.findIndex((each) => each.name.trim() === name.trim()) !== index);
  const problem =
    ways
      .map(({ name, pattern }) => (name.trim() ? patternProblem(pattern) : 'A way of filing needs a name.'))
      .find(Boolean) ??
    (clash && `There are two ways called “${clash.name}”.`);
  const keep = () => {
    const before = saved;
    const undo = () => {
      setWays(before);
      save.mutate({ body: { languages: undefined, filing: before } });
    };
    const told = () => tell({ text: 'Papers are filed like this from now on.', action: { label: 'Undo', run: undo } });
    save.mutate({ body: { languages: undefined, filing: ways } }, { onSuccess: told });
  };
  return (
    <div className="flex h-full flex-col">
      <header className="flex h-14 shrink-0 items-center gap-3 border-b border-rule px-4">
        <IconButton name="Back to Check" onClick={() => void navigate('/check')}>
          <ArrowLeft size={17} />
        </IconButton>
        <h1 className="mr-auto text-lg font-semibold">How papers are filed</h1>
        {problem && changed && <p className="truncate text-sm text-danger">{problem}</p>}
        <Button disabled={!changed} onClick={() => setWays(saved)}>
          Discard changes
        </Button>
        <Button main disabled={!changed || Boolean(problem) || save.isPending} onClick={keep}>
          Keep
        </Button>
      </header>
      <div className="grid min-h-0 flex-1 grid-cols-[220px_minmax(0,1fr)]">
        <ul aria-label="Ways of filing" className="overflow-y-auto border-r border-rule py-2">
          {ways.map(({ name, kinds, within }, index) => (
            <li key={index}>
              <button
                aria-current={index === at}
                className={`w-full px-4 py-2 text-left ${index === at ? 'bg-accent-soft font-semibold' : 'hover:bg-raised'}`}
                onClick={() => setAt(index)}
              >
                {name || 'No name yet'}
                <span className="block truncate text-xs font-normal text-quiet">
                  {index === 0 ? 'when no other fits' : whenUsed(kinds, within)}
                </span>
              </button>
            </li>
          ))}
          <li className="px-3 pt-2">
            <Button
              onClick={() => {
                setWays([...ways, { ...ways[0], name: '', kinds: [], within: null, folder: null }]);
                setAt(ways.length);
              }}
            >
              <Plus size={15} aria-hidden /> Another way
            </Button>
          </li>
        </ul>
        <Editor
          key={at}
          way={way}
          usual={at === 0}
          onChange={change}
          onRemove={() => {
            setWays(ways.filter((_, index) => index !== at));
            setAt(at - 1);
          }}
        />
      </div>
    </div>
  );
}

function whenUsed(kinds: string[], within: string | null): string {
  const parts = [
    kinds.map((kind) => KIND_NAMES[kind].toLowerCase()).join(', '),
    within && `in ${within.replaceAll('/', ' / ')}`,
  ];
  return parts.filter(Boolean).join(' ') || 'only when chosen';
}

interface EditorProps {
  way: Way;
  usual: boolean;
  onChange: (part: Partial<Way>) => void;
  onRemove: () => void;
}

function Editor({ way, usual, onChange, onRemove }: EditorProps) {
  const { data: folders = [] } = useFolders();
  const field = useRef<HTMLInputElement>(null);
  const problem = patternProblem(way.pattern);
  const insert = (name: string) => {
    const input = field.current;
    const [from, to] = [input?.selectionStart ?? way.pattern.length, input?.selectionEnd ?? way.pattern.length];
    const text = `{${name}}`;
    onChange({ pattern: way.pattern.slice(0, from) + text + way.pattern.slice(to) });
    requestAnimationFrame(() => {
      input?.focus();
      input?.setSelectionRange(from + text.length, from + text.length);
    });
  };
  return (
    <div className="min-w-0 space-y-5 overflow-y-auto px-8 py-6">
      <div className="flex items-end gap-4">
        <label className="w-64">
          <span className="mb-1 block text-sm text-quiet">What it is called</span>
          <input className={inputLook} value={way.name} onChange={(event) => onChange({ name: event.target.value })} />
        </label>
        {!usual && <Button onClick={onRemove}>Delete this way of filing</Button>}
      </div>
      <section>
        <label>
          <span className="mb-1 block text-sm text-quiet">
            The name, with what is read in braces; what stands in [square brackets] is left out where it is not known
          </span>
          <input
            ref={field}
            className={`${inputLook} font-mono`}
            aria-label="Pattern of the name"
            aria-invalid={Boolean(problem)}
            spellCheck={false}
            value={way.pattern}
            placeholder={USUAL_PATTERN}
            onChange={(event) => onChange({ pattern: event.target.value })}
          />
        </label>
        <p role="status" className="min-h-5 text-sm text-danger">
          {problem}
        </p>
        <ul aria-label="What a name can hold" className="flex flex-wrap gap-x-1 gap-y-1.5">
          {Object.entries(PLACEHOLDERS).map(([name, meaning]) => (
            <li key={name}>
              <button
                className="border border-rule bg-raised px-1.5 py-0.5 font-mono text-xs hover:border-quiet"
                title={`${meaning}${FORMS[name] ? `; also ${FORMS[name]}` : ''}`}
                onClick={() => insert(name)}
              >
                {name}
              </button>
            </li>
          ))}
        </ul>
      </section>
      <OnPapers way={way} />
      <div className="grid max-w-4xl grid-cols-2 gap-x-8 gap-y-5">
        <div>
          <span className="mb-1 block text-sm text-quiet">
            Goes to (a pattern too; empty: the folder that is suggested)
          </span>
          <FolderInput
            label="Goes to"
            folders={folders}
            value={way.folder ?? ''}
            onChange={(path) => onChange({ folder: path || null })}
            list="below"
          />
        </div>
        <Choice
          label="Size of the PDF"
          shown
          className="w-32"
          value={way.size}
          choices={PDF_SIZES.map((value) => ({ value, name: value[0].toUpperCase() + value.slice(1) }))}
          onChange={(size) => onChange({ size })}
        />
        <Boxes
          className="col-span-2"
          legend="Kept beside the PDF, in files of the same name"
          choices={BESIDES}
          names={BESIDE_NAMES}
          chosen={way.beside}
          onChange={(beside) => onChange({ beside })}
        />
        {!usual && (
          <>
            <Boxes
              legend="By itself for papers of the kind"
              choices={KINDS}
              names={KIND_NAMES}
              chosen={way.kinds}
              onChange={(kinds) => onChange({ kinds })}
            />
            <div>
              <span className="mb-1 block text-sm text-quiet">and that go into this folder or one inside it</span>
              <FolderInput
                label="Only in the folder"
                folders={folders}
                value={way.within ?? ''}
                onChange={(path) => onChange({ within: path || null })}
                list="below"
              />
            </div>
          </>
        )}
      </div>
    </div>
  );
}

interface BoxesProps<Value extends string> {
  legend: string;
  choices: readonly Value[];
  names: Record<string, string>;
  chosen: readonly Value[];
  onChange: (chosen: Value[]) => void;
  className?: string;
}

/** Any of a few, each with a box to tick; what is chosen stays in the order of the choices. */
function Boxes<Value extends string>({ legend, choices, names, chosen, onChange, className }: BoxesProps<Value>) {
  const toggled = (value: Value) => choices.filter((each) => chosen.includes(each) !== (each === value));
  return (
    <fieldset className={className}>
      <legend className="mb-1 text-sm text-quiet">{legend}</legend>
      <div className="flex flex-wrap gap-x-4">
        {choices.map((value) => (
          <label key={value} className="flex items-center gap-1.5">
            <input
              type="checkbox"
              className="accent-accent"
              checked={chosen.includes(value)}
              onChange={() => onChange(toggled(value))}
            />
            {names[value]}
          </label>
        ))}
      </div>
    </fieldset>
  );
}

/** Other forms of what is read, to be told of on hover. */
const FORMS: Record<string, string> = {
  date: '{date:DD.MM.YY}, {date:D MMM YYYY}, {date:YYYY}',
  due: '{due:DD.MM.YY}',
  scanned: '{scanned:YYYYMMDD-HHmm}',
  amount: '{amount:,}',
  counter: '{counter:3}',
};

/** The names that the papers that came last would have. */
function OnPapers({ way }: { way: Way }) {
  const { data: examples = [] } = useFilingExamples();
  if (examples.length === 0) return null;
  const unclear = Boolean(patternProblem(way.pattern));
  const taken = new Set<string>();
  const rows = examples.map(({ id, name, values }) => {
    const folder = unclear ? undefined : (folderBy(way, values) ?? values.folder);
    const made = unclear ? '' : nameBy(way.pattern, { ...values, folder }, taken);
    taken.add(made.toLowerCase());
    return { id, name, made, folder: way.folder ? folder : undefined };
  });
  return (
    <section aria-label="On your papers">
      <h2 className="mb-1 text-sm text-quiet">The latest papers would be called</h2>
      <ul className="max-w-4xl border-t border-rule">
        {rows.map(({ id, name, made, folder }) => (
          <li key={id} className="flex items-baseline gap-3 border-b border-rule py-1">
            <span className="min-w-0 flex-1 truncate">
              {folder && <span className="text-quiet">{folder.replaceAll('/', ' / ')} / </span>}
              {made || <span className="text-quiet">nothing is known of it yet: it would be named by hand</span>}
            </span>
            {name && name !== made && <span className="max-w-[40%] truncate text-xs text-quiet">now {name}</span>}
          </li>
        ))}
      </ul>
    </section>
  );
}
