import { createHash } from 'node:crypto';
import { EntityManager } from 'typeorm';
import { Recipe } from '@crow/core/imaging/recipe';
import { WHOLE_PICTURE } from '@crow/core/sorting/arrangement';
import { rows } from '../platform/database';

export const AS_IT_IS = WHOLE_PICTURE;

/** Keeps a recipe under its version, by which pages, pictures and readings name it. */
export async function keepRecipe(manager: EntityManager, recipe: Recipe | null): Promise<string> {
  if (!recipe) return AS_IT_IS;
  const text = inOrder(recipe);
  const version = createHash('sha256').update(text).digest('hex').slice(0, 20);
  await manager.query('insert into recipe (version, recipe) values ($1, $2) on conflict do nothing', [version, text]);
  return version;
}

/** The recipe of a version; null for the picture as it is, and undefined for a version that nobody kept. */
export async function recipeOf(manager: EntityManager, version: string): Promise<Recipe | null | undefined> {
  if (version === AS_IT_IS) return null;
  const [found] = await rows<{ recipe: Recipe }>(manager, 'select recipe from recipe where version = $1', [version]);
  return found?.recipe;
}

/** A recipe as text that is always the same for the same recipe: the database keeps the names in an order of its own. */
function inOrder({ corners, angle, look, paper, marks }: Recipe): string {
  return JSON.stringify({
    corners,
    angle,
    look,
    paper,
    marks: marks.map(({ points, radius }) => ({ points, radius })),
  });
}
