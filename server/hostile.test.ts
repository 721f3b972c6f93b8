import { deflateSync } from 'node:zlib';
import { PDFDocument, StandardFonts } from '@cantoo/pdf-lib';
import sharp from 'sharp';
import { endpoints } from '@crow/contract/endpoints';
import { giveUp } from './handlers';
import { scanned, textPdf } from './testing/made';
import { TestRoom } from './testing/room';

let room: TestRoom;
beforeAll(async () => void (room = await TestRoom.open()));
afterAll(() => room.close());

const pageOf = async (name: string, bytes: Uint8Array) => (await room.takeInAndRead({ [name]: bytes })).pageList[0];
const documentOn = (id: string) => room.ask(endpoints.readDocument, { params: { id } });

/** A PDF that carries an electronic invoice. */
async function invoicePdf(fields: { date?: string; vendor?: string }): Promise<Uint8Array> {
  const pdf = await PDFDocument.create();
  const font = await pdf.embedFont(StandardFonts.Helvetica);
  pdf
    .addPage([595, 842])
    .drawText('Invoice No 4711 of Marlowe Weaving, total EUR 1.00', { x: 60, y: 700, font, size: 14 });
  const xml = `<Invoice><ID>4711</ID><IssueDate>${fields.date ?? '2026-03-05'}</IssueDate><AccountingSupplierParty><Party>
    <PartyName><Name>${fields.vendor ?? 'Marlowe Weaving'}</Name></PartyName></Party></AccountingSupplierParty></Invoice>`;
  await pdf.attach(Buffer.from(xml), 'invoice.xml', { mimeType: 'text/xml' });
  return pdf.save();
}

describe('what a paper says costs neither the page nor the document', () => {
  it('an impossible day in its invoice data', async () => {
    const id = await room.documentOf('day.pdf', await invoicePdf({ date: '2026-99-99' }));
    const { facts } = await documentOn(id);
    expect(facts.find(({ name }) => name === 'number')?.value).toBe('4711');
    expect(facts.some(({ name }) => name === 'date')).toBe(false);
  });

  it('a sender of 400,000 letters', async () => {
    const id = await room.documentOf('long.pdf', await invoicePdf({ vendor: 'Weaving '.repeat(50_000) }));
    const { facts } = await documentOn(id);
    expect(facts.find(({ name }) => name === 'vendor')!.value.length).toBeLessThanOrEqual(300);
    await room.file(id, 'Long', 'Odd');
    expect((await documentOn(id)).state).toBe('filed');
  });

  it('words that programs use for themselves', async () => {
    const page = await pageOf(
      'words.png',
      await scanned('The constructor and valueOf the prototype\ntoString of wool'),
    );
    expect(page).toMatchObject({ reading: 'read', problem: null });
  });

  it('a word as long as a page, and thousands of words', async () => {
    const many = Array.from({ length: 3000 }, (_, at) => `w${at}`).join(' ');
    const pdf = await textPdf(`Receipt of the dye works\n${'x'.repeat(6000)}\n${many}`);
    const id = await room.documentOf('words.pdf', pdf);
    expect((await documentOn(id)).pageList[0].reading).toBe('read');
    expect(
      (await room.ask(endpoints.find, { query: { q: 'receipt dye works' } })).found.map((each) => each.document.id),
    ).toContain(id);
  });

  it('an accent that stands alone, also in what is searched', async () => {
    expect((await room.ask(endpoints.find, { query: { q: '\u0308' } })).found).toEqual([]);
    expect((await room.ask(endpoints.find, { query: { q: '\u0308 "\u0301" who:\u0308' } })).found).toEqual([]);
  });

  it('nothing at all: documents without text stand in the way of no other', async () => {
    const empty = await room.documentOf(
      'empty.png',
      await sharp({
        create: { width: 900, height: 1200, channels: 3, background: '#336699' },
      })
        .png()
        .toBuffer(),
    );
    await room.file(empty, 'Nothing on it', 'Odd');
    const other = await room.documentOf(
      'other.pdf',
      await textPdf('Invoice of Saltgate Yarns Ltd\nMerino, twelve skeins'),
    );
    expect((await documentOn(other)).pageList).toHaveLength(1);
  });
});

