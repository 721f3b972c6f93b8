import sharp from 'sharp';
import { Raster } from '@crow/core/imaging/raster';
import { readLines } from './lineReader';
import { rasterOf } from './rasters';
import { recognise } from './recognise';

async function printed(text: string, width = 900): Promise<{ picture: Raster }> {
  const svg = `<svg xmlns="http://www.w3.org/2000/svg" width="${width}" height="60"><rect width="100%" height="100%" fill="white"/><text x="10" y="44" font-size="40" font-family="DejaVu Sans, sans-serif">${text}</text></svg>`;
  return { picture: await rasterOf(sharp(Buffer.from(svg)).toColourspace('b-w')) };
}
const textOf = (words: { characters: { text: string }[] }[]) =>
  words.map(({ characters }) => characters.map(({ text }) => text).join('')).join(' ');

it('reads lines one after the other, each with where its letters stand', async () => {
  const lines = await readLines([await printed('Invoice 2026'), await printed('Total due')], 'eng');
  expect(lines.map(textOf)).toEqual(['Invoice 2026', 'Total due']);
  const [first, second] = lines[0][0].characters;
  expect(first.box[0]).toBeGreaterThan(5);
  expect(second.box[0]).toBeGreaterThan(first.box[0]);
  expect(first.confidence).toBeGreaterThan(0.9);
});

it('has nothing to do with no lines, and keeps each answer with its line whatever the others hold', async () => {
  expect(await readLines([], 'eng')).toEqual([]);
  const lines = await readLines([await printed('Total due'), await printed(''), await printed('Invoice')], 'eng');
  expect([textOf(lines[0]), textOf(lines[2])]).toEqual(['Total due', 'Invoice']);
});

it('serves several at once', async () => {
  const line = await printed('Total due');
  const all = await Promise.all([1, 2, 3].map(() => readLines([line], 'eng')));
  expect(all.map(([words]) => textOf(words))).toEqual(['Total due', 'Total due', 'Total due']);
});

it('says when a language is not installed, and reads on in others', async () => {
  const line = await printed('Total due');
  await expect(readLines([line], 'xyz')).rejects.toMatchObject({
    code: 'page-not-read',
    report: { happened: expect.stringContaining('a language is not installed on this machine') },
  });
  expect(textOf((await readLines([line], 'eng'))[0])).toBe('Total due');
});

it('reads on after a line whose picture could not be made', async () => {
  const broken = {
    get picture(): Raster {
      throw new Error('no such picture');
    },
  };
  await expect(readLines([await printed('Total due'), broken], 'eng')).rejects.toThrow('no such picture');
  expect(textOf((await readLines([await printed('Invoice')], 'eng'))[0])).toBe('Invoice');
});

it('tells the language of a page and reads it in that', async () => {
  const svg = `<svg xmlns="http://www.w3.org/2000/svg" width="1200" height="400"><rect width="100%" height="100%" fill="white"/>${['Bitte überweisen Sie den Betrag', 'bis zum genannten Tag auf unser Konto.', 'Mit freundlichen Grüßen'].map((text, at) => `<text x="60" y="${100 + at * 80}" font-size="34" font-family="DejaVu Sans, sans-serif">${text}</text>`).join('')}</svg>`;
  const { words, language } = await recognise(await rasterOf(sharp(Buffer.from(svg))), ['eng', 'deu', 'fra']);
  expect(language).toBe('deu');
  expect(words.map(({ text }) => text).join(' ')).toContain('Mit freundlichen Grüßen');
});
