import { moneyOf } from '../../money';
import { readDay } from './fields';
import { Statement, StatementError, StatementLine } from './statement';

/** A booking: its day, the day of the month that it was entered, its side (R: taken back), amount, kind and references. */
const BOOKING = /^(\d{6})(\d{4})?(R?)([CD])([A-Z])?(\d[\d.]*,\d{0,3})(?:[NSF](.{3})|.{0})(.*)$/s;
const BALANCE = /^([CD])(\d{6})([A-Z]{3})(\d[\d.]*,\d{0,3})/;

/** Reads SWIFT MT940 (and MT942): bookings (field 61) with what is said about them (86), structured as banks in Germany do, or not. */
export function readMt940(text: string): Statement {
  const fields = [
    ...text.replace(/\r/g, '').matchAll(/^:(\d{2}[A-Z]?):([^]*?)(?=^:\d{2}[A-Z]?:|^-\}?$|(?![^]))/gm),
  ].map(([, tag, value]) => ({ tag, value: value.trim() }));
  const of = (...tags: string[]) => fields.find(({ tag }) => tags.includes(tag))?.value;
  const [, , , currency = null] = BALANCE.exec(of('60F', '60M') ?? '') ?? [];
  const lines: StatementLine[] = [];
  for (const { tag, value } of fields) {
    if (tag === '61') lines.push(booking(value, currency));
    else if (tag === '86' && lines.length > 0) {
      const last = lines[lines.length - 1];
      const { who, said } = information(value);
      if (who) last.who = who;
      last.text = [last.text, said].filter(Boolean).join(' ');
    }
  }
  return {
    ...{ format: 'mt940', account: of('25', '25P') ?? null, currency, lines, signed: true },
    opening: balanceOf(of('60F', '60M'), currency),
    closing: balanceOf(fields.findLast(({ tag }) => tag === '62F' || tag === '62M')?.value, currency),
  };
}

function booking(value: string, currency: string | null): StatementLine {
  const [, written, , takenBack, side, , amount, , references] = BOOKING.exec(value) ?? [];
  const day = written && readDay(`20${written}`);
  const units = amount ? unitsOf(amount, currency) : undefined;
  if (!day || units === undefined) throw new StatementError('A booking in it has no day or no amount.');
  // What is taken back goes the other way.
  const isOut = (side === 'D') !== (takenBack === 'R');
  const [own = '', bank = ''] = references.split('\n')[0].split('//');
  return {
    ...{ day, currency, who: '', balance: null, id: bank.trim() },
    units: isOut ? -units : units,
    text: [own.trim() === 'NONREF' ? '' : own.trim(), ...references.split('\n').slice(1)].filter(Boolean).join(' '),
  };
}

/** What is said about a booking: in numbered parts (?20 to ?29 and ?60 to ?63 the purpose, ?32 and ?33 the name), with words between strokes, or freely. */
function information(value: string): { who: string; said: string } {
  const joined = value.replace(/\n/g, '');
  if (/^\d{0,3}\?\d{2}/.test(joined)) {
    const parts = [...joined.matchAll(/\?(\d{2})([^?]*)/g)].map(([, number, said]) => ({
      number: Number(number),
      said,
    }));
    const those = (fits: (number: number) => boolean, between: string) =>
      parts
        .filter(({ number }) => fits(number))
        .map(({ said }) => said)
        .join(between);
    const purpose = those((number) => (number >= 20 && number <= 29) || (number >= 60 && number <= 63), '');
    return {
      who: those((number) => number === 32 || number === 33, '').trim(),
      said: `${those((number) => number === 0, ' ')} ${purpose}`.trim(),
    };
  }
  const [, who = ''] = /\/NAME\/([^/]*)/.exec(joined) ?? [];
  return {
    who: who.trim(),
    said: value
      .replace(/\n/g, ' ')
      .replace(/\/(\w{3,5})\//g, ' ')
      .trim(),
  };
}

function unitsOf(amount: string, currency: string | null): number | undefined {
  const plain = amount.replaceAll('.', '').replace(',', '.').replace(/\.$/, '');
  return moneyOf(plain, currency)?.units;
}

function balanceOf(value: string | undefined, currency: string | null): number | null {
  const [, side, , , amount] = BALANCE.exec(value ?? '') ?? [];
  const units = amount ? unitsOf(amount, currency) : undefined;
  return units === undefined ? null : side === 'D' ? -units : units;
}
