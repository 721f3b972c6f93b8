import { guessLanguage } from './language';

const candidates = ['eng', 'deu', 'fra'];

it.each([
  ['eng', 'Please pay within 30 days. Thank you for your order of the yarn that we sent.'],
  ['deu', 'Bitte überweisen Sie den Betrag bis zum genannten Tag. Mit freundlichen Grüßen'],
  ['deu', 'Bitte uberweisen Sie den Betrag bis zum genannten Tag fur die Ware und das Porto'],
  ['fra', 'Nous vous remercions de votre commande. Le total est payable sur présentation de la facture.'],
])('takes a text for %s', (language, text) => {
  expect(guessLanguage(text, candidates)).toBe(language);
});

it('stays with the usual language when the text says too little', () => {
  expect(guessLanguage('HF-24518 315.48', ['deu', 'eng'])).toBe('deu');
  expect(guessLanguage('', candidates)).toBe('eng');
});

it('only takes languages that were chosen', () => {
  expect(guessLanguage('Bitte überweisen Sie den Betrag bis zum genannten Tag', ['eng', 'fra'])).toBe('eng');
});
