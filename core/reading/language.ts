/** Frequent short words by language: what a text in it can hardly do without (ISO 639-2 codes). */
const COMMON_WORDS: Record<string, string> = {
  eng: 'the and of to in for is you your we our with this that are be on at from by as it have will not please date no total amount invoice dear was has been would can if or all any more they their there which when who what its than please into only other some such these those up out about over new also after before between because should could may must',
  deu: 'der die das und in den von zu mit für ist sie wir ihr ihre ihnen auf bei nicht ein eine einen des dem im am bis oder bitte datum nr rechnung betrag summe mwst uhr straße sehr geehrte auch aus dass durch einem einer eines er es haben hat ich ihrem ihren kann können mehr nach noch nur ob sich sind so über um uns unser unsere vom vor war werden wie wird zum zur',
  fra: 'le la les et de des du en un une pour est vous votre nous notre avec sur dans ce cette au aux par que qui ne pas date facture montant total tva madame monsieur avez avons cela ces comme elle être fait il ils leur mais même nos on ont ou où plus sans se ses si son sont tout toute vos été',
  spa: 'el la los las y de del en un una para es su con por que no al se lo fecha factura importe total iva estimado señor como cuando desde después donde ella ellos entre era esta este esto está fue ha hasta hay le más muy nos nuestra nuestro o os pero porque qué sin sobre son también todo usted ya',
  ita: 'il lo la gli le e di del della in un una per è suo con che non al si data fattura importo totale iva gentile alla alle anche ci come da dal dalla dei delle dello degli essere fra ha ho i loro ma nei nel nella o più quando questa questo se sono sua sul sulla tra tutti vi',
  nld: 'de het een en van in op te voor is u uw wij met dat die niet aan zijn bij datum factuur bedrag totaal btw geachte als door er heeft hebben hij ik kan maar meer naar nog of om ons onze ook over tot uit was we wel werd worden wordt ze zich zo',
  por: 'o a os as e de do da em um uma para é seu com por que não ao se data fatura valor total iva exmo às como das dos ele ela entre era esta este foi há isso já mais mas na nas no nos nossa nosso ou pela pelo quando são sem ser sua também tem',
};

/** What stands on papers of every kind, by language: enough of its own spelling to tell a till's few words by. */
const PAPER_WORDS: Record<string, string> = {
  eng: 'receipt sales balance due payment paid cash card change thank thanks customer account number subtotal description quantity price unit street road house road kind regards sincerely yours faithfully statement opening closing delivery service order goods carriage labour paper electricity water insurance policy rent council school surgery monday january february march june july october december records keep reply office days work weeks month year letter form enclosed account readings amounts issued transactions transaction balance forward limited ltd plc',
  deu: 'quittung kassenbon kassenbeleg beleg karte kartenzahlung girocard bar rückgeld vielen dank einkauf danke wiedersehen kunde kundennummer gesamtbetrag rechnungsbetrag gesamtsumme zwischensumme umsatzsteuer steuer netto brutto bezeichnung menge einzelpreis preis zahlbar fällig fälligkeit zahlungsziel überweisen freundlichen grüßen herzliche hochachtungsvoll kontoauszug kontostand alter neuer lieferung versand fracht arbeitszeit stunde papier strom wasser versicherung miete markt söhne gesellschaft werke stück wartung prüfung untersuchung impfung verpackung januar februar märz mai juni juli oktober dezember montag woche monat jahr schreiben unterlagen zehn zwei tage umsatz umsatzübersicht ausgestellt buchung buchungen saldo gmbh straße stand',
  fra: 'reçu ticket caisse carte bancaire espèces rendu merci visite bientôt client numéro échéance payer règlement désignation quantité prix unité hors taxe sous cordialement salutations relevé compte solde ancien nouveau livraison port papier chaîne électricité eau assurance loyer école mairie rue place quai lundi janvier février mars avril juin juillet août octobre décembre jours semaine mois année lettre déplacement consultation heure pièces émise acquittée fils émis opérations opération sarl sas quai mouvements',
  spa: 'recibo compra tarjeta efectivo cambio gracias visita cliente número vencimiento base imponible descripción precio cantidad atentamente saludo cordial extracto cuenta saldo anterior actual entrega transporte papel jabón hilados calle avenida lunes enero febrero marzo junio julio octubre diciembre días semana mes año carta pago hora mano obra hijos movimientos emitido movimiento apertura cierre',
  ita: 'scontrino ricevuta carta contanti resto grazie arrivederci visita cliente numero scadenza imponibile imposta descrizione prezzo quantità cordiali distinti saluti estratto conto saldo iniziale finale consegna trasporto sapone filati tintoria via piazza lunedì gennaio febbraio marzo giugno luglio ottobre dicembre giorni settimana mese anno lettera pagamento documento commerciale vendita ora figli movimenti emesso movimento srl spa',
  nld: 'kassabon bon kwitantie pin contant wisselgeld bedankt bezoek ziens klant klantnummer factuurnummer vervaldatum betalen subtotaal omschrijving aantal prijs vriendelijke groet hoogachtend rekeningafschrift beginsaldo eindsaldo levering verzendkosten papier zeep wol garens straat weg plein maandag januari februari maart juni juli oktober december dagen week maand jaar brief betaald uur zonen nummer verkoopfactuur overzicht afgegeven mutaties bv datum',
  por: 'recibo talão cartão multibanco numerário dinheiro troco obrigado visita preferência cliente número vencimento pagar ilíquido descrição preço quantidade cumprimentos melhores atenciosamente extrato conta saldo anterior atual entrega transporte papel sabão fiação rua avenida segunda janeiro fevereiro março junho julho outubro dezembro dias semana mês ano carta pagamento documento hora filhos movimentos emitido movimento lda',
};

