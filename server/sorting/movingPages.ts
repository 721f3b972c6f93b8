import { EntityManager, In, Not } from 'typeorm';
import { Problem } from '@crow/contract/problems';
import { Weaving } from '@crow/contract/stacks';
import { Arrangement, laidBehind, setDropped, takenOut } from '@crow/core/sorting/arrangement';
import { PilePage } from '@crow/core/sorting/gaps';
import { weave } from '@crow/core/sorting/weave';
import { Context } from '../platform/context';
import { insertNew } from '../platform/database';
import { ActingAs, record } from '../platform/history';
import { announce } from '../platform/live';
import { currentArrangement } from '../stack/queries';
import { enterStep } from '../stack/arranging';
import { carryPages } from '../stack/carryingPages';
import { pileOf } from './proposing';
import { Page, Stack } from '../platform/entities';
import { binStackIfBare, lockStacksInOrder, markBacks } from './queries';

export interface Move {
  /** In the order in which they are to lie. */
  pages: string[];
  /** What the stack is called if it has to be made. */
  name?: string;
  /** How the stack lies with them; at its end, as documents of their own, without. */
  arrangement?: Arrangement;
  /** Whether they are the backs of the sheets that lie in the stack. */
  backs?: boolean;
}

/**
 * Lays pages of other open stacks into this one, which is made if it isn't there. What they leave behind is a step that can be
 * undone; a stack that nothing is left in goes to the bin, and comes out of it when its pages come back.
 * @throws Problem 'not-found', 'stack-sorted', 'stack-arriving'
 */
export async function movePages(context: Context, actor: ActingAs, id: string, move: Move): Promise<void> {
  await context.database.source.transaction(async (manager) => {
    if (move.name) await insertNew(manager, Stack, { id, name: move.name, actorId: actor.id });
    const moved = await manager.find(Page, {
      where: { id: In(move.pages), stackId: Not(id) },
      select: { id: true, stackId: true },
    });
    if (moved.length === 0) throw new Problem('not-found', { what: 'The page' });
    const from = [...new Set(moved.map(({ stackId }) => stackId))];
    const steps = await lockStacks(manager, id, from);
    const ids = new Set(moved.map((page) => page.id));
    const coming = new Map<string, Arrangement[number]>();
    const left = new Map<string, { before: Arrangement; after: Arrangement }>();
    for (const stackId of from) {
      const now = await currentArrangement(manager, stackId);
      now.forEach((page) => ids.has(page.id) && coming.set(page.id, page));
      left.set(stackId, { before: now.filter((page) => !ids.has(page.id)), after: takenOut(now, ids) });
    }
    const there = await currentArrangement(manager, id);
    const ordered = move.pages.flatMap((pageId) => coming.get(pageId) ?? []);
    await carryPages(manager, [...ids], id);
    if (move.backs) await markBacks(manager, id, [...ids]);
    for (const stackId of from) {
      const { before, after } = left.get(stackId)!;
      if (after.length > 0)
        await enterStep(context, manager, actor, { id: stackId, step: steps.get(stackId)! }, { before, after });
      else await binIfEmpty(manager, stackId);
      await announce(manager, 'stack', stackId);
    }
    // Undoing leaves them here, dropped: nothing is lost by going back and forth within one stack.
    const before = [...there, ...setDropped(ordered, ids, true)];
    const after = move.arrangement ?? laidBehind(there, ordered);
    await enterStep(context, manager, actor, { id, step: steps.get(id)! }, { before, after });
    // What somebody has laid together stays on the table, under the hand.
    await manager.update(Stack, { id }, { onward: false });
    await record(manager, actor, 'moved pages into', 'stack', id, { pages: [...ids], from });
  });
}

/** Locks all stacks in one order, so that two who move to and fro don't wait for each other; gives the step that each is at. */
async function lockStacks(manager: EntityManager, target: string, from: string[]): Promise<Map<string, number>> {
  const stacks = await lockStacksInOrder(manager, [target, ...from]);
  const into = stacks.find(({ id }) => id === target);
  if (!into) throw new Problem('not-found', { what: 'The stack' });
  if (stacks.some(({ state }) => state !== 'open')) throw new Problem('stack-sorted');
  if (stacks.some(({ id, binned }) => binned && id !== target)) throw new Problem('not-found', { what: 'The stack' });
  if (into.binned) await manager.update(Stack, { id: target }, { binnedAt: null });
  if (await manager.existsBy(Page, { stackId: In(from), prepared: false })) throw new Problem('stack-arriving');
  return new Map(stacks.map(({ id, step }) => [id, step]));
}

async function binIfEmpty(manager: EntityManager, id: string): Promise<void> {
  await binStackIfBare(manager, id);
}

/**
 * How the backs in one stack belong to the fronts in another: the whole pile in its order, whether the backs lay in reverse,
 * and what is missing, in words.
 */
export async function weaving(manager: EntityManager, frontsId: string, backsId: string): Promise<Weaving> {
  const [fronts, backs] = [await sidesOf(manager, frontsId), await sidesOf(manager, backsId)];
  if (fronts.length === 0 || backs.length === 0) throw new Problem('not-found', { what: 'One of the two stacks' });
  const { sheets, reversed } = weave(fronts, backs);
  const missing = sheets.flatMap(({ front, back }, at) => {
    if (front && back) return [];
    const place = `sheet ${at + 1}`;
    return [front ? `The back of ${place} is missing.` : `The front of ${place} is missing.`];
  });
  const pages = sheets.flatMap(({ front, back }) => [front?.id, back?.id].filter((id) => id !== undefined));
  return { pages, backs: backs.map(({ id }) => id), sheets: sheets.length, reversed, missing };
}

/**
 * Lays the backs in one stack behind their fronts in another.
 * @throws Problem as `movePages`
 */
export async function weaveStacks(context: Context, actor: ActingAs, id: string, backsId: string): Promise<Weaving> {
  const { manager } = context.database.source;
  const woven = await weaving(manager, id, backsId);
  const backs = new Set(woven.backs);
  const placed = new Map(
    [...(await currentArrangement(manager, id)), ...(await currentArrangement(manager, backsId))].map((page) => [
      page.id,
      // A back begins a document only where that is proposed.
      backs.has(page.id) ? { ...page, cutBefore: false, cutDecided: false } : page,
    ]),
  );
  const arrangement = woven.pages.map((pageId) => placed.get(pageId)!);
  await movePages(context, actor, id, { pages: woven.backs, arrangement, backs: true });
  return woven;
}

/** The pages of a stack as sides of sheets; those that a person has dropped were no sheets. */
async function sidesOf(manager: EntityManager, stackId: string): Promise<(PilePage & { id: string })[]> {
  const pile = await pileOf(manager, stackId);
  return pile.filter(({ dropped, dropDecided, divider }) => !(dropped && dropDecided) && !divider);
}
