import { allMatches } from '../allMatches';

/**
 * What the words of a label mean, by their parts: a label such as “Rechnungsnummer”, “Our order ref.” or “N° de facture” names what kind
 * of thing it is (a number, a day) and what it is of. Parts are stems in small letters without accents (see `fold`), in English,
 * German, French, Spanish, Italian, Dutch and Portuguese, with some in Danish, Norwegian and Swedish; a compound may hold several.
 */
export type Part =
  | 'number'
  | 'document'
  | 'customer'
  | 'order'
  | 'policy'
  | 'yours'
  | 'tax'
  | 'bank'
  | 'iban'
  | 'phone'
  | 'meter'
  | 'till'
  | 'delivery'
  | 'item'
  | 'page'
  | 'staff'
  | 'day'
  | 'pay'
  | 'until'
  | 'from'
  | 'issued'
  | 'ends'
  | 'span'
  | 'event';

/** Stems that are found anywhere in a word, for compounds; and whole short words. */
const STEMS: Record<Part, { within?: string; whole?: string }> = {
  number: {
    within: 'number|nummer|numero|kennung|kennziffer|zeichen|reference|referenz|referencia|riferiment|kenmerk',
    whole: 'no|nr|num|n[°º]|#|ref|refs|id|idnr|code|n|numb',
  },
  document: {
    within:
      'invoic|rechnung|faktur|factu|fattur|fatur|receipt|beleg|quittung|ticket|scontrin|recibo|ricevut|kwitant|voucher|do[ck]ument|vorgang|geschaft|gutschrift|avoir|mahnung|erinnerung|reminder|lieferschein|despatch|dispatch|bescheid|notice|urkund|certifica|zertifik|angebot|quot|offert|devis|estimate|voranschlag|presupuest|preventiv|auszug|statement|releve|estratt|extract|afschrift|akten|transact|bordereau|protokoll|fahrkart|billet|bonnummer|kassenbon|folio|record|nachweis|rapport|liquidat|honor|dossier|reservation|buchung|booking|bericht|antrag|adjustment',
    whole:
      'inv|bill|rg|re|rnr|bon|doc|dok|chk|sale|job|our|unser|unsere|notre|nuestra|nostra|nostro|onze|ons|nossa|case|charge|demand|claim|az|gz|trans|recu|credit|memo|note|permit|licence|license|fine|pcn|advice|file|vorg|trn|txn|tran|check|slip|docket|rcpt|rept|avis|titre|creditnota|kredietnota|nota',
  },
  customer: {
    within:
      'vertragskonto|societaire|customer|client|(?<!ur|se)kund[en]|adherent|klient|klant|debit[oe]|debtor|mitglied|mandant|member|subscri|abonn|account|teilnehmer|patient|(?<!\\p{L})leser|ausweis|locataire|proprietaire|mieter-?n|eigentumer|tenant|donor|spender-?n|schuler|(?<!r)eleve(?![re])',
    whole: 'kd|kdnr|kunde|cust|party|acct|acc|a\\/c|patient|user|utente|abo|famille|familie|family|foyer|allocataire',
  },
  order: {
    within:
      '(?<!\\p{L})order(?!ie)|(?:re|pre|mail|back|work|web)-?order|bestell|auftrag|command|pedido|ordine|encomend|purchase',
    whole: 'po|p\\.o|best',
  },
  policy: {
    within: 'polic|poliz|versicherungs|assuranc|insuranc|vertrag|contract|contrat|tenanc|agreement|apolice',
    whole: 'vsnr|vs|schein|cover',
  },
  yours: { whole: 'your|ihr|ihre|ihrer|votre|vos|vuestr[ao]|vostr[ao]|uw|vs|sua?|vossa' },
  tax: {
    within: 'steuer|siret|siren|partita|taxpayer|handelsregister|regist|finanzamt|umsatz|company|charity|gewerbe',
    whole:
      'vat|tax|st|stnr|ust|ustid|ustidnr|mwst|tva|iva|btw|moms|mva|nif|cif|ein|abn|uid|hrb|hra|hr|kvk|rcs|ape|naf|gst|crn',
  },
  bank: {
    within: 'bankleit|kontonum|(?<!a)compte|cuenta|rekening|routing|bankverb',
    whole: 'bic|swift|sort|blz|konto|kto|conto|conta|bank|banque|banca|banco',
  },
  iban: { within: 'iban' },
  phone: { within: 'phone|telefon|telef|mobil|hotline', whole: 'tel|t|fax|f|call|ring|ruf|fon|gsm|mob' },
  meter: {
    within: 'meter|zahler|compteur|contador|contator|serial|serien|marktlok|chassis|fahrgestell',
    whole: 'serie|mpan|mprn|imei|kfz|vin|pdl|ean|gas|strom',
  },
  till: {
    within: 'terminal|kasse(?!nz|nbon)|caisse|cassa|operator|cashier|bedien|transakt|kellner|autoris|authori',
    whole: 'till|caja|trace|auth|auto|pos|tisch|table|aid|merchant|tse|tid|mid|register|server|covers',
  },
  delivery: {
    within: 'deliver|liefer|tracking|sendung|shipment|parcel|colis|consign|carrier|livrais|entrega|consegn',
    whole: 'bl|dn|ls',
  },
  item: { within: 'artikel|article|articulo|chargen', whole: 'item|sku|ean|gtin|isbn|art|lot|batch|line|pos|size' },
  page: { within: 'seite', whole: 'page|blatt|sheet|pagina|pag|p' },
  staff: { within: 'employ|payroll|personal|staff|matricul', whole: 'pers' },
  day: {
    within: 'datum|fecha',
    whole: 'vom|date|data|dato|dated|dat|jour|day|tag|dia|giorno|dag|on|am|le|il|op|den|du|del|of|el|em|a',
  },
  issued: {
    within:
      'issu|ausgestell|erstell|emis|emitt|emiss|etabli|expedi|brief|schreib|gedruckt|printed|opgesteld|uitgegeven|abgeschick|inspect|pruf',
    whole:
      'point|placed|sent|booked|billed|raised|made|written|served|prepared|confirmed|bestatigt|confirmee?|submitted|filed|lodged|eingereicht',
  },
  pay: {
    within:
      'zahl|uberweis|begleich|ausgleich|fallig|echeance|payab|payment|regler|reglement|vencim|scaden|betal|forfal[ld]|deadline|remit|settle|verval|vervald|voldoen|overmak|paiement|payer|virer|pagament|pagar|pagare|saldare|versare|abonar|liquid|entricht|einzahl|collect|exigib|abbuch|abgebucht|eingezogen|prelev|einzug|debit|lastschrift|belast|einzieh|acquitt|virement|autopay|maturit|cleared',
    whole: 'pay|due|paid|pago|transfer|owed?|prompt|terms|valuta|wertstellung|funds',
  },
  until: {
    within: 'spatest|jusqu|latest|before|until|entro|binnen|uiterl',
    whole:
      'by|bis|avant|tard|till|antes|prima|ate|voor|zum|later|spater|deadline|after|frist(?:ende|ablauf)?|delai|limite?|terme|cut-?off',
  },
  from: { whole: 'from|to|ab|von|seit|since|depuis|desde|dal|van|des|starts?|beginn|begins|commenc\\w*' },
  ends: {
    within:
      'expir|expiry|gultig|valid|ablauf|endet|vervalt|geldig|caduc|^scade|terminat|laufzeit|bindefrist|angebotsfrist|guarantee|garantie|befrist|renewal|verlang',
    whole: 'gilt|gelten|lauft|runs|lapses?|ends?|ending|ende|fin|endet|fine|einde',
  },
  span: { within: 'period|zeitraum|perioda|abrechnungsz|covering|cover', whole: 'for|fur|between|zwischen|entre' },
  event: {
    within:
      'leistung|birth|geboren|geburt|appoint|(?<!zahl|zahlungs|buchungs|einzugs|fallig|falligkeits|uberweisungs)termin|depart|abfahrt|arriv|ankunft|check-?in|readi?n?g?s?$|ables|next|nachst|prochain|prossim|service|ausgefuhrt|performed|visit|hired|rented|(?<!\\p{L})order(?!ie)|(?:re|pre|mail|back|work|web)-?order|bestell|command|pedido|ordine|liefer|deliver|livrais|entrega|consegn|lever|anzahl|abschlag|vorauszahl|prepa[iy]|deposit|acompte|meeting|school|purchas|kauf|achat|instal|shipp|versand|complet|erledigt|acheve|passed',
    whole: 'ready|fertig|abholbereit|prete?|ship|geb|born|dob|travel|event|fair|week|kw',
  },
};

