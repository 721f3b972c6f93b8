import { startScanner } from '@crow/standins/scanner/scanner';

/** `./crow scanner`: the stand-in scanner by itself, for trying scanning without one, until Ctrl-C. */
export async function main(): Promise<number> {
  const scanner = await startScanner({ port: Number(process.env.CROW_SCANNER_PORT ?? 0) });
  console.log(
    `The stand-in scanner is at  ${scanner.address}\nPut papers into it there; in Crow Shelf, its address is  ${scanner.address}/eSCL\nCtrl-C ends it.`,
  );
  await new Promise<void>((done) => {
    for (const signal of ['SIGINT', 'SIGTERM', 'SIGHUP'] as const) process.on(signal, () => done());
  });
  await scanner.close();
  return 0;
}
