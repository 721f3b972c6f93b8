import { AskedPaper } from '@crow/core/finding/asking/paper';
import { seededRandom } from '@crow/demo/random';

/** The day on which everything is asked. */
export const TODAY = '2026-11-28';

/** Who sends what, how often, for how much, and how it is filed. */
export interface Sender {
  name: string;
  folder: string;
  kind: string;
  /** So many months apart; 0 for at any time. */
  every: number;
  papers: number;
  amounts: [number, number];
  currency?: string;
  goods?: string[];
  subject?: string;
  rate?: number;
  facts?: Partial<AskedPaper>;
  /** So many days after the date. */
  due?: number;
}

/** A sender of which only what differs from the usual is said. */
export const every = (name: string, folder: string, kindOf: string, part: Partial<Sender>): Sender => ({
  name,
  folder,
  kind: kindOf,
  every: 0,
  papers: 20,
  amounts: [20, 300],
  ...part,
});

const SENDERS: Sender[] = [
  {
    name: 'Northlight Power',
    folder: 'Home/Energy',
    kind: 'invoice',
    every: 1,
    papers: 46,
    amounts: [60, 180],
    goods: ['Electricity, day rate', 'Electricity, night rate', 'Standing charge'],
    due: 14,
    rate: 5,
    facts: { customer: 'NL-448190' },
  },
  {
    name: 'Harbour Gas Ltd',
    folder: 'Home/Energy',
    kind: 'invoice',
    every: 2,
    papers: 23,
    amounts: [40, 260],
    goods: ['Gas supplied', 'Meter rental'],
    due: 21,
    rate: 5,
    facts: { customer: '77120-G' },
  },
  {
    name: 'Stadtwerke Rosenau',
    folder: 'Studio Lindenau/Strom',
    kind: 'invoice',
    every: 3,
    papers: 15,
    amounts: [120, 340],
    currency: 'EUR',
    goods: ['Arbeitspreis', 'Grundpreis'],
    due: 14,
    rate: 19,
  },
  {
    name: 'Orrin Water',
    folder: 'Home/Water',
    kind: 'invoice',
    every: 6,
    papers: 8,
    amounts: [90, 160],
    goods: ['Water', 'Sewerage'],
    due: 28,
  },
  {
    name: 'Quayside Lettings',
    folder: 'Workshop/Rent',
    kind: 'invoice',
    every: 1,
    papers: 47,
    amounts: [640, 640],
    goods: ['Rent of the workshop'],
    due: 7,
  },
  {
    name: 'Alder Mutual',
    folder: 'Home/Insurance',
    kind: 'contract',
    every: 12,
    papers: 4,
    amounts: [310, 380],
    subject: 'Contents insurance',
    facts: { policy: 'AM-20-55813' },
  },
  {
    name: 'Alder Mutual',
    folder: 'Home/Insurance',
    kind: 'invoice',
    every: 12,
    papers: 4,
    amounts: [310, 380],
    subject: 'Contents insurance, premium',
    due: 30,
  },
  {
    name: 'Seven Capes Underwriting',
    folder: 'Boat',
    kind: 'contract',
    every: 12,
    papers: 3,
    amounts: [210, 260],
    subject: 'Insurance of the boat',
    facts: { policy: '7C/99-1204' },
  },
  {
    name: 'Seven Capes Underwriting',
    folder: 'Boat',
    kind: 'invoice',
    every: 12,
    papers: 3,
    amounts: [210, 260],
    subject: 'Premium',
    due: 14,
  },
  {
    name: 'Marlowe Dye Works',
    folder: 'Workshop/Dyeing',
    kind: 'invoice',
    every: 0,
    papers: 120,
    amounts: [40, 900],
    goods: ['Dyeing, indigo', 'Dyeing, madder', 'Mordant, alum', 'Carriage'],
    due: 30,
    rate: 20,
    facts: { customer: 'WL-17' },
  },
  {
    name: 'Marlowe Dye Works',
    folder: 'Workshop/Dyeing',
    kind: 'delivery note',
    every: 0,
    papers: 60,
    amounts: [0, 0],
    goods: ['Dyeing, indigo', 'Dyeing, weld'],
  },
  {
    name: 'Marlowe Dye Works',
    folder: 'Workshop/Dyeing',
    kind: 'credit note',
    every: 0,
    papers: 6,
    amounts: [-80, -10],
    rate: 20,
  },
  {
    name: 'Marlowe Dye Works',
    folder: 'Workshop/Dyeing',
    kind: 'reminder',
    every: 0,
    papers: 5,
    amounts: [100, 400],
    due: 7,
  },
  {
    name: 'Saltgate Yarns',
    folder: 'Workshop/Yarn',
    kind: 'invoice',
    every: 0,
    papers: 160,
    amounts: [30, 700],
    goods: ['Wool yarn, undyed', 'Silk yarn', 'Cotton warp', 'Linen 16/2'],
    due: 30,
    rate: 20,
  },
  {
    name: 'Spinnerei Wiesengrund',
    folder: 'Workshop/Yarn',
    kind: 'invoice',
    every: 0,
    papers: 70,
    amounts: [50, 600],
    currency: 'EUR',
    goods: ['Leinengarn', 'Wollgarn', 'Versand'],
    due: 14,
    rate: 19,
  },
  {
    name: 'Filature du Val',
    folder: 'Workshop/Yarn',
    kind: 'invoice',
    every: 0,
    papers: 40,
    amounts: [60, 500],
    currency: 'EUR',
    goods: ['Fil de lin', 'Fil de soie', 'Port'],
    due: 30,
    rate: 20,
  },
  {
    name: 'Tern Parcels',
    folder: 'Workshop/Post',
    kind: 'receipt',
    every: 0,
    papers: 240,
    amounts: [4, 38],
    goods: ['Parcel to 2 kg', 'Parcel to 10 kg', 'Packing paper'],
  },
  {
    name: 'Gull & Wren Stationery',
    folder: 'Workshop/Office',
    kind: 'receipt',
    every: 0,
    papers: 120,
    amounts: [3, 60],
    goods: ['Envelopes', 'Printer ink', 'Paper, 500 sheets', 'Labels'],
    rate: 20,
  },
  {
    name: 'Craft Fair Holm',
    folder: 'Fairs',
    kind: 'invoice',
    every: 12,
    papers: 4,
    amounts: [180, 240],
    subject: 'Stall at the fair',
    due: 30,
  },
  {
    name: 'Kunsthandwerkermarkt Rosenau',
    folder: 'Fairs',
    kind: 'invoice',
    every: 12,
    papers: 3,
    amounts: [140, 190],
    currency: 'EUR',
    subject: 'Standgebühr',
    due: 14,
  },
  {
    name: 'Orrin Harbour Council',
    folder: 'Home/Council',
    kind: 'notice',
    every: 12,
    papers: 4,
    amounts: [1180, 1320],
    subject: 'Council tax',
    due: 30,
    facts: { reference: 'CT 881 204' },
  },
  {
    name: 'Orrin Harbour Council',
    folder: 'Home/Council',
    kind: 'letter',
    every: 0,
    papers: 20,
    amounts: [0, 0],
    subject: 'Parking in Beacon Terrace',
  },
  {
    name: 'Hearth & Flue',
    folder: 'Home/House',
    kind: 'certificate',
    every: 0,
    papers: 1,
    amounts: [0, 0],
    subject: 'Guarantee of the boiler',
    facts: { ends: '2029-04-30' },
  },
  {
    name: 'Hearth & Flue',
    folder: 'Home/House',
    kind: 'invoice',
    every: 12,
    papers: 4,
    amounts: [85, 120],
    goods: ['Service of the boiler'],
    due: 14,
  },
  {
    name: 'Bracken Veterinary Practice',
    folder: 'Home/Vet',
    kind: 'invoice',
    every: 0,
    papers: 26,
    amounts: [25, 240],
    goods: ['Consultation', 'Vaccination', 'Tablets'],
    due: 14,
    rate: 20,
  },
  {
    name: 'Saint Ebba School',
    folder: 'Home/School',
    kind: 'letter',
    every: 0,
    papers: 40,
    amounts: [0, 0],
    subject: 'Term dates',
  },
  {
    name: 'Saint Ebba School',
    folder: 'Home/School',
    kind: 'invoice',
    every: 4,
    papers: 12,
    amounts: [90, 150],
    goods: ['School lunches'],
    due: 14,
  },
  {
    name: 'Lantern Telecom',
    folder: 'Home/Phone',
    kind: 'invoice',
    every: 1,
    papers: 46,
    amounts: [28, 36],
    goods: ['Line rental', 'Calls'],
    due: 10,
    rate: 20,
    facts: { customer: '5500-2231' },
  },
  {
    name: 'Wire & Wave Broadband',
    folder: 'Home/Phone',
    kind: 'invoice',
    every: 1,
    papers: 30,
    amounts: [34, 34],
    goods: ['Broadband, monthly'],
    due: 10,
    rate: 20,
  },
  {
    name: 'Wire & Wave Broadband',
    folder: 'Home/Phone',
    kind: 'contract',
    every: 0,
    papers: 1,
    amounts: [0, 0],
    subject: 'Broadband agreement',
    facts: { policy: 'WW-31877', ends: '2027-05-31' },
  },
  {
    name: 'Merchant Bank of Orrin',
    folder: 'Bank',
    kind: 'statement',
    every: 1,
    papers: 47,
    amounts: [0, 0],
    facts: { iban: 'GB33BUKB20201555555555' },
  },
  {
    name: 'Penrose Garage',
    folder: 'Car',
    kind: 'invoice',
    every: 0,
    papers: 12,
    amounts: [80, 900],
    goods: ['Labour', 'Tyres', 'Oil filter'],
    rate: 20,
  },
  {
    name: 'Fenwick Fuels',
    folder: 'Car',
    kind: 'receipt',
    every: 0,
    papers: 170,
    amounts: [22, 88],
    goods: ['Diesel'],
    rate: 20,
  },
  {
    name: 'Coast Line Railway',
    folder: 'Fairs',
    kind: 'ticket',
    every: 0,
    papers: 44,
    amounts: [9, 74],
    subject: 'Day return',
  },
  {
    name: 'Hôtel du Phare',
    folder: 'Fairs',
    kind: 'invoice',
    every: 0,
    papers: 9,
    amounts: [88, 310],
    currency: 'EUR',
    goods: ['Nuitée', 'Petit déjeuner'],
    rate: 10,
  },
  {
    name: 'Corner Bakehouse',
    folder: 'Home/Food',
    kind: 'receipt',
    every: 0,
    papers: 190,
    amounts: [2, 19],
    goods: ['Bread', 'Rolls', 'Cake'],
  },
  {
    name: 'Tidemark Grocers',
    folder: 'Home/Food',
    kind: 'receipt',
    every: 0,
    papers: 190,
    amounts: [8, 120],
    goods: ['Milk', 'Apples', 'Coffee', 'Cheese', 'Washing powder'],
  },
  {
    name: 'Loom & Reed Makers',
    folder: 'Workshop/Tools',
    kind: 'invoice',
    every: 0,
    papers: 8,
    amounts: [60, 2400],
    goods: ['Countermarch loom', 'Reed, steel', 'Shuttles'],
    due: 30,
    rate: 20,
  },
  {
    name: 'Loom & Reed Makers',
    folder: 'Workshop/Tools',
    kind: 'quote',
    every: 0,
    papers: 4,
    amounts: [900, 3000],
    facts: { ends: '2026-12-31' },
  },
  {
    name: 'Ashby & Lowe Accountants',
    folder: 'Workshop/Accounts',
    kind: 'invoice',
    every: 12,
    papers: 4,
    amounts: [540, 620],
    goods: ['Annual accounts'],
    due: 30,
    rate: 20,
  },
  {
    name: 'Ashby & Lowe Accountants',
    folder: 'Workshop/Accounts',
    kind: 'letter',
    every: 0,
    papers: 14,
    amounts: [0, 0],
    subject: 'Accounts for the year',
  },
  {
    name: 'Dr. Ines Okafor',
    folder: 'Home/Health',
    kind: 'invoice',
    every: 0,
    papers: 11,
    amounts: [35, 190],
    goods: ['Dental check', 'Filling'],
    due: 30,
  },
];

