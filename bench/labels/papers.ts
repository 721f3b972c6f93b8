/** What facts are called, by language, and what kinds are called: each a list with strokes between. */
export interface Labels {
  en: ByFact;
  de: ByFact;
  fr: ByFact;
  kinds: Record<string, string>;
}
type ByFact = Record<'number' | 'date' | 'due' | 'total' | 'net' | 'tax', string>;
type Language = 'en' | 'de' | 'fr';

/** A typed paper on which only one label changes, and what it says. */
export interface LabelPaper {
  /** How the label stands to its value. */
  way: string;
  text: string;
  truth: Record<string, unknown>;
}

interface Form {
  head: string;
  columns: string;
  goods: [string, string];
  number: string;
  date: string;
  due: string;
  day: string;
  dueDay: string;
  sums: [[string, string], [string, string], [string, string]];
  truth: { net: number; tax: number; taxRate: number; total: number };
  bill: string;
  numbered: string;
  customer: string;
  untaxed: string;
  colon: string;
}

const FORMS: Record<Language, Form> = {
  en: {
    head: '# Marrow & Pine Joinery\n17 Chandler Row, Port Selwyn\n\nImre Castellane\n4 Quay Steps, Wickford',
    columns: 'Description            Qty    Price    Amount',
    goods: ['Oak shelf                2    45.00     90.00', 'Fitting                  3    20.00     60.00'],
    number: 'Invoice no: 44718',
    date: 'Date',
    due: 'Payment due: 17 September 2026',
    day: '3 September 2026',
    dueDay: '17 September 2026',
    sums: [
      ['Net', '150.00'],
      ['VAT 20%', '30.00'],
      ['Total', '180.00'],
    ],
    truth: { net: 150, tax: 30, taxRate: 20, total: 180 },
    bill: 'INVOICE',
    numbered: 'No',
    customer: 'Customer',
    untaxed: 'Not registered for VAT',
    colon: ':',
  },
  de: {
    head: '# Tischlerei Marten Osterloh\nAm Speicher 17, 26721 Emden\n\nImre Castellane\nHafengasse 4\n26721 Emden',
    columns: 'Bezeichnung            Menge  Preis    Betrag',
    goods: ['Regal Eiche              2    45,00     90,00', 'Einbau                   3    20,00     60,00'],
    number: 'Rechnung Nr. 44718',
    date: 'Datum',
    due: 'Zahlbar bis: 17.09.2026',
    day: '03.09.2026',
    dueDay: '17.09.2026',
    sums: [
      ['Netto', '150,00'],
      ['MwSt. 19 %', '28,50'],
      ['Gesamtbetrag', '178,50'],
    ],
    truth: { net: 150, tax: 28.5, taxRate: 19, total: 178.5 },
    bill: 'RECHNUNG',
    numbered: 'Nr.',
    customer: 'Kunde',
    untaxed: 'Gemäß § 19 UStG keine Umsatzsteuer',
    colon: ':',
  },
  fr: {
    head: '# Menuiserie Aubin Laroque\n17 rue du Bassin, 29100 Douarnenez\n\nImre Castellane\n4 quai des Voiles\n29100 Douarnenez',
    columns: 'Désignation            Qté    P.U.     Montant',
    goods: ['Étagère chêne            2    45,00     90,00', 'Pose                     3    20,00     60,00'],
    number: 'Facture n° 44718',
    date: 'Date',
    due: 'À payer avant le : 17/09/2026',
    day: '03/09/2026',
    dueDay: '17/09/2026',
    sums: [
      ['Total HT', '150,00'],
      ['TVA 20 %', '30,00'],
      ['Total TTC', '180,00'],
    ],
    truth: { net: 150, tax: 30, taxRate: 20, total: 180 },
    bill: 'FACTURE',
    numbered: 'N°',
    customer: 'Client',
    untaxed: 'TVA non applicable, art. 293 B du CGI',
    colon: ' :',
  },
};

/** Letters of a label's column, and of the columns before that of the amounts. */
const [LABEL, BEFORE] = [30, 46];

/** A bill with a heading, lines between that and the goods, and sums below them. */
function bill(form: Form, between: readonly string[], sums: readonly [string, string][], title = form.bill): string {
  const below = sums.map(([label, amount]) => label.padEnd(BEFORE - amount.length) + amount);
  return ['', form.head, '', title, ...between, '', form.columns, ...form.goods, '', ...below, ''].join('\n');
}

