import { matchPayments } from '@crow/core/ledger/matching/match';
import { Books, makeBooks, Vocabulary } from './matching/books';
import { ASIDE, FRESH, KNOWN } from './matching/vocabularies';

/**
 * Ties of payments and papers over made books of 24 months: how many of those called sure are right, how many there are were found.
 * node scripts/bench.mjs matching [known|aside|fresh] [seed]
 */
const SETS: Record<string, Vocabulary> = { known: KNOWN, aside: ASIDE, fresh: FRESH };
const SURE = 0.95;

const [wanted = '', seed = '1', show = ''] = process.argv.slice(2);
for (const [name, words] of Object.entries(SETS)) {
  if (wanted && wanted !== name && wanted !== 'all') continue;
  for (const number of seed.split(',').map(Number)) measure(`${name} ${number}`, makeBooks(words, number));
}
// A few bills and lines say little of what is usual: sixty such books of each vocabulary.
for (const [name, words] of Object.entries(SETS)) {
  if (wanted && wanted !== name && wanted !== 'all') continue;
  const all = Array.from({ length: 60 }, (_, at) => counted(makeBooks(words, 500 + at, { bills: 15, lines: 24 })));
  const sum = (of: 'ties' | 'sure' | 'wrong' | 'found') => all.reduce((total, each) => total + each[of], 0);
  console.log(
    `${name}, sixty small books: ${sum('ties')} ties; sure ${sum('sure')}, ${sum('wrong')} wrong; found ${(sum('found') / sum('ties')).toFixed(4)}`,
  );
}
const large = makeBooks(ASIDE, 99, { bills: 10_000, lines: 10_000 });
const began = performance.now();
matchPayments(large.entries, large.lines);
console.log(`10,000 entries and ${large.lines.length} lines: ${Math.round(performance.now() - began)} ms`);

/** What ties have in common with those that are true, by keys that name the same for what is in twice. */
function compared({ entries, lines, truth, again, twins }: Books) {
  const keyOf = (ids: readonly string[], places: readonly number[]) =>
    `${ids
      .map((id) => [id, twins.get(id) ?? id].sort()[0])
      .sort()
      .join()} ${places
      .map((place) => again.get(place) ?? place)
      .sort((a, b) => a - b)
      .join()}`;
  const right = new Map(truth.map((tie) => [keyOf(tie.entries, tie.lines), tie]));
  const ties = matchPayments(entries, lines).map(({ entries: own, lines: those, ...rest }) => ({
    ...rest,
    key: keyOf(
      own.map((at) => entries[at].id),
      those.map((at) => at + 1),
    ),
  }));
  const sure = ties.filter(({ confidence }) => confidence >= SURE);
  const wrong = sure.filter(({ key }) => !right.has(key));
  const found = new Set(ties.filter(({ key }) => right.has(key)).map(({ key }) => key));
  return { ties, sure, wrong, found, right };
}

function counted(books: Books): Record<'ties' | 'sure' | 'wrong' | 'found', number> {
  const { sure, wrong, found } = compared(books);
  return { ties: books.truth.length, sure: sure.length, wrong: wrong.length, found: found.size };
}

function measure(name: string, books: Books): void {
  const { entries, lines, truth } = books;
  const { ties, sure, wrong, found, right } = compared(books);
  // By pairs of an entry and a line, too.
  const pairs = (all: Iterable<string>) =>
    new Set(
      [...all].flatMap((key) =>
        key
          .split(' ')[0]
          .split(',')
          .flatMap((id) =>
            key
              .split(' ')[1]
              .split(',')
              .map((place) => `${id} ${place}`),
          ),
      ),
    );
  const [given, meant] = [pairs(ties.map(({ key }) => key)), pairs(right.keys())];
  const hit = [...meant].filter((pair) => given.has(pair)).length;
  console.log(
    `${name}: ${entries.length} entries, ${lines.length} lines, ${truth.length} ties; sure ${sure.length}, of these right ${((sure.length - wrong.length) / sure.length).toFixed(4)} (${wrong.length} wrong); found ${(found.size / truth.length).toFixed(4)}, pairs ${(hit / meant.size).toFixed(4)}; proposed ${ties.length}, right ${(found.size / ties.length).toFixed(4)}`,
  );
  if (!show) return;
  const byKey = new Map(entries.map((entry) => [entry.id, entry]));
  const tell = (key: string) => {
    const [ids, places] = key.split(' ');
    for (const id of ids.split(',')) console.log('    ', JSON.stringify(byKey.get(id)));
    for (const place of places.split(',')) console.log('      ', place, JSON.stringify(lines[Number(place) - 1]));
  };
  const listed =
    show === 'missed'
      ? [...right.keys()].filter((key) => !found.has(key)).slice(0, 25)
      : wrong.map(({ key }) => key).slice(0, 25);
  for (const key of listed) {
    const tie = ties.find((each) => each.key === key);
    console.log(show === 'missed' ? 'missed' : `wrong ${tie?.why} ${tie?.confidence}`);
    tell(key);
  }
}
