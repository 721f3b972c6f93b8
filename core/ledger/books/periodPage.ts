import { Money, writeMoney } from '../../money';

/** An entry on the page of a period. */
export interface PeriodEntry {
  serial: number;
  day: string;
  who: string;
  what: string;
  number: string;
  category: string;
  tax: string;
  currency: string;
  net: number;
  taxAmount: number;
  units: number;
  paid: number;
  checked: boolean;
  /** Its papers in the archive, by their paths in it. */
  papers: readonly string[];
}

export interface Period {
  title: string;
  from: string;
  to: string;
  entries: readonly PeriodEntry[];
  /** Sums by what they are called, for tables of their own. */
  sums: readonly { title: string; rows: readonly { name: string; net: Money; tax: Money; total: Money }[] }[];
  accounts: readonly { name: string; opening: Money | null; closing: Money | null; lines: number; untied: number }[];
  /** Statement files in the archive, by their paths in it. */
  statements: readonly string[];
  /** What is missing, in sentences. */
  missing: readonly string[];
  /** Other files in the archive. */
  files: readonly string[];
}

const escaped = (text: string): string =>
  text.replace(/[&<>"']/g, (sign) => ({ '&': '&amp;', '<': '&lt;', '>': '&gt;', '"': '&quot;', "'": '&#39;' })[sign]!);
const money = (of: Money): string => `${writeMoney(of)} ${of.currency ?? ''}`.trim();
const link = (path: string, text: string): string =>
  `<a href="${escaped(path.split('/').map(encodeURIComponent).join('/'))}">${escaped(text)}</a>`;

function table(heads: readonly string[], rows: readonly (readonly string[])[], figures: readonly number[]): string {
  const cell = (text: string, at: number, tag: string) =>
    `<${tag}${figures.includes(at) ? ' class="n"' : ''}>${text}</${tag}>`;
  const head = heads.map((name, at) => cell(escaped(name), at, 'th')).join('');
  const body = rows.map((row) => `<tr>${row.map((text, at) => cell(text, at, 'td')).join('')}</tr>`).join('\n');
  return `<table><thead><tr>${head}</tr></thead><tbody>\n${body}\n</tbody></table>`;
}

/** The page that opens a period handed over, in any browser, without this program: sums, what is missing, every entry with its papers. */
export function periodPage({ title, from, to, entries, sums, accounts, statements, missing, files }: Period): string {
  const list = (items: readonly string[]) => `<ul>${items.map((item) => `<li>${item}</li>`).join('\n')}</ul>`;
  const fileName = (path: string) => path.split('/').at(-1)!;
  const entryRows = entries.map((entry) => {
    const of = (units: number) => escaped(writeMoney({ units, currency: entry.currency }));
    return [
      String(entry.serial),
      escaped(entry.day),
      escaped(entry.who) + (entry.what ? `<br><small>${escaped(entry.what)}</small>` : ''),
      escaped(entry.number),
      escaped(entry.category),
      escaped(entry.tax),
      of(entry.net),
      of(entry.taxAmount),
      of(entry.units),
      escaped(entry.currency),
      entry.paid === entry.units ? 'paid' : entry.paid === 0 ? 'open' : `${of(entry.paid)} paid`,
      entry.checked ? 'checked' : '',
      entry.papers.length > 0 ? entry.papers.map((path) => link(path, fileName(path))).join('<br>') : '<b>no paper</b>',
    ];
  });
  const heads = 'Entry,Date,Who,Number,Category,Tax,Net,Tax,Total,,Paid,,Paper'.split(',');
  return `<!doctype html>
<html lang="en">
<meta charset="utf-8">
<title>${escaped(title)}</title>
<style>
body { font: 14px/1.45 system-ui, sans-serif; margin: 2rem; color: #1f1d26; }
table { border-collapse: collapse; margin: 0.5rem 0 1.5rem; }
th, td { border-bottom: 1px solid #d6d0c3; padding: 3px 10px 3px 0; text-align: left; vertical-align: top; }
.n { text-align: right; font-variant-numeric: tabular-nums; }
@media print { a { color: inherit; } }
</style>
<h1>${escaped(title)}</h1>
<p>${escaped(from)} to ${escaped(to)}. What is to be paid is positive, what comes in negative.</p>
<h2>What is missing</h2>
${missing.length > 0 ? list(missing.map(escaped)) : '<p>Nothing.</p>'}
<h2>Accounts</h2>
${table(
  ['Account', 'Opening balance', 'Closing balance', 'Lines', 'Not tied to an entry'],
  accounts.map(({ name, opening, closing, lines, untied }) => [
    escaped(name),
    opening ? escaped(money(opening)) : 'not known',
    closing ? escaped(money(closing)) : 'not known',
    String(lines),
    String(untied),
  ]),
  [1, 2, 3, 4],
)}
${sums
  .map(
    (each) => `<h2>${escaped(each.title)}</h2>
${table(
  ['', 'Net', 'Tax', 'Total'],
  each.rows.map(({ name, net, tax, total }) => [escaped(name), money(net), money(tax), money(total)]),
  [1, 2, 3],
)}`,
  )
  .join('\n')}
<h2>Entries</h2>
${table(heads, entryRows, [6, 7, 8])}
<h2>Files</h2>
${list([...files, ...statements].map((path) => link(path, path)))}
</html>
`;
}
