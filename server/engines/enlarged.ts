import sharp from 'sharp';
import { greyOf, Raster } from '@crow/core/imaging/raster';

/** A grey copy of a picture, so many times as large. */
export async function enlarged(picture: Raster, times: number): Promise<Raster> {
  const { width, height, data } = greyOf(picture);
  const { data: large, info } = await sharp(data, { raw: { width, height, channels: 1 } })
    .resize(width * times, height * times, { kernel: 'lanczos3' })
    .toColourspace('b-w')
    .raw()
    .toBuffer({ resolveWithObject: true });
  return { width: info.width, height: info.height, channels: 1, data: new Uint8Array(large) };
}
