import { Box } from '../../geometry';
import { decodeEntities } from '../entities';
import { printable } from '../printable';
import { Fact, FactLine, Facts, TaxAtRate } from './fact';
import { admitFacts, admitLines, admitTaxes } from './gate';
import { isDay } from '../dayForms';

/** What an electronic invoice says of itself (EN 16931); null for what it leaves out. Money in units of the currency. */
export interface InvoiceData {
  /** Files read before credit notes were known lack it, and what follows. */
  kind?: 'invoice' | 'credit note';
  vendor: string | null;
  /** ISO 8601. */
  date: string | null;
  dueDate: string | null;
  number: string | null;
  /** ISO 4217. */
  currency: string | null;
  net: number | null;
  tax: number | null;
  /** In percent; of several rates the one with most tax. */
  taxRate: number | null;
  total: number | null;
  /** What is left to pay, and of which bill, order or contract it is. */
  amountDue?: number | null;
  reference?: string | null;
  order?: string | null;
  policy?: string | null;
  iban?: string | null;
  /** Two days (ISO 8601) with a stroke between them. */
  period?: string | null;
  /** Tax by rate; files read before that was known lack it. */
  taxes?: TaxAtRate[];
  lines: FactLine[];
  /** Whom it is from and goes to, with addresses and tax numbers, in lines; what is said in words. */
  parties?: { seller: string[]; buyer: string[] };
  notes?: string[];
}

/** More than any field of an invoice has. */
const LONGEST_TEXT = 2000;
const MOST_NOTES = 20;

type Node = string | number | { [name: string]: Node } | Node[] | undefined;

/**
 * Reads the XML of an electronic invoice or credit note in one of the two syntaxes of EN 16931: UN/CEFACT cross industry invoice
 * (which Factur-X and ZUGFeRD put into PDFs) or UBL 2.1.
 * @param tree the document as nested objects, without the prefixes of name spaces; text of elements with attributes in `#text`
 * @returns null when it is no invoice
 */
export function readInvoiceXml(tree: unknown): InvoiceData | null {
  const root = tree as { [name: string]: Node };
  const data = root.CrossIndustryInvoice
    ? fromCii(root.CrossIndustryInvoice)
    : root.Invoice
      ? fromUbl(root.Invoice, 'InvoiceLine', 'InvoicedQuantity')
      : root.CreditNote
        ? { ...fromUbl(root.CreditNote, 'CreditNoteLine', 'CreditedQuantity'), kind: 'credit note' as const }
        : null;
  return data && (data.number || data.total !== null) ? data : null;
}

/** Codes of UNTDID 1001 for credit notes. */
const CREDIT_NOTES = ['81', '83', '261', '296', '308', '381', '396', '420', '458', '532'];
const kindOf = (code: Node) =>
  CREDIT_NOTES.includes(text(code) ?? '') ? ('credit note' as const) : ('invoice' as const);

function fromCii(invoice: Node): InvoiceData {
  const head = at(invoice, 'ExchangedDocument');
  const trade = at(invoice, 'SupplyChainTradeTransaction');
  const agreement = at(trade, 'ApplicableHeaderTradeAgreement');
  const settlement = at(trade, 'ApplicableHeaderTradeSettlement');
  const sums = at(settlement, 'SpecifiedTradeSettlementHeaderMonetarySummation');
  const span = at(settlement, 'BillingSpecifiedPeriod');
  const total = amount(at(sums, 'GrandTotalAmount'));
  const party = (name: string) => {
    const one = at(agreement, name);
    const place = at(one, 'PostalTradeAddress');
    return told(
      at(one, 'Name'),
      at(place, 'LineOne'),
      at(place, 'LineTwo'),
      [at(place, 'PostcodeCode'), at(place, 'CityName'), at(place, 'CountryID')],
      at(one, 'SpecifiedTaxRegistration', 'ID'),
    );
  };
  return {
    kind: kindOf(at(head, 'TypeCode')),
    vendor: text(at(agreement, 'SellerTradeParty', 'Name')),
    date: day(at(head, 'IssueDateTime', 'DateTimeString')),
    dueDate: day(at(settlement, 'SpecifiedTradePaymentTerms', 'DueDateDateTime', 'DateTimeString')),
    number: text(at(head, 'ID')),
    currency: text(at(settlement, 'InvoiceCurrencyCode')),
    net: amount(at(sums, 'TaxBasisTotalAmount')),
    tax: amount(at(sums, 'TaxTotalAmount')),
    ...taxesOf(
      list(at(settlement, 'ApplicableTradeTax')).map((tax) => ({
        tax: amount(at(tax, 'CalculatedAmount')),
        rate: amount(at(tax, 'RateApplicablePercent')),
        net: amount(at(tax, 'BasisAmount')),
      })),
    ),
    total,
    amountDue: unlessSame(amount(at(sums, 'DuePayableAmount')), total),
    reference: text(at(settlement, 'InvoiceReferencedDocument', 'IssuerAssignedID')),
    order: text(at(agreement, 'BuyerOrderReferencedDocument', 'IssuerAssignedID')),
    policy: text(at(agreement, 'ContractReferencedDocument', 'IssuerAssignedID')),
    iban: text(at(settlement, 'SpecifiedTradeSettlementPaymentMeans', 'PayeePartyCreditorFinancialAccount', 'IBANID')),
    period: spanOf(at(span, 'StartDateTime', 'DateTimeString'), at(span, 'EndDateTime', 'DateTimeString')),
    lines: list(at(trade, 'IncludedSupplyChainTradeLineItem')).map((line) => ({
      description: text(at(line, 'SpecifiedTradeProduct', 'Name')) ?? '',
      quantity: amount(at(line, 'SpecifiedLineTradeDelivery', 'BilledQuantity')),
      unitPrice: amount(at(line, 'SpecifiedLineTradeAgreement', 'NetPriceProductTradePrice', 'ChargeAmount')),
      amount:
        amount(
          at(line, 'SpecifiedLineTradeSettlement', 'SpecifiedTradeSettlementLineMonetarySummation', 'LineTotalAmount'),
        ) ?? 0,
    })),
    parties: { seller: party('SellerTradeParty'), buyer: party('BuyerTradeParty') },
    notes: [
      ...list(at(head, 'IncludedNote')).flatMap((note) => told(at(note, 'Content'))),
      ...told(at(settlement, 'SpecifiedTradePaymentTerms', 'Description')),
    ].slice(0, MOST_NOTES),
  };
}

