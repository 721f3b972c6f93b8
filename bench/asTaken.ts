import { writeFile } from 'node:fs/promises';
import { Raster } from '@crow/core/imaging/raster';
import { encodePhoto } from '@crow/demo/capture';
import { lookedAtPicture } from '@crow/server/engines/pictures';
import { rasterOf } from '@crow/server/engines/rasters';
import { withScratch } from '@crow/server/engines/scratch';
import { inspectFile, openPage } from '@crow/server/engines/sourceFile';

/** A photo as the program gets it. */
export interface TakenPhoto {
  /** All of it, and in the size in which sheets are sought in it. */
  photo: Raster;
  seen: Raster;
}

/** Takes a made photo the way that a camera and the program do: as a JPEG file, opened again. @param path of the file, `.jpg` */
export async function asTaken(made: Raster, path: string): Promise<TakenPhoto> {
  await writeFile(path, await encodePhoto(made));
  const info = await inspectFile(path, path);
  return withScratch(async (folder) => ({
    photo: await rasterOf(await openPage(info, 0, folder)),
    seen: await lookedAtPicture(info, 0, folder),
  }));
}
