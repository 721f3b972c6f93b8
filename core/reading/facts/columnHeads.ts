import { Box } from '../../geometry';
import { amountsIn } from './money';
import { COLUMN } from './labels';
import { fold, Row } from './rows';

/** What a column of a table of goods or work may hold. */
export type Part =
  'position' | 'code' | 'text' | 'quantity' | 'unit' | 'price' | 'discount' | 'tax' | 'date' | 'amount';

export interface ColumnHead {
  parts: readonly Part[];
  /** How many a price is for, such as a hundred. */
  per: number;
  box: Box;
}

/** What columns are headed by (folded); one that is two things is told by what stands in it. */
const HEADS: [RegExp, readonly Part[]][] = [
  [/^(?:pos(?:ition|\.)?|lfd\.?(?: ?nr\.?)?|#|line|ligne|zeile)$/, ['position']],
  [
    /^(?:(?:art(?:ikel|\.)?|item|product|part|stock|best(?:ell|\.)?|cat(?:alogue|\.)?|order)[- ]?(?:nr|no|num(?:mer|ber)?|code|ref)\.?|code|sku|plu|ean|gtin|isbn|ref(?:erence|erenz|\.)?|style|job|lot)$/,
    ['code', 'text'],
  ],
  [/^art$/, ['code']],
  [/^item$|^(?:art(?:icle|ikel|\.))$/, ['text', 'code']],
  [/^(?:(?:no|nr)\.?)$/, ['quantity', 'code', 'position']],
  [
    /^(?:qt[eyd]\.?|q\.?ta'?|quantit(?:y|e|a|ies)|menge|anz(?:ahl|\.)?|cant(?:idad|\.)?|aantal|antal(?:l)?|pcs|pieces|stk\.?|stuck|nombre|nbre?|count|number|heures|stunden|hours?|hrs\.?|std\.?|days|tage|nights|nachte|nuits|kg|kwh|km|miles|sold|(?:qty|quantity|menge)[ ./].{1,12})$/,
    ['quantity'],
  ],
  [/^(?:units?|einheit(?:en)?|eh|einh\.?|me|u\.?|u\.? ?m\.?|uom|unite|unidad)$/, ['unit', 'quantity']],
  [
    /^(?:(?:unit|list|net|single|item|piece|cost|your|our) ?(?:price|cost|rate|net)|price(?: (?:each|per .{1,8}|ea\.?|[a-z]{3}|£|€|\$))?|rate(?: (?:per .{1,8}|[a-z]{3}))?|each|@|(?:price |preis |prix )?(?:per|je|pro|pour|les) (?:kg|hour|unit|item|piece|day|night|m|metre|10{1,3})|e(?:inzel|inheits|\.|-)? ?-?preis.{0,6}|preis.{0,10}|einzeln?|ep|p\.? ?u\.?(?: h\.?t\.?)?(?: ?\/ ?10{1,3})?|prix.{0,14}|precio.{0,10}|prezzo.{0,10}|prijs|pris|preco|tariff?|tarif.{0,8}|stundensatz|cost)$/,
    ['price'],
  ],
  [
    /^(?:disc(?:ount|\.)?|rabatt|rem(?:ise|\.)?|dto\.?|desc(?:uento)?\.|sconto|korting|less|nachlass)[ .]?(?:%|in %)?$|^%$/,
    ['discount'],
  ],
  [
    /^(?:vat|mwst|ust|tva|iva|btw|moms|mva|tax|st|gst|steuer(?:satz)?|taxe|taux)[ .-]?(?:%|rate|code|satz|in %|cd\.?|\(%\))?$|^%? ?(?:vat|mwst\.?|ust\.?|tva)$/,
    ['tax'],
  ],
  [/^(?:date|datum|dated|tag|jour|day|fecha|data|when|due|fallig(?: am)?|vom|le|echeance|vervaldatum)$/, ['date']],
  [
    /^(?:invoice|rechnung|beleg|facture|bill|document|factura|fattura|factuur)(?:[ -]?(?:no|nr|number|nummer)\.?)?$/,
    ['text'],
  ],
  [
    /^(?:description.{0,12}|desc\.?|details?|particulars|goods|designation.{0,10}|bezeichnung|beschreibung|leistung(?:en)?|text|libelle.{0,8}|prestations?|treatment|service|work(?: done)?|product|produkt|ware|what|activity|task|title|name|descripcion|concepto|descrizione|omschrijving|beskrivelse|beskrivning|tekst|descricao)$/,
    ['text'],
  ],
  [
    /^(?:(?:line |net |gross |total |goods |ext(?:ended|\.)? )?(?:amount|total|value|sum|net|gross|price|charge)(?: (?:ht|ttc|incl?\.?(?: vat)?|exc?l?\.?(?: vat)?|[a-z]{3}|£|€|\$))?|(?:gesamt|netto|brutto)[ -]?(?:preis|betrag|summe|wert)?.{0,6}|g(?:es)?\.?-?preis.{0,6}|betrag.{0,8}|summe.{0,6}|gp|montant.{0,8}|total .{2,3}|importe.{0,6}|importo.{0,6}|bedrag|belop+|bel[øo]b|valor.{0,6}|totaal|charges?|offen(?:er betrag)?|open|outstanding|balance|saldo|solde|restbetrag|[£€$]|eur|gbp|chf|usd)$/,
    ['amount'],
  ],
];

/** Whether a row names columns: at least two of them, and has no amounts. */
export function isHead(row: Row): boolean {
  const named = row.cells.filter(({ folded }) => HEADING.test(folded)).length;
  return named >= 2 && amountsIn(row).length === 0;
}

const HEADING = new RegExp(`^(?:${COLUMN.source})`, 'u');

/** The same of a table of goods, by what all of its heads say. */
export function isTableHead(row: Row): boolean {
  if (isHead(row)) return true;
  if (row.cells.length < FEWEST_HEADS || /\d/.test(row.text) || amountsIn(row).length > 0) return false;
  const said = new Set(headsIn(row).flatMap(({ parts }) => parts.slice(0, 1)));
  // A table of taxes has no goods.
  const isOfGoods = (['quantity', 'text', 'code'] as const).some((part) => said.has(part));
  return said.size >= FEWEST_KNOWN && (said.has('price') || (said.has('amount') && isOfGoods));
}

const [FEWEST_HEADS, FEWEST_KNOWN] = [3, 2];

/** What the columns below a head hold, as far as it says that. */
export function headsIn(row: Row): ColumnHead[] {
  return row.cells.flatMap(({ folded, box, words }) => {
    const parts = partsSaid(folded);
    const each = words.map((word) => ({ parts: partsSaid(fold(word.text)) ?? [], per: 1, box: word.box }));
    const per = Number(/(?:per|je|pro|pour|les|%|\/) ?(10{1,3})$/.exec(folded)?.[1] ?? 1);
    // “Pos Anz Art” stand as close as the words of one head.
    const isOneEach = words.every(({ text }) => /^[\p{Lu}#%@]/u.test(text));
    const areHeads =
      words.length > 1 &&
      parts === undefined &&
      (each.every((head) => head.parts.length > 0) ||
        (isOneEach && each.some(({ parts: [part] }) => part === 'quantity')));
    return areHeads ? each : [{ parts: parts ?? [], per, box }];
  });
}

function partsSaid(folded: string): readonly Part[] | undefined {
  const said = folded.replace(/[:*]+$/, '').trim();
  return HEADS.find(([words]) => words.test(said))?.[1] ?? (OF_ARTICLE.test(said) ? ['code', 'text'] : undefined);
}

/** “Your code”, “Ticket no.” */
const OF_ARTICLE = /[ -](?:code|no|nr|ref|number|nummer|n[°º])\.?$/;

/** What a column may hold that something stands in: that of the head which it stands below, or comes nearest to. */
export const partsAt = (heads: readonly ColumnHead[], box: Box): readonly Part[] => headAt(heads, box)?.parts ?? [];

/** The head that something stands below, or comes nearest to. */
export function headAt(heads: readonly ColumnHead[], [x, , width, height]: Box): ColumnHead | undefined {
  const apart = ({ box: [hx, , hw] }: ColumnHead) => Math.max(hx - x - width, x - hx - hw);
  const [nearest] = heads.toSorted((one, other) => apart(one) - apart(other));
  return nearest && apart(nearest) < NEAR * height ? nearest : undefined;
}

/** So many heights of a letter beside its head something may still stand below it. */
const NEAR = 2;
