import { createServer } from 'node:net';

/** A port on loopback that is free now; the wished one if it is. */
export function freePort(wished = 0): Promise<number> {
  return new Promise((resolve, reject) => {
    const server = createServer();
    server.once('error', (error) => (wished ? resolve(freePort()) : reject(error)));
    server.listen(wished, '127.0.0.1', () => {
      const address = server.address();
      server.close(() => resolve(typeof address === 'object' && address ? address.port : 0));
    });
  });
}
