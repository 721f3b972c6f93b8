import { FactLine } from './facts/fact';
import { subjectOf } from './facts/subject';
import { DayForm, writeDay } from './dayForms';
import { PageText } from './words';

type Pages = readonly Pick<PageText, 'words'>[];

/** The facts of a document by name, as they are kept: dates in ISO 8601, money with a point. */
export type KnownFacts = Readonly<Partial<Record<string, string>>>;

/**
 * What a paper is, in one or two sentences, from its facts and its own words; '' when nothing is known of it.
 * @param lines what it lists
 * @param form how days are written
 */
export function summaryOf(facts: KnownFacts, lines: readonly FactLine[], pages: Pages, form: DayForm = 'iso'): string {
  const { kind, vendor, date, number, total, currency, dueDate, net, tax, taxRate } = facts;
  const what = kind && kind !== 'other' ? kind[0].toUpperCase() + kind.slice(1) : 'Paper';
  const money = total && `${total}${currency ? ` ${currency}` : ''}`;
  const taxed = tax && `with ${tax} tax${taxRate ? ` at ${taxRate} %` : ''}${net ? ` on ${net}` : ''}`;
  const first = [
    `${what}${number ? ` ${number}` : ''}`,
    vendor && `from ${vendor}`,
    date && `of ${writeDay(date, form)}`,
    money && `over ${money}`,
    money && taxed,
    dueDate && `due on ${writeDay(dueDate, form)}`,
  ].filter(Boolean);
  const named = lines.map(({ description }) => description).filter(Boolean);
  const subject = facts.subject ?? subjectOf(pages)?.text;
  const second =
    named.length > 0
      ? `It lists ${named.slice(0, 3).join(', ')}${named.length > 3 ? ` and ${named.length - 3} more` : ''}.`
      : subject
        ? `It is about “${subject}”.`
        : '';
  if (first.length === 1 && !second && what === 'Paper') return '';
  return `${first.join(' ').replace(/ (due on)/, ', $1')}.${second ? ` ${second}` : ''}`;
}
