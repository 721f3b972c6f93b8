import { Habit, habitsOf } from '@crow/core/ledger/matching/habits';
import { AccountLine, findTransfers } from '@crow/core/ledger/matching/transfers';
import { matchPayments } from '@crow/core/ledger/matching/match';
import { Books, makeBooks, Vocabulary } from './matching/books';
import { ASIDE, FRESH, KNOWN } from './matching/vocabularies';

/**
 * Ties of payments and papers over made books of 24 months: how many of those called sure are right, how many there are were found.
 * node scripts/bench.mjs matching [known|aside|fresh] [seed]
 */
const SETS: Record<string, Vocabulary> = { known: KNOWN, aside: ASIDE, fresh: FRESH };
const SURE = 0.95;
const SYLLABLES = ['zor', 'vex', 'quil', 'jun', 'yab', 'wux', 'pyr', 'kij'];

/** What lines of transfers say, of the one end and of the other; nothing in every third. */
const SAID = [
  ['TO 40172290', 'RECEIVED'],
  ['Umbuchung', 'Umbuchung'],
  ['CARD PAYMENT', 'CREDIT'],
  ['to savings', 'from current account'],
  ['Überweisung', 'Gutschrift'],
  ['Virement interne', 'Virement'],
];

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
// The second year, without and with what the ties of the first year say of whom lines are about.
for (const [name, words] of Object.entries(SETS)) {
  if (wanted && wanted !== name && wanted !== 'all') continue;
  for (const number of seed.split(',').map(Number)) {
    measureLearning(name, makeBooks(words, number));
    measureLearning(`${name}, a third called otherwise by the bank`, calledOtherwise(makeBooks(words, number)));
  }
}
for (const [name, words] of Object.entries(SETS)) {
  if (wanted && wanted !== name && wanted !== 'all') continue;
  measureTransfers(name, makeBooks(words, 3));
}
const large = makeBooks(ASIDE, 99, { bills: 10_000, lines: 10_000 });
const began = performance.now();
matchPayments(large.entries, large.lines);
console.log(`10,000 entries and ${large.lines.length} lines: ${Math.round(performance.now() - began)} ms`);

/** What ties have in common with those that are true, by keys that name the same for what is in twice. */
function compared({ entries, lines, truth, again, twins }: Books, habits?: Habit[]) {
  const keyOf = (ids: readonly string[], places: readonly number[]) =>
    `${ids
      .map((id) => [id, twins.get(id) ?? id].sort()[0])
      .sort()
      .join()} ${places
      .map((place) => again.get(place) ?? place)
      .sort((a, b) => a - b)
      .join()}`;
  const right = new Map(truth.map((tie) => [keyOf(tie.entries, tie.lines), tie]));
  const ties = matchPayments(entries, lines, { habits }).map(({ entries: own, lines: those, ...rest }) => ({
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

/** The books with every third of those who are paid called something else on statements, as firms that collect under another name are. */
function calledOtherwise(books: Books): Books {
  const names = [...new Set(books.entries.map(({ who }) => who))];
  const alias = new Map(
    names.flatMap((who, at) =>
      at % 3 === 0
        ? [
            [
              who,
              [at % 8, (at >> 3) % 8, (at * 5) % 8]
                .map((each) => SYLLABLES[each])
                .join('')
                .toUpperCase(),
            ] as const,
          ]
        : [],
    ),
  );
  const whoOf = new Map(books.entries.map(({ id, who }) => [id, who]));
  const lines = [...books.lines];
  for (const { entries, lines: places } of books.truth) {
    const name = alias.get(whoOf.get(entries[0]) ?? '');
    if (name) for (const place of places) lines[place - 1] = { ...lines[place - 1], who: name };
  }
  return { ...books, lines };
}

/** Transfers between two accounts, laid among the lines of both, half of each; what is called sure and is none, and what is found. */
function measureTransfers(name: string, books: Books): void {
  const lines: AccountLine[] = books.lines.map((line, at) => ({ ...line, accountId: at % 2 ? 'savings' : 'bank' }));
  const days = lines.map(({ day }) => day);
  const truth = new Set<string>();
  for (let at = 0; at < 48; at++) {
    const units = 5_000 * (1 + (at % 9)) + (at % 4 ? 0 : 137 * at);
    const [out, come] = SAID[at % SAID.length];
    const day = days[(at * 49) % days.length];
    const later = new Date(Date.parse(day) + (at % 4) * 86_400_000).toISOString().slice(0, 10);
    truth.add(`${lines.length} ${lines.length + 1}`);
    lines.push({ ...{ day, units: -units, currency: 'GBP', who: '', text: out }, accountId: 'bank' });
    lines.push({ ...{ day: later, units, currency: 'GBP', who: '', text: come }, accountId: 'savings' });
  }
  const found = findTransfers(lines, [
    { id: 'bank', name: 'Orrin Harbour Bank', number: 'GB94BARC10201530093459' },
    { id: 'savings', name: 'Rainy day', number: '40172290' },
  ]);
  const isTrue = ({ from, to }: { from: number; to: number }) => truth.has(`${from} ${to}`);
  const sure = found.filter(({ confidence }) => confidence >= SURE);
  console.log(
    `${name}, transfers: ${truth.size} among ${lines.length} lines; sure ${sure.length}, ${sure.filter((each) => !isTrue(each)).length} wrong; found ${found.filter(isTrue).length}, proposed ${found.length}`,
  );
}

/** What is found of a year's ties by itself, and after those of the year before it were made. */
function measureLearning(name: string, books: Books): void {
  const middle = [...books.lines].map(({ day }) => day).sort()[books.lines.length >> 1];
  const isEarly = (place: number) => books.lines[place - 1].day < middle;
  const before = books.truth.filter(({ lines }) => lines.every(isEarly));
  const whoOf = new Map(books.entries.map(({ id, who }) => [id, who]));
  const habits = habitsOf(
    before.map(({ entries, lines }) => ({
      who: entries.flatMap((id) => whoOf.get(id) ?? []),
      lines: lines.map((place) => books.lines[place - 1]),
    })),
  );
  const tied = new Set(before.flatMap(({ entries }) => entries));
  const kept = books.lines.flatMap((line, at) => (isEarly(at + 1) ? [] : [{ line, place: at + 1 }]));
  const placeNow = new Map(kept.map(({ place }, at) => [place, at + 1]));
  const later: Books = {
    ...books,
    entries: books.entries.filter(({ id }) => !tied.has(id)),
    lines: kept.map(({ line }) => line),
    truth: books.truth
      .filter(({ lines }) => lines.every((place) => placeNow.has(place)))
      .map((tie) => ({ ...tie, lines: tie.lines.map((place) => placeNow.get(place)!) })),
    again: new Map(
      [...books.again].flatMap(([a, b]) =>
        placeNow.has(a) && placeNow.has(b) ? [[placeNow.get(a)!, placeNow.get(b)!]] : [],
      ),
    ),
  };
  const told = [undefined, habits].map((known) => {
    const { sure, wrong, found } = compared(later, known);
    return `sure ${sure.length}, ${wrong.length} wrong, found ${(found.size / later.truth.length).toFixed(4)}`;
  });
  console.log(`${name}, second year, ${later.truth.length} ties: ${told[0]}; with ${habits.length} habits ${told[1]}`);
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
