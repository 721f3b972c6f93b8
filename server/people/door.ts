import cookie from '@fastify/cookie';
import { FastifyInstance, FastifyReply, FastifyRequest } from 'fastify';
import { inWords, Problem } from '@crow/contract/problems';
import { actorOf, letIn } from './sessions';
import { Database } from '../platform/database';
import { Asking } from '../platform/history';

declare module 'fastify' {
  interface FastifyRequest {
    /** Who asks. */
    actor: Asking;
  }
}

/** The only address that is answered without a session: it gives one to whoever brings a key. */
const ENTER = '/enter';
const SESSION_SECONDS = 90 * 24 * 3600;
const LONGEST_KEY = 200;

/**
 * The door: requests that were not sent by a page of ours, or by a person, are refused; so is everything without a session,
 * whatever it asks for, besides being let in with a key.
 */
export async function door(app: FastifyInstance, database: Database): Promise<void> {
  await app.register(cookie);
  app.decorateRequest('actor', null as unknown as Asking);
  app.addHook('onRequest', async (request, reply) => {
    if (!isFromHere(request)) {
      // A link on another page: the browser holds the session back for it, and sends it when our own page is the one that asks.
      if (isLinkFromElsewhere(request))
        return sendPage(reply.code(200), 'Crow Shelf', 'A link on another page leads here.', request.url);
      throw new Problem('not-allowed');
    }
    const secret = request.cookies[cookieName(request)];
    const actor = secret ? await actorOf(database.source.manager, secret) : undefined;
    if (actor) request.actor = actor;
    else if (request.url.split('?')[0] !== ENTER) return refuse(request, reply);
  });
  app.get<{ Querystring: { key?: string } }>(ENTER, async (request, reply) => {
    const key = String(request.query.key ?? '').slice(0, LONGEST_KEY);
    // Whoever has been let in and comes by the same address again, from a list of bookmarks, goes on.
    if (request.actor) return reply.redirect('/', 303);
    const secret = await letIn(database.source.manager, key);
    if (!secret) return refuse(request, reply);
    return reply
      .setCookie(cookieName(request), secret, {
        path: '/',
        httpOnly: true,
        sameSite: 'strict',
        maxAge: SESSION_SECONDS,
      })
      .header('cache-control', 'no-store')
      .redirect('/', 303);
  });
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

function refuse(request: FastifyRequest, reply: FastifyReply): FastifyReply {
  const problem = new Problem('not-let-in');
  void reply.code(problem.status).header('cache-control', 'no-store');
  if (!String(request.headers.accept).includes('text/html')) return reply.send(problem.report);
  return sendPage(reply, problem.report.happened, inWords({ ...problem.report, happened: '' }));
}

/** A small page by itself, for whoever is not inside. @param onward where it leads */
function sendPage(reply: FastifyReply, title: string, text: string, onward?: string): FastifyReply {
  const link = onward ? `<p><a href="${escaped(onward)}">Go on to Crow Shelf</a></p>` : '';
  return reply.type('text/html; charset=utf-8').header('cache-control', 'no-store').send(`<!doctype html>
<html lang="en"><meta name="viewport" content="width=device-width"><title>Crow Shelf</title>
<style>
  :root { color-scheme: light dark; }
  body { font: 16px/1.5 system-ui, sans-serif; max-width: 34rem; margin: 18vh auto; padding: 0 1.5rem;
    color: light-dark(#1f1d26, #ece8e0); background: light-dark(#f4f1ea, #1b1a20); }
  h1 { font-size: 1.35rem; }
  a { color: light-dark(#1c5d63, #7fc4ca); }
</style>
<h1>${escaped(title)}</h1><p>${escaped(text)}</p>${link}</html>`);
}

function escaped(text: string): string {
  return text.replace(/[&<>"']/g, (sign) => `&#${sign.charCodeAt(0)};`);
}
