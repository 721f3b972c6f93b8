import { endpoints } from '@crow/contract/endpoints';
import { Endpoint } from '@crow/contract/endpoint';
import { isAllowed, Role } from '@crow/contract/roles';
import { Folder, Glance } from '@crow/contract/folders';
import { ShelfReply } from '@crow/contract/asking';
import { FindReply } from '@crow/contract/finding';
import { StackSummary } from '@crow/contract/stacks';
import { Overview } from '@crow/contract/settings';
import { Document } from '../platform/entities';
import { textPdf } from '../testing/made';
import { TestRoom } from '../testing/room';

const PHRASE = 'madder weld and indigo';
const LINES = [{ description: 'yarn', quantity: 2, unitPrice: 12.5, amount: 25 }];
const NARROWED: Role[] = ['reader', 'device'];

let room: TestRoom;
let [yarn, council]: string[] = [];
const pageOf = new Map<string, string>();
let folders: Map<string, string>;
/** Cookies: of a reader of one folder, of a reader of all, of a device that only captures. */
let [narrow, wide, device]: string[] = [];

beforeAll(async () => {
  room = await TestRoom.open();
  yarn = await room.documentOf('yarn.pdf', await textPdf('Harbour Fibre Mill\nundyed yarn for the loom'));
  council = await room.documentOf('council.pdf', await textPdf('Borough Council\nrates for the house'));
  await room.file(yarn, 'Harbour Fibre Mill', 'Workshop/Yarn');
  await room.file(council, 'Borough Council', 'Home');
  for (const id of [yarn, council]) {
    const { pageList } = await room.ask(endpoints.readDocument, { params: { id } });
    pageOf.set(id, pageList[0].id);
    await room.context.database.source.manager.update(Document, { id }, { lines: LINES as never });
  }
  folders = new Map((await room.ask(endpoints.listFolders, {})).map(({ id, path }) => [path, id]));
  const reader = { role: 'reader' as const, passPhrase: PHRASE };
  await room.ask(endpoints.addPerson, {
    body: { ...reader, name: 'Una', allFolders: false, folders: [folders.get('Workshop')!] },
  });
  await room.ask(endpoints.addPerson, { body: { ...reader, name: 'Per', allFolders: true, folders: [] } });
  narrow = await comeIn('Una');
  wide = await comeIn('Per');
  await room.ask(endpoints.changeDoor, { body: { open: true } });
  const { address } = await room.ask(endpoints.letDeviceIn, { body: { name: 'Kitchen tablet' } });
  device = cookieOf(
    await room.request('GET', new URL(address).pathname + new URL(address).search, { headers: { cookie: '' } }),
  );
}, 120_000);
afterAll(() => room.close());

const cookieOf = ({ headers }: { headers: Record<string, unknown> }) => String(headers['set-cookie']).split(';')[0];
async function comeIn(name: string): Promise<string> {
  const headers = { cookie: '', 'content-type': 'application/x-www-form-urlencoded' };
  return cookieOf(
    await room.request('POST', '/enter', {
      headers,
      body: new URLSearchParams({ name, passPhrase: PHRASE }).toString(),
    }),
  );
}
const get = async <T = unknown>(cookie: string, url: string) => {
  const { status, body } = await room.request('GET', `/api${url}`, { headers: { cookie } });
  return { status, body: body as T };
};

it('every route that names one thing, and that readers or devices may ask, says what it is', () => {
  const all: Endpoint[] = Object.values(endpoints);
  const open = all.filter(({ path, right }) => path.includes(':id') && NARROWED.some((role) => isAllowed(role, right)));
  expect(open.length).toBeGreaterThan(10);
  expect(open.filter(({ of }) => !of).map(({ path }) => path)).toEqual([]);
});

