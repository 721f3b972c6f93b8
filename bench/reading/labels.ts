import { Half } from './paper';

export type Tongue = 'en' | 'de' | 'fr' | 'es' | 'it' | 'nl' | 'pt';

/** What papers call things, for the half that rules are written against and for the half that only measures: first those, then these. */
type Both = [tuned: string[], untuned: string[]];

export interface Labels {
  locale: string;
  language: string;
  currencies: string[];
  rates: number[];
  invoice: Both;
  number: Both;
  date: Both;
  due: Both;
  customer: Both;
  net: Both;
  tax: Both;
  total: Both;
  columns: [what: string, quantity: string, price: string, amount: string];
  receipt: Both;
  cash: Both;
  card: Both;
  change: string;
  thanks: Both;
  dear: Both;
  closing: Both;
  statement: Both;
  balance: [old: string, now: string];
  vatNumber: string;
}

export const LABELS: Record<Tongue, Labels> = {
  en: {
    locale: 'en-GB',
    language: 'eng',
    currencies: ['GBP', 'GBP', 'GBP', 'USD', 'EUR'],
    rates: [20, 20, 5],
    invoice: [
      ['Invoice', 'INVOICE', 'Tax Invoice'],
      ['VAT Invoice', 'Sales Invoice', 'Bill'],
    ],
    number: [
      ['Invoice no.', 'Invoice number', 'Invoice #'],
      ['Inv. No', 'Our reference', 'Invoice No:'],
    ],
    date: [
      ['Date', 'Invoice date', 'Date of issue'],
      ['Issued', 'Issue date', 'Tax point'],
    ],
    due: [
      ['Due date', 'Payment due'],
      ['Please pay by', 'Due by', 'Pay before'],
    ],
    customer: [
      ['Customer no.', 'Account'],
      ['Client ID', 'Your ref.'],
    ],
    net: [
      ['Subtotal', 'Net'],
      ['Net total', 'Total excl. VAT'],
    ],
    tax: [
      ['VAT {r} %', 'VAT @ {r}%'],
      ['VAT ({r}%)', 'plus {r}% VAT'],
    ],
    total: [
      ['Total', 'Total due', 'Amount due'],
      ['Grand total', 'Balance due', 'TOTAL TO PAY'],
    ],
    columns: ['Description', 'Qty', 'Unit price', 'Amount'],
    receipt: [
      ['RECEIPT', 'Sales receipt'],
      ['Customer receipt', 'TILL RECEIPT'],
    ],
    cash: [['Cash'], ['CASH TENDERED']],
    card: [
      ['Card', 'VISA DEBIT'],
      ['Paid by card', 'Contactless'],
    ],
    change: 'Change',
    thanks: [['Thank you for your custom'], ['Please keep for your records']],
    dear: [
      ['Dear Mr Castellane,', 'Dear Sir or Madam,'],
      ['Dear customer,', 'Dear Imre,'],
    ],
    closing: [
      ['Yours sincerely,', 'Kind regards,'],
      ['Yours faithfully,', 'With best wishes,'],
    ],
    statement: [['Statement of account'], ['Account statement', 'Bank statement']],
    balance: ['Opening balance', 'Closing balance'],
    vatNumber: 'VAT no.',
  },
  de: {
    locale: 'de-DE',
    language: 'deu',
    currencies: ['EUR', 'EUR', 'EUR', 'CHF'],
    rates: [19, 19, 7],
    invoice: [
      ['Rechnung', 'RECHNUNG'],
      ['Rechnung/Lieferschein', 'Kundenrechnung'],
    ],
    number: [
      ['Rechnungsnummer', 'Rechnung Nr.', 'Rechnungs-Nr.'],
      ['Beleg-Nr.', 'Rg.-Nr.', 'Rechnungsnr.:'],
    ],
    date: [
      ['Datum', 'Rechnungsdatum'],
      ['Ausgestellt am', 'Belegdatum', 'vom'],
    ],
    due: [
      ['Zahlbar bis', 'Fällig am'],
      ['Zahlungsziel', 'Bitte zahlen bis', 'Fälligkeit'],
    ],
    customer: [
      ['Kundennummer', 'Kunden-Nr.'],
      ['Kd.-Nr.', 'Ihr Zeichen'],
    ],
    net: [
      ['Summe netto', 'Nettobetrag'],
      ['Zwischensumme', 'Netto'],
    ],
    tax: [
      ['MwSt. {r} %', 'USt. {r} %'],
      ['zzgl. {r} % MwSt.', 'Umsatzsteuer {r}%'],
    ],
    total: [
      ['Gesamtbetrag', 'Rechnungsbetrag', 'Summe'],
      ['Zu zahlen', 'Endbetrag', 'Gesamtsumme brutto'],
    ],
    columns: ['Bezeichnung', 'Menge', 'Einzelpreis', 'Betrag'],
    receipt: [
      ['QUITTUNG', 'Kassenbon'],
      ['Kassenbeleg', 'Beleg'],
    ],
    cash: [['Bar'], ['BAR GEGEBEN']],
    card: [
      ['Karte', 'EC-Karte'],
      ['Kartenzahlung', 'Girocard'],
    ],
    change: 'Rückgeld',
    thanks: [['Vielen Dank für Ihren Einkauf'], ['Danke und auf Wiedersehen']],
    dear: [
      ['Sehr geehrter Herr Castellane,', 'Sehr geehrte Damen und Herren,'],
      ['Lieber Imre,', 'Guten Tag,'],
    ],
    closing: [
      ['Mit freundlichen Grüßen', 'Freundliche Grüße'],
      ['Hochachtungsvoll', 'Herzliche Grüße'],
    ],
    statement: [['Kontoauszug'], ['Kontoauszug Nr. 4', 'Umsatzübersicht']],
    balance: ['Alter Kontostand', 'Neuer Kontostand'],
    vatNumber: 'USt-IdNr.',
  },
  fr: {
    locale: 'fr-FR',
    language: 'fra',
    currencies: ['EUR', 'EUR', 'CHF'],
    rates: [20, 20, 10, 5.5],
    invoice: [
      ['Facture', 'FACTURE'],
      ['Facture client', 'Facture acquittée'],
    ],
    number: [
      ['Facture n°', 'N° de facture', 'Numéro'],
      ['Réf. facture', 'Facture No', 'N° facture :'],
    ],
    date: [
      ['Date', 'Date de facture'],
      ['Émise le', 'Date d’émission'],
    ],
    due: [
      ['Échéance', 'À payer avant le'],
      ['Date d’échéance', 'Payable au'],
    ],
    customer: [
      ['N° client', 'Code client'],
      ['Réf. client', 'Client n°'],
    ],
    net: [
      ['Total HT', 'Montant HT'],
      ['Sous-total HT', 'Total hors taxe'],
    ],
    tax: [
      ['TVA {r} %', 'TVA à {r} %'],
      ['T.V.A. {r}%', 'dont TVA {r} %'],
    ],
    total: [
      ['Total TTC', 'Net à payer', 'TOTAL'],
      ['Montant TTC', 'Total à régler'],
    ],
    columns: ['Désignation', 'Qté', 'P.U.', 'Montant'],
    receipt: [
      ['TICKET', 'Reçu'],
      ['Ticket de caisse', 'REÇU CLIENT'],
    ],
    cash: [['Espèces'], ['ESPECES']],
    card: [
      ['Carte', 'CB'],
      ['Carte bancaire', 'CB SANS CONTACT'],
    ],
    change: 'Rendu',
    thanks: [['Merci de votre visite'], ['Merci et à bientôt']],
    dear: [
      ['Monsieur,', 'Madame, Monsieur,'],
      ['Cher Monsieur,', 'Cher client,'],
    ],
    closing: [['Cordialement,', 'Bien à vous,'], ['Veuillez agréer, Monsieur, nos salutations distinguées.']],
    statement: [['Relevé de compte'], ['Extrait de compte']],
    balance: ['Ancien solde', 'Nouveau solde'],
    vatNumber: 'N° TVA',
  },
  es: {
    locale: 'es-ES',
    language: 'spa',
    currencies: ['EUR'],
    rates: [21, 10],
    invoice: [['Factura', 'FACTURA'], ['Factura simplificada']],
    number: [
      ['Factura n.º', 'Número de factura'],
      ['N.º factura', 'Núm. factura'],
    ],
    date: [['Fecha', 'Fecha de factura'], ['Fecha de emisión']],
    due: [['Vencimiento', 'Fecha de vencimiento'], ['Pagar antes del']],
    customer: [['N.º cliente'], ['Código de cliente']],
    net: [['Base imponible'], ['Subtotal']],
    tax: [['IVA {r} %', 'IVA ({r} %)'], ['I.V.A. {r}%']],
    total: [
      ['Total', 'Total factura'],
      ['Importe total', 'Total a pagar'],
    ],
    columns: ['Descripción', 'Cant.', 'Precio', 'Importe'],
    receipt: [['TICKET', 'Recibo'], ['Ticket de compra']],
    cash: [['Efectivo'], ['EFECTIVO']],
    card: [['Tarjeta'], ['Pago con tarjeta']],
    change: 'Cambio',
    thanks: [['Gracias por su visita'], ['Gracias por su compra']],
    dear: [['Estimado señor Castellane:'], ['Muy señor mío:', 'Estimado cliente:']],
    closing: [['Atentamente,'], ['Un cordial saludo,']],
    statement: [['Extracto de cuenta'], ['Extracto bancario']],
    balance: ['Saldo anterior', 'Saldo actual'],
    vatNumber: 'NIF',
  },
  it: {
    locale: 'it-IT',
    language: 'ita',
    currencies: ['EUR'],
    rates: [22, 10],
    invoice: [['Fattura', 'FATTURA'], ['Fattura di vendita']],
    number: [
      ['Fattura n.', 'Numero fattura'],
      ['Fattura nr.', 'N. documento'],
    ],
    date: [['Data', 'Data fattura'], ['Data di emissione']],
    due: [['Scadenza', 'Scadenza pagamento'], ['Da pagare entro il']],
    customer: [['Codice cliente'], ['Cliente n.']],
    net: [['Imponibile'], ['Totale imponibile']],
    tax: [['IVA {r} %', 'IVA {r}%'], ['Imposta {r} %']],
    total: [
      ['Totale', 'Totale fattura'],
      ['Totale da pagare', 'Importo totale'],
    ],
    columns: ['Descrizione', 'Q.tà', 'Prezzo', 'Importo'],
    receipt: [['SCONTRINO', 'Ricevuta'], ['Documento commerciale']],
    cash: [['Contanti'], ['CONTANTE']],
    card: [['Carta'], ['Pagamento con carta']],
    change: 'Resto',
    thanks: [['Grazie e arrivederci'], ['Grazie della visita']],
    dear: [['Gentile signor Castellane,'], ['Egregio signore,', 'Gentile cliente,']],
    closing: [['Cordiali saluti'], ['Distinti saluti']],
    statement: [['Estratto conto'], ['Estratto del conto']],
    balance: ['Saldo iniziale', 'Saldo finale'],
    vatNumber: 'P. IVA',
  },
  nl: {
    locale: 'nl-NL',
    language: 'nld',
    currencies: ['EUR'],
    rates: [21, 9],
    invoice: [
      ['Factuur', 'FACTUUR'],
      ['Rekening', 'Verkoopfactuur'],
    ],
    number: [
      ['Factuurnummer', 'Factuur nr.'],
      ['Factuurnr.', 'Nummer'],
    ],
    date: [['Datum', 'Factuurdatum'], ['Datum factuur']],
    due: [['Vervaldatum', 'Te betalen voor'], ['Betalen voor']],
    customer: [['Klantnummer'], ['Debiteurnummer']],
    net: [['Subtotaal', 'Totaal excl. btw'], ['Netto']],
    tax: [['Btw {r} %', 'BTW {r}%'], ['{r}% btw']],
    total: [
      ['Totaal', 'Totaal incl. btw'],
      ['Te betalen', 'Totaalbedrag'],
    ],
    columns: ['Omschrijving', 'Aantal', 'Prijs', 'Bedrag'],
    receipt: [['KASSABON', 'Bon'], ['Kwitantie']],
    cash: [['Contant'], ['CONTANT']],
    card: [['Pin'], ['Betaald met pin']],
    change: 'Wisselgeld',
    thanks: [['Bedankt voor uw bezoek'], ['Tot ziens']],
    dear: [['Geachte heer Castellane,'], ['Beste Imre,', 'Geachte klant,']],
    closing: [['Met vriendelijke groet,'], ['Hoogachtend,']],
    statement: [['Rekeningafschrift'], ['Afschrift']],
    balance: ['Beginsaldo', 'Eindsaldo'],
    vatNumber: 'Btw-nr.',
  },
  pt: {
    locale: 'pt-PT',
    language: 'por',
    currencies: ['EUR'],
    rates: [23, 13],
    invoice: [['Fatura', 'FATURA'], ['Fatura-recibo']],
    number: [
      ['Fatura n.º', 'Número da fatura'],
      ['N.º da fatura', 'Documento n.º'],
    ],
    date: [['Data', 'Data da fatura'], ['Data de emissão']],
    due: [['Vencimento', 'Data de vencimento'], ['Pagar até']],
    customer: [['N.º cliente'], ['Cliente n.º']],
    net: [['Total ilíquido', 'Subtotal'], ['Total sem IVA']],
    tax: [['IVA {r} %', 'IVA {r}%'], ['IVA ({r}%)']],
    total: [
      ['Total', 'Total a pagar'],
      ['Valor total', 'Total com IVA'],
    ],
    columns: ['Descrição', 'Qtd.', 'Preço', 'Valor'],
    receipt: [['TALÃO', 'Recibo'], ['Talão de venda']],
    cash: [['Numerário'], ['DINHEIRO']],
    card: [['Multibanco'], ['Cartão']],
    change: 'Troco',
    thanks: [['Obrigado pela sua visita'], ['Obrigado pela preferência']],
    dear: [['Exmo. Senhor Castellane,'], ['Caro cliente,']],
    closing: [['Com os melhores cumprimentos,'], ['Atenciosamente,']],
    statement: [['Extrato de conta'], ['Extrato bancário']],
    balance: ['Saldo anterior', 'Saldo atual'],
    vatNumber: 'NIF',
  },
};

