/** Frequent short words by language: what a text in it can hardly do without (ISO 639-2 codes). */
const COMMON_WORDS: Record<string, string> = {
  eng: 'the and of to in for is you your we our with this that are be on at from by as it have will not please date no total amount invoice dear',
  deu: 'der die das und in den von zu mit für ist sie wir ihr ihre ihnen auf bei nicht ein eine einen des dem im am bis oder bitte datum nr rechnung betrag summe mwst uhr straße sehr geehrte',
  fra: 'le la les et de des du en un une pour est vous votre nous notre avec sur dans ce cette au aux par que qui ne pas date facture montant total tva madame monsieur',
  spa: 'el la los las y de del en un una para es su con por que no al se lo fecha factura importe total iva estimado señor',
  ita: 'il lo la gli le e di del della in un una per è suo con che non al si data fattura importo totale iva gentile',
  nld: 'de het een en van in op te voor is u uw wij met dat die niet aan zijn bij datum factuur bedrag totaal btw geachte',
  por: 'o a os as e de do da em um uma para é seu com por que não ao se data fatura valor total iva exmo',
};

const vocabularies = new Map(Object.entries(COMMON_WORDS).map(([code, words]) => [code, new Set(words.split(' '))]));

/** How far ahead another language must be before a text counts as written in it: share of common words, and their number. */
const CLEARLY_AHEAD = 1.25;
const LEAST_EVIDENCE = 3;

/**
 * The language that a text is most likely written in, among `candidates` (ISO 639-2); the first candidate when the text says
 * too little. Counts frequent words (Grefenstette 1995, the small-word method); accents that an engine lost are forgiven.
 */
export function guessLanguage(text: string, candidates: string[]): string {
  const [usual] = candidates;
  const words = text.toLowerCase().match(/\p{L}+/gu) ?? [];
  const counts = candidates.map((code) => {
    const vocabulary = vocabularies.get(code);
    return { code, count: vocabulary ? words.filter((word) => vocabulary.has(word)).length : 0 };
  });
  const best = counts.reduce((a, b) => (b.count > a.count ? b : a));
  const usualCount = counts[0].count;
  return best.count >= LEAST_EVIDENCE && best.count > CLEARLY_AHEAD * usualCount ? best.code : usual;
}

/** The short codes (BCP 47) that PDF and HTML use for the same languages. */
export const BCP47: Record<string, string> = {
  eng: 'en',
  deu: 'de',
  fra: 'fr',
  spa: 'es',
  ita: 'it',
  nld: 'nl',
  por: 'pt',
};
