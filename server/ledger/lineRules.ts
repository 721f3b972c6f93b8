import { EntityManager } from 'typeorm';
import { Ledger } from '@crow/contract/ledger';
import { rulesFor } from '@crow/core/ledger/books/lineRules';
import { lineKey } from '@crow/core/ledger/matching/habits';
import { MatchLine } from '@crow/core/ledger/matching/entry';
import { Problem } from '@crow/contract/problems';
import { Context } from '../platform/context';
import { LineRule } from '../platform/entities';
import { ActingAs, record } from '../platform/history';
import { announce } from '../platform/live';

/** How lines that are free may be entered, as lines with the same words were before. */
export async function linesAsBefore(
  manager: EntityManager,
  lines: readonly (MatchLine & { id: string })[],
): Promise<Ledger['asBefore']> {
  const rules = await manager.find(LineRule, { order: { at: 'ASC' } });
  if (rules.length === 0) return [];
  const known = rules.map(({ outward, rate, ...rule }) => ({
    ...rule,
    out: outward,
    rate: rate === null ? null : Number(rate),
  }));
  return [...rulesFor(lines, known)].map(([at, { id, who, what, categoryId, taxCode, rate }]) => ({
    lineId: lines[at].id,
    ruleId: id,
    ...{ who, what, categoryId, taxCode, rate },
  }));
}

/** Remembers how lines with the words of these are entered, in place of how they were before. */
export async function rememberRules(
  manager: EntityManager,
  actor: ActingAs,
  entered: readonly {
    line: MatchLine;
    as: Pick<Ledger['asBefore'][number], 'who' | 'what' | 'categoryId' | 'taxCode' | 'rate'>;
  }[],
): Promise<void> {
  for (const { line, as } of entered) {
    const key = lineKey(line);
    if (!key) continue;
    const { who, what, categoryId, taxCode, rate } = as;
    await manager.upsert(
      LineRule,
      {
        ...{ key, outward: line.units < 0, who, what, categoryId, taxCode },
        rate: rate == null ? null : String(rate),
        actorId: actor.id,
        at: new Date(),
      },
      ['key', 'outward'],
    );
  }
}

/** Forgets a rule. @throws Problem 'not-found' */
export function forgetLineRule({ database: { source } }: Context, actor: ActingAs, id: string): Promise<void> {
  return source.transaction(async (manager) => {
    const rule = await manager.findOneBy(LineRule, { id });
    if (!rule) throw new Problem('not-found', { what: 'The rule' });
    await manager.delete(LineRule, { id });
    await record(manager, actor, 'forgot a rule', 'books', null, { who: rule.who });
    await announce(manager, 'ledger', null);
  });
}
