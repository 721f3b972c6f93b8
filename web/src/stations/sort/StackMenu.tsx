import { ChevronDown } from 'lucide-react';
import { DropdownMenu } from 'radix-ui';
import { useState } from 'react';
import { useNavigate } from 'react-router';
import { arrangementOf } from '@crow/core/sorting/arrangement';
import { endpoints } from '@crow/contract/endpoints';
import { Stack, StackSummary } from '@crow/contract/stacks';
import { AskText, DialogFrame } from '../../parts/AskText';
import { Button, Key } from '../../parts/controls';
import { menuItemLook, menuLook } from '../../parts/menu';
import { useNotices } from '../../parts/notices';
import { count } from '../../parts/words';
import { useChange, useStacks, useWeaving } from '../../queries';

interface StackMenuProps {
  stack: Stack;
  /** The pages that are selected, in their order. */
  selected: string[];
  settled: () => Promise<void>;
  onBack: () => void;
}

/** What can be done with pages beyond the stack that they lie in: to its end, into another one, woven with another one. */
export function StackMenu({ stack, selected, settled, onBack }: StackMenuProps) {
  const { data: stacks = [] } = useStacks();
  const [naming, setNaming] = useState(false);
  const [weavingIn, setWeavingIn] = useState<StackSummary>();
  const move = useMoving(stack, settled);
  const others = stacks.filter(({ id, pages }) => id !== stack.id && pages > 0);
  return (
    <>
      <DropdownMenu.Root>
        <DropdownMenu.Trigger asChild>
          <Button>
            Move <ChevronDown size={14} aria-hidden />
          </Button>
        </DropdownMenu.Trigger>
        <DropdownMenu.Portal>
          <DropdownMenu.Content className={`${menuLook} max-h-[70vh] overflow-y-auto`} align="start" side="top">
            <DropdownMenu.Item className={menuItemLook} onSelect={onBack}>
              To the back of the stack <Key>b</Key>
            </DropdownMenu.Item>
            <DropdownMenu.Item className={menuItemLook} onSelect={() => setNaming(true)}>
              Into a new stack …
            </DropdownMenu.Item>
            {others.map((each) => (
              <DropdownMenu.Item key={each.id} className={menuItemLook} onSelect={() => void move(selected, each)}>
                <span className="max-w-72 truncate">Into “{each.name}”</span>
              </DropdownMenu.Item>
            ))}
            {others.length > 0 && <DropdownMenu.Separator className="my-1 border-t border-rule" />}
            {others.map((each) => (
              <DropdownMenu.Item key={each.id} className={menuItemLook} onSelect={() => setWeavingIn(each)}>
                <span className="max-w-72 truncate">Weave in the backs from “{each.name}” …</span>
              </DropdownMenu.Item>
            ))}
          </DropdownMenu.Content>
        </DropdownMenu.Portal>
      </DropdownMenu.Root>
      {naming && (
        <AskText
          title={`${count(selected.length, 'page')} into a new stack`}
          label="Name of the new stack"
          confirm="Move them"
          initial="Set aside"
          onConfirm={(name) => move(selected, { id: crypto.randomUUID(), name }, true)}
          onClose={() => setNaming(false)}
        />
      )}
      {weavingIn && (
        <Weave fronts={stack} backs={weavingIn} settled={settled} onClose={() => setWeavingIn(undefined)} />
      )}
    </>
  );
}

/** Moves pages into another stack, and back as they lay when that is undone. */
function useMoving(stack: Stack, settled: () => Promise<void>) {
  const { tell } = useNotices();
  const navigate = useNavigate();
  const undo = useChange(endpoints.movePages, ['stack'], () => void navigate(`/sort/${stack.id}`));
  const move = useChange(endpoints.movePages, ['stack']);
  return async (pages: string[], to: { id: string; name: string }, isNew = false) => {
    await settled();
    const arrangement = arrangementOf(stack.pageList);
    await move.mutateAsync({ params: { id: to.id }, body: { pages, ...(isNew && { name: to.name }) } });
    const putBack = () => undo.mutate({ params: { id: stack.id }, body: { pages, arrangement } });
    tell({
      text: `${count(pages.length, 'page')} moved into “${to.name}”.`,
      action: { label: 'Undo', run: putBack },
    });
    if (pages.length === stack.pageList.length) void navigate(`/sort/${to.id}`);
  };
}

/** Shows how the backs in one stack belong to the fronts in another before they are woven. */
function Weave({
  fronts,
  backs,
  settled,
  onClose,
}: {
  fronts: Stack;
  backs: StackSummary;
  settled: () => Promise<void>;
  onClose: () => void;
}) {
  const { data: weaving, isError } = useWeaving(fronts.id, backs.id);
  const { tell } = useNotices();
  const apart = useChange(endpoints.movePages, ['stack']);
  const weave = useChange(endpoints.weaveStacks, ['stack'], (woven) => {
    const takeApart = () => apart.mutate({ params: { id: backs.id }, body: { pages: woven.backs } });
    tell({
      text: `${count(woven.backs.length, 'back')} from “${backs.name}” woven in.`,
      action: { label: 'Take apart', run: takeApart },
    });
    onClose();
  });
  return (
    <DialogFrame title={`Weave in the backs from “${backs.name}”`} onClose={onClose}>
      {weaving ? (
        <>
          <p className="text-sm">
            {count(weaving.pages.length - weaving.backs.length, 'front')} and {count(weaving.backs.length, 'back')} make{' '}
            {count(weaving.sheets, 'sheet')}; the backs lie{' '}
            {weaving.reversed ? 'from the last sheet to the first' : 'in the order of the fronts'}.
          </p>
          {weaving.missing.length > 0 && (
            <div role="alert" className="mt-3 border-l-4 border-attention px-3 py-1 text-sm">
              <strong className="font-semibold">A side is missing.</strong>{' '}
              {weaving.missing.slice(0, MOST_MISSING).join(' ')}
              {weaving.missing.length > MOST_MISSING && ` And ${weaving.missing.length - MOST_MISSING} more.`} Perhaps
              two sheets went through at once; look there before you weave.
            </div>
          )}
        </>
      ) : (
        <p className="text-sm text-quiet">
          {isError ? 'One of the two stacks is no longer there.' : 'Looking at both …'}
        </p>
      )}
      <div className="mt-4 flex justify-end gap-2">
        <Button onClick={onClose}>Cancel</Button>
        <Button
          main
          autoFocus
          disabled={!weaving || weave.isPending}
          onClick={() =>
            void settled().then(() => weave.mutate({ params: { id: fronts.id }, body: { backs: backs.id } }))
          }
        >
          Weave
        </Button>
      </div>
    </DialogFrame>
  );
}

const MOST_MISSING = 4;
