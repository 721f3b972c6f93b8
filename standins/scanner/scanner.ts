import { AddressInfo } from 'node:net';
import Fastify from 'fastify';
import { announce } from './announce';
import { controlPage } from './controls';
import { Machine } from './machine';
import { speakEscl } from './protocol';

export interface StandInScanner {
  /** Where it answers, such as http://127.0.0.1:40123. */
  address: string;
  machine: Machine;
  close(): Promise<void>;
}

/**
 * Starts the stand-in scanner on loopback: a network scanner with a feeder and a glass, that speaks eSCL, with a small page on
 * which papers are put into it.
 * @param hurry how many times as fast as real it works
 * @param seed what its noise and how askew sheets come out follow from, for the same scans each time
 * @param announced whether it makes itself known on the network (mDNS)
 */
export async function startScanner({
  port = 0,
  hurry = 1,
  announced = true,
  seed = undefined as number | undefined,
} = {}): Promise<StandInScanner> {
  const app = Fastify({ bodyLimit: 64 * 1024 * 1024, forceCloseConnections: true });
  const machine = new Machine();
  speakEscl(app, machine, { hurry, seed });
  controlPage(app, machine);
  await app.listen({ host: '127.0.0.1', port });
  const { port: taken } = app.server.address() as AddressInfo;
  const silence = announced ? announce(taken) : async () => undefined;
  return {
    address: `http://127.0.0.1:${taken}`,
    machine,
    close: async () => {
      await silence();
      await app.close();
    },
  };
}
