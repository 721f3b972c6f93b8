import { X509Certificate } from 'node:crypto';
import { request } from 'node:https';
import { AddressInfo, connect, createServer } from 'node:net';
import { endpoints } from '@crow/contract/endpoints';
import { namedOrigin, originOf } from './origins';
import { NetworkDoor } from './networkDoor';
import { rows } from '../platform/database';
import { TestRoom } from '../testing/room';
import { scratchFolder } from '../testing/made';

let room: TestRoom;
beforeAll(async () => void (room = await TestRoom.open()));
afterAll(() => room.close());

const change = (open: boolean) => room.ask(endpoints.changeDoor, { body: { open } });
const portOf = (address: string) => Number(new URL(address).port);

interface Answer {
  status: number;
  headers: Record<string, string | string[] | undefined>;
  body: string;
}

/** Asks over TLS as a device does that trusts the authority. @param trusted null for one that does not */
function ask(
  port: number,
  path: string,
  {
    headers = {},
    trusted = room.networkDoor.certificate,
  }: { headers?: Record<string, string>; trusted?: Buffer | null } = {},
): Promise<Answer> {
  const ca = trusted ? new X509Certificate(trusted).toString() : undefined;
  return new Promise((resolve, reject) => {
    const asked = request({ host: '127.0.0.1', servername: 'localhost', port, path, headers, ca }, (response) => {
      let body = '';
      response.on('data', (piece: Buffer) => (body += piece.toString()));
      response.on('end', () => resolve({ status: response.statusCode!, headers: response.headers, body }));
    });
    asked.on('error', reject);
    asked.end();
  });
}

