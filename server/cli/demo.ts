import { existsSync, rmSync, writeFileSync } from 'node:fs';
import { join, resolve } from 'node:path';
import { fillDemo } from '@crow/demo/fill';
import { runningIn } from './run';
import { serveUntilStopped } from './start';

/** `./crow demo`: the program with the demo papers, which are made and read at the first start. */
export async function main(): Promise<number> {
  const home = resolve(process.env.CROW_HOME ?? '.crow/demo');
  const complete = join(home, 'demo-complete');
  // A demo that was interrupted while it was being made is made anew.
  if (!existsSync(complete) && !runningIn(home)) rmSync(home, { recursive: true, force: true });
  return serveUntilStopped(home, async ({ address }) => {
    if (existsSync(complete)) return;
    console.error('Making the demo papers and reading them; this takes about a minute, once.');
    await fillDemo(address, (line) => console.error(line));
    writeFileSync(complete, '');
  });
}
