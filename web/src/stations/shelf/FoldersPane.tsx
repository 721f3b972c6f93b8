import { DropdownMenu } from 'radix-ui';
import { Bookmark, Ellipsis, FolderPlus, Package, PackageOpen, Send, Trash2, TriangleAlert } from 'lucide-react';
import { useQueryClient } from '@tanstack/react-query';
import { DragEvent, useState } from 'react';
import { addressOf } from '@crow/contract/client';
import { endpoints } from '@crow/contract/endpoints';
import { sendArchive } from '../../api';
import { DocumentSummary } from '@crow/contract/documents';
import { FindReply } from '@crow/contract/finding';
import { Folder } from '@crow/contract/folders';
import { Button, IconButton } from '../../parts/controls';
import { AskText, DialogFrame } from '../../parts/AskText';
import { menuLook, menuItemLook } from '../../parts/menu';
import { useNotices } from '../../parts/notices';
import { count } from '../../parts/words';
import { useChange, useFolders, useMay, useOverview, useParcels, useSearches } from '../../queries';
import { useChosen } from './chosen';
import { CopyPlaceDialog } from './sending/CopyPlaces';
import { DOCUMENT_MEDIA_TYPE } from './takeAlong';
import { BIN, CHANGED, SENT, useShelfPlace } from './shelfPlace';

type Asking =
  | { what: 'new'; under?: Folder }
  | { what: 'rename'; folder: Folder }
  | { what: 'move'; folder: Folder }
  | { what: 'delete'; folder: Folder }
  | { what: 'copies'; folder: Folder }
  | undefined;

const FOLDER_MEDIA_TYPE = 'application/x-crow-folder';

