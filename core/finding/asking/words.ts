/** Words that a question may have without saying anything by them (small letters, no accents). */
const EMPTY = {
  english:
    'actually exactly roughly approximately now want know wonder kindly ever a about again all also altogether amount amounts an and any are as at be been bought business buy by can charge charged charges come comes came cost costs could did do does during each entire ever expense expenses expenditure far for from get gets give go goes going gone got had has have having how i if in into is it its just list me money much must my need not of on one ones our out outgoings over overall paid paper papers pay payment payments please purchase purchases received say says see sent send sends shelf should show so some spend spending spent still sum supplier suppliers company companies firm firms tell than that the their them then there these they this those to together total totals up us was we went were what when where which who whom whose will with within would write wrote you your household altogether worth something nothing stuff single provider being yet given supplied issued let outlay start shop shops store stores whole entire entirety full complete completely throughout course rest receive receives arrive arrived landed hear heard reached issue issued submitted find give gave document documents many number per value day date be like end same new have had since',
  german:
    'genau ungefahr etwa gerne gern mochte wissen will jetzt eigentlich aber alle allem allen aller alles als am an ans auch auf aus ausgegeben ausgeben bei beim bekam bekamen bekommen beleg belaufen betragt betrug bezahlen bezahlt gezahlt bin bis bitte da das dass dem den denn der des die dies diese diesem diesen dieser dieses dir du durch ein eine einem einen einer eines er es fur gab geben geht gelaufen gibt ging gingen geld gekauft gekostet kaufen gesamt gesamten geschickt habe haben hat hatte hatten hoch ich ihr im in ins insgesamt ist ja je kam kamen kommt kommen gekommen kostet kosten kostete kosteten man mich mir mit nach noch nur oder papier papiere regal sagen schicken schickte schickten schon sein seine sich sie sind so steht stehen uber um und uns unser unsere unserem unseren unserer vom von vor war waren was welche welchem welchen welcher welches wem wen wenn wer werden wie wieviel viel wir wird wo wurde wurden zahlen zahlten zeig zeige zeigen zu zum zur zusammen ausgaben lieferant lieferanten firma firmen lautet liegen liegt am geschrieben schrieb muss mussen musste sollen sollte kann konnen anbieter jemals etwas ganze ganzen ganzes gesamte gesamtes komplett eingegangen eingetroffen erhalten',
  french:
    'exactement environ savoir voudrais veux maintenant dire a ai as au aux avec avez avons avoir ce cela ces cet cette chez combien comme coute coutait coutent coutes couter d dans de depense depensee depenses depenser des donc du elle elles en est et ete etes etait eu eleve elevent fait il ils j je l la le les leur ma me mes moi mon montre montrez n ne nos notre nous on ont ou par paye payee payer payes paient pour qu que quel quelle quelles quels qui recu recue recus recues s sa se ses son sont sur t ta te toi ton total totale tous tout toute toutes tu un une va vers vous y montant montants somme argent fournisseur fournisseurs liste trouve trouver affiche achete achats achat verse versee faut il doit on entier entiere complet complete arrive arrivee arrivees',
};
const EMPTY_WORDS = new Set(Object.values(EMPTY).flatMap((words) => words.split(' ')));

/** Whether a word of a question says nothing of what is asked about. */
export function isEmpty(word: string): boolean {
  return word.length < 2 || EMPTY_WORDS.has(word);
}

/** What papers are called, and the kinds that are meant; none for papers of any kind. */
const KIND_NOUNS: [form: string, kinds: string[]][] = [
  ['credit notes?|gutschrift(?:en)?|avoirs?|notes? de credit', ['credit note']],
  ['delivery (?:notes?|slips?)|lieferscheine?n?|bons? de livraison', ['delivery note']],
  ['reminders?|dunning letters?|mahnung(?:en)?|zahlungserinnerung(?:en)?|rappels?|relances?', ['reminder']],
  ['(?:bank |account )?statements?|kontoausz(?:ug|uge|ugen|uges)|releves?(?: de compte| bancaires?)?', ['statement']],
  ['invoices?|rechnung(?:en)?|factures?', ['invoice']],
  ['bills?', ['invoice', 'receipt', 'notice']],
  ['belege?n?', ['invoice', 'receipt']],
  ['receipts?|till slips?|quittung(?:en)?|kassenbons?|kassenzettel|bons?|recus?|tickets? de caisse', ['receipt']],
  ['tickets?|fahrkarten?|fahrscheine?|eintrittskarten?|billets?', ['ticket']],
  ['quotes?|quotations?|estimates?|angebote?n?|kostenvoranschlage?|devis', ['quote']],
  ['purchase orders?|orders|bestellung(?:en)?|auftrage?|commandes?', ['order']],
  ['contracts?|agreements?|policy|policies|policen?|vertrage?n?|vertrags|contrats?', ['contract']],
  ['certificates?|deeds?|urkunden?|zertifikate?|bescheinigung(?:en)?|certificats?|attestations?', ['certificate']],
  ['payslips?|pay slips?|lohnzettel|gehaltsabrechnung(?:en)?|fiches? de paie|bulletins? de salaire', ['payslip']],
  ['notices?|assessments?|bescheide?n?|avis', ['notice']],
  ['letters?|briefe?n?|schreiben|lettres?|courriers?', ['letter']],
  ['papers?|documents?|papiere?n?|dokumente?n?|unterlagen|purchases?|einkaufe?|payments?|zahlung(?:en)?', []],
];

export interface KindNoun {
  kinds: string[];
  /** Where it stands in the text. */
  start: number;
  end: number;
}

/**
 * What a question calls the papers that it asks for.
 * @param own names of kinds that a person added, as they are kept
 */
export function kindNouns(text: string, own: readonly string[]): KindNoun[] {
  const forms: [string, string[]][] = [
    ...own.map((name): [string, string[]] => [`${escaped(name.toLowerCase())}s?`, [name]]),
    ...KIND_NOUNS,
  ];
  const found: KindNoun[] = [];
  for (const [form, kinds] of forms)
    for (const match of text.matchAll(new RegExp(`(?<![\\p{L}\\p{N}])(?:${form})(?![\\p{L}\\p{N}])`, 'gu'))) {
      const [start, end] = [match.index, match.index + match[0].length];
      if (!found.some((each) => each.start < end && start < each.end)) found.push({ kinds, start, end });
    }
  return found.sort((a, b) => a.start - b.start);
}

function escaped(text: string): string {
  return text.replace(/[.*+?^${}()|[\]\\]/g, '\\$&');
}

/** What a firm's name has besides its name. */
const LEGAL_FORM =
  /^(ltd|limited|plc|llc|llp|inc|co|corp|gmbh|ag|kg|ohg|ug|ek|mbh|sarl|sa|sas|sasu|eurl|bv|spa|srl|and|und|et|the|die|der|le|la|les|dr|mr|mrs|ms|herr|frau)$/;

/** The words of a sender's name that tell it from others. */
export function nameWords(folded: string): string[] {
  const words = folded.split(/[^\p{L}\p{N}]+/u).filter(Boolean);
  const telling = words.filter((word) => !LEGAL_FORM.test(word));
  return telling.length > 0 ? telling : words;
}
