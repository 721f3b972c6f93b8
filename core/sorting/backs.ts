/**
 * Which pages of one scan are backs, told by the blank ones: when a pile goes through on both sides, blank pages are every
 * second one, and there are some.
 * @param blanks for each page of the scan, in its order, whether it is blank
 * @returns for each whether it is a back; undefined when nothing tells
 */
export function backsOf(blanks: readonly boolean[]): (boolean | undefined)[] {
  const behind = blanks.filter((blank, at) => blank && at % 2 === 1).length;
  const before = blanks.filter((blank, at) => blank && at % 2 === 0).length;
  const twoSided = behind >= LEAST_BLANK_BACKS && before === 0 && behind >= LEAST_SHARE * blanks.length;
  return blanks.map((_, at) => (twoSided ? at % 2 === 1 : undefined));
}

const LEAST_BLANK_BACKS = 2;
const LEAST_SHARE = 0.12;
