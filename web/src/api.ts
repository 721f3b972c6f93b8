import { addressOf, Asked, asker, callOf } from '@crow/contract/client';
import { Endpoint, Input, Output } from '@crow/contract/endpoint';
import { endpoints } from '@crow/contract/endpoints';
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

const send = (address: string, call?: RequestInit): Promise<Response> =>
  fetch(address, call)
    .catch(() => {
      throw new ReportedProblem(UNREACHABLE);
    })
    .then(answerOf);

/** Asks the server. @throws ReportedProblem */
export const ask = asker(send);

/** Asks for something that is not JSON, such as a picture. @throws ReportedProblem */
export async function askBytes<E extends Endpoint>(endpoint: E, input: Input<E>): Promise<Blob> {
  return (await send(addressOf(endpoint, input as Asked), callOf(endpoint, input as Asked))).blob();
}

/** Asks for a file: its bytes, and what the server calls it. @throws ReportedProblem */
export async function askFile<E extends Endpoint>(
  endpoint: E,
  input: Input<E>,
): Promise<{ bytes: Blob; name: string }> {
  const response = await send(addressOf(endpoint, input as Asked), callOf(endpoint, input as Asked));
  const [, name = 'file'] = /filename\*=UTF-8''([^;]+)/i.exec(response.headers.get('content-disposition') ?? '') ?? [];
  return { bytes: await response.blob(), name: decodeURIComponent(name) };
}

async function answerOf(response: Response): Promise<Response> {
  if (response.ok) return response;
  // The session has ended: the server's own page says how to come in again.
  if (response.status === UNKNOWN_HERE) location.reload();
  const report = (await response.json().catch(() => undefined)) as ProblemReport | undefined;
  throw new ReportedProblem(report?.happened ? report : UNREACHABLE);
}

/** Sends the bytes of a file to an endpoint that takes them. @throws ReportedProblem */
async function sendBytes<E extends Endpoint>(
  endpoint: E,
  query: Record<string, unknown>,
  file: File,
): Promise<Output<E>> {
  const response = await send(addressOf(endpoint, { query }), {
    method: endpoint.method,
    body: file,
    headers: { 'content-type': 'application/octet-stream' },
  });
  return response.json() as Promise<Output<E>>;
}

/** Sends an archive of the shelf, to be brought in again. @throws ReportedProblem */
export const sendArchive = (file: File): Promise<Output<typeof endpoints.sendArchive>> =>
  sendBytes(endpoints.sendArchive, { name: file.name }, file);

/** Has an archive of the shelf looked through for papers that are in it as they are on the shelf. @throws ReportedProblem */
export const lookThroughArchive = (file: File): Promise<Output<typeof endpoints.lookThroughArchive>> =>
  sendBytes(endpoints.lookThroughArchive, { name: file.name }, file);

/** Has a file of entries looked at, or taken in. @throws ReportedProblem */
export const sendEntries = (
  file: File,
  wish: { look?: boolean; columns?: string; turned?: boolean },
): Promise<Output<typeof endpoints.sendEntries>> =>
  sendBytes(endpoints.sendEntries, { name: file.name, ...wish }, file);

/** Has a statement's file looked at, or taken in. @throws ReportedProblem */
export const sendStatement = (
  file: File,
  wish: { look?: boolean; accountId?: string; another?: boolean; turned?: boolean },
): Promise<Output<typeof endpoints.sendStatement>> =>
  sendBytes(endpoints.sendStatement, { name: file.name, ...wish }, file);
