import { randomUUID } from 'node:crypto';
import { readdirSync } from 'node:fs';
import { request } from 'node:http';
import { AddressInfo } from 'node:net';
import { PIECE, uploadHeaders } from '@crow/contract/client';
import { endpoints } from '@crow/contract/endpoints';
import { scanned } from '../testing/made';
import { TestRoom } from '../testing/room';

let room: TestRoom;
let picture: Buffer;
beforeAll(async () => {
  room = await TestRoom.open();
  picture = await scanned('sent in pieces');
  await room.app.listen({ host: '127.0.0.1', port: 0 });
});
afterAll(() => room.close());

const TUS = { 'tus-resumable': '1.0.0' };
const told = (part: object = {}) => ({
  stack: randomUUID(),
  file: randomUUID(),
  stackName: 's',
  name: 'a.jpg',
  position: 0,
  ...part,
});
/** Asks over a real connection: the protocol is about what happens to these. */
async function ask(method: string, path: string, headers: Record<string, string>, body?: Buffer) {
  const { port } = room.app.server.address() as AddressInfo;
  const cookie = room.cookieFor(`127.0.0.1:${port}`);
  const answer = await fetch(new URL(path, `http://127.0.0.1:${port}`), {
    method,
    headers: { cookie, ...headers },
    body: body && new Uint8Array(body),
  });
  return { status: answer.status, headers: answer.headers, body: await answer.text() };
}
const begin = (what: ReturnType<typeof told>, bytes: number) => ask('POST', '/api/uploads', uploadHeaders(what, bytes));
const place = ({ headers }: { headers: Headers }) => headers.get('location')!;
const howFar = async (address: string) => {
  const { status, headers } = await ask('HEAD', address, TUS);
  return status === 200 ? Number(headers.get('upload-offset')) : status;
};
const goOn = (address: string, from: number, to?: number) =>
  ask('PATCH', address, { ...TUS, 'content-type': PIECE, 'upload-offset': String(from) }, picture.subarray(from, to));
/** The pieces are deleted when the answer has gone. */
async function until(holds: () => boolean): Promise<void> {
  for (let tries = 0; tries < 40 && !holds(); tries++) await new Promise((resolve) => setTimeout(resolve, 50));
  expect(kept()).toEqual([]);
}
const kept = () => readdirSync(room.uploadsFolder);

it('takes a file in that came in pieces, and forgets the pieces', async () => {
  const what = told();
  const address = place(await begin(what, picture.length));
  expect(await howFar(address)).toBe(0);
  expect((await goOn(address, 0, 1000)).status).toBe(204);
  expect(await howFar(address)).toBe(1000);
  // What begins elsewhere than where it broke off is refused.
  expect((await goOn(address, 500)).status).toBe(409);
  expect((await goOn(address, 1000)).status).toBe(204);
  await room.work();
  expect(await room.ask(endpoints.readStack, { params: { id: what.stack } })).toMatchObject({ pages: 1 });
  await until(() => kept().length === 0);
});

it('goes on where the line was cut in the middle of a piece', async () => {
  const what = told();
  const address = place(await begin(what, picture.length));
  const { port } = room.app.server.address() as AddressInfo;
  const half = Math.floor(picture.length / 2);
  await new Promise<void>((resolve) => {
    const sending = request({
      port,
      host: '127.0.0.1',
      method: 'PATCH',
      path: new URL(address, 'http://x').pathname,
      headers: {
        ...TUS,
        cookie: room.cookieFor(`127.0.0.1:${port}`),
        'content-type': PIECE,
        'upload-offset': 0,
        'content-length': picture.length,
      },
    });
    sending.on('error', () => undefined);
    sending.on('close', () => resolve());
    sending.write(picture.subarray(0, half), () => setTimeout(() => sending.destroy(), 200));
  });
  let from = 0;
  for (let tries = 0; tries < 50 && from === 0; tries++) {
    from = await howFar(address);
    await new Promise((resolve) => setTimeout(resolve, 50));
  }
  expect(from).toBe(half);
  expect((await room.ask(endpoints.listStacks, {})).some(({ id }) => id === what.stack)).toBe(false);
  expect((await goOn(address, from)).status).toBe(204);
  await room.work();
  expect(await room.ask(endpoints.readStack, { params: { id: what.stack } })).toMatchObject({ pages: 1 });
});

it('takes in with the next question, or at the next start, what was all there when something failed', async () => {
  const { manager } = room.context.database.source;
  for (const again of [howFar, () => room.uploads.start()]) {
    const what = told();
    const address = place(await begin(what, picture.length));
    // The database is away as the last piece comes.
    await manager.query('alter table source_file rename to away');
    const failed = await goOn(address, 0);
    await manager.query('alter table away rename to source_file');
    expect(failed.status).toBeGreaterThanOrEqual(500);
    await again(address);
    await room.work();
    expect(await room.ask(endpoints.readStack, { params: { id: what.stack } })).toMatchObject({ pages: 1 });
    await until(() => kept().length === 0);
  }
});

it('a file that has come already is not kept twice, whenever it is sent again', async () => {
  const what = told();
  for (let times = 0; times < 2; times++) {
    const address = place(await begin(what, picture.length));
    await goOn(address, 0);
  }
  await room.work();
  expect(await room.ask(endpoints.readStack, { params: { id: what.stack } })).toMatchObject({ pages: 1 });
});

it.each([
  ['without a place to go', { stack: '' }, 400, 'not-valid'],
  ['under a name that leads elsewhere', { file: '../../elsewhere' }, 400, 'not-valid'],
  ['into a document that is not there', { document: randomUUID() }, 404, 'not-found'],
])('refuses a file %s, and keeps nothing of it', async (_what, part, status, code) => {
  const address = await begin(told(part), picture.length);
  const answer = address.status < 300 ? await goOn(place(address), 0) : address;
  expect(answer.status).toBe(status);
  expect((JSON.parse(answer.body) as { code: string }).code).toBe(code);
  await until(() => kept().length === 0);
});

it('refuses a file that is empty, too large, or does not say how long it is', async () => {
  expect((await begin(told(), 0)).status).toBe(422);
  expect((await begin(told(), 10 ** 12)).status).toBe(413);
  const { 'upload-length': _, ...headers } = uploadHeaders(told(), 1);
  const answer = await ask('POST', '/api/uploads', { ...headers, 'upload-defer-length': '1' });
  expect(answer.status).toBe(400);
});

it('nobody goes on with, or asks about, what somebody else sends', async () => {
  const address = place(await begin(told(), picture.length));
  const { manager } = room.context.database.source;
  const [{ id }] = (await manager.query(`insert into actor (name, role) values ('Tove', 'helper') returning id`)) as {
    id: string;
  }[];
  await manager.query('update session set actor_id = $1', [id]);
  expect(await howFar(address)).toBe(404);
  expect((await goOn(address, 0)).status).toBe(404);
});
