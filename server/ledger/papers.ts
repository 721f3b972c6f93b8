import { EntityManager, IsNull } from 'typeorm';
import { MOST_AT_ONCE } from '@crow/contract/basics';
import { Output } from '@crow/contract/endpoint';
import { endpoints } from '@crow/contract/endpoints';
import { Entry as ShownEntry, EntryFields, PaperBooks as Shown, PaperBooksWish } from '@crow/contract/ledger';
import { Problem } from '@crow/contract/problems';
import { nameKey } from '@crow/core/filing/names';
import { categoryByWords } from '@crow/core/ledger/books/categories';
import { draftEntry, EntryDraft, EntryPart, isEntered, PaperSays, sumOf } from '@crow/core/ledger/books/draft';
import { CURRENCY_OF } from '@crow/core/ledger/books/taxCodes';
import { entriesFor, pairPapers } from '@crow/core/ledger/books/paperFits';
import { KINDS, likeOf } from '@crow/core/reading/facts/kindList';
import { documentsById } from '../checking/documents';
import { lockDocument } from '../stack/locks';
import { Context } from '../platform/context';
import { Account, Document, Entry, EntryPaper, Fact, PaperBooks, Stack } from '../platform/entities';
import { ActingAs, record } from '../platform/history';
import { announce } from '../platform/live';
import { readSettings } from '../platform/settings';
import { categoriesOf, foldersWithPaths, waysOf } from './books';
import { nameByEntry } from './naming';
import { changed, describeEntry, enter, insistOnCategories, SURE, writeEntry } from './entries';
import {
  entriesWithoutPaper,
  entryRemindedOf,
  isEnteredAlready,
  lastSaidOf,
  papersInNoEntry,
  pathsOfFolders,
  senderNamed,
  usualOf,
} from './queries';
import { knowSender, senderOf } from './senders';

/** What a paper is to the books, with all that decides it. */
interface Considered {
  as: Shown['as'];
  draft: EntryDraft;
  /** The draft with what a person said, and what is usual. */
  parts: EntryPart[];
  accountId: string | null;
  ownUnits: number | null;
  why: Shown['why'];
  enters: boolean;
  said: boolean;
  problems: string[];
  entry: { id: string; serial: number } | null;
  fits: Shown['fits'];
  attachTo: string | null;
}

/** What a document says that the books need. */
async function saysOf(manager: EntityManager, document: Document): Promise<PaperSays> {
  const facts = await manager.findBy(Fact, { documentId: document.id });
  const value = (name: Fact['name']) => facts.find((fact) => fact.name === name)?.value ?? '';
  const { ownKinds } = await readSettings(manager);
  return {
    kind: likeOf(value('kind') || 'other', ownKinds),
    vendor: value('vendor'),
    subject: value('subject'),
    date: value('date'),
    dueDate: value('dueDate'),
    number: value('number'),
    currency: value('currency'),
    net: value('net'),
    tax: value('tax'),
    taxRate: value('taxRate'),
    total: value('total'),
    taxes: document.taxes ?? [],
    lines: (document.lines ?? []).map(({ description }) => description),
  };
}

/** The category that a paper's first share has, and why: what a person said, the usual one of the sender, or what its words tell. */
async function proposedUnder(
  manager: EntityManager,
  says: PaperSays,
): Promise<{ categoryId: string | null; accountId: string | null; why: Shown['why'] }> {
  const categories = await categoriesOf(manager);
  const current = categories.filter(({ retired }) => !retired);
  const known = says.vendor ? await senderNamed(manager, says.vendor) : undefined;
  const usual = says.vendor ? await usualOf(manager, says.vendor) : undefined;
  if (known && current.some(({ id }) => id === known.categoryId))
    return { categoryId: known.categoryId, accountId: usual?.accountId ?? null, why: { code: 'sender', text: '' } };
  if (usual && current.some(({ id }) => id === usual.categoryId))
    return {
      categoryId: usual.categoryId,
      accountId: usual.accountId,
      why: { code: 'usual', text: String(usual.times) },
    };
  const words = categoryByWords([says.vendor, says.subject, ...says.lines].join(' '), current);
  return words
    ? { categoryId: current[words.at].id, accountId: null, why: { code: 'word', text: words.word } }
    : { categoryId: null, accountId: null, why: { code: 'none', text: '' } };
}

