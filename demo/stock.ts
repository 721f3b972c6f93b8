import { rasterise, rgbRaster } from './capture';
import { BATCH, FILED, Paper, WAITING } from './papers';
import { Stock } from './scenes';

const MM_PER_INCH = 25.4;

/** The demo papers as pictures to be laid on a table: the sheets among them, and the receipts. */
export async function demoStock(dpi: number, most = Infinity): Promise<Stock> {
  const stock: Stock = { sheets: [], receipts: [] };
  for (const paper of [...FILED, ...WAITING, ...BATCH]) {
    if (stock.sheets.length + stock.receipts.length >= most && stock.receipts.length > 0) break;
    stock[paper.kind === 'receipt' ? 'receipts' : 'sheets'].push(await demoSheet(paper, dpi));
  }
  return stock;
}

/** The first page of a paper as a sheet. */
export async function demoSheet(paper: Paper, dpi: number): Promise<Stock['sheets'][number]> {
  const [drawn] = await rasterise(await paper.draw(), 1, dpi);
  const picture = await rgbRaster(drawn);
  return { picture, width: (picture.width / dpi) * MM_PER_INCH, height: (picture.height / dpi) * MM_PER_INCH };
}
