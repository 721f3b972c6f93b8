/** What has no place in text that is kept: control characters, marks that turn the direction of writing, halves of characters. */
const UNPRINTABLE = /[\p{Cc}\u202a-\u202e\u2066-\u2069\ufeff]|\p{Cs}/gu;

/**
 * Text from outside as it may be kept and shown: without what can't be printed, each run of spaces one, and no longer than said.
 * @param most in UTF-16 code units; a character is not cut in two
 */
export function printable(text: string, most = Infinity): string {
  const clean = text
    .slice(0, 4 * most)
    .replace(UNPRINTABLE, ' ')
    .replace(/\s+/g, ' ')
    .trim();
  return clean.length <= most
    ? clean
    : clean
        .slice(0, most)
        .replace(/\p{Cs}$/u, '')
        .trimEnd();
}

/** Whether a text can be kept as it is: it has no zero characters, and no halves of characters. */
export function isKeepable(text: string): boolean {
  return !/\0|\p{Cs}/u.test(text);
}