/** All folders as a tree; documents, and other folders, can be dropped on them. */
export function FoldersPane() {
  const { data: folders = [] } = useFolders();
  const { folder: chosen, find, go } = useShelfPlace();
  const { data: overview } = useOverview();
  const works = useMay('work');
  const { data: searches = [] } = useSearches(works);
  const { data: parcels = [] } = useParcels(works);
  const refused = parcels.filter(({ state }) => state === 'refused').length;
  const [asking, setAsking] = useState<Asking>();
  const make = useChange(endpoints.makeFolder, ['folder']);
  const change = useChange(endpoints.changeFolder, ['folder', 'document']);
  const remove = useChange(endpoints.deleteFolder, ['folder'], (_, { params }) => {
    if (params.id === chosen) go({});
  });
  const close = () => setAsking(undefined);
  const { tell } = useNotices();
  const { mutate: moveBack } = change;
  /** Moves a folder into another one, or to the top; that can be undone. */
  const moveFolder = (id: string, parentId: string | null) => {
    const before = folders.find((each) => each.id === id);
    if (!before || before.parentId === parentId || id === parentId) return;
    change.mutate({ params: { id }, body: { parentId } }, ({ path }) =>
      tell({
        text: `The folder is now ${path.replaceAll('/', ' / ')}.`,
        action: { label: 'Undo', run: () => moveBack({ params: { id }, body: { parentId: before.parentId } }) },
      }),
    );
  };
  const dropOnTop = (event: DragEvent) => {
    const id = event.dataTransfer.getData(FOLDER_MEDIA_TYPE);
    if (!id) return;
    event.preventDefault();
    moveFolder(id, null);
  };
  return (
    <div className="flex h-full flex-col bg-sunken">
      <header className="flex h-14 shrink-0 items-center justify-between border-b border-rule pr-2 pl-4">
        <h1 className="text-lg font-semibold">Shelf</h1>
        {works && (
          <IconButton name="New folder" onClick={() => setAsking({ what: 'new' })}>
            <FolderPlus size={17} />
          </IconButton>
        )}
      </header>
      <ul
        aria-label="Folders"
        className="flex-1 overflow-y-auto py-2"
        onDragOver={(event) => event.dataTransfer.types.includes(FOLDER_MEDIA_TYPE) && event.preventDefault()}
        onDrop={dropOnTop}
      >
        {folders.map((folder) => (
          <FolderRow
            key={folder.id}
            folder={folder}
            current={find === undefined && folder.id === chosen}
            onOpen={() => go({ folder: folder.id })}
            onAsk={setAsking}
            onMoveInto={(id) => moveFolder(id, folder.id)}
          />
        ))}
        {folders.length === 0 && works && (
          <li className="px-4 py-2 text-quiet">Folders are made when you file something, or here.</li>
        )}
      </ul>
      {searches.length > 0 && (
        <ul aria-label="Searches" className="max-h-48 shrink-0 overflow-y-auto border-t border-rule py-1">
          {searches.map(({ id, query }) => (
            <li key={id}>
              <button
                aria-current={find === query}
                className={`flex h-8 w-full items-center gap-2 px-4 text-left hover:bg-ground ${find === query ? 'bg-ground font-semibold' : ''}`}
                onClick={() => go({ find: query })}
              >
                <Bookmark size={14} aria-hidden className="shrink-0" />
                <span className="truncate" title={query}>
                  {query}
                </span>
              </button>
            </li>
          ))}
        </ul>
      )}
      {folders.length > 0 && (
        <a
          href={addressOf(endpoints.shelfArchive, { query: {} })}
          className="flex items-center gap-2 border-t border-rule px-4 py-2 hover:bg-ground"
          title="All folders with their PDFs, and what is known of each as CSV and JSON"
        >
          <Package size={15} aria-hidden /> Everything as ZIP
        </a>
      )}
      {works && <BringIn />}
      {overview && overview.changedOnDisk + overview.strangers > 0 && (
        <button
          onClick={() => go({ folder: CHANGED })}
          className={`flex items-center gap-2 border-t border-rule px-4 py-2 text-left hover:bg-ground ${chosen === CHANGED ? 'bg-ground font-semibold' : ''}`}
        >
          <TriangleAlert size={15} aria-hidden className="text-attention" /> Changed on disk
          <span className="ml-auto font-mono text-sm">{overview.changedOnDisk + overview.strangers}</span>
        </button>
      )}
      {works && (
        <button
          onClick={() => go({ folder: SENT })}
          className={`flex items-center gap-2 border-t border-rule px-4 py-2 text-left hover:bg-ground ${chosen === SENT ? 'bg-ground font-semibold' : ''}`}
        >
          <Send size={15} aria-hidden /> Sent
          {refused > 0 && (
            <span className="ml-auto text-sm font-semibold text-danger">{count(refused, 'refused', 'refused')}</span>
          )}
        </button>
      )}
      {works && (
        <button
          onClick={() => go({ folder: BIN })}
          className={`flex items-center gap-2 border-t border-rule px-4 py-2 text-left hover:bg-ground ${chosen === BIN ? 'bg-ground font-semibold' : ''}`}
        >
          <Trash2 size={15} aria-hidden /> Bin
        </button>
      )}
      {asking?.what === 'new' && (
        <AskText
          title={asking.under ? `New folder in ${asking.under.path}` : 'New folder'}
          label="Its name"
          confirm="Make it"
          onClose={close}
          onConfirm={async (name) => {
            const path = asking.under ? `${asking.under.path}/${name}` : name;
            go({ folder: (await make.mutateAsync({ body: { path } })).id });
          }}
        />
      )}
      {asking?.what === 'move' && (
        <MoveFolder
          folder={asking.folder}
          folders={folders}
          onMove={(parentId) => moveFolder(asking.folder.id, parentId)}
          onClose={close}
        />
      )}
      {asking?.what === 'delete' && (
        <DialogFrame title={`Delete the folder “${asking.folder.name}”?`} onClose={close}>
          <p>
            {asking.folder.inside > 0
              ? `It holds ${count(asking.folder.inside, 'paper')}. Move them elsewhere or to the bin first.`
              : 'There is no paper in it.'}
          </p>
          <div className="mt-4 flex justify-end gap-2">
            <Button onClick={close}>{asking.folder.inside > 0 ? 'Close' : 'Cancel'}</Button>
            {asking.folder.inside === 0 && (
              <Button
                main
                autoFocus
                onClick={() => {
                  remove.mutate({ params: { id: asking.folder.id } });
                  close();
                }}
              >
                Delete it
              </Button>
            )}
          </div>
        </DialogFrame>
      )}
      {asking?.what === 'copies' && <CopyPlaceDialog folder={asking.folder} onClose={close} />}
      {asking?.what === 'rename' && (
        <AskText
          title={`Rename ${asking.folder.name}`}
          label="Its name"
          initial={asking.folder.name}
          confirm="Rename"
          onClose={close}
          onConfirm={(name) => change.mutateAsync({ params: { id: asking.folder.id }, body: { name } })}
        />
      )}
    </div>
  );
}

