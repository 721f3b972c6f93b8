import { EntityManager } from 'typeorm';
import { Choices } from '@crow/contract/facts';
import { shareOf } from '@crow/core/geometry';
import { Choice, CHOICE_GROUPS, choicesOf } from '@crow/core/reading/facts/choices';
import { confirmedVendors, ReadPage, textsOf } from './factQueries';

/** Facts stand on the first pages of a document. */
const PAGES_LOOKED_AT = 8;

/** What a document says that its facts could be; names that others of its papers have as well, behind those that it has itself. */
export async function choicesFor(manager: EntityManager, documentId: string): Promise<Choices> {
  const texts = await textsOf(manager, documentId, { most: PAGES_LOOKED_AT });
  const found = choicesOf(texts);
  const [days, sums, numbers, names, rates, currencies] = CHOICE_GROUPS.map((group) =>
    found[group].map((each) => placed(each, texts)),
  );
  const said = new Set(names.map(({ value }) => value));
  const others = (await confirmedVendors(manager)).filter((name) => !said.has(name));
  const known = others.map((value) => ({ value, beside: '', pageId: null, box: null }));
  return { days, sums, numbers, names: [...names, ...known], rates, currencies };
}

/** With its place as shares of its page. */
function placed({ value, beside, page, box }: Choice, texts: readonly ReadPage[]) {
  const text = texts[page - 1];
  return { value, beside, pageId: text.pageId, box: shareOf(box, text) };
}
