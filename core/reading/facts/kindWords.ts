import { Kind, OwnKind } from './kindList';
import { fold } from './rows';

/** What says a kind, in folded text. */
export interface KindWords {
  /** Words that name it: as a heading they settle it, in a sentence they only mention it. */
  named: RegExp;
  /** What such papers say besides, each with its weight. */
  says?: [RegExp, number][];
  /** Words that name it only where they are the heading, large and at the top. */
  headed?: RegExp;
  /** How its heading counts beside those of other kinds that it may mention: a credit note names its invoice. */
  weight?: number;
}

const word = (...words: string[]) => new RegExp(`(?<![\\p{L}\\p{N}])(?:${words.join('|')})(?![\\p{L}])`, 'u');

/** What a kind that a person added is known by; its own heading counts more than one of the list that it may hold. */
export function ownWords({ words }: OwnKind): KindWords {
  const said = words.map((text) =>
    fold(text)
      .replace(/[.*+?^${}()|[\]\\]/g, '\\$&')
      .replace(/\s+/g, '\\s+'),
  );
  return { named: word(...said), weight: 1.2 };
}

/** What kinds of papers are known by. */
export const kindWords: Record<Kind, KindWords> = {
  receipt: {
    named: word(
      '(?<!\\b(?:up)?on )(?:sales |cash |payment |till )?receipt(?! of (?:this|our|your|the|invoice|goods))',
      "preuve (?:de (?:depot|paiement|versement)|d'achat)",
      'proof of (?:posting|postage|purchase|payment)',
      'certificate of (?:posting|postage|mailing)',
      '(?:einlieferungs|zahlungs|einzahlungs|kauf)beleg',
      'quittung',
      'kassen(?:bon|beleg|zettel)',
      'beleg(?!-? ?(?:nr|nummer|no|datum))',
      'recu',
      'quittance(?: de loyer)?',
      'ticket (?:de caisse|de compra)',
      'recibo',
      'scontrino',
      '(?:factura|fatura|vereenvoudigde) (?:simplificada|factuur)',
      'ricevuta',
      'documento commerciale',
      'kassabon',
      'kwitantie',
      '(?:gift |donation )?acknowledge?ment(?! of (?:your )?order)',
      '(?:spenden|zuwendungs)(?:quittung|bestatigung|bescheinigung)',
      'talao',
      '(?:remittance|payment) advice',
      'zahlungsavis|zahlungsbestatigung',
      'avis de (?:paiement|virement|versement)',
    ),
    says: [
      [
        word(
          'cash',
          'change',
          'card',
          'till',
          'contactless',
          'visa',
          'kasse',
          'bar',
          'karte',
          'girocard',
          'ruckgeld',
          'especes',
          'carte',
          'rendu',
          'efectivo',
          'tarjeta',
          'cambio',
          'contanti',
          'resto',
          'pin',
          'wisselgeld',
          'troco',
          'multibanco',
          'numerario',
          'tendered',
          'bankomat(?:karte)?',
          'maestro',
          'kartenzahlung',
        ),
        1.1,
      ],
      [
        /thank you for (your )?(visit|custom|shopping)|received (with thanks|(from .{1,40} )?(by|in) (cash|cheque|card))|dankend erhalten|recu (de|la somme)|fur ihren einkauf|merci de votre visite|gracias por su|bedankt voor uw|obrigado pela|grazie (e|della)/u,
        1.6,
      ],
    ],
  },
  invoice: {
    named: word(
      '(?:tax |vat |sales |commercial |final |pro-?forma |consolidated )*invoice',
      '[\\p{L}-]*rechnung(?:[/|li1](?=lief|quitt|beleg).*)?',
      'liquidation',
      "(?:note d'honoraires|facture(?: finale| d'acompte| proforma)?)",
      'factura(?: simplificada)?',
      'fattura(?: accompagnatoria)?',
      '(?:verkoop|eind)?factuur',
      'fatura(?:-recibo)?',
      '(?:your |electricity |gas |water |energy |phone |final )*bill(?! ?(?:to|date))',
      '\\p{L}*faktura',
      "avis d'echeance",
      'appel (?:de (?:loyers?|fonds|charges|provisions?|cotisations?))',
      'fee note',
      // “Statement for October” is an account's.
      'statement (?:for|of) (?!accounts?(?![\\p{L}])|(?:the )?(?:month|quarter|year|period|jan|feb|mar|apr|may|jun|jul|aug|sep|oct|nov|dec))\\p{L}+.*',
      'honorarnote',
    ),
    says: [
      [
        /due date|reglable|payable (?:up)?on receipt|zahlbar sofort|sous (?:quinzaine|huitaine)|amount (?:due|payable)|payment due|pay(?:able)? (?:by|within)|payment terms|uberweisen sie|zahlen sie|falligkeit|fallig am|zahlbar bis|zahlungsziel|echeance|vencimiento|scadenza|vervaldatum|vencimento/u,
        1.4,
      ],
      [
        /invoice n|inv\. ?n|bill date|rechnungsn|rechnungs-|facture n|n° de facture|factuurn|numero fattura|fattura n/u,
        1.6,
      ],
    ],
  },
  'credit note': {
    named: word(
      'credit (?:note|memo|advice|adjustment)',
      'rechnungsgutschrift',
      'gutschrift(?= ?(?:nr|nummer|vom|zu|[()\\[]|$))',
      'gutschriftsnummer',
      '(?:gutschrift|erstattung)s?-?(?:anzeige|beleg|nachweis|rechnung)',
      'rechnungskorrektur',
      'storno(?:rechnung)?',
      "(?:facture d')?avoir",
      'note de credit',
      'nota (?:de |di )?(?:credito|abono)',
      'creditnota',
      'credit ?factuur',
      'refund note',
      '(?<=^\\W*)refund(?=\\W*$)',
    ),
    says: [
      [
        /\b(?:zuruck an sie|(?:erhalten|bekommen) sie .{0,20}\bzuruck|to your credit|in your favou?r|zu ihren gunsten|en votre faveur|we owe you|your money back|back to you|over-?charged|zu viel berechnet|trop percu)\b/u,
        2.4,
      ],
      [
        /(total|sales) credit|credited|gutgeschrieben|erstattungsbetrag|a votre credit|refund(ed)?|rembours|ruckerstattung|retoure|reembols|rimbors|terugbetal/u,
        1,
      ],
    ],
    headed:
      /(?:your|a) refund\b|refund (?:issued|sent|processed|confirmation)|ihre (?:ruck)?erstattung|votre remboursement/,
    weight: 1.6,
  },
  reminder: {
    named: word(
      '(?:payment |final |first |second |third |friendly )*reminder',
      'final (?:notice|demand)',
      'overdue (?:notice|account|invoice)',
      '(?:letzte |erste |zweite |dritte )?(?:zahlungs)?(?:erinnerung|mahnung|aufforderung)',
      '(?:first |second |third |final |last |urgent )?request for payment',
      '(?:facture|invoice|rechnung)s? (?:impayee?s?|unpaid|overdue|en retard|echues?|offen)',
      '(?:disconnect(?:ion)?|shut-?off|past due|delinquency) notice',
      'notice of (?:disconnection|termination of service)',
      'sperr(?:ankundigung|androhung)',
      'avis de (?:coupure|suspension)',
      '(?:unpaid|outstanding|offene|unbezahlte) (?:invoices?|bills?|accounts?|posten|rechnung(?:en)?)',
      "(?<!prochain )rappel(?: de (?:paiement|facture|cotisation|loyer|reglement|l'echeance))?(?! (?:de|du|des|d'))",
      'relance',
      'mise en demeure',
      'recordatorio(?: de pago)?',
      'sollecito(?: di pagamento)?',
      '(?:betalings)?herinnering',
      'aanmaning',
      'lembrete',
    ),
    says: [
      [
        /overdue|past due|not (yet )?received (your )?payment|(?:not|yet)(?: \p{L}+){0,3} (?:had|seen|received) (?:your|any|a) payment|was due\b|now owing|still owing|(?:crossed|crosses) (?:with )?(?:this|our|in the post)|uberschnitten|croise|(pas|toujours pas|non) (ete )?reglee?|has not been (paid|settled)|(wrote|written) to you (on|about)|had no (answer|reply)|remains? (unpaid|outstanding)|noch keine?n? zahlung|zahlungseingang|steht (?:noch )?aus\b|nicht (?:bei uns )?(?:angekommen|eingegangen)|uberfallig|mahngebuhr|verzugszins|(noch|steht|ist) offen\b|late (fee|payment (fee|charge|interest))|(?:charge|fee|interest) for late|still (open|unpaid)|interets? de retard|impaye|en retard|sauf erreur|pendiente de pago|insoluto|nog niet ontvangen/u,
        2.4,
      ],
    ],
    weight: 1.5,
  },
  'delivery note': {
    named: word(
      '(?:delivery|despatch|dispatch|goods(?: received)?|advice|consignment) (?:note|docket|advice)',
      'advice of (?:goods|despatch|dispatch|delivery)(?: sent| despatched)?',
      'goods (?:sent|despatched|dispatched)(?: advice)?',
      'packing (?:list|slip|note)',
      'lieferschein',
      'packzettel',
      '(?:warenbegleit|\\p{L}*ubergabe|fracht|lade|versand|abhol|ruckgabe)-?schein',
      '(?:fracht|lade)brief',
      '(?:air ?)?way-?bill',
      'lettre de voiture',
      'bon de livraison',
      'bordereau de livraison',
      'albaran(?: de entrega)?',
      'documento di trasporto',
      'bolla di consegna',
      'pakbon',
      'leverbon',
      'guia de (?:remessa|transporte)',
    ),
    says: [
      [
        /(goods|items|parcels?) (were )?received( in good (order|condition))?|received in good|\b(despatched|dispatched|back ?order(ed)?|to follow)\b|ware (vollstandig )?erhalten|unterschrift (des )?empfanger|zustand (erhalten|ubernommen)|nachlieferung|recu (le|en bon etat)|reste a livrer|ontvangen door/u,
        1.2,
      ],
    ],
    weight: 1.3,
  },
  order: {
    named: word(
      '(?<!standing )(?:purchase |sales )?order(?: (?:confirmation|acknowledg?ement))?',
      'order (?:summary|form)',
      'auftrags(?:bestatigung|eingang)',
      'bestell(?:ung|bestatigung|schein)',
      '(?:bon|bordereau|confirmation|accuse de reception) de (?:la )?commande',
      'pedido(?: de compra)?',
      'confirmacion de(?:l)? pedido',
      "(?:conferma d'|ordine d'?acquisto|conferma )ordine",
      'order ?bevestiging',
      'bestelling',
      'encomenda',
    ),
    says: [
      [/thank you for your order|vielen dank fur ihre(n)? (bestellung|auftrag)|merci (de|pour) votre commande/u, 2],
    ],
    headed:
      /(?:thank(?:s| you) for|we(?: have|'ve) (?:got|received)) your order|your order (?:is (?:on its way|confirmed|being|placed|in)|has been)|danke? fur (?:ihre|deine|die) bestellung|bestellung (?:ist )?(?:eingegangen|erhalten)|merci (?:de|pour) votre commande|gracias por (?:su|tu) pedido|grazie per il (?:suo|tuo) ordine|bedankt voor (?:uw|je) bestelling/u,
  },
  quote: {
    named: word(
      'quot(?:e|ation)',
      'estimate',
      'pro-?forma quotation',
      'proposal',
      '(?:unser )?angebot',
      'kostenvoranschlag',
      'offerte',
      'devis',
      'proposition(?: commerciale)?',
      'presupuesto',
      'cotizacion',
      'preventivo',
      'orcamento',
    ),
    says: [
      [
        /valid (until|for)|(?:price|quote|offer|estimate) (?:holds|stands|is (?:held|good|firm|open))|open for acceptance|(?:my|our) (?:price|quote|estimate) for|bon pour accord|(?:proposition|offre|devis) valable|gultig bis|gilt bis|bindefrist|valable jusqu|valido (hasta|fino)|geldig tot/u,
        0.8,
      ],
    ],
    weight: 1.2,
  },
  statement: {
    named: word(
      '(?:bank |account |credit card |customer )*statement(?: of accounts?)?(?! (?:of|for) \\p{L})',
      'konto(?:auszug|ubersicht)',
      'umsatzubersicht',
      'kreditkartenabrechnung',
      'releve(?: de compte| bancaire| de remboursements?|(?! d))',
      'extrait de compte',
      'extracto(?: bancario| de cuenta)?',
      'estratto conto',
      'rekening(?:afschrift|uittreksel)',
      'afschrift',
      'extrato',
    ),
    says: [
      [
        /(opening|closing|previous|new) balance|balance (brought|carried) forward|kontostand|alter saldo|neuer saldo|anfangssaldo|endsaldo|(ancien|nouveau) solde|saldo (anterior|actual|iniziale|finale|atual)|(begin|eind)saldo/u,
        2,
      ],
      [/(paid|money) (in|out)|soll und haben|debit credit|wertstellung/u, 1],
    ],
    weight: 1.4,
  },
  contract: {
    named: word(
      '(?:tenancy |service |hire |lease |purchase |employment |sale )*(?:agreement|contract)',
      '(?:home |motor |travel |contents |liability |business )*(?:insurance )?policy(?: schedule| document)?',
      'insurance certificate',
      'mandat de prelevement(?: sepa)?|sepa-?(?:basis-?)?(?:lastschrift)?-?mandat|lastschriftmandat',
      'direct debit (?:mandate|instruction)',
      '\\p{L}*vertrag',
      'versicherungs(?:schein|police|bestatigung)',
      '(?:contrat|bail)(?: de [a-z]+)?',
      'contrato(?: de [a-z]+)?',
      'contratto(?: di [a-z]+)?',
      'poliza',
      'polizza',
      'polis(?:blad)?',
      '(?:huur|koop|arbeids)?overeenkomst',
    ),
    says: [
      [
        /\brenew(al|s|ed)?\b|your cover|cover(ed)? (for|up to)|policy (booklet|holder)|excess of|the excess|(annual|monthly) premium|sum insured|period of (insurance|cover)|cover (starts|ends)|beitragsrechnung|jahresbeitrag|versicherungssumme|laufzeit|kundigungsfrist|notice period|(notice|cancel|terminate) in writing|months?'? (written )?notice|either (side|party)|prime annuelle|preavis/u,
        2,
      ],
      [
        /between the parties|hereinafter|the (tenant|landlord|lessor|hirer)|mieter|vermieter|le locataire|le bailleur/u,
        1.6,
      ],
    ],
  },
  certificate: {
    named: word(
      'certificate(?! of (?:posting|postage|mailing))(?: of [a-z]+)?',
      'certification',
      'bestatigung uber \\p{L}*zuwendung\\p{L}*',
      'zuwendungsbestatigung',
      '(?:vaccination|service|treatment) (?:record|card|book)',
      '(?:safety|inspection) (?:record|report)',
      'impf(?:ausweis|pass|buch)',
      'carnet de (?:sante|vaccination|vaccinations)',
      '(?:birth|marriage|death|vaccination|test|guarantee|warranty) certificate',
      'deed(?: of [a-z]+)?',
      'diploma',
      'licen[cs]e',
      'guarantee(?: card| certificate)?',
      'warranty(?: card)?',
      '\\p{L}*urkunde',
      '\\p{L}*(?:zeugnis|zertifikat|bescheinigung|garantieschein|garantie)',
      'certificat(?: de [a-z]+)?',
      'acte de (?:naissance|mariage|deces|propriete)',
      'attestation',
      'certificado',
      'certificato',
      'certificaat',
      'verklaring',
    ),
    says: [[/(this is to certify|we (hereby )?certify|hiermit wird bescheinigt|nous certifions|certifica que)/u, 2.6]],
  },
  payslip: {
    named: word(
      'pay ?slip',
      'pay (?:advice|statement)',
      'wage slip',
      'salary (?:slip|statement)',
      '(?:lohn|gehalts|entgelt|bezuge)-?(?:abrechnung|zettel|nachweis|streifen)',
      'verdienstabrechnung',
      '(?:abrechnung|mitteilung) (?:der|uber|ihrer) (?:die )?(?:[\\p{L}-]+[/-]+ ?)*(?:bezuge|entgelte|lohne?)',
      '(?:bulletin|fiche) de (?:paie|paye|salaire)',
      'nomina',
      'busta paga',
      'cedolino',
      'loonstrook(?:je)?',
      'salarisstrook',
      'recibo de vencimento',
    ),
    says: [
      [
        /(gross|net|take-?home) pay|\bpaye\b|(total )?(deductions|abzuge|retenues)|national insurance|income tax|lohnsteuer|sozialversicherung|brutto|net a payer|cotisations/u,
        1.2,
      ],
    ],
    weight: 1.6,
  },
  notice: {
    named: word(
      '(?:council tax|tax|penalty charge|assessment|public|planning|enforcement|rates|charge) (?:notice|demand|bill)',
      'notice (?:of|to) [a-z]+',
      '(?:non-domestic |business |water )?rates?:? (?:\\p{L}+ )?(?:demand|bill|notice)',
      '[a-z]*bescheid(?: uber .*)?',
      'abgabenbescheid',
      "avis d'(?:imposition|amende|impot)",
      '(?:income |self |rates |council )?(?:tax|steuer)[ -]?(?:calculation|assessment|statement|berechnung)',
      'statement of (?:your )?(?:tax|rates)(?: .*)?',
      'avis de taxe.*',
      'notificacion',
      'liquidacion',
      'avviso di [a-z]+',
      'cartella di pagamento',
      'aanslag(?:biljet)?',
      'beschikking',
    ),
    says: [
      [
        /rechtsbehelf|widerspruch (erhoben|einlegen)|festgesetzt|aktenzeichen|right of appeal|you (may|can) appeal|voies de recours|bezwaar/u,
        2.2,
      ],
      [
        /\b(council|borough|revenue|county|finanzamt|\p{L}{3,}amt|landkreis|stadtverwaltung|gemeindeverwaltung|mairie|tresor public|impots|prefecture)\b/u,
        1.2,
      ],
    ],
    weight: 1.4,
  },
  letter: {
    named: /(?!)/u,
    says: [
      [
        /^(dear|sehr geehrte|liebe[rs]?|guten tag|madame|monsieur|chere?s?|estimad[oa]|muy senor|gentile|egregio|geachte|beste|exm[oa]|caro|prezado)\b/u,
        3.4,
      ],
      [
        /yours (sincerely|faithfully|truly)|kind regards|best wishes|mit freundlichen grussen|freundliche grusse|herzliche grusse|hochachtungsvoll|cordialement|bien a vous|salutations|atentamente|cordial saludo|cordiali saluti|distinti saluti|vriendelijke groet|hoogachtend|melhores cumprimentos|atenciosamente/u,
        2.4,
      ],
    ],
  },
  ticket: {
    weight: 0.9,
    named: word(
      '(?:return |single |day |season |rail |train |bus |ferry |parking |entrance |admission |e-?)*ticket',
      'boarding (?:pass|card)',
      'admit (?:one|two)',
      'admission(?! (?:fee|charge|price))',
      '(?:fahr|eintritts|flug|bahn|park)-?(?:karte|schein|ticket)',
      '(?:titre|billet) de transport',
      'billet(?: aller.*)?',
      "(?:carte|billet) d'entree",
      '(?:billete|entrada)',
      'biglietto',
      '(?:trein)?kaartje',
      'bilhete',
    ),
    says: [
      [
        /\b(aller|retour|a bord|on board|an bord|crossing|trajet|ni repris|ni echange|not transferable|nicht ubertragbar)\b/u,
        1,
      ],
      [/\bbox office\b|\b(?:seats|stalls|circle|row [a-z]),? [a-z]?\d|\bdoors open\b/u, 1.6],
      [/\b(seat|coach|platform|gate|sitz|wagen|gleis|abfahrt|voiture|depart(s|ure)?|valid (from|on))\b/u, 1],
      [
        /\b(passengers?|fahrg(?:ast|aste)|reisende[rn]?|passagers?|voyageurs?|sailing|boarding|hinfahrt|ruckfahrt|traversee)\b/u,
        1,
      ],
      [
        /\b(?:booking|buchungs?|travel|reservation)[ -]?(?:reference|ref|code|nummer|document|number)\b|\bnumero de (?:dossier|reservation)\b/u,
        1.2,
      ],
    ],
  },
  other: { named: /(?!)/u },
};
