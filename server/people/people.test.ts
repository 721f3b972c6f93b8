import { Person } from '@crow/contract/people';
import { rows } from '../platform/database';
import { TestRoom } from '../testing/room';
import { browserName } from './browserName';

const PHRASE = 'madder weld and indigo';

let room: TestRoom;
let tove: Person;
beforeAll(async () => {
  room = await TestRoom.open();
  tove = await add('Tove');
});
afterAll(() => room.close());

const people = async () => (await room.request('GET', '/api/people')).body as Person[];
const add = async (name: string, passPhrase = PHRASE, role = 'helper') => {
  const { status, body } = await room.request('POST', '/api/people', { body: { name, role, passPhrase } });
  if (status !== 204) throw Object.assign(new Error(`${status}`), { body });
  return (await people()).find((person) => person.name === name)!;
};
const FIREFOX = 'Mozilla/5.0 (X11; Linux x86_64; rv:128.0) Gecko/20100101 Firefox/128.0';
const comeIn = (name: string, passPhrase: string) =>
  room.request('POST', '/enter', {
    headers: {
      cookie: '',
      'content-type': 'application/x-www-form-urlencoded',
      'user-agent': FIREFOX,
      accept: 'text/html',
    },
    body: new URLSearchParams({ name, passPhrase }).toString(),
  });
const cookieOf = ({ headers }: { headers: Record<string, unknown> }) => String(headers['set-cookie']).split(';')[0];
/** @param cookie null for the owner's */
const asked = async (cookie: string | null, url: string, method = 'GET') =>
  (await room.request(method, url, { headers: cookie === null ? {} : { cookie } })).status;

describe('by name and pass phrase', () => {
  it('somebody comes in, whatever the capitals of the name, and does what a helper may', async () => {
    const answer = await comeIn('tove', PHRASE);
    expect(answer.status).toBe(303);
    const cookie = cookieOf(answer);
    expect((await room.request('GET', '/api/me', { headers: { cookie } })).body).toMatchObject({
      name: 'Tove',
      role: 'helper',
    });
    expect(await asked(cookie, '/api/overview')).toBe(200);
    expect(await asked(cookie, '/api/people')).toBe(403);
  });

  it('nobody comes in by a wrong one, a name that nobody has, or none', async () => {
    for (const [name, phrase] of [
      ['Tove', 'madder weld and walnut'],
      ['Nobody', PHRASE],
      ['', ''],
    ]) {
      const { status, body, headers } = await comeIn(name, phrase);
      expect(status).toBe(401);
      expect(headers['set-cookie']).toBeUndefined();
      expect(body).toContain('Name or pass phrase is not right.');
      expect(body).toContain('name="passPhrase"');
      expect(headers['referrer-policy']).toBe('same-origin');
    }
  });

  it('after five wrong ones not even the right one lets in, for a while', async () => {
    const { id } = await add('Ansel');
    for (let tries = 0; tries < 5; tries++) expect((await comeIn('Ansel', 'something else entirely')).status).toBe(401);
    const { status, body } = await comeIn('Ansel', PHRASE);
    expect(status).toBe(429);
    expect(body).toContain('wrong too often');
    const { manager } = room.context.database.source;
    await manager.query(`update actor set tried_at = now() - interval '16 minutes' where id = $1`, [id]);
    // After the pause there are five again.
    expect((await comeIn('Ansel', 'something else entirely')).status).toBe(401);
    expect((await comeIn('Ansel', PHRASE)).status).toBe(303);
  });

  it('many wrong ones at once are as many tries', async () => {
    await add('Sunniva');
    const answers = await Promise.all(Array.from({ length: 9 }, () => comeIn('Sunniva', 'something else entirely')));
    expect(answers.map(({ status }) => status).sort()).toEqual([401, 401, 401, 401, 401, 429, 429, 429, 429]);
  });

  it('the pass phrase itself is nowhere in the database, nor in the history', async () => {
    const [{ all }] = await rows<{ all: string }>(
      room.context.database.source.manager,
      `select (select json_agg(a)::text from actor a) || (select json_agg(h)::text from history h) as all`,
    );
    expect(all).toContain('$argon2id$');
    expect(all).not.toContain(PHRASE);
  });
});

