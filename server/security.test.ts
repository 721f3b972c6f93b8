import { get } from 'node:http';
import { AddressInfo } from 'node:net';
import { endpoints } from '@crow/contract/endpoints';
import { TestRoom } from './testing/room';

let room: TestRoom;
beforeAll(async () => void (room = await TestRoom.open()));
afterAll(() => room.close());

describe('who may ask', () => {
  it.each([
    [
      'a page of ours',
      { host: '127.0.0.1:4000', origin: 'http://127.0.0.1:4000', 'sec-fetch-site': 'same-origin' },
      200,
    ],
    ['the address typed by hand', { host: 'localhost:4000', 'sec-fetch-site': 'none' }, 200],
    ['a program on this machine', { host: '127.0.0.1:4000' }, 200],
    ['a page of another site', { host: '127.0.0.1:4000', origin: 'http://evil.example' }, 403],
    ['a page on another port of this machine', { host: '127.0.0.1:4000', origin: 'http://127.0.0.1:5000' }, 403],
    ['a picture in another site’s page', { host: '127.0.0.1:4000', 'sec-fetch-site': 'cross-site' }, 403],
    ['a name that was bent to this address', { host: 'evil.example' }, 403],
  ])('%s', async (_who, headers, status) => {
    const answer = await room.request('GET', '/api/overview', { headers: headers as Record<string, string> });
    expect(answer.status).toBe(status);
  });

  it('gets security headers with every page', async () => {
    const { headers } = await room.request('GET', '/shelf');
    expect(headers['content-security-policy']).toContain("default-src 'self'");
    expect(headers['content-security-policy']).toMatch(/script-src 'self' 'wasm-unsafe-eval'(;|$)/);
    expect(headers['x-content-type-options']).toBe('nosniff');
    expect(headers['x-frame-options']).toBeDefined();
  });
});

describe('what does not fit is refused with a sentence', () => {
  it.each([
    ['an identifier that is none', () => room.send(endpoints.readStack, { params: { id: 'x' } }), 400, 'identifier'],
    [
      'an unknown picture size',
      () =>
        room.send(endpoints.pagePicture, {
          params: { id: '00000000-0000-4000-8000-000000000000', size: '../x' },
          query: { turn: '0' },
        }),
      400,
      'was not valid',
    ],
    [
      'a turn of 45 degrees',
      () =>
        room.send(endpoints.pagePicture, {
          params: { id: '00000000-0000-4000-8000-000000000000', size: 'thumb' },
          query: { turn: '45' },
        }),
      400,
      'turn',
    ],
    ['no languages', () => room.send(endpoints.changeSettings, { body: { languages: [] } }), 400, 'choose a language'],
    [
      'a language that is none',
      () => room.send(endpoints.changeSettings, { body: { languages: ['xxx'] } }),
      400,
      'not a language',
    ],
    [
      'something that is not there',
      () => room.send(endpoints.readDocument, { params: { id: '00000000-0000-4000-8000-000000000000' } }),
      404,
      'can’t be found',
    ],
    ['an address that is none', () => room.request('GET', '/api/nowhere'), 404, 'can’t be found'],
    [
      'JSON that is none',
      () =>
        room.request('PUT', '/api/settings', {
          body: Buffer.from('{'),
          headers: { 'content-type': 'application/json' },
        }),
      400,
      'was not valid',
    ],
    [
      'a very long request',
      () => room.send(endpoints.makeFolder, { body: { path: 'x'.repeat(3_000_000) } }),
      400,
      'too long',
    ],
  ])('%s', async (_what, send, status, said) => {
    const answer = await send();
    expect(answer.status).toBe(status);
    expect((answer.body as { happened: string }).happened).toContain(said);
  });
});

it('describes its API from the contract', async () => {
  const { body } = await room.request('GET', '/api/about/json');
  const { paths } = body as { paths: Record<string, Record<string, { summary: string; requestBody?: object }>> };
  expect(paths['/api/documents/{id}/file'].post).toMatchObject({
    summary: endpoints.fileDocument.summary,
    requestBody: expect.anything(),
  });
  const described = Object.values(paths)
    .flatMap((path) => Object.keys(path))
    .filter((method) => method !== 'head');
  expect(described.length).toBeGreaterThanOrEqual(Object.keys(endpoints).length);
});

it('tells open windows what has changed', async () => {
  const { port } = (room.app.server.address() ??
    (await room.app.listen({ host: '127.0.0.1', port: 0 }), room.app.server.address())) as AddressInfo;
  const events: string[] = [];
  const headers = { cookie: room.cookieFor(`127.0.0.1:${port}`) };
  const listening = get({ host: '127.0.0.1', port, path: '/api/events', headers }, (response) => {
    response.on('data', (piece: Buffer) =>
      events.push(...[...piece.toString().matchAll(/^data: (.*)$/gm)].map(([, data]) => data)),
    );
  });
  const heard = async (count: number) => {
    for (let tries = 0; tries < 100 && events.length < count; tries++)
      await new Promise((resolve) => setTimeout(resolve, 50));
  };
  await heard(1);
  const { id } = await room.ask(endpoints.makeFolder, { body: { path: 'New' } });
  await heard(2);
  listening.destroy();
  expect(events.map((event) => JSON.parse(event) as object)).toEqual([{ kind: 'hello' }, { kind: 'folder', id }]);
});
