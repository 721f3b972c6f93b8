import { readFile } from 'node:fs/promises';
import { Piscina } from 'piscina';
import { Problem, toldProblem, KeptProblem, keptProblem } from '@crow/contract/problems';
import { Turn } from '@crow/core/geometry';
import { Legibility } from '@crow/core/imaging/legibility';
import { Proposal } from '@crow/core/imaging/proposing/proposal';
import { proposePages, Seen } from '@crow/core/imaging/proposing/proposals';
import { judgeRecipe, Recipe } from '@crow/core/imaging/recipe';
import { contentsOf, PdfContents } from '@crow/core/pdf/contents';
import { readStatement } from '@crow/core/ledger/statements/readStatement';
import { Statement, StatementError } from '@crow/core/ledger/statements/statement';
import { DerivedPicture, derivePictures, lookedAtPicture, PictureSize } from './pictures';
import { withScratch } from './scratch';
import { SourceInfo } from './sourceFile';

/** How a sheet lies in a picture, and, where it is one of several, how legible it is when it is made so. */
export type JudgedProposal = Proposal & { legibility: Legibility | null };

/** What takes so long to compute that it must not be done where others wait for an answer. All arguments can be sent to a thread. */
export interface Heavy {
  /** As `derivePictures`. */
  pictures(
    source: SourceInfo,
    number: number,
    turn: Turn,
    sizes: PictureSize[],
    recipe: Recipe | null,
  ): Promise<Map<PictureSize, DerivedPicture>>;
  /**
   * Looks for the sheets in the picture of a page. @param number from 0
   * @param seen what it is known to be of; where that gives several pages, they are judged @throws Problem 'page-not-drawn'
   */
  sheets(source: SourceInfo, number: number, seen: Seen): Promise<JudgedProposal[]>;
  /** The outline and the links of a PDF; none of one that can't be read. */
  contents(source: SourceInfo): Promise<PdfContents>;
  /** The statement in a file, of any format. @throws Problem 'statement-not-read' */
  statement(name: string, bytes: Uint8Array): Promise<Statement>;
}

/** Done in this thread: where nobody waits for anything else. */
export const heavyHere: Heavy = {
  pictures: (source, number, turn, sizes, recipe) =>
    withScratch((folder) => derivePictures(source, number, turn, sizes, folder, recipe)),
  sheets: async (source, number, seen) => {
    const picture = await withScratch((folder) => lookedAtPicture(source, number, folder));
    const { scanned, width, height, pointWidth, pointHeight } = source.pages[number];
    const asScan: [number, number] | undefined = scanned && seen === 'papers' ? [pointWidth, pointHeight] : undefined;
    const enlarged = Math.max(width, height) / Math.max(picture.width, picture.height);
    return proposePages(picture, seen, asScan).map((proposal) => ({
      ...proposal,
      legibility: seen !== 'sheets' ? judgeRecipe(picture, proposal.recipe, { enlarged }) : null,
    }));
  },
  contents: async ({ path }) => contentsOf(await readFile(path)).catch(() => ({ outline: [], links: [] })),
  statement: async (name, bytes) => {
    try {
      return readStatement(bytes);
    } catch (error) {
      if (error instanceof StatementError) throw new Problem('statement-not-read', { name, detail: error.message });
      throw error;
    }
  },
};

/** A piece of heavy work on its way to a thread, and what comes back of it. */
export interface HeavyWork {
  name: keyof Heavy;
  given: unknown[];
}
export type HeavyResult = { value: unknown } | { problem: KeptProblem };

const MOST_THREADS = 2;
const IDLE_MS = 60_000;
/** What takes longer, its wait for a thread counted in, would keep that for ever: it is ended, and the next work gets another. */
const MOST_MS = 300_000;

/**
 * Done in threads beside this one, a few at a time, in the order in which it was asked for.
 * @param entry the built module of `heavyThread.ts`
 * @throws Problem of each of them, and 'took-too-long'
 */
export function heavyInThreads(entry: string, { mostMs = MOST_MS } = {}): Heavy & { close(): Promise<void> } {
  const threads = new Piscina<HeavyWork, HeavyResult>({
    filename: entry,
    minThreads: 0,
    maxThreads: MOST_THREADS,
    idleTimeout: IDLE_MS,
  });
  const runFor = async (what: string, name: keyof Heavy, ...given: unknown[]) => {
    const signal = AbortSignal.timeout(mostMs);
    const result = await threads.run({ name, given }, { signal }).catch((error: unknown) => {
      throw signal.aborted ? new Problem('took-too-long', { what, seconds: Math.round(mostMs / 1000) }) : error;
    });
    if ('value' in result) return result.value;
    const { code, details = {} } = toldProblem(result.problem);
    throw new Problem(code, details);
  };
  const run = (name: keyof Heavy, source: SourceInfo, ...more: unknown[]) =>
    runFor(`Making a page of “${source.name}”`, name, source, ...more);
  return {
    pictures: async (...given) => {
      const made = (await run('pictures', ...given)) as Map<PictureSize, DerivedPicture>;
      // What crosses between threads are plain bytes.
      for (const [size, { bytes, mediaType }] of made)
        made.set(size, { bytes: Buffer.from(bytes.buffer, bytes.byteOffset, bytes.byteLength), mediaType });
      return made;
    },
    sheets: async (...given) => (await run('sheets', ...given)) as JudgedProposal[],
    contents: async (source) => (await run('contents', source)) as PdfContents,
    statement: async (name, bytes) => (await runFor(`Reading “${name}”`, 'statement', name, bytes)) as Statement,
    close: () => threads.destroy(),
  };
}

/** What a thread does with a piece of work. */
export async function doHeavy({ name, given }: HeavyWork): Promise<HeavyResult> {
  try {
    return { value: await (heavyHere[name] as (...all: unknown[]) => Promise<unknown>)(...given) };
  } catch (error) {
    if (error instanceof Problem) return { problem: keptProblem(error.report) };
    throw error;
  }
}