function fromUbl(invoice: Node, lineName: string, quantityName: string): InvoiceData {
  const seller = at(invoice, 'AccountingSupplierParty', 'Party');
  const sums = at(invoice, 'LegalMonetaryTotal');
  const tax = at(invoice, 'TaxTotal');
  const span = at(invoice, 'InvoicePeriod');
  const total = amount(at(sums, 'TaxInclusiveAmount')) ?? amount(at(sums, 'PayableAmount'));
  const nameOf = (party: Node) =>
    text(at(party, 'PartyName', 'Name')) ?? text(at(party, 'PartyLegalEntity', 'RegistrationName'));
  const party = (one: Node) => {
    const place = at(one, 'PostalAddress');
    return told(
      nameOf(one) ?? undefined,
      at(place, 'StreetName'),
      at(place, 'AdditionalStreetName'),
      [at(place, 'PostalZone'), at(place, 'CityName'), at(place, 'Country', 'IdentificationCode')],
      at(one, 'PartyTaxScheme', 'CompanyID'),
    );
  };
  return {
    kind: kindOf(at(invoice, 'InvoiceTypeCode')),
    vendor: nameOf(seller),
    date: day(at(invoice, 'IssueDate')),
    dueDate: day(at(invoice, 'DueDate')) ?? day(at(invoice, 'PaymentMeans', 'PaymentDueDate')),
    number: text(at(invoice, 'ID')),
    currency: text(at(invoice, 'DocumentCurrencyCode')),
    net: amount(at(sums, 'TaxExclusiveAmount')),
    tax: amount(at(tax, 'TaxAmount')),
    ...taxesOf(
      list(at(tax, 'TaxSubtotal')).map((each) => ({
        tax: amount(at(each, 'TaxAmount')),
        rate: amount(at(each, 'TaxCategory', 'Percent')),
        net: amount(at(each, 'TaxableAmount')),
      })),
    ),
    total,
    amountDue: unlessSame(amount(at(sums, 'PayableAmount')), total),
    reference: text(at(invoice, 'BillingReference', 'InvoiceDocumentReference', 'ID')),
    order: text(at(invoice, 'OrderReference', 'ID')),
    policy: text(at(invoice, 'ContractDocumentReference', 'ID')),
    iban: text(at(invoice, 'PaymentMeans', 'PayeeFinancialAccount', 'ID')),
    period: spanOf(at(span, 'StartDate'), at(span, 'EndDate')),
    lines: list(at(invoice, lineName)).map((line) => ({
      description: text(at(line, 'Item', 'Name')) ?? '',
      quantity: amount(at(line, quantityName)),
      unitPrice: amount(at(line, 'Price', 'PriceAmount')),
      amount: amount(at(line, 'LineExtensionAmount')) ?? 0,
    })),
    parties: { seller: party(seller), buyer: party(at(invoice, 'AccountingCustomerParty', 'Party')) },
    notes: [...list(at(invoice, 'Note')), ...list(at(invoice, 'PaymentTerms'))]
      .flatMap((note) => told(at(note, 'Note') ?? note))
      .slice(0, MOST_NOTES),
  };
}

