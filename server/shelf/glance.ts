import { EntityManager } from 'typeorm';
import { Glance } from '@crow/contract/folders';
import { addDays } from '@crow/core/shelf/days';
import { comingUp, EARLIEST, LATEST } from '@crow/core/shelf/comingUp';
import { Money } from '@crow/core/money';
import { likeOf, kindTraits } from '@crow/core/reading/facts/kindList';
import { documentsDueBetween, documentsFiledLast } from '../checking/documents';
import { readSettings } from '../platform/settings';
import { foldersOf, Sight } from '../platform/sight';
import { listFolders } from './folders';
import { sumsInFolders } from './queries';

const MOST_LATEST = 12;

/**
 * The shelf at a glance: what came last, what is due or ends soon, and what folders add up to.
 * @param today ISO 8601
 */
export async function glanceAt(manager: EntityManager, sight: Sight, today: string): Promise<Glance> {
  const seen = foldersOf(sight);
  const { ownKinds } = await readSettings(manager);
  const like = (kind: string) => likeOf(kind, ownKinds);
  const near = await documentsDueBetween(manager, seen, addDays(today, EARLIEST), addDays(today, LATEST));
  const byId = new Map(near.map((document) => [document.id, document]));
  const sums = (await sumsInFolders(manager, seen)).filter(
    ({ kind }) => kind === null || !kindTraits[like(kind)].repeats,
  );
  return {
    latest: await documentsFiledLast(manager, seen, MOST_LATEST),
    comingUp: comingUp(near, today, like).map(({ paper, what, day, inDays }) => ({
      document: byId.get(paper)!,
      what,
      day,
      inDays,
    })),
    folders: (await listFolders(manager, seen)).map(({ id, path }, _, all) => {
      const inside = new Set(
        all.filter((each) => each.id === id || each.path.startsWith(`${path}/`)).map((each) => each.id),
      );
      return { id, sums: added(sums.filter(({ folderId }) => inside.has(folderId))) };
    }),
  };
}

/** Sums by currency, the largest first. */
function added(sums: readonly { currency: string | null; units: string }[]): Money[] {
  const by = new Map<string | null, number>();
  for (const { currency, units } of sums) by.set(currency, (by.get(currency) ?? 0) + Number(units));
  return [...by].map(([currency, units]) => ({ currency, units })).sort((a, b) => b.units - a.units);
}
