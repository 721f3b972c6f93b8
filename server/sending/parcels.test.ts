import { execFileSync } from 'node:child_process';
import { writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { PASSWORD, StandInMailServer, startMailServer, USER } from '@crow/standins/mail/server';
import { endpoints } from '@crow/contract/endpoints';
import { MailAccountChange, PackedWish, Parcel } from '@crow/contract/sending';
import { Setting } from '../platform/entities';
import { scratchFolder, textPdf } from '../testing/made';
import { TestRoom } from '../testing/room';
import { takeForPosting } from './queries';

let room: TestRoom;
let server: StandInMailServer;
let [lease, bill]: string[] = [];
beforeAll(async () => {
  room = await TestRoom.open();
  server = await startMailServer();
  lease = await room.documentOf('lease.pdf', await textPdf('Lease of the boat house'));
  bill = await room.documentOf('bill.pdf', await textPdf('Bill for new oars'));
  await room.file(lease, 'Lease', 'Boat');
  await room.file(bill, 'Oars', 'Boat');
  await room.workOnAll();
}, 120_000);
afterAll(async () => {
  await server?.close();
  await room.close();
});

const account = (change: Partial<MailAccountChange> = {}): MailAccountChange => ({
  ...{
    host: '127.0.0.1',
    port: server.port,
    security: 'none',
    user: USER,
    from: USER,
    name: 'Imre',
    password: PASSWORD,
  },
  ...change,
});
const setUp = (change?: Partial<MailAccountChange>) => room.ask(endpoints.changeMailAccount, { body: account(change) });
const COPIES = {
  as: 'pdf',
  size: 'filed',
  form: 'each',
  marks: 'with',
  password: '',
  mayPrint: true,
  version: null,
  hidden: null,
} as const;
const make = (copies: Partial<PackedWish>, way: { to?: string; link?: { looks?: number; password?: string } } = {}) =>
  room.ask(endpoints.makeParcel, {
    body: {
      copies: { ...COPIES, ids: [lease], ...copies },
      mail: way.to ? { to: way.to, subject: 'Papers for März', text: 'Here they are.\nImre' } : null,
      link: way.link
        ? { name: 'The lease', days: 7, looks: way.link.looks ?? null, password: way.link.password ?? '' }
        : null,
    },
  });
const now = ({ id }: Parcel) => room.ask(endpoints.readParcel, { params: { id } });

describe('by mail', () => {
  it('nothing goes while no account is set up', async () => {
    expect(await room.ask(endpoints.mailWays, {})).toEqual({ from: null, addresses: [] });
    const body = {
      copies: { ...COPIES, ids: [lease] },
      mail: { to: 'ada@books.example', subject: '', text: '' },
      link: null,
    };
    expect(await room.refusal(endpoints.makeParcel, { body })).toMatchObject({ code: 'mail-not-set-up' });
    expect(await room.refusal(endpoints.tryMailAccount, {})).toMatchObject({ code: 'mail-not-set-up' });
  });

  it('the account is tried out, and what is wrong with it is said', async () => {
    await setUp({ password: 'not this' });
    expect(await room.refusal(endpoints.tryMailAccount, {})).toMatchObject({
      code: 'mail-refused',
      happened: 'The mail server refused it: user or password is not right.',
    });
    await setUp({ port: 1 });
    expect((await room.refusal(endpoints.tryMailAccount, {})).happened).toMatch(/nothing answers/);
    await setUp();
    await room.ask(endpoints.tryMailAccount, {});
    expect(server.arrived.at(-1)).toMatchObject({ from: USER, to: [USER], subject: 'A test from Crow Shelf' });
  });

  it('a password goes to another machine encrypted only', async () => {
    const body = account({ host: 'mail.books.example' });
    expect(await room.refusal(endpoints.changeMailAccount, { body })).toMatchObject({
      code: 'not-valid',
      happened: expect.stringContaining('encrypted only') as string,
    });
  });

  it('its password is told to nobody, is kept for the same user only, and is not to be read in the database', async () => {
    const { account: known } = await room.ask(endpoints.readMailAccount, {});
    expect(known).toMatchObject({ user: USER, hasPassword: true });
    const shown = JSON.stringify([known, await room.ask(endpoints.readSettings, {})]);
    const kept = JSON.stringify(await room.context.database.source.manager.find(Setting));
    for (const text of [shown, kept]) expect(text).not.toContain(PASSWORD);
    expect(shown).not.toContain('sealed');
    await setUp({ name: 'Imre Castellane', password: null });
    await room.ask(endpoints.tryMailAccount, {});
    expect((await setUp({ user: 'ada', password: null })).account).toMatchObject({ hasPassword: false });
    await setUp();
  });

  it('papers go to several at once, and the addresses are remembered', async () => {
    const parcel = await make({ ids: [lease, bill] }, { to: 'Ada <ada@books.example>; bo@quay.example' });
    expect(parcel).toMatchObject({
      way: 'mail',
      state: 'packing',
      papers: [
        { id: lease, name: 'Lease' },
        { id: bill, name: 'Oars' },
      ],
    });
    await room.work();
    expect(await now(parcel)).toMatchObject({ state: 'sent', problem: null, by: 'Owner' });
    const { to, subject, text, attachments, raw } = server.arrived.at(-1)!;
    expect([to, subject, text.trim()]).toEqual([
      ['ada@books.example', 'bo@quay.example'],
      'Papers for März',
      'Here they are.\nImre',
    ]);
    expect(attachments.map(({ name }) => name)).toEqual(['Lease.pdf', 'Oars.pdf']);
    const path = join(scratchFolder(), 'got.pdf');
    writeFileSync(path, attachments[1].bytes);
    expect(execFileSync('pdftotext', [path, '-'], { encoding: 'utf8' })).toContain('new oars');
    expect(raw.toString()).toMatch(/^From: Imre <imre@wickford-loom\.example>\r?$/m);
    expect((await room.ask(endpoints.mailWays, {})).addresses).toEqual(['Ada <ada@books.example>', 'bo@quay.example']);
    const deeds = await room.ask(endpoints.documentHistory, { params: { id: lease } });
    expect(deeds.find(({ action }) => action === 'sent by mail')!.detail).toMatchObject({
      to: expect.stringContaining('bo@quay') as string,
    });
  });

  it('what a busy server does not take is tried again by itself, once', async () => {
    server.mood = 'is busy';
    const before = server.arrived.length;
    const parcel = await make({}, { to: 'ada@books.example' });
    await room.work();
    const waiting = await now(parcel);
    expect(waiting).toMatchObject({ state: 'waiting', problem: { code: 'mail-waits' } });
    expect(Date.parse(waiting.nextTry!) - Date.now()).toBeGreaterThan(30_000);
    server.mood = 'takes mails';
    // Not before its time.
    await room.workOnAll();
    expect(server.arrived).toHaveLength(before);
    await room.ask(endpoints.sendAgain, { params: { id: parcel.id } });
    await room.ask(endpoints.sendAgain, { params: { id: parcel.id } });
    await room.workOnAll();
    expect(await now(parcel)).toMatchObject({ state: 'sent', problem: null });
    expect(server.arrived).toHaveLength(before + 1);
  });

  it('what a server refuses is told and kept, and goes when it is sent again', async () => {
    server.mood = 'refuses mails';
    const parcel = await make({}, { to: 'ada@books.example' });
    await room.work();
    expect(await now(parcel)).toMatchObject({
      state: 'refused',
      problem: { happened: expect.stringContaining('not wanted here') as string },
    });
    server.mood = 'takes mails';
    await room.ask(endpoints.sendAgain, { params: { id: parcel.id } });
    await room.work();
    expect((await now(parcel)).state).toBe('sent');
    expect(await room.refusal(endpoints.sendAgain, { params: { id: parcel.id } })).toMatchObject({
      code: 'parcel-elsewhere',
    });
  });

  it('an address at which nobody is is named, and the others have it', async () => {
    const parcel = await make({}, { to: 'ada@books.example, nobody@books.example' });
    await room.work();
    expect(await now(parcel)).toMatchObject({
      state: 'sent',
      problem: { code: 'mail-in-part', details: { addresses: 'nobody@books.example' } },
    });
  });

  it('one that waits can be stopped, and is not sent then', async () => {
    const before = server.arrived.length;
    const parcel = await make({}, { to: 'ada@books.example' });
    await room.ask(endpoints.endParcel, { params: { id: parcel.id } });
    await room.workOnAll();
    expect((await now(parcel)).state).toBe('ended');
    expect(server.arrived).toHaveLength(before);
  });

  it('one that is being sent is not stopped any more, and is sent once more when the program ended meanwhile', async () => {
    const { manager } = room.context.database.source;
    const before = server.arrived.length;
    const parcel = await make({}, { to: 'ada@books.example' });
    await room.work(['pack']);
    expect(await takeForPosting(manager, parcel.id)).toBeDefined();
    expect(await room.refusal(endpoints.endParcel, { params: { id: parcel.id } })).toMatchObject({
      happened: 'This is being sent by now.',
    });
    expect((await room.refusal(endpoints.sendAgain, { params: { id: parcel.id } })).code).toBe('parcel-elsewhere');
    await room.work();
    expect((await now(parcel)).state).toBe('sent');
    expect(server.arrived).toHaveLength(before + 1);
  });

  it.each(['ada@', 'ada@books.example\r\nBcc: eve@x.example', ' ; '])('goes to no address such as %j', async (to) => {
    const body = { copies: { ...COPIES, ids: [lease] }, mail: { to, subject: '', text: '' }, link: null };
    expect(await room.refusal(endpoints.makeParcel, { body })).toMatchObject({ code: 'not-valid' });
  });
});

describe('to be saved', () => {
  it('copies are made in the size and form that is wished for', async () => {
    for (const [wish, name] of [
      [{ size: 'small' }, 'Lease.pdf'],
      [{ as: 'text' }, 'Lease.txt'],
      [{ as: 'pictures' }, 'Lease.jpg'],
      [{ as: 'epub', ids: [lease, bill] }, 'Papers.zip'],
    ] as const) {
      const parcel = await make({ ...wish, ids: [...('ids' in wish ? wish.ids : [lease])] });
      await room.work();
      expect(await now(parcel)).toMatchObject({ way: 'save', state: 'ready', fileName: name });
      const { raw, headers } = await room.send(endpoints.parcelFile, { params: { id: parcel.id } });
      expect(raw.length).toBe((await now(parcel)).bytes);
      expect(headers['content-disposition']).toContain('attachment');
    }
    expect((await room.ask(endpoints.listParcels, {})).every(({ way }) => way !== 'save')).toBe(true);
  });

  it('with parts hidden, under a name that does not tell them', async () => {
    const { pageList } = await room.ask(endpoints.readDocument, { params: { id: lease } });
    const hidden = [{ pageId: pageList[0].id, box: [0, 0, 1, 1] as [number, number, number, number] }];
    const parcel = await make({ hidden }, { link: {} });
    await room.work();
    const { fileName, papers, state } = await now(parcel);
    expect([state, fileName, papers[0].name]).toEqual(['ready', 'A paper, parts hidden.pdf', 'A paper, parts hidden']);
    const { raw } = await room.send(endpoints.parcelFile, { params: { id: parcel.id } });
    const path = join(scratchFolder(), 'hidden.pdf');
    writeFileSync(path, raw);
    expect(execFileSync('pdftotext', [path, '-'], { encoding: 'utf8' })).not.toContain('boat');
    const two = { copies: { ...COPIES, ids: [lease, bill], hidden }, mail: null, link: null };
    expect(await room.refusal(endpoints.makeParcel, { body: two })).toMatchObject({ code: 'not-valid' });
  });
});

describe('a link', () => {
  const STRANGER = {
    cookie: '',
    'user-agent': 'Mozilla/5.0 (X11; Linux x86_64; rv:128.0) Gecko/20100101 Firefox/128.0',
  };
  const visit = (path: string) => room.request('GET', path, { headers: STRANGER });
  const open = (path: string, password = '') =>
    room.request('POST', path, {
      headers: { ...STRANGER, 'content-type': 'application/x-www-form-urlencoded' },
      body: new URLSearchParams({ password }).toString(),
    });
  async function laid(link: { looks?: number; password?: string }): Promise<{ parcel: Parcel; path: string }> {
    const parcel = await make({}, { link });
    await room.work();
    return { parcel, path: new URL(parcel.link!.address!).pathname };
  }

  it('leads whoever has it to that copy, says who looked, and to nothing else', async () => {
    const { parcel, path } = await laid({});
    expect(parcel.link).toMatchObject({ reached: false, locked: false, looks: [] });
    const page = await visit(path);
    expect([page.status, String(page.body)]).toEqual([200, expect.stringMatching(/The lease[^]*lets you look[^]* kB/)]);
    // To be told of it is no look.
    expect((await now(parcel)).link!.looks).toEqual([]);
    const { status, headers } = await open(path);
    expect(status).toBe(303);
    const file = await visit(String(headers.location));
    expect([file.status, file.headers['content-type']]).toEqual([200, 'application/pdf']);
    const got = join(scratchFolder(), 'got.pdf');
    writeFileSync(got, file.raw);
    expect(execFileSync('pdftotext', [got, '-'], { encoding: 'utf8' })).toContain('boat house');
    expect((await now(parcel)).link!.looks).toMatchObject([{ browser: 'Firefox on Linux', from: '127.0.0.1' }]);
    expect((await room.request('GET', `/api/documents/${lease}/pdf`, { headers: STRANGER })).status).toBe(401);
    expect((await visit(`${path}x`)).status).toBe(410);
  });

  it('is followed from a mail in a browser, and not sent by a page elsewhere', async () => {
    const { path } = await laid({});
    const elsewhere = {
      ...STRANGER,
      'sec-fetch-site': 'cross-site',
      'sec-fetch-mode': 'navigate',
      'sec-fetch-dest': 'document',
    };
    expect(String((await room.request('GET', path, { headers: elsewhere })).body)).toContain('Open it');
    const form = {
      ...elsewhere,
      origin: 'https://elsewhere.example',
      'content-type': 'application/x-www-form-urlencoded',
    };
    expect((await room.request('POST', path, { headers: form, body: '' })).status).toBe(403);
    const frame = { ...elsewhere, 'sec-fetch-dest': 'iframe' };
    expect((await room.request('GET', path, { headers: frame })).status).toBe(403);
  });

  it('asks for its password, does not name the paper before, and leads nowhere after too many wrong ones', async () => {
    const { parcel, path } = await laid({ password: 'Hafen' });
    const page = await visit(path);
    expect(String(page.body)).toContain('type="password"');
    expect(String(page.body)).not.toContain('lease');
    const wrong = await open(path, 'Haven');
    expect([wrong.status, String(wrong.body)]).toEqual([403, expect.stringContaining('That is not the password')]);
    expect((await open(path, 'Hafen')).status).toBe(303);
    for (let tried = 0; tried < 20; tried++) await open(path, 'Haven');
    expect((await open(path, 'Hafen')).status).toBe(410);
    expect((await now(parcel)).state).toBe('ended');
  });

  it('ends after so many looks', async () => {
    const { parcel, path } = await laid({ looks: 1 });
    const both = await Promise.all([open(path), open(path)]);
    expect(both.map(({ status }) => status).sort()).toEqual([303, 410]);
    // Whoever looks still gets the file that they asked for.
    const { headers } = both.find(({ status }) => status === 303)!;
    expect((await visit(String(headers.location))).status).toBe(200);
    expect((await visit(path)).status).toBe(410);
    expect((await now(parcel)).state).toBe('ended');
  });

  it('ends when its time is over, and its copy is let go of', async () => {
    const { parcel, path } = await laid({});
    await room.context.database.source.query(`update parcel_link set ends_at = now() where parcel_id = $1`, [
      parcel.id,
    ]);
    expect((await visit(path)).status).toBe(410);
    await room.parcels.sweep();
    expect((await room.send(endpoints.parcelFile, { params: { id: parcel.id } })).status).toBe(404);
  });

  it('is taken back with a word, also from whoever is looking', async () => {
    const { parcel, path } = await laid({});
    const { headers } = await open(path);
    await room.ask(endpoints.endParcel, { params: { id: parcel.id } });
    expect((await visit(path)).status).toBe(410);
    expect((await visit(String(headers.location))).status).toBe(410);
    expect(await room.refusal(endpoints.endParcel, { params: { id: parcel.id } })).toMatchObject({
      code: 'parcel-elsewhere',
    });
  });
});
