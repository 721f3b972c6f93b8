import sharp, { Sharp } from 'sharp';
import { Raster } from '@crow/core/imaging/raster';

/** The pixels of a picture as the core takes them: RGB, or grey where its pipeline ends in grey; transparency on white. */
export async function rasterOf(picture: Sharp): Promise<Raster> {
  const { data, info } = await picture
    .flatten({ background: '#ffffff' })
    .toColourspace('srgb')
    .raw()
    .toBuffer({ resolveWithObject: true });
  const { width, height, channels } = info;
  return { width, height, channels: channels as Raster['channels'], data };
}

export function sharpOf({ width, height, channels, data }: Raster): Sharp {
  const picture = sharp(data, { raw: { width, height, channels } });
  return channels === 1 ? picture.toColourspace('b-w') : picture;
}
