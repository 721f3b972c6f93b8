import { execFileSync, spawnSync } from 'node:child_process';
import { writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { strFromU8, unzipSync } from 'fflate';
import { endpoints } from '@crow/contract/endpoints';
import { CopyWish } from '@crow/contract/sending';
import { scratchFolder, textPdf } from '../testing/made';
import { TestRoom } from '../testing/room';

let room: TestRoom;
let [lease, bill]: string[] = [];
beforeAll(async () => {
  room = await TestRoom.open();
  lease = await room.documentOf('lease.pdf', await textPdf('Lease of the boat house'));
  bill = await room.documentOf('bill.pdf', await textPdf('Bill for new oars'));
  await room.file(lease, 'Größe, Lease', 'Boat');
  await room.file(bill, 'Oars', 'Boat');
  await room.workOnAll();
}, 120_000);
afterAll(() => room.close());

const WISH: CopyWish = {
  ids: [],
  as: 'pdf',
  form: 'each',
  marks: 'with',
  password: '',
  mayPrint: true,
  version: null,
  mail: null,
};
async function copies(wish: Partial<CopyWish>) {
  const { raw, headers, status } = await room.send(endpoints.makeCopies, { body: { ...WISH, ...wish } });
  expect(status).toBe(200);
  const name = decodeURIComponent(String(headers['content-disposition']).replace(/^.*''/, ''));
  const path = join(scratchFolder(), 'copy');
  writeFileSync(path, raw);
  return { raw, name, path };
}
const textOf = (path: string, ...args: string[]) =>
  execFileSync('pdftotext', [...args, path, '-'], { encoding: 'utf8' });

it('are the PDF itself, or a ZIP of several', async () => {
  const one = await copies({ ids: [lease] });
  expect(one.name).toBe('Größe, Lease.pdf');
  expect(textOf(one.path)).toContain('boat house');
  const several = await copies({ ids: [lease, bill, lease] });
  expect(Object.keys(unzipSync(several.raw))).toEqual(['Größe, Lease.pdf', 'Oars.pdf', 'Größe, Lease (2).pdf']);
});

it('are one PDF in the order wished for', async () => {
  const { path } = await copies({ ids: [bill, lease], form: 'merged' });
  expect(textOf(path)).toMatch(/new oars[^]*boat house/);
  execFileSync('qpdf', ['--check', path]);
});

it('are one book of several papers for reading devices, if that is wished', async () => {
  const { raw, name } = await copies({ ids: [bill, lease], as: 'epub', form: 'merged' });
  expect(name).toBe('2 papers.epub');
  const files = Object.fromEntries(Object.entries(unzipSync(raw)).map(([path, bytes]) => [path, strFromU8(bytes)]));
  expect(files['OEBPS/page-1.xhtml']).toContain('new oars');
  expect(files['OEBPS/page-2.xhtml']).toContain('boat house');
  expect([...files['OEBPS/nav.xhtml'].matchAll(/<li><a[^>]*>([^<]+)/g)].map(([, each]) => each)).toEqual([
    'Oars',
    'Größe, Lease',
  ]);
  const each = await copies({ ids: [bill, lease], as: 'epub' });
  expect(Object.keys(unzipSync(each.raw))).toEqual(['Oars.epub', 'Größe, Lease.epub']);
});

it('open with their password only, and are not printed where that is not wished', async () => {
  const { path } = await copies({ ids: [bill], password: 'Hafen über See', mayPrint: false });
  expect(spawnSync('pdftotext', [path, '-']).status).not.toBe(0);
  expect(textOf(path, '-upw', 'Hafen über See')).toContain('new oars');
  const told = execFileSync('qpdf', ['--show-encryption', '--password=Hafen über See', path], { encoding: 'utf8' });
  expect(told).toMatch(/file encryption method: AESv3/);
  expect(told).toMatch(/print high resolution: not allowed/);
  expect(told).toMatch(/R = 6/);
});

it('lie in a mail that is ready to be sent', async () => {
  const mail = { to: 'Ada <ada@books.example>', subject: 'Papers for März', text: 'Here they are.\nImre' };
  const { raw, name } = await copies({ ids: [lease, bill], mail });
  expect(name).toBe('Papers for März.eml');
  const text = raw.toString();
  expect(text).toMatch(/^X-Unsent: 1\r?$/m);
  expect(text).toMatch(/^To: Ada <ada@books\.example>\r?$/m);
  expect(text.match(/Content-Type: application\/pdf/g)).toHaveLength(2);
  const bare = await copies({ ids: [bill] });
  expect(text.replace(/\s/g, '')).toContain(bare.raw.toString('base64'));
});

it('let nothing into the head of a mail that belongs elsewhere', async () => {
  const mail = { to: 'ada@books.example\r\nBcc: eve@elsewhere.example', subject: '', text: '' };
  expect(await room.refusal(endpoints.makeCopies, { body: { ...WISH, ids: [bill], mail } })).toMatchObject({
    code: 'not-valid',
  });
});

it('are made of nothing that is not there', async () => {
  const ids = ['11111111-1111-4111-8111-111111111111'];
  expect(await room.refusal(endpoints.makeCopies, { body: { ...WISH, ids } })).toMatchObject({ code: 'not-found' });
});

it('are of the signed version where that is wished, to the byte, and not locked', async () => {
  const [{ number }] = await room.ask(endpoints.signDocument, {
    params: { id: lease },
    body: { key: null, reason: 'agreed' },
  });
  const version = await room.send(endpoints.versionPdf, { params: { id: lease, number } });
  const { raw, name } = await copies({ ids: [lease], version: number });
  expect(name).toBe(`Größe, Lease, version ${number}.pdf`);
  expect(raw.equals(version.raw)).toBe(true);
  const body = { ...WISH, ids: [lease], version: number, password: 'Hafen' };
  expect(await room.refusal(endpoints.makeCopies, { body })).toMatchObject({ code: 'not-valid' });
});
