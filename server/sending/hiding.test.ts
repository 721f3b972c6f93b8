import { execFileSync } from 'node:child_process';
import { readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { PDFArray, PDFDict, PDFDocument, PDFName, PDFString, StandardFonts } from '@cantoo/pdf-lib';
import sharp from 'sharp';
import { endpoints } from '@crow/contract/endpoints';
import { Box } from '@crow/core/geometry';
import { scanned, scratchFolder } from '../testing/made';
import { TestRoom } from '../testing/room';

const IBAN = 'DE44 5001 0517 5407 3249 31';
const SECRET = 'Quillmoor';
/** Parts of the account that no offset or checksum in a file is by chance. */
const ACCOUNT = ['DE44 5001', '5001 0517', '0517 5407 3249', 'DE445001', '500105175407'];

let room: TestRoom;
beforeAll(async () => void (room = await TestRoom.open()));
afterAll(() => room.close());

/** A PDF of two pages that share their resources, with a link from the second to the first, an attachment, and an earlier revision. */
async function born(): Promise<Uint8Array> {
  const pdf = await PDFDocument.create();
  pdf.setTitle(`Letter of ${SECRET}`);
  pdf.setSubject(SECRET);
  const font = await pdf.embedFont(StandardFonts.Helvetica);
  const [first, second] = [pdf.addPage([400, 500]), pdf.addPage([400, 500])];
  first.drawText('Lease of the boat house', { x: 40, y: 440, size: 14, font });
  first.drawText(IBAN, { x: 40, y: 400, size: 14, font });
  first.drawText(`${SECRET}, harbour`, { x: 40, y: 360, size: 14, font });
  ['Signed at the quay', 'by both of us, each for one half', 'on a Monday in May, with two witnesses'].forEach(
    (line, at) => second.drawText(line, { x: 40, y: 440 - 30 * at, size: 14, font }),
  );
  const mark = await pdf.embedPng(
    await sharp({ create: { width: 40, height: 40, channels: 3, background: '#c03060' } })
      .png()
      .toBuffer(),
  );
  first.drawImage(mark, { x: 40, y: 200, width: 80, height: 80 });
  const [shared, own] = [first, second].map(({ node }) => node.Resources()!.lookup(PDFName.of('Font'), PDFDict));
  own.entries().forEach(([name, ref]) => shared.set(name, ref));
  second.node.set(PDFName.of('Resources'), first.node.get(PDFName.of('Resources'))!);
  const { context } = pdf;
  const link = context.obj({ Type: 'Annot', Subtype: 'Link', Rect: [0, 0, 50, 50], Dest: [first.ref, 'Fit'] });
  const note = context.obj({ Type: 'Annot', Subtype: 'Text', Rect: [0, 0, 9, 9], Contents: PDFString.of(SECRET) });
  second.node.set(PDFName.of('Annots'), context.obj([context.register(link), context.register(note)]));
  await pdf.attach(Buffer.from(`account of ${SECRET}`), 'account.txt');
  const saved = await pdf.save({ useObjectStreams: false });
  const again = await PDFDocument.load(saved, { forIncrementalUpdate: true });
  again.setKeywords([SECRET]);
  return again.save();
}

async function hide(id: string, words: string[]): Promise<{ path: string; name: string }> {
  const areas: { pageId: string; box: Box }[] = [];
  for (const q of words)
    for (const { pageId, boxes } of await room.ask(endpoints.documentHits, { params: { id }, query: { q } }))
      areas.push(...boxes.map((box) => ({ pageId, box: box as Box })));
  for (const { pageId, box } of await room.ask(endpoints.placesToHide, { params: { id }, query: { what: 'accounts' } }))
    areas.push({ pageId, box: box as Box });
  expect(areas.length).toBeGreaterThan(0);
  const { raw, headers } = await room.send(endpoints.copyWithHidden, { params: { id }, body: { areas } });
  const path = join(scratchFolder(), 'copy.pdf');
  writeFileSync(path, raw);
  execFileSync('qpdf', ['--check', path]);
  return { path, name: String(headers['content-disposition']) };
}

/** Everything that can be had from a file's bytes, unpacked. */
function everythingIn(path: string): string {
  const open = `${path}.open`;
  execFileSync('qpdf', ['--qdf', '--object-streams=disable', '--no-original-object-ids', path, open]);
  return [
    readFileSync(path, 'latin1'),
    readFileSync(open, 'latin1'),
    execFileSync('pdftotext', [path, '-'], { encoding: 'utf8' }),
    execFileSync('pdfinfo', ['-meta', path], { encoding: 'utf8' }),
    execFileSync('pdfinfo', [path], { encoding: 'utf8' }),
    execFileSync('pdfdetach', ['-list', path], { encoding: 'utf8' }),
  ].join('\n');
}

/** Expects that a text stands nowhere in a file, however it may be written there. */
function expectGone(path: string, text: string): void {
  const all = everythingIn(path).toLowerCase();
  const forms = [text, Buffer.from(text).toString('hex'), Buffer.from(text, 'utf16le').swap16().toString('hex')];
  expect(forms.filter((form) => all.includes(form.toLowerCase()))).toEqual([]);
  const bytes = readFileSync(`${path}.open`);
  const wide = Buffer.from(text, 'utf16le');
  expect([bytes.includes(wide), bytes.includes(Buffer.from(wide).swap16())]).toEqual([false, false]);
}

it('nothing of what is hidden can be got back from the copy of a born-digital PDF', async () => {
  const bytes = await born();
  const id = await room.documentOf('letter.pdf', bytes, { whole: true });
  await room.file(id, `Letter of ${SECRET}`, 'Letters');
  await room.workOnAll();
  const { path, name } = await hide(id, [SECRET]);
  const all = everythingIn(path);
  for (const gone of [SECRET, ...ACCOUNT, 'account.txt']) expectGone(path, gone);
  expect(name).not.toContain(SECRET);
  expect(all).toContain('harbour');
  expect(all).toContain('Signed at the quay');
  // The second page is still drawn, not pictured; nothing but the two pages is in the file, and no picture of the first's on the second.
  const copy = await PDFDocument.load(readFileSync(path));
  expect(copy.getPages().map((page) => page.node.Annots()?.size() ?? 0)).toEqual([0, 0]);
  const objects = copy.context.enumerateIndirectObjects().map(([, object]) => String(object));
  expect(objects.filter((object) => /\/Type \/Page\b/.test(object))).toHaveLength(2);
  const images = execFileSync('pdfimages', ['-list', path], { encoding: 'utf8' }).trim().split('\n').slice(2);
  expect(images).toHaveLength(1);
  expect(copy.getPage(1).node.Contents()).toBeDefined();
  expect(copy.catalog.get(PDFName.of('Names'))).toBeUndefined();
  expect(copy.catalog.lookupMaybe(PDFName.of('AF'), PDFArray)).toBeUndefined();
}, 60_000);

it('paints over what is hidden on a scan, and leaves the paper on the shelf as it is', async () => {
  const id = await room.documentOf(
    'scan.jpg',
    await scanned(`Harbour office\nPay to ${IBAN}\nby the end of the month`),
  );
  await room.file(id, 'Scan', 'Letters');
  await room.workOnAll();
  const before = (await room.send(endpoints.documentPdf, { params: { id }, query: {} })).raw;
  const { path } = await hide(id, []);
  const all = everythingIn(path);
  for (const gone of ACCOUNT) expectGone(path, gone);
  expect(all).toMatch(/end of the month/);
  const [place] = await room.ask(endpoints.placesToHide, { params: { id }, query: { what: 'accounts' } });
  const drawn = `${path}.png`;
  execFileSync('pdftoppm', ['-r', '100', '-png', '-singlefile', path, path]);
  const { data, info } = await sharp(drawn).greyscale().raw().toBuffer({ resolveWithObject: true });
  const [x, y, width, height] = place.box!;
  let lightest = 0;
  for (let row = Math.ceil(y * info.height); row < Math.floor((y + height) * info.height); row++)
    for (let at = Math.ceil(x * info.width); at < Math.floor((x + width) * info.width); at++)
      lightest = Math.max(lightest, data[row * info.width + at]);
  expect(lightest).toBeLessThan(24);
  expect((await room.send(endpoints.documentPdf, { params: { id }, query: {} })).raw.equals(before)).toBe(true);
}, 60_000);

it('refuses to hide nothing, and pages of others', async () => {
  const id = await room.documentOf('a.jpg', await scanned('A paper'));
  const other = await room.documentOf('b.jpg', await scanned('Another paper'));
  const { pageList } = await room.ask(endpoints.readDocument, { params: { id: other } });
  const refused = (areas: { pageId: string; box: Box }[]) =>
    room.refusal(endpoints.copyWithHidden, { params: { id }, body: { areas } });
  expect(await refused([])).toMatchObject({ code: 'not-valid' });
  expect(await refused([{ pageId: pageList[0].id, box: [0, 0, 1, 1] }])).toMatchObject({ code: 'not-found' });
});
