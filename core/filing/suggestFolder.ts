import { isCommonWord } from '../reading/language';
import { nameKey } from './names';
import { topicsOf, topicsOfFolder, TopicTold } from './topics';

/** What is known of a paper when a folder is sought for it. */
export interface PaperLike {
  vendor?: string;
  kind?: string;
  /** The words on its first page, in small letters without accents (see core/finding/tokens), each once. */
  words?: readonly string[];
  /** ISO 8601. */
  date?: string;
}

/** A paper that was filed before. */
export interface FiledBefore extends PaperLike {
  folderId: string;
}

export interface FolderSuggestion {
  folderId: string;
  /** Why, as a sentence for the person. */
  reason: string;
  /** How sure it is, 0 to 1. */
  confidence: number;
}

/** How many papers' worth of what is usual everywhere is added to what a folder holds (m-estimate, Cestnik 1990). */
const USUAL_WORDS = 1.5;
const USUAL_SENDERS = 0.4;
const USUAL_KINDS = 3;
/** Words come together, so each counts less than if it came by chance. */
const WORDS_COUNT = 0.8;
/** Two papers of a kind are not enough to say that its papers go there. */
const ENOUGH_OF_A_KIND = 2;
/** Where papers of a kind come from so many senders, the folder is for that kind; else it is for those senders. */
const MANY_SENDERS = 3;
/** A word that stands on one paper only says nothing. */
const LEAST_PAPERS = 2;
/** What was filed long ago counts less: after so many papers, half. */
const HALF_LIFE = 300;
/** A folder that is likelier wrong than right is not suggested, but one of those to choose from. */
const LEAST_SURE = 0.5;
const MOST_LIKELY = 3;
/** A word tells of a folder when it stands on so many of its papers, and there so much oftener than on others. */
const LEAST_TELLING = { papers: 2, lift: 2 };
/**
 * Where only words speak for a folder, so many of them have to; and of a folder with few papers, whose words may stand there by chance, it
 * must be this sure.
 */
const ENOUGH_WORDS = 3;
const [FEW_PAPERS, LEAST_SURE_OF_FEW] = [5, 0.7];
/** What each word counts that says that a paper is about what a folder is called after. */
const TOPIC_COUNT = 1.1;
/** What stands on more than this share of all papers tells of none. */
const USUAL_SHARE = 0.5;

/** Where a paper seems to belong. */
export interface LikelyFolders {
  /** The one that it belongs to for all that is known; none where that isn't clear. */
  suggestion?: FolderSuggestion;
  /** Those that come into question, the likeliest first. */
  likely: string[];
}

/**
 * The folder that papers like this one went to: a learner by example (naive Bayes over sender, kind and words), which knows a new
 * paper as soon as it is filed; and the one that is called after what the paper is about, though nothing may lie in it yet. Below a
 * certainty it suggests none.
 * @param filed the newest first
 * @param named all folders with their paths
 */
export function suggestFolder(
  paper: PaperLike,
  filed: readonly FiledBefore[],
  named: readonly { id: string; path: string }[] = [],
): LikelyFolders {
  const all = tally();
  const folders = new Map<string, Tally>();
  filed.forEach((by, age) => {
    const weight = 0.5 ** (age / HALF_LIFE);
    let folder = folders.get(by.folderId);
    if (!folder) folders.set(by.folderId, (folder = tally()));
    for (const each of [all, folder]) add(each, by, weight);
  });
  const words = [...new Set(paper.words)].filter((word) => {
    const known = all.words.get(word);
    return (
      isTelling(word) && known !== undefined && known.papers >= LEAST_PAPERS && known.weight <= usualShare(all.weight)
    );
  });
  // Where papers of a sender go has been said.
  const isKnown = all.senders.has(nameKey(paper.vendor ?? ''));
  const topics = foldersAbout(isKnown ? [] : topicsOf(paper), named);
  for (const folderId of topics.keys()) if (!folders.has(folderId)) folders.set(folderId, tally());
  const scored = [...folders]
    .map(([folderId, folder]) => ({
      folderId,
      evidence: evidenceFor(paper, words, folder, all) + TOPIC_COUNT * (topics.get(folderId)?.weight ?? 0),
    }))
    .sort((a, b) => b.evidence - a.evidence);
  const likely = scored.slice(0, MOST_LIKELY).map(({ folderId }) => folderId);
  const [first] = scored;
  if (!first) return { likely };
  const { folderId } = first;
  const confidence = 1 / scored.reduce((sum, { evidence }) => sum + Math.exp(evidence - first.evidence), 0);
  const said =
    confidence >= LEAST_SURE &&
    reasonFor(paper, folderId, filed, words, folders.get(folderId)!, all, topics.get(folderId));
  const isLittle = said && !said.bySender && folders.get(folderId)!.weight < FEW_PAPERS;
  if (!said || (isLittle && confidence < LEAST_SURE_OF_FEW)) return { likely };
  return { suggestion: { folderId, reason: said.reason, confidence }, likely };
}

