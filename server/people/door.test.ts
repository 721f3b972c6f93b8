import { endpoints } from '@crow/contract/endpoints';
import { makeEntryKey } from './sessions';
import { rows } from '../platform/database';
import { TestRoom } from '../testing/room';

let room: TestRoom;
beforeAll(async () => void (room = await TestRoom.open()));
afterAll(() => room.close());

const ID = '00000000-0000-4000-8000-000000000000';
const outside = { cookie: '' };
const cookieOf = (headers: Record<string, unknown>) => String(headers['set-cookie']);
const enter = async (key: string) => room.request('GET', `/enter?key=${key}`, { headers: outside });

describe('without a session', () => {
  it.each(
    Object.entries(endpoints).map(([name, { method, path }]) => [
      name,
      method,
      `/api${path.replace(/:number/g, '1').replace(/:\w+/g, ID)}`,
    ]),
  )('%s is shut', async (_name, method, url) => {
    const answer = await room.request(method, url, { headers: outside });
    expect(answer.status).toBe(401);
    expect(answer.body).toMatchObject({ code: 'not-let-in' });
  });

  it.each([
    ['going on with a file', 'PATCH', `/api/uploads/${ID}.${ID}`],
    ['asking how far a file has come', 'HEAD', `/api/uploads/${ID}.${ID}`],
    ['sending an archive', 'PUT', '/api/shelf/archive?name=x.zip'],
    ['the stream of changes', 'GET', '/api/events'],
    ['the description of the API', 'GET', '/api/about/'],
    ['the application', 'GET', '/'],
    ['a place in the application', 'GET', '/shelf'],
    ['a file of the application', 'GET', '/index.html'],
    ['what is not there', 'GET', '/api/nowhere'],
  ])('%s is shut', async (_what, method, url) => {
    const answer = await room.request(method, url, { headers: outside });
    expect(answer.status).toBe(401);
  });

  it('an icon is given, and nothing but an icon: home screens ask without one', async () => {
    expect((await room.request('GET', '/icon.svg', { headers: outside })).status).toBe(200);
    expect((await room.request('GET', '/icon.svg/../index.html', { headers: outside })).status).toBe(401);
  });

  it('a person is told on a page how to come in', async () => {
    const { status, headers, body } = await room.request('GET', '/shelf', {
      headers: { ...outside, accept: 'text/html,*/*' },
    });
    expect(status).toBe(401);
    expect(headers['content-type']).toContain('text/html');
    expect(body).toContain('crow key');
  });

  it('a secret that is none is nobody’s', async () => {
    const { status } = await room.request('GET', '/api/overview', { headers: { cookie: 'crow_session_1=made-up' } });
    expect(status).toBe(401);
  });
});

describe('with a key', () => {
  const newKey = () => makeEntryKey(room.context.database.source.manager);

  it('a browser is let in, once, by a cookie that pages can’t read and other sites don’t send', async () => {
    const key = await newKey();
    const { status, headers } = await enter(key);
    expect(status).toBe(303);
    expect(cookieOf(headers)).toMatch(/HttpOnly/);
    expect(cookieOf(headers)).toMatch(/SameSite=Strict/);
    const cookie = cookieOf(headers).split(';')[0];
    expect((await room.request('GET', '/api/overview', { headers: { cookie } })).status).toBe(200);
    expect((await enter(key)).status).toBe(401);
    // The browser that came in by it goes on.
    expect((await room.request('GET', `/enter?key=${key}`, { headers: { cookie } })).status).toBe(303);
  });

  it('two that bring the same key at once are not both let in', async () => {
    const key = await newKey();
    const answers = await Promise.all([enter(key), enter(key), enter(key)]);
    expect(answers.map(({ status }) => status).sort()).toEqual([303, 401, 401]);
  });

  it('a key of yesterday lets nobody in', async () => {
    const key = await newKey();
    await room.context.database.source.manager.query(`update entry_key set good_until = now() - interval '1 hour'`);
    expect((await enter(key)).status).toBe(401);
  });

  it('neither keys nor secrets can be read from the database', async () => {
    const key = await newKey();
    const kept = await rows<{ all: string }>(
      room.context.database.source.manager,
      `select (select json_agg(k)::text from entry_key k) || (select json_agg(s)::text from session s) as all`,
    );
    expect(kept[0].all).not.toContain(key);
  });
});

describe('a link on a page of another site', () => {
  const followed = { 'sec-fetch-site': 'cross-site', 'sec-fetch-mode': 'navigate', 'sec-fetch-dest': 'document' };

  it('leads to a page with a link of ours, and to nothing that is inside', async () => {
    const { status, body } = await room.request('GET', '/shelf?find="a"><b', { headers: followed });
    expect(status).toBe(200);
    expect(body).toContain('Go on to Crow Shelf');
    expect(body).not.toContain('"><b');
  });

  it('leads nowhere else, however it is written', async () => {
    const { body } = await room.request('GET', '//elsewhere.example/x', { headers: followed });
    expect(body).toContain('href="/elsewhere.example/x"');
  });

  it('does not reach the API, nor lets anybody in', async () => {
    for (const url of ['/api/overview', '/enter?key=x'])
      expect((await room.request('GET', url, { headers: followed })).status).toBe(403);
  });

  it('is not followed into a frame', async () => {
    const { status } = await room.request('GET', '/shelf', { headers: { ...followed, 'sec-fetch-dest': 'iframe' } });
    expect(status).toBe(403);
  });
});
