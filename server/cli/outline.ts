import { findOutlines } from '@crow/core/imaging/outline/findOutlines';
import { LEAST_CONFIDENCE } from '@crow/core/imaging/proposing/proposals';
import { wholeQuad } from '@crow/core/imaging/quad';
import { rasterOf } from '../engines/rasters';
import { withScratch } from '../engines/scratch';
import { openPage } from '../engines/sourceFile';
import { eachFile, openFile, parseArguments } from './files';

/** `./crow outline`: where the sheets are in photos, as JSON lines, without server or database. */
export function main(args: string[]): Promise<number> {
  const { files } = parseArguments(args, []);
  return eachFile(files, async (file) => {
    const info = await openFile(file);
    const [{ width, height }] = info.pages;
    const pages = [];
    for (let number = 0; number < info.pages.length; number++) {
      const picture = await withScratch(async (folder) => rasterOf(await openPage(info, number, folder)));
      const found = info.pages[number].scanned ? [] : findOutlines(picture);
      const sure = found.filter(({ confidence }) => confidence >= LEAST_CONFIDENCE);
      const whole = {
        corners: wholeQuad(picture.width, picture.height),
        confidence: info.pages[number].scanned ? 1 : 0,
      };
      // Unsure, the best guess is told with its doubt; with none at all, the whole picture.
      for (const { corners, confidence } of sure.length > 0 ? sure : [found[0] ?? whole])
        pages.push({
          corners: corners.map((corner) => corner.map(rounded)),
          confidence: Math.round(confidence * 1000) / 1000,
        });
    }
    return { width, height, pages };
  });
}

function rounded(value: number): number {
  return Math.round(value * 10) / 10;
}
