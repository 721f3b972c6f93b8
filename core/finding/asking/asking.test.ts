import { Money } from '../../money';
import { Kind } from '../../reading/facts/kindList';
import { answerFrom, namesOn } from './answer';
import { isQuestion } from './isQuestion';
import { AskedPaper } from './paper';
import { understand } from './understand';

const TODAY = '2026-11-28';
const pounds = (units: number): Money => ({ units, currency: 'GBP' });
const euros = (units: number): Money => ({ units, currency: 'EUR' });
let last = 0;
function paper(vendor: string, kind: string, date: string, part: Partial<AskedPaper> = {}): AskedPaper {
  return {
    id: String(++last),
    name: `${date} ${vendor}`,
    tags: [],
    note: '',
    vendor,
    kind,
    date,
    folder: null,
    subject: null,
    number: null,
    customer: null,
    reference: null,
    order: null,
    policy: null,
    iban: null,
    period: null,
    taxRate: null,
    dueDate: null,
    ends: null,
    total: null,
    tax: null,
    net: null,
    pages: 1,
    lines: [],
    ...part,
  };
}

const SHELF = [
  paper('Tarn Power', 'invoice', '2025-02-03', {
    total: pounds(8000),
    tax: pounds(400),
    net: pounds(7600),
    folder: 'Home/Energy',
    customer: '77 120',
  }),
  paper('Tarn Power', 'invoice', '2025-08-03', {
    total: pounds(9000),
    tax: pounds(450),
    net: pounds(8550),
    folder: 'Home/Energy',
    customer: '77 120',
  }),
  paper('Tarn Power', 'invoice', '2026-08-03', {
    total: pounds(9500),
    folder: 'Home/Energy',
    dueDate: '2026-08-17',
    customer: '77 120',
  }),
  paper('Tarn Power', 'reminder', '2025-09-03', { total: pounds(9000), folder: 'Home/Energy', dueDate: '2025-09-17' }),
  paper('Stadtwerke Klippheim', 'invoice', '2025-03-01', { total: euros(12_000), subject: 'Stromabrechnung' }),
  paper('Fell & Moor Mutual', 'contract', '2025-04-01', {
    ends: '2026-03-31',
    policy: 'FM-1',
    subject: 'Boat insurance',
  }),
  paper('Fell & Moor Mutual', 'contract', '2026-04-01', {
    ends: '2027-03-31',
    policy: 'FM-1',
    subject: 'Boat insurance',
  }),
  paper('Fell & Moor Mutual', 'contract', '2026-05-01', {
    ends: '2027-04-30',
    policy: 'FM-2',
    subject: 'Contents insurance',
  }),
  paper('Reed Parcels', 'receipt', '2025-05-05', {
    total: pounds(1200),
    lines: [
      { description: 'Parcel to 2 kg', amount: 9 },
      { description: 'Brown tape', amount: 3 },
    ],
  }),
  paper('Reed Parcels', 'receipt', '2025-06-05', {
    total: pounds(900),
    lines: [{ description: 'Parcel to 2 kg', amount: 9 }],
  }),
  paper('Gannet Chandlers', 'invoice', '2025-07-01', {
    total: pounds(6000),
    dueDate: '2026-12-05',
    lines: [
      { description: 'Rope, 12 mm', amount: 50 },
      { description: 'Postage', amount: 10 },
    ],
  }),
  paper('Gannet Chandlers', 'credit note', '2025-07-20', {
    total: pounds(-1000),
    lines: [{ description: 'Rope, 12 mm', amount: 10 }],
  }),
];

const like = (kind: string) => kind as Kind;
const names = namesOn(SHELF, ['Tide table']);
function ask(question: string) {
  const understood = understand(question, names, TODAY);
  return 'cannot' in understood ? understood : answerFrom(understood, { papers: SHELF, like, today: TODAY });
}
const sums = (question: string) => {
  const answer = ask(question);
  return 'cannot' in answer ? answer.cannot : answer.sums;
};
const why = (question: string) => {
  const answer = ask(question);
  return 'cannot' in answer ? answer.cannot : answer;
};

