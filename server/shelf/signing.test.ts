import { execFileSync, spawnSync } from 'node:child_process';
import { readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { randomUUID } from 'node:crypto';
import { endpoints } from '@crow/contract/endpoints';
import { SigningWish } from '@crow/contract/signing';
import { SigningKey } from '../platform/entities';
import { scanned, scratchFolder, textPdf } from '../testing/made';
import { TestRoom } from '../testing/room';

const PHRASE = 'madder weld and indigo';
let room: TestRoom;
let contract: string;
beforeAll(async () => {
  room = await TestRoom.open();
  contract = await room.documentOf('lease.pdf', await textPdf('Lease of the boat house'));
  await room.file(contract, 'Lease', 'Boat');
  await room.workOnAll();
}, 120_000);
afterAll(() => room.close());

const sign = (id: string, wish: SigningWish) => room.ask(endpoints.signDocument, { params: { id }, body: wish });
async function versionFile(id: string, number: number): Promise<string> {
  const { raw } = await room.send(endpoints.versionPdf, { params: { id, number } });
  const path = join(scratchFolder(), 'signed.pdf');
  writeFileSync(path, raw);
  return path;
}
const pdfsig = (path: string) => spawnSync('pdfsig', ['-nocert', path], { encoding: 'utf8' }).stdout;

function stampsIn(pdf: Buffer): number {
  const path = join(scratchFolder(), 'marked.pdf');
  writeFileSync(path, pdf);
  const open = execFileSync('qpdf', ['--qdf', '--object-streams=disable', path, '-'], {
    encoding: 'latin1',
    maxBuffer: 100 * 1024 ** 2,
  });
  return open.split('/Subtype /Stamp').length - 1;
}

it('signed copies and marks come back from an archive, as they were', async () => {
  const paper = await room.documentOf('oath.pdf', await textPdf('I shall weave no nets'));
  await room.file(paper, 'Oath', 'Boat');
  await room.workOnAll();
  const { pageList } = await room.ask(endpoints.readDocument, { params: { id: paper } });
  const boxes: [number, number, number, number][] = [[100, 100, 200, 30]];
  const mark = { id: randomUUID(), pageId: pageList[0].id, kind: 'stamp' as const, ink: 'plum' as const, boxes };
  await room.ask(endpoints.changeMarks, {
    params: { id: paper },
    body: { put: [{ ...mark, strokes: [], text: 'SWORN' }], remove: [] },
  });
  // A drawing that tells more than everything else of a shelf.
  const line = Array.from({ length: 4000 }, (_, at): [number, number, number] => [at / 10 + 0.123, 50.25, 1.25]);
  const drawing = { id: randomUUID(), pageId: pageList[0].id, kind: 'drawing' as const, ink: 'sea' as const, boxes };
  await room.ask(endpoints.changeMarks, {
    params: { id: paper },
    body: { put: [{ ...drawing, strokes: Array.from({ length: 18 }, () => line), text: '' }], remove: [] },
  });
  await room.ask(endpoints.replyToMark, { params: { id: paper, mark: mark.id }, body: { text: 'Before whom?' } });
  await room.workOnAll();
  const [{ number, until }] = await sign(paper, { key: null, reason: 'It is so' });
  const before = readFileSync(await versionFile(paper, number));
  const archive = (await room.request('GET', '/api/shelf/archive')).raw;
  await room.ask(endpoints.binDocument, { params: { id: paper } });
  await room.ask(endpoints.emptyBin, {});
  await room.work();
  await room.request('PUT', '/api/shelf/archive?name=shelf.zip', {
    headers: { 'content-type': 'application/octet-stream' },
    body: archive,
  });
  await room.workOnAll();
  await room.workOnAll();
  const folder = (await room.ask(endpoints.listFolders, {})).find(({ path }) => path === 'Boat')!;
  const inFolder = await room.ask(endpoints.listDocuments, { params: { id: folder.id }, query: {} });
  const back = inFolder.find(({ name }) => name === 'Oath')!;
  const [version] = await room.ask(endpoints.listVersions, { params: { id: back.id } });
  expect(version).toMatchObject({ until, signed: { by: 'Owner', certified: null, reason: 'It is so' } });
  expect(readFileSync(await versionFile(back.id, version.number)).equals(before)).toBe(true);
  const [found, drawn] = await room.ask(endpoints.listMarks, { params: { id: back.id } });
  expect(drawn.strokes).toHaveLength(18);
  expect(found).toMatchObject({ kind: 'stamp', ink: 'plum', boxes, text: 'SWORN', by: 'Owner' });
  expect(found.replies).toMatchObject([{ by: 'Owner', text: 'Before whom?' }]);
  // Once, as an annotation that can be taken up again, and not as part of the page.
  expect(stampsIn(readFileSync(join(room.shelf.root, 'Boat/Oath.pdf')))).toBe(1);
  const bare = await room.send(endpoints.documentPdf, { params: { id: back.id }, query: { marks: 'without' } });
  expect(stampsIn(bare.raw)).toBe(0);
  // The same once more is known.
  const again = await room.request('PUT', '/api/shelf/archive?name=shelf.zip', {
    headers: { 'content-type': 'application/octet-stream' },
    body: archive,
  });
  expect(again.body).toMatchObject({ brought: 0 });
});

describe('with a key that was made here', () => {
  let key: string;
  it('a paper is signed so that another program says that it is', async () => {
    const [made] = await room.ask(endpoints.makeSigningKey, { body: { name: 'Imre Castellane', passPhrase: PHRASE } });
    key = made.id;
    expect(made).toMatchObject({ name: 'Imre Castellane', issuer: 'Imre Castellane' });
    const [version] = await sign(contract, { key: { id: key, passPhrase: PHRASE }, reason: 'I agree to this lease' });
    expect(version.signed).toEqual({ by: 'Owner', certified: 'Imre Castellane', reason: 'I agree to this lease' });
    const path = await versionFile(contract, version.number);
    const said = pdfsig(path);
    expect(said).toMatch(/Signature Type: ETSI\.CAdES\.detached/);
    expect(said).toMatch(/Signature Validation: Signature is Valid/);
    expect(said).toMatch(/Total document signed/);
    expect(said).toMatch(/Signer Certificate Common Name: Imre Castellane/);
    execFileSync('qpdf', ['--check', path]);
    expect(execFileSync('pdftotext', [path, '-'], { encoding: 'utf8' })).toContain('boat house');
  });

  it('what is changed afterwards is noticed', async () => {
    const [version] = await sign(contract, { key: { id: key, passPhrase: PHRASE }, reason: '' });
    const path = await versionFile(contract, version.number);
    const bytes = readFileSync(path);
    // One letter in the head of the file, which every part of it follows.
    bytes[bytes.indexOf('obj') - 2] ^= 1;
    writeFileSync(path, bytes);
    expect(pdfsig(path)).not.toMatch(/Signature is Valid/);
  });

  it('it has the marks that are on the paper, and stays as it is when they change', async () => {
    const { pageList } = await room.ask(endpoints.readDocument, { params: { id: contract } });
    const id = randomUUID();
    const boxes: [number, number, number, number][] = [[100, 100, 200, 30]];
    const mark = { id, pageId: pageList[0].id, kind: 'stamp' as const, ink: 'sea' as const, boxes, strokes: [] };
    await room.ask(endpoints.changeMarks, {
      params: { id: contract },
      body: { put: [{ ...mark, text: 'Signed by Imre' }], remove: [] },
    });
    const [version] = await sign(contract, { key: { id: key, passPhrase: PHRASE }, reason: '' });
    const before = readFileSync(await versionFile(contract, version.number));
    await room.ask(endpoints.changeMarks, { params: { id: contract }, body: { put: [], remove: [id] } });
    await room.workOnAll();
    expect(readFileSync(await versionFile(contract, version.number)).equals(before)).toBe(true);
    expect(stampsIn(before)).toBe(1);
    expect(stampsIn((await room.send(endpoints.documentPdf, { params: { id: contract }, query: {} })).raw)).toBe(0);
  });

  it('nobody signs with it without its pass phrase, nor anybody else with it', async () => {
    const wrong = { params: { id: contract }, body: { key: { id: key, passPhrase: 'something else' }, reason: '' } };
    expect(await room.refusal(endpoints.signDocument, wrong)).toMatchObject({ code: 'key-not-opened' });
    const other = { params: { id: contract }, body: { key: { id: randomUUID(), passPhrase: PHRASE }, reason: '' } };
    expect(await room.refusal(endpoints.signDocument, other)).toMatchObject({ code: 'not-found' });
    const [kept] = await room.context.database.source.manager.find(SigningKey);
    expect(kept.lockedKey).toMatch(/ENCRYPTED PRIVATE KEY/);
  });
});

describe('with a key from a file', () => {
  /** A key with a certificate of an authority, as a file. @param more how openssl is to write it */
  function keyFile(more: string[], kind = ['-newkey', 'rsa:2048']): string {
    const folder = scratchFolder();
    const at = (name: string) => join(folder, name);
    const openssl = (...args: string[]) => execFileSync('openssl', args, { stdio: ['ignore', 'pipe', 'ignore'] });
    openssl(
      'req',
      '-x509',
      '-newkey',
      'rsa:2048',
      '-nodes',
      '-keyout',
      at('ca.key'),
      '-out',
      at('ca.pem'),
      '-subj',
      '/CN=Harbour Authority',
      '-days',
      '30',
    );
    openssl('req', ...kind, '-nodes', '-keyout', at('own.key'), '-out', at('own.csr'), '-subj', '/CN=Ada Wren');
    openssl(
      'x509',
      '-req',
      '-in',
      at('own.csr'),
      '-CA',
      at('ca.pem'),
      '-CAkey',
      at('ca.key'),
      '-CAcreateserial',
      '-out',
      at('own.pem'),
      '-days',
      '30',
    );
    openssl(
      'pkcs12',
      '-export',
      '-in',
      at('own.pem'),
      '-inkey',
      at('own.key'),
      '-certfile',
      at('ca.pem'),
      '-passout',
      `pass:${PHRASE}`,
      '-out',
      at('own.p12'),
      ...more,
    );
    return readFileSync(at('own.p12')).toString('base64');
  }

  it.each([
    ['as it is written now', [], undefined],
    ['as older programs wrote it', ['-legacy'], undefined],
    ['of an elliptic curve', [], ['-newkey', 'ec', '-pkeyopt', 'ec_paramgen_curve:prime256v1']],
  ])('%s', async (_, more, kind) => {
    const keys = await room.ask(endpoints.importSigningKey, {
      body: { file: keyFile(more, kind), passPhrase: PHRASE },
    });
    const { id, name, issuer } = keys.at(-1)!;
    expect([name, issuer]).toEqual(['Ada Wren', 'Harbour Authority']);
    const [version] = await sign(contract, { key: { id, passPhrase: PHRASE }, reason: '' });
    const said = pdfsig(await versionFile(contract, version.number));
    expect(said).toMatch(/Common Name: Ada Wren/);
    expect(said).toMatch(/Signature is Valid/);
    await room.ask(endpoints.forgetSigningKey, { params: { id } });
  });

  it('is refused with a wrong password, and when it is none', async () => {
    const file = keyFile([]);
    expect(await room.refusal(endpoints.importSigningKey, { body: { file, passPhrase: 'wrong' } })).toMatchObject({
      code: 'key-strange',
    });
    const none = Buffer.from('no key').toString('base64');
    expect(await room.refusal(endpoints.importSigningKey, { body: { file: none, passPhrase: '' } })).toMatchObject({
      code: 'key-strange',
    });
  });
});

it('without a key a copy is kept that never changes', async () => {
  const id = await room.documentOf('scan.jpg', await scanned('Agreed at the quay'));
  await room.file(id, 'Agreement', 'Boat');
  await room.workOnAll();
  const [version] = await sign(id, { key: null, reason: 'as agreed' });
  expect(version.signed).toEqual({ by: 'Owner', certified: null, reason: 'as agreed' });
  expect(pdfsig(await versionFile(id, version.number))).not.toMatch(/Signature #1/);
});
