import { hostname, networkInterfaces } from 'node:os';
import { FastifyRequest } from 'fastify';

/** By what a request has reached the program. */
export interface Origin {
  /** As browsers write it: scheme, host and port. */
  origin: string;
  /** Whether the way from the browser is encrypted. */
  secure: boolean;
}

/**
 * The addresses and names of this machine that other devices may reach it by, IPv4 addresses first: most likely works what needs no names.
 */
export function ownNames(): string[] {
  const addresses = Object.values(networkInterfaces())
    .flatMap((found) => found ?? [])
    .filter(({ internal, family }) => !internal && family === 'IPv4')
    .map(({ address }) => address);
  const name = hostname().toLowerCase().split('.')[0];
  return [...addresses, ...(/^[a-z0-9-]+$/.test(name) ? [`${name}.local`, name] : [])];
}

/**
 * Which origin a request was sent to: this machine by loopback, this machine by the door for other devices (TLS), or a name of the owner's
 * own, by that door or by a proxy in front on this machine. Nothing for any other host: that is a page elsewhere whose name was pointed here
 * (DNS rebinding).
 * @param named the owner's own origin, if there is one
 */
export function originOf(
  { headers: { host }, socket }: Pick<FastifyRequest, 'headers' | 'socket'>,
  named: URL | undefined,
): Origin | undefined {
  if (!host) return undefined;
  if (named && host === named.host) return { origin: named.origin, secure: named.protocol === 'https:' };
  const encrypted = 'encrypted' in socket && socket.encrypted === true;
  const [name, port] = splitHost(host);
  if (!encrypted) return isLoopback(name) ? { origin: `http://${host}`, secure: false } : undefined;
  if (Number(port ?? 443) !== socket.localPort) return undefined;
  const reached = [socket.localAddress?.replace(/^::ffff:/, ''), ...ownNames()];
  return isLoopback(name) || reached.includes(name) ? { origin: `https://${host}`, secure: true } : undefined;
}

function isLoopback(name: string): boolean {
  return /^(127\.0\.0\.1|localhost|\[::1\])$/.test(name);
}

/** @returns name (small letters) and port */
function splitHost(host: string): [string, string | undefined] {
  const [, name, port] = /^(.*?)(?::(\d+))?$/.exec(host.toLowerCase()) ?? ['', host, undefined];
  return [name, port];
}

/**
 * The owner's own origin, such as `https://papers.example.org`, as CROW_ORIGIN says it.
 * @throws Error with a sentence when it is none
 */
export function namedOrigin(said: string | undefined): URL | undefined {
  if (!said) return undefined;
  const url = URL.canParse(said) ? new URL(said) : undefined;
  if (url?.protocol !== 'https:' || url.pathname !== '/' || url.search || url.hash || url.username)
    throw new Error(`CROW_ORIGIN is to be an origin such as https://papers.example.org, and not “${said}”.`);
  return url;
}
