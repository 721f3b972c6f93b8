import { mkdirSync, readdirSync, readFileSync } from 'node:fs';
import { readFile, writeFile } from 'node:fs/promises';
import { join } from 'node:path';
import { pathToFileURL } from 'node:url';
import { chromium } from 'playwright-core';
import { findFacts } from '@crow/core/reading/facts/findFacts';
import { PageText } from '@crow/core/reading/words';
import { FactScore } from './factScore';
import { readPrinted } from './readPrinted';

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
  if (browser) {
    const read = await readPrinted(browser, pathToFileURL(source).href, join(folder, name.replace('.html', '')));
    await writeFile(kept, JSON.stringify(read));
  }
  const found = findFacts(JSON.parse(await readFile(kept, 'utf8')) as PageText[]);
  const said = score.add(truth, found);
  if (list) console.log(`${name} ${said}`);
}
await browser?.close();
console.log(`${set}: ${score.toString()}`);
