import { yupResolver } from '@hookform/resolvers/yup';
import { useMutation, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { Controller, useForm, useWatch } from 'react-hook-form';
import { X } from 'lucide-react';
import { endpoints } from '@crow/contract/endpoints';
import { ProblemReport } from '@crow/contract/problems';
import { newWatchedFolder, NewWatchedFolder, Purpose, PURPOSES, WatchedFolder } from '@crow/contract/watching';
import { Button, Choice, IconButton, inputLook, ProblemText } from '../../parts/controls';
import { PlaceList } from '../../parts/PlaceField';
import { count } from '../../parts/words';
import { useChange, useWatched } from '../../queries';
import { ask, reportOf } from '../../api';
import { useNotices } from '../../parts/notices';

const PURPOSE_NAMES: Record<Purpose, string> = {
  sort: 'a stack to sort',
  check: 'straight to Check, a document each',
  match: 'papers for entries, a document each',
};
const CHOICES = PURPOSES.map((purpose) => ({ value: purpose, name: PURPOSE_NAMES[purpose] }));

/** Watched folders: what each is for, and how much in it is not handled yet. */
export default function FolderSource() {
  const { data: folders } = useWatched();
  if (!folders) return null;
  return (
    <section
      aria-label="Watched folders"
      className="flex shrink-0 flex-col gap-3 border-b border-rule px-4 py-3 md:px-6"
    >
      {folders.length === 0 && (
        <p>
          <strong className="font-semibold">No folder is watched yet.</strong> What lands in a watched folder is taken
          in by itself and moved to “done” inside it; an empty folder has been handled.
        </p>
      )}
      {folders.length > 0 && (
        <ul className="flex flex-col gap-2">
          {folders.map((folder) => (
            <FolderLine key={folder.id} folder={folder} />
          ))}
        </ul>
      )}
      <NewFolder />
    </section>
  );
}

function FolderLine({ folder: { id, path, purpose, waiting, left, refused, problem } }: { folder: WatchedFolder }) {
  const change = useChange(endpoints.changeWatched, ['watch']);
  const leave = useChange(endpoints.leaveFolder, ['watch']);
  const forget = useChange(endpoints.forgetRefused, ['watch']);
  return (
    <li className="flex flex-wrap items-center gap-x-4 gap-y-1 text-sm">
      <span className="min-w-0 font-mono [overflow-wrap:anywhere]">{path}</span>
      <Choice
        label={`What ${path} is for`}
        value={purpose}
        choices={CHOICES}
        onChange={(to) => change.mutate({ params: { id }, body: { purpose: to } })}
      />
      <span role="status" className={waiting > 0 ? 'font-semibold' : 'text-quiet'}>
        {problem ? '' : waiting > 0 ? `${count(waiting, 'file waits', 'files wait')} to be taken in` : '✓ all handled'}
      </span>
      <IconButton name={`Stop watching ${path}`} onClick={() => leave.mutate({ params: { id } })}>
        <X size={16} />
      </IconButton>
      {problem && (
        <div className="w-full">
          <ProblemText report={problem} />
        </div>
      )}
      {left.length > 0 && (
        <p className="w-full text-quiet">
          Not papers, left where they are: <span className="text-ink">{left.join(', ')}</span>
        </p>
      )}
      {refused.length > 0 && (
        <details open className="w-full border-l-4 border-danger bg-raised px-3 py-2">
          <summary className="cursor-pointer">
            {count(refused.length, 'file', 'files')} could not be taken in; moved to “refused” in this folder
          </summary>
          <ul className="mt-1 space-y-1">
            {refused.map(({ name, problem: why }, place) => (
              <li key={`${name} ${place}`}>
                <strong className="font-semibold text-danger">{name}</strong> {why.happened} {why.todo}
              </li>
            ))}
          </ul>
          <button className="mt-1 underline underline-offset-2" onClick={() => forget.mutate({ params: { id } })}>
            Clear this list
          </button>
        </details>
      )}
    </li>
  );
}

function NewFolder() {
  const { register, control, handleSubmit, reset, formState } = useForm<NewWatchedFolder>({
    defaultValues: { path: '', purpose: 'sort', confirmed: false },
    resolver: yupResolver(newWatchedFolder),
    mode: 'onChange',
  });
  const path = useWatch({ control, name: 'path' });
  const client = useQueryClient();
  const { tell } = useNotices();
  /** What lies in the folder already, which is asked about before it is taken in. */
  const [full, setFull] = useState<ProblemReport>();
  const watch = useMutation({
    mutationFn: (body: NewWatchedFolder) => ask(endpoints.watchFolder, { body }),
    onSuccess: (_, { purpose }) => {
      reset({ path: '', purpose, confirmed: false });
      setFull(undefined);
      void client.invalidateQueries({ queryKey: ['watched'] });
    },
    onError: (error) => {
      const report = reportOf(error);
      if (report.code === 'watched-full') setFull(report);
      else tell({ error });
    },
  });
  const submit = handleSubmit((folder) => watch.mutate(folder));
  const confirm = handleSubmit((folder) => watch.mutate({ ...folder, confirmed: true }));
  return (
    <form className="flex flex-wrap items-center gap-x-3 gap-y-2 text-sm" onSubmit={(event) => void submit(event)}>
      <input
        aria-label="Path of a folder to watch"
        placeholder="Path of a folder, like /home/me/Scans"
        list="places"
        autoComplete="off"
        spellCheck={false}
        className={`${inputLook} max-w-96 font-mono`}
        {...register('path', { onChange: () => setFull(undefined) })}
      />
      <PlaceList id="places" beginning={path} />
      <Controller
        control={control}
        name="purpose"
        render={({ field: { value, onChange } }) => (
          <Choice label="What it is for" value={value} choices={CHOICES} onChange={onChange} />
        )}
      />
      <Button type="submit" disabled={!formState.isValid || watch.isPending}>
        Watch it
      </Button>
      {full && (
        <div role="alert" className="w-full border-l-4 border-attention bg-raised px-3 py-2">
          <p>
            <strong className="font-semibold">{full.happened}</strong> {full.todo}
          </p>
          <div className="mt-2 flex gap-2">
            <Button onClick={() => void confirm()} disabled={watch.isPending}>
              Take them in and watch it
            </Button>
            <Button onClick={() => setFull(undefined)}>Cancel</Button>
          </div>
        </div>
      )}
    </form>
  );
}
