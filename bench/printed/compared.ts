/** How many of the words that a page has are among those given, each as often as it stands; which are missed, and which are given instead. */
export function compared(given: readonly string[], told: readonly string[]) {
  const left = new Map<string, number>();
  for (const word of given) left.set(word, (left.get(word) ?? 0) + 1);
  const missed = told.filter((word) => {
    const number = left.get(word) ?? 0;
    if (number > 0) left.set(word, number - 1);
    return number === 0;
  });
  return {
    found: told.length - missed.length,
    given: given.length,
    missed,
    extra: [...left].flatMap(([word, number]) => Array<string>(number).fill(word)),
  };
}

/** The words of a text, as they are printed. */
export const printedWords = (text: string) =>
  text
    .replace(/[’‘]/g, "'")
    .split(/\s+/)
    .filter((word) => /[\p{L}\p{N}]/u.test(word));
