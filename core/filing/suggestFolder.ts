import { nameKey } from './names';

/** A paper that was filed before: where, and what is known of it. */
export interface FiledBefore {
  folderId: string;
  vendor?: string;
  kind?: string;
}

export interface FolderSuggestion {
  folderId: string;
  /** Why, as a sentence for the person. */
  reason: string;
}

/** The folder that papers of this sender, or else of this kind, went to most; `filed` holds the newest first. */
export function suggestFolder(
  paper: { vendor?: string; kind?: string },
  filed: FiledBefore[],
): FolderSuggestion | undefined {
  const { vendor, kind } = paper;
  const sameSender = vendor ? filed.filter((other) => other.vendor && nameKey(other.vendor) === nameKey(vendor)) : [];
  if (sameSender.length > 0) {
    const { folderId, count } = mostCommon(sameSender);
    const reason =
      count === 1
        ? `The last paper from ${vendor} went here`
        : `${count} of ${sameSender.length} papers from ${vendor} went here`;
    return { folderId, reason };
  }
  const sameKind = kind && kind !== 'other' ? filed.filter((other) => other.kind === kind) : [];
  if (sameKind.length < 3) return undefined;
  const { folderId, count } = mostCommon(sameKind);
  return count * 2 >= sameKind.length ? { folderId, reason: `Most papers of the kind “${kind}” went here` } : undefined;
}

/** Ties go to the folder used last. */
function mostCommon(filed: FiledBefore[]): { folderId: string; count: number } {
  const counts = new Map<string, number>();
  for (const { folderId } of filed) counts.set(folderId, (counts.get(folderId) ?? 0) + 1);
  const [folderId, count] = [...counts].reduce((a, b) => (b[1] > a[1] ? b : a));
  return { folderId, count };
}
