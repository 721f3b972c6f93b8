import cookie from '@fastify/cookie';
import formBody from '@fastify/formbody';
import { FastifyInstance, FastifyReply, FastifyRequest } from 'fastify';
import { Seen } from '@crow/contract/endpoint';
import { inWords, Problem } from '@crow/contract/problems';
import { browserName } from './browserName';
import { comeIn, endSession, isAnybodyNamed } from './people';
import { escaped, sendDoorPage } from './doorPages';
import { lookPages } from './lookPages';
import { NetworkDoor } from './networkDoor';
import { Origin, originOf } from './origins';
import { actorOf, letIn } from './sessions';
import { insistOnSight } from './sight';
import { CERTIFICATE, TRUST, trustPage } from './trustPage';
import { Database } from '../platform/database';
import { Asking } from '../platform/history';
import { Links, LOOK } from '../sending/links';

declare module 'fastify' {
  interface FastifyRequest {
    /** Who asks. */
    actor: Asking;
    sessionId: string;
    /** By what this machine was reached. */
    reachedBy: Origin;
  }
}

/** Gives a session to whoever brings a key, or name and pass phrase. */
const ENTER = '/enter';
/** What a home screen shows of the application: some devices fetch it without the session that they have. */
const ICONS = ['/icon.svg', '/icon-192.png', '/icon-512.png', '/icon-maskable.png', '/apple-touch-icon.png'];
/** All that is answered without a session, besides what is behind links: coming in, what a device needs to trust the certificate, and icons. */
const OPEN = [ENTER, TRUST, CERTIFICATE, ...ICONS];
const SESSION_SECONDS = 90 * 24 * 3600;
const LONGEST_KEY = 200;
/** What is filled in at the door is no longer than this, in bytes. */
const LONGEST_FORM = 2000;
/** Trying a pass phrase costs as much as it costs whoever guesses. */
const MOST_TRIES_A_MINUTE = 30;

/**
 * The door: requests that were not sent by a page of ours, or by a person, are refused; so is everything without a session,
 * whatever it asks for, besides being let in with a key, or by name and pass phrase.
 * @param named the owner's own origin, if there is one
 */
export async function door(
  app: FastifyInstance,
  database: Database,
  { networkDoor, links, named }: { networkDoor: NetworkDoor; links: Links; named?: URL },
): Promise<void> {
  await app.register(cookie);
  await app.register(formBody, { bodyLimit: LONGEST_FORM });
  const { manager } = database.source;
  app.decorateRequest('actor', null as unknown as Asking);
  app.decorateRequest('sessionId', '');
  app.decorateRequest('reachedBy', null as unknown as Origin);
  app.decorate('insistOnSight', ({ sight }: Asking, of: Seen, id: string) => insistOnSight(manager, sight, of, id));
  app.addHook('onRequest', async (request, reply) => {
    const reachedBy = originOf(request, named);
    if (!reachedBy) throw new Problem('not-allowed');
    request.reachedBy = reachedBy;
    if (!isFromHere(request) && !isLookFromElsewhere(request)) {
      // A link on another page: the browser holds the session back for it, and sends it when our own page is the one that asks.
      if (isLinkFromElsewhere(request))
        return sendDoorPage(
          reply.code(200),
          'Crow Shelf',
          `<p>A link on another page leads here.</p><p><a href="${escaped(request.url.replace(/^\/+/, '/'))}">Go on to Crow Shelf</a></p>`,
        );
      throw new Problem('not-allowed');
    }
    const secret = request.cookies[cookieName(request)];
    const known = secret ? await actorOf(manager, secret) : undefined;
    if (known) [request.actor, request.sessionId] = [known.asking, known.sessionId];
    else if (!isOpen(request.url.split('?')[0])) return refuse(request, reply, await isAnybodyNamed(manager));
  });
  app.get<{ Querystring: { key?: string } }>(ENTER, async (request, reply) => {
    // The key itself, or the whole address that it came in.
    const key = String(request.query.key ?? '')
      .replace(/^.*[?&]key=/, '')
      .slice(0, LONGEST_KEY);
    const secret = await letIn(manager, key, browserName(request.headers['user-agent']));
    // Whoever has been let in and comes by the same address again, from a list of bookmarks, goes on; with a key that is good they come
    // in by that, and what they were in as before is over.
    if (!secret && request.actor) return reply.redirect('/', 303);
    if (secret && request.actor) await endSession(manager, request.actor, request.sessionId);
    return secret ? welcome(request, reply, secret) : refuse(request, reply, await isAnybodyNamed(manager));
  });
  app.get(TRUST, async (_request, reply) => {
    const { fingerprint } = await networkDoor.show();
    if (!fingerprint) throw new Problem('not-found', { what: 'A certificate of this machine’s own' });
    return sendDoorPage(reply, 'Trust this machine', trustPage(fingerprint));
  });
  app.get(CERTIFICATE, async (_request, reply) => {
    if (!networkDoor.certificate) throw new Problem('not-found', { what: 'A certificate of this machine’s own' });
    return reply.type('application/x-x509-ca-cert').header('cache-control', 'no-store').send(networkDoor.certificate);
  });

  lookPages(app, { database }, links);

  const tries = { config: { rateLimit: { max: MOST_TRIES_A_MINUTE, timeWindow: '1 minute' } } };
  app.post<{ Body: { name?: string; passPhrase?: string } | undefined }>(ENTER, tries, async (request, reply) => {
    const [name, passPhrase] = [request.body?.name, request.body?.passPhrase].map((given) =>
      String(given ?? '').slice(0, LONGEST_KEY),
    );
    try {
      const browser = browserName(request.headers['user-agent']);
      const secret = await comeIn(manager, { name, passPhrase, browser });
      if (secret) return welcome(request, reply, secret);
      return refuse(request, reply, true, new Problem('wrong-name-or-phrase'));
    } catch (error) {
      if (error instanceof Problem) return refuse(request, reply, true, error);
      throw error;
    }
  });
}

