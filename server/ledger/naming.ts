import { EntityManager } from 'typeorm';
import { nameKey } from '@crow/core/filing/names';
import { filedAs, namesByEntry, valuesOf } from '@crow/core/filing/pattern';
import { documentsById } from '../checking/documents';
import { Document, Entry, Fact } from '../platform/entities';
import { readSettings } from '../platform/settings';
import { settleName } from '../shelf/filingDocuments';

/**
 * Names a paper that is being filed by the number of its entry too, where the way by which it is filed asks for that: it had none before. A name
 * that somebody gave stays.
 */
export async function nameByEntry(manager: EntityManager, documentId: string, entryId: string): Promise<void> {
  const { filing: ways } = await readSettings(manager);
  if (!ways.some(namesByEntry)) return;
  const [summary] = await documentsById(manager, [documentId]);
  const { folderId, name } = await manager.findOneByOrFail(Document, { id: documentId });
  if (!folderId) return;
  const facts = await manager.findBy(Fact, { documentId });
  const values = valuesOf(Object.fromEntries(facts.map((fact) => [fact.name, fact.value])), summary);
  const folder = summary.folderPath ?? '';
  const before = filedAs(ways, values, { folder });
  const isAsProposed = nameKey(name.replace(/ \(\d+\)$/, '')) === nameKey(before.name);
  if (!isAsProposed || !namesByEntry(before.way)) return;
  const { serial } = await manager.findOneByOrFail(Entry, { id: entryId });
  const wanted = filedAs(ways, { ...values, entry: String(serial) }, { folder }).name;
  const given = await settleName(manager, folderId, wanted, documentId);
  await manager.update(Document, { id: documentId }, { name: given, nameKey: nameKey(given) });
}
