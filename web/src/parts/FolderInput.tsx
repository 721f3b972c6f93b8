import { FolderPlus } from 'lucide-react';
import { useCombobox } from 'downshift';
import { KeyboardEvent, useState } from 'react';
import { Folder } from '@crow/contract/folders';
import { inputLook } from './controls';
import { fitting, folderAtPath, tidied } from './folderPaths';

/** How a path got into a field: typed so far, one of the folders that are there, or said to be a new one. */
export type PathFrom = 'typed' | 'there' | 'new';

export interface FolderInputProps {
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

/** One line of the list: a folder that is there, or the new one that typing it would make. */
interface Option {
  path: string;
  from: 'there' | 'new';
  documents?: number;
}

const MOST_SHOWN = 8;

/**
 * A field for a folder: what is typed narrows the list, and Enter takes the one that is marked in it, the first at first. A new
 * folder is made only by choosing that in the list.
 */
export default function FolderInput(props: FolderInputProps) {
  const { folders, value, onChange, onEnter, label, list, autoFocus, likely = [] } = props;
  /** Whether anything was typed since the list opened; before, all folders are shown. */
  const [typing, setTyping] = useState(false);
  const settle = ({ path, from }: Option) => {
    onChange(path, from);
    setTyping(false);
  };
  const options = optionsFor(folders, likely, typing ? value : undefined);
  const { isOpen, highlightedIndex, closeMenu, getInputProps, getMenuProps, getItemProps } = useCombobox<Option>({
    items: options,
    inputValue: value,
    selectedItem: null,
    itemToString: (option) => option?.path ?? '',
    itemToKey: (option) => option && `${option.from} ${option.path}`,
    defaultHighlightedIndex: 0,
    getA11yStatusMessage: ({ isOpen: shown }) => (shown ? `${options.length} to choose from` : ''),
    onSelectedItemChange: ({ selectedItem }) => selectedItem && settle(selectedItem),
    stateReducer: (before, { type, changes }) => {
      const types = useCombobox.stateChangeTypes;
      switch (type) {
        case types.InputClick:
          // Nothing is marked until somebody types or goes into the list: Enter takes what the field says.
          return { ...changes, isOpen: true, highlightedIndex: before.isOpen ? before.highlightedIndex : -1 };
        case types.InputBlur:
          // A list that pushes down what is below stays: it must not move away what is about to be clicked.
          return { ...before, isOpen: list === 'below' && before.isOpen, highlightedIndex: -1 };
        case types.MenuMouseLeave:
          return { ...changes, highlightedIndex: before.highlightedIndex };
        default:
          return changes;
      }
    },
  });
  const hear = (event: KeyboardEvent & { nativeEvent: { preventDownshiftDefault?: boolean } }) => {
    const isPlainEnter = event.key === 'Enter' && !event.ctrlKey && !event.metaKey;
    if (isPlainEnter) {
      // Settled at once rather than after the next drawing: the key that files may follow right behind.
      event.nativeEvent.preventDownshiftDefault = true;
      event.preventDefault();
      closeMenu();
      const marked = isOpen ? options[highlightedIndex] : undefined;
      if (marked) settle(marked);
      else onEnter?.();
    } else if (event.key === 'Escape' || event.key === 'Enter') {
      // Escape closes the list and leaves what is typed; Enter with another key is the station's.
      event.nativeEvent.preventDownshiftDefault = true;
      if (event.key === 'Enter' || !isOpen) return;
      closeMenu();
    } else if (event.key !== 'ArrowDown' && event.key !== 'ArrowUp') return;
    event.stopPropagation();
  };
  const shown = isOpen && options.length > 0;
  return (
    <div className="relative">
      <input
        className={inputLook}
        autoFocus={autoFocus}
        placeholder="Part of a folder’s name, or a new one: Workshop/Rent"
        {...getInputProps({
          'aria-label': label,
          onKeyDown: hear,
          // Said at once, or the cursor would jump to the end of what is typed.
          onChange: (event) => {
            setTyping(true);
            onChange(event.currentTarget.value, 'typed');
          },
          onFocus: (event) => {
            event.currentTarget.select();
            props.onFocus?.();
          },
          // Left to themselves some browsers put the cursor where it was clicked once everything else is done: what is typed
          // then would be added to what is proposed.
          onMouseDown: (event) => {
            const field = event.currentTarget;
            if (document.activeElement === field) return;
            event.preventDefault();
            field.focus();
            field.select();
          },
          onBlur: () => {
            setTyping(false);
            props.onBlur?.();
          },
        })}
      />
      <ul
        {...getMenuProps({ 'aria-label': 'Those that fit', hidden: !shown })}
        className={`max-h-72 w-full min-w-64 overflow-y-auto border border-quiet bg-raised py-1 ${list === 'above' ? 'absolute bottom-full z-30 mb-1' : 'mt-1'}`}
      >
        {shown &&
          options.map((option, index) => (
            <li
              key={`${option.from} ${option.path}`}
              className={`flex cursor-pointer gap-4 px-2 py-1 ${index === highlightedIndex ? 'bg-accent-soft' : 'hover:bg-sunken'} ${option.from === 'new' ? 'border-t border-rule first:border-t-0' : 'justify-between'}`}
              // The field keeps the focus, which would close the list.
              {...getItemProps({ item: option, index, onMouseDown: (event) => event.preventDefault() })}
            >
              {option.from === 'new' ? (
                <>
                  <FolderPlus size={15} aria-hidden className="mt-0.5 shrink-0" />
                  <span>New folder “{option.path}”</span>
                </>
              ) : (
                <>
                  <span>{option.path.replaceAll('/', ' / ')}</span>
                  <span className="font-mono text-sm text-quiet">{option.documents}</span>
                </>
              )}
            </li>
          ))}
      </ul>
    </div>
  );
}

/** What the list offers: the likely folders first, or what fits to what was typed, and a new one where none is just that. */
function optionsFor(folders: Folder[], likely: string[], typed: string | undefined): Option[] {
  const found =
    typed === undefined
      ? [
          ...likely.flatMap((path) => folderAtPath(folders, path) ?? []),
          ...folders.filter(({ path }) => !likely.includes(path)),
        ]
      : fitting(folders, typed);
  const there = found.slice(0, MOST_SHOWN).map(({ path, documents }): Option => ({ path, from: 'there', documents }));
  const path = tidied(typed ?? '');
  return path && !folderAtPath(folders, path) ? [...there, { path, from: 'new' }] : there;
}
