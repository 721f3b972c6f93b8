import { Kind } from './kindList';

/**
 * What the words of a title mean, by their parts, as terms.ts has it for labels: “Versandpapiere”, “Bon d'enlèvement” and “Stock transfer
 * note” are papers that go with goods, whatever they are called. Parts are stems in small letters without accents (see `fold`), in
 * English, German and French; a compound may hold several.
 */
type TitlePart =
  'late' | 'back' | 'void' | 'estimate' | 'order' | 'delivery' | 'payment' | 'receipt' | 'bill' | 'paper' | 'little';

const STEMS: Record<TitlePart, RegExp> = {
  late: /overdue|^late$|^debt$|dunning|remind|mahn(?!o)|erinner|ruckstand|retard|souffrance|impaye|relance|rappel|arrears|unpaid|outstanding|verzug|^offene/,
  back: /refund|gutschrift|erstatt|vergutung|storno|^avoir$|rembours|^credit$/,
  void: /annul|cancel/,
  estimate:
    /quot(?!a)|^offer|preisauskunft|offre|offert|angebot|estimat|voranschlag|schatzung|devis|chiffrage|^tender$|proposition|proposal/,
  order:
    /(?<![a-z])order(?!ie)|(?:re|pre|mail|back|work)order|bestell|auftrag|command|booking|buchung(?!s?beleg)|reserv|^ordre$|^po$/,
  delivery:
    /deliver|liefer|livrais|versand|^pack|^ship|despatch|dispatch|expedi|transport|transfer|colisage|consign|^goods$|^issue$|waren|^lade|fracht|abhol|empfang|ausgabe|ausgang|carrier|^collection$|^stock$|enlevement|^reception$|begleit|ubergabe/,
  payment:
    /payment|zahl|paiement|^bar(?!e)|^cash$|^card$|karten|kauf|^sales?$|vente|caisse|kassen?(?!z)|achat|purchase|^client$|^customer$|^till$|spende|^donation$|^don$|^rent$|loyer|miet/,
  receipt:
    /receipt|quittung|beleg|nachweis|confirmation|bestatigung|^recu$|quittance|justificatif|preuve|proof|ticket|slip|memo$/,
  bill: /invoice|rechnung|faktur|factur|^bill$|fattur|abrechnung|account/,
  paper:
    /note|list$|liste|schein|zettel|docket|advice|avis|anzeige|^bon$|bordereau|fiche|papier|^form$|formular|letter|schreiben|lettre|notice|statement|cop(?:y|ies?)|kopie|duplikat|duplicat|duplicate|eingang|recapitulatif|summary|^goodwill$|^kunden/,
  little:
    /^(?:our|your|the|an?|of|for|to|on|is|have|has|and|unsere?r?|ihre?r?|zur?|zum|der|die|das|den|an|uber|und|fur|nos|notre|votre|vos|de|du|des|d|l|la|le|les|a|en|et|pour|sur|we|wir|received|confirm|price|prix|preis|returns?|works?|travaux|commerciale?|no|nr|n°)$/,
};
const PARTS = Object.entries(STEMS) as [TitlePart, RegExp][];

/** A title has no more words; where it goes on with what it is about, so many of them come first. */
const LONGEST = 6;
/** What a card is for is no credit. */
const OF_CARDS = /credit card|carte de credit|kreditkart/;
/** What is said again to those who have not paid (folded). */
const AGAIN =
  /^(?:second|third|final|last|letzter?|zweiter?|dritter?|dernier) (?:and final )?(?:notice|demand|request|hinweis|avis|avertissement)$|^letter before action$/;
/** What is sold for money at once. */
const AT_ONCE = /^(?:cash sale|barverkauf|vente (?:au )?comptant)$/;
/** Papers that may go with goods, unlike those that are only about them. */
const WITH_GOODS =
  /note|slip|list|schein|zettel|docket|ticket|advice|avis|anzeige|ausgang|bon|bordereau|fiche|papier|proof|beleg|nachweis/;

/**
 * The kind that a title names by its parts, where every word of it is understood.
 * @param title what stands in its cell, folded, without what its number or day is
 */
export function kindOfTitle(title: string): Kind | undefined {
  const text = title
    .replace(/[^\p{L}°']+/gu, ' ')
    .replace(/['’]s?/g, ' ')
    .trim();
  const words = text.split(' ');
  if (text === '' || words.length > LONGEST) return undefined;
  if (AGAIN.test(text)) return 'reminder';
  if (AT_ONCE.test(text)) return 'receipt';
  const parts = words.map((word) => PARTS.filter(([, stem]) => stem.test(word)).map(([part]) => part));
  if (parts.some((each) => each.length === 0)) return undefined;
  const has = (part: TitlePart) => parts.some((each) => each.includes(part));
  if (has('late')) return 'reminder';
  if (has('back') && !OF_CARDS.test(text)) return 'credit note';
  // What takes a bill back; a booking or a policy may be cancelled as well.
  if (has('void')) return has('bill') ? 'credit note' : undefined;
  if (has('bill')) return undefined;
  if (has('estimate')) return 'quote';
  if (has('delivery') && !has('order') && !has('payment') && WITH_GOODS.test(text)) return 'delivery note';
  if (has('order')) return 'order';
  return has('payment') && has('receipt') ? 'receipt' : undefined;
}
