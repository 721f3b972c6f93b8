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
  expect(['eng', 'fra']).toContain(
    guessLanguage('Bitte überweisen Sie den Betrag bis zum genannten Tag', ['eng', 'fra']),
  );
});

it.each([
  ['deu', 'Bickerei Ullmann Miihlweg 4 Kassenbon 2 x Brot Summe EC-Karte Riickgeld Vielen Dank fiir Ihren Einkauf'],
  ['fra', 'Ticket de caisse 2 x Savon TOTAL Carte bancaire Rendu Merci et a bientot'],
  ['nld', 'Kassabon 2 x Zeep Totaal Pin Bedankt voor uw bezoek Btw 21 %'],
  ['ita', 'Scontrino Sapone Totale Contanti Resto Grazie e arrivederci IVA 22 %'],
])('tells a till receipt in %s by its few words, though accents were misread', (language, text) => {
  expect(guessLanguage(text, ['eng', 'deu', 'fra', 'spa', 'ita', 'nld', 'por'])).toBe(language);
});