/** A new folder for what a paper is about where none is called after that: `Travel`. */
export function newFolderFor(paper: PaperLike, named: readonly { path: string }[]): string | undefined {
  const [most] = topicsOf(paper).sort((one, other) => other.weight - one.weight);
  return most && !named.some(({ path }) => topicsOfFolder(path).includes(most.name)) ? most.called : undefined;
}

/** The folders that are called after what a paper is about, with what says so. */
function foldersAbout(
  told: readonly TopicTold[],
  named: readonly { id: string; path: string }[],
): Map<string, TopicTold> {
  const found = new Map<string, TopicTold>();
  if (told.length === 0) return found;
  for (const { id, path } of named) {
    const called = topicsOfFolder(path);
    const [about] = told.filter(({ name }) => called.includes(name)).sort((one, other) => other.weight - one.weight);
    if (about) found.set(id, about);
  }
  return found;
}

/** With few papers there is nothing yet that is usual. */
const usualShare = (papers: number) => Math.max(USUAL_SHARE * papers, 4);

interface Tally {
  weight: number;
  words: Map<string, { papers: number; weight: number }>;
  senders: Map<string, number>;
  kinds: Map<string, number>;
}

function tally(): Tally {
  return { weight: 0, words: new Map(), senders: new Map(), kinds: new Map() };
}

function add(to: Tally, { vendor, kind, words = [] }: PaperLike, weight: number): void {
  to.weight += weight;
  const sender = nameKey(vendor ?? '');
  if (sender) to.senders.set(sender, (to.senders.get(sender) ?? 0) + weight);
  if (kind) to.kinds.set(kind, (to.kinds.get(kind) ?? 0) + weight);
  for (const word of words) {
    const count = to.words.get(word);
    if (!count) to.words.set(word, { papers: 1, weight });
    else {
      count.papers++;
      count.weight += weight;
    }
  }
}

/** How much more a paper looks like those in a folder than like any, in natural logarithms. */
function evidenceFor({ vendor, kind }: PaperLike, words: string[], folder: Tally, all: Tally): number {
  const ratio = (inFolder = 0, everywhere = 0, usual: number) => {
    const share = everywhere / all.weight;
    // Nothing may have been filed yet.
    return !(share > 0) ? 0 : Math.log((inFolder + usual * share) / (folder.weight + usual) / share);
  };
  const sender = nameKey(vendor ?? '');
  let evidence = ratio(folder.senders.get(sender), all.senders.get(sender), USUAL_SENDERS);
  if (kind && kind !== 'other') evidence += ratio(folder.kinds.get(kind), all.kinds.get(kind), USUAL_KINDS);
  for (const word of words)
    evidence += WORDS_COUNT * ratio(folder.words.get(word)?.weight, all.words.get(word)?.weight, USUAL_WORDS);
  return evidence;
}

