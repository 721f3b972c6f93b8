import { Facts } from '@crow/core/reading/facts/fact';

/** From here on a fact is called sure. */
const SURE = 0.9;
/** Facts that are counted where a paper has none. */
const COUNTED = ['total', 'dueDate', 'number', 'net', 'tax'] as const;

/** Facts that are rows, as the truth gives them: what of each counts, in that order; null or left out for what the paper doesn't say. */
const ROWS = {
  lines: ['description', 'quantity', 'unitPrice', 'amount'],
  taxes: ['rate', 'net', 'tax'],
  bookings: ['date', 'text', 'amount', 'balance'],
} as const;
type Rows = keyof typeof ROWS;
/** A row of the truth that ends with this may be told or left out, such as a discount below the sum of a table. */
const MAY_BE_TOLD = 'or not';

/** Counts how many facts of papers were told as they are. */
export class FactScore {
  private right = 0;
  private all = 0;
  private sure = 0;
  private sureWrong = 0;
  private extra = 0;
  private rows = { right: 0, all: 0, extra: 0 };

  /**
   * Counts the facts of one paper.
   * @param truth what it says, by the names of its facts
   * @returns what was told wrongly, as a line; “right” when nothing was
   */
  add(truth: Record<string, unknown>, found: Facts): string {
    const wrong: string[] = [];
    for (const [name, value] of Object.entries(truth)) {
      if (name in ROWS) {
        wrong.push(...this.addRows(name as Rows, value as unknown[][], found));
        continue;
      }
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

  /** Counts rows by what they say, one after the other: one that is not told is missing, and what stands between is extra. */
  private addRows(name: Rows, truth: readonly unknown[][], found: Facts): string[] {
    const told = (found[name]?.value ?? []).map((row) =>
      ROWS[name].map((part) => (row as unknown as Record<string, unknown>)[part] ?? null),
    );
    const left = truth.map((row) => ({ row: row.slice(0, ROWS[name].length), must: row.at(-1) !== MAY_BE_TOLD }));
    const extra = told.filter((row) => {
      const at = left.findIndex((each) => isSameRow(each.row, row));
      if (at < 0) return true;
      const [{ must }] = left.splice(at, 1);
      if (must) this.rows.right++;
      return false;
    });
    const missing = left.filter(({ must }) => must).map(({ row }) => row);
    this.rows.all += truth.filter((row) => row.at(-1) !== MAY_BE_TOLD).length;
    this.rows.extra += extra.length;
    if (missing.length + extra.length === 0) return [];
    return [
      `${name} ${missing.map((row) => JSON.stringify(row)).join(' ')} told as ${extra.map((row) => JSON.stringify(row)).join(' ') || 'none'}`,
    ];
  }

  toString(): string {
    const share = (this.right / this.all).toFixed(3);
    const { right, all, extra } = this.rows;
    const rows = all > 0 ? `; ${right} of ${all} rows (${(right / all).toFixed(3)}), ${extra} that are none` : '';
    return `${this.right} of ${this.all} facts right (${share}), ${this.extra} where there is none; ${this.sureWrong} of ${this.sure} sure ones wrong${rows}`;
  }
}

/** Texts are the same whatever their case and the signs between their words; what the truth does not say may be anything. */
function isSameRow(truth: readonly unknown[], told: readonly unknown[]): boolean {
  const letters = (text: string) =>
    text
      .toLowerCase()
      .replace(/[^\p{L}\d]+/gu, ' ')
      .trim();
  return truth.every((part, at) =>
    part === null ? true : typeof part === 'string' ? letters(part) === letters(String(told[at])) : part === told[at],
  );
}
