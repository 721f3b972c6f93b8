/** The words of a text, without what has no letter or figure. */
export function wordsOf(text: string): string[] {
  return text.split(/\s+/).filter((word) => /[\p{L}\p{N}]/u.test(word));
}

/** The share of the true words that were read, each as often as it stands. */
export function recallOf(truth: string[], found: string[]): number {
  const left = new Map<string, number>();
  for (const word of found) left.set(word, (left.get(word) ?? 0) + 1);
  const hits = truth.filter((word) => {
    const number = left.get(word) ?? 0;
    left.set(word, number - 1);
    return number > 0;
  });
  return hits.length / truth.length;
}
