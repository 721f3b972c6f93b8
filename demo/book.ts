import { PDFDocument, PDFPage, rgb } from '@cantoo/pdf-lib';
import { Raster } from '@crow/core/imaging/raster';
import { rasterise, rgbRaster } from './capture';
import { embedFonts, Face } from './fonts';
import { seededRandom } from './random';

/** How the pages of a book are set. Points. */
export interface BookForm {
  size: [width: number, height: number];
  face: Face;
  /** Of the letters. */
  points: number;
  leading: number;
  columns: 1 | 2;
  margins: { inner: number; outer: number; top: number; bottom: number };
  /** On so many pages of a hundred is a picture. */
  pictures: number;
  title: string;
  chapters: string[];
}

const THINGS =
  'warp weft shuttle heddle reed treadle bobbin selvedge skein loom beam shaft yarn wool linen cotton silk twill basket tabby harbour net sail rope dye madder weld woad indigo alum kettle rinse hank distaff spindle carder fleece comb thread knot hem fringe pattern draft border stripe check blanket shawl runner cushion apron'.split(
    ' ',
  );
const DOINGS =
  'winds beats lifts throws draws ties cuts counts measures steeps rinses dries folds presses mends joins carries follows crosses turns holds loosens tightens meets leaves covers'.split(
    ' ',
  );
const HOWS =
  'evenly twice slowly firmly by hand from the left without haste in the morning before noon at the end after washing under light tension as before against the grain'.match(
    /by hand|from the left|without haste|in the morning|before noon|at the end|after washing|under light tension|as before|against the grain|\w+/g,
  )!;
const LIKES =
  'narrow coarse fine heavy pale dark second finished undyed doubled wooden damp older plain northern broad spun simple uneven'.split(
    ' ',
  );

/** Sentences of which none says anything, the same for the same random numbers. */
export function prose(random: () => number, words: number): string {
  const pick = (from: readonly string[]) => from[Math.floor(random() * from.length)];
  const sentences: string[] = [];
  for (let count = 0; count < words;) {
    const noun = () => `${random() < 0.3 ? 'a' : 'the'} ${random() < 0.6 ? `${pick(LIKES)} ` : ''}${pick(THINGS)}`;
    let sentence = `${noun()} ${pick(DOINGS)} ${noun()}`;
    if (random() < 0.5) sentence += ` ${pick(HOWS)}`;
    if (random() < 0.4) sentence += `, and ${noun()} ${pick(DOINGS)} ${noun()}`;
    if (random() < 0.15) sentence += `; in ${1700 + Math.floor(random() * 250)} it was ${pick(LIKES)}`;
    sentences.push(`${sentence[0].toUpperCase()}${sentence.slice(1)}.`);
    count += sentence.split(' ').length;
  }
  return sentences.join(' ');
}

/** A form of its own for each number. */
export function bookForm(seed: number): BookForm {
  const random = seededRandom(seed * 37 + 5);
  const between = (low: number, high: number) => low + (high - low) * random();
  const points = between(8, 11);
  const columns = random() < 0.25 ? 2 : 1;
  const width = columns === 2 ? between(430, 500) : between(320, 440);
  return {
    size: [width, width * between(1.32, 1.55)],
    face: (['book', 'plain', 'book', 'typed'] as const)[Math.floor(random() * 4)],
    points,
    leading: points * between(1.25, 1.5),
    columns,
    margins: { inner: between(36, 58), outer: between(34, 60), top: between(44, 64), bottom: between(48, 70) },
    pictures: 22,
    title: 'The Harbour Weaver',
    chapters: ['Of Warps', 'Of Colours', 'Of Finishing'],
  };
}

/** Pages of a book from a number on, even ones on the left: a PDF with its fonts. */
export async function bookPages(form: BookForm, first: number, count: number, seed: number): Promise<Uint8Array> {
  const pdf = await PDFDocument.create({ updateMetadata: false });
  const fonts = await embedFonts(pdf);
  for (let number = first; number < first + count; number++) {
    const page = pdf.addPage(form.size);
    setPage(page, number, form, seededRandom(seed * 1009 + number), fonts);
  }
  return pdf.save();
}