describe('a reader of one folder', () => {
  const routes: [string, Endpoint][] = Object.entries(endpoints as Record<string, Endpoint>).filter(
    ([, { of, right, method }]) => of && method === 'GET' && isAllowed('reader', right),
  );
  const addressOf = ({ of, path }: Endpoint, id: string) => {
    const own = { document: id, page: pageOf.get(id)!, folder: id, stack: id }[of!];
    const query = /hits|answer/.test(path)
      ? '?q=rates'
      : /picture\//.test(path)
        ? '?turn=0'
        : /pictures/.test(path)
          ? '?as=jpeg'
          : /lines/.test(path)
            ? '?as=csv'
            : /hideable/.test(path)
              ? '?what=amounts'
              : '';
    return path.replace(':id', own).replace(':size', 'thumb') + query;
  };

  it.each(routes)('does not get at another folder’s papers by %s', async (_name, endpoint) => {
    const id = endpoint.of === 'folder' ? folders.get('Home')! : council;
    expect((await get(narrow, addressOf(endpoint, id))).status).toBe(404);
  });

  it('opens and copies what lies in theirs, and in the folders inside', async () => {
    for (const [, endpoint] of routes.filter(([name]) => name !== 'documentTextPdf'))
      expect([
        endpoint.path,
        (await get(narrow, addressOf(endpoint, endpoint.of === 'folder' ? folders.get('Workshop/Yarn')! : yarn)))
          .status,
      ]).toEqual([endpoint.path, 200]);
  });

  it('finds nothing else, and is told of no other folder', async () => {
    expect((await get<FindReply>(narrow, '/find?q=rates')).body.found).toEqual([]);
    expect((await get<FindReply>(narrow, '/find?q=yarn')).body.found.map(({ document }) => document.id)).toEqual([
      yarn,
    ]);
    const seen = (await get<Folder[]>(narrow, '/folders')).body;
    expect(seen.map(({ path, parentId }) => [path, parentId])).toEqual([
      ['Workshop', null],
      ['Workshop/Yarn', folders.get('Workshop')],
    ]);
    expect((await get<Overview>(narrow, '/overview')).body).toMatchObject({ filed: 1, stacks: 0, check: 0 });
  });

  it('is told at a glance, and takes as a table, what they see only', async () => {
    const { latest, folders: own } = (await get<Glance>(narrow, '/shelf/glance')).body;
    expect(latest.map(({ id }) => id)).toEqual([yarn]);
    expect(own).toHaveLength(2);
    const table = async (ids: string[]) =>
      room.request('POST', '/api/shelf/table', {
        headers: { cookie: narrow, 'content-type': 'application/json' },
        body: JSON.stringify({ ids, rows: 'lines', as: 'csv' }),
      });
    expect((await table([yarn, council])).raw.toString().trimEnd().split('\r\n')).toHaveLength(2);
    expect((await table([council])).status).toBe(404);
  });

  it('is answered from what they see only', async () => {
    const { body } = await room.request('POST', '/api/answers', {
      headers: { cookie: narrow, 'content-type': 'application/json' },
      body: JSON.stringify({ question: 'How many papers are there?' }),
    });
    expect((body as ShelfReply).answer!.sources.map(({ id }) => id)).toEqual([yarn]);
  });

  it('makes copies of what they see only', async () => {
    const ask = async (url: string, body: object) =>
      room.request('POST', `/api${url}`, {
        headers: { cookie: narrow, 'content-type': 'application/json' },
        body: JSON.stringify(body),
      });
    const wish = { form: 'each', marks: 'with', password: '', mayPrint: true };
    expect((await ask('/copies', { ...wish, ids: [yarn] })).status).toBe(200);
    expect((await ask('/copies', { ...wish, ids: [yarn, council] })).status).toBe(404);
    expect((await ask('/copies', { ...wish, ids: [yarn], version: 1 })).status).toBe(403);
    const hidden = (id: string) => ({ areas: [{ pageId: pageOf.get(id), box: [0, 0, 0.5, 0.1] }] });
    expect((await ask(`/documents/${yarn}/hidden-copy`, hidden(yarn))).status).toBe(200);
    expect((await ask(`/documents/${council}/hidden-copy`, hidden(council))).status).toBe(404);
    expect((await ask(`/documents/${yarn}/hidden-copy`, hidden(council))).status).toBe(404);
  });

  it('takes an archive of what they see only', async () => {
    expect((await get(narrow, `/shelf/archive?folder=${folders.get('Home')}`)).status).toBe(404);
    const { raw } = await room.request('GET', '/api/shelf/archive', { headers: { cookie: narrow } });
    expect(raw.includes('Harbour Fibre Mill.pdf')).toBe(true);
    expect(raw.includes('Borough Council.pdf')).toBe(false);
  });

  it('sees less as soon as the owner says so, and more', async () => {
    const una = (await room.ask(endpoints.listPeople, {})).find(({ name }) => name === 'Una')!;
    expect(una.folders.map(({ path }) => path)).toEqual(['Workshop']);
    const give = (body: { allFolders: boolean; folders: string[] }) =>
      room.ask(endpoints.changeFolders, { params: { id: una.id }, body });
    await give({ allFolders: false, folders: [] });
    expect((await get(narrow, `/documents/${yarn}`)).status).toBe(404);
    await give({ allFolders: true, folders: [] });
    expect((await get(narrow, `/documents/${council}`)).status).toBe(200);
    await give({ allFolders: false, folders: [folders.get('Workshop')!] });
    expect((await get(narrow, `/documents/${council}`)).status).toBe(404);
  });
});

