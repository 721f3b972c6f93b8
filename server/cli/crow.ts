import { Problem, inWords } from '@crow/contract/problems';

const HELP = `Crow Shelf: from a pile of paper to searchable PDFs in named folders.

  ./crow demo      start with the demo papers
  ./crow start     start with your own shelf
  ./crow key       print an address that lets one more browser in, while it runs  [demo]
  ./crow test      check everything
  ./crow scanner   a scanner that isn’t there, to try scanning with
  ./crow worker    work for the database that CROW_DATABASE names
  ./crow outline FILE…
                   print where the sheets are in each picture, as JSON
  ./crow clean FILE… --out FOLDER [--look clear-colour|grey|black-and-white|even-light|as-shot] [--book [--right-bound]]
                   write each page outlined, flat, upright and legible as a PNG; with --book, of an open book its two pages,
                   the right one first with --right-bound
  ./crow read FILE… [--languages eng,deu]
                   print the words and facts of each file as JSON
  ./crow sort FILE… [--languages eng,deu]
                   print where the documents of a pile begin, and which pages are blank, as JSON
  ./crow bind FILE… --out OUT.pdf [--size full|balanced|small] [--languages eng,deu]
                   bind all files into one searchable PDF
  ./crow match --entries ENTRIES.csv --statement FILE…
                   print which lines of bank statements (CSV, OFX, CAMT, MT940, QIF) pay which entries, as JSON

CROW_HOME says where the shelf is kept (usually .crow/own, for the demo .crow/demo).`;

const COMMANDS: Record<string, () => Promise<{ main(args: string[]): Promise<number> }>> = {
  demo: () => import('./demo'),
  start: () => import('./start'),
  key: () => import('./key'),
  scanner: () => import('./scanner'),
  outline: () => import('./outline'),
  clean: () => import('./clean'),
  read: () => import('./read'),
  sort: () => import('./sort'),
  bind: () => import('./bind'),
  match: () => import('./match'),
};

async function main(): Promise<number> {
  const [command, ...args] = process.argv.slice(2);
  if (command === 'worker') {
    await import('../worker');
    return await new Promise<never>(() => undefined);
  }
  const load = COMMANDS[command ?? ''];
  if (!load) {
    console.error(HELP);
    return command === undefined || command === 'help' || command === '--help' ? 0 : 2;
  }
  return (await load()).main(args);
}

/** Ends once what was printed has gone to whoever reads it, however slowly: a pipe holds only so much. */
function end(code: number): void {
  process.stdout.write('', () => process.exit(code));
}

main().then(end, (error: unknown) => {
  console.error(
    error instanceof Problem ? inWords(error.report) : error instanceof Error ? error.message : String(error),
  );
  if (process.env.CROW_LOG === 'debug') console.error(error);
  end(1);
});
