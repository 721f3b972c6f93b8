import { Deed } from '@crow/contract/history';
import { deedWords, WORDS } from './deedWords';

const said = (
  subject: string,
  action: string,
  detail: Record<string, unknown> = {},
  named: string | null = null,
): string =>
  deedWords({
    id: 1,
    at: '2026-11-27T08:00:00Z',
    who: 'Imre',
    subject,
    action,
    subjectId: null,
    named,
    detail,
  } as Deed);

it.each([
  [said('document', 'filed', { name: 'Rent, May' }, 'Rent for May'), 'filed “Rent for May”'],
  [said('document', 'filed', { name: 'Rent, May' }), 'filed “Rent, May”'],
  [said('document', 'set a fact', { name: 'total', value: '12.50' }, 'Rent'), 'set total to “12.50” in “Rent”'],
  [
    said('session', 'came in', { device: 'My phone', browser: 'Safari on an iPhone' }),
    'came in (My phone, Safari on an iPhone)',
  ],
  [said('session', 'came in'), 'came in'],
  [said('stack', 'sorted', { documents: ['a', 'b'] }, 'Post'), 'sent “Post” to Check as 2 documents'],
  [said('door', 'opened'), 'opened the door for other devices'],
  [said('books', 'changed', { closedUntil: '2025-12-31' }), 'closed the books until 2025-12-31'],
  [said('books', 'changed', { closedUntil: null }), 'opened the books again'],
  [said('books', 'changed', { sender: 'Avery', iban: '' }), 'changed “Avery” in the books'],
  // What a later version may do.
  [said('parcel', 'weighed', {}, 'Wool'), 'weighed the parcel “Wool”'],
])('%s', (words, wanted) => expect(words).toBe(wanted));

it.each(Object.keys(WORDS))('tells of “%s” also when all else of it is gone for good', (key) => {
  const subject = ['watched folder', 'copy place', key.split(' ')[0]].find((each) => key.startsWith(`${each} `))!;
  const words = said(subject, key.slice(subject.length + 1));
  expect(words).not.toMatch(/undefined|null|  | $|“”/);
  expect(words.length).toBeGreaterThan(6);
});

it.each([
  [said('folder', 'changed', { from: 'Rent', to: 'Home/Rent' }), 'renamed or moved the folder “Rent” to “Home/Rent”'],
  [said('stack', 'took back', { pages: ['a'] }, 'Post'), 'no longer accepted 1 page of “Post” in spite of a warning'],
  [said('stack', 'took back', { from: 'x' }, 'Post'), 'took documents of “Post” back to the light table'],
])('%s', (words, wanted) => expect(words).toBe(wanted));