/** The papers on which one label stands for what a fact is called, in each of the ways in which it may stand there. */
export function papersOf(language: Language, fact: keyof ByFact, label: string): LabelPaper[] {
  const form = FORMS[language];
  const { colon, day, dueDay, truth } = form;
  const dated = `${form.date}${colon} ${day}`;
  const [date, dueDate] = ['2026-09-03', '2026-09-17'];
  const replaced = (at: number) =>
    form.sums.map((sum, index): [string, string] => (index === at ? [label, sum[1]] : sum));
  switch (fact) {
    case 'number':
      return [
        {
          way: 'colon',
          text: bill(form, [`${label}${colon} MP-4471`, dated], form.sums),
          truth: { number: 'MP-4471', date },
        },
        {
          way: 'column',
          text: bill(form, [label.padEnd(LABEL) + 'MP-4471', form.date.padEnd(LABEL) + day], form.sums),
          truth: { number: 'MP-4471', date },
        },
        {
          way: 'above',
          text: bill(
            form,
            [
              label.padEnd(LABEL) + form.date.padEnd(LABEL) + form.customer,
              '44718'.padEnd(LABEL) + day.padEnd(LABEL) + '22015',
            ],
            form.sums,
          ),
          truth: { number: '44718', date },
        },
      ];
    case 'date':
      return [
        { way: 'alone', text: bill(form, [form.number, `${label}${colon} ${day}`], form.sums), truth: { date } },
        {
          way: 'beside one that it is due by',
          text: bill(form, [form.number, `${label}${colon} ${day}`, form.due], form.sums),
          truth: { date, dueDate },
        },
      ];
    case 'due':
      return [
        {
          way: 'colon',
          text: bill(form, [form.number, dated, `${label}${colon} ${dueDay}`], form.sums),
          truth: { date, dueDate },
        },
        {
          way: 'sentence',
          text: `${bill(form, [form.number, dated], form.sums)}\n${label} ${dueDay}.`,
          truth: { date, dueDate },
        },
      ];
    case 'total':
      return [
        { way: 'taxed', text: bill(form, [form.number, dated], replaced(2)), truth },
        {
          way: 'untaxed',
          text: `${bill(form, [form.number, dated], [[label, form.sums[0][1]]])}${form.untaxed}`,
          truth: { total: truth.net },
        },
      ];
    case 'net':
      return [{ way: 'taxed', text: bill(form, [form.number, dated], replaced(0)), truth }];
    case 'tax': {
      const { net, tax, total } = truth;
      return [{ way: 'taxed', text: bill(form, [form.number, dated], replaced(1)), truth: { net, tax, total } }];
    }
  }
}

/** The paper that is headed by what a kind is called. */
export function paperOfKind(kind: string, title: string): LabelPaper {
  const language = languageOf(title);
  const form = FORMS[language];
  const between = [`${form.numbered}${form.colon} 44718`, `${form.date}${form.colon} ${form.day}`];
  const truth = { kind, number: '44718', date: '2026-09-03' };
  if (kind !== 'delivery note') return { way: 'title', text: bill(form, between, form.sums, title), truth };
  // Goods are counted there, and not priced.
  const goods = form.goods.map((row) => row.slice(0, LABEL));
  return {
    way: 'title',
    text: ['', form.head, '', title, ...between, '', form.columns.slice(0, LABEL), ...goods, ''].join('\n'),
    truth,
  };
}

function languageOf(title: string): Language {
  if (
    /[éèçàâêÉ]|factur(?!ation$)|devis|avoir|\brappel|relance|bon d|bordereau|commande|offre|proposition|quittance|mise en|ticket d|rembours|note d|lettre|appel|mémoire|ordre|chiffrage|liste de|fiche|justif|preuve|avis|retard de|estimation/i.test(
      title,
    ) &&
    !/[äöüß]/.test(title)
  )
    return 'fr';
  return /[äöüß]|ung\b|rechn|schein|zettel|beleg|auftrag|angebot|faktura|offerte|storno|gutschrift|verkauf|liste$|note$(?<=kostennote|gebührennote)|bestell|mahn|versand|liefer|nachweis|papier|bezahlt|quitt|rückstand/i.test(
    title,
  )
    ? 'de'
    : 'en';
}
