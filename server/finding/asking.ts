import { EntityManager } from 'typeorm';
import { DocumentAnswer } from '@crow/contract/documents';
import { shareOf } from '@crow/core/geometry';
import { answerTo } from '@crow/core/finding/questions';
import { textsOf } from '../checking/facts';
import { readSettings } from '../platform/settings';
import { Fact } from '../platform/entities';

/** Answers a plain question about a document, with the place that the answer stands at; nothing when nothing answers. */
export async function askDocument(manager: EntityManager, id: string, question: string): Promise<DocumentAnswer> {
  const facts = await manager.findBy(Fact, { documentId: id });
  const pages = await textsOf(manager, id);
  const places = new Map(facts.map((fact) => [fact.name as string, fact]));
  const values = Object.fromEntries(facts.map(({ name, value }) => [name, value]));
  const found = answerTo(question, values, pages, (await readSettings(manager)).days);
  if (!found) return { text: null, pageId: null, box: null };
  if (found.fact) {
    const place = places.get(found.fact);
    return { text: found.text, pageId: place?.pageId ?? null, box: place?.box ?? null };
  }
  const page = pages[(found.page ?? 1) - 1];
  return { text: found.text, pageId: page.pageId, box: found.box && shareOf(found.box, page) };
}
