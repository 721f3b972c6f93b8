import { mkdirSync, readdirSync, readFileSync } from 'node:fs';
import { readFile, writeFile } from 'node:fs/promises';
import { join } from 'node:path';
import { pathToFileURL } from 'node:url';
import { Browser, chromium } from 'playwright-core';
import sharp from 'sharp';
import { findFacts } from '@crow/core/reading/facts/findFacts';
import { PageText } from '@crow/core/reading/words';
import { rasterise } from '@crow/demo/capture';
import { readSheets } from '@crow/server/cli/sheets';
import { inspectFile } from '@crow/server/engines/sourceFile';
import { FactScore } from './factScore';
import { Chance } from './piles/chance';
import { feederScan } from './piles/scan';

/**
 * Prints papers of unusual forms (bench/forms: written as web pages, each with what it says), scans them, reads them, and says which of
 * their facts come out right: node scripts/bench.mjs forms SET FOLDER [list] [again]
 * SET is a folder of bench/forms: each was read once before anything was mended for it, and is looked at since. FOLDER keeps the scans and
 * what was read from them; “again” asks only for the facts of what is kept there.
 * The sets from the eleventh on are set in fonts of Debian's packages (fonts-lato, -cabin, -cantarell, -comfortaa, -crosextra-caladea, -crosextra-carlito, -dosis,
 * -gfs-didot, -hack, -inconsolata, -junicode, -linuxlibertine, -ocr-b, -oldstandard, -quicksand, -tuffy, -averia-sans-gwf, -urw-base35, -paratype, -vollkorn, -jura, -mononoki,
 * -roboto-slab, -sil-andika, -sil-charis, -sil-doulos, -sil-gentium, -liberation2, -cmu, -firacode, -prociono, -yanone-kaffeesatz, -league-mono, -monoid, -anonymous-pro,
 * -fantasque-sans, -play, -karla, -opendin, -cardo, -clear-sans, -quattrocento, -fanwood, -go, -tlwg-loma-otf, -3270, -b612, -oxygen, -courier-prime,
 * -century-catalogue, -jetbrains-mono, -beteckna, -lindenhill, -klaudia-berenika, -goudybookletter, -lobstertwo, -adf-accanthis, -adf-universalis, -adf-gillius, -adf-romande, -adf-baskervald,
 * -inter, -manrope, -mplus, -stix, -lmodern, -texgyre, -open-sans, -roboto-unhinted, -averia-serif-gwf, -hermit, -gnutypewriter, -tlwg-typewriter-otf, -opendyslexic, -ubuntu-title,
 * -radisnoir, -dustin, -breip, -dkg-handwriting, -bebas-neue, -sora, -national-park, -comic-neue, -league-spartan, -hosny-amiri, -agave, -arapey, -adf-switzera, -elstob, -roadgeek,
 * -morisawa-bizud-gothic, -adf-libris, -adf-verana, -karmilla, -routed-gothic, -junction, -nanum, -georgewilliams, -adf-tribun, -noto-core, -gfs-artemisia, -gfs-neohellenic, -klee,
 * -tlwg-kinnari-ttf, -tlwg-norasi-ttf, -tlwg-umpush-ttf, -tlwg-sawasdee-ttf, -tlwg-laksaman-ttf, -tlwg-waree-ttf, -adf-berenis, -adf-irianis, -adf-mekanus, -adf-ikarius, -rocknroll, -sawarabi-gothic,
 * -lxgw-wenkai, -tiresias, -yrsa-rasa, -smc-manjari, -naver-d2coding, -glasstty, -allerta, -gfs-bodoni-classic, -humor-sans, -freefont-ttf); where one is missing the browser takes another.
 */
const [set, folder, ...options] = process.argv.slice(2);
const [list, again] = ['list', 'again'].map((option) => options.includes(option));
mkdirSync(folder, { recursive: true });
const browser = again
  ? undefined
  : await chromium.launch({ executablePath: '/usr/bin/chromium', args: ['--no-sandbox'] });
const score = new FactScore();
for (const name of readdirSync(join('bench/forms', set)).sort()) {
  const source = join('bench/forms', set, name);
  const truth = JSON.parse(
    /<script type="application\/json">([\s\S]*?)<\/script>/.exec(readFileSync(source, 'utf8'))![1],
  ) as Record<string, unknown>;
  const kept = join(folder, name.replace('.html', '.json'));
  if (browser) await writeFile(kept, JSON.stringify(await readForm(browser, source, name)));
  const found = findFacts(JSON.parse(await readFile(kept, 'utf8')) as PageText[]);
  const said = score.add(truth, found);
  if (list) console.log(`${name} ${said}`);
}
await browser?.close();
console.log(`${set}: ${score.toString()}`);

/** Prints a form, scans it and reads the scan. */
async function readForm(browser: Browser, source: string, name: string): Promise<PageText[]> {
  const page = await browser.newPage();
  await page.goto(pathToFileURL(source).href);
  const pdf = await page.pdf({ preferCSSPageSize: true });
  await page.close();
  const path = join(folder, name.replace('.html', ''));
  await writeFile(`${path}.pdf`, pdf);
  const { pages } = await inspectFile(`${path}.pdf`, name);
  const texts: PageText[] = [];
  for (const [number, sheet] of (await rasterise(pdf, pages.length, 200)).entries()) {
    const { picture } = await feederScan(sheet, new Chance(name.length + number), false);
    const scan = `${path}${number > 0 ? `-${number + 1}` : ''}.jpg`;
    await sharp(picture).jpeg({ quality: 85 }).withDensity(200).toFile(scan);
    const sheets = await readSheets(await inspectFile(scan, name), 0, ['eng', 'deu', 'fra']);
    texts.push(...sheets.map(({ text }) => text));
  }
  return texts;
}
