import { findOutlines } from '@crow/core/imaging/outline/findOutlines';
import { LEAST_CONFIDENCE } from '@crow/core/imaging/proposing/proposals';
import { scaleQuad, wholeQuad } from '@crow/core/imaging/quad';
import { lookedAtPicture } from '../engines/pictures';
import { withScratch } from '../engines/scratch';
import { eachFile, openFile, parseArguments } from './files';

/** `./crow outline`: where the sheets are in photos, as JSON lines, without server or database. */
export function main(args: string[]): Promise<number> {
  const { files } = parseArguments(args, []);
  return eachFile(files, async (file) => {
    const info = await openFile(file);
    const [{ width, height }] = info.pages;
    const pages = [];
    for (let number = 0; number < info.pages.length; number++) {
      // Looked at as the program does: in a larger picture corners lie no nearer to the sheet's.
      const picture = await withScratch((folder) => lookedAtPicture(info, number, folder));
      const found = info.pages[number].scanned ? [] : findOutlines(picture);
      const enlarged = info.pages[number].width / picture.width;
      const sure = found.filter(({ confidence }) => confidence >= LEAST_CONFIDENCE);
      const whole = {
        corners: wholeQuad(picture.width, picture.height),
        confidence: info.pages[number].scanned ? 1 : 0,
      };
      // Unsure, the best guess is told with its doubt; with none at all, the whole picture.
      for (const { corners, confidence } of sure.length > 0 ? sure : [found[0] ?? whole])
        pages.push({
          corners: scaleQuad(corners, enlarged).map((corner) => corner.map(rounded)),
          confidence: Math.round(confidence * 1000) / 1000,
        });
    }
    return { width, height, pages };
  });
}

function rounded(value: number): number {
  return Math.round(value * 10) / 10;
}
