import { editDistance } from './editDistance';
import { parseQuery } from './query';
import { findHits, pageTokens, Term, tokenise } from './tokens';

const tokens = (text: string) => tokenise(text).map((token) => token.text);

describe('taking text apart for searching', () => {
  it('forgives case, accents, ligatures and ß', () => {
    expect(tokens('Straße ÉCRU œuvre ﬁne Färbemuster')).toEqual(['strasse', 'ecru', 'oeuvre', 'fine', 'farbemuster']);
  });
  it('finds an amount by either country’s way of writing it', () => {
    expect(tokens('1.234,50')).toEqual(tokens('1,234.50'));
    expect(tokens("12'000.00 1,234")).toEqual(['12000.00', '1234']);
  });
  it('takes numbers of papers apart at their signs', () => {
    expect(tokens('HF-24518/a')).toEqual(['hf', '24518', 'a']);
  });
  it('finds no tokens in signs', () => {
    expect(tokens('— · €')).toEqual([]);
  });
});

describe('a typed query', () => {
  it('keeps words in quotes together, in any country’s quotes', () => {
    expect(parseQuery('indigo „dobby loom“ «Val Clair»').phrases).toEqual([
      ['indigo'],
      ['dobby', 'loom'],
      ['val', 'clair'],
    ]);
  });
  it('knows whether the last word may go on', () => {
    expect(parseQuery('merin').open).toBe(true);
    expect(parseQuery('merino ').open).toBe(false);
  });
  it('is empty when nothing can be searched', () => {
    expect(parseQuery(' “” - ').phrases).toEqual([]);
  });
  it('takes conditions on amounts, days and names out of the words', () => {
    expect(parseQuery('oakum total>1.000,50 date>=2026-02 who:“Val Clair” kind:invoice -indigo')).toEqual({
      phrases: [['oakum']],
      without: ['indigo'],
      conditions: [
        { field: 'total', comparison: '>', amount: 1000.5 },
        { field: 'date', comparison: '>=', from: '2026-02-01', to: '2026-02-28' },
        { field: 'vendor', text: 'val clair' },
        { field: 'kind', text: 'invoice' },
      ],
      open: false,
    });
  });
  it('searches as words what only looks like a condition', () => {
    expect(parseQuery('date>soon total>much HF-24518')).toMatchObject({
      conditions: [],
      without: [],
      phrases: [['date'], ['soon'], ['total'], ['much'], ['hf'], ['24518']],
    });
  });
});

describe('hits in a row of words', () => {
  const words = ['The', 'dobby', 'loom,', 'and', 'the', 'table', 'looms'].map((text) => ({ text }));
  const term = (form: string, prefix = false): Term => ({ forms: [form], prefix });

  it('counts each place where a word stands', () => {
    expect(findHits(words, [[term('the')]])).toEqual([[0], [4]]);
  });
  it('finds beginnings of words when asked to', () => {
    expect(findHits(words, [[term('loom', true)]])).toEqual([[2], [6]]);
    expect(findHits(words, [[term('loom')]])).toEqual([[2]]);
  });
  it('finds phrases only where the words follow each other', () => {
    expect(findHits(words, [[term('dobby'), term('loom')]])).toEqual([[1, 2]]);
    expect(findHits(words, [[term('table'), term('loom')]])).toEqual([]);
  });
  it('finds a word that is divided at the end of a line whole', () => {
    const box: [number, number, number, number] = [0, 0, 40, 10];
    const divided = [
      { text: 'the', line: 0, box },
      { text: '“hand-', line: 0, box },
      { text: 'weaving”,', line: 1, box },
      { text: 'Wick-', line: 1, box },
      { text: 'Loom', line: 2, box },
      { text: 'mid-', line: 2, box },
      { text: 'term', line: 2, box },
    ];
    expect(findHits(divided, [[term('handweaving')]])).toEqual([[1, 2]]);
    expect(findHits(divided, [[term('handw', true)]])).toEqual([[1, 2]]);
    expect(findHits(divided, [[term('wickloom')], [term('midterm')]])).toEqual([]);
    expect(pageTokens(divided)).toEqual(expect.arrayContaining(['hand', 'weaving', 'handweaving', 'mid', 'term']));
    expect(pageTokens(divided)).not.toContain('midterm');
  });
  it('finds other spellings', () => {
    expect(findHits(words, [[{ forms: ['tabel', 'table'], prefix: false }]])).toEqual([[5]]);
  });
});

it('counts the letters between two spellings', () => {
  expect(editDistance('merino', 'rnerino')).toBe(2);
  expect(editDistance('', 'abc')).toBe(3);
  expect(editDistance('same', 'same')).toBe(0);
});
