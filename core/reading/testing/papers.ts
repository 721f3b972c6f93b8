import { Word } from '../words';

/** A page of lines, as it is read; three spaces and more leave a gap as wide as between columns. */
export const page = (text: string) => ({
  words: text.split('\n').flatMap((line, number) => {
    let left = 0;
    return line.split(/( {3,}| )/).flatMap((each, place): Word[] => {
      if (place % 2 === 1) {
        left += each.length > 1 ? 120 : 10;
        return [];
      }
      const box: Word['box'] = [left, 40 * number, 10 * each.length, 20];
      left += 10 * each.length;
      return each ? [{ text: each, box, confidence: 1, line: number, baseline: 40 * number + 16 }] : [];
    });
  }),
});

export const letter = page(
  'Orrin Harbour Council\nYour waste collection changes\nDear Mr Castellane,\nFrom May your bins are collected on Tuesdays.\nPlease return the form by the end of April.\nYours sincerely\nPetra Quill\nTel. 01632 960555',
);

/** What was read from a bill. */
export const bill = {
  kind: 'invoice',
  vendor: 'Saltgate Yarns',
  date: '2026-03-05',
  number: '1302',
  total: '58.20',
  currency: 'GBP',
  tax: '9.70',
  taxRate: '20',
  net: '48.50',
  dueDate: '2026-04-04',
};