function isOpen(path: string): boolean {
  return OPEN.includes(path) || path.startsWith(LOOK);
}

/** Whether somebody has followed a link to a copy, which stands in a mail or on another page; what it leads to is the same for everybody. */
function isLookFromElsewhere({ method, headers, url }: FastifyRequest): boolean {
  return (
    method === 'GET' &&
    url.startsWith(LOOK) &&
    headers['sec-fetch-mode'] === 'navigate' &&
    headers['sec-fetch-dest'] === 'document'
  );
}

function welcome(request: FastifyRequest, reply: FastifyReply, secret: string): FastifyReply {
  const { secure } = request.reachedBy;
  const options = { path: '/', httpOnly: true, sameSite: 'strict', secure, maxAge: SESSION_SECONDS } as const;
  return reply.setCookie(cookieName(request), secret, options).header('cache-control', 'no-store').redirect('/', 303);
}

/** Browsers keep the cookies of all ports of a machine together; one that begins with __Host- can't be set by a page of another host. */
function cookieName({ host, reachedBy }: FastifyRequest): string {
  return `${reachedBy.secure ? '__Host-' : ''}crow_session_${/:(\d+)$/.exec(host)?.[1] ?? (reachedBy.secure ? '443' : '80')}`;
}

/**
 * Whether a request was sent by a page of ours or by no page at all. Keeps out pages of other sites that reach for this machine (cross-site
 * requests).
 */
function isFromHere({ headers, reachedBy }: FastifyRequest): boolean {
  const { origin, 'sec-fetch-site': site } = headers;
  if (origin !== undefined && origin !== reachedBy.origin) return false;
  return site === undefined || site === 'same-origin' || site === 'none';
}

/** Whether somebody has followed a link on a page of another site, in a window and not in a frame of that page. */
function isLinkFromElsewhere({ method, headers, url }: FastifyRequest): boolean {
  return (
    method === 'GET' &&
    headers['sec-fetch-mode'] === 'navigate' &&
    headers['sec-fetch-dest'] === 'document' &&
    !/^\/(api|enter)\b/.test(url)
  );
}

/** @param byName whether anybody comes in by name and pass phrase */
function refuse(
  request: FastifyRequest,
  reply: FastifyReply,
  byName: boolean,
  problem = new Problem('not-let-in'),
): FastifyReply {
  void reply.code(problem.status).header('cache-control', 'no-store');
  if (!String(request.headers.accept).includes('text/html')) return reply.send(problem.report);
  const text = `<p>${escaped(inWords({ ...problem.report, happened: '' }))}</p>`;
  return sendDoorPage(
    reply,
    problem.report.happened,
    (byName ? text + BY_NAME : text) + (request.reachedBy.secure ? BY_CODE : ''),
  );
}

/** A home screen's application keeps sessions apart from the browser that a code was opened in: there its address is pasted. */
const BY_CODE = `<details><summary>Let in by the address of a code</summary>
<form method="get" action="${ENTER}">
<label>Address <input name="key" autocomplete="off" required></label>
<button>Come in</button></form></details>`;

const BY_NAME = `<p>Whoever was given a name and a pass phrase comes in by them.</p>
<form method="post" action="${ENTER}">
<label>Name <input name="name" autocomplete="username" required autofocus></label>
<label>Pass phrase <input name="passPhrase" type="password" autocomplete="current-password" required></label>
<button>Come in</button></form>`;
