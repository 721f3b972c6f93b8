import { KeyboardEvent, useEffect, useId, useRef, useState } from 'react';
import { FolderPlus } from 'lucide-react';
import { Folder } from '@crow/contract/folders';
import { inputLook } from './controls';

/** How a path got into a field: typed so far, one of the folders that are there, or said to be a new one. */
export type PathFrom = 'typed' | 'there' | 'new';

interface FolderInputProps {
  folders: Folder[];
  /** A path such as `Workshop/Rent`. */
  value: string;
  onChange: (path: string, from: PathFrom) => void;
  /** Called with Enter once a folder is settled on. */
  onEnter?: () => void;
  onFocus?: () => void;
  onBlur?: () => void;
  label: string;
  /** Where the list opens: over what is above, or pushing down what is below. */
  list: 'above' | 'below';
  autoFocus?: boolean;
  /** Folders to choose from before anything is typed, the likeliest first. */
  likely?: string[];
}

const MOST_SHOWN = 8;

const tidied = (path: string) =>
  path
    .trim()
    .replace(/\s*\/\s*/g, '/')
    .replace(/^\/+|\/+$/g, '');

/** The folder that a typed path means, if there is one. */
export function folderAtPath(folders: Folder[], path: string): Folder | undefined {
  const wanted = tidied(path).toLowerCase();
  return folders.find((folder) => folder.path.toLowerCase() === wanted);
}

/** Folders whose path has what was typed, those first whose own name begins with it. */
function fitting(folders: Folder[], typed: string): Folder[] {
  const wanted = tidied(typed).toLowerCase();
  const place = ({ path, name }: Folder) =>
    path.toLowerCase() === wanted ? 0 : name.toLowerCase().startsWith(wanted) ? 1 : 2;
  return folders
    .filter(({ path }) => path.toLowerCase().includes(wanted))
    .map((folder, at) => ({ folder, at }))
    .sort((a, b) => place(a.folder) - place(b.folder) || a.at - b.at)
    .map(({ folder }) => folder);
}

/**
 * A field for a folder: what is typed narrows the list, and Enter takes the one that is marked in it, the first at first. A new
 * folder is made only by choosing that in the list.
 */
export function FolderInput(props: FolderInputProps) {
  const { folders, value, onChange, onEnter, label, list, autoFocus, likely = [] } = props;
  const [open, setOpen] = useState(false);
  /** The option that Enter takes; -1 for none. */
  const [marked, setMarked] = useState(-1);
  /** Whether anything was typed since the list opened; before, all folders are shown. */
  const [typing, setTyping] = useState(false);
  const listId = useId();
  const field = useRef<HTMLInputElement>(null);
  const exact = folderAtPath(folders, value);
  const found = typing
    ? fitting(folders, value)
    : [
        ...likely.flatMap((path) => folderAtPath(folders, path) ?? []),
        ...folders.filter(({ path }) => !likely.includes(path)),
      ];
  const shown = found.slice(0, MOST_SHOWN);
  const canMake = typing && tidied(value) !== '' && !exact;
  const options = shown.length + (canMake ? 1 : 0);
  const settle = (path: string, from: PathFrom) => {
    onChange(path, from);
    setOpen(false);
    setTyping(false);
    setMarked(-1);
  };
  const takeMarked = () => {
    if (marked < shown.length) settle(shown[marked].path, 'there');
    else settle(tidied(value), 'new');
  };
  const hear = (event: KeyboardEvent) => {
    if (event.key === 'ArrowDown' || event.key === 'ArrowUp') {
      const by = event.key === 'ArrowDown' ? 1 : -1;
      if (open) setMarked(marked < 0 && by < 0 ? options - 1 : (marked + by + options) % Math.max(1, options));
      else setOpen(true);
    } else if (event.key === 'Enter' && !event.ctrlKey && !event.metaKey) {
      if (open && marked >= 0 && marked < options) takeMarked();
      else {
        setOpen(false);
        onEnter?.();
      }
    } else if (event.key === 'Escape' && open) {
      setOpen(false);
    } else return;
    event.preventDefault();
    event.stopPropagation();
  };
  useEffect(() => {
    if (open) document.getElementById(`${listId}-${marked}`)?.scrollIntoView?.({ block: 'nearest' });
  }, [open, marked, listId]);
  const optionLook = (index: number) =>
    `flex cursor-pointer justify-between gap-4 px-2 py-1 ${index === marked ? 'bg-accent-soft' : 'hover:bg-sunken'}`;
  // Before the field loses the focus, which closes the list.
  const choosing = (choose: () => void) => (event: { preventDefault: () => void }) => {
    event.preventDefault();
    choose();
    field.current?.focus();
  };
  return (
    <div className="relative">
      <input
        ref={field}
        className={inputLook}
        role="combobox"
        aria-label={label}
        aria-expanded={open}
        aria-controls={listId}
        aria-autocomplete="list"
        aria-activedescendant={open && marked >= 0 && marked < options ? `${listId}-${marked}` : undefined}
        autoComplete="off"
        autoFocus={autoFocus}
        placeholder="Part of a folder’s name, or a new one: Workshop/Rent"
        value={value}
        onChange={(event) => {
          onChange(event.target.value, 'typed');
          setOpen(true);
          setTyping(true);
          setMarked(0);
        }}
        onFocus={(event) => {
          event.target.select();
          props.onFocus?.();
        }}
        // Left to themselves some browsers put the cursor where it was clicked once everything else is done: what is typed then
        // would be added to what is proposed.
        onMouseDown={(event) => {
          if (document.activeElement === field.current) return;
          event.preventDefault();
          field.current?.focus();
          field.current?.select();
        }}
        onClick={() => setOpen(true)}
        onBlur={() => {
          // A list that pushes down what is below stays: it must not move away what is about to be clicked.
          if (list === 'above') setOpen(false);
          setTyping(false);
          setMarked(-1);
          props.onBlur?.();
        }}
        onKeyDown={hear}
      />
      {open && options > 0 && (
        <ul
          id={listId}
          role="listbox"
          aria-label={`${label}: those that fit`}
          className={`max-h-72 w-full min-w-64 overflow-y-auto border border-quiet bg-raised py-1 ${list === 'above' ? 'absolute bottom-full z-30 mb-1' : 'mt-1'}`}
        >
          {shown.map(({ id, path, documents }, index) => (
            <li
              key={id}
              id={`${listId}-${index}`}
              role="option"
              aria-selected={index === marked}
              className={optionLook(index)}
              onMouseDown={choosing(() => settle(path, 'there'))}
            >
              <span>{path.replaceAll('/', ' / ')}</span>
              <span className="font-mono text-sm text-quiet">{documents}</span>
            </li>
          ))}
          {canMake && (
            <li
              id={`${listId}-${shown.length}`}
              role="option"
              aria-selected={marked === shown.length}
              className={`${optionLook(shown.length)} justify-start border-t border-rule first:border-t-0`}
              onMouseDown={choosing(() => settle(tidied(value), 'new'))}
            >
              <FolderPlus size={15} aria-hidden className="mt-0.5 shrink-0" />
              <span>New folder “{tidied(value)}”</span>
            </li>
          )}
        </ul>
      )}
    </div>
  );
}