/** What is said, in lines; what belongs in one line is given together. */
function told(...given: (Node | Node[])[]): string[] {
  return given
    .map((each) => (Array.isArray(each) ? each.map(text).filter(Boolean).join(' ') : text(each)))
    .filter((line): line is string => Boolean(line));
}

const unlessSame = (value: number | null, other: number | null) => (value === other ? null : value);

function spanOf(from: Node, to: Node): string | null {
  const days = [day(from), day(to)];
  return days.every((each) => each !== null && isDay(each)) ? days.join('/') : null;
}

/** What stands below a node by names; of several the first. */
function at(node: Node, ...names: string[]): Node {
  let here = node;
  for (const [place, name] of names.entries()) {
    const first = Array.isArray(here) ? here[0] : here;
    if (typeof first !== 'object' || Array.isArray(first)) return undefined;
    here = first[name];
    if (place < names.length - 1 && Array.isArray(here)) here = here[0];
  }
  return here;
}

function list(node: Node): Node[] {
  return node === undefined ? [] : Array.isArray(node) ? node : [node];
}

function text(node: Node): string | null {
  const first = Array.isArray(node) ? node[0] : node;
  const value = typeof first === 'object' && !Array.isArray(first) ? first['#text'] : first;
  if (typeof value !== 'string' && typeof value !== 'number') return null;
  return printable(decodeEntities(String(value)), LONGEST_TEXT) || null;
}

function amount(node: Node): number | null {
  const value = text(node);
  return value !== null && /^-?\d+(\.\d+)?$/.test(value) ? Number(value) : null;
}

/** A day as 20260305 or 2026-03-05. */
function day(node: Node): string | null {
  const found = /^(\d{4})-?(\d{2})-?(\d{2})/.exec(text(node) ?? '');
  return found ? found.slice(1).join('-') : null;
}

/** Tax by rate, and the rate with most tax. */
function taxesOf(
  given: { rate: number | null; net: number | null; tax: number | null }[],
): Pick<InvoiceData, 'taxRate' | 'taxes'> {
  const taxes = given.filter((each): each is TaxAtRate => each.rate !== null && each.tax !== null);
  return { taxRate: taxes.toSorted((a, b) => b.tax - a.tax)[0]?.rate ?? null, taxes };
}

const NOWHERE: Box = [0, 0, 0, 0];
const WHY = { code: 'invoice-data' } as const;

/**
 * The facts of a paper that carries its invoice as data: that counts, and what was read only says where it stands. Where the data
 * says what can't be, what was read stays.
 */
export function withInvoiceData(read: Facts, data: InvoiceData): Facts {
  const fact = <Value>(name: keyof InvoiceData, value: Value | null): Fact<Value> | null => {
    const found = read[name as keyof Facts] as Fact<Value> | null;
    if (value === null) return found;
    const same = found && JSON.stringify(found.value) === JSON.stringify(value);
    return { value, page: same ? found.page : 1, box: same ? found.box : NOWHERE, confidence: 1, why: WHY };
  };
  // What a credit note gives back is kept negative.
  const kind = data.kind ?? 'invoice';
  const way = kind === 'credit note' ? -1 : 1;
  const money = (name: 'net' | 'tax' | 'total' | 'amountDue') =>
    fact(name, typeof data[name] === 'number' ? way * Math.abs(data[name]) : null);
  const [taxes, lines] = [admitTaxes(data.taxes ?? []), admitLines(data.lines)];
  const date = (name: 'date' | 'dueDate') => fact(name, data[name] && isDay(data[name]) ? data[name] : null);
  return admitFacts({
    ...read,
    kind: { value: kind, page: read.kind?.page ?? 1, box: read.kind?.box ?? NOWHERE, confidence: 1, why: WHY },
    vendor: fact('vendor', data.vendor),
    date: date('date'),
    dueDate: date('dueDate'),
    number: fact('number', data.number),
    currency: fact('currency', data.currency),
    net: money('net'),
    tax: money('tax'),
    taxRate: fact('taxRate', data.taxRate),
    total: money('total'),
    amountDue: money('amountDue'),
    reference: fact('reference', data.reference ?? null),
    order: fact('order', data.order ?? null),
    policy: fact('policy', data.policy ?? null),
    iban: fact('iban', data.iban?.replace(/\s/g, '') ?? null),
    period: fact('period', data.period ?? null),
    taxes: taxes.length > 1 ? fact('taxes', taxes) : read.taxes,
    subject: null,
    lines: lines.length > 0 ? fact('lines', lines) : read.lines,
  });
}
