import { FastifyReply } from 'fastify';

export function escaped(text: string): string {
  return text.replace(/[&<>"']/g, (sign) => `&#${sign.charCodeAt(0)};`);
}

/** Sends a small page by itself, for whoever is not inside. @param body HTML, with everything escaped that was given from outside */
export function sendDoorPage(reply: FastifyReply, title: string, body: string): FastifyReply {
  // Without a referrer a browser would not say either that a form on it is ours.
  void reply.header('referrer-policy', 'same-origin').header('cache-control', 'no-store');
  return reply.type('text/html; charset=utf-8').send(`<!doctype html>
<html lang="en"><meta name="viewport" content="width=device-width"><title>Crow Shelf</title>
<style>
  :root { color-scheme: light dark; }
  body { font: 16px/1.5 system-ui, sans-serif; max-width: 34rem; margin: 12vh auto; padding: 0 1.5rem;
    color: light-dark(#1f1d26, #ece8e0); background: light-dark(#f4f1ea, #1b1a20); }
  h1 { font-size: 1.35rem; }
  h2 { font-size: 1.1rem; margin: 2rem 0 0.5rem; }
  a { color: light-dark(#1c5d63, #7fc4ca); }
  code { font: 14px/1.6 ui-monospace, monospace; overflow-wrap: anywhere; }
  ol { padding-left: 1.25rem; }
  li { margin: 0.75rem 0; }
  svg { display: block; margin: 0.5rem 0; width: 15rem; max-width: 100%; }
  svg rect { fill: light-dark(#fffdf8, #26242c); stroke: light-dark(#8c857a, #77727f); }
  svg .here { fill: light-dark(#dbe8e6, #24393b); stroke: light-dark(#1c5d63, #7fc4ca); stroke-width: 2; }
  svg text { fill: light-dark(#1f1d26, #ece8e0); font: 13px system-ui, sans-serif; }
  label { display: block; margin: 0.75rem 0; }
  input { display: block; width: 100%; box-sizing: border-box; font: inherit; padding: 0.6rem; color: inherit;
    background: light-dark(#fffdf8, #26242c); border: 1px solid light-dark(#8c857a, #77727f); }
  button, .button { font: inherit; font-weight: 600; min-height: 44px; padding: 0 1.25rem; border: 0; cursor: pointer;
    color: light-dark(#fff, #10201f); background: light-dark(#1c5d63, #7fc4ca); }
  .button { display: inline-flex; align-items: center; text-decoration: none; }
</style>
<h1>${escaped(title)}</h1>${body}</html>`);
}
