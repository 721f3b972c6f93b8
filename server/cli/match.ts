import { readFile } from 'node:fs/promises';
import { EntriesError, readEntries } from '@crow/core/ledger/entriesFile';
import { matchPayments } from '@crow/core/ledger/matching/match';
import { linesAsPaid } from '@crow/core/ledger/matching/turned';
import { alreadyThere } from '@crow/core/ledger/statements/once';
import { readStatement } from '@crow/core/ledger/statements/readStatement';
import { StatementError, StatementLine } from '@crow/core/ledger/statements/statement';
import { parseArguments } from './files';

const MOST_FILE_BYTES = 200 * 1024 ** 2;

/** `./crow match`: which lines of statements pay which entries, as JSON, without server or database. */
export async function main(args: string[]): Promise<number> {
  const { files: statements, given } = parseArguments(args, ['entries'], ['statement']);
  if (!given.entries) {
    console.error('Say which entries and which statements: ./crow match --entries ENTRIES.csv --statement FILE…');
    return 2;
  }
  let failed = false;
  const tell = (file: string, error: unknown) => {
    if (!(error instanceof StatementError || error instanceof EntriesError || isOfFiles(error))) throw error;
    failed = true;
    console.error(`${file}: ${(error as Error).message}`);
    return [];
  };
  const entries = await readFile(given.entries, 'utf8')
    .then(readEntries)
    .catch((error: unknown) => tell(given.entries!, error));
  const files: StatementLine[][] = [];
  for (const file of statements) {
    const statement = await bytesOf(file)
      .then(readStatement)
      .catch((error: unknown) => tell(file, error));
    if (!Array.isArray(statement)) files.push(linesAsPaid(statement, entries));
  }
  const there = alreadyThere(files).flat();
  const lines = files.flat();
  // Places among the lines that are matched, to places over all files.
  const places = lines.flatMap((_, at) => (there[at] ? [] : [at]));
  if (places.length < lines.length)
    console.error(`${lines.length - places.length} lines are in more than one file; each is taken once.`);
  const ties = matchPayments(
    entries,
    places.map((at) => lines[at]),
  ).map((tie) => ({ ...tie, lines: tie.lines.map((at) => places[at]) }));
  const [tiedEntries, tiedLines] = [new Set<number>(), new Set<number>()];
  for (const tie of ties) {
    tie.entries.forEach((each) => tiedEntries.add(each));
    tie.lines.forEach((each) => tiedLines.add(each));
  }
  console.log(
    JSON.stringify({
      ties: ties.map(({ entries: own, lines: those, confidence }) => ({
        entries: own.map((each) => entries[each].id),
        lines: those.map((each) => each + 1),
        confidence: Math.round(confidence * 10_000) / 10_000,
      })),
      openEntries: entries.flatMap(({ id }, at) => (tiedEntries.has(at) ? [] : [id])),
      openLines: places.flatMap((at) => (tiedLines.has(at) ? [] : [at + 1])),
    }),
  );
  return failed ? 1 : 0;
}

async function bytesOf(file: string): Promise<Uint8Array> {
  const bytes = await readFile(file);
  if (bytes.length > MOST_FILE_BYTES) throw new StatementError('It is larger than any statement.');
  return bytes;
}

function isOfFiles(error: unknown): boolean {
  return typeof (error as NodeJS.ErrnoException).syscall === 'string';
}
