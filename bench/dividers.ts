import sharp from 'sharp';
import { dividerPdf } from '@crow/core/pdf/dividerPdf';
import { dividerCode } from '@crow/core/sorting/divider';
import { readDivider } from '@crow/server/engines/codes';
import { squareCode } from '@crow/server/engines/squareCode';
import { atAGlance } from '@crow/server/engines/pictures';
import { rasterise } from '@crow/demo/capture';
import { Chance } from './piles/chance';

/**
 * Whether divider sheets are recognised: skewed, upside down, with noise, in grey and in black and white, at 75 to 200 dpi; and
 * how long a page without a code takes: node scripts/bench.mjs dividers [COUNT]
 */
const count = Number(process.argv[2] ?? 40);
const folders = [null, 'Household', 'Wickford Loom/Suppliers/Yarn', `Household/${'Längerer Ordnername '.repeat(5)}`];
for (const dpi of [75, 100, 150, 200]) {
  for (const bilevel of [false, true]) {
    let [hits, milliseconds] = [0, 0];
    for (let seed = 0; seed < count; seed++) {
      const chance = new Chance(seed + 1);
      const divider = { folder: folders[seed % folders.length], kind: null };
      const code = dividerCode(divider);
      const pdf = await dividerPdf(squareCode(code), { title: 'Divider sheet', lines: [], small: code, copies: 1 });
      const [drawn] = await rasterise(Buffer.from(pdf), 1, dpi);
      const angle = chance.pick([0, 90, 180, 270]) + chance.between(-7, 7);
      let scan = drawn.rotate(angle, { background: '#fff' }).blur(chance.between(0.3, 0.9)).greyscale();
      if (bilevel)
        scan = sharp(await scan.png().toBuffer())
          .threshold(chance.whole(90, 190))
          .greyscale();
      const { data, info } = await scan.raw().toBuffer({ resolveWithObject: true });
      const began = performance.now();
      const page = { data, width: info.width, height: info.height, channels: info.channels as 1 };
      const found = await readDivider(await atAGlance(page));
      milliseconds += performance.now() - began;
      if (found && found.folder === (divider.folder?.trim() ?? null)) hits++;
    }
    console.log(
      `${dpi} dpi ${bilevel ? 'black and white' : 'grey'}: ${hits} of ${count}, ${(milliseconds / count).toFixed(1)} ms a page`,
    );
  }
}
