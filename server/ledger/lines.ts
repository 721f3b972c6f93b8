import { EntityManager, In, IsNull } from 'typeorm';
import { Entry as ShownEntry } from '@crow/contract/ledger';
import { EnteredLine } from '@crow/contract/ledgerLines';
import { Problem } from '@crow/contract/problems';
import { shareOf } from '@crow/core/ledger/books/draft';
import { Context } from '../platform/context';
import { BookedLine, Entry, Tie, TieEntry } from '../platform/entities';
import { ActingAs, record } from '../platform/history';
import { insistOnNotClosed } from './books';
import { changed, describeEntry, enter } from './entries';
import { rememberRules } from './lineRules';
import { lockTies } from './queries';
import { tieTogether } from './ties';

/**
 * Enters lines of statements for which no bill comes, each tied to its entry.
 * @param remember whether lines with the same words are to be proposed like this from now on
 * @throws Problem 'not-found', 'line-tied', 'period-closed'
 */
export function enterLines(
  context: Context,
  actor: ActingAs,
  { lines, remember }: { lines: readonly EnteredLine[]; remember: boolean },
): Promise<ShownEntry[]> {
  return context.database.source.transaction(async (manager) => {
    await lockTies(manager);
    const booked = await linesById(manager, lines);
    const made: string[] = [];
    for (const { lineId, who, what, categoryId, taxCode, rate } of lines) {
      const line = booked.get(lineId)!;
      const units = -line.units;
      const tax = rate ? shareOf(units, rate, 100 + rate) : 0;
      const part = {
        categoryId: categoryId ?? null,
        taxCode: taxCode ?? null,
        rate: rate ?? null,
        net: units - tax,
        tax,
      };
      const id = await enter(context, manager, actor, {
        ...{ day: line.day, due: null, who, what, number: '', currency: line.currency, units },
        ...{ accountId: null, ownUnits: null, parts: [part] },
      });
      await tieTogether(manager, actor, { entries: [id], lines: [lineId] });
      made.push(id);
    }
    if (remember)
      await rememberRules(
        manager,
        actor,
        lines.map((as) => ({ line: booked.get(as.lineId)!, as })),
      );
    const entries = [];
    for (const id of made) entries.push(await describeEntry(manager, id));
    return entries;
  });
}

async function linesById(manager: EntityManager, lines: readonly EnteredLine[]): Promise<Map<string, BookedLine>> {
  const ids = [...new Set(lines.map(({ lineId }) => lineId))];
  const found = await manager.findBy(BookedLine, { id: In(ids) });
  if (found.length < ids.length || ids.length < lines.length)
    throw new Problem('not-found', { what: 'The line of the statement' });
  return new Map(found.map((line) => [line.id, line]));
}

/** Takes entries out again that were made of lines, with the ties that hold them. @throws Problem 'not-found', 'entry-checked', 'period-closed' */
export function takeOutEntries(context: Context, actor: ActingAs, ids: readonly string[]): Promise<void> {
  return context.database.source.transaction(async (manager) => {
    await lockTies(manager);
    const entries = await manager.find(Entry, {
      where: { id: In([...ids]), takenOutAt: IsNull() },
      lock: { mode: 'for_no_key_update' },
      order: { id: 'ASC' },
    });
    if (entries.length < new Set(ids).size) throw new Problem('not-found', { what: 'An entry' });
    const checked = entries.find(({ checkedAt }) => checkedAt);
    if (checked) throw new Problem('entry-checked', { serial: checked.serial });
    await insistOnNotClosed(manager, ...entries.map(({ day }) => day));
    const ties = await manager.findBy(TieEntry, { entryId: In([...ids]) });
    await manager.delete(Tie, { id: In(ties.map(({ tieId }) => tieId)) });
    await manager.update(Entry, { id: In([...ids]) }, { takenOutAt: new Date() });
    for (const { id } of entries) await record(manager, actor, 'took out', 'entry', id);
    await changed(context, manager, null);
  });
}
