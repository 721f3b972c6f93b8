import sharp from 'sharp';
import { rgbRaster } from '@crow/demo/capture';
import { findOutlines } from '@crow/core/imaging/outline/findOutlines';
import { trueAspect } from '@crow/core/imaging/straighten';
import { proposePages } from '@crow/core/imaging/recipe';
for (const file of process.argv.slice(2)) {
  const picture = await rgbRaster(sharp(file));
  console.log(file, picture.width, picture.height, findOutlines(picture, { most: 3 }).map((o) => `${o.confidence.toFixed(2)} ${trueAspect(o.corners, picture.width, picture.height).toFixed(2)} ${o.corners.map((p) => p.map(Math.round).join()).join(' ')}`).join(' | '));
  const t = performance.now();
  console.log(proposePages(picture, 'book').length, Math.round(performance.now() - t));
}
