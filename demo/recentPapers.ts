import { addDays } from '@crow/core/shelf/days';
import { HOME, invoice, Line, Sender } from './drawing';
import { Paper } from './papers';

const LINE: Sender = {
  name: 'Lanternfish Telephone & Fibre',
  lines: ['Signal House, Cable Street, Orrin Harbour OH3 4TN', 'VAT no. GB 640 1178 29'],
  face: 'bold',
};
const MILL: Sender = {
  name: 'Ottery Combing Mill',
  lines: ['Weir Road, Ottery Ford OF7 2DD', 'VAT no. GB 209 4415 83'],
  face: 'bookBold',
};
const OIL: Sender = { name: 'Tarrow Heating Oil', lines: ['Coal Quay, Orrin Harbour OH2 5RE'], face: 'typedBold' };

function bill(sender: Sender, folder: string, number: string, date: string, lines: Line[], to?: string[]): Paper {
  return {
    id: `recent-${number}`,
    who: sender.name,
    kind: 'invoice',
    date,
    folder,
    came: 'pdf',
    pages: 1,
    draw: invoice(sender, number, date, lines, to && { to }),
  };
}

/** The bill of a month that never came. */
const NEVER_CAME = 3;

/**
 * Papers of the last months before a day: bills that are due soon, and a monthly one of which one never came.
 * @param today ISO 8601
 */
export function recentPapers(today: string): Paper[] {
  const telephone = [7, 6, 5, 4, 3, 2, 1]
    .filter((back) => back !== NEVER_CAME)
    .map((back) => {
      const date = monthsBefore(today, back);
      return bill(LINE, 'Workshop/Telephone', `LF-${date.slice(2, 7).replace('-', '')}`, date, [
        ['Fibre 100 and one number', 1, 2650],
        ['Calls', 1, 180 + back * 37],
      ]);
    });
  return [
    ...telephone,
    bill(MILL, 'Workshop/Yarn', 'OC-5512', addDays(today, -21), [
      ['Combed tops, Blue-faced, kg', 12, 1840],
      ['Carding, kg', 12, 320],
    ]),
    bill(OIL, 'Home/House', '88213', addDays(today, -33), [['Heating oil, litres', 500, 71]], HOME),
  ];
}

/** The fourth of the month so many months before a day. */
function monthsBefore(today: string, months: number): string {
  const [year, month] = today.split('-').map(Number);
  return new Date(Date.UTC(year, month - 1 - months, 4)).toISOString().slice(0, 10);
}
