import { ChevronDown } from 'lucide-react';
import { DropdownMenu } from 'radix-ui';
import { useState } from 'react';
import { AskText } from '../../parts/AskText';
import { Button, Key } from '../../parts/controls';
import { DividerSheets } from '../../parts/DividerSheets';
import { menuItemLook, menuLook } from '../../parts/menu';

interface CutMenuProps {
  /** How many pages are blank. */
  blanks: number;
  onWhole: () => void;
  onSingle: () => void;
  onEvery: (pages: number) => void;
  onBlanks: () => void;
  onProposed: () => void;
}

/** Where all of a stack is cut at once. */
export function CutMenu({ blanks, onWhole, onSingle, onEvery, onBlanks, onProposed }: CutMenuProps) {
  const [asking, setAsking] = useState(false);
  const [dividing, setDividing] = useState(false);
  return (
    <>
      <DropdownMenu.Root>
        <DropdownMenu.Trigger asChild>
          <Button>
            Cut the stack <ChevronDown size={14} aria-hidden />
          </Button>
        </DropdownMenu.Trigger>
        <DropdownMenu.Portal>
          <DropdownMenu.Content className={menuLook} align="end">
            <DropdownMenu.Item className={menuItemLook} onSelect={onWhole}>
              Not at all: one document <Key>w</Key>
            </DropdownMenu.Item>
            <DropdownMenu.Item className={menuItemLook} onSelect={onSingle}>
              Into single sheets <Key>s</Key>
            </DropdownMenu.Item>
            <DropdownMenu.Item className={menuItemLook} onSelect={() => setAsking(true)}>
              Every so many pages …
            </DropdownMenu.Item>
            <DropdownMenu.Item className={menuItemLook} onSelect={onBlanks} disabled={blanks === 0}>
              Behind blank pages
            </DropdownMenu.Item>
            <DropdownMenu.Item className={menuItemLook} onSelect={onProposed}>
              As proposed
            </DropdownMenu.Item>
            <DropdownMenu.Item className={menuItemLook} onSelect={() => setDividing(true)}>
              Print divider sheets …
            </DropdownMenu.Item>
          </DropdownMenu.Content>
        </DropdownMenu.Portal>
      </DropdownMenu.Root>
      {dividing && <DividerSheets onClose={() => setDividing(false)} />}
      {asking && (
        <AskText
          title="Cut every so many pages"
          label="Pages in a document"
          confirm="Cut"
          initial="2"
          onConfirm={(text) => {
            const pages = Number(text);
            if (Number.isInteger(pages) && pages >= 1) onEvery(pages);
          }}
          onClose={() => setAsking(false)}
        />
      )}
    </>
  );
}
