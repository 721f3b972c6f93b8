import { useState } from 'react';
import { DialogFrame } from './AskText';
import { Key } from './controls';
import { letSingleKeysAct, singleKeysAct, useKeys, useKeyWords } from './keys';

const SHOWN: Record<string, string> = {
  ArrowLeft: '←',
  ArrowRight: '→',
  ArrowUp: '↑',
  ArrowDown: '↓',
  ' ': 'Space',
  Escape: 'Esc',
};

/** A key as it is written on keyboards. */
function shown(name: string): string {
  return name
    .split(/\+(?=.)/)
    .map((part) => SHOWN[part] ?? (part.length === 1 ? part.toLowerCase() : part))
    .join('+');
}

/** `?` shows what every key does where one is. */
export function KeysPanel() {
  const [open, setOpen] = useState(false);
  useKeys({ '?': () => setOpen(true) }, [['?', 'Show these keys']]);
  return open ? <AllKeys onClose={() => setOpen(false)} /> : null;
}

function AllKeys({ onClose }: { onClose: () => void }) {
  const groups = useKeyWords();
  const [act, setAct] = useState(singleKeysAct);
  return (
    <DialogFrame title="Keys" wide onClose={onClose}>
      <div className="max-h-[60vh] overflow-y-auto">
        {/* The station's own first, those that work everywhere last. */}
        {groups.toReversed().map((words, group) => (
          <dl
            key={group}
            className="mb-3 grid grid-cols-[8.5rem_1fr] gap-x-4 gap-y-1 border-b border-rule pb-3 text-sm"
          >
            {words.map(([keys, does]) => (
              <div key={keys} className="contents">
                <dt className="flex flex-wrap items-baseline gap-1.5">
                  {keys.split(' ').map((each) => (
                    <kbd key={each} className="border border-rule bg-sunken px-1.5 font-mono text-xs">
                      {shown(each === 'Space' ? ' ' : each)}
                    </kbd>
                  ))}
                </dt>
                <dd>{does}</dd>
              </div>
            ))}
          </dl>
        ))}
      </div>
      <label className="mt-1 flex items-center gap-2 text-sm">
        <input
          type="checkbox"
          checked={act}
          onChange={(event) => {
            letSingleKeysAct(event.target.checked);
            setAct(event.target.checked);
          }}
        />
        Keys of one letter act in this browser; <Key>?</Key> always does
      </label>
    </DialogFrame>
  );
}
