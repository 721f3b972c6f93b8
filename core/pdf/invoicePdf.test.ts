import { PDFDocument } from '@cantoo/pdf-lib';
import { InvoiceData } from '../reading/facts/invoiceData';
import { invoicePdf } from './invoicePdf';

const INVOICE: InvoiceData = {
  vendor: 'Färberei Ährenfeld',
  date: '2026-11-12',
  dueDate: null,
  number: 'R-77',
  currency: 'EUR',
  net: 10,
  tax: 1.9,
  taxRate: 19,
  total: 11.9,
  lines: [{ description: 'Kette', quantity: 1, unitPrice: 10, amount: 10 }],
};
const draw = async (part: Partial<InvoiceData>) =>
  PDFDocument.load(await invoicePdf({ ...INVOICE, ...part }, { name: 'r.xml', bytes: new Uint8Array([60, 120, 62]) }));

it('is a page with the invoice’s name', async () => {
  const pdf = await draw({});
  expect([pdf.getPageCount(), pdf.getTitle()]).toEqual([1, 'Invoice R-77 Färberei Ährenfeld']);
});

it('goes on over pages, however long what it lists is and whatever letters are in it', async () => {
  const line = { description: `漢${'x'.repeat(5000)}`, quantity: null, unitPrice: null, amount: 1 };
  const pdf = await draw({ lines: new Array<typeof line>(3000).fill(line), notes: ['y'.repeat(2000)] });
  expect(pdf.getPageCount()).toBeGreaterThan(100);
  expect(pdf.getPageCount()).toBeLessThanOrEqual(200);
}, 120_000);