/** The words of a language that are known here, as they are written: frequent ones, and what stands on papers. */
export function writtenWords(code: string): string[] {
  return `${COMMON_WORDS[code] ?? ''} ${PAPER_WORDS[code] ?? ''}`.split(' ').filter(Boolean);
}

const setsOf = (words: Record<string, string>) =>
  new Map(Object.entries(words).map(([code, list]) => [code, new Set(list.split(' ').map(plain))]));
const vocabularies = setsOf(COMMON_WORDS);
const paperWords = setsOf(PAPER_WORDS);

/** Words without a subject of their own that the lists above leave out: texts on anything have them. */
const FUNCTION_WORDS = new Set(
  'am been being did do does done few get give given had he her here his how however just know let like made make many much my need needs never now off once one own per put said same see send she since still take tell then they though thus too two under until upon us use used very want way well were why within yet yours aber alle allem allen aller alles als also bereits bin bis bist da dabei damit dann darauf dazu dein denn derer derjenige dessen deshalb diese diesem diesen dieser dieses doch dort du erst etwas euch euer falls ganz gegen hatte hier hin hinter ihm ihn immer ja jede jedem jeden jeder jedes jetzt kein keine keinen man manche mein mich mir muss müssen neben nein nun ohne sehr seid sein seine seit selbst sollen sollte sonst soweit sowie statt unter viel viele während wann warum was weil weiter welche wenn wer wieder wo wollen würde zwar zwischen ai ainsi alors après aucun aussi autre autres avait avant bien celui chaque chez dont donc encore entre eux fut fois jusque là lors lui moi moins peu peut pendant puis quand quel quelle quelques rien sera seront soit suis sur tous très vers voici voilà'
    .split(' ')
    .map(plain),
);

/** Whether a word stands in texts on anything, in any of the languages that are known here. */
export function isCommonWord(word: string): boolean {
  const sought = plain(word);
  return FUNCTION_WORDS.has(sought) || [...vocabularies.values()].some((words) => words.has(sought));
}

/** How much a frequent word of a language says beside its spelling, and how far ahead another language must be of the usual one. */
const COMMON = 1.6;
const ON_PAPERS = 1.8;
const CLEARLY_AHEAD = 4;
/** The most that the spelling of a word may say, and of one with a capital, which may be a name. */
const [MOST, NAME] = [1.8, 0.1];
/** The languages of the countries that bank accounts (IBAN) name. */
const ACCOUNTS: Record<string, string> = {
  GB: 'eng',
  IE: 'eng',
  DE: 'deu',
  AT: 'deu',
  FR: 'fra',
  ES: 'spa',
  IT: 'ita',
  NL: 'nld',
  PT: 'por',
};
/** Of unknown threes of letters, so many are as good as seen. */
const UNSEEN = 0.4;