/** The entries that a paper may be of, the one that a person chose among them as long as it lacks a paper. */
async function fitsOf(manager: EntityManager, draft: EntryDraft, chosen: string | null): Promise<Shown['fits']> {
  const lacking = await entriesWithoutPaper(manager);
  const units = draft.problems.includes('no-total') ? null : draft.units;
  const found = entriesFor({ ...draft, units }, lacking).slice(0, MOST_FITS);
  if (chosen && !found.some(({ id }) => id === chosen)) found.push({ id: chosen, confidence: 0, alike: [] });
  return found.flatMap((fit) => {
    const own = lacking.find(({ id }) => id === fit.id);
    if (!own) return [];
    const { serial, who, day, units: owed, currency } = own;
    return [{ ...fit, serial, who, day, units: owed, currency, sure: fit.confidence >= SURE }];
  });
}

const MOST_FITS = 5;

/** @param goingTo the path of the folder that it is going to, where it isn't in one yet */
async function consider(manager: EntityManager, document: Document, goingTo?: string): Promise<Considered> {
  const says = await saysOf(manager, document);
  const { country, byThemselves, closedUntil, folders } = await waysOf(manager);
  const byFolder = enteredByFolder(
    await foldersWithPaths(manager, folders),
    await folderOf(manager, document, goingTo),
  );
  const draft = draftEntry(says, { country });
  const wish = await manager.findOneBy(PaperBooks, { documentId: document.id });
  const under = await proposedUnder(manager, says);
  // What was chosen for a paper by itself stays when its sums are put right.
  const chosen = wish?.parts?.length === 1 ? wish.parts[0].categoryId : null;
  const proposed = draft.parts.map((part) => ({ ...part, categoryId: chosen ?? under.categoryId }));
  const wished = wish?.parts && sumOf(wish.parts) === draft.units ? wish.parts : undefined;
  const link = await manager.findOne(EntryPaper, { where: { documentId: document.id }, relations: { entry: true } });
  const entry = link?.entry && !link.entry.takenOutAt ? { id: link.entryId, serial: link.entry.serial } : null;
  const as = isEntered(says.kind) || byFolder ? 'entry' : says.kind === 'reminder' ? 'reminder' : 'nothing';
  const fits = entry || as === 'reminder' ? [] : await fitsOf(manager, draft, wish?.attachTo ?? null);
  const attachTo = attachedTo(wish, fits);
  const forEntry = document.stackId
    ? ((await manager.findOneBy(Stack, { id: document.stackId }))?.forEntry ?? false)
    : false;
  const lastSaid = says.vendor ? await lastSaidOf(manager, says.vendor, document.id) : undefined;
  const problems: string[] = draft.problems.filter((each) => each !== 'not-adding-up' || !wished);
  if (!entry && (await isEnteredAlready(manager, { ...draft, exceptOf: document.id })))
    problems.push('entered-already');
  if (!entry && closedUntil !== null && draft.day && draft.day <= closedUntil) problems.push('period-closed');
  const proposes =
    as === 'entry' && !forEntry && (byFolder ?? lastSaid ?? byThemselves) && !problems.includes('entered-already');
  return {
    as,
    draft,
    parts: wished ?? proposed,
    accountId: wish?.accountId ?? under.accountId,
    // In its own money it is what it is.
    ownUnits: draft.currency === CURRENCY_OF[country] ? null : (wish?.ownUnits ?? null),
    why: wished || chosen ? { code: 'said', text: '' } : under.why,
    enters: !entry && !attachTo && (wish?.enters ?? proposes),
    said: wish?.enters != null,
    problems,
    entry,
    fits,
    attachTo,
  };
}

/** The entry that a paper is attached to once it is filed: what a person chose; else the one that is sure. */
function attachedTo(wish: PaperBooks | null, fits: Shown['fits']): string | null {
  if (wish?.attach === false || wish?.enters) return null;
  // One that has got another paper meanwhile, or was taken out, is not among them.
  if (wish?.attach) return fits.find(({ id }) => id === wish.attachTo)?.id ?? null;
  return fits.find(({ sure }) => sure)?.id ?? null;
}

/** The path of the folder that a paper is in, or is going to. */
async function folderOf(
  manager: EntityManager,
  { folderId, wantedFolder }: Document,
  goingTo: string | undefined,
): Promise<string> {
  const [there] = folderId ? await pathsOfFolders(manager, [folderId]) : [];
  return there?.path ?? goingTo ?? wantedFolder ?? '';
}

/** Whether what is filed in a folder is entered, by what is said of it, or of the nearest folder around it; nothing where nothing is said. */
function enteredByFolder(folders: readonly { path: string; enters: boolean }[], path: string): boolean | undefined {
  const key = nameKey(path);
  const around = folders.filter((each) => key === nameKey(each.path) || key.startsWith(`${nameKey(each.path)}/`));
  return around.sort((a, b) => b.path.length - a.path.length)[0]?.enters;
}