describe('the door for other devices', () => {
  it('is shut at first, and no code can be made', async () => {
    expect(await room.ask(endpoints.readDoor, {})).toMatchObject({ open: false, addresses: [], fingerprint: null });
    const refused = await room.refusal(endpoints.letDeviceIn, { body: { name: 'Phone' } });
    expect(refused.code).toBe('door-shut');
  });

  it('lets in with a code, by TLS that the authority vouches for, once', async () => {
    const { addresses, fingerprint } = await change(true);
    expect(fingerprint).toMatch(/^[0-9A-F]{2}( [0-9A-F]{2}){31}$/);
    const port = portOf(addresses[0]);
    expect((await ask(port, '/api/overview')).status).toBe(401);
    await expect(ask(port, '/', { trusted: null })).rejects.toThrow(/certificate/);
    const { address, code, goodUntil } = await room.ask(endpoints.letDeviceIn, { body: { name: 'Phone' } });
    expect(address.startsWith(`${addresses[0]}/enter?key=`)).toBe(true);
    expect(code.every((row) => /^[01]+$/.test(row) && row.length === code.length)).toBe(true);
    expect(Date.parse(goodUntil) - Date.now()).toBeLessThanOrEqual(5 * 60_000);
    const { pathname, search } = new URL(address);
    const entered = await ask(port, pathname + search);
    expect(entered.status).toBe(303);
    const cookie = String(entered.headers['set-cookie']);
    expect(cookie).toMatch(/^__Host-crow_session_\d+=.*HttpOnly; Secure; SameSite=Strict/);
    const headers = { cookie: cookie.split(';')[0] };
    expect(JSON.parse((await ask(port, '/api/me', { headers })).body)).toMatchObject({ name: 'Phone', role: 'device' });
    expect((await ask(port, pathname + search)).status).toBe(401);
  });

  it('a code is worth nothing after five minutes', async () => {
    const { addresses } = await change(true);
    const { address } = await room.ask(endpoints.letDeviceIn, { body: { name: 'Late phone' } });
    await rows(room.context.database.source.manager, `update entry_key set good_until = now() - interval '1 second'`);
    const { pathname, search } = new URL(address);
    expect((await ask(portOf(addresses[0]), pathname + search)).status).toBe(401);
    // The name is free again for another code.
    expect((await room.ask(endpoints.letDeviceIn, { body: { name: 'Late phone' } })).address).toContain('/enter?key=');
  });

  it('a phone of the owner’s own does what the owner does, and is ended by itself', async () => {
    const { addresses } = await change(true);
    const [owner] = await room.ask(endpoints.listPeople, {});
    const { address } = await room.ask(endpoints.letDeviceIn, { body: { name: 'My phone', person: owner.id } });
    const { pathname, search } = new URL(address);
    const port = portOf(addresses[0]);
    const headers = { cookie: String((await ask(port, pathname + search)).headers['set-cookie']).split(';')[0] };
    expect((await ask(port, '/api/people', { headers })).status).toBe(200);
    const { sessions } = (await room.ask(endpoints.listPeople, {}))[0];
    const { id } = sessions.find(({ device }) => device === 'My phone')!;
    await room.ask(endpoints.endSession, { params: { id } });
    expect((await ask(port, '/api/people', { headers })).status).toBe(401);
    expect((await room.ask(endpoints.overview, {})).stacks).toBe(0);
  });

  it('lets in anew whoever was in as something else', async () => {
    const port = portOf((await change(true)).addresses[0]);
    const come = async (body: { name: string; person?: string }, cookie = '') => {
      const { address } = await room.ask(endpoints.letDeviceIn, { body });
      const { pathname, search } = new URL(address);
      const { headers } = await ask(port, pathname + search, { headers: { cookie } });
      return String(headers['set-cookie']).split(';')[0];
    };
    const first = await come({ name: 'Slate' });
    const [owner] = await room.ask(endpoints.listPeople, {});
    const second = await come({ name: 'Slate of mine', person: owner.id }, first);
    const who = async (cookie: string) => (await ask(port, '/api/me', { headers: { cookie } })).body;
    expect(JSON.parse(await who(second))).toMatchObject({ role: 'owner' });
    expect(JSON.parse(await who(first))).toMatchObject({ code: 'not-let-in' });
  });

  it('answers to no other name, and to no page elsewhere', async () => {
    const port = portOf((await change(true)).addresses[0]);
    for (const host of [`papers.example:${port}`, `127.0.0.1:${port + 1}`, '127.0.0.1'])
      expect((await ask(port, '/trust', { headers: { host } })).status).toBe(403);
    const elsewhere: Record<string, string>[] = [
      { origin: 'https://elsewhere.example' },
      { origin: `http://127.0.0.1:${port}` },
      { 'sec-fetch-site': 'cross-site' },
    ];
    for (const headers of elsewhere) expect((await ask(port, '/enter', { headers })).status).toBe(403);
  });

  it('tells without a session how to trust it, and gives the certificate that is to be trusted', async () => {
    const { addresses, fingerprint } = await change(true);
    const page = await ask(portOf(addresses[0]), '/trust');
    expect(page.body).toContain(fingerprint);
    expect((await ask(portOf(addresses[0]), '/crow-shelf-authority.crt')).headers['content-type']).toBe(
      'application/x-x509-ca-cert',
    );
  });

  it('does not speak without encryption', async () => {
    const port = portOf((await change(true)).addresses[0]);
    const said = await new Promise<string>((resolve) => {
      let heard = '';
      const socket = connect(port, '127.0.0.1', () => socket.write('GET / HTTP/1.1\r\nhost: 127.0.0.1\r\n\r\n'));
      socket.on('data', (piece) => (heard += piece.toString()));
      socket.on('error', () => undefined);
      socket.on('close', () => resolve(heard));
    });
    expect(said).toBe('');
  });

  it('is shut at once, and what it showed is in the history', async () => {
    const port = portOf((await change(true)).addresses[0]);
    expect(await change(false)).toMatchObject({ open: false });
    await expect(ask(port, '/trust')).rejects.toThrow(/ECONNREFUSED/);
    const deeds = await rows<{ action: string }>(
      room.context.database.source.manager,
      `select action from history where subject = 'door' order by id`,
    );
    expect(deeds.map(({ action }) => action).slice(-2)).toEqual(['opened', 'shut']);
  });

  it('is open again after a start, and says why when it can’t be', async () => {
    await change(true);
    await change(true);
    const again = new NetworkDoor(room.context, { folder: scratchFolder(), port: 0 });
    await again.start(room.app);
    expect(await again.show()).toMatchObject({ open: true, problem: null });
    await again.close();
    const other = createServer();
    await new Promise<void>((resolve) => other.listen(0, '0.0.0.0', resolve));
    const stuck = new NetworkDoor(room.context, {
      folder: scratchFolder(),
      port: (other.address() as AddressInfo).port,
    });
    await stuck.start(room.app);
    expect(await stuck.show()).toMatchObject({ open: false, problem: { code: 'door-stuck' } });
    await stuck.close();
    other.close();
    await change(false);
  });
});

describe('the owner’s own name', () => {
  const named = namedOrigin('https://papers.example.org')!;
  const plain = { encrypted: false, localPort: 80 } as never;
  const by = (host: string, origin?: URL) => originOf({ headers: { host }, socket: plain }, origin);

  it('is reached by a proxy on this machine', () => {
    expect(by('papers.example.org', named)).toEqual({ origin: 'https://papers.example.org', secure: true });
    expect(by('127.0.0.1:4000', named)).toEqual({ origin: 'http://127.0.0.1:4000', secure: false });
    expect(by('papers.example.org')).toBeUndefined();
    expect(by('other.example.org', named)).toBeUndefined();
  });

  it.each([
    'papers.example.org',
    'http://papers.example.org',
    'https://papers.example.org/shelf',
    'https://me@papers.example.org',
  ])('is not %s', (said) => expect(() => namedOrigin(said)).toThrow(/CROW_ORIGIN/));

  it('is the door when a proxy is in front', async () => {
    const door = new NetworkDoor(room.context, { folder: scratchFolder(), port: 0, named });
    expect(await door.show()).toMatchObject({
      open: true,
      addresses: ['https://papers.example.org'],
      fingerprint: null,
    });
    expect(door.entrance).toBe('https://papers.example.org');
  });
});
