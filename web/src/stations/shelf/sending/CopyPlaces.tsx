import { FolderSync, X } from 'lucide-react';
import { FormEvent, useState } from 'react';
import { CopyPlace } from '@crow/contract/copyPlaces';
import { endpoints } from '@crow/contract/endpoints';
import { DialogFrame } from '../../../parts/AskText';
import { Button, IconButton, ProblemText, Tick } from '../../../parts/controls';
import { shownMoment } from '../../../parts/days';
import { useNotices } from '../../../parts/notices';
import { PlaceField } from '../../../parts/PlaceField';
import { count } from '../../../parts/words';
import { useChange, useCopyPlaces, useMay } from '../../../queries';

/** Into which folder of the machine copies go, and whether they follow the shelf. */
export interface PlaceWish {
  path: string;
  keep: boolean;
}

export function PlaceFields({ value, onChange }: { value: PlaceWish; onChange: (wish: PlaceWish) => void }) {
  return (
    <>
      <PlaceField
        label="Folder of this machine, of a drive or of the network"
        value={value.path}
        onChange={(path) => onChange({ ...value, path })}
      />
      <Tick checked={value.keep} onChange={(keep) => onChange({ ...value, keep })}>
        keep them in step: what changes on the shelf changes there
      </Tick>
    </>
  );
}

/** Copies of a folder of the shelf, or of everything, into a folder of the machine. */
export function CopyPlaceDialog({
  folder,
  onClose,
}: {
  folder: { id: string; path: string } | null;
  onClose: () => void;
}) {
  const [wish, setWish] = useState<PlaceWish>({ path: '', keep: true });
  const { tell } = useNotices();
  const add = useChange(endpoints.addCopyPlace, ['copy-place']);
  const submit = async (event: FormEvent) => {
    event.preventDefault();
    try {
      const body = { ...wish, folderId: folder?.id ?? null, documentIds: null };
      tell({ text: copiesOnTheirWay(await add.mutateAsync({ body })) });
      onClose();
    } catch {
      // The problem has been told; what was typed stays.
    }
  };
  return (
    <DialogFrame
      wide
      title={folder ? `Copies of “${folder.path.replaceAll('/', ' / ')}”` : 'Copies of the whole shelf'}
      onClose={onClose}
    >
      <form className="flex flex-col gap-3" onSubmit={(event) => void submit(event)}>
        <p className="text-quiet">
          {folder
            ? 'The PDFs in this folder and in those inside it, with their marks and names, as they lie on the shelf.'
            : 'All filed PDFs with their marks, in their folders.'}{' '}
          What others put there is left alone.
        </p>
        <PlaceFields value={wish} onChange={setWish} />
        <div className="mt-1 flex justify-end gap-2">
          <Button onClick={onClose}>Cancel</Button>
          <Button main type="submit" disabled={!wish.path.trim() || add.isPending}>
            {wish.keep ? 'Keep copies there' : 'Copy them there'}
          </Button>
        </div>
      </form>
    </DialogFrame>
  );
}

/** What is told when copies begin to be made. */
export const copiesOnTheirWay = ({ path }: CopyPlace): string =>
  `The copies are on their way to ${path}. What becomes of them is under Sent.`;

/** Folders of the machine that have copies, and how to have more of them. */
export function CopyPlaceList() {
  const { data = [] } = useCopyPlaces();
  const owns = useMay('own');
  const [adding, setAdding] = useState(false);
  return (
    <section aria-label="Copies in folders" className="shrink-0 border-b border-rule">
      {data.length > 0 && (
        <ul className="divide-y divide-rule">
          {data.map((place) => (
            <Line key={place.id} place={place} />
          ))}
        </ul>
      )}
      {owns && (
        <button className="flex items-center gap-2 px-4 py-2 text-left hover:bg-sunken" onClick={() => setAdding(true)}>
          <FolderSync size={15} aria-hidden className="shrink-0" /> Copies of the shelf in a folder of this machine, or
          of a drive …
        </button>
      )}
      {adding && <CopyPlaceDialog folder={null} onClose={() => setAdding(false)} />}
    </section>
  );
}

function Line({ place }: { place: CopyPlace }) {
  const { id, path, keep, left, problem } = place;
  const owns = useMay('own');
  const again = useChange(endpoints.agreeCopyPlace, ['copy-place']);
  const leave = useChange(endpoints.leaveCopyPlace, ['copy-place']);
  return (
    <li className="flex gap-3 px-4 py-3">
      <FolderSync size={17} aria-label="Folder with copies" className="mt-0.5 shrink-0 text-quiet" />
      <div className="min-w-0 flex-1">
        <p className="flex flex-wrap items-baseline gap-x-3">
          <span className="font-mono [overflow-wrap:anywhere]">{path}</span>
          <span>{ofWhat(place)}</span>
          <span role="status" className="ml-auto text-quiet">
            {stateWords(place)}
          </span>
        </p>
        {problem && <ProblemText report={problem} />}
        {left.length > 0 && <p className="text-sm text-quiet">Left alone there: {left.join(', ')}</p>}
        {keep && (
          <p className="mt-2">
            <Button onClick={() => again.mutate({ params: { id } })}>Look at it now</Button>
          </p>
        )}
      </div>
      {owns && (
        <IconButton
          name={keep ? `Stop keeping ${path} in step; the copies stay` : `Take ${path} off this list; the copies stay`}
          onClick={() => leave.mutate({ params: { id } })}
        >
          <X size={16} />
        </IconButton>
      )}
    </li>
  );
}

function ofWhat({ scope, of }: CopyPlace): string {
  if (scope === 'shelf') return 'the whole shelf';
  if (scope === 'papers') return count(Number(of), 'paper');
  return of ? of.replaceAll('/', ' / ') : 'a folder that is no more';
}

function stateWords({ keep, copies, wanted, agreed, problem }: CopyPlace): string {
  if (problem) return 'waits';
  if (!agreed) return `${copies} of ${wanted} copied`;
  return `${count(copies, 'copy', 'copies')}, ${keep ? 'in step, seen on' : 'made on'} ${shownMoment(agreed)}`;
}