/**
 * What a paper would be in the books, or is.
 * @param goingTo the path of the folder that it is going to, where it isn't filed yet
 * @throws Problem 'not-found'
 */
export async function paperBooks(manager: EntityManager, id: string, goingTo?: string): Promise<Shown> {
  const document = await manager.findOneBy(Document, { id });
  if (!document) throw new Problem('not-found', { what: 'The document' });
  const { draft, ...considered } = await consider(manager, document, goingTo);
  const sender = draft.who ? await senderOf(manager, id, draft.who) : null;
  return { ...considered, units: draft.units, currency: draft.currency, sender };
}

/** Says how a paper is entered once it is filed. @throws Problem 'not-found', 'entry-sums' */
export function changePaperBooks({ database: { source } }: Context, id: string, wish: PaperBooksWish): Promise<Shown> {
  return source.transaction(async (manager) => {
    const document = await lockDocument(manager, id);
    if (wish.parts) {
      const { draft } = await consider(manager, document);
      if (sumOf(wish.parts) !== draft.units) throw new Problem('entry-sums');
      await insistOnCategories(manager, wish.parts);
    }
    if (wish.accountId && !(await manager.existsBy(Account, { id: wish.accountId })))
      throw new Problem('not-found', { what: 'The account' });
    if (wish.attachTo && !(await manager.existsBy(Entry, { id: wish.attachTo, takenOutAt: IsNull() })))
      throw new Problem('not-found', { what: 'The entry' });
    const before = await manager.findOneBy(PaperBooks, { documentId: id });
    await manager.save(PaperBooks, {
      documentId: id,
      enters: wish.enters === undefined ? (before?.enters ?? null) : wish.enters,
      attach: wish.attachTo === undefined ? (before?.attach ?? null) : wish.attachTo !== null,
      attachTo: wish.attachTo === undefined ? (before?.attachTo ?? null) : wish.attachTo,
      accountId: wish.accountId === undefined ? (before?.accountId ?? null) : wish.accountId,
      ownUnits: wish.ownUnits === undefined ? (before?.ownUnits ?? null) : wish.ownUnits,
      parts: wish.parts === undefined ? (before?.parts ?? null) : wish.parts,
    });
    await announce(manager, 'ledger', id);
    return paperBooks(manager, id);
  });
}

const fieldsOf = ({ draft, parts, accountId, ownUnits }: Considered): EntryFields => {
  const { day, due, who, what, number, currency, units } = draft;
  return { day, due, who, what, number, currency, units, accountId, ownUnits, parts };
};

/** Enters a paper, within a transaction; one that was entered from it before and taken out comes back as it is now. */
async function enterFrom(
  context: Context,
  manager: EntityManager,
  actor: ActingAs,
  documentId: string,
  considered: Considered,
): Promise<string> {
  const before = await manager.findOne(EntryPaper, { where: { documentId }, relations: { entry: true } });
  const { closedUntil } = await waysOf(manager);
  const isClosed = closedUntil !== null && (before?.entry?.day ?? '9') <= closedUntil;
  if (before?.entered && before.entry?.takenOutAt && !before.entry.checkedAt && !isClosed) {
    await writeEntry(context, manager, actor, before.entryId, fieldsOf(considered));
    await knowSender(manager, documentId, considered.draft.who);
    return before.entryId;
  }
  const id = await enter(context, manager, actor, fieldsOf(considered));
  await knowSender(manager, documentId, considered.draft.who);
  await manager.upsert(EntryPaper, { documentId, entryId: id, role: 'proof', entered: true }, ['documentId']);
  return id;
}

/** A paper was filed: it is attached to its entry, entered, or hung on the entry that it reminds of, as far as nothing keeps it from that. */
export async function whenFiled(
  context: Context,
  manager: EntityManager,
  { documentId, actor }: { documentId: string; actor: ActingAs },
): Promise<void> {
  const document = await manager.findOneByOrFail(Document, { id: documentId });
  const considered = await consider(manager, document);
  const { as, draft, enters, problems, entry, attachTo } = considered;
  if (entry) return;
  const hang = async (entryId: string, role: EntryPaper['role']) => {
    await manager.upsert(EntryPaper, { documentId, entryId, role, entered: false }, ['documentId']);
    await record(manager, actor, 'attached a paper to', 'entry', entryId, { documentId });
    await changed(context, manager, entryId);
  };
  if (attachTo) {
    await hang(attachTo, 'proof');
    return nameByEntry(manager, documentId, attachTo);
  }
  if (as === 'reminder' && !enters) {
    const of = await entryRemindedOf(manager, {
      ...draft,
      number: (await manager.findOneBy(Fact, { documentId, name: 'reference' }))?.value || draft.number,
    });
    return of ? hang(of, 'reminder') : undefined;
  }
  const blocked = problems.filter((each) => each !== 'entered-already' || !considered.said);
  if (enters && blocked.length === 0)
    await nameByEntry(manager, documentId, await enterFrom(context, manager, actor, documentId, considered));
}

