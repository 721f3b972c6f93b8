import { Kind } from '@crow/core/reading/facts/kindList';
import { creditNote, HOME, invoice, letter, Line, receipt, Sender, statement, STUDIO } from './drawing';

export const SENDERS = {
  yarn: {
    name: 'Halden & Firth Yarns Ltd',
    lines: ['Mill Lane, Cressbrook CB4 1QA', 'VAT no. GB 318 2247 06'],
    face: 'bookBold',
  },
  dye: {
    name: 'Marlowe Dye Works',
    lines: ['The Old Tannery, Sedge Street, Orrin OH5 2PD', 'VAT no. GB 774 0193 51'],
    face: 'bold',
  },
  wool: {
    name: 'Spinnerei Wiesengrund GmbH',
    lines: ['Bachstraße 12, 99817 Lindenau', 'USt-IdNr. DE 294 118 603'],
    face: 'bold',
  },
  linen: {
    name: 'Filature du Val Clair SARL',
    lines: ['8, rue des Tisserands, 59280 Armelle', 'TVA FR 61 448 207 915'],
    face: 'bookBold',
  },
  fair: {
    name: 'Saltmarsh Craft Fair',
    lines: ['The Corn Hall, Saltmarsh SM1 4BB', 'stalls@saltmarshfair.example'],
    face: 'bold',
  },
  parcels: { name: 'Quayside Parcels', lines: ['2 Custom House Quay', 'Orrin Harbour'], face: 'typedBold' },
  rent: {
    name: 'Tarrow Harbour Estates Ltd',
    lines: ['Estate Office, West Pier, Orrin Harbour OH2 1AA'],
    face: 'bookBold',
  },
  insurance: {
    name: 'Brack & Pell Insurance plc',
    lines: ['Lantern House, 60 Assize Road, Melford MF3 9RT'],
    face: 'bold',
  },
  energy: { name: 'Northwick Energy Ltd', lines: ['PO Box 118, Northwick NW7 7XX'], face: 'bold' },
  council: {
    name: 'Orrin Harbour Council',
    lines: ['Town Hall, Market Place, Orrin Harbour OH1 1AB'],
    face: 'bookBold',
  },
  boiler: { name: 'Veltman Heating Co', lines: ['Unit 9, Foundry Park, Melford MF1 6DE'], face: 'bold' },
  vet: { name: 'Cobblers Lane Vet Surgery', lines: ['31 Cobblers Lane, Orrin Harbour OH1 8PQ'], face: 'bold' },
  school: { name: 'Saltgate Primary School', lines: ['Saltgate, Orrin Harbour OH1 5NE'], face: 'bookBold' },
  parts: {
    name: 'Reedham Loom Parts',
    lines: ['The Forge, Reedham Green RG2 2HH', 'VAT no. GB 551 8830 42'],
    face: 'typedBold',
  },
  bank: {
    name: 'Orrin & Tarrow Savings Bank',
    lines: ['9 Market Place, Orrin Harbour OH1 1AB', 'Sort code 20-44-71'],
    face: 'bookBold',
  },
} as const satisfies Record<string, Sender>;
type SenderKey = keyof typeof SENDERS;

/** A paper of the scenario: what it says, where it belongs, and how it came. */
export interface Paper {
  id: string;
  /** ISO 8601; the paper's own date. */
  date: string;
  who: string;
  kind: Kind;
  folder: string;
  /** As a PDF with text, a flat scan, or a photo. */
  came: 'pdf' | 'scan' | 'photo';
  pages: number;
  draw: () => Promise<Uint8Array>;
}

function paper(
  id: string,
  key: SenderKey,
  kind: Paper['kind'],
  date: string,
  folder: string,
  came: Paper['came'],
  draw: () => Promise<Uint8Array>,
  pages = 1,
): Paper {
  return { id, who: SENDERS[key].name, kind, date, folder, came, draw, pages };
}

const S = SENDERS;
const sheetsOf = {
  yarn: 'Workshop/Yarn',
  dye: 'Workshop/Dyeing',
  fair: 'Workshop/Fairs',
  post: 'Workshop/Postage',
  rent: 'Workshop/Rent',
  insurance: 'Workshop/Insurance',
  loom: 'Workshop/Loom',
  energy: 'Home/Energy',
  council: 'Home/Council',
  house: 'Home/House',
  animals: 'Home/Animals',
  school: 'Home/School',
};

