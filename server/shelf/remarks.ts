import { EntityManager } from 'typeorm';
import { MOST_TAGS, Remark } from '@crow/contract/documents';
import { Problem } from '@crow/contract/problems';
import { fold } from '@crow/core/reading/facts/rows';
import { tokenise } from '@crow/core/finding/tokens';
import { Context } from '../platform/context';
import { ActingAs, record } from '../platform/history';
import { announce } from '../platform/live';
import { insist } from '../checking/documents';
import { lockDocument } from '../stack/locks';
import { addToVocabulary } from '../reading/reading';
import { writeRemark } from './queries';

export { tagsInUse } from './queries';

/** Gives documents tags and notes. @throws Problem 'not-found', 'document-elsewhere' for one in the bin, 'not-valid' for too many tags */
export async function remarkOn(
  { database }: Context,
  actor: ActingAs,
  changes: readonly (Remark & { id: string })[],
): Promise<void> {
  await database.source.transaction(async (manager) => {
    // Locked in the same order whoever asks, so that two who change the same ones wait for each other.
    for (const { id, add = [], remove = [], note } of changes.toSorted((a, b) => (a.id < b.id ? -1 : 1))) {
      const document = await lockDocument(manager, id);
      insist(document, 'check', 'filing', 'filed');
      const tags = [...document.tags.filter((tag) => !remove.includes(tag)), ...add];
      if (tags.length > MOST_TAGS) throw new Problem('not-valid', { detail: `a paper has ${MOST_TAGS} tags at most` });
      await keepRemark(manager, id, { tags, note: note ?? document.note });
      await record(manager, actor, 'remarked on', 'document', id);
      await announce(manager, 'document', id);
    }
  });
}

/** Keeps what somebody calls a document and writes about it, as it will be found; of tags that are spelt alike the first. */
export async function keepRemark(
  manager: EntityManager,
  id: string,
  { tags, note }: { tags: readonly string[]; note: string },
): Promise<void> {
  const spelt = tags.map((tag) => fold(tag));
  const distinct = tags.filter((_, at) => spelt.indexOf(spelt[at]) === at);
  const words = [...new Set(tokenise([...distinct, note].join('\n')).map(({ text }) => text))].sort();
  await writeRemark(manager, id, { tags: distinct, note, words });
  await addToVocabulary(
    manager,
    words.filter((word) => word.length >= 3 && /\p{L}/u.test(word)),
  );
}
