import { writeFile } from 'node:fs/promises';
import { basename } from 'node:path';
import { Browser } from 'playwright-core';
import sharp from 'sharp';
import { PageText } from '@crow/core/reading/words';
import { rasterise } from '@crow/demo/capture';
import { readSheets } from '@crow/server/cli/sheets';
import { inspectFile } from '@crow/server/engines/sourceFile';
import { Chance } from './piles/chance';
import { feederScan } from './piles/scan';

/**
 * Prints a web page, scans it at 200 dpi and reads the scan.
 * @param path where the PDF and the scans are kept, without what files of their kind end in
 */
export async function readPrinted(browser: Browser, address: string, path: string): Promise<PageText[]> {
  const page = await browser.newPage();
  await page.goto(address);
  const pdf = await page.pdf({ preferCSSPageSize: true });
  await page.close();
  const name = basename(path);
  await writeFile(`${path}.pdf`, pdf);
  const { pages } = await inspectFile(`${path}.pdf`, name);
  const texts: PageText[] = [];
  for (const [number, sheet] of (await rasterise(pdf, pages.length, 200)).entries()) {
    // The names of the first pages that were read so ended in “.html”: their scans stay what they were.
    const { picture } = await feederScan(sheet, new Chance(name.length + 5 + number), false);
    const scan = `${path}${number > 0 ? `-${number + 1}` : ''}.jpg`;
    await sharp(picture).jpeg({ quality: 85 }).withDensity(200).toFile(scan);
    const sheets = await readSheets(await inspectFile(scan, name), 0, ['eng', 'deu', 'fra']);
    texts.push(...sheets.map(({ text }) => text));
  }
  return texts;
}
