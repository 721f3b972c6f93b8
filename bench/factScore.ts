import { Facts } from '@crow/core/reading/facts/fact';

/** From here on a fact is called sure. */
const SURE = 0.9;
/** Facts that are counted where a paper has none. */
const COUNTED = ['total', 'dueDate', 'number', 'net', 'tax'] as const;

/** Counts how many facts of papers were told as they are. */
export class FactScore {
  private right = 0;
  private all = 0;
  private sure = 0;
  private sureWrong = 0;
  private extra = 0;

  /**
   * Counts the facts of one paper.
   * @param truth what it says, by the names of its facts
   * @returns what was told wrongly, as a line; “right” when nothing was
   */
  add(truth: Record<string, unknown>, found: Facts): string {
    const wrong: string[] = [];
    for (const [name, value] of Object.entries(truth)) {
      const read = found[name as keyof Facts];
      const isSure = read !== null && read !== undefined && read.confidence >= SURE;
      this.all++;
      if (isSure) this.sure++;
      if (read?.value === value) {
        this.right++;
        continue;
      }
      if (isSure) this.sureWrong++;
      wrong.push(
        `${name} ${String(value)} ${read ? `as ${String(read.value)} (${read.confidence.toFixed(2)})` : 'missing'}`,
      );
    }
    for (const name of COUNTED) {
      const read = found[name];
      if (name in truth || !read) continue;
      this.extra++;
      wrong.push(`${name} ${read.value} where there is none (${read.confidence.toFixed(2)})`);
    }
    return wrong.length > 0 ? wrong.join('; ') : 'right';
  }

  toString(): string {
    const share = (this.right / this.all).toFixed(3);
    return `${this.right} of ${this.all} facts right (${share}), ${this.extra} where there is none; ${this.sureWrong} of ${this.sure} sure ones wrong`;
  }
}
