import { AddressInfo } from 'node:net';
import Fastify from 'fastify';
import { Mood, MOODS, PASSWORD, StandInMailServer, USER } from './server';

/** Starts the small page on which one sees what has arrived at the stand-in mail server, and in what mood it is. */
export async function startMailPage(
  server: StandInMailServer,
  { port = 0 } = {},
): Promise<{ address: string; close(): Promise<void> }> {
  const app = Fastify({ forceCloseConnections: true });
  app.get('/', async (_request, reply) => reply.type('text/html; charset=utf-8').send(pageOf(server)));
  app.get('/arrived', async () =>
    server.arrived.map(({ attachments, raw, ...mail }) => ({
      ...mail,
      bytes: raw.length,
      attachments: attachments.map(({ name, mediaType, bytes }) => ({ name, mediaType, bytes: bytes.length })),
    })),
  );
  app.get<{ Params: { number: string; at: string } }>('/arrived/:number/:at', async ({ params }, reply) => {
    const found = server.arrived.find(({ number }) => number === Number(params.number))?.attachments[Number(params.at)];
    if (!found) return reply.code(404).send({ message: 'That is not there any more.' });
    const name = encodeURIComponent(found.name).replace(/['()*]/g, (sign) => `%${sign.charCodeAt(0).toString(16)}`);
    return reply
      .type(found.mediaType)
      .header('content-disposition', `inline; filename*=UTF-8''${name}`)
      .header('content-security-policy', 'sandbox')
      .send(found.bytes);
  });
  app.post<{ Params: { mood: string } }>('/mood/:mood', async ({ params }, reply) => {
    const mood = MOODS[Number(params.mood)];
    if (!mood) return reply.code(404).send();
    server.mood = mood;
    return reply.redirect('/', 303);
  });
  app.addContentTypeParser('application/x-www-form-urlencoded', (_request, _body, done) => done(null));
  await app.listen({ host: '127.0.0.1', port });
  const { port: taken } = app.server.address() as AddressInfo;
  return { address: `http://127.0.0.1:${taken}`, close: () => app.close() };
}

const escaped = (text: string): string => text.replace(/[&<>"']/g, (sign) => `&#${sign.charCodeAt(0)};`);

function pageOf({ arrived, mood, port }: StandInMailServer): string {
  const mails = arrived.toReversed().map(
    ({ number, from, to, subject, text, attachments }) =>
      `<section><h2>${escaped(subject || 'without a subject')}</h2><p>from ${escaped(from)} to ${escaped(to.join(', '))}</p>
<pre>${escaped(text)}</pre><ul>${attachments
        .map(
          ({ name, bytes }, at) =>
            `<li><a href="/arrived/${number}/${at}">${escaped(name)}</a>, ${Math.ceil(bytes.length / 1000)} kB</li>`,
        )
        .join('')}</ul></section>`,
  );
  const moods = MOODS.map(
    (each: Mood, at) =>
      `<form method="post" action="/mood/${at}"><button${each === mood ? ' aria-pressed="true"' : ''}>${each}</button></form>`,
  );
  return `<!doctype html><html lang="en"><meta charset="utf-8"><meta name="viewport" content="width=device-width">
<title>Harbour Stand-in Mail</title>
<style>
body{font:15px/1.5 system-ui,sans-serif;background:#e8e4da;color:#1f1d26;margin:0;padding:24px;max-width:760px}
h1{font-size:20px;margin:0 0 4px}section{border-top:1px solid #b9b3a4;padding:12px 0}h2{font-size:15px;margin:0}
p{margin:0 0 8px}pre{white-space:pre-wrap;font:inherit}form{display:inline}
button{font:inherit;background:#fbfaf6;border:1px solid #b9b3a4;padding:4px 10px;margin:0 6px 12px 0}
button[aria-pressed]{font-weight:600;border:2px solid #1c5d63}
@media(prefers-color-scheme:dark){body{background:#24222b;color:#efebe2}button{background:#322f3a;color:inherit}}
</style>
<h1>Harbour Stand-in Mail</h1>
<p>A mail server that isn’t there: it delivers nothing, and shows what arrived. Server 127.0.0.1, port ${port}, not encrypted, user ${USER}, password “${PASSWORD}”; nobody is at addresses that begin with nobody@.</p>
<p>Now it</p>${moods.join('')}
${mails.join('\n') || '<p>Nothing has arrived yet.</p>'}</html>`;
}