function rentLetter(date: string, quarter: string): Paper {
  return paper(
    `rent-${date}`,
    'rent',
    'invoice',
    date,
    sheetsOf.rent,
    'scan',
    invoice(S.rent, `TH-${date.slice(2, 7).replace('-', '')}`, date, [
      [`Workshop rent, ${quarter}`, 1, 81000],
      ['Service charge and water', 1, 6450],
    ]),
  );
}

function energyBill(date: string, period: string, units: number): Paper {
  const lines: Line[] = [
    [`Electricity, ${period}, kWh`, units, 27],
    ['Standing charge, days', 91, 48],
  ];
  return paper(
    `energy-${date}`,
    'energy',
    'invoice',
    date,
    sheetsOf.energy,
    'pdf',
    invoice(S.energy, `E${date.replaceAll('-', '')}`, date, lines, { to: HOME }),
  );
}

function parcelReceipt(
  number: string,
  date: string,
  time: string,
  lines: Line[],
  came: Paper['came'] = 'photo',
): Paper {
  return paper(
    `parcel-${number}`,
    'parcels',
    'receipt',
    date,
    sheetsOf.post,
    came,
    receipt(S.parcels, number, date, time, lines),
  );
}

/** What lies on the shelf already when the demo begins: two years of papers. */
export const FILED: Paper[] = [
  rentLetter('2025-01-06', 'January to March 2025'),
  rentLetter('2025-04-03', 'April to June 2025'),
  rentLetter('2025-07-02', 'July to September 2025'),
  rentLetter('2025-10-02', 'October to December 2025'),
  rentLetter('2026-01-07', 'January to March 2026'),
  paper(
    'yarn-1',
    'yarn',
    'invoice',
    '2025-02-11',
    sheetsOf.yarn,
    'scan',
    invoice(S.yarn, 'HF-20418', '2025-02-11', [
      ['Merino 2/24, undyed, cones', 6, 3890],
      ['Silk noil, cones', 2, 4425],
      ['Carriage', 1, 950],
    ]),
  ),
  paper(
    'yarn-2',
    'yarn',
    'invoice',
    '2025-09-18',
    sheetsOf.yarn,
    'pdf',
    invoice(S.yarn, 'HF-21877', '2025-09-18', [
      ['Merino 2/24, undyed, cones', 10, 3890],
      ['Lambswool 2/17, oatmeal, cones', 4, 3160],
    ]),
  ),
  paper(
    'yarn-3',
    'yarn',
    'invoice',
    '2026-03-05',
    sheetsOf.yarn,
    'scan',
    invoice(S.yarn, 'HF-23002', '2026-03-05', [
      ['Cotton warp 8/2, natural, cones', 12, 1275],
      ['Merino 2/24, undyed, cones', 4, 3990],
    ]),
  ),
  paper(
    'wool-1',
    'wool',
    'invoice',
    '2025-05-20',
    sheetsOf.yarn,
    'pdf',
    invoice(
      S.wool,
      '2025-0731',
      '2025-05-20',
      [
        ['Schurwolle Nm 8/2, Spulen', 8, 2980],
        ['Leinengarn gebleicht, Spulen', 3, 3475],
        ['Fracht', 1, 2400],
      ],
      { language: 'de' },
    ),
  ),
  paper(
    'wool-2',
    'wool',
    'invoice',
    '2026-02-17',
    sheetsOf.yarn,
    'scan',
    invoice(
      S.wool,
      '2026-0209',
      '2026-02-17',
      [
        ['Schurwolle Nm 8/2, Spulen', 12, 3060],
        ['Fracht', 1, 2650],
      ],
      { language: 'de' },
    ),
  ),
  paper(
    'linen-1',
    'linen',
    'invoice',
    '2025-11-12',
    sheetsOf.yarn,
    'pdf',
    invoice(
      S.linen,
      'VC-4471',
      '2025-11-12',
      [
        ['Fil de lin 16/2 écru, bobines', 9, 2640],
        ['Port et emballage', 1, 2800],
      ],
      { language: 'fr' },
    ),
  ),
  paper(
    'dye-1',
    'dye',
    'invoice',
    '2025-03-27',
    sheetsOf.dye,
    'scan',
    invoice(S.dye, '1107', '2025-03-27', [
      ['Dyeing to shade, indigo, kg', 7, 1850],
      ['Dyeing to shade, madder, kg', 4, 2100],
    ]),
  ),
  paper(
    'dye-2',
    'dye',
    'invoice',
    '2025-08-14',
    sheetsOf.dye,
    'photo',
    invoice(S.dye, '1163', '2025-08-14', [
      ['Dyeing to shade, weld, kg', 5, 1975],
      ['Sample cards', 2, 650],
    ]),
  ),
  paper(
    'dye-3',
    'dye',
    'invoice',
    '2026-01-22',
    sheetsOf.dye,
    'scan',
    invoice(S.dye, '1221', '2026-01-22', [['Dyeing to shade, indigo, kg', 9, 1890]]),
  ),
  paper(
    'fair-1',
    'fair',
    'letter',
    '2025-04-28',
    sheetsOf.fair,
    'pdf',
    letter(
      S.fair,
      '2025-04-28',
      'Your stall at the summer fair, 14 and 15 June 2025',
      [
        'We are glad to confirm stall 37 in the Corn Hall for both days. The fee of £145.00 has been received with thanks.',
        'Setting up is from seven in the morning. Please bring your own lamps and a cloth that reaches the floor; the fire officer will look at every stall before the doors open at ten.',
      ],
      { to: STUDIO, signed: 'Tilda Marsh' },
    ),
  ),
  paper(
    'fair-2',
    'fair',
    'letter',
    '2026-04-20',
    sheetsOf.fair,
    'scan',
    letter(
      S.fair,
      '2026-04-20',
      'Your stall at the summer fair, 13 and 14 June 2026',
      [
        'Thank you for coming back to us. You have stall 12 by the east door this year, which many visitors pass first.',
        'The fee is £152.00 for both days and is payable by 15 May 2026.',
      ],
      { to: STUDIO, signed: 'Tilda Marsh' },
    ),
  ),
  parcelReceipt('50931', '2025-06-03', '11:42', [
    ['Parcel 2 kg signed', 1, 895],
    ['Parcel 5 kg', 2, 1240],
  ]),
  parcelReceipt('52207', '2025-12-09', '16:05', [
    ['Parcel 2 kg signed', 4, 895],
    ['Padded bag C4', 3, 165],
  ]),
  parcelReceipt('53418', '2026-02-26', '09:18', [['Small parcel', 3, 420]]),
  paper(
    'insurance-1',
    'insurance',
    'letter',
    '2025-05-06',
    sheetsOf.insurance,
    'scan',
    letter(
      S.insurance,
      '2025-05-06',
      'Workshop insurance, policy BP-660-2914: renewal',
      [
        'Your policy for the workshop at 4 Netmakers Yard has been renewed from 1 June 2025 to 31 May 2026. The premium is £412.60 including tax.',
        'The looms are insured to £18,000 and the stock of yarn and finished cloth to £9,500. Please tell us if you add a machine worth more than £1,000.',
      ],
      {
        to: STUDIO,
        signed: 'R. Pell',
        second: [
          'What is covered: fire, flood from above, theft after forced entry, breakage of machines while they are being moved by a carrier.',
          'What is not covered: moth, damage by damp where the windows were left open, and goods on the way to a fair unless the transit cover has been added. The excess on every claim is £150.',
        ],
      },
    ),
    2,
  ),
  paper(
    'parts-1',
    'parts',
    'invoice',
    '2025-07-23',
    sheetsOf.loom,
    'scan',
    invoice(S.parts, 'R-0882', '2025-07-23', [
      ['Cord heddles, 100', 4, 1495],
      ['Reed 12 dpi, 80 cm', 1, 8650],
      ['Shuttle race brushes', 2, 720],
    ]),
  ),
  energyBill('2025-03-31', 'January to March 2025', 812),
  energyBill('2025-06-30', 'April to June 2025', 540),
  energyBill('2025-09-30', 'July to September 2025', 471),
  energyBill('2025-12-31', 'October to December 2025', 866),
  paper(
    'council-1',
    'council',
    'letter',
    '2025-03-10',
    sheetsOf.council,
    'scan',
    letter(
      S.council,
      '2025-03-10',
      'Council tax 2025/26, account 4471 0982',
      [
        'Your council tax for the year from 1 April 2025 is £1,684.20, payable in ten instalments of £168.42 on the first of each month.',
        'If you live alone you may pay a quarter less; the form is at the Town Hall.',
      ],
      { signed: 'A. Crewe' },
    ),
  ),
  paper(
    'council-2',
    'council',
    'letter',
    '2026-03-09',
    sheetsOf.council,
    'scan',
    letter(
      S.council,
      '2026-03-09',
      'Council tax 2026/27, account 4471 0982',
      [
        'Your council tax for the year from 1 April 2026 is £1,751.50, payable in ten instalments of £175.15 on the first of each month.',
      ],
      { signed: 'A. Crewe' },
    ),
  ),
  paper(
    'boiler',
    'boiler',
    'letter',
    '2025-10-16',
    sheetsOf.house,
    'scan',
    letter(
      S.boiler,
      '2025-10-16',
      'Guarantee for your boiler, model VH 24, serial 7730-1185',
      [
        'Your new boiler was installed on 14 October 2025 and is guaranteed for seven years, to 13 October 2032, provided that it is serviced every year.',
        'Keep this letter: it is your proof of guarantee.',
      ],
      { signed: 'P. Veltman' },
    ),
  ),
  paper(
    'vet-1',
    'vet',
    'invoice',
    '2025-08-29',
    sheetsOf.animals,
    'photo',
    invoice(
      S.vet,
      'CL-3390',
      '2025-08-29',
      [
        ['Consultation, Bobbin (cat)', 1, 3800],
        ['Booster vaccination', 1, 2950],
      ],
      { to: HOME },
    ),
  ),
  paper(
    'school-1',
    'school',
    'letter',
    '2025-09-05',
    sheetsOf.school,
    'pdf',
    letter(
      S.school,
      '2025-09-05',
      'Swimming lessons in the autumn term',
      [
        'Class 4 goes swimming every Thursday from 18 September 2025. Please pack a towel and goggles, and send £24.00 for the term in the envelope.',
        'Children who have a cold stay in the library with Mrs Fenn.',
      ],
      { signed: 'D. Fenn' },
    ),
  ),
];

