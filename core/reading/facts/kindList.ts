/** What papers of a kind may say. A kind is added here, and in `kindWords.ts` what it is known by. */
export interface KindTraits {
  /** Whether it has sums, and whether they are owed the other way round. */
  sums?: 'owed' | 'returned';
  /** Whether it may be due on a day. */
  due?: boolean;
  /** Whether it has a number of its own. */
  numbered?: boolean;
  /** Whether it ends on a day, or holds until one. */
  ends?: boolean;
  /** Whether it has balances. */
  balances?: boolean;
  /** Whether a paper of it without a total lacks something. */
  totalled?: boolean;
  /** Whether what it adds up to is said by another paper as well, a bill above all, so that both together are too much. */
  repeats?: boolean;
}

/** The kinds of papers that there are. */
const LIST = {
  receipt: { sums: 'owed', totalled: true, numbered: true },
  invoice: { sums: 'owed', totalled: true, due: true, numbered: true },
  'credit note': { sums: 'returned', totalled: true, numbered: true },
  reminder: { sums: 'owed', totalled: true, due: true, numbered: true, repeats: true },
  'delivery note': { numbered: true, repeats: true },
  order: { sums: 'owed', numbered: true, repeats: true },
  quote: { sums: 'owed', totalled: true, numbered: true, ends: true, repeats: true },
  statement: { sums: 'owed', due: true, numbered: true, balances: true, repeats: true },
  contract: { sums: 'owed', due: true, numbered: true, ends: true, repeats: true },
  certificate: { numbered: true, ends: true },
  payslip: { sums: 'owed', totalled: true },
  notice: { sums: 'owed', due: true, numbered: true },
  letter: {},
  ticket: { sums: 'owed', numbered: true },
  other: {},
} as const satisfies Record<string, KindTraits>;

export type Kind = keyof typeof LIST;
export const KINDS = Object.keys(LIST) as [Kind, ...Kind[]];
export const kindTraits: Record<Kind, KindTraits> = LIST;

/** A kind that a person added: known by words in its heading; its papers say what those of another kind do. */
export interface OwnKind {
  name: string;
  like: Kind;
  words: string[];
}

/** What a kind may be called. */
export const KIND_NAME = /^\p{L}[\p{L}\p{N} -]{1,29}$/u;

const isListed = (kind: string): kind is Kind => Object.hasOwn(kindTraits, kind);

/** The kind of the list that papers of a kind are like; of one that is not known, “other”. */
export function likeOf(kind: string, own: readonly OwnKind[]): Kind {
  return isListed(kind) ? kind : (own.find(({ name }) => name === kind)?.like ?? 'other');
}

const OF_TRAITS: [keyof KindTraits, string[]][] = [
  ['sums', ['net', 'taxRate', 'tax', 'total', 'amountDue', 'currency']],
  ['balances', ['opening', 'closing', 'currency']],
  ['due', ['dueDate']],
  ['numbered', ['number']],
  ['ends', ['ends']],
];

/** Whether papers of a kind may say a fact of this name; of a kind that is not known, and of none, they may say any. */
export function mayHave(kind: Kind | undefined, name: string): boolean {
  if (kind === undefined || kind === 'other') return true;
  const traits = OF_TRAITS.filter(([, names]) => names.includes(name));
  return traits.length === 0 || traits.some(([trait]) => kindTraits[kind][trait]);
}
