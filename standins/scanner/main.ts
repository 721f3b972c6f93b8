import { startScanner } from './scanner';

/** The stand-in scanner as a process of its own; CROW_SCANNER_PORT says which port it takes (0: any). */
const scanner = await startScanner({ port: Number(process.env.CROW_SCANNER_PORT ?? 0) });
process.send?.({ listening: scanner.address });
const stop = () => void scanner.close().then(() => process.exit(0));
process.on('SIGTERM', stop);
process.on('SIGINT', stop);
process.on('disconnect', stop);
