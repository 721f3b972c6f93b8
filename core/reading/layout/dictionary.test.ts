import { SpelledWord } from '../spelled';
import { settleByDictionary, wantsDictionary } from './dictionary';

const GERMAN = new Set('sanitär prüfung stück eichen brett muster monat nachricht lernen kamm'.split(' '));

/** A word whose letters are sure, but for those behind a ~. */
function word(text: string): SpelledWord {
  const characters = [...text.matchAll(/(~?)(.)/g)].map(([, doubtful, letter], at) => ({
    text: letter,
    box: [at * 10, 0, 8, 20] as [number, number, number, number],
    confidence: doubtful ? 0.95 : 0.998,
  }));
  return { characters, confidence: 0.95 };
}

function settled(text: string, compounds = true): string {
  const words = text.split(' ').map(word);
  settleByDictionary([words], GERMAN, compounds);
  return words.map(({ characters }) => characters.map(({ text: each }) => each).join('')).join(' ');
}

it.each([
  ['S~rück', 'Stück'],
  ['Sanit~ar', 'Sanitär'],
  ['Pr~ufung,', 'Prüfung,'],
  ['Eichenbret~r', 'Eichenbrett'],
  ['pl~e', 'plc'],
  ['Pell Insurance ple,', 'Pell Insurance plc,'],
  ['1td', 'ltd'],
  ['le~men', 'lernen'],
  ['Kam~rn', 'Kamm'],
])('makes a word of %s: %s', (read, right) => {
  expect(settled(read)).toBe(right);
});

it.each([
  ['what is a word', 'Mon~at'],
  ['what is sure', 'Sanitar'],
  ['what could be two words', 'M~uster'],
  ['names and numbers', 'Kr~upp 12~34 A~B OH~9 Ha~mer'],
  ['letters that are sure and may have run together', 'lemen'],
  ['words with hyphens', 'Sanit~ar-Bedarf'],
])('leaves alone %s', (_what, read) => {
  expect(settled(read)).toBe(read.replaceAll('~', ''));
});

it('makes a slash of a stroke between two words', () => {
  expect(settled('MusterlPrüfung')).toBe('Muster/Prüfung');
  expect(settled('MusterIPrüfung')).toBe('Muster/Prüfung');
  expect(wantsDictionary([[word('MusterlPrüfung')]])).toBe(true);
  // No word behind it, or one that ends in it.
  expect(settled('MusterlOrt')).toBe('MusterlOrt');
  expect(settled('NachrichtPrüfung')).toBe('NachrichtPrüfung');
});

it('takes words together only where the language does', () => {
  expect(settled('Eichenbret~r', false)).toBe('Eichenbretr');
});

it.each([
  ['a wide gap', 'stückmuster', 9, 'stück muster'],
  ['a gap as names have it', 'stückmuster', 4, 'stückmuster'],
  ['a wide gap in what is a word', 'nachricht', 9, 'nachricht'],
  ['a wide gap before what is no word', 'stücknard', 9, 'stücknard'],
])('parts two words that ran together at %s', (_, text, gap, right) => {
  const read = word(text);
  for (const { box } of read.characters.slice(5)) box[0] += gap - 2;
  const words = [read];
  settleByDictionary([words], GERMAN, false);
  expect(words.map(({ characters }) => characters.map((each) => each.text).join('')).join(' ')).toBe(right);
});

it('is not wanted where nothing is doubtful', () => {
  expect(wantsDictionary([[word('Sanitar'), word('12~3')]])).toBe(false);
  expect(wantsDictionary([[word('Sanit~ar')]])).toBe(true);
});
