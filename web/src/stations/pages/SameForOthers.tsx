import { Popover } from 'radix-ui';
import { useState } from 'react';
import { Page } from '@crow/contract/pages';
import { Recipe } from '@crow/core/imaging/recipe';
import { readPageNumbers, sayPageNumbers } from '@crow/core/sorting/pageNumbers';
import { Button, inputLook } from '../../parts/controls';
import { useKeys } from '../../parts/keys';
import { count } from '../../parts/words';

/** What of a recipe other pages can take over, besides the look. */
interface Parts {
  look: boolean;
  outline: boolean;
  paper: boolean;
}

export interface OtherPage {
  id: string;
  recipe: Recipe;
}

/**
 * Gives other pages what this one has: its look, its outline (for pages that were all photographed in the same place), its
 * paper; for all pages or for those that are named by number.
 */
export function SameForOthers({
  pages,
  own,
  recipe,
  recipeOf,
  chosen,
  onApply,
}: {
  pages: Page[];
  own: string;
  recipe: Recipe;
  recipeOf: (page: Page) => Recipe;
  /** Ids of pages that were selected before coming here. */
  chosen: string[];
  onApply: (others: OtherPage[]) => void;
}) {
  const [open, setOpen] = useState(false);
  const [typed, setTyped] = useState(() =>
    sayPageNumbers(pages.flatMap(({ id }, at) => (chosen.includes(id) ? [at + 1] : []))),
  );
  const [parts, setParts] = useState<Parts>({ look: true, outline: false, paper: false });
  const numbers = readPageNumbers(typed, pages.length);
  const others = (numbers ?? []).map((number) => pages[number - 1]).filter(({ id }) => id !== own);
  const ready = others.length > 0 && (parts.look || parts.outline || parts.paper);
  const apply = () => {
    if (!ready) return;
    setOpen(false);
    onApply(
      others.map((page) => ({
        id: page.id,
        recipe: {
          ...recipeOf(page),
          ...(parts.look && { look: recipe.look }),
          ...(parts.outline && { corners: recipe.corners, bend: recipe.bend, angle: recipe.angle }),
          ...(parts.paper && { paper: recipe.paper }),
        },
      })),
    );
  };
  useKeys({ a: () => setOpen(true) }, [['a', 'The same for other pages']]);
  return (
    <Popover.Root open={open} onOpenChange={setOpen}>
      <Popover.Trigger asChild>
        <Button hint="a">Same for others …</Button>
      </Popover.Trigger>
      <Popover.Portal>
        <Popover.Content
          side="left"
          align="start"
          sideOffset={8}
          className="z-40 w-72 border border-quiet bg-raised p-4"
        >
          <form
            onSubmit={(event) => {
              event.preventDefault();
              apply();
            }}
          >
            <label className="block">
              <span className="mb-1 block text-xs text-quiet">Pages</span>
              <input
                className={inputLook}
                value={typed}
                placeholder="all of them, or such as 2-5, 8"
                onChange={(event) => setTyped(event.target.value)}
              />
            </label>
            <p className="mt-1 mb-3 text-xs text-quiet" aria-live="polite">
              {numbers ? count(others.length, 'other page') : `Numbers from 1 to ${pages.length}, such as 2-5, 8.`}
            </p>
            {(
              [
                ['look', 'Its look'],
                ['outline', 'Its outline and angle'],
                ['paper', 'Its paper size'],
              ] as const
            ).map(([part, name]) => (
              <label key={part} className="flex items-center gap-2 py-1">
                <input
                  type="checkbox"
                  className="accent-accent"
                  checked={parts[part]}
                  onChange={(event) => setParts({ ...parts, [part]: event.target.checked })}
                />
                {name}
              </label>
            ))}
            <Button main type="submit" disabled={!ready} hint="Enter" className="mt-3">
              Make them the same
            </Button>
          </form>
        </Popover.Content>
      </Popover.Portal>
    </Popover.Root>
  );
}
