import { PDFDocument } from '@cantoo/pdf-lib';
import { labelsPdf } from './labelsPdf';

const code = Array.from({ length: 21 }, (_, row) => Array.from({ length: 21 }, (__, at) => (row + at) % 2 === 0));
const pages = async (names: string[]) => {
  const pdf = await PDFDocument.load(await labelsPdf(names.map((name) => ({ name, code }))));
  return pdf.getPages().map((page) => page.getSize());
};

it('lays six labels on a sheet of A4, and begins another one for more', async () => {
  const names = Array.from({ length: 7 }, (_, at) => `Binder ${at}`);
  expect(await pages(names.slice(0, 6))).toEqual([{ width: 595.28, height: 841.89 }]);
  expect(await pages(names)).toHaveLength(2);
});

it('breaks a long name, and writes what its letters lack as well as it can', async () => {
  expect(await pages(['Household papers of the owner, from 2019 until today, all kinds', '紙 Ω'])).toHaveLength(1);
});
