import { Money, writeMoney } from '@crow/core/money';
import { Beside } from '@crow/core/filing/pattern';
import { Page } from '@crow/contract/pages';
import { Kind } from '@crow/core/reading/facts/kindList';
import { Look } from '@crow/core/imaging/looks';

/** Numbers and things in words, in one place so that they read alike everywhere. */

export function count(number: number, one: string, many = `${one}s`): string {
  return `${number} ${number === 1 ? one : many}`;
}

export function bytes(size: number): string {
  const units = ['bytes', 'kB', 'MB', 'GB'];
  let value = size;
  let unit = 0;
  while (value >= 1000 && unit < units.length - 1) {
    value /= 1000;
    unit++;
  }
  return `${unit === 0 || value >= 100 ? Math.round(value) : value.toFixed(1)} ${units[unit]}`;
}

/** Money as it is shown: `1,184.20 GBP`. */
export function money({ units, currency }: Money): string {
  return `${figure({ units, currency })}${currency ? ` ${currency}` : ''}`;
}

/** Money as it stands in a column of figures, without its currency: `1,184.20`. */
export function figure({ units, currency }: Money): string {
  const [whole, fraction] = writeMoney({ units: Math.abs(units), currency }).split('.');
  const grouped = whole.replace(/\B(?=(\d{3})+$)/g, ',');
  return `${units < 0 ? '−' : ''}${fraction ? `${grouped}.${fraction}` : grouped}`;
}

/** How far off a day is. */
export function inDays(days: number): string {
  if (Math.abs(days) <= 1) return ['yesterday', 'today', 'tomorrow'][days + 1];
  return days < 0 ? `${-days} days ago` : `in ${days} days`;
}

/** Why a page is in no document. */
export function asideInWords({ blank, divider, dropDecided }: Pick<Page, 'blank' | 'divider' | 'dropDecided'>): string {
  if (divider?.place) return `label: ${divider.place.name}`;
  if (divider) return divider.folder ? `divider sheet: ${divider.folder.replaceAll('/', ' / ')}` : 'divider sheet';
  return blank && !dropDecided ? 'blank' : 'dropped';
}

export const BESIDE_NAMES: Record<Beside, string> = {
  text: 'text (.txt)',
  'text-pdf': 'text as PDF for a small screen',
  jpeg: 'pictures (JPEG)',
  png: 'pictures (PNG)',
};

const KIND_NAMES: Record<Kind, string> = {
  receipt: 'Receipt',
  invoice: 'Invoice',
  'credit note': 'Credit note',
  reminder: 'Reminder',
  'delivery note': 'Delivery note',
  order: 'Order',
  quote: 'Quote',
  statement: 'Statement',
  contract: 'Contract or policy',
  certificate: 'Certificate',
  payslip: 'Payslip',
  notice: 'Official notice',
  letter: 'Letter',
  ticket: 'Ticket',
  other: 'Other',
};

/** What a kind of papers is called, one of the list or one that was added. */
export function kindName(kind: string): string {
  return Object.hasOwn(KIND_NAMES, kind) ? KIND_NAMES[kind as Kind] : kind[0].toUpperCase() + kind.slice(1);
}

export const LOOK_NAMES: Record<Look, string> = {
  asShot: 'As shot',
  clear: 'Clear colour',
  grey: 'Grey',
  bilevel: 'Black and white',
  even: 'Even light',
};