/** What the folders of a new shelf may be called: papers that are about bills lie with them. */
const FIRST_FOLDERS: Record<string, string> = {
  receipt: 'Receipts',
  invoice: 'Invoices',
  'credit note': 'Invoices',
  reminder: 'Invoices',
  'delivery note': 'Orders',
  order: 'Orders',
  quote: 'Quotes',
  statement: 'Statements',
  contract: 'Contracts',
  certificate: 'Certificates',
  payslip: 'Pay',
  notice: 'Notices',
  letter: 'Letters',
  ticket: 'Tickets',
};

/** A new shelf knows nothing: papers go by kind and year. @returns a path such as `Invoices/2026` */
export function folderFromScratch({ kind, date }: PaperLike): string {
  return [FIRST_FOLDERS[kind ?? ''] ?? 'Papers', ...(date ? [date.slice(0, 4)] : [])].join('/');
}

/** Words of addresses say where somebody is, not what a paper is about. */
const OF_ADDRESSES =
  /^(?:street|road|pier|harbou?r|port|lane|place|square|market|house|unit|yard|quay|row|hill|way|avenue|drive|court|wharf|\w*strasse|\w*weg|\w*platz|\w*gasse|\w*allee|rue|quai|impasse|cours|tel|phone|telefon|email|mail|www|com)$/;

/** Numbers, short words and such as stand in every text say nothing about where a paper belongs. */
function isTelling(word: string): boolean {
  return word.length >= 3 && !/\d/.test(word) && !isCommonWord(word) && !OF_ADDRESSES.test(word);
}

/** Why a folder is suggested: by whom its papers are, else by the words that tell of it; nothing when nothing does. */
function reasonFor(
  { vendor, kind }: PaperLike,
  folderId: string,
  filed: readonly FiledBefore[],
  words: string[],
  folder: Tally,
  all: Tally,
  about: TopicTold | undefined,
): { reason: string; bySender: boolean } | undefined {
  const sameSender = vendor ? filed.filter((by) => by.vendor && nameKey(by.vendor) === nameKey(vendor)) : [];
  const here = sameSender.filter((by) => by.folderId === folderId);
  if (here.length > 0) {
    const elsewhere = sameSender.findIndex((by) => by.folderId !== folderId);
    const last = elsewhere === -1 ? sameSender.length : elsewhere;
    const reason =
      last === 1 && elsewhere === -1
        ? `The last one from ${vendor} went here`
        : last > 1
          ? `The last ${inWords(last)} from ${vendor} went here`
          : `${here.length} of ${sameSender.length} papers from ${vendor} went here`;
    return { reason, bySender: true };
  }
  const telling = words
    .flatMap((word) => {
      const here = folder.words.get(word);
      if (!here || here.papers < LEAST_TELLING.papers) return [];
      const everywhere = all.words.get(word)!.weight;
      const lift = here.weight / folder.weight / (everywhere / all.weight);
      return lift >= LEAST_TELLING.lift || here.weight === everywhere
        ? [{ word, share: here.weight / everywhere, weight: here.weight }]
        : [];
    })
    .sort((a, b) => b.share - a.share || b.weight - a.weight);
  if (telling.length >= ENOUGH_WORDS) {
    const [one, other] = telling;
    return { reason: `Papers with “${one.word}” and “${other.word}” went here`, bySender: false };
  }
  if (about)
    return {
      reason: `It is about ${about.name}: ${about.words
        .slice(0, 2)
        .map((word) => `“${word}”`)
        .join(', ')}`,
      bySender: false,
    };
  const ofKind = folder.kinds.get(kind ?? '') ?? 0;
  const from = new Set(
    filed.flatMap((by) => (by.folderId === folderId && by.kind === kind ? nameKey(by.vendor ?? '') || [] : [])),
  );
  const isForKind =
    ofKind > ENOUGH_OF_A_KIND && ofKind > 0.5 * (all.kinds.get(kind ?? '') ?? 0) && from.size >= MANY_SENDERS;
  if (kind && kind !== 'other' && isForKind)
    return { reason: `Most papers of the kind “${kind}” went here`, bySender: false };
  return undefined;
}

function inWords(count: number): string {
  return ['', 'one', 'two', 'three', 'four', 'five', 'six', 'seven', 'eight', 'nine', 'ten'][count] ?? String(count);
}