export function variants(both: Both, half: Half): string[] {
  return half === 'tuned' ? both[0] : both[1];
}

/** Goods and sentences for the languages that piles are not made in. */
export const FURTHER: Record<
  'es' | 'it' | 'nl' | 'pt',
  {
    goods: string[];
    sentences: string[];
    trades: string[];
    forms: string[];
    subjects: string[];
    streets: string[];
    towns: string[];
  }
> = {
  es: {
    goods: [
      'Lana merina sin teñir',
      'Tinte índigo, 500 g',
      'Transporte',
      'Papel de copia A4',
      'Mano de obra, hora',
      'Madera de roble',
      'Jabón',
      'Té verde, 250 g',
    ],
    sentences: [
      'Le escribimos para informarle de un cambio que afecta a su cuenta.',
      'Las obras comenzarán el lunes y deberían terminar dentro de la semana.',
      'Le rogamos que nos lo comunique antes de fin de mes.',
      'Encontrará el formulario en el reverso de esta carta.',
      'Nuestra oficina abre de nueve a cinco los días laborables.',
      'El precio incluye la entrega y la instalación de las piezas.',
    ],
    trades: ['Hilados', 'Tintorería', 'Energía', 'Seguros', 'Librería', 'Ferretería'],
    forms: ['S.L.', 'S.A.', 'e Hijos'],
    subjects: ['Su contrato', 'Nueva tarifa', 'Revisión anual'],
    streets: ['Calle del Puerto', 'Avenida de la Mar'],
    towns: ['Villamar', 'Puerto Alto'],
  },
  it: {
    goods: [
      'Lana merino grezza',
      'Indaco, 500 g',
      'Trasporto',
      'Carta per copie A4',
      'Manodopera, ora',
      'Asse di rovere',
      'Sapone',
      'Tè verde, 250 g',
    ],
    sentences: [
      'Le scriviamo per informarla di una modifica che riguarda il suo conto.',
      'I lavori inizieranno lunedì e dovrebbero finire entro la settimana.',
      'La preghiamo di comunicarcelo entro la fine del mese.',
      'Troverà il modulo sul retro di questa lettera.',
      'Il nostro ufficio è aperto dalle nove alle diciassette nei giorni feriali.',
      'Il prezzo comprende la consegna e il montaggio dei pezzi.',
    ],
    trades: ['Filati', 'Tintoria', 'Energia', 'Assicurazioni', 'Cartoleria', 'Ferramenta'],
    forms: ['S.r.l.', 'S.p.A.', 'e Figli'],
    subjects: ['Il suo contratto', 'Nuova tariffa', 'Revisione annuale'],
    streets: ['Via del Porto', 'Via dei Tessitori'],
    towns: ['Portovecchio', 'Montelago'],
  },
  nl: {
    goods: [
      'Merinowol, ongeverfd',
      'Indigo, 500 g',
      'Verzendkosten',
      'Kopieerpapier A4',
      'Arbeid, uur',
      'Eiken plank',
      'Zeep',
      'Groene thee, 250 g',
    ],
    sentences: [
      'Wij schrijven u over een wijziging die uw rekening betreft.',
      'De werkzaamheden beginnen op maandag en zijn binnen een week klaar.',
      'Laat ons voor het einde van de maand weten of dit u schikt.',
      'Het formulier vindt u op de achterkant van deze brief.',
      'Ons kantoor is op werkdagen open van negen tot vijf.',
      'De prijs is inclusief levering en montage van de onderdelen.',
    ],
    trades: ['Garens', 'Ververij', 'Energie', 'Verzekeringen', 'Drukkerij', 'IJzerwaren'],
    forms: ['B.V.', 'N.V.', '& Zonen'],
    subjects: ['Uw contract', 'Nieuw tarief', 'Jaarlijkse controle'],
    streets: ['Havenstraat', 'Molenweg'],
    towns: ['Noordhaven', 'Zoutkamp'],
  },
  pt: {
    goods: [
      'Lã merina crua',
      'Índigo, 500 g',
      'Transporte',
      'Papel de cópia A4',
      'Mão de obra, hora',
      'Tábua de carvalho',
      'Sabão',
      'Chá verde, 250 g',
    ],
    sentences: [
      'Escrevemos para o informar de uma alteração que diz respeito à sua conta.',
      'As obras começam na segunda-feira e devem terminar dentro de uma semana.',
      'Pedimos que nos informe até ao fim do mês.',
      'Encontra o formulário no verso desta carta.',
      'O nosso escritório está aberto das nove às dezassete nos dias úteis.',
      'O preço inclui a entrega e a montagem das peças.',
    ],
    trades: ['Fiação', 'Tinturaria', 'Energia', 'Seguros', 'Papelaria', 'Ferragens'],
    forms: ['Lda.', 'S.A.', '& Filhos'],
    subjects: ['O seu contrato', 'Nova tarifa', 'Revisão anual'],
    streets: ['Rua do Porto', 'Rua dos Tecelões'],
    towns: ['Portomar', 'Vila Serena'],
  },
};