/** Asks into which folder another one goes. */
function MoveFolder({
  folder,
  folders,
  onMove,
  onClose,
}: {
  folder: Folder;
  folders: Folder[];
  onMove: (parentId: string | null) => void;
  onClose: () => void;
}) {
  const others = folders.filter(({ path }) => path !== folder.path && !path.startsWith(`${folder.path}/`));
  return (
    <DialogFrame title={`Move “${folder.name}” into …`} onClose={onClose}>
      <ul className="max-h-[50dvh] overflow-y-auto border border-rule">
        {[{ id: null, path: 'the top of the shelf' }, ...others].map(({ id, path }) => (
          <li key={id ?? 'top'}>
            <button
              className="w-full px-3 py-1.5 text-left hover:bg-sunken disabled:text-quiet"
              disabled={id === folder.parentId}
              onClick={() => {
                onMove(id);
                onClose();
              }}
            >
              {path.replaceAll('/', ' / ')}
            </button>
          </li>
        ))}
      </ul>
      <div className="mt-4 flex justify-end">
        <Button onClick={onClose}>Cancel</Button>
      </div>
    </DialogFrame>
  );
}

/** Brings an archive of the shelf in again. */
function BringIn() {
  const [under, setUnder] = useState<string>();
  const { tell } = useNotices();
  const bring = async (file: File) => {
    setUnder(file.name);
    try {
      const { brought, known, missing } = await sendArchive(file);
      const text = [
        `${count(brought, 'document')} from “${file.name}” came back to the shelf.`,
        known > 0 && `${count(known, 'document was', 'documents were')} on the shelf already.`,
        missing > 0 && `Of ${count(missing, 'document')} the PDF is not in it.`,
      ];
      tell({ text: text.filter(Boolean).join(' ') });
    } catch (error) {
      tell({ error });
    }
    setUnder(undefined);
  };
  return (
    <label className="flex cursor-pointer items-center gap-2 border-t border-rule px-4 py-2 focus-within:outline-2 hover:bg-ground">
      <PackageOpen size={15} aria-hidden />
      {under ? `Bringing in “${under}” …` : 'Bring a ZIP in again …'}
      <input
        type="file"
        accept=".zip,application/zip"
        className="sr-only"
        disabled={under !== undefined}
        onChange={(event) => {
          const [file] = event.target.files ?? [];
          if (file) void bring(file);
          event.target.value = '';
        }}
      />
    </label>
  );
}

/** The documents that answers about lists hold, each once. */
function summariesIn(answers: unknown[]): DocumentSummary[] {
  const all = answers.flatMap((answer) =>
    Array.isArray(answer)
      ? (answer as DocumentSummary[])
      : ((answer as FindReply | undefined)?.found ?? []).map(({ document }) => document),
  );
  return [...new Map(all.map((each) => [each.id, each])).values()];
}

interface FolderRowProps {
  folder: Folder;
  current: boolean;
  onOpen: () => void;
  onAsk: (asking: Asking) => void;
  onMoveInto: (id: string) => void;
}