/** A paper was taken back from the shelf: what was entered from it, and is neither checked nor of a time that is closed, goes; it comes off what it was attached to until it is filed again. */
export async function whenUnfiled(
  context: Context,
  manager: EntityManager,
  { documentId }: { documentId: string },
): Promise<void> {
  const link = await manager.findOne(EntryPaper, { where: { documentId }, relations: { entry: true } });
  const { closedUntil } = await waysOf(manager);
  if (!link?.entry || link.entry.checkedAt || (closedUntil !== null && link.entry.day <= closedUntil)) return;
  if (link.entered) await manager.update(Entry, { id: link.entryId }, { takenOutAt: new Date() });
  else {
    await manager.delete(EntryPaper, { documentId });
    // Filed again, it is of the same entry again.
    await manager.upsert(PaperBooks, { documentId, attach: true, attachTo: link.entryId }, ['documentId']);
  }
  await changed(context, manager, link.entryId);
}

/** Enters a paper that is filed already. @throws Problem 'not-found', 'paper-not-entered' */
export function enterPaper(context: Context, actor: ActingAs, id: string): Promise<ShownEntry> {
  return context.database.source.transaction(async (manager) => {
    const document = await lockDocument(manager, id);
    const considered = await consider(manager, document);
    if (considered.entry) return describeEntry(manager, considered.entry.id);
    if (considered.problems.some((each) => each !== 'entered-already')) throw new Problem('paper-not-entered');
    const entryId = await enterFrom(context, manager, actor, id, considered);
    await announce(manager, 'document', id);
    return describeEntry(manager, entryId);
  });
}

/** Papers of no entry that may prove one, the likeliest first. @throws Problem 'not-found' */
export async function papersForEntry(
  manager: EntityManager,
  id: string,
): Promise<{ documentId: string; name: string; state: string; confidence: number; alike: string[] }[]> {
  const entry = await manager.findOneBy(Entry, { id });
  if (!entry) throw new Problem('not-found', { what: 'The entry' });
  const papers = await papersInNoEntry(manager, null);
  return papers
    .flatMap(({ documentId, name, state, ...says }) => {
      const [fit] = entriesFor(says, [entry]);
      return fit ? [{ documentId, name, state, confidence: fit.confidence, alike: fit.alike }] : [];
    })
    .sort((a, b) => b.confidence - a.confidence)
    .slice(0, MOST_FITS);
}

/** Bills and receipts on the shelf that are in no entry, the latest first, with the entry without a paper that each is likely of. */
export async function papersWithoutEntry(manager: EntityManager): Promise<Output<typeof endpoints.papersWithoutEntry>> {
  const { ownKinds } = await readSettings(manager);
  const kinds = [...KINDS, ...ownKinds.map(({ name }) => name)].filter((kind) => isEntered(likeOf(kind, ownKinds)));
  const found = await papersInNoEntry(manager, kinds);
  const shown = found.slice(0, MOST_AT_ONCE);
  const lacking = await entriesWithoutPaper(manager);
  const entryOf = new Map(lacking.map((entry) => [entry.id, entry]));
  const fits = pairPapers(shown, lacking);
  const ids = shown.map(({ documentId }) => documentId);
  const byId = new Map((await documentsById(manager, ids)).map((document) => [document.id, document]));
  return ids.flatMap((each, at): Output<typeof endpoints.papersWithoutEntry> => {
    const paper = byId.get(each);
    const fit = fits.get(at);
    const entry = fit && entryOf.get(fit.id);
    if (!paper) return [];
    if (!fit || !entry) return [{ paper, fit: null }];
    const { serial, who, units, currency } = entry;
    const { confidence, alike } = fit;
    return [
      { paper, fit: { entryId: fit.id, serial, who, units, currency, confidence, sure: confidence >= SURE, alike } },
    ];
  });
}
