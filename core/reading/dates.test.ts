import fc from 'fast-check';
import { datesInLine, readDate } from './dates';
import { Word } from './words';

it.each([
  ['2026-03-14', '2026-03-14'],
  ['14.3.2026', '2026-03-14'],
  ['14. 3. 2026', '2026-03-14'],
  ['14/03/26', '2026-03-14'],
  ['03/14/2026', '2026-03-14'],
  ['14 March 2026', '2026-03-14'],
  ['14th of March 2026', '2026-03-14'],
  ['March 14, 2026', '2026-03-14'],
  ['14. März 2026', '2026-03-14'],
  ['14 août 2026', '2026-08-14'],
  ['1er décembre 2025', '2025-12-01'],
  ['2026/3/14', '2026-03-14'],
  ['14-Mar-2026', '2026-03-14'],
  ['14/Mar/26', '2026-03-14'],
  ['14 Mar ’26', '2026-03-14'],
  ['Mar-14-2026', '2026-03-14'],
  ['14 / 03 / 2026', '2026-03-14'],
  ['14 03 2026', '2026-03-14'],
  ['14·3·2026', '2026-03-14'],
  ['14.III.2026', '2026-03-14'],
  ['14. XI. 2026', '2026-11-14'],
  ['14.März 2026', '2026-03-14'],
  ['14.Mar.2026', '2026-03-14'],
  ['14. Mrz. 26', '2026-03-14'],
  ['14.03.2026/14:32', '2026-03-14'],
  ['2026-03-14T14:32:00', '2026-03-14'],
  ['Date: 20260314', '2026-03-14'],
  ['No. 20260314', undefined],
  ['2 12 2026', undefined],
  ['01 44 03 2026', undefined],
  ['14.03.2026/7', undefined],
  ['14 de março de 2026', '2026-03-14'],
  ['11, November 2023', '2023-11-11'],
  ['3 Novernber 2026', undefined],
  ['3 Ocfober 2026', '2026-10-03'],
  ['3. Januor 2026', '2026-01-03'],
  ['12 pieces 2026', undefined],
  ['ll December 2027', '2027-12-11'],
  ['3I December 2027', '2027-12-31'],
  ['gth November 2026', '2026-11-09'],
  ['l. März 2026', '2026-03-01'],
  ['07NOV26', '2026-11-07'],
  ['05 NOV 26', '2026-11-05'],
])('reads %s', (text: string, date: string | undefined) => {
  expect(readDate(text)).toBe(date);
});

it.each(['', 'soon', '31.2.2026', '2026-13-40', '10:27', 'HF-24518', '1/2'])('takes “%s” for no date', (text) => {
  expect(readDate(text)).toBeUndefined();
});

it('reads back every day of the century in the form it is written in Germany', () => {
  fc.assert(
    fc.property(fc.date({ min: new Date('2000-01-01'), max: new Date('2099-12-31'), noInvalidDate: true }), (day) => {
      const iso = day.toISOString().slice(0, 10);
      const [year, month, date] = iso.split('-');
      expect(readDate(`${Number(date)}.${Number(month)}.${year}`)).toBe(iso);
    }),
  );
});

it.each([
  ['20 Nov 23 Nov REFUND', []],
  ['20 NOV 23 DEC', []],
  ['Delivered 12 Nov 26 may differ', ['2026-11-12']],
  ['12 Nov 26 Paid', ['2026-11-12']],
])('tells the year of a day from the day of the next month: “%s”', (text, dates) => {
  const line: Word[] = text
    .split(' ')
    .map((word, index) => ({ text: word, box: [index * 10, 0, 9, 9], confidence: 1, line: 0, baseline: 9 }));
  expect(datesInLine(line).map(({ date }) => date)).toEqual(dates);
});

it('says which words of a line a date is made of', () => {
  const line: Word[] = ['Date', '8', 'October', '2026', 'paid'].map((text, index) => ({
    text,
    box: [index * 10, 0, 9, 9],
    confidence: 1,
    line: 0,
    baseline: 9,
  }));
  const [found] = datesInLine(line);
  expect(found.date).toBe('2026-10-08');
  expect(found.words.map(({ text }) => text)).toEqual(['8', 'October', '2026']);
});
