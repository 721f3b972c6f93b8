import pino, { Logger } from 'pino';

/** Writes to standard error, as JSON lines; how much is said by CROW_LOG (warn unless told otherwise). */
export function openLog(part: string): Logger {
  return pino({ level: process.env.CROW_LOG ?? 'warn', base: { part } }, pino.destination({ fd: 2, sync: true }));
}
