import { topicsOf, topicsOfFolder } from './topics';

const named = (paper: Parameters<typeof topicsOf>[0]) => topicsOf(paper).map(({ name }) => name);

it.each([
  ['Home/School', ['school']],
  ['Haushalt/Schule', ['school']],
  ['Maison/École', ['school']],
  ['Workshop/Telephone & internet', ['telephone and internet', 'software and subscriptions']],
  ['Miete/2026', ['rent']],
  ['Workshop/Yarn', []],
  ['House/Letters', []],
  ['Home', []],
  ['', []],
])('knows what “%s” is called after', (path, topics) => expect(topicsOfFolder(path)).toEqual(topics));

it.each([
  [{ words: ['montant', 'garderie', 'cantine', 'octobre'] }, ['school']],
  [{ vendor: 'Parkhaus Seegarten AG', words: ['einfahrt', 'tarif'] }, ['travel']],
  [{ words: ['kwh', 'zahlerstand', 'betrag'] }, ['energy']],
  [{ vendor: 'Ironbark Locksmiths', words: [] }, ['repairs in the house']],
])('tells what a paper is about by its words and its sender', (paper, topics) => expect(named(paper)).toEqual(topics));

it('is told nothing by one word, by none, and by words that stand on every paper', () => {
  expect(named({ words: ['school'] })).toEqual([]);
  expect(named({})).toEqual([]);
  expect(
    named({ vendor: 'Wickford Loom', words: ['invoice', 'date', 'total', 'number', 'bank', 'telephone'] }),
  ).toEqual([]);
});

it('gives the words that say so, those of the name first', () =>
  expect(topicsOf({ vendor: 'Bramble Vets', words: ['vets', 'cat', 'dose'] })).toEqual([
    { name: 'animals', called: 'Animals', weight: 3, words: ['vets', 'cat'] },
  ]));
