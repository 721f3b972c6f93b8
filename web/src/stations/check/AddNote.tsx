import { DropdownMenu } from 'radix-ui';
import { Plus } from 'lucide-react';
import { useRef, useState } from 'react';
import { FactName } from '@crow/contract/facts';
import { Button } from '../../parts/controls';
import { useKeys } from '../../parts/keys';
import { menuItemLook, menuLook } from '../../parts/menu';
import { NOTE_NAMES } from './Note';

/** Adds a note for something that the paper says and that was not found. */
export function AddNote({ missing, onAdd }: { missing: FactName[]; onAdd: (name: FactName) => void }) {
  const [open, setOpen] = useState(false);
  const trigger = useRef<HTMLButtonElement>(null);
  const openInView = () => {
    trigger.current?.scrollIntoView?.({ block: 'nearest' });
    setOpen(true);
  };
  useKeys({ '+': openInView }, [['+', 'Add a note for something that was not found']]);
  if (missing.length === 0) return null;
  return (
    <DropdownMenu.Root open={open} onOpenChange={setOpen}>
      <DropdownMenu.Trigger asChild>
        <Button ref={trigger} hint="+" className="text-quiet">
          <Plus size={14} aria-hidden /> Add a note
        </Button>
      </DropdownMenu.Trigger>
      <DropdownMenu.Portal>
        {/* The new note takes the cursor. */}
        <DropdownMenu.Content className={menuLook} align="start" onCloseAutoFocus={(event) => event.preventDefault()}>
          {missing.map((name) => (
            <DropdownMenu.Item key={name} className={menuItemLook} onSelect={() => onAdd(name)}>
              {NOTE_NAMES[name]}
            </DropdownMenu.Item>
          ))}
        </DropdownMenu.Content>
      </DropdownMenu.Portal>
    </DropdownMenu.Root>
  );
}