function setPage(
  page: PDFPage,
  number: number,
  form: BookForm,
  random: () => number,
  fonts: Awaited<ReturnType<typeof embedFonts>>,
): void {
  const { size, face, points, leading, margins, columns } = form;
  const [width, height] = size;
  const font = fonts[face];
  const left = number % 2 === 0 ? margins.outer : margins.inner;
  const measure = width - margins.inner - margins.outer;
  const ink = rgb(0.09, 0.09, 0.1);
  const write = (text: string, x: number, y: number, at = points) =>
    page.drawText(text, { x, y: height - y, size: at, font, color: ink });
  const chapter = form.chapters[Math.floor(number / 20) % form.chapters.length];
  const running = number % 2 === 0 ? form.title : chapter;
  const small = points * 0.85;
  write(running, left + (measure - font.widthOfTextAtSize(running, small)) / 2, margins.top - leading, small);
  const folio = `${number}`;
  const folioAt = number % 2 === 0 ? left : left + measure - font.widthOfTextAtSize(folio, small);
  write(folio, folioAt, height - margins.bottom + 1.6 * leading, small);
  const gutter = 16;
  const column = columns === 1 ? measure : (measure - gutter) / 2;
  const pictured = random() * 100 < form.pictures ? Math.floor(random() * columns) : -1;
  for (let each = 0; each < columns; each++) {
    const x = left + each * (column + gutter);
    let y = margins.top + points;
    const bottom = height - margins.bottom;
    const picture =
      each === pictured ? { top: y + (0.1 + 0.4 * random()) * (bottom - y), tall: 0.3 * (bottom - y) } : undefined;
    while (y < bottom) {
      if (picture && y + leading > picture.top && y < picture.top + picture.tall) {
        drawPicture(page, x, height - picture.top - picture.tall, column, picture.tall - leading, random);
        y = picture.top + picture.tall + leading;
        continue;
      }
      y = setParagraph(
        prose(random, 35 + Math.floor(random() * 60)),
        x,
        y,
        Math.min(bottom, picture && y < picture.top ? picture.top - leading : bottom),
      );
    }
  }

  /** Justified, the first line indented; breaks off at the bottom. Gives where the next one begins. */
  function setParagraph(text: string, x: number, from: number, bottom: number): number {
    let y = from;
    let row: string[] = [];
    let indent = points * 1.2;
    const space = font.widthOfTextAtSize(' ', points);
    const long = (words: string[]) =>
      words.reduce((sum, word) => sum + font.widthOfTextAtSize(word, points), 0) + (words.length - 1) * space;
    const flush = (last: boolean) => {
      if (y <= bottom) {
        const extra = last || row.length < 2 ? 0 : (column - indent - long(row)) / (row.length - 1);
        let at = x + indent;
        for (const word of row) {
          write(word, at, y);
          at += font.widthOfTextAtSize(word, points) + space + extra;
        }
      }
      y += leading;
      indent = 0;
      row = [];
    };
    for (const word of text.split(' ')) {
      if (row.length > 0 && long([...row, word]) > column - indent) flush(false);
      row.push(word);
    }
    flush(true);
    return Math.max(y, from + leading);
  }
}

/** A grey picture: hills and a sun, as an engraving might have them. */
function drawPicture(page: PDFPage, x: number, y: number, width: number, height: number, random: () => number): void {
  page.drawRectangle({ x, y, width, height, color: rgb(0.78, 0.78, 0.77) });
  for (let hill = 0; hill < 4; hill++) {
    const level = 0.62 - 0.13 * hill;
    const tall = height * (0.65 - 0.15 * hill);
    page.drawEllipse({
      x: x + width * (0.25 + 0.5 * random()),
      y: y + tall / 3,
      xScale: width * 0.25,
      yScale: tall / 3,
      color: rgb(level, level, level),
    });
  }
}

/** Two pages of a book that face each other, from an even number on, as they are printed. */
export async function openPages(
  seed: number,
  first: number,
  dpi: number,
): Promise<{ form: BookForm; pdf: Uint8Array; pages: [PrintedPage, PrintedPage] }> {
  const form = bookForm(seed);
  const pdf = await bookPages(form, first, 2, seed);
  const pictures = await Promise.all((await rasterise(pdf, 2, dpi)).map(rgbRaster));
  const [width, height] = form.size.map((side) => (side / 72) * 25.4);
  const [left, right] = pictures.map((picture) => ({ picture, width, height }));
  return { form, pdf, pages: [left, right] };
}

/** A page with its size in mm. */
export interface PrintedPage {
  picture: Raster;
  width: number;
  height: number;
}
