import sharp from 'sharp';
import { drawPdf } from '@crow/demo/sheet';
import { greyOf, Raster } from '@crow/core/imaging/raster';
import { plainText } from '@crow/core/reading/words';
import { drawn } from '../testing/made';
import { rasterOf } from './rasters';
import { recognise } from './recognise';

const PRINTED = [
  'Marlowe Dye Works Ltd',
  'Twelve skeins of merino are ready for collection.',
  'With kind regards, the dye works.',
];
const BY_HAND = ['call Anna about the warp', 'pick up before noon, bring cash', 'ask for the other red too'];

/** A printed letter with some lines in between by an unsteady hand: each point of those is moved a little. */
async function letter(): Promise<Raster> {
  const pdf = await drawPdf([
    (sheet) => {
      sheet.line(PRINTED[0], { size: 18 });
      sheet.line(PRINTED[1], { size: 11 });
      for (const line of BY_HAND) sheet.line(line, { face: 'hand', size: 22 });
      sheet.line(PRINTED[2], { size: 11 });
    },
  ]);
  const page = greyOf(await rasterOf(sharp(await drawn(pdf, { dpi: 200 }))));
  const { width, height, data } = page;
  const [from, until] = [0.1215 * height, 0.2345 * height];
  const wave = (x: number, y: number, s: number) =>
    Math.sin(x / 17 + s) * Math.cos(y / 23 + 2 * s) +
    Math.sin(x / 41 + y / 13 + 3 * s) +
    0.6 * Math.sin(x / 7 + y / 29 + s);
  const moved = new Uint8Array(data);
  for (let y = Math.round(from); y < until; y++)
    for (let x = 0; x < width; x++) {
      const [sx, sy] = [Math.round(x + 5 * wave(x, y, 1)), Math.round(y + 5 * wave(x, y, 5))];
      moved[y * width + x] = sx >= 0 && sx < width && sy >= from && sy < until ? data[sy * width + sx] : 255;
    }
  return { width, height, channels: 1, data: moved };
}

it('marks handwriting that it can’t read, and reads the print around it', async () => {
  const page = await letter();
  const { words, handwriting } = await recognise(page, ['eng']);
  expect(plainText(words).split('\n')).toEqual(PRINTED);
  expect(handwriting).toHaveLength(1);
  const [[, top, , high]] = handwriting!;
  const lines = words.map(({ baseline }) => baseline).sort((a, b) => a - b);
  const [, second] = [...new Set(lines.map(Math.round))];
  expect(top).toBeGreaterThan(second);
  expect(top + high).toBeLessThan(lines[lines.length - 1]);
});

/** A page with these lines, scanned. */
async function pageOf(lines: string[], size = 11, dpi = 200): Promise<Raster> {
  const pdf = await drawPdf([(sheet) => lines.forEach((line) => sheet.line(line, { size }))]);
  return greyOf(await rasterOf(sharp(await drawn(pdf, { dpi }))));
}

it('reads print so small that its letters hardly have a shape, and tells its places on the page as it came', async () => {
  const lines = [
    'The parcel was handed to a neighbour on Thursday morning.',
    'Please bring the slip and a proof of who you are with you.',
    'What is not fetched within ten days goes back to its sender.',
  ];
  const page = await pageOf(lines, 9, 90);
  const large = await pageOf(lines, 9, 180);
  const [small, usual] = [await recognise(page, ['eng']), await recognise(large, ['eng'])];
  expect(plainText(small.words).split('\n')).toEqual(lines);
  expect([small.width, small.height]).toEqual([page.width, page.height]);
  small.words.forEach(({ box }, at) =>
    box.forEach((value, side) => expect(Math.abs(2 * value - usual.words[at].box[side])).toBeLessThan(5)),
  );
});

it('keeps the dots of names in whatever language the rest is', async () => {
  const lines = [
    'Your order from the dye works of Jörg Grünau and Sons',
    'We have sent the parcel to Köthen, care of Frau Böhm.',
    'Please tell us when it has arrived at your studio.',
  ];
  const { words, language } = await recognise(await pageOf(lines), ['eng', 'deu']);
  expect(language).toBe('eng');
  expect(plainText(words).split('\n')).toEqual(lines);
});

it('reads lines that are in another language than their page in that language', async () => {
  const lines = [
    'Thank you for your order. The yarn was sent to you yesterday by post,',
    'and it will be with you by the end of the week. The bill is in the box.',
    'Bitte überprüfen Sie die Ware sofort nach der Lieferung auf Schäden und Größe.',
    'If anything is wrong with it, write to us within fourteen days, please.',
  ];
  const { words } = await recognise(await pageOf(lines), ['eng', 'deu']);
  expect(plainText(words).split('\n')).toEqual(lines);
});
