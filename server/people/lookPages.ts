import { FastifyInstance, FastifyReply } from 'fastify';
import { inWords, Problem } from '@crow/contract/problems';
import { describeBlob } from '../platform/blobs';
import { Context } from '../platform/context';
import { sendBlob } from '../platform/http/sendBlob';
import { Behind, Links, LOOK } from '../sending/links';
import { browserName } from './browserName';
import { escaped, sendDoorPage } from './doorPages';

/** Looking costs a database's work and, with a password, argon2's. */
const MOST_A_MINUTE = 30;
const LONGEST_PASSWORD = 200;
const MEGABYTE = 1_000_000;

/**
 * The pages behind links: what there is to look at, asking for its password, and the file. A link that is only fetched ahead, as mail
 * programs do, counts as no look: that is when somebody asks for the file.
 */
export function lookPages(app: FastifyInstance, { database }: Pick<Context, 'database'>, links: Links): void {
  const { manager } = database.source;
  const seldom = { config: { rateLimit: { max: MOST_A_MINUTE, timeWindow: '1 minute' } } };

  app.get<{ Params: { secret: string } }>(`${LOOK}:secret`, async ({ params }, reply) =>
    showBehind(reply, await links.behind(manager, params.secret)),
  );

  app.post<{ Params: { secret: string }; Body: { password?: string } | undefined }>(
    `${LOOK}:secret`,
    seldom,
    async (request, reply) => {
      const { secret } = request.params;
      const looker = {
        password: String(request.body?.password ?? '').slice(0, LONGEST_PASSWORD),
        place: request.ip,
        browser: browserName(request.headers['user-agent']),
      };
      const ticket = await links.look(manager, secret, looker);
      if (ticket) return reply.header('cache-control', 'no-store').redirect(`${LOOK}${secret}/${ticket}`, 303);
      const still = await links.behind(manager, secret);
      return showBehind(reply, still, still?.locked ? new Problem('link-password-wrong') : undefined);
    },
  );

  app.get<{ Params: { secret: string; ticket: string } }>(`${LOOK}:secret/:ticket`, async ({ params }, reply) => {
    const found = await links.fetch(manager, params.ticket);
    if (!found) return showBehind(reply, await links.behind(manager, params.secret));
    const { blobId, fileName, mediaType } = found;
    const download = mediaType !== 'application/pdf';
    return sendBlob({ database }, reply, await describeBlob(database, blobId), { mediaType, fileName, download });
  });
}

function sizeInWords(bytes: number): string {
  return bytes < MEGABYTE ? `${Math.ceil(bytes / 1000)} kB` : `${(bytes / MEGABYTE).toFixed(1)} MB`;
}

function showBehind(reply: FastifyReply, behind: Behind | undefined, problem?: Problem): FastifyReply {
  const said = problem && `<p role="alert"><strong>${escaped(inWords(problem.report))}</strong></p>`;
  if (!behind) {
    const { report, status } = new Problem('link-over');
    return sendDoorPage(reply.code(status), report.happened, `<p>${escaped(report.todo!)}</p>`);
  }
  const { ends, title, bytes, locked, packing } = behind;
  if (problem) void reply.code(problem.status);
  const until = ends.toLocaleString('en-GB', { dateStyle: 'long', timeStyle: 'short' });
  const size = bytes ? `It has ${sizeInWords(bytes)}. ` : '';
  const ask = packing
    ? '<p>It is still being made: load this page again in a moment.</p>'
    : `<form method="post">${
        locked
          ? '<label>Password <input name="password" type="password" autocomplete="off" required autofocus></label>'
          : ''
      }<button>Open it</button></form>`;
  // What it is called may itself be meant for whoever has the password.
  const name = locked ? 'Something to look at' : title;
  return sendDoorPage(
    reply,
    name,
    `${said ?? ''}<p>Somebody lets you look at a copy of this, until ${escaped(until)}. ${size}</p>${ask}`,
  );
}