const FINDERS = Object.entries(STEMS).map(([part, { within, whole }]) => ({
  part: part as Part,
  within: within ? new RegExp(within, 'gu') : undefined,
  whole: whole ? new RegExp(`^(?:${whole})$`, 'u') : undefined,
}));

const known = new Map<string, Part[]>();
const MOST_KNOWN = 5000;
/** No word of a label is longer; a shorter one with a stop behind it is an abbreviation. */
const [LONGEST, SHORT] = [60, 4];

/** The parts of a word of a label (folded), in the order in which they stand in it; none for a word that says nothing. */
export function partsOf(word: string): Part[] {
  if (word.length > LONGEST) return [];
  const bare = word.replace(/^[^\p{L}\d#°º]+|[^\p{L}\d#°º]+$/gu, '');
  const before = known.get(bare);
  if (before) return before;
  const found: { part: Part; at: number }[] = [];
  for (const { part, within, whole } of FINDERS) {
    if (whole?.test(bare)) found.push({ part, at: 0 });
    else if (within && bare.length > 3)
      for (const match of allMatches(within, bare)) found.push({ part, at: match.index });
  }
  // The number's short form at the end of a compound: “Kundennr”, “Rechnungs-Nr”.
  if (
    /\p{L}{3}(?:-?nr|-no|-id)$|(?:invoice|receipt|order|customer|client|account|kunden|user|member)(?:no|id)$/u.test(
      bare,
    )
  )
    found.push({ part: 'number', at: bare.length });
  // “Rgnr.”, “Re.Nr.”, “Kd.-Nr.”
  const short = /^(\p{L}{2,5})(?:\.-?(?:nr|no|num|id)|nr)$/u.exec(bare);
  if (short && found.length === 0) {
    for (const part of partsOf(short[1])) found.push({ part, at: 0 });
    found.push({ part: 'number', at: bare.length });
  }
  // “TRANS#”
  if (/\p{L}#$/u.test(bare)) {
    for (const part of partsOf(bare.slice(0, -1))) found.push({ part, at: 0 });
    found.push({ part: 'number', at: bare.length });
  }
  const parts = found.sort((a, b) => a.at - b.at).map(({ part }) => part);
  if (known.size > MOST_KNOWN) known.clear();
  known.set(bare, parts);
  return parts;
}

/** A word of a label, from the one nearest to its value: how many letters lie between them, and its parts. */
export interface Term {
  word: string;
  away: number;
  parts: Part[];
}

/** What is counted in days and the like is no value: “within 30 days, by April 8”. */
export const SPAN = /^(?:days?|tagen?|jours?|weeks?|wochen?|semaines?|months?|monat(?:en?)?|mois|giorni|dias|dagen)\b/;
/** Labels are no longer than so many letters, sentences that lead to a value than so many. */
const FARTHEST = 64;

/**
 * The words before a value, the nearest first, as far back as they may belong to it: not beyond another value (figures), nor the
 * end of a sentence.
 * @param before what stands before it (folded)
 */
export function termsBefore(before: string): Term[] {
  const terms: Term[] = [];
  const words = before.trim().split(/\s+/);
  let away = 0;
  for (const word of words.reverse()) {
    if (word === '') break;
    const isEnd = word.length > SHORT && /[.;!?]$/.test(word);
    if (terms.length > 0 && isEnd) break;
    // Another value parts what is before it from this one; a sum may stand in a sentence.
    if (/^\d{1,3}$/.test(word) && SPAN.test(terms.at(-1)?.word ?? '')) {
      away += word.length + 1;
      continue;
    }
    const isDay = /\d[./-]\d{1,2}[./-]\d{2}/.test(word);
    if (isDay || (/\d{2}/.test(word) && !/\d[.,]\d{2}\D*$/.test(word)) || /^\d$/.test(word)) break;
    // “A/c” is one word, “check-in” too.
    const pieces = /^check-?(?:in|out)\W*$/.test(word)
      ? [word.replace(/-/, '')]
      : word.length <= SHORT && partsOf(word).length > 0
        ? [word]
        : word.split(/[-/:]+/);
    for (const whole of pieces.reverse()) {
      // “De l'avis”
      const piece = whole.replace(/^[ld]['’](?=\p{L}{3})/u, '');
      if (piece !== '') terms.push({ word: piece, away, parts: partsOf(piece) });
    }
    away += word.length + 1;
    if (away > FARTHEST) break;
  }
  return terms;
}
