import { XMLParser } from 'fast-xml-parser';
import { moneyOf } from '../../money';
import { readDay } from './fields';
import { Statement, StatementError, StatementLine } from './statement';

type Tree = { [name: string]: unknown };
const parser = new XMLParser({
  ignoreAttributes: false,
  attributeNamePrefix: '@',
  removeNSPrefix: true,
  parseTagValue: false,
  parseAttributeValue: false,
  processEntities: true,
});
/** A tree is looked through no deeper than this for texts. */
const DEEPEST = 12;

/** Reads ISO 20022 CAMT.052, .053 and .054 of any version: a line for each booking, with what its details say. */
export function readCamt(text: string): Statement {
  if (/<!(DOCTYPE|ENTITY)/i.test(text)) throw new StatementError('It defines entities of its own, which no bank does.');
  const document = at(parser.parse(text) as Tree, 'Document');
  const message = Object.values(document as Tree).find((each) => typeof each === 'object') as Tree | undefined;
  const reports = ['Stmt', 'Rpt', 'Ntfctn'].flatMap((name) => list(message?.[name]));
  if (reports.length === 0) throw new StatementError('No statement is in it.');
  const [first] = reports;
  const account = string(at(first, 'Acct', 'Id', 'IBAN')) || string(at(first, 'Acct', 'Id', 'Othr', 'Id')) || null;
  const currency = string(at(first, 'Acct', 'Ccy')) || null;
  const balance = (report: Tree, codes: string[]) => {
    const found = list(report.Bal).find((each) => codes.includes(string(at(each, 'Tp', 'CdOrPrtry', 'Cd'))));
    return found ? signedUnits(found) : null;
  };
  const lines = reports.flatMap((report) => list(report.Ntry).map((entry) => lineOf(entry)));
  return {
    ...{ format: 'camt', account, lines, signed: true },
    currency: currency ?? lines[0]?.currency ?? null,
    opening: balance(first, ['OPBD', 'PRCD']),
    closing: balance(reports.at(-1)!, ['CLBD']),
  };
}

function lineOf(entry: Tree): StatementLine {
  const day = [
    at(entry, 'BookgDt', 'Dt'),
    at(entry, 'BookgDt', 'DtTm'),
    at(entry, 'ValDt', 'Dt'),
    at(entry, 'ValDt', 'DtTm'),
  ]
    .map((each) => readDay(string(each).slice(0, 10)))
    .find(Boolean);
  const units = signedUnits(entry);
  if (!day || units === null) throw new StatementError('A booking in it has no day or no amount.');
  const details = list(entry.NtryDtls).flatMap((each) => list(each.TxDtls));
  const others = units < 0 ? ['Cdtr', 'UltmtCdtr'] : ['Dbtr', 'UltmtDbtr'];
  const names = details.flatMap((each) =>
    others.map((side) => string(at(each, 'RltdPties', side, 'Nm')) || string(at(each, 'RltdPties', side, 'Pty', 'Nm'))),
  );
  const texts = details.flatMap((each) => [
    ...textsIn(each.RmtInf),
    ...textsIn(at(each, 'Refs', 'EndToEndId')),
    ...textsIn(at(each, 'Refs', 'InstrId')),
    ...textsIn(each.AddtlTxInf),
    ...textsIn(at(each, 'AmtDtls', 'InstdAmt', 'Amt')),
  ]);
  return {
    ...{ day, units, currency: string(at(entry, 'Amt', '@Ccy')) || null, balance: null },
    who: [...new Set(names.filter(Boolean))].join(', '),
    text: [...new Set([...texts, string(entry.AddtlNtryInf)])]
      .filter((each) => each && each !== 'NOTPROVIDED')
      .join(' '),
    id: string(entry.AcctSvcrRef) || string(entry.NtryRef),
  };
}

/** An amount with the side that it is booked on; what is taken back is on the other one already (RvslInd only says so). */
function signedUnits(tree: Tree): number | null {
  const amount = at(tree, 'Amt');
  const currency = string(at(tree, 'Amt', '@Ccy')) || null;
  const units = moneyOf(string(amount).trim().replace(/^\+/, ''), currency)?.units;
  return units === undefined ? null : string(tree.CdtDbtInd) === 'DBIT' ? -units : units;
}

function at(tree: unknown, ...names: string[]): unknown {
  let now = tree;
  for (const name of names) now = list(now)[0]?.[name];
  return now;
}

function list(value: unknown): Tree[] {
  if (Array.isArray(value)) return value as Tree[];
  return value !== null && typeof value === 'object' ? [value as Tree] : [];
}

function string(value: unknown): string {
  if (typeof value === 'string') return value;
  if (Array.isArray(value)) return string(value[0]);
  return value !== null && typeof value === 'object' ? string((value as Tree)['#text'] ?? '') : '';
}

/** All texts in a tree, attributes left out, in their order. */
function textsIn(value: unknown, depth = 0): string[] {
  if (typeof value === 'string') return [value];
  if (depth > DEEPEST || value === null || typeof value !== 'object') return [];
  return Object.entries(value).flatMap(([name, inside]) => (name.startsWith('@') ? [] : textsIn(inside, depth + 1)));
}
