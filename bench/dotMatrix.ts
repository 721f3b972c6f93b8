import { mkdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import sharp from 'sharp';
import { Chance } from './piles/chance';
import { feederScan } from './piles/scan';
import { BesideEngine, printedWords } from './printed/besideEngine';

/**
 * Prints papers as needles and heated bars do, of dots or of dashes, scans them, and tells how many of their words the program reads, beside the engine
 * alone: node scripts/bench.mjs dotMatrix FOLDER COUNT SEED [FONT]
 * Half of them are printed on forms: their heads and rules are solid. The words are of Debian's word list (wamerican), with sums, days and numbers.
 */
const [folder, count = '8', seed = '1', font = 'DejaVu Sans Mono'] = process.argv.slice(2);
mkdirSync(folder, { recursive: true });
const WORDS = readFileSync('/usr/share/dict/words', 'utf8')
  .split('\n')
  .filter((word) => /^[a-z]{3,9}$/.test(word));
/** Rows of dots in a line, and its letters as they are drawn, in dots. */
const [LINE_DOTS, LETTER_DOTS] = [18, 14];
const both = new BesideEngine();
for (let number = 0; number < Number(count); number++) {
  const chance = new Chance(Number(seed) + number);
  const lines = linesOf(chance);
  const path = join(folder, `${Number(seed) + number}.jpg`);
  const page = await printed(lines, chance, number % 2 === 1);
  const { picture } = await feederScan(sharp(page.picture), chance, false);
  await sharp(picture).jpeg({ quality: 85 }).withDensity(200).toFile(path);
  const told = printedWords([...page.head, ...lines].join(' '));
  const { said } = await both.read(path, told);
  console.log(`${page.how}: ${said}`);
}
both.tell();

/** What a till, a carrier or a workshop prints: goods with sums, a day, numbers. */
function linesOf(chance: Chance): string[] {
  const word = () => chance.pick(WORDS);
  const money = () => `${chance.whole(1, 400)}.${String(chance.whole(0, 99)).padStart(2, '0')}`;
  const goods = Array.from({ length: chance.whole(6, 14) }, () =>
    `${chance.whole(1, 9)} ${word()} ${word()}`.padEnd(24).concat(money().padStart(9)),
  );
  return [
    `${word()} ${word()}`.toUpperCase(),
    `No ${chance.whole(10000, 99999)}  ${chance.whole(1, 28)}/${chance.whole(1, 12)}/2026`,
    ...goods,
    `${word()} ${word()} ${word()} ${word()}`,
  ];
}

/** The lines in dots of one size, on a form with a solid head, perhaps. */
async function printed(lines: readonly string[], chance: Chance, isForm: boolean) {
  // Dots stand 1/72 to 1/50 inch apart; a dash is as long as its dots are many.
  const pitch = chance.between(2.6, 4);
  const [dashes, size] = [chance.of(0.4), chance.between(0.32, 0.5)];
  const [tone, margin] = [chance.whole(0, 90), 60];
  const rows = await Promise.all(lines.map((line) => dotsOf(line)));
  const width = Math.round(Math.max(...rows.map(({ width }) => width)) * pitch + 2 * margin);
  const top = isForm ? 170 : 40;
  const height = Math.round(top + rows.length * LINE_DOTS * pitch + margin);
  const shapes = rows.flatMap(({ dots }, line) =>
    dots.map(([x, y]) => {
      const [cx, cy] = [margin + x * pitch, top + (line * LINE_DOTS + y) * pitch];
      return dashes
        ? `<rect x="${(cx - pitch / 2).toFixed(1)}" y="${(cy - size * pitch).toFixed(1)}" width="${(pitch + 0.2).toFixed(1)}" height="${(1.5 * size * pitch).toFixed(1)}"/>`
        : `<circle cx="${cx.toFixed(1)}" cy="${cy.toFixed(1)}" r="${(size * pitch).toFixed(1)}"/>`;
    }),
  );
  const head = isForm ? ['Description', 'Amount'] : [];
  const solid = isForm
    ? `<g font-family="Liberation Sans" font-size="26" fill="#222"><text x="${margin}" y="130">Description</text><text x="${width - margin - 110}" y="130">Amount</text></g><path d="M${margin} 142H${width - margin}" stroke="#222" stroke-width="2"/>`
    : '';
  const svg = `<svg xmlns="http://www.w3.org/2000/svg" width="${width}" height="${height}"><rect width="100%" height="100%" fill="#fafafa"/>${solid}<g fill="rgb(${tone},${tone},${tone})">${shapes.join('')}</g></svg>`;
  const picture = await sharp(Buffer.from(svg)).flatten().png().toBuffer();
  const how = `${isForm ? 'form, ' : ''}${dashes ? 'dashes' : 'dots'} of ${(2 * size).toFixed(2)}, ${pitch.toFixed(1)} px apart, tone ${tone}`;
  return { picture, head, how };
}

/** Where the dots of a line stand. */
async function dotsOf(line: string): Promise<{ width: number; dots: [x: number, y: number][] }> {
  const escaped = line.replace(/&/g, '&amp;').replace(/</g, '&lt;');
  const wide = line.length * LETTER_DOTS;
  const svg = `<svg xmlns="http://www.w3.org/2000/svg" width="${wide}" height="${LINE_DOTS}"><text x="0" y="${LINE_DOTS - 4}" xml:space="preserve" font-family="${font}" font-size="${LETTER_DOTS}" letter-spacing="1.6" text-rendering="optimizeSpeed">${escaped}</text></svg>`;
  const { data, info } = await sharp(Buffer.from(svg))
    .flatten({ background: '#fff' })
    .greyscale()
    .raw()
    .toBuffer({ resolveWithObject: true });
  const dots: [number, number][] = [];
  for (let at = 0; at < data.length; at += info.channels)
    if (data[at] < 125) dots.push([(at / info.channels) % info.width, Math.floor(at / info.channels / info.width)]);
  return { width: Math.max(...dots.map(([x]) => x)), dots };
}