/** The morning's post as it came through the feeder: a dozen sheets, still one stack. */
export const BATCH: Paper[] = [
  paper(
    'batch-yarn',
    'yarn',
    'invoice',
    '2026-11-12',
    sheetsOf.yarn,
    'scan',
    invoice(S.yarn, 'HF-24960', '2026-11-12', [
      ['Merino 2/24, undyed, cones', 8, 4050],
      ['Silk noil, cones', 3, 4490],
      ['Carriage', 1, 1050],
    ]),
  ),
  paper(
    'batch-insurance',
    'insurance',
    'letter',
    '2026-11-10',
    sheetsOf.insurance,
    'scan',
    letter(
      S.insurance,
      '2026-11-10',
      'Policy BP-660-2914: the new dobby loom',
      [
        'Thank you for telling us of the dobby loom that you bought in October. It is insured from today to £6,200; the premium for the rest of the year rises by £38.75.',
      ],
      {
        to: STUDIO,
        signed: 'R. Pell',
        second: [
          'The schedule of machines now reads: countermarch loom, £7,400; table looms, three, £2,100; warping mill, £1,300; dobby loom, £6,200; bobbin winder, £480.',
          'Please check the list and write to us within fourteen days if anything is wrong.',
        ],
      },
    ),
    2,
  ),
  paper(
    'batch-wool',
    'wool',
    'invoice',
    '2026-11-06',
    sheetsOf.yarn,
    'scan',
    invoice(
      S.wool,
      '2026-1388',
      '2026-11-06',
      [
        ['Schurwolle Nm 8/2, Spulen', 6, 3120],
        ['Färbemuster', 2, 850],
        ['Fracht', 1, 2650],
      ],
      { language: 'de' },
    ),
  ),
  paper(
    'batch-council',
    'council',
    'letter',
    '2026-11-09',
    sheetsOf.council,
    'scan',
    letter(
      S.council,
      '2026-11-09',
      'Works in Beacon Terrace',
      [
        'The water main in Beacon Terrace will be renewed from 23 November to 4 December 2026. The road is closed to cars between eight and five; the pavement stays open.',
        'Bins are emptied on Wednesdays as usual, but before seven.',
      ],
      { signed: 'A. Crewe' },
    ),
  ),
  paper(
    'batch-dye',
    'dye',
    'invoice',
    '2026-11-11',
    sheetsOf.dye,
    'scan',
    invoice(S.dye, '1302', '2026-11-11', [
      ['Dyeing to shade, madder, kg', 6, 2150],
      ['Dyeing to shade, indigo, kg', 3, 1920],
    ]),
  ),
  paper(
    'batch-fair',
    'fair',
    'letter',
    '2026-11-13',
    sheetsOf.fair,
    'scan',
    letter(
      S.fair,
      '2026-11-13',
      'Winter market, 5 and 6 December 2026',
      [
        'Your stall is number 8, next to the bookbinder. The doors open at ten on both days and the band plays at three.',
        'The fee of £96.00 is due on arrival.',
      ],
      {
        to: STUDIO,
        signed: 'Tilda Marsh',
        second: [
          'Rules for stallholders: no candles; cables taped to the floor; dogs on a lead. Unloading from the quay side only, between six and nine.',
          'Everything must be cleared by six on Sunday evening.',
        ],
      },
    ),
    2,
  ),
  paper(
    'batch-rent',
    'rent',
    'invoice',
    '2026-11-02',
    sheetsOf.rent,
    'scan',
    invoice(S.rent, 'TH-2611', '2026-11-02', [['Repair of the skylight, your share', 1, 21400]]),
  ),
  paper(
    'batch-school',
    'school',
    'letter',
    '2026-11-12',
    sheetsOf.school,
    'scan',
    letter(
      S.school,
      '2026-11-12',
      'Winter concert',
      [
        'The winter concert is on Thursday 10 December 2026 at half past five. Class 5 sings and plays the recorder; please send a white shirt.',
      ],
      { signed: 'D. Fenn' },
    ),
  ),
  paper(
    'batch-linen',
    'linen',
    'invoice',
    '2026-11-04',
    sheetsOf.yarn,
    'scan',
    invoice(
      S.linen,
      'VC-5120',
      '2026-11-04',
      [
        ['Fil de lin 16/2 écru, bobines', 5, 2710],
        ['Port et emballage', 1, 2800],
      ],
      { language: 'fr' },
    ),
  ),
  paper(
    'batch-boiler',
    'boiler',
    'letter',
    '2026-11-05',
    sheetsOf.house,
    'scan',
    letter(
      S.boiler,
      '2026-11-05',
      'Yearly service of your boiler, serial 7730-1185',
      [
        'Our fitter will come on Tuesday 24 November 2026 between nine and twelve. The service keeps your guarantee and costs £84.00.',
      ],
      { signed: 'P. Veltman' },
    ),
  ),
];

