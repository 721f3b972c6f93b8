import { createHash } from 'node:crypto';
import { EntityManager } from 'typeorm';
import { Recipe } from '@crow/core/imaging/recipe';
import { WHOLE_PICTURE } from '@crow/core/sorting/arrangement';
import { insertNew } from '../platform/database';
import { KeptRecipe } from '../platform/entities';

export const AS_IT_IS = WHOLE_PICTURE;

/** Keeps a recipe under its version, by which pages, pictures and readings name it. */
export async function keepRecipe(manager: EntityManager, recipe: Recipe | null): Promise<string> {
  if (!recipe) return AS_IT_IS;
  const text = inOrder(recipe);
  const version = createHash('sha256').update(text).digest('hex').slice(0, 20);
  await insertNew(manager, KeptRecipe, { version, recipe });
  return version;
}

/** The recipe of a version; null for the picture as it is, and undefined for a version that nobody kept. */
export async function recipeOf(manager: EntityManager, version: string): Promise<Recipe | null | undefined> {
  if (version === AS_IT_IS) return null;
  const found = await manager.findOneBy(KeptRecipe, { version });
  return found?.recipe;
}

/** A recipe as text that is always the same for the same recipe: the database keeps the names in an order of its own. */
function inOrder({ corners, bend, angle, look, paper, marks }: Recipe): string {
  return JSON.stringify({
    corners,
    // Left out where there is none, so that what was kept before has the same version.
    bend: bend && { across: bend.across, down: bend.down, places: bend.places },
    angle,
    look,
    paper,
    marks: marks.map(({ points, radius }) => ({ points, radius })),
  });
}
