import { writeFileSync } from 'node:fs';
import { join } from 'node:path';
import sharp from 'sharp';
import { scratchFolder } from '../testing/made';
import { tiffResolutions } from './tiffResolutions';

const stored = (bytes: Uint8Array) => {
  const path = join(scratchFolder(), 'fax.tif');
  writeFileSync(path, bytes);
  return path;
};
const fax = () =>
  sharp({ create: { width: 40, height: 60, channels: 3, background: '#fff' } })
    .tiff({ xres: 204 / 25.4, yres: 98 / 25.4 })
    .toBuffer();

it('tells both resolutions of a page', async () => {
  const [[across, down] = []] = await tiffResolutions(stored(await fax()), 1);
  expect(across! / down!).toBeCloseTo(204 / 98, 3);
});

it('reads no further than there are pages, though the file leads in a circle', async () => {
  const bytes = await fax();
  const isLittle = bytes.readUInt16BE(0) === 0x4949;
  const at = isLittle ? bytes.readUInt32LE(4) : bytes.readUInt32BE(4);
  const count = isLittle ? bytes.readUInt16LE(at) : bytes.readUInt16BE(at);
  const next = at + 2 + 12 * count;
  if (isLittle) bytes.writeUInt32LE(at, next);
  else bytes.writeUInt32BE(at, next);
  expect(await tiffResolutions(stored(bytes), 5)).toHaveLength(5);
});

it('tells nothing of a file that ends too soon', async () => {
  expect(await tiffResolutions(stored(Buffer.from('49492a00ffffff00', 'hex')), 1)).toEqual([]);
  expect(await tiffResolutions(stored(Buffer.from('4949')), 1)).toEqual([]);
});
