import { PDFDocument, StandardFonts } from '@cantoo/pdf-lib';
import { zipSync } from 'fflate';
import sharp from 'sharp';
import { lockedPdf, scanned, textPdf, ZIP } from '@crow/server/testing/made';

/** A PDF that carries an electronic invoice with these fields. */
async function invoicePdf(fields: Record<string, string>): Promise<Uint8Array> {
  const pdf = await PDFDocument.create();
  const font = await pdf.embedFont(StandardFonts.Helvetica);
  pdf
    .addPage([595, 842])
    .drawText('Invoice No 4711 of Marlowe Weaving, total EUR 1.00', { x: 60, y: 700, font, size: 14 });
  const tags = Object.entries(fields).map(([name, value]) => `<${name}>${value}</${name}>`);
  await pdf.attach(Buffer.from(`<Invoice><ID>4711</ID>${tags.join('')}</Invoice>`), 'invoice.xml', {
    mimeType: 'text/xml',
  });
  return pdf.save();
}

const party = (name: string) => `<Party><PartyName><Name>${name}</Name></PartyName></Party>`;

/** An archive of the shelf that tells what can't be. */
function archive(facts: unknown, pdf: Uint8Array): Uint8Array {
  return zipSync({ 'facts.json': Buffer.from(JSON.stringify(facts)), 'A/paper.pdf': pdf });
}

/** Files that are broken, or lie, in one way each. */
export async function hostileFiles(): Promise<[name: string, bytes: Uint8Array][]> {
  const jpeg = await sharp(await scanned('The upper half is there\n\n\n\nThe lower half is lost'))
    .jpeg()
    .toBuffer();
  const whole = Buffer.from(await textPdf('A letter of the harbour office'));
  const told = { file: 'A/paper.pdf', name: 'x'.repeat(5000), folder: '../../../etc', filed: 'never', facts: {} };
  const zip = Buffer.from(zipSync({ 'a.pdf': whole }));
  const damagedZip = Buffer.from(zip);
  damagedZip[60] ^= 0xff;
  return [
    ['empty.pdf', Buffer.alloc(0)],
    ['a name of 400 letters '.padEnd(400, 'x') + '.pdf', whole],
    ['cut in the middle.jpg', jpeg.subarray(0, jpeg.length / 2)],
    ['one byte of a picture.jpg', jpeg.subarray(0, 1)],
    ['cut in the middle.pdf', whole.subarray(0, whole.length / 2)],
    ['really a zip.pdf', ZIP],
    ['locked.pdf', await lockedPdf()],
    ['an archive with a flipped bit.zip', damagedZip],
    ['an archive in an archive.zip', zipSync({ 'inner.zip': zip })],
    ['an archive that leads out.zip', zipSync({ '../../out.pdf': whole })],
    ['a bomb.zip', zipSync({ 'bomb.pdf': Buffer.alloc(200 * 1024 * 1024) }, { level: 9 })],
    ['impossible day.pdf', await invoicePdf({ IssueDate: '2026-99-99', DueDate: '0000-00-00' })],
    ['endless sender.pdf', await invoicePdf({ AccountingSupplierParty: party('Weaving '.repeat(60_000)) })],
    ['half a character.pdf', await invoicePdf({ AccountingSupplierParty: party('&#xD800;&#0;&#x202E;') })],
    [
      'money without end.pdf',
      await invoicePdf({ LegalMonetaryTotal: `<TaxInclusiveAmount>${'9'.repeat(400)}</TaxInclusiveAmount>` }),
    ],
    ['entities.pdf', await invoicePdf({ Note: '&a;'.repeat(100_000) })],
    ['words of programs.png', await scanned('The constructor and __proto__\ntoString valueOf hasOwnProperty')],
    ['a word as long as a page.pdf', await textPdf(`Receipt\n${'x'.repeat(8000)}`)],
    [
      'an archive that lies.zip',
      archive([{ ...told, facts: { date: '2026-99-99', total: '1e999', kind: 'constructor' } }], whole),
    ],
    ['an archive of no list.zip', archive({ 0: told }, whole)],
    ['an archive nested deep.zip', zipSync({ 'facts.json': Buffer.from('['.repeat(1_000_000)), 'a.pdf': whole })],
    ['a huge page.pdf', await hugePage()],
  ];
}

async function hugePage(): Promise<Uint8Array> {
  const pdf = await PDFDocument.create();
  const font = await pdf.embedFont(StandardFonts.Helvetica);
  pdf.addPage([14_000, 14_000]).drawText('A plan of the harbour', { x: 1000, y: 7000, font, size: 1000 });
  pdf.addPage([1, 1]);
  return pdf.save();
}
