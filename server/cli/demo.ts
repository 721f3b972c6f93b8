import { existsSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { PASSWORD, USER } from '@crow/standins/mail/server';
import { fillDemo, knowMailServer, knowScanner } from '@crow/demo/fill';
import { deleteHome } from './cluster';
import { homeOf } from './home';
import { Running, runningIn } from './run';
import { serveUntilStopped } from './start';

/** `./crow demo`: the program with the demo papers, which are made and read at the first start. */
export async function main(): Promise<number> {
  const home = homeOf('demo');
  const complete = join(home, 'demo-complete');
  // A demo that was interrupted while it was being made is made anew.
  if (!existsSync(complete) && !runningIn(home)) deleteHome(home);
  const first = async ({ entrance, scanner, mail }: Running) => {
    if (!existsSync(complete)) {
      console.error('Making the demo papers and reading them; this takes about a minute, once.');
      await fillDemo(await entrance(), (line) => console.error(line));
      writeFileSync(complete, '');
    }
    // Its port may be another one than last time.
    if (scanner) await knowScanner(await entrance(), `${scanner}/eSCL`);
    if (mail) await knowMailServer(await entrance(), { port: mail.port, user: USER, password: PASSWORD });
  };
  return serveUntilStopped(home, first, { standIns: true });
}
