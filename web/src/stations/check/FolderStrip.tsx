import { Ref, useMemo, useState } from 'react';
import { flushSync } from 'react-dom';
import { Link } from 'react-router';
import { Input } from '@crow/contract/endpoint';
import { endpoints } from '@crow/contract/endpoints';
import { Document, PdfSize } from '@crow/contract/documents';
import { nameKey } from '@crow/core/filing/names';
import { filedAs, FilingWay, folderOf, valuesOf } from '@crow/core/filing/pattern';
import { Button, inputLook, Key } from '../../parts/controls';
import { FolderField } from '../../parts/FolderField';
import { PathFrom } from '../../parts/FolderInput';
import { folderAtPath } from '../../parts/folderPaths';
import { useHeld } from '../../parts/held';
import { useKeys } from '../../parts/keys';
import { Sheet } from '../../parts/Sheet';
import { useSmall } from '../../parts/useNarrow';
import { useFolderDocuments, useFolders, useSettings } from '../../queries';
import { BESIDE_NAMES } from '../../parts/words';
import { BooksLine } from './BooksLine';
import { SizeChoice } from './SizeChoice';

/** A name and a place for a document, and how large its PDF is to be. */
export type Filing = Input<typeof endpoints.fileDocument>['body'];

interface FolderStripProps {
  document: Document;
  onFile: (wish: Filing) => void;
  busy: boolean;
  /** On a narrow screen, where the notes of the desk go: into the sheet that is pulled up from here. */
  notesRef?: Ref<HTMLDivElement>;
}

const LAST_SHOWN = 4;

/** Which way of filing a document follows; it is chosen by folder and kind until somebody says otherwise. */
function WayChoice({ ways, way, onChange }: { ways: FilingWay[]; way: FilingWay; onChange: (name: string) => void }) {
  if (ways.length < 2) return <>“{way.name}”</>;
  return (
    <select
      aria-label="Way of filing"
      className="max-w-40 bg-sunken underline"
      value={way.name}
      onChange={(event) => onChange(event.target.value)}
    >
      {ways.map(({ name }) => (
        <option key={name}>{name}</option>
      ))}
    </select>
  );
}

