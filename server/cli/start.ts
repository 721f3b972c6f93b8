import { homeOf } from './home';
import { run, Running } from './run';

/** `./crow start`: the program with the person's own shelf, until Ctrl-C. */
export async function main(): Promise<number> {
  const home = homeOf('own');
  return serveUntilStopped(home, async () => undefined);
}

/** Starts the program, does what there is to do at first, prints the address, and waits for Ctrl-C. */
export async function serveUntilStopped(
  home: string,
  first: (running: Running) => Promise<void>,
  options: { standIns?: boolean } = {},
): Promise<number> {
  const stopped = new Promise<void>((done) => {
    for (const signal of ['SIGINT', 'SIGTERM', 'SIGHUP'] as const) process.on(signal, () => done());
  });
  const running = await run(home, (line) => console.error(line), options);
  try {
    await Promise.race([first(running), stopped]);
    console.log(
      [
        `\nCrow Shelf is at  ${await running.entrance()}`,
        'This address lets one browser in, once, and for good; “./crow key” prints another.',
        `Filed papers lie in  ${running.shelf}`,
        ...(running.scanner ? [`The stand-in scanner is at  ${running.scanner}`] : []),
        ...(running.mail ? [`The stand-in mail server shows what arrived at  ${running.mail.page}`] : []),
        'Ctrl-C ends it.',
      ].join('\n'),
    );
    await stopped;
  } finally {
    console.error('Ending …');
    await running.stop();
  }
  return 0;
}
