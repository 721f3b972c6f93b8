import { KeyboardEvent, useId, useState } from 'react';
import { Folder } from '@crow/contract/shapes';
import { inputLook } from './controls';

interface FolderInputProps {
  folders: Folder[];
  /** A path such as `Workshop/Rent`; it need not exist. */
  value: string;
  onChange: (path: string) => void;
  onEnter?: () => void;
  label: string;
  /** Where the list opens: over what is above, or pushing down what is below. */
  list: 'above' | 'below';
  autoFocus?: boolean;
}

const MOST_SHOWN = 8;

/** The folder that a typed path means, if there is one. */
export function folderAtPath(folders: Folder[], path: string): Folder | undefined {
  const wanted = path
    .trim()
    .replace(/\s*\/\s*/g, '/')
    .toLowerCase();
  return folders.find((folder) => folder.path.toLowerCase() === wanted);
}

/** A field for a folder: type part of its name and pick it, or type a new path to have it made. */
export function FolderInput({ folders, value, onChange, onEnter, label, list, autoFocus }: FolderInputProps) {
  const [open, setOpen] = useState(false);
  const [marked, setMarked] = useState(-1);
  const listId = useId();
  const typed = value.trim().toLowerCase();
  const exact = folderAtPath(folders, value);
  const fitting = folders.filter(({ path }) => exact || path.toLowerCase().includes(typed)).slice(0, MOST_SHOWN);
  const choose = (path: string) => {
    onChange(path);
    setOpen(false);
    setMarked(-1);
  };
  const hear = (event: KeyboardEvent) => {
    if (event.key === 'ArrowDown' || event.key === 'ArrowUp') {
      setOpen(true);
      const by = event.key === 'ArrowDown' ? 1 : -1;
      setMarked((marked + by + fitting.length) % Math.max(1, fitting.length));
    } else if (event.key === 'Enter' && !event.ctrlKey && !event.metaKey) {
      if (open && marked >= 0 && fitting[marked]) choose(fitting[marked].path);
      else {
        setOpen(false);
        onEnter?.();
      }
    } else if (event.key === 'Escape' && open) setOpen(false);
    else return;
    event.preventDefault();
    event.stopPropagation();
  };
  return (
    <div className="relative">
      <input
        className={inputLook}
        role="combobox"
        aria-label={label}
        aria-expanded={open}
        aria-controls={listId}
        aria-autocomplete="list"
        aria-activedescendant={marked >= 0 ? `${listId}-${marked}` : undefined}
        autoComplete="off"
        autoFocus={autoFocus}
        placeholder="A folder, or a new one: Workshop/Rent"
        value={value}
        onChange={(event) => {
          onChange(event.target.value);
          setOpen(true);
          setMarked(-1);
        }}
        onFocus={(event) => event.target.select()}
        onClick={() => setOpen(true)}
        // A list that pushes down what is below stays: it must not move away what is about to be clicked.
        onBlur={() => list === 'above' && setOpen(false)}
        onKeyDown={hear}
      />
      {open && (fitting.length > 0 || typed) && (
        <ul
          id={listId}
          role="listbox"
          aria-label={label}
          className={`max-h-72 w-full min-w-64 overflow-y-auto border border-quiet bg-raised py-1 ${list === 'above' ? 'absolute bottom-full z-30 mb-1' : 'mt-1'}`}
        >
          {fitting.map(({ id, path, documents }, index) => (
            <li
              key={id}
              id={`${listId}-${index}`}
              role="option"
              aria-selected={index === marked}
              className={`flex cursor-pointer justify-between gap-4 px-2 py-1 ${index === marked ? 'bg-accent-soft' : 'hover:bg-sunken'}`}
              // Before the field loses the focus, which closes the list.
              onMouseDown={(event) => {
                event.preventDefault();
                choose(path);
              }}
            >
              <span>{path.replaceAll('/', ' / ')}</span>
              <span className="font-mono text-sm text-quiet">{documents}</span>
            </li>
          ))}
          {typed && !exact && <li className="px-2 py-1 text-sm text-quiet">Makes the folder “{value.trim()}”</li>}
        </ul>
      )}
    </div>
  );
}
