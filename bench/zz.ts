import { rasterise, rgbRaster, encodePhoto } from '@crow/demo/capture';
import { makeSpread } from '@crow/demo/bentScenes';
import { bookForm, bookPages } from '@crow/demo/book';
import { renderView } from '@crow/demo/view';
import { placeInPicture } from '@crow/demo/bent';
import { findOutlines } from '@crow/core/imaging/outline/findOutlines';
import { overlap } from '@crow/core/imaging/quad';
import { writeFileSync } from 'node:fs';
const [from, to, folder] = process.argv.slice(2);
for (let seed = Number(from); seed < Number(to); seed++) {
  const form = bookForm(seed);
  const first = 2 * (5 + (seed % 30));
  const pdf = await bookPages(form, first, 2, seed);
  writeFileSync(`${folder}/${seed}.pdf`, pdf);
  const pages = await Promise.all((await rasterise(pdf, 2, 220)).map(rgbRaster));
  const papers = pages.map((picture) => ({ picture, width: (form.size[0] / 72) * 25.4, height: (form.size[1] / 72) * 25.4 }));
  const view = makeSpread(seed, papers as never, 3600);
  const photo = renderView(view);
  const truth = view.bent!.map((sheet) => [[0, 0], [sheet.width, 0], [sheet.width, sheet.height], [0, sheet.height]].map((p) => placeInPicture(sheet, view, p as never)));
  const whole = [truth[0][0], truth[1][1], truth[1][2], truth[0][3]];
  const found = findOutlines(photo);
  console.log(seed, view.table, 'things', view.things.length, found.slice(0, 3).map((o) => `${o.confidence.toFixed(2)} whole ${overlap(o.corners, whole).toFixed(2)} L ${overlap(o.corners, truth[0] as never).toFixed(2)} R ${overlap(o.corners, truth[1] as never).toFixed(2)}`).join(' | '));
  writeFileSync(`${folder}/${seed}.jpg`, await encodePhoto(photo));
  writeFileSync(`${folder}/${seed}.json`, JSON.stringify(truth));
}