/** Taken in and sorted, waiting in Check. */
export const WAITING: Paper[] = [
  paper(
    'wait-yarn',
    'yarn',
    'invoice',
    '2026-10-08',
    sheetsOf.yarn,
    'scan',
    invoice(S.yarn, 'HF-24518', '2026-10-08', [
      ['Lambswool 2/17, oatmeal, cones', 6, 3290],
      ['Cotton warp 8/2, natural, cones', 5, 1310],
    ]),
  ),
  parcelReceipt('56120', '2026-10-21', '10:27', [
    ['Parcel 2 kg signed', 2, 925],
    ['Parcel 5 kg', 1, 1290],
  ]),
  energyBill('2026-09-30', 'July to September 2026', 455),
  paper(
    'wait-vet',
    'vet',
    'invoice',
    '2026-10-15',
    sheetsOf.animals,
    'photo',
    invoice(
      S.vet,
      'CL-4127',
      '2026-10-15',
      [
        ['Consultation, Bobbin (cat)', 1, 4100],
        ['Dental treatment', 1, 12650],
      ],
      { to: HOME },
    ),
  ),
];

/** Papers of rarer kinds, which wait in Check as well. */
export const WAITING_TOO: Paper[] = [
  paper(
    'wait-credit',
    'yarn',
    'credit note',
    '2026-10-20',
    sheetsOf.yarn,
    'scan',
    creditNote(S.yarn, 'HC-2207', '2026-10-20', 'HF-24518', [['Cotton warp 8/2, natural, cones', 2, 1310]]),
  ),
  paper(
    'wait-bank',
    'bank',
    'statement',
    '2026-10-31',
    'Workshop/Bank',
    'scan',
    statement(S.bank, 31, ['2026-10-01', '2026-10-31'], 184215, [
      ['2026-10-02', 'Tarrow Harbour Estates, rent', -61500],
      ['2026-10-09', 'Saltmarsh Craft Fair, takings', 92740],
      ['2026-10-21', 'Quayside Parcels', -3140],
      ['2026-10-28', 'Northwick Energy, direct debit', -14826],
    ]),
  ),
  paper(
    'wait-reminder',
    'wool',
    'reminder',
    '2026-11-04',
    sheetsOf.yarn,
    'pdf',
    letter(
      S.wool,
      '2026-11-04',
      'Zahlungserinnerung: Rechnung 2026-1204 vom 15.09.2026',
      [
        'unsere Rechnung 2026-1204 über 214,20 € ist noch offen. Bitte überweisen Sie den Betrag bis zum 18.11.2026 auf das Konto DE75 5121 0800 1245 1261 99.',
        'Hat sich diese Erinnerung mit Ihrer Zahlung gekreuzt, so sehen Sie sie bitte als gegenstandslos an.',
      ],
      { language: 'de', to: STUDIO, signed: 'H. Brandt' },
    ),
  ),
];