describe('the owner', () => {
  it('sees who is in, and ends the session of one browser', async () => {
    const [first, second] = [cookieOf(await comeIn('Tove', PHRASE)), cookieOf(await comeIn('Tove', PHRASE))];
    const { sessions } = (await people()).find(({ name }) => name === 'Tove')!;
    expect(sessions[0]).toMatchObject({ browser: 'Firefox on Linux', own: false });
    // The latest comes first.
    expect(await asked(null, `/api/sessions/${sessions[0].id}`, 'DELETE')).toBe(204);
    expect(await asked(second, '/api/overview')).toBe(401);
    expect(await asked(first, '/api/overview')).toBe(200);
    await add('Aase', PHRASE, 'reader');
    expect((await people())[0]).toMatchObject({ role: 'owner', sessions: [{ own: true }] });
  });

  it('gives somebody another pass phrase, which ends what came in by the old one', async () => {
    const cookie = cookieOf(await comeIn('Tove', PHRASE));
    const url = `/api/people/${tove.id}/pass-phrase`;
    expect((await room.request('PUT', url, { body: { passPhrase: 'harbour rope and tar' } })).status).toBe(204);
    expect(await asked(cookie, '/api/overview')).toBe(401);
    expect((await comeIn('Tove', PHRASE)).status).toBe(401);
    expect((await comeIn('Tove', 'harbour rope and tar')).status).toBe(303);
  });

  it('lets somebody in no more; the name is free again, and what was done stays in the history', async () => {
    const { id } = await add('Runa');
    const cookie = cookieOf(await comeIn('Runa', PHRASE));
    expect(await asked(null, `/api/people/${id}`, 'DELETE')).toBe(204);
    expect(await asked(cookie, '/api/overview')).toBe(401);
    expect((await comeIn('Runa', PHRASE)).status).toBe(401);
    expect((await people()).map(({ name }) => name)).not.toContain('Runa');
    expect((await add('Runa')).id).not.toBe(id);
  });

  it.each([
    ['a name that somebody has', { name: 'TOVE', passPhrase: PHRASE }, 409, 'name-taken'],
    ['a pass phrase that is short', { name: 'Ole', passPhrase: 'loom' }, 400, 'not-valid'],
    ['no name', { name: '  ', passPhrase: PHRASE }, 400, 'not-valid'],
    ['a role that nobody comes in by a name as', { name: 'Ole', passPhrase: PHRASE, role: 'device' }, 400, 'not-valid'],
    [
      'a reader of a folder that is not there',
      { name: 'Ole', passPhrase: PHRASE, role: 'reader', folders: ['00000000-0000-4000-8000-000000000000'] },
      404,
      'not-found',
    ],
  ])('can’t add %s', async (_what, given, status, code) => {
    const answer = await room.request('POST', '/api/people', { body: { role: 'helper', ...given } });
    expect(answer).toMatchObject({ status, body: { code } });
  });

  it('can’t be removed, nor given a pass phrase', async () => {
    const [{ id }] = await people();
    expect(await asked(null, `/api/people/${id}`, 'DELETE')).toBe(404);
  });
});

it('whoever leaves has to come in again', async () => {
  const cookie = cookieOf(await comeIn('Tove', 'harbour rope and tar'));
  expect(await asked(cookie, '/api/leave', 'POST')).toBe(204);
  expect(await asked(cookie, '/api/me')).toBe(401);
});

it.each([
  [FIREFOX, 'Firefox on Linux'],
  [
    'Mozilla/5.0 (iPhone; CPU iPhone OS 17_0 like Mac OS X) AppleWebKit/605.1.15 Version/17.0 Mobile/15E148 Safari/604.1',
    'Safari on an iPhone',
  ],
  [
    'Mozilla/5.0 (Windows NT 10.0; Win64; x64) AppleWebKit/537.36 Chrome/126.0 Safari/537.36 Edg/126.0',
    'Edge on Windows',
  ],
  [undefined, 'A browser'],
])('names %s', (agent, name) => expect(browserName(agent)).toBe(name));
