import { yupResolver } from '@hookform/resolvers/yup';
import { ArrowLeft, Plus } from 'lucide-react';
import { useEffect, useState } from 'react';
import { FieldErrors, useForm, useWatch } from 'react-hook-form';
import { useNavigate } from 'react-router';
import { endpoints } from '@crow/contract/endpoints';
import { waysOfFiling } from '@crow/contract/settings';
import { Button, IconButton } from '../../parts/controls';
import { useNotices } from '../../parts/notices';
import { kindName } from '../../parts/words';
import { useChange, useSettings } from '../../queries';
import { Way, WayEditor, WaysForm } from './WayEditor';

/** How papers are named and where they go: ways of filing, each tried on the papers that came last while it is typed. */
export default function WaysOfFiling() {
  const { data: settings } = useSettings();
  return settings ? <Ways saved={settings.filing} /> : null;
}

function Ways({ saved }: { saved: Way[] }) {
  const navigate = useNavigate();
  const { tell } = useNotices();
  const [chosen, setChosen] = useState(0);
  const form = useForm<WaysForm>({
    defaultValues: { filing: saved },
    resolver: yupResolver(waysOfFiling),
    mode: 'onChange',
  });
  const { isDirty, isValid, errors, defaultValues } = form.formState;
  const ways = useWatch({ control: form.control, name: 'filing' });
  const save = useChange(endpoints.changeSettings, ['settings', 'document']);
  const setWays = (filing: Way[], place: number) => {
    form.setValue('filing', filing, { shouldDirty: true, shouldValidate: true });
    setChosen(place);
  };
  const at = Math.min(chosen, ways.length - 1);
  const isChangedElsewhere = JSON.stringify(defaultValues?.filing) !== JSON.stringify(saved);
  // What arrives from another window is shown at once, but never under the hand.
  useEffect(() => {
    if (isChangedElsewhere && !isDirty) form.reset({ filing: saved });
  }, [form, isChangedElsewhere, isDirty, saved]);
  const keep = form.handleSubmit(({ filing }) => {
    const before = saved;
    const undo = () => {
      form.reset({ filing: before });
      save.mutate({ body: { languages: undefined, filing: before } });
    };
    const told = () => {
      form.reset({ filing }, { keepValues: true });
      tell({ text: 'Papers are filed like this from now on.', action: { label: 'Undo', run: undo } });
    };
    save.mutate({ body: { languages: undefined, filing } }, told);
  });
  const problem = firstMessage(errors);
  return (
    <form className="flex h-full flex-col" onSubmit={(event) => void keep(event)}>
      <header className="flex h-14 shrink-0 items-center gap-3 border-b border-rule px-4">
        <IconButton name="Back to Check" onClick={() => void navigate('/check')}>
          <ArrowLeft size={17} />
        </IconButton>
        <h1 className="mr-auto text-lg font-semibold">How papers are filed</h1>
        {problem && isDirty && <p className="truncate text-sm text-danger">{problem}</p>}
        {isChangedElsewhere && isDirty && (
          <p role="status" className="truncate text-sm text-attention">
            Changed in another window; Keep replaces that.
          </p>
        )}
        <Button disabled={!isDirty} onClick={() => form.reset({ filing: saved })}>
          {isChangedElsewhere ? 'Take the other ones' : 'Discard changes'}
        </Button>
        <Button main type="submit" disabled={!isDirty || !isValid || save.isPending}>
          Keep
        </Button>
      </header>
      <div className="grid min-h-0 flex-1 grid-cols-[220px_minmax(0,1fr)]">
        <ul aria-label="Ways of filing" className="overflow-y-auto border-r border-rule py-2">
          {ways.map(({ name, kinds, within }, index) => (
            <li key={index}>
              <button
                type="button"
                aria-current={index === at}
                className={`w-full px-4 py-2 text-left ${index === at ? 'bg-accent-soft font-semibold' : 'hover:bg-raised'}`}
                onClick={() => setChosen(index)}
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
              onClick={() =>
                setWays([...ways, { ...ways[0], name: '', kinds: [], within: null, folder: null }], ways.length)
              }
            >
              <Plus size={15} aria-hidden /> Another way
            </Button>
          </li>
        </ul>
        <WayEditor
          key={at}
          form={form}
          at={at}
          onRemove={() =>
            setWays(
              ways.filter((_, index) => index !== at),
              at - 1,
            )
          }
        />
      </div>
    </form>
  );
}

function whenUsed(kinds: string[], within: string | null): string {
  const parts = [
    kinds.map((kind) => kindName(kind).toLowerCase()).join(', '),
    within && `in ${within.replaceAll('/', ' / ')}`,
  ];
  return parts.filter(Boolean).join(' ') || 'only when chosen';
}

/** The first thing that is wrong, wherever it stands. */
function firstMessage(errors: FieldErrors<WaysForm>): string | undefined {
  const { filing } = errors;
  const ofWays = Array.isArray(filing) ? (filing as FieldErrors<Way>[]) : [];
  const messages = ofWays.flatMap((way) => Object.values(way ?? {}).map((error) => error?.message));
  return [filing?.message, filing?.root?.message, ...messages].find((message) => typeof message === 'string');
}
