import { EntityManager } from 'typeorm';
import { DocumentAnswer } from '@crow/contract/documents';
import { Fact } from '@crow/contract/facts';
import { shareOf } from '@crow/core/geometry';
import { answerTo } from '@crow/core/reading/questions';
import { textsOf } from '../checking/facts';
import { rows } from '../platform/database';
import { readSettings } from '../platform/settings';

/** Answers a plain question about a document, with the place that the answer stands at; nothing when nothing answers. */
export async function askDocument(manager: EntityManager, id: string, question: string): Promise<DocumentAnswer> {
  const facts = await rows<Fact>(
    manager,
    'select name, value, page_id as "pageId", box from fact where document_id = $1',
    [id],
  );
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
