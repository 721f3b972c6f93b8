import { moneyOf } from '../../money';
import { readDay } from './fields';
import { Statement, StatementError, StatementLine } from './statement';

const ENTITIES: Record<string, string> = { amp: '&', lt: '<', gt: '>', quot: '"', apos: "'", nbsp: ' ' };

/** Reads a statement in OFX 1 (SGML) or 2 (XML; OFX 2.2, 11.4): tags of the first need not be closed. */
export function readOfx(text: string): Statement {
  const value = (part: string, tag: string): string => {
    const [, found = ''] = new RegExp(`<${tag}>([^<\\r\\n]*)`, 'i').exec(part) ?? [];
    return decoded(found).trim();
  };
  const currency = value(text, 'CURDEF').toUpperCase() || null;
  const money = (written: string) => moneyOf(written.replace(',', '.').replace(/^\+/, ''), currency)?.units;
  const lines = text
    .split(/<STMTTRN>/i)
    .slice(1)
    .map((piece): StatementLine => {
      const part = piece.split(/<\/STMTTRN>|<\/BANKTRANLIST>/i)[0];
      const day = readDay(value(part, 'DTPOSTED').slice(0, 8));
      const units = money(value(part, 'TRNAMT'));
      if (!day || units === undefined) throw new StatementError('A booking in it has no day or no amount.');
      return {
        ...{ day, units, balance: null, id: value(part, 'FITID') },
        currency: value(part, 'CURSYM') || currency,
        who: value(part, 'NAME'),
        text: ['MEMO', 'CHECKNUM', 'REFNUM']
          .map((tag) => value(part, tag))
          .filter(Boolean)
          .join(' '),
      };
    });
  const closing = money(value(/<LEDGERBAL>[^]*/i.exec(text)?.[0] ?? '', 'BALAMT')) ?? null;
  return {
    format: 'ofx',
    account: value(text, 'ACCTID') || null,
    currency,
    opening: null,
    closing,
    lines,
    signed: true,
  };
}

function decoded(text: string): string {
  return text.replace(/&(#x?[\da-f]+|\w+);/gi, (whole, name: string) => {
    const known = ENTITIES[name.toLowerCase()];
    if (known) return known;
    const code = /^#x/i.test(name) ? parseInt(name.slice(2), 16) : name.startsWith('#') ? Number(name.slice(1)) : NaN;
    return code > 0 && code < 0x110000 ? String.fromCodePoint(code) : whole;
  });
}