function FolderRow({ folder, current, onOpen, onAsk, onMoveInto }: FolderRowProps) {
  const [over, setOver] = useState(false);
  const works = useMay('work');
  const owns = useMay('own');
  const move = useChange(endpoints.changeDocuments, ['document']);
  const { set } = useChosen();
  const client = useQueryClient();
  const { tell } = useNotices();
  const back = (before: DocumentSummary[]) =>
    move.mutate({
      body: { changes: before.map(({ id, folderId, name }) => ({ id, folderId: folderId ?? undefined, name })) },
    });
  const depth = folder.path.split('/').length - 1;
  const receive = (event: DragEvent) => {
    const dragged = event.dataTransfer.getData(FOLDER_MEDIA_TYPE);
    const ids = event.dataTransfer.getData(DOCUMENT_MEDIA_TYPE).split(' ').filter(Boolean);
    setOver(false);
    if (dragged) {
      event.preventDefault();
      event.stopPropagation();
      onMoveInto(dragged);
      return;
    }
    if (ids.length === 0) return;
    event.preventDefault();
    // What the lists know of them says where they came from.
    const known = ['inFolder', 'found'].flatMap((key) => client.getQueriesData({ queryKey: [key] }));
    const before = summariesIn(known.map(([, data]) => data)).filter(({ id }) => ids.includes(id));
    move.mutate({ body: { changes: ids.map((id) => ({ id, folderId: folder.id })) } }, () =>
      tell({
        text: `${count(ids.length, 'document')} moved to ${folder.path.replaceAll('/', ' / ')}.`,
        action: { label: 'Undo', run: () => back(before) },
      }),
    );
    set([]);
  };
  return (
    <li
      className={`group flex items-center pr-2 ${over ? 'bg-accent-soft' : current ? 'bg-ground font-semibold' : 'hover:bg-ground'}`}
      onDragOver={(event) => {
        if (
          !works ||
          !event.dataTransfer.types.some((type) => type === DOCUMENT_MEDIA_TYPE || type === FOLDER_MEDIA_TYPE)
        )
          return;
        event.preventDefault();
        setOver(true);
      }}
      onDragLeave={() => setOver(false)}
      onDrop={receive}
    >
      <button
        onClick={onOpen}
        draggable={works}
        onDragStart={(event) => event.dataTransfer.setData(FOLDER_MEDIA_TYPE, folder.id)}
        aria-current={current}
        className="flex h-8 min-w-0 flex-1 items-center justify-between gap-2 text-left"
        style={{ paddingLeft: 16 + depth * 16 }}
      >
        <span className="truncate">{folder.name}</span>
        <span
          className="font-mono text-sm font-normal text-quiet"
          title={
            folder.inside > folder.documents
              ? `${folder.documents} in it, ${folder.inside} with the folders in it`
              : undefined
          }
        >
          {folder.documents || ''}
          {folder.inside > folder.documents && ` (${folder.inside})`}
        </span>
      </button>
      <DropdownMenu.Root>
        <DropdownMenu.Trigger asChild>
          <IconButton
            name={`More about ${folder.name}`}
            className="size-6 opacity-0 group-focus-within:opacity-100 group-hover:opacity-100 data-[state=open]:opacity-100"
          >
            <Ellipsis size={15} />
          </IconButton>
        </DropdownMenu.Trigger>
        <DropdownMenu.Portal>
          <DropdownMenu.Content className={menuLook} align="start">
            {works && (
              <>
                <DropdownMenu.Item className={menuItemLook} onSelect={() => onAsk({ what: 'rename', folder })}>
                  Rename …
                </DropdownMenu.Item>
                <DropdownMenu.Item className={menuItemLook} onSelect={() => onAsk({ what: 'move', folder })}>
                  Move …
                </DropdownMenu.Item>
                <DropdownMenu.Item className={menuItemLook} onSelect={() => onAsk({ what: 'new', under: folder })}>
                  New folder in it …
                </DropdownMenu.Item>
              </>
            )}
            <DropdownMenu.Item className={menuItemLook} asChild>
              <a href={addressOf(endpoints.shelfArchive, { query: { folder: folder.id } })}>Save it all as ZIP</a>
            </DropdownMenu.Item>
            {owns && (
              <DropdownMenu.Item className={menuItemLook} onSelect={() => onAsk({ what: 'copies', folder })}>
                Copies in a folder of this machine …
              </DropdownMenu.Item>
            )}
            {works && (
              <DropdownMenu.Item className={menuItemLook} onSelect={() => onAsk({ what: 'delete', folder })}>
                Delete …
              </DropdownMenu.Item>
            )}
          </DropdownMenu.Content>
        </DropdownMenu.Portal>
      </DropdownMenu.Root>
    </li>
  );
}
