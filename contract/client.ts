import { Endpoint, Input, Output } from './endpoint';
import type { Arrival } from './stacks';

/** What an endpoint may be asked with, whichever it is. */
export interface Asked {
  params?: Record<string, string>;
  query?: Record<string, unknown>;
  body?: unknown;
}

/** How an endpoint is asked over HTTP. */
export interface Call {
  method: Endpoint['method'];
  headers: Record<string, string>;
  body?: string;
}

/** What comes back; whoever sends has thrown if it is no good. */
interface Answer {
  status: number;
  json(): Promise<unknown>;
}

/** The address of an endpoint on the server; what is undefined in the query is left out. */
export function addressOf(endpoint: Pick<Endpoint, 'path'>, { params = {}, query = {} }: Asked): string {
  const path = endpoint.path.replace(/:(\w+)/g, (_, name: string) => encodeURIComponent(params[name]));
  const given = Object.entries(query).flatMap(([name, value]) => (value === undefined ? [] : [[name, String(value)]]));
  const search = new URLSearchParams(given).toString();
  return `/api${path}${search && `?${search}`}`;
}

/** What is sent to an endpoint's address. */
export function callOf({ method }: Endpoint, { body }: Asked): Call {
  if (body === undefined) return { method, headers: {} };
  return { method, headers: { 'content-type': 'application/json' }, body: JSON.stringify(body) };
}

/** What is said of a file when it begins to be sent (tus 1.0.0, creation). @param bytes how long it is */
export function uploadHeaders(
  told: Partial<Record<keyof Arrival, string | number>>,
  bytes: number,
): Record<string, string> {
  const metadata = Object.entries(told).flatMap(([name, value]) =>
    value === undefined ? [] : [`${name} ${base64(String(value))}`],
  );
  return { 'tus-resumable': '1.0.0', 'upload-length': String(bytes), 'upload-metadata': metadata.join(',') };
}

/** The media type of a piece of a file. */
export const PIECE = 'application/offset+octet-stream';

function base64(text: string): string {
  return btoa(String.fromCharCode(...new TextEncoder().encode(text)));
}

/** Asks endpoints by their types. @param send takes a call to the server; throws where the answer is no good */
export function asker(
  send: (address: string, call: Call) => Promise<Answer>,
): <E extends Endpoint>(endpoint: E, input: Input<E>) => Promise<Output<E>> {
  return async (endpoint, input) => {
    const answer = await send(addressOf(endpoint, input as Asked), callOf(endpoint, input as Asked));
    return (answer.status === 204 ? undefined : await answer.json()) as never;
  };
}
