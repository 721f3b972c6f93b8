import { useRef } from 'react';
import { Control, Controller, UseFormReturn, useWatch } from 'react-hook-form';
import { PDF_SIZES } from '@crow/contract/documents';
import { Folder } from '@crow/contract/folders';
import { Settings } from '@crow/contract/settings';
import { BESIDES, folderBy, nameBy, patternProblem, PLACEHOLDERS, USUAL_PATTERN } from '@crow/core/filing/pattern';
import { Button, Choice, inputLook } from '../../parts/controls';
import { FolderField } from '../../parts/FolderField';
import { BESIDE_NAMES, kindName } from '../../parts/words';
import { useFilingExamples, useFolders, useKinds } from '../../queries';

export type Way = Settings['filing'][number];

export interface WaysForm {
  filing: Way[];
}

interface WayEditorProps {
  form: UseFormReturn<WaysForm>;
  /** Its place among the ways of filing; the first is the usual one. */
  at: number;
  onRemove: () => void;
}

const CHANGED = { shouldDirty: true, shouldValidate: true };

/** One way of filing: its name, its pattern tried on papers, where it goes and when it is used. */
export function WayEditor({ form, at, onRemove }: WayEditorProps) {
  const { data: folders = [] } = useFolders();
  const kinds = useKinds();
  const { control, register, getValues, setValue, setFocus, trigger } = form;
  const field = useRef<HTMLInputElement>(null);
  const way = useWatch({ control, name: `filing.${at}` });
  const usual = at === 0;
  const problem = patternProblem(way.pattern);
  const pattern = register(`filing.${at}.pattern`);
  const insert = (name: string) => {
    const before = getValues(`filing.${at}.pattern`);
    const [from, to] = [field.current?.selectionStart ?? before.length, field.current?.selectionEnd ?? before.length];
    const text = `{${name}}`;
    setValue(`filing.${at}.pattern`, before.slice(0, from) + text + before.slice(to), CHANGED);
    setFocus(`filing.${at}.pattern`);
    field.current?.setSelectionRange(from + text.length, from + text.length);
  };
  return (
    <div className="min-w-0 space-y-5 overflow-y-auto px-8 py-6">
      <div className="flex items-end gap-4">
        <label className="w-64">
          <span className="mb-1 block text-sm text-quiet">What it is called</span>
          {/* A name is right or wrong beside the others. */}
          <input className={inputLook} {...register(`filing.${at}.name`, { onChange: () => void trigger() })} />
        </label>
        {!usual && <Button onClick={onRemove}>Delete this way of filing</Button>}
      </div>
      <section>
        <label>
          <span className="mb-1 block text-sm text-quiet">
            The name, with what is read in braces; what stands in [square brackets] is left out where it is not known
          </span>
          <input
            className={`${inputLook} font-mono`}
            aria-label="Pattern of the name"
            aria-invalid={Boolean(problem)}
            spellCheck={false}
            placeholder={USUAL_PATTERN}
            {...pattern}
            ref={(input) => {
              pattern.ref(input);
              field.current = input;
            }}
          />
        </label>
        <p role="status" className="min-h-5 text-sm text-danger">
          {problem}
        </p>
        <ul aria-label="What a name can hold" className="flex flex-wrap gap-x-1 gap-y-1.5">
          {Object.entries(PLACEHOLDERS).map(([name, meaning]) => (
            <li key={name}>
              <button
                type="button"
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
          <PathController control={control} name={`filing.${at}.folder`} label="Goes to" folders={folders} />
        </div>
        <Controller
          control={control}
          name={`filing.${at}.size`}
          render={({ field: { value, onChange } }) => (
            <Choice
              label="Size of the PDF"
              shown
              className="w-32"
              value={value}
              choices={PDF_SIZES.map((size) => ({ value: size, name: size[0].toUpperCase() + size.slice(1) }))}
              onChange={onChange}
            />
          )}
        />
        <Controller
          control={control}
          name={`filing.${at}.beside`}
          render={({ field: { value, onChange } }) => (
            <Boxes
              className="col-span-2"
              legend="Kept beside the PDF, in files of the same name"
              choices={BESIDES}
              nameOf={(each) => BESIDE_NAMES[each]}
              chosen={value}
              onChange={onChange}
            />
          )}
        />
        {!usual && (
          <>
            <Controller
              control={control}
              name={`filing.${at}.kinds`}
              render={({ field: { value, onChange } }) => (
                <Boxes
                  legend="By itself for papers of the kind"
                  choices={kinds}
                  nameOf={kindName}
                  chosen={value}
                  onChange={onChange}
                />
              )}
            />
            <div>
              <span className="mb-1 block text-sm text-quiet">and that go into this folder or one inside it</span>
              <PathController
                control={control}
                name={`filing.${at}.within`}
                label="Only in the folder"
                folders={folders}
              />
            </div>
          </>
        )}
      </div>
    </div>
  );
}

/** A folder of a way of filing; an empty field says that there is none. */
function PathController({
  control,
  name,
  label,
  folders,
}: {
  control: Control<WaysForm>;
  name: `filing.${number}.folder` | `filing.${number}.within`;
  label: string;
  folders: Folder[];
}) {
  return (
    <Controller
      control={control}
      name={name}
      render={({ field: { value, onChange } }) => (
        <FolderField
          label={label}
          folders={folders}
          value={value ?? ''}
          onChange={(path) => onChange(path || null)}
          list="below"
        />
      )}
    />
  );
}

interface BoxesProps<Value extends string> {
  legend: string;
  choices: readonly Value[];
  nameOf: (value: Value) => string;
  chosen: readonly Value[];
  onChange: (chosen: Value[]) => void;
  className?: string;
}

/** Any of a few, each with a box to tick; what is chosen stays in the order of the choices. */
function Boxes<Value extends string>({ legend, choices, nameOf, chosen, onChange, className }: BoxesProps<Value>) {
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
            {nameOf(value)}
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
