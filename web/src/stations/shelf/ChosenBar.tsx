import { X } from 'lucide-react';
import { useState } from 'react';
import { Link } from 'react-router';
import { endpoints } from '@crow/contract/endpoints';
import { DocumentSummary } from '@crow/contract/documents';
import { later } from '../../parts/later';
import { AskFolder, DialogFrame } from '../../parts/AskText';
import { Button, IconButton } from '../../parts/controls';
import { folderAtPath } from '../../parts/folderPaths';
import { KeyWords, useKeys } from '../../parts/keys';
import { useNotices } from '../../parts/notices';
import { count } from '../../parts/words';
import { useChange, useFolders, useMay, useProposedNames } from '../../queries';
import { useChosen } from './chosen';
import { useShelfPlace } from './shelfPlace';

const CopiesDialog = later(async () => (await import('./sending/CopiesDialog')).default);

const CHOSEN_KEYS: KeyWords = [
  ['m', 'Move the chosen documents to another folder'],
  ['F2', 'Rename them'],
  ['Delete', 'Put them into the bin'],
  ['Escape', 'Clear the selection'],
];

/** What can be done with all the documents that are chosen in a list; each thing can be undone in one go. */
export function ChosenBar({ documents }: { documents: readonly DocumentSummary[] }) {
  return useMay('work') ? <Bar documents={documents} /> : null;
}

function Bar({ documents }: { documents: readonly DocumentSummary[] }) {
  const { ids, set } = useChosen();
  const { folder, find, go } = useShelfPlace();
  const chosen = documents.filter(({ id }) => ids.has(id));
  const [asking, setAsking] = useState<'folder' | 'names' | 'copies'>();
  const { data: folders = [] } = useFolders();
  const { tell } = useNotices();
  const change = useChange(endpoints.changeDocuments, ['document']);
  const makeFolder = useChange(endpoints.makeFolder, ['folder']);
  const onShelf = chosen.filter(({ state }) => state !== 'check');

  const undoable = (text: string, before: DocumentSummary[], back: (document: DocumentSummary) => object) =>
    tell({
      text,
      action: {
        label: 'Undo',
        run: () => change.mutate({ body: { changes: before.map((each) => ({ id: each.id, ...back(each) })) } }),
      },
    });
  const toBin = () => {
    const told = () => {
      undoable(`${count(chosen.length, 'document')} went into the bin.`, chosen, () => ({ binned: false }));
      set([]);
    };
    change.mutate({ body: { changes: chosen.map(({ id }) => ({ id, binned: true })) } }, told);
  };
  const move = async (path: string) => {
    const target = folderAtPath(folders, path) ?? (await makeFolder.mutateAsync({ body: { path } }));
    await change.mutateAsync({ body: { changes: onShelf.map(({ id }) => ({ id, folderId: target.id })) } });
    const back = ({ folderId, name }: DocumentSummary) => ({ folderId: folderId!, name });
    undoable(`${count(onShelf.length, 'document')} moved to ${path.replaceAll('/', ' / ')}.`, onShelf, back);
    set([]);
  };
  const rename = async (names: { id: string; name: string }[]) => {
    await change.mutateAsync({ body: { changes: names } });
    const before = onShelf.filter(({ id }) => names.some((each) => each.id === id));
    undoable(`${count(names.length, 'document')} renamed.`, before, ({ name }) => ({ name }));
    set([]);
  };
  const able = onShelf.length > 0;
  useKeys(
    {
      'Ctrl+a': () => set(documents.map(({ id }) => id)),
      ...(chosen.length > 0 && { Escape: () => set([]), Delete: toBin }),
      ...(able && { m: () => setAsking('folder'), F2: () => setAsking('names') }),
    },
    [['Ctrl+a', 'Choose all documents here'], ...(chosen.length > 0 ? CHOSEN_KEYS : [])],
  );
  if (chosen.length === 0) return null;
  return (
    <div
      role="toolbar"
      aria-label="With the chosen documents"
      className="flex shrink-0 items-center gap-2 border-t border-rule bg-accent-soft py-2 pr-1 pl-4"
    >
      <span role="status" className="mr-auto font-semibold whitespace-nowrap">
        {chosen.length} chosen
      </span>
      {chosen.length === 2 && (
        <Button onClick={() => go({ folder, find, document: chosen[0].id, beside: chosen[1].id })}>
          Beside each other
        </Button>
      )}
      <Button disabled={!able} onClick={() => setAsking('copies')}>
        Copy or send …
      </Button>
      <Button title="m" disabled={!able} onClick={() => setAsking('folder')}>
        Move …
      </Button>
      <Button title="F2" disabled={!able} onClick={() => setAsking('names')}>
        Rename …
      </Button>
      <Button title="Del" onClick={toBin}>
        Bin
      </Button>
      <IconButton name="Clear the selection (Esc)" onClick={() => set([])}>
        <X size={17} />
      </IconButton>
      {asking === 'copies' && <CopiesDialog documents={onShelf} onClose={() => setAsking(undefined)} />}
      {asking === 'folder' && (
        <AskFolder
          title={`Move ${count(onShelf.length, 'document')}`}
          label="To the folder"
          folders={folders}
          confirm="Move"
          onConfirm={move}
          onClose={() => setAsking(undefined)}
        />
      )}
      {asking === 'names' && (
        <RenameByPattern ids={onShelf.map(({ id }) => id)} onRename={rename} onClose={() => setAsking(undefined)} />
      )}
    </div>
  );
}

interface RenameProps {
  ids: string[];
  onRename: (names: { id: string; name: string }[]) => Promise<void>;
  onClose: () => void;
}

/** Shows the names that the ways of filing make for documents beside those they have, and gives them. */
function RenameByPattern({ ids, onRename, onClose }: RenameProps) {
  const { data } = useProposedNames(ids);
  const others = data?.filter(({ name, proposed }) => proposed && proposed !== name) ?? [];
  const rename = async () => {
    await onRename(others.map(({ id, proposed }) => ({ id, name: proposed }))).then(onClose, () => undefined);
  };
  return (
    <DialogFrame title="Rename by the ways of filing" onClose={onClose} wide>
      {data && others.length === 0 ? (
        <p>These documents are named as the ways of filing would name them.</p>
      ) : (
        <ul aria-label="New names" className="max-h-72 overflow-y-auto border-y border-rule">
          {others.map(({ id, name, proposed }) => (
            <li key={id} className="border-b border-rule py-1.5 last:border-0">
              <p className="truncate text-sm text-quiet line-through">{name}</p>
              <p className="truncate">{proposed}</p>
            </li>
          ))}
        </ul>
      )}
      <p className="mt-3 text-sm text-quiet">
        Names are made from the facts as they are now. Change the patterns in{' '}
        <Link to="/filing" className="text-accent underline">
          Ways of filing
        </Link>
        .
      </p>
      <div className="mt-4 flex justify-end gap-2">
        <Button onClick={onClose}>Cancel</Button>
        <Button main disabled={others.length === 0} onClick={() => void rename()} autoFocus>
          Rename {others.length > 0 && count(others.length, 'document')}
        </Button>
      </div>
    </DialogFrame>
  );
}
