import { FileHandle, open } from 'node:fs/promises';

/** Tags of TIFF 6.0 (Adobe 1992), and how a rational number is told there. */
const [X_RESOLUTION, Y_RESOLUTION, RATIONAL] = [282, 283, 5];
const [ENTRY, HEADER] = [12, 8];

/**
 * How many pixels each page of a TIFF has to the same length across and down, as it is stored; of a page that doesn't say both, or can't be
 * read, undefined. The library that draws pictures tells the first only, and a fax in standard resolution has half as many down.
 * @param pages how many there are; a file that says more, or leads in a circle, is read no further
 */
export async function tiffResolutions(path: string, pages: number): Promise<([number, number] | undefined)[]> {
  const handle = await open(path);
  try {
    return await readDirectories(handle, pages);
  } catch (error) {
    if (error instanceof RangeError) return [];
    throw error;
  } finally {
    await handle.close();
  }
}

async function readDirectories(handle: FileHandle, pages: number): Promise<([number, number] | undefined)[]> {
  const header = await piece(handle, 0, HEADER);
  const isLittle = header.getUint16(0) === 0x4949;
  const found: ([number, number] | undefined)[] = [];
  let at = header.getUint32(4, isLittle);
  while (at > 0 && found.length < pages) {
    const count = (await piece(handle, at, 2)).getUint16(0, isLittle);
    const entries = await piece(handle, at + 2, count * ENTRY + 4);
    const tagged = async (tag: number) => {
      for (let entry = 0; entry < count * ENTRY; entry += ENTRY) {
        if (entries.getUint16(entry, isLittle) !== tag || entries.getUint16(entry + 2, isLittle) !== RATIONAL) continue;
        const value = await piece(handle, entries.getUint32(entry + 8, isLittle), 8);
        return value.getUint32(0, isLittle) / value.getUint32(4, isLittle);
      }
      return undefined;
    };
    const [across, down] = [await tagged(X_RESOLUTION), await tagged(Y_RESOLUTION)];
    found.push(across && down && Number.isFinite(across) && Number.isFinite(down) ? [across, down] : undefined);
    at = entries.getUint32(count * ENTRY, isLittle);
  }
  return found;
}

/** Some bytes of a file. @throws RangeError where it has fewer */
async function piece(handle: FileHandle, at: number, length: number): Promise<DataView> {
  const bytes = new Uint8Array(length);
  const { bytesRead } = await handle.read(bytes, 0, length, at);
  if (bytesRead < length) throw new RangeError('The file ends before');
  return new DataView(bytes.buffer);
}
