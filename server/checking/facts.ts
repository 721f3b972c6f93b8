import { numberingFaults, printedNumbers } from '@crow/core/reading/book';
import { EntityManager, IsNull, Not } from 'typeorm';
import { FACT_NAMES, FactName } from '@crow/contract/facts';
import { shareOf } from '@crow/core/geometry';
import { Fact as FoundFact, Facts } from '@crow/core/reading/facts/fact';
import { findFacts } from '@crow/core/reading/facts/findFacts';
import { withInvoiceData } from '@crow/core/reading/facts/invoiceData';
import { withMailData } from '@crow/core/reading/facts/mailData';
import { fold } from '@crow/core/reading/facts/rows';
import { checksOf, findSigns } from '@crow/core/reading/facts/signs';
import { keptValue, MONEY, typedFact } from '@crow/core/reading/facts/typedFact';
import { insertNew } from '../platform/database';
import { readSettings } from '../platform/settings';
import { Fact as FactRow, FactEmptied, SenderSign } from '../platform/entities';
import {
  confirmedVendors,
  dataOf,
  keepRead,
  keepTyped,
  kindSaidOf,
  ReadPage,
  rememberSigns,
  sendersWithSigns,
  textsOf,
} from './factQueries';

export { type ReadPage, textsOf };

/** Finds the facts in what has been read so far; what a person has set stays. */
export async function refreshFacts(manager: EntityManager, documentId: string): Promise<void> {
  const texts = await textsOf(manager, documentId);
  const knownVendors = await confirmedVendors(manager);
  const signs = findSigns(texts);
  const said = await manager.findOneBy(FactRow, { documentId, name: 'kind', confirmedBy: Not(IsNull()) });
  const knownSigns = await sendersWithSigns(manager, documentId, signs);
  const { ownKinds } = await readSettings(manager);
  const findAs = (kind?: string) => findFacts(texts, { knownVendors, knownSigns, kind, ownKinds });
  const unasked = findAs();
  const kindRead = formOf(unasked.kind);
  const read = said ? findAs(said.value) : await asBefore(manager, documentId, unasked, kindRead, findAs);
  const { invoice, mail } = await dataOf(manager, documentId);
  const found = invoice ? withInvoiceData(read, invoice) : mail ? withMailData(read, mail) : read;
  await manager.delete(FactRow, { documentId, confirmedBy: IsNull() });
  const emptied = await emptiedFacts(manager, documentId);
  for (const name of FACT_NAMES) {
    const fact = (found as Partial<Record<FactName, FoundFact<string | number> | null>>)[name];
    if (!fact || emptied.includes(name)) continue;
    const asTyped = (told: string | number) =>
      typedFact(name, MONEY.includes(name) ? Number(told).toFixed(2) : String(told));
    const typed = asTyped(fact.value);
    if (!('value' in typed) || !typed.value) continue;
    const { value } = typed;
    const other = fact.other === undefined ? undefined : asTyped(fact.other);
    const page: ReadPage | undefined = texts[fact.page - 1];
    await insertNew(manager, FactRow, {
      documentId,
      name,
      value,
      pageId: page?.pageId ?? null,
      box: page && fact.box[2] > 0 ? shareOf(fact.box, page) : null,
      confidence: fact.confidence,
      why: fact.why,
      repaired: fact.repaired !== undefined,
      other: other && 'value' in other ? other.value : null,
    });
  }
  await keepRead(manager, documentId, {
    checks: [...checksOf(signs), ...numberingFaults(printedNumbers(inTheirPlaces(texts)))],
    lines: found.lines?.value ?? null,
    taxes: found.taxes?.value ?? null,
    bookings: found.bookings?.value ?? null,
    kindRead,
  });
  await typeFacts(manager, documentId);
}

/** The pages of a document with what was read of them; those not read yet say nothing. */
function inTheirPlaces(texts: readonly ReadPage[]): Pick<ReadPage, 'width' | 'height' | 'words'>[] {
  const byNumber = new Map(texts.map((text) => [text.number, text]));
  const last = Math.max(0, ...byNumber.keys());
  return Array.from({ length: last }, (_, at) => byNumber.get(at + 1) ?? { width: 1, height: 1, words: [] });
}

/** What was read of a paper's kind, and by which word of its form: papers that are alike in this are of one form. */
function formOf(kind: FoundFact | null): string | null {
  return kind && `${kind.value} ${kind.why.code === 'says' ? fold(kind.why.text) : ''}`.trim();
}

/** How sure a kind is that a person said of such a paper before. */
const SAID_BEFORE = 0.95;

/** The facts as those of the kind that a person said of the last paper of this sender and form. */
async function asBefore(
  manager: EntityManager,
  documentId: string,
  read: Facts,
  kindRead: string | null,
  findAs: (kind: string) => Facts,
): Promise<Facts> {
  const kind = read.vendor && kindRead ? await kindSaidOf(manager, documentId, read.vendor.value, kindRead) : undefined;
  if (!kind || kind === read.kind?.value) return read;
  const facts = findAs(kind);
  return { ...facts, kind: facts.kind && { ...facts.kind, confidence: SAID_BEFORE, why: { code: 'said-before' } } };
}

/** Keeps what the facts of a document say by its type; after any of them was entered: how money is kept depends on the currency. */
export async function typeFacts(manager: EntityManager, documentId: string): Promise<void> {
  const facts = await manager.findBy(FactRow, { documentId });
  const currency = facts.find(({ name }) => name === 'currency')?.value ?? null;
  await keepTyped(
    manager,
    documentId,
    facts.map(({ name, value }) => ({ name, ...keptValue(name, value, currency) })),
  );
}

/** What a person says that a document does not say. */
export async function emptiedFacts(manager: EntityManager, documentId: string): Promise<FactName[]> {
  const found = await manager.findBy(FactEmptied, { documentId });
  return found.map(({ name }) => name);
}

/** Remembers which signs stand on the papers of a sender that a person has confirmed. */
export async function rememberSender(manager: EntityManager, documentId: string): Promise<void> {
  const sender = await manager.findOneBy(FactRow, { documentId, name: 'vendor', confirmedBy: Not(IsNull()) });
  await manager.delete(SenderSign, { documentId });
  if (!sender) return;
  const signs = findSigns(await textsOf(manager, documentId)).filter(({ kind, fits }) => fits || kind !== 'iban');
  await rememberSigns(manager, documentId, sender.value, signs);
}
