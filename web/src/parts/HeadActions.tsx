import { DropdownMenu } from 'radix-ui';
import { Ellipsis } from 'lucide-react';
import { Button, IconButton, Key } from './controls';
import { menuItemLook, menuLook } from './menu';
import { useNarrow } from './useNarrow';

export interface HeadAction {
  name: string;
  hint?: string;
  run: () => void;
  /** Whether it can't be done now. */
  off?: boolean;
}

/** What can be done with what a station shows, at the right of its head: as buttons, or in a menu where there is no room for them. */
export function HeadActions({ actions }: { actions: HeadAction[] }) {
  const narrow = useNarrow();
  if (!narrow)
    return actions.map(({ name, hint, run, off }) => (
      <Button key={name} onClick={run} hint={hint} disabled={off}>
        {name}
      </Button>
    ));
  return (
    <DropdownMenu.Root>
      <DropdownMenu.Trigger asChild>
        <IconButton name="More">
          <Ellipsis size={18} />
        </IconButton>
      </DropdownMenu.Trigger>
      <DropdownMenu.Portal>
        <DropdownMenu.Content className={menuLook} align="end">
          {actions.map(({ name, hint, run, off }) => (
            <DropdownMenu.Item key={name} className={menuItemLook} disabled={off} onSelect={run}>
              {name} {hint && <Key>{hint}</Key>}
            </DropdownMenu.Item>
          ))}
        </DropdownMenu.Content>
      </DropdownMenu.Portal>
    </DropdownMenu.Root>
  );
}