describe('a question over papers', () => {
  it.each([
    ['How much did we pay Tarn Power in 2025?', [pounds(17_000)]],
    ['Wie viel haben wir 2025 an Tarn bezahlt?', [pounds(17_000)]],
    ['Combien avons-nous payé à Tarn Power en 2025 ?', [pounds(17_000)]],
    ['how much did we pay tarn power in 2025', [pounds(17_000)]],
    ['What did electricity cost in 2025?', [pounds(17_000), euros(12_000)]],
    ['Was hat uns der Strom 2025 gekostet?', [pounds(17_000), euros(12_000)]],
    ['How much tax did Tarn Power charge in 2025?', [pounds(850)]],
    ['What did we pay Tarn Power before tax in 2025?', [pounds(16_150)]],
    ['How much was the last bill from Tarn Power?', [pounds(9500)]],
    ['What does an invoice from Tarn cost on average?', [pounds(8833)]],
    ['What was the highest invoice from Tarn Power?', [pounds(9500)]],
  ])('about sums adds up what bills say, once: %s', (question, expected) => {
    expect(sums(question)).toEqual(expected);
  });

  it('leaves reminders out of sums and says so, and takes credit notes off', () => {
    const answer = ask('How much did we pay Tarn Power in 2025?');
    expect(answer).toMatchObject({ leftOut: [{ kind: 'reminder', papers: 1 }] });
    expect(sums('How much did we pay Gannet Chandlers?')).toEqual([pounds(5000)]);
  });

  it('adds up lines where no paper as a whole is about it, and names them', () => {
    const answer = ask('How much did we spend on brown tape?');
    expect(answer).toMatchObject({ sums: [pounds(300)], sources: [{ lines: ['Brown tape'] }] });
  });

  it('takes off what a credit note lists', () => {
    expect(sums('How much did we spend on rope?')).toEqual([pounds(4000)]);
  });

  it('asks no day of money, nor money of a day, whatever it is told to understand', () => {
    const understood = understand('How much did we pay Tarn Power?', names, TODAY);
    if ('cannot' in understood) throw new Error(understood.cannot);
    for (const change of [{ wants: 'day' as const }, { fact: 'date' as const }])
      expect(answerFrom({ ...understood, ...change }, { papers: SHELF, like, today: TODAY })).toEqual({
        cannot: 'words',
      });
  });

  it('counts a sender to a trade by what it charges for above all, not by what it charges besides', () => {
    expect(sums('How much for postage in 2025?')).toEqual([pounds(2100)]);
  });

  it('counts papers, not what stands on them', () => {
    expect(ask('How many invoices came from Tarn Power?')).toMatchObject({ count: 3 });
    expect(ask('Wie viele Mahnungen kamen 2025?')).toMatchObject({ count: 1 });
    expect(why('How many metres of rope did we buy?')).toBe('words');
  });

  it('tells the day of each contract that is meant, the one that holds', () => {
    const days = (question: string) => {
      const answer = ask(question);
      return 'cannot' in answer ? answer.cannot : answer.days.map(({ day }) => day);
    };
    expect(days('When does the boat insurance end?')).toEqual(['2027-03-31']);
    expect(days('Wann läuft die Versicherung ab?')).toEqual(['2027-04-30', '2027-03-31']);
    expect(days('When is the bill from Gannet due?')).toEqual(['2026-12-05']);
    expect(days('When was the first invoice from Tarn Power?')).toEqual(['2025-02-03']);
    expect(days('Quand était la dernière facture de Tarn Power ?')).toEqual(['2026-08-03']);
  });

  it('lists papers by their kind, amount, and the day that is asked for', () => {
    const dates = (question: string) => {
      const answer = ask(question);
      return 'cannot' in answer ? answer.cannot : answer.sources.map(({ paper: { date } }) => date);
    };
    expect(dates('Which invoices over 85 pounds came in 2025?')).toEqual(['2025-08-03']);
    expect(dates('Which bills are due in December?')).toEqual(['2025-07-01']);
    expect(dates('Which contracts end in 2026?')).toEqual(['2025-04-01']);
    expect(dates('Receipts between 10 and 20 pounds?')).toEqual(['2025-05-05']);
  });

  it('tells who, and who was paid most', () => {
    expect(ask('Who sent us reminders?')).toMatchObject({ who: [{ name: 'Tarn Power' }] });
    expect(ask('Who did we pay the most in 2025?')).toMatchObject({
      who: [{ name: 'Tarn Power', sums: [pounds(17_000)] }, { name: 'Gannet Chandlers' }, {}, {}],
    });
  });

  it('tells what papers have as numbers', () => {
    expect(ask('What is our customer number with Tarn Power?')).toMatchObject({ values: ['77 120'] });
    expect(ask('What is the policy number of the boat insurance?')).toMatchObject({ values: ['FM-1'] });
  });

  it('sets two years beside each other', () => {
    expect(ask('Did we pay Tarn Power more in 2025 than in 2026?')).toMatchObject({
      sums: [pounds(17_000)],
      against: [pounds(9500)],
    });
    expect(ask('Did we spend more on power this year than last year?')).toMatchObject({ sums: [pounds(9500)] });
  });

  it.each([
    ['Which invoices are unpaid?', 'paid'],
    ['Has the bill from Tarn Power been paid?', 'paid'],
    ['How much do we still owe Gannet?', 'paid'],
    ['How much did we pay for cinema tickets?', 'about'],
    ['How much did we pay Tarn Power in 2019?', 'none such'],
    ['When does the contract with Tarn Power end?', 'none such'],
    ['When do the invoices of Tarn Power expire?', 'not on them'],
    ['Is Tarn Power reliable?', 'about'],
    ['Why is power so dear?', 'words'],
    ['Wie heißt der Hund?', 'words'],
    ['Who painted the boat?', 'words'],
    ['How much did we pay for cinema?', 'about'],
    ['?', 'nothing asked'],
    ['When did we last pay Tarn Power?', 'paid'],
    ['Wann haben wir Tarn Power zuletzt bezahlt?', 'paid'],
    ['How much did Tarn Power pay us in 2025?', 'words'],
    ['How much did we get from Tarn Power in 2025?', 'words'],
    ['Wie viel hat uns Tarn Power 2025 gezahlt?', 'words'],
    ['Wie viel haben wir 2025 von Tarn Power bekommen?', 'words'],
    ['Combien Tarn Power nous a payé en 2025 ?', 'words'],
    ['How much did we charge Tarn Power in 2025?', 'words'],
    ['When did we order from Tarn Power?', 'about'],
    ['What is it?', 'words'],
    ['When is it?', 'words'],
    ['Who is it from?', 'words'],
    ['Did we pay more for cinema than last year?', 'about'],
  ])('is not answered when nothing says it: %s', (question, reason) => {
    expect(why(question)).toBe(reason);
  });

  it.each([
    'What did we shell out on electricity from Tarn Power in 2025?',
    'What have we handed over to Tarn Power in 2025?',
    'How much did Tarn Power take off us in 2025?',
    'What were we charged by Tarn Power in 2025?',
    'Could you tell me how much Tarn Power cost us in 2025?',
    'What’s the total for Tarn Power in 2025?',
    'What do Tarn Power’s bills of 2025 come to?',
    'Tarn Power fees in 2025',
    'Was haben wir 2025 an Tarn Power überwiesen?',
    'Wie viel ging 2025 bei Tarn Power drauf?',
    'Was haben wir 2025 bei Tarn Power gelassen?',
  ])('means the same however it is said: %s', (question) => {
    expect(sums(question)).toEqual([pounds(17_000)]);
  });

  it('tells how much it is a month, a quarter or a year', () => {
    // A year that is over has twelve months; three bills from February to August a year later are of two years.
    expect(sums('What does Tarn Power cost a month in 2025?')).toEqual([pounds(Math.round(17_000 / 12))]);
    expect(sums('Quarterly spending on Tarn Power in 2025')).toEqual([pounds(4250)]);
    expect(sums('Was kostet Tarn Power 2025 im Monat?')).toEqual([pounds(Math.round(17_000 / 12))]);
    expect(sums('Combien coûte Tarn Power par an ?')).toEqual([pounds(13_250)]);
    expect(ask('What does Tarn Power cost a month?')).toMatchObject({ over: 24 });
  });

  it('takes a month or a year that is named for a time, and not for a rate', () => {
    expect(sums('Was hat Tarn Power im Monat August 2025 gekostet?')).toEqual([pounds(9000)]);
    expect(sums('Was hat Tarn Power im Jahr 2025 gekostet?')).toEqual([pounds(17_000)]);
    expect(why('How much did Tarn Power cost a year ago?')).toBe('about');
  });

  it('takes what a contract costs from itself, where nobody sends bills for it', () => {
    const policy = (year: number) =>
      paper('Ling Assurance', 'contract', `${year}-03-01`, { total: pounds(30_000), subject: 'Van insurance' });
    const papers = [
      ...SHELF,
      policy(2024),
      policy(2025),
      paper('Tarn Power', 'contract', '2025-01-01', { total: pounds(999) }),
    ];
    const sum = (question: string) => {
      const understood = understand(question, namesOn(papers, []), TODAY);
      const answer = 'cannot' in understood ? understood : answerFrom(understood, { papers, like, today: TODAY });
      return 'cannot' in answer ? answer.cannot : answer.sums;
    };
    expect(sum('How much was the van insurance in 2025?')).toEqual([pounds(30_000)]);
    expect(sum('What do we pay for the van insurance a year?')).toEqual([pounds(30_000)]);
    expect(sum('How much did we pay Tarn Power in 2025?')).toEqual([pounds(17_000)]);
  });

  it('tells of the last bill when that is due, and else what is due next', () => {
    const papers = ['2026-11-02', '2026-11-20'].map((day, at) =>
      paper('Sedge Water', 'invoice', day, { dueDate: ['2026-12-20', '2026-12-04'][at] }),
    );
    const day = (question: string) => {
      const understood = understand(question, namesOn(papers, []), TODAY);
      const answer = 'cannot' in understood ? understood : answerFrom(understood, { papers, like, today: TODAY });
      return 'cannot' in answer ? answer.cannot : answer.days[0].day;
    };
    expect(day('When is the first bill from Sedge Water due?')).toBe('2026-12-04');
    expect(day('When is the latest bill from Sedge Water due?')).toBe('2026-12-04');
    expect(day('By when must we settle the last Sedge Water invoice?')).toBe('2026-12-04');
  });

  it.each([
    'How much rope did we use?',
    'How much rope do we have?',
    'How much rope do we need?',
    'How much have we invoiced Tarn Power in 2025?',
    'Avons-nous réglé la facture de Tarn Power ?',
    'How much did we save on rope?',
    'How much did we lose on Tarn Power in 2025?',
    'When was the boat painted by Gannet?',
    'Send the invoice of Tarn Power to the accountant',
    'Please pay Tarn Power',
  ])('is not answered by bills when something else was done: %s', (question) => {
    expect(ask(question)).toHaveProperty('cannot');
  });

  it('takes a thing that stands beside a name for a thing, and not for what was done', () => {
    expect(sums('How much did we spend on rope from Gannet?')).toEqual([pounds(4000)]);
    expect(sums('What did Gannet rope cost in 2025?')).toEqual([pounds(4000)]);
    expect(sums('How much was Gannet rope in 2025?')).toEqual([pounds(4000)]);
    expect(why('Was haben wir Gannet für Getränke bezahlt?')).toBe('about');
    expect(why('Was kostet bei Gannet das Gewicht')).toBe('about');
    expect(sums('How much did Tarn Power wangle in 2025?')).toEqual([pounds(17_000)]);
  });

  it('does not take things for orders', () => {
    expect(why('Print costs in 2025?')).toBe('about');
    expect(why('Email fees of 2025?')).toBe('about');
  });

  it('takes no part of a name for a way of speaking', () => {
    const papers = ['Rose & Change Ltd', 'Handover Cars'].map((vendor) =>
      paper(vendor, 'invoice', '2025-05-01', { total: pounds(4200) }),
    );
    for (const question of [
      'What did Rose & Change cost in 2025?',
      'How much did we pay Handover Cars from 2024 to 2025?',
    ]) {
      const understood = understand(question, namesOn(papers, []), TODAY);
      const answer = 'cannot' in understood ? understood : answerFrom(understood, { papers, like, today: TODAY });
      expect(answer).toMatchObject({ sums: [pounds(4200)] });
    }
  });

  it('takes a single word for a sender only where it is written or used as a name', () => {
    const who = (question: string) => {
      const understood = understand(question, names, TODAY);
      return 'cannot' in understood ? understood.cannot : understood.who;
    };
    expect(who('How much did the gannet cost?')).toEqual([]);
    expect(who('How much did we pay to gannet?')).toEqual(['Gannet Chandlers']);
    expect(who('How much did Gannet charge?')).toEqual(['Gannet Chandlers']);
    expect(who('What did Tarn Power’s last invoice cost?')).toEqual(['Tarn Power']);
  });

  it('knows folders, and kinds that a person added', () => {
    const answer = ask('How many papers are in the folder Energy?');
    expect(answer).toMatchObject({ count: 4 });
    expect(understand('Which tide tables are there?', names, TODAY)).toMatchObject({
      kinds: ['Tide table'],
      about: [],
    });
  });
});

describe('what is typed', () => {
  it.each(['How much did we pay?', 'wann endet die Versicherung', 'Combien de factures en 2025', 'rent in 2025?'])(
    'is a question: %s',
    (typed) => expect(isQuestion(typed)).toBe(true),
  );
  it.each(['how', 'madder yarn', 'who:marlowe', 'What', 'total>100', '1302', 'howling wind'])(
    'is no question: %s',
    (typed) => expect(isQuestion(typed)).toBe(false),
  );
});
