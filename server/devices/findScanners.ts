import { networkInterfaces } from 'node:os';
import { Bonjour, Service as Announced } from 'bonjour-service';

type Service = Pick<Announced, 'name' | 'port' | 'addresses' | 'txt'>;

export interface FoundScanner {
  name: string;
  /** Where it answers eSCL. */
  address: string;
}

const LOOK_MS = 2500;

/** Looks for scanners that make themselves known on the network (mDNS, `_uscan._tcp`), for a few seconds. */
export async function findScanners(milliseconds = LOOK_MS): Promise<FoundScanner[]> {
  const found = new Map<string, FoundScanner>();
  // Without a network nothing is found; that is no fault.
  const bonjour = new Bonjour({}, () => undefined);
  const browser = bonjour.find({ type: 'uscan' }, (service) => {
    const scanner = scannerOf(service);
    if (scanner) found.set(scanner.address, scanner);
  });
  await new Promise((done) => setTimeout(done, milliseconds));
  browser.stop();
  bonjour.destroy();
  return [...found.values()];
}

/** Where a scanner that makes itself known answers; undefined when that can't be told. @param own addresses of this machine */
export function scannerOf(
  { name, port, addresses = [], txt }: Service,
  own = ownAddresses(),
): FoundScanner | undefined {
  const told = (txt ?? {}) as Record<string, string>;
  const numbers = addresses.filter((address) => /^\d+(\.\d+){3}$/.test(address));
  // One on this machine is reached on loopback, where it may be the only place that it listens at.
  const host = numbers.some((address) => own.includes(address)) ? '127.0.0.1' : numbers[0];
  const path = (told.rs ?? 'eSCL').replace(/^\/+|\/+$/g, '');
  if (!host || !/^[\w/-]*$/.test(path)) return undefined;
  return { name: told.ty ?? name, address: `http://${host}:${port}/${path}` };
}

function ownAddresses(): string[] {
  return Object.values(networkInterfaces()).flatMap((each) => (each ?? []).map(({ address }) => address));
}
