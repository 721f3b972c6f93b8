import { Endpoint, Input, Output } from '@crow/contract/endpoint';
import { ProblemReport } from '@crow/contract/problems';

/** A problem that the server reported, with its sentences. */
export class ReportedProblem extends Error {
  constructor(readonly report: ProblemReport) {
    super(report.happened);
  }
}

const UNKNOWN_HERE = 401;
const UNREACHABLE: ProblemReport = {
  code: 'not-ready',
  happened: 'Crow Shelf does not answer.',
  kept: 'Everything saved before is safe.',
  todo: 'Look whether it is still running; this page goes on by itself once it is.',
};

/** The sentences of any error, for showing. */
export function reportOf(error: unknown): ProblemReport {
  if (error instanceof ReportedProblem) return error.report;
  return { code: 'unexpected', happened: 'Something went wrong in this window.', todo: 'Load the page again.' };
}

interface Parts {
  params?: Record<string, string>;
  query?: Record<string, unknown>;
  body?: unknown;
}

/** Asks the server. @throws ReportedProblem */
export async function ask<E extends Endpoint>(endpoint: E, input: Input<E>): Promise<Output<E>> {
  const response = await send(endpoint, input as Parts);
  return (response.status === 204 ? undefined : await response.json()) as Output<E>;
}

/** Asks for something that is not JSON, such as a picture. @throws ReportedProblem */
export async function askBytes<E extends Endpoint>(endpoint: E, input: Input<E>): Promise<Blob> {
  return (await send(endpoint, input as Parts)).blob();
}

async function send(endpoint: Endpoint, { params, query, body }: Parts): Promise<Response> {
  const response = await fetch(addressOf(endpoint, { params, query }), {
    method: endpoint.method,
    ...(body !== undefined && { body: JSON.stringify(body), headers: { 'content-type': 'application/json' } }),
  }).catch(() => {
    throw new ReportedProblem(UNREACHABLE);
  });
  return answerOf(response);
}

async function answerOf(response: Response): Promise<Response> {
  if (response.ok) return response;
  // The session has ended: the server's own page says how to come in again.
  if (response.status === UNKNOWN_HERE) location.reload();
  const report = (await response.json().catch(() => undefined)) as ProblemReport | undefined;
  throw new ReportedProblem(report?.happened ? report : UNREACHABLE);
}

/** How many documents of an archive came, were there already, and have no PDF in it. */
export interface Brought {
  brought: number;
  known: number;
  missing: number;
}

/** Sends an archive of the shelf, to be brought in again. @throws ReportedProblem */
export async function sendArchive(file: File): Promise<Brought> {
  const response = await fetch(`/api/shelf/archive?${new URLSearchParams({ name: file.name })}`, {
    method: 'PUT',
    body: file,
    headers: { 'content-type': 'application/octet-stream' },
  }).catch(() => {
    throw new ReportedProblem(UNREACHABLE);
  });
  return (await answerOf(response)).json() as Promise<Brought>;
}

/** The address of an endpoint. */
export function addressOf(endpoint: Endpoint, { params = {}, query = {} }: Parts): string {
  const path = endpoint.path.replace(/:(\w+)/g, (_, name: string) => encodeURIComponent(params[name]));
  const given = Object.entries(query).map(([name, value]) => [name, String(value)]);
  const search = new URLSearchParams(given).toString();
  return `/api${path}${search && `?${search}`}`;
}