/** A made shelf of 2,000 papers of some forty senders, from January 2023 to November 2026; or of other senders. */
export function madeShelf(senders: readonly Sender[] = SENDERS, many = 2000, seed = 20261128): AskedPaper[] {
  const random = seededRandom(seed);
  const between = (low: number, high: number) => low + (high - low) * random();
  const papers: AskedPaper[] = [];
  const days = (Date.parse('2026-11-27') - Date.parse('2023-01-02')) / 86_400_000;
  const dayAt = (at: number) => new Date(Date.parse('2023-01-02') + at * 86_400_000).toISOString().slice(0, 10);
  const plus = (day: string, more: number) => new Date(Date.parse(day) + more * 86_400_000).toISOString().slice(0, 10);
  const add = (sender: Sender, at: number) => {
    const {
      name,
      folder,
      kind,
      every,
      amounts,
      currency = 'GBP',
      goods = [],
      subject = null,
      rate,
      facts,
      due,
    } = sender;
    const months = every > 0 ? 46 - at * every : 0;
    const date =
      every > 0
        ? new Date(Date.UTC(2023, months, 3 + Math.floor(random() * 20))).toISOString().slice(0, 10)
        : dayAt(Math.floor(random() * days));
    const units = Math.round(100 * between(...amounts));
    const total = units === 0 ? null : { units, currency };
    const tax = total && rate ? Math.round((units * rate) / (100 + rate)) : null;
    const kept = goods.filter((_, index) => index === 0 || random() < 0.6);
    let left = units;
    const lines = total
      ? kept.map((description, index) => {
          const amount = index === kept.length - 1 ? left : Math.round(left * between(0.2, 0.7));
          left -= amount;
          return { description, amount: amount / 100 };
        })
      : [];
    const number = `${name.slice(0, 2).toUpperCase()}${String(papers.length + 10_000)}`;
    papers.push({
      id: String(papers.length),
      name: `${date} ${name}`,
      tags: [],
      note: '',
      folder,
      kind,
      vendor: name,
      subject,
      date,
      dueDate: due === undefined ? null : plus(date, due),
      ends: kind === 'contract' && every === 12 ? plus(date, 364) : null,
      number: ['letter', 'receipt'].includes(kind) ? null : number,
      total,
      tax: tax === null ? null : { units: tax, currency },
      net: tax === null ? null : { units: units - tax, currency },
      taxRate: rate && total ? String(rate) : null,
      customer: null,
      reference: null,
      order: null,
      policy: null,
      iban: null,
      period: null,
      pages: 1,
      lines,
      ...facts,
    });
  };
  for (const sender of senders)
    for (let at = 0; at < sender.papers; at++) if (sender.every === 0 || 46 - at * sender.every >= 0) add(sender, at);
  for (const more = senders.filter(({ every, papers: most }) => every === 0 && most > 100); papers.length < many;)
    add(more[papers.length % more.length], 0);
  return papers;
}
