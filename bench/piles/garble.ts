import { guessLanguage } from '@crow/core/reading/language';
import { PageText, plainText } from '@crow/core/reading/words';
import { Chance } from './chance';

const LIKE: Record<string, string> = {
  '0': 'O',
  O: '0',
  '1': 'l',
  l: '1',
  I: 'l',
  '5': 'S',
  S: '5',
  '8': 'B',
  B: '8',
  rn: 'm',
  e: 'c',
  ä: 'a',
  ö: 'o',
  ü: 'u',
  é: 'e',
  ',': '.',
  '.': ',',
};

/** Text from a PDF, some of it misread and lost as a recogniser does; more on some pages than on others. */
export function garbled(text: PageText, chance: Chance): PageText {
  const often = chance.pick([0, 0.01, 0.02, 0.05]);
  const words = text.words
    .filter(() => !chance.of(often / 2))
    .map((word) => ({
      ...word,
      text: [...word.text].map((letter) => (chance.of(often) ? (LIKE[letter] ?? letter) : letter)).join(''),
      confidence: 0.9,
    }));
  return { ...text, words, language: guessLanguage(plainText(words), ['eng', 'deu', 'fra']) };
}
