import { useState } from 'react';
import { X } from 'lucide-react';
import { endpoints } from '@crow/contract/endpoints';
import { Purpose, PURPOSES, WatchedFolder } from '@crow/contract/watching';
import { Button, Choice, IconButton, inputLook, ProblemText } from '../../parts/controls';
import { count } from '../../parts/words';
import { useChange, usePlaces, useWatched } from '../../queries';

const PURPOSE_NAMES: Record<Purpose, string> = {
  sort: 'a stack to sort',
  check: 'straight to Check, a document each',
  match: 'papers for entries, a document each',
};
const CHOICES = PURPOSES.map((purpose) => ({ value: purpose, name: PURPOSE_NAMES[purpose] }));

/** Watched folders: what each is for, and how much in it is not handled yet. */
export function FolderSource() {
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

function FolderLine({ folder: { id, path, purpose, waiting, problem } }: { folder: WatchedFolder }) {
  const change = useChange(endpoints.changeWatched, ['watch']);
  const leave = useChange(endpoints.leaveFolder, ['watch']);
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
      <IconButton name={`Watch ${path} no longer`} onClick={() => leave.mutate({ params: { id } })}>
        <X size={16} />
      </IconButton>
      {problem && (
        <div className="w-full">
          <ProblemText report={problem} />
        </div>
      )}
    </li>
  );
}

function NewFolder() {
  const [path, setPath] = useState('');
  const [purpose, setPurpose] = useState<Purpose>('sort');
  const { data: places = [] } = usePlaces(path);
  const watch = useChange(endpoints.watchFolder, ['watch'], () => setPath(''));
  return (
    <form
      className="flex flex-wrap items-center gap-x-3 gap-y-2 text-sm"
      onSubmit={(event) => {
        event.preventDefault();
        if (path.trim()) watch.mutate({ body: { path: path.trim(), purpose } });
      }}
    >
      <input
        aria-label="Path of a folder to watch"
        placeholder="Path of a folder, like /home/me/Scans"
        list="places"
        autoComplete="off"
        spellCheck={false}
        value={path}
        onChange={(event) => setPath(event.target.value)}
        className={`${inputLook} max-w-96 font-mono`}
      />
      <datalist id="places">
        {places.map((place) => (
          <option key={place} value={place} />
        ))}
      </datalist>
      <Choice label="What it is for" value={purpose} choices={CHOICES} onChange={setPurpose} />
      <Button type="submit" disabled={path.trim() === '' || watch.isPending}>
        Watch it
      </Button>
    </form>
  );
}