/**
 * The language that a text is most likely written in, among `candidates` (ISO 639-2); the first candidate when the text says
 * too little. By frequent words (Grefenstette 1995) and threes of letters (Cavnar & Trenkle 1994, as a naive Bayes classifier);
 * accents that an engine lost are forgiven.
 */
export function guessLanguage(text: string, candidates: string[]): string {
  return tellLanguageOf(text, candidates).language;
}

/** As `guessLanguage`, with how far the language is ahead of the next likely one: by 1.6 for each frequent word. */
export function tellLanguageOf(text: string, candidates: string[]): { language: string; lead: number } {
  const known = candidates.filter((code) => vocabularies.has(code));
  if (known.length < 2) return { language: candidates[0], lead: Infinity };
  // Names are spelt as they like, and say it again in every line.
  const words = new Set(text.match(/\p{L}{2,}/gu) ?? []);
  const scores = new Map(known.map((code) => [code, 0]));
  for (const written of words) {
    const word = written.toLowerCase();
    const most = word === written ? MOST : NAME;
    // Each word counts on its own: what it says for a language beside what it says for the others, and not without limit.
    const logs = known.map((code) => likeness(word, code));
    const mean = logs.reduce((sum, value) => sum + value, 0) / logs.length;
    known.forEach((code, at) => {
      const common = vocabularies.get(code)!.has(plain(word))
        ? COMMON
        : paperWords.get(code)!.has(plain(word)) || isCompound(plain(word), code)
          ? ON_PAPERS
          : 0;
      scores.set(code, scores.get(code)! + Math.max(-most, Math.min(most, logs[at] - mean)) + common);
    });
  }
  for (const [, country] of text.matchAll(/\b([A-Z]{2})\d{2}(?: ?[\dA-Z]{4}){2}/g)) {
    const code = ACCOUNTS[country];
    if (scores.has(code)) scores.set(code, scores.get(code)! + ON_PAPERS);
  }
  const [usual] = candidates;
  if (scores.has(usual)) scores.set(usual, scores.get(usual)! + CLEARLY_AHEAD);
  const [first, second] = known.toSorted((a, b) => scores.get(b)! - scores.get(a)!);
  return { language: first, lead: scores.get(first)! - scores.get(second)! };
}

/** Languages that put words together, and how long such a word and its known part are at least, in letters. */
const COMPOUNDING = ['deu', 'nld'];
const [LEAST_COMPOUND, LEAST_PART] = [8, 4];

/** Whether a word is put together with one that stands on papers: “Belegdatum”. */
function isCompound(word: string, code: string): boolean {
  if (!COMPOUNDING.includes(code) || word.length < LEAST_COMPOUND) return false;
  for (let at = LEAST_PART; at <= word.length - LEAST_PART; at++) {
    const isKnown = (part: string) =>
      part.length >= LEAST_PART && (paperWords.get(code)!.has(part) || vocabularies.get(code)!.has(part));
    if (isKnown(word.slice(0, at)) || isKnown(word.slice(at))) return true;
  }
  return false;
}

interface Threes {
  counts: Map<string, number>;
  total: number;
}

const learnt = new Map<string, Threes>();

function threesOf(code: string): Threes {
  const done = learnt.get(code);
  if (done) return done;
  const counts = new Map<string, number>();
  let total = 0;
  for (const word of `${COMMON_WORDS[code]} ${PAPER_WORDS[code]}`.split(' ')) {
    for (const three of threesIn(word)) {
      counts.set(three, (counts.get(three) ?? 0) + 1);
      total++;
    }
  }
  learnt.set(code, { counts, total });
  return { counts, total };
}

/** The mean logarithm of how often a word's threes of letters occur in a language's words. */
function likeness(word: string, code: string): number {
  const { counts, total } = threesOf(code);
  const threes = threesIn(word);
  const sum = threes.reduce((logs, three) => logs + Math.log(((counts.get(three) ?? 0) + UNSEEN) / total), 0);
  return sum / Math.sqrt(threes.length);
}

function threesIn(word: string): string[] {
  const framed = ` ${plain(word)} `;
  return Array.from({ length: framed.length - 2 }, (_, at) => framed.slice(at, at + 3));
}

/** A word without its accents. */
function plain(word: string): string {
  return word.replace(/ß/g, 'ss').normalize('NFD').replace(/\p{M}/gu, '');
}

/** The languages that can be told by themselves, from what is written. */
export const TOLD_APART = Object.keys(COMMON_WORDS);
