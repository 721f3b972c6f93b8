import cookie from '@fastify/cookie';
import formBody from '@fastify/formbody';
import { FastifyInstance, FastifyReply, FastifyRequest } from 'fastify';
import { inWords, Problem } from '@crow/contract/problems';
import { browserName } from './browserName';
import { comeIn, isAnybodyNamed } from './people';
import { actorOf, letIn } from './sessions';
import { Database } from '../platform/database';
import { Asking } from '../platform/history';

declare module 'fastify' {
  interface FastifyRequest {
    /** Who asks. */
    actor: Asking;
    sessionId: string;
  }
}

/** The only address that is answered without a session: it gives one to whoever brings a key, or name and pass phrase. */
const ENTER = '/enter';
const SESSION_SECONDS = 90 * 24 * 3600;
const LONGEST_KEY = 200;
/** What is filled in at the door is no longer than this, in bytes. */
const LONGEST_FORM = 2000;
/** Trying a pass phrase costs as much as it costs whoever guesses. */
const MOST_TRIES_A_MINUTE = 30;

/**
 * The door: requests that were not sent by a page of ours, or by a person, are refused; so is everything without a session,
 * whatever it asks for, besides being let in with a key, or by name and pass phrase.
 */
export async function door(app: FastifyInstance, database: Database): Promise<void> {
  await app.register(cookie);
  await app.register(formBody, { bodyLimit: LONGEST_FORM });
  const { manager } = database.source;
  app.decorateRequest('actor', null as unknown as Asking);
  app.decorateRequest('sessionId', '');
  app.addHook('onRequest', async (request, reply) => {
    if (!isFromHere(request)) {
      // A link on another page: the browser holds the session back for it, and sends it when our own page is the one that asks.
      if (isLinkFromElsewhere(request))
        return sendPage(reply.code(200), 'Crow Shelf', 'A link on another page leads here.', {
          onward: request.url,
        });
      throw new Problem('not-allowed');
    }
    const secret = request.cookies[cookieName(request)];
    const known = secret ? await actorOf(manager, secret) : undefined;
    if (known) [request.actor, request.sessionId] = [known.asking, known.sessionId];
    else if (request.url.split('?')[0] !== ENTER) return refuse(request, reply, await isAnybodyNamed(manager));
  });
  app.get<{ Querystring: { key?: string } }>(ENTER, async (request, reply) => {
    const key = String(request.query.key ?? '').slice(0, LONGEST_KEY);
    // Whoever has been let in and comes by the same address again, from a list of bookmarks, goes on.
    if (request.actor) return reply.redirect('/', 303);
    const secret = await letIn(manager, key, browserName(request.headers['user-agent']));
    return secret ? welcome(request, reply, secret) : refuse(request, reply, await isAnybodyNamed(manager));
  });
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

function welcome(request: FastifyRequest, reply: FastifyReply, secret: string): FastifyReply {
  const options = { path: '/', httpOnly: true, sameSite: 'strict', maxAge: SESSION_SECONDS } as const;
  return reply.setCookie(cookieName(request), secret, options).header('cache-control', 'no-store').redirect('/', 303);
}

/** Browsers keep the cookies of all ports of a machine together. */
function cookieName({ host }: FastifyRequest): string {
  return `crow_session_${/:(\d+)$/.exec(host)?.[1] ?? '80'}`;
}

/**
 * Whether a request was sent to this machine by name, by a page of ours or by no page at all. Keeps out pages of other sites
 * that reach for loopback (cross-site requests, DNS rebinding).
 */
function isFromHere({ headers }: FastifyRequest): boolean {
  const { host, origin, 'sec-fetch-site': site } = headers;
  if (!isThisMachine(host)) return false;
  if (origin !== undefined && origin !== `http://${host}`) return false;
  return site === undefined || site === 'same-origin' || site === 'none';
}

function isThisMachine(host: string | undefined): boolean {
  return host !== undefined && /^(127\.0\.0\.1|localhost|\[::1\])(:\d+)?$/.test(host);
}

/** Whether somebody has followed a link on a page of another site, in a window and not in a frame of that page. */
function isLinkFromElsewhere({ method, headers, url }: FastifyRequest): boolean {
  return (
    method === 'GET' &&
    isThisMachine(headers.host) &&
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
  return sendPage(reply, problem.report.happened, inWords({ ...problem.report, happened: '' }), { byName });
}

const BY_NAME = `<p>Whoever was given a name and a pass phrase comes in by them.</p>
<form method="post" action="${ENTER}">
<label>Name <input name="name" autocomplete="username" required autofocus></label>
<label>Pass phrase <input name="passPhrase" type="password" autocomplete="current-password" required></label>
<button>Come in</button></form>`;

/** A small page by itself, for whoever is not inside. @param onward where it leads */
function sendPage(
  reply: FastifyReply,
  title: string,
  text: string,
  { onward, byName = false }: { onward?: string; byName?: boolean },
): FastifyReply {
  const link = onward ? `<p><a href="${escaped(onward)}">Go on to Crow Shelf</a></p>` : '';
  // Without a referrer a browser would not say either that the form is ours.
  void reply.header('referrer-policy', 'same-origin').header('cache-control', 'no-store');
  return reply.type('text/html; charset=utf-8').send(`<!doctype html>
<html lang="en"><meta name="viewport" content="width=device-width"><title>Crow Shelf</title>
<style>
  :root { color-scheme: light dark; }
  body { font: 16px/1.5 system-ui, sans-serif; max-width: 34rem; margin: 18vh auto; padding: 0 1.5rem;
    color: light-dark(#1f1d26, #ece8e0); background: light-dark(#f4f1ea, #1b1a20); }
  h1 { font-size: 1.35rem; }
  a { color: light-dark(#1c5d63, #7fc4ca); }
  label { display: block; margin: 0.75rem 0; }
  input { display: block; width: 100%; box-sizing: border-box; font: inherit; padding: 0.6rem; color: inherit;
    background: light-dark(#fffdf8, #26242c); border: 1px solid light-dark(#8c857a, #77727f); }
  button { font: inherit; font-weight: 600; min-height: 44px; padding: 0 1.25rem; border: 0; cursor: pointer;
    color: light-dark(#fff, #10201f); background: light-dark(#1c5d63, #7fc4ca); }
</style>
<h1>${escaped(title)}</h1><p>${escaped(text)}</p>${link}${byName ? BY_NAME : ''}</html>`);
}

function escaped(text: string): string {
  return text.replace(/[&<>"']/g, (sign) => `&#${sign.charCodeAt(0)};`);
}
