import { randomBytes, createHash } from 'node:crypto';
import { endpoints } from '@crow/contract/endpoints';
import { isAllowed, Role } from '@crow/contract/roles';
import { TestRoom } from '../testing/room';

const ID = '00000000-0000-4000-8000-000000000000';
/** Those that answer without end, look around the network, or end the session that asks. */
const APART = ['events', 'findScanners', 'leave'];
const PEOPLE: Role[] = ['owner', 'helper', 'reader', 'device'];

let room: TestRoom;
const cookies = new Map<Role, string>();
beforeAll(async () => {
  room = await TestRoom.open();
  const { manager } = room.context.database.source;
  for (const role of PEOPLE) {
    const secret = randomBytes(32).toString('base64url');
    const [{ id }] = (await manager.query(
      `insert into actor (name, role) values ($1 || ' of the test', $1) returning id`,
      [role],
    )) as [{ id: string }];
    await manager.query('insert into session (actor_id, token_hash) values ($1, $2)', [
      id,
      createHash('sha256').update(secret).digest(),
    ]);
    cookies.set(role, `crow_session_1=${secret}`);
  }
});
afterAll(() => room.close());

const routes = Object.entries(endpoints).filter(([name]) => !APART.includes(name));

it.each(PEOPLE.flatMap((role) => routes.map(([name, endpoint]) => [role, name, endpoint] as const)))(
  '%s and %s',
  async (role, _name, { method, path, right }) => {
    const url = `/api${path.replace(/:number/g, '1').replace(/:\w+/g, ID)}`;
    const { status, body } = await room.request(method, url, { headers: { cookie: cookies.get(role)! } });
    expect((body as { code?: string }).code === 'not-yours').toBe(!isAllowed(role, right));
    if (!isAllowed(role, right)) expect(status).toBe(403);
  },
);

/** What is asked for with a body, and gives answers and copies only. */
const ANSWERS = ['shelfTable', 'askShelf', 'makeCopies', 'copyWithHidden'];

it('gives a reader no route that changes anything, a device none of the shelf’s and Find’s, a helper none of the owner’s', () => {
  const allowed = (role: Role) => routes.flatMap(([name, { right }]) => (isAllowed(role, right) ? [name] : []));
  expect(allowed('reader')).toEqual(expect.arrayContaining(['find', 'documentPdf', 'listFolders']));
  expect(
    routes.flatMap(([name, { method }]) => (method !== 'GET' && allowed('reader').includes(name) ? [name] : [])),
  ).toEqual(ANSWERS);
  expect(allowed('device')).toContain('sendFile');
  expect(allowed('device')).not.toEqual(expect.arrayContaining(['find', 'documentPdf', 'readDocument']));
  expect(allowed('helper')).not.toContain('emptyBin');
  expect(allowed('owner')).toHaveLength(routes.length);
});
