/** So often, on the way through many pages, is looked at all of them that were read so far. */
const MOST_LOOKS = 32;

/**
 * Whether what goes through all pages is worth doing after so many of them: after each of a few, every so often on the way through
 * many, and at the end. All in all the time that it takes grows with the pages, and not with their square.
 */
export function isMilestone(done: number, of: number): boolean {
  return done >= of || done % Math.ceil(of / MOST_LOOKS) === 0;
}
