/**
 * Rows as comma-separated values (RFC 4180), with a byte order mark so that spreadsheets read the letters right. Text that a
 * spreadsheet would take for a formula gets an apostrophe before it.
 */
export function csvOf(rows: readonly (readonly (string | number | null)[])[]): string {
  return `\uFEFF${rows.map((row) => row.map(cell).join(',')).join('\r\n')}\r\n`;
}

function cell(value: string | number | null): string {
  if (value === null) return '';
  if (typeof value === 'number') return String(value);
  const text = /^[=+\-@\t\r]/.test(value) && !/^[+-]?[\d.,]+$/.test(value) ? `'${value}` : value;
  return /[",\r\n]/.test(text) ? `"${text.replaceAll('"', '""')}"` : text;
}
