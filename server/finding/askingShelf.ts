import { EntityManager } from 'typeorm';
import { AnswerSource, ShelfReply, UnderstoodQuestion } from '@crow/contract/asking';
import { FactName } from '@crow/contract/facts';
import { answerFrom, namesOn, NoAnswer, ShelfAnswer } from '@crow/core/finding/asking/answer';
import { understand } from '@crow/core/finding/asking/understand';
import { likeOf } from '@crow/core/reading/facts/kindList';
import { readSettings } from '../platform/settings';
import { Sight } from '../platform/sight';
import { papersToAsk, placesOfFact } from './queries';

/**
 * Answers a plain question over all filed papers that somebody sees, with every paper that the answer comes from; or says why nothing
 * answers it.
 * @param understood how the question is to be understood, when somebody changed that
 * @param today ISO 8601
 */
export async function askShelf(
  manager: EntityManager,
  sight: Sight,
  { question, understood: changed }: { question: string; understood?: UnderstoodQuestion },
  today: string,
): Promise<ShelfReply> {
  const { ownKinds } = await readSettings(manager);
  const papers = await papersToAsk(manager, sight);
  const folders = new Map(papers.map(({ id, folderId }) => [id, folderId]));
  const names = namesOn(
    papers,
    ownKinds.map(({ name }) => name),
  );
  const senders = names.senders.toSorted((a, b) => a.localeCompare(b));
  const understood = changed ?? understand(question, names, today);
  if ('cannot' in understood) return { understood: null, answer: null, cannot: told(understood), senders };
  const found = answerFrom(understood, { papers, like: (kind) => likeOf(kind, ownKinds), today });
  if ('cannot' in found) return { understood, answer: null, cannot: told(found), senders };
  return { understood, answer: await placed(manager, found, folders), cannot: null, senders };
}

function told(none: NoAnswer): ShelfReply['cannot'] {
  return {
    why: none.cannot,
    words: 'words' in none ? none.words : [],
    papers: 'papers' in none ? none.papers : 0,
  };
}

/** An answer with the places on papers that it comes from. */
async function placed(
  manager: EntityManager,
  found: ShelfAnswer,
  folders: ReadonlyMap<string, string | null>,
): Promise<NonNullable<ShelfReply['answer']>> {
  const facts = [...new Set(found.sources.flatMap(({ fact }) => fact ?? []))];
  const places = new Map(
    (facts.length === 0
      ? []
      : await placesOfFact(
          manager,
          found.sources.map(({ paper }) => paper.id),
          facts,
        )
    ).map((place) => [`${place.documentId} ${place.name}`, place]),
  );
  return {
    ...found,
    days: found.days.map(({ day, paper: { id, name, vendor } }) => ({ day, id, name, vendor })),
    sources: found.sources.map(({ paper, fact, money, lines }): AnswerSource => {
      const place = places.get(`${paper.id} ${fact}`);
      return {
        id: paper.id,
        folderId: folders.get(paper.id) ?? null,
        name: paper.name,
        date: paper.date,
        fact: fact as FactName | null,
        pageId: place?.pageId ?? null,
        box: place?.box ?? null,
        money,
        lines,
      };
    }),
  };
}