it('a reader of all folders sees everything that is filed, and nothing that is not', async () => {
  expect((await get(wide, `/documents/${council}/pdf`)).status).toBe(200);
  const waiting = await room.documentOf('waiting.pdf', await textPdf('Brine and Beacon\nmending of nets'));
  expect((await get(wide, `/documents/${waiting}`)).status).toBe(404);
  expect((await get<FindReply>(wide, '/find?q=nets')).body).toMatchObject({ found: [], inSort: [] });
  expect((await get<FindReply>(wide, '/find?q=from:Brine')).body.found).toEqual([]);
});

describe('a device', () => {
  it('sees the stacks that it captured, and their pages, and no others', async () => {
    const foreign = await room.takeIn({ 'foreign.pdf': await textPdf('not from the kitchen') });
    const stack = '11111111-1111-4111-8111-111111111111';
    const sent = await send(stack);
    expect(sent.status).toBe(201);
    await room.work();
    expect((await get<StackSummary[]>(device, '/stacks')).body.map(({ id }) => id)).toEqual([stack]);
    expect((await get(device, `/stacks/${foreign}`)).status).toBe(404);
    const { pageList } = await room.ask(endpoints.readStack, { params: { id: stack } });
    expect((await get(device, `/pages/${pageList[0].id}/picture/thumb?turn=0`)).status).toBe(200);
    expect((await get(device, `/pages/${pageOf.get(yarn)}/picture/thumb?turn=0`)).status).toBe(404);
    expect((await get<Overview>(device, '/overview')).body).toMatchObject({ stacks: 1, check: 0, filed: 0 });
  });

  it('adds nothing to what others captured', async () => {
    const foreign = await room.takeIn({ 'foreign.pdf': await textPdf('not from the kitchen either') });
    expect((await send(foreign)).status).toBe(404);
    expect((await send('22222222-2222-4222-8222-222222222222', { document: yarn })).status).toBe(404);
  });

  it('has a name, and is let in no more when the owner says so', async () => {
    const [{ id, sessions }] = (await room.ask(endpoints.listPeople, {})).filter(({ role }) => role === 'device');
    expect(sessions[0].device).toBe('Kitchen tablet');
    await room.ask(endpoints.removePerson, { params: { id } });
    expect((await get(device, '/overview')).status).toBe(401);
  });

  async function send(stack: string, more: Record<string, string> = {}) {
    return room.sendFile(stack, 'a.pdf', await textPdf('taken in the kitchen'), more, { cookie: device });
  }
});
