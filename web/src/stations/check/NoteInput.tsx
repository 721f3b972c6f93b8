import { useCombobox } from 'downshift';
import { ChevronDown } from 'lucide-react';
import { KeyboardEvent, useEffect, useId } from 'react';
import { Choice } from '@crow/contract/facts';

interface NoteInputProps {
  label: string;
  /** What the note is found by on the desk. */
  note: string;
  value: string;
  /** What it may be chosen from, and how each is shown. */
  choices: readonly Choice[];
  shown: (value: string) => string;
  /** Whether what is typed opens the list, narrowed to what holds it. */
  opensByTyping: boolean;
  className: string;
  title: string | undefined;
  placeholder: string;
  onFocus: () => void;
  onBlur: () => void;
  onType: (text: string) => void;
  onChoose: (choice: Choice) => void;
  /** Called with what is marked in the list, and with nothing once nothing is. */
  onMark: (choice: Choice | undefined) => void;
  /** Keys that are not the list's. */
  onKey: (event: KeyboardEvent<HTMLElement>) => void;
}

/** A note's field: typed over, or chosen with the arrow down from what stands on the paper. Enter takes what is marked. */
export function NoteInput({ label, note, value, choices, shown, opensByTyping, onMark, ...props }: NoteInputProps) {
  const menuId = useId();
  const { isOpen, highlightedIndex, closeMenu, getInputProps, getMenuProps, getItemProps, getToggleButtonProps } =
    useCombobox<Choice>({
      items: choices as Choice[],
      menuId,
      inputValue: value,
      selectedItem: null,
      itemToString: (choice) => choice?.value ?? '',
      itemToKey: (choice) => choice?.value,
      getA11yStatusMessage: ({ isOpen: open }) => (open ? `${choices.length} to choose from` : ''),
      onSelectedItemChange: ({ selectedItem }) => selectedItem && props.onChoose(selectedItem),
      onHighlightedIndexChange: ({ highlightedIndex: marked }) => onMark(choices[marked]),
      onIsOpenChange: ({ isOpen: open }) => open || onMark(undefined),
      stateReducer: (before, { type, changes }) => {
        const types = useCombobox.stateChangeTypes;
        switch (type) {
          // It opens by the arrow down or its sign: whoever only looks is not in its way.
          case types.InputClick:
            return before;
          case types.InputChange:
            return { ...changes, isOpen: opensByTyping || before.isOpen, highlightedIndex: -1 };
          // Going away takes nothing.
          case types.InputBlur:
            return { ...before, isOpen: false, highlightedIndex: -1 };
          case types.MenuMouseLeave:
            return { ...changes, highlightedIndex: before.highlightedIndex };
          default:
            return changes;
        }
      },
    });
  const isShown = isOpen && choices.length > 0;
  useEffect(() => {
    // At the lower edge of the desk it would open out of sight.
    if (isShown) document.getElementById(menuId)?.scrollIntoView?.({ block: 'nearest' });
  }, [isShown, menuId]);
  const hear = (event: KeyboardEvent<HTMLElement> & { nativeEvent: { preventDownshiftDefault?: boolean } }) => {
    const isPlain = !event.ctrlKey && !event.metaKey && !event.altKey;
    if (isPlain && (event.key === 'ArrowDown' || event.key === 'ArrowUp')) return;
    event.nativeEvent.preventDownshiftDefault = true;
    const marked = isOpen ? choices[highlightedIndex] : undefined;
    if (isShown && event.key === 'Escape') {
      event.preventDefault();
      closeMenu();
      return;
    }
    if (event.key === 'Enter' && isOpen) closeMenu();
    if (event.key === 'Enter' && isPlain && marked) props.onChoose(marked);
    props.onKey(event);
  };
  return (
    <div className="relative">
      <input
        {...getInputProps({
          className: `${props.className} pr-7`,
          title: props.title,
          placeholder: props.placeholder,
          'aria-label': label,
          autoComplete: 'off',
          onKeyDown: hear,
          onFocus: props.onFocus,
          onBlur: props.onBlur,
          // Said at once, or the cursor would jump to the end of what is typed.
          onChange: (event) => props.onType(event.currentTarget.value),
        })}
        data-note={note}
      />
      {choices.length > 0 && (
        <button
          {...getToggleButtonProps({
            'aria-label': `${label}: what the paper says`,
            title: 'What the paper says (↓)',
            onMouseDown: (event) => event.preventDefault(),
          })}
          type="button"
          className="absolute top-0 right-0 flex h-7 w-7 items-center justify-center text-quiet hover:text-ink"
        >
          <ChevronDown size={15} aria-hidden />
        </button>
      )}
      <ul
        {...getMenuProps({ 'aria-label': 'What the paper says', hidden: !isShown })}
        className="absolute z-30 max-h-64 w-full overflow-y-auto border border-quiet bg-raised py-1"
      >
        {isShown &&
          choices.map((choice, index) => (
            <li
              key={choice.value}
              className={`flex cursor-pointer items-baseline gap-3 px-2 py-1 ${index === highlightedIndex ? 'bg-accent-soft' : 'hover:bg-sunken'}`}
              // The field keeps the focus, which would close the list.
              {...getItemProps({ item: choice, index, onMouseDown: (event) => event.preventDefault() })}
            >
              <span className={`shrink-0 ${props.className.includes('font-mono') ? 'font-mono' : ''}`}>
                {shown(choice.value)}
              </span>
              <span className="min-w-0 truncate text-xs text-quiet">{choice.beside}</span>
            </li>
          ))}
      </ul>
    </div>
  );
}
