import { useState } from 'react';
import { Document } from '@crow/contract/shapes';
import { Button, inputLook } from '../../parts/controls';
import { folderAtPath, FolderInput } from '../../parts/FolderInput';
import { useKeys } from '../../parts/keys';
import { useFolderDocuments, useFolders } from '../../queries';

interface FolderStripProps {
  document: Document;
  onFile: (name: string, folder: { folderId: string } | { folderPath: string }) => void;
  busy: boolean;
}

const LAST_SHOWN = 4;

/** Along the foot of the desk: the name as it will be, the folder it goes to, and the last papers already there. */
export function FolderStrip({ document, onFile, busy }: FolderStripProps) {
  const { data: folders = [] } = useFolders();
  const [typedName, setTypedName] = useState<string>();
  const [typedFolder, setTypedFolder] = useState<string>();
  const { suggestion } = document;
  const name = typedName ?? (document.name || document.proposedName);
  const path = typedFolder ?? document.folderPath ?? suggestion?.path ?? '';
  const folder = folderAtPath(folders, path);
  const { data: inside } = useFolderDocuments(folder?.id);
  const ready = name.trim() !== '' && path.trim() !== '';
  const file = () => {
    if (ready) onFile(name, folder ? { folderId: folder.id } : { folderPath: path });
    else
      window.document.querySelector<HTMLElement>(name.trim() === '' ? '[data-name]' : '[data-folder] input')?.focus();
  };
  useKeys({ 'Ctrl+Enter': file });
  return (
    <footer className="grid shrink-0 grid-cols-[minmax(0,5fr)_minmax(0,4fr)_minmax(0,5fr)_auto] gap-6 border-t border-rule bg-sunken px-6 py-3">
      <div>
        <span className="mb-1 block text-xs text-quiet" aria-hidden>
          Name
        </span>
        <input
          data-name
          aria-label="Name"
          className={inputLook}
          value={name}
          placeholder="How you will look for it"
          onChange={(event) => setTypedName(event.target.value)}
          onKeyDown={(event) => event.key === 'Enter' && !event.ctrlKey && !event.metaKey && file()}
        />
        <span className="mt-1 block truncate text-xs text-quiet">
          {typedName !== undefined && document.proposedName && typedName !== document.proposedName ? (
            <button className="underline" onClick={() => setTypedName(undefined)}>
              Back to “{document.proposedName}”
            </button>
          ) : (
            'from date, who and kind'
          )}
        </span>
      </div>
      <div data-folder>
        <span className="mb-1 block text-xs text-quiet" aria-hidden>
          Folder
        </span>
        <FolderInput
          label="Folder"
          folders={folders}
          value={path}
          onChange={setTypedFolder}
          onEnter={file}
          list="above"
        />
        <span className="mt-1 line-clamp-2 text-xs text-quiet">
          {[path === suggestion?.path && suggestion.reason, !folder && path.trim() && 'a new folder']
            .filter(Boolean)
            .join(' · ') || ' '}
        </span>
      </div>
      <div className="min-w-0" data-arrivals>
        <span className="mb-1 block text-xs text-quiet">
          {folder ? `Already in ${folder.path.replaceAll('/', ' / ')}` : 'Already there'}
        </span>
        {inside && inside.length > 0 ? (
          <ul className="text-sm leading-5">
            {inside.slice(0, LAST_SHOWN).map((each) => (
              <li key={each.id} className="truncate">
                {each.name}
                {each.state === 'filing' && <span className="text-quiet"> · on its way</span>}
              </li>
            ))}
          </ul>
        ) : (
          <p className="text-sm text-quiet">{folder ? 'Nothing yet.' : 'Choose a folder to see what it holds.'}</p>
        )}
      </div>
      <div className="flex items-center">
        <Button main data-file-it onClick={file} disabled={busy} hint="Ctrl+Enter" className="h-11 px-5 text-lg">
          File it
        </Button>
      </div>
    </footer>
  );
}
