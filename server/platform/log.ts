import pino, { Logger } from 'pino';

/** Errors whose message is the engine's own and holds nothing of what it worked on. */
const OWN_WORDS = ['TypeError', 'RangeError', 'ReferenceError', 'Problem'];

/**
 * What the log keeps of an error: what kind it is and where it happened. Messages of other errors may quote what papers say, what
 * somebody searched for, or what a query was given, and are left out.
 */
export function withoutContents(error: unknown): object {
  if (!(error instanceof Error)) return { name: typeof error };
  const { name, code, stack, message } = error as NodeJS.ErrnoException;
  const frames = (stack ?? '').split('\n').filter((line) => /^\s+at /.test(line));
  return {
    name: error.constructor.name,
    ...(code && { code }),
    ...(OWN_WORDS.includes(name) && { message: name === 'Problem' ? undefined : message }),
    stack: frames.map((line) => line.trim()),
  };
}

/**
 * Writes to standard error, as JSON lines; how much is said by CROW_LOG (warn unless told otherwise). It holds no contents: errors are
 * given as `error`, and told by `withoutContents`.
 */
export function openLog(part: string): Logger {
  return pino(
    {
      level: process.env.CROW_LOG ?? 'warn',
      base: { part },
      serializers: { error: withoutContents, err: withoutContents },
    },
    pino.destination({ fd: 2, sync: true }),
  );
}