/** Along the foot of the desk: the name as it will be, the folder it goes to, and the last papers already there. */
export function FolderStrip({ document, onFile, busy, notesRef }: FolderStripProps) {
  const small = useSmall();
  const [open, setOpen] = useState(false);
  const { data: folders = [] } = useFolders();
  const [chosenWay, setChosenWay] = useState<string>();
  const [chosenSize, setChosenSize] = useState<PdfSize>();
  const { data: settings } = useSettings();
  const ways = settings?.filing ?? [];
  const { suggestion } = document;
  const values = useMemo(() => {
    const facts = Object.fromEntries(document.facts.map(({ name, value }) => [name, value]));
    return valuesOf(facts, { createdAt: document.createdAt, pages: document.pages });
  }, [document]);
  const chosen = ways.find((way) => way.name === chosenWay);
  const proposedPath = folderOf(values, { chosen, there: document.folderPath, suggested: suggestion?.path });
  const heldFolder = useHeld<{ path: string; from: PathFrom }>({ path: proposedPath, from: 'there' });
  const { path, from } = heldFolder.value;
  const folder = folderAtPath(folders, path);
  const { data: inside } = useFolderDocuments(folder?.id);
  const taken = useMemo(() => new Set(inside?.map((each) => nameKey(each.name))), [inside]);
  const { way, name: proposed } = filedAs(ways, values, { chosen, folder: path, taken });
  const heldName = useHeld(document.name || proposed);
  const name = heldName.value;
  const beside = chosen ? chosen.beside : document.name ? document.beside : way.beside;
  const size = chosenSize ?? (chosen ? chosen.size : document.name ? document.size : way.size);
  /** A folder that isn't there is made only where somebody, or a way of filing, says so. */
  const isFolderSettled = folder !== undefined || (path.trim() !== '' && from !== 'typed');
  const ready = name.trim() !== '' && isFolderSettled;
  const file = () => {
    if (ready) onFile({ name, size, beside, ...(folder ? { folderId: folder.id } : { folderPath: path }) });
    else {
      flushSync(() => setOpen(true));
      window.document.querySelector<HTMLElement>(name.trim() === '' ? '[data-name]' : '[data-folder] input')?.focus();
    }
  };
  const likely = path.trim() === '' ? document.likely : [];
  /** Files it in a folder that is only likely, by a key of its own. */
  const fileIn = (to: string) => {
    const there = folderAtPath(folders, to);
    if (name.trim() !== '') onFile({ name, size, beside, ...(there ? { folderId: there.id } : { folderPath: to }) });
  };
  useKeys(
    {
      'Ctrl+Enter': file,
      ...Object.fromEntries(likely.map((each, at) => [`Alt+${at + 1}`, () => fileIn(each)])),
    },
    [
      ['Ctrl+Enter', 'File the document'],
      ...(likely.length > 0 ? ([['Alt+1 Alt+2 Alt+3', 'File it in one of the likely folders']] as const) : []),
    ],
  );
  const nameField = (
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
        onFocus={heldName.hold}
        onBlur={heldName.release}
        onChange={(event) => heldName.write(event.target.value)}
        onKeyDown={(event) => event.key === 'Enter' && !event.ctrlKey && !event.metaKey && file()}
      />
      <span className="mt-1 block truncate text-xs text-quiet">
        {heldName.isHeld && proposed && name !== proposed ? (
          <button className="underline" onClick={heldName.giveBack}>
            {name === '' ? 'Take' : 'Back to'} “{proposed}”
          </button>
        ) : (
          <>
            filed as <WayChoice ways={ways} way={way} onChange={setChosenWay} /> ·{' '}
            <Link className="underline" to="/filing">
              change how
            </Link>
          </>
        )}
      </span>
      {document.read === document.pages && <BooksLine documentId={document.id} folder={folder?.path ?? ''} />}
    </div>
  );
  const folderField = (
    <div data-folder>
      <span className="mb-1 block text-xs text-quiet" aria-hidden>
        Folder
      </span>
      <FolderField
        label="Folder"
        folders={folders}
        value={path}
        onChange={(to, as) => heldFolder.write({ path: to, from: as })}
        onEnter={file}
        onFocus={heldFolder.hold}
        onBlur={heldFolder.release}
        likely={document.likely}
        list={small ? 'below' : 'above'}
      />
      {likely.length > 0 ? (
        <span className="mt-1 flex flex-wrap items-baseline gap-x-3 text-xs text-quiet">
          Perhaps
          {likely.map((each, at) => (
            <button
              key={each}
              className="text-ink underline underline-offset-2"
              onClick={() => heldFolder.write({ path: each, from: folderAtPath(folders, each) ? 'there' : 'new' })}
            >
              {each.replaceAll('/', ' / ')}
              {!folderAtPath(folders, each) && ' (new)'} <Key>Alt+{at + 1}</Key>
            </button>
          ))}
        </span>
      ) : (
        <span className={`mt-1 line-clamp-2 text-xs ${isFolderSettled || !path ? 'text-quiet' : 'text-attention'}`}>
          {[
            path === suggestion?.path && suggestion.reason,
            !folder &&
              path.trim() &&
              (isFolderSettled ? 'a new folder' : 'No such folder: choose one from the list, or create it there'),
          ]
            .filter(Boolean)
            .join(' · ') || ' '}
        </span>
      )}
    </div>
  );
  const sizes = (
    <>
      <SizeChoice documentId={document.id} size={size} onChange={setChosenSize} />
      {beside.length > 0 && (
        <p className="max-w-40 truncate text-xs text-quiet">
          beside it {beside.map((form) => BESIDE_NAMES[form]).join(', ')}
        </p>
      )}
    </>
  );
  const button = (
    <Button
      main
      data-file-it
      onClick={file}
      disabled={busy}
      hint="Ctrl+Enter"
      className="h-11 justify-center px-5 text-lg"
    >
      File it
    </Button>
  );
  if (small)
    return (
      <Sheet
        open={open}
        onOpen={setOpen}
        name="Name, folder, and what was read"
        head={
          <>
            <span className="block truncate font-semibold">{name.trim() || 'No name yet'}</span>
            <span className={`block truncate text-sm ${isFolderSettled ? 'text-quiet' : 'text-attention'}`}>
              {isFolderSettled ? path.replaceAll('/', ' / ') : '! Choose a folder'}
              {!folder && isFolderSettled && ' (new)'}
            </span>
          </>
        }
        foot={button}
      >
        {nameField}
        {folderField}
        <div ref={notesRef} className="flex flex-col gap-1" />
        {sizes}
      </Sheet>
    );
  return (
    <footer className="grid shrink-0 grid-cols-[minmax(0,5fr)_minmax(0,4fr)_minmax(0,5fr)_auto] gap-x-6 border-t border-rule bg-sunken px-6 py-3">
      {nameField}
      {folderField}
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
          <p className="text-sm text-quiet">
            {folder ? inside && 'Nothing yet.' : 'Choose a folder to see what it holds.'}
          </p>
        )}
      </div>
      <div className="flex flex-col items-stretch gap-1">
        {sizes}
        {button}
      </div>
    </footer>
  );
}
