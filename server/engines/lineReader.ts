import { ChildProcessWithoutNullStreams } from 'node:child_process';
import { once } from 'node:events';
import { existsSync } from 'node:fs';
import { dirname, join, resolve } from 'node:path';
import { Problem } from '@crow/contract/problems';
import { greyOf, Raster } from '@crow/core/imaging/raster';
import { parseSpelled, SpelledWord } from '@crow/core/reading/spelled';
import { startChild } from './child';
import { dataPath } from './languageData';

const LIMITS = { megabytes: 3000 };
/** Reading so many lines may take so long, in seconds. */
const SECONDS = 120;
/** A reader that nobody has needed for so long, in milliseconds, ends. */
const IDLE = 20_000;

/**
 * A running line reader for one language: a small program of ours around the recogniser's library that keeps its models loaded,
 * since starting the recogniser anew takes as long as reading ten lines.
 */
class LineReader {
  private readonly child: ChildProcessWithoutNullStreams;
  private told = '';
  private errors = '';
  private waiting:
    { missing: number; read: string[]; done: (read: string[]) => void; fail: (error: Error) => void } | undefined;
  private idle: NodeJS.Timeout | undefined;
  ended = false;

  constructor(readonly language: string) {
    this.child = startChild(program(), [language], LIMITS, dataPath());
    this.child.stdout.setEncoding('utf8').on('data', (piece: string) => this.hear(piece));
    this.child.stderr.on('data', (piece: Buffer) => (this.errors += this.errors.length < 2000 ? piece.toString() : ''));
    // What can't be written any more is told of when the child closes.
    this.child.stdin.on('error', () => undefined);
    this.child.on('error', () => this.end('it could not be started'));
    this.child.on('close', () => this.end(plainReason(this.errors)));
    this.rest();
  }

  /** @throws Problem 'page-not-read', 'took-too-long' */
  async read(lines: readonly { picture: Raster }[]): Promise<SpelledWord[][]> {
    if (this.ended) throw new Problem('page-not-read', { detail: plainReason(this.errors) });
    clearTimeout(this.idle);
    this.hold(true);
    let late = false;
    const timer = setTimeout(() => {
      late = true;
      this.child.kill('SIGKILL');
    }, SECONDS * 1000);
    try {
      const read = new Promise<string[]>((done, fail) => {
        this.waiting = { missing: lines.length, read: [], done, fail };
      });
      // Should it end before everything is written, nobody waits for what it has read yet.
      read.catch(() => undefined);
      for (const line of lines) {
        const { width, height, data } = greyOf(line.picture);
        const size = Buffer.alloc(8);
        size.writeUInt32LE(width, 0);
        size.writeUInt32LE(height, 4);
        this.child.stdin.write(size);
        const taken = this.child.stdin.write(Buffer.from(data.buffer, data.byteOffset, data.length));
        if (!taken) await Promise.race([once(this.child.stdin, 'drain').catch(() => read), read]);
      }
      return (await read).map(parseSpelled);
    } catch (error) {
      // It may be in the middle of a line that it will never get.
      if (!this.ended) this.retire();
      throw late ? new Problem('took-too-long', { what: 'Reading the page', seconds: SECONDS }) : error;
    } finally {
      clearTimeout(timer);
      this.rest();
    }
  }

  private hear(piece: string): void {
    this.told += piece;
    // A line's characters end with an empty line; a line in which nothing was read is nothing but that.
    for (;;) {
      const end = this.told.startsWith('\n') ? 0 : this.told.indexOf('\n\n') + 1;
      if (end < 0 || (end === 0 && !this.told.startsWith('\n'))) return;
      this.waiting?.read.push(this.told.slice(0, end));
      this.told = this.told.slice(end + 1);
      if (this.waiting && this.waiting.read.length === this.waiting.missing) {
        const { done, read } = this.waiting;
        this.waiting = undefined;
        done(read);
      }
    }
  }

  private rest(): void {
    this.hold(false);
    this.idle = setTimeout(() => this.retire(), IDLE).unref();
  }

  /** Ends it; from now on nobody is given it to read with. */
  private retire(): void {
    this.end('');
    this.child.kill('SIGKILL');
  }

  private end(reason: string): void {
    this.ended = true;
    readers.delete(this);
    this.waiting?.fail(new Problem('page-not-read', { detail: reason }));
    this.waiting = undefined;
  }

  /** While nothing is being read, the reader keeps nobody from ending. */
  private hold(on: boolean): void {
    const { stdin, stdout, stderr } = this.child;
    for (const each of [this.child, stdin, stdout, stderr] as { ref?: () => void; unref?: () => void }[])
      (on ? each.ref : each.unref)?.call(each);
  }
}

/** All that run, and whether each is at work. */
const readers = new Map<LineReader, boolean>();

/**
 * Reads pictures of single lines of text, dark on white, capitals about 30 pixels high. A picture is asked for when the reader
 * is ready for it.
 * @param language ISO 639-2, of an installed one
 * @returns for each line its words
 * @throws Problem 'page-not-read', 'took-too-long'
 */
export async function readLines(
  lines: readonly { readonly picture: Raster }[],
  language: string,
): Promise<SpelledWord[][]> {
  if (lines.length === 0) return [];
  const reader = freeReader(language) ?? new LineReader(language);
  readers.set(reader, true);
  try {
    return await reader.read(lines);
  } finally {
    if (readers.has(reader)) readers.set(reader, false);
  }
}

/** Has a language's models loaded, since lines in it are soon to be read. */
export function expectLines(language: string): void {
  if (!freeReader(language)) readers.set(new LineReader(language), false);
}

function freeReader(language: string): LineReader | undefined {
  return [...readers].find(([reader, busy]) => !busy && !reader.ended && reader.language === language)?.[0];
}

/** The compiled program: beside the bundle that runs, or in the checkout. */
function program(): string {
  const places = [join(dirname(resolve(process.argv[1] ?? '.')), '../../native'), resolve('.crow/native')];
  const place = places.find((folder) => existsSync(join(folder, 'line-reader'))) ?? places[0];
  return join(place, 'line-reader');
}

function plainReason(errors: string): string {
  if (/Failed loading language|couldn't load any languages/i.test(errors))
    return 'a language is not installed on this machine';
  return 'the recogniser gave up on it';
}