describe('a damaged picture', () => {
  const whole = () => scanned('Saltgate Yarns Ltd\nThe upper half is there\n\n\n\n\n\nThe lower half is lost');

  it('is shown as far as it goes, with a warning, and read that far', async () => {
    const bytes = await sharp(await whole())
      .jpeg({ quality: 80 })
      .toBuffer();
    const page = await pageOf('half.jpg', bytes.subarray(0, bytes.length * 0.6));
    expect(page).toMatchObject({ damaged: true, reading: 'read', pictured: true });
    const { words } = await room.ask(endpoints.pageText, { params: { id: page.id } });
    expect(words.map(([text]) => text)).toContain('Saltgate');
  });

  it('inside a PDF is told, too, and no blank page', async () => {
    const jpeg = await sharp(await whole())
      .jpeg({ quality: 80 })
      .toBuffer();
    const pdf = await PDFDocument.create();
    const picture = await pdf.embedJpg(jpeg);
    pdf.addPage([595, 842]).drawImage(picture, { x: 0, y: 0, width: 595, height: 842 });
    const saved = Buffer.from(await pdf.save({ useObjectStreams: false }));
    const at = saved.indexOf(jpeg.subarray(0, 40));
    // The picture ends there, though it should go on.
    saved.fill(Buffer.from([0xff, 0xd9]), at + Math.round(jpeg.length * 0.3), at + jpeg.length);
    expect(await pageOf('half.pdf', saved)).toMatchObject({ damaged: true, blank: false, dropped: false });
  });

  it('of which nothing can be drawn says so, and its document can be filed all the same', async () => {
    const chunk = (type: string, data: Buffer) => {
      const length = Buffer.alloc(4);
      length.writeUInt32BE(data.length);
      return Buffer.concat([length, Buffer.from(type), data, Buffer.alloc(4)]);
    };
    const head = Buffer.alloc(13);
    head.writeUInt32BE(800, 0);
    head.writeUInt32BE(1000, 4);
    head.set([8, 2, 0, 0, 0], 8);
    const png = Buffer.concat([
      Buffer.from('\x89PNG\r\n\x1a\n', 'latin1'),
      chunk('IHDR', head),
      chunk('IDAT', deflateSync(Buffer.alloc(10)).fill(7)),
      chunk('IEND', Buffer.alloc(0)),
    ]);
    const id = await room.documentOf('none.png', png);
    const { pageList } = await documentOn(id);
    expect(pageList[0].reading).not.toBe('waiting');
    await room.ask(endpoints.fileDocument, { params: { id }, body: { name: 'Not drawn', folderPath: 'Odd' } });
    await room.work().catch(() => undefined);
    const { state, problem } = await documentOn(id);
    expect(state === 'filed' || problem !== null).toBe(true);
  });

  it('whose making fails again and again does not wait for ever, nor does its document', async () => {
    const id = await room.documentOf('given-up.png', await scanned('Madder and weld'));
    const { manager } = room.context.database.source;
    const { pageList, stackId } = await documentOn(id);
    await manager.query(`update page set reading = 'waiting', pictured = false where id = $1`, [pageList[0].id]);
    await giveUp(room.context, { kind: 'picture', data: { pageId: pageList[0].id } });
    const after = await room.ask(endpoints.readStack, { params: { id: stackId! } });
    expect(after.pageList[0]).toMatchObject({ reading: 'failed', problem: { code: 'page-not-drawn' } });
  });
});

describe('requests', () => {
  it.each([
    ['a name with a zero in it', { body: { path: 'a\0b' } }],
    ['half a character', { body: { path: 'a\ud800b' } }],
  ])('%s are refused with a sentence', async (_what, input) => {
    expect(await room.refusal(endpoints.makeFolder, input)).toMatchObject({ status: 400, code: 'not-valid' });
  });

  it('nested without end are refused with a sentence', async () => {
    for (const body of [
      `{"path":${'['.repeat(100_000)}${']'.repeat(100_000)}}`,
      '{"a":'.repeat(60_000) + '1' + '}'.repeat(60_000),
    ]) {
      const { status } = await room.request('POST', '/api/folders', {
        body: Buffer.from(body),
        headers: { 'content-type': 'application/json' },
      });
      expect(status).toBe(400);
    }
  });

  it('that bring a file as anything but bytes are refused before they are read', async () => {
    for (const type of ['text/plain', 'application/json', 'multipart/form-data; boundary=x']) {
      const { status } = await room.request('PUT', '/api/shelf/archive?name=x', {
        body: Buffer.alloc(5_000_000, 'x'),
        headers: { 'content-type': type },
      });
      expect(status).toBeGreaterThanOrEqual(400);
      expect(status).toBeLessThan(500);
    }
  });

  it('for a scanner at an address of colons are refused with a sentence', async () => {
    expect(await room.refusal(endpoints.addScanner, { body: { address: 'http://:::::' } })).toMatchObject({
      status: 400,
    });
  });
});
