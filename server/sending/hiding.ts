import { createHash } from 'node:crypto';
import sharp from 'sharp';
import { EntityManager } from 'typeorm';
import { HidingPlace } from '@crow/contract/sending';
import { Problem } from '@crow/contract/problems';
import { Page } from '@crow/contract/pages';
import { Hideable, placesToHide, withMargin, wordsLeft } from '@crow/core/finding/placesToHide';
import { Box, shareOf } from '@crow/core/geometry';
import { barePages } from '@crow/core/pdf/barePages';
import { BindPage, bindPdf, EncodedPicture } from '@crow/core/pdf/bindPdf';
import { ReadPage, textsOf } from '../checking/facts';
import { SourceShelf } from '../capture/sources';
import { withScratch } from '../engines/scratch';
import { PictureDesk } from '../pages/pagePictures';
import { Context } from '../platform/context';
import { Document } from '../platform/entities';
import { preparePages, withPages } from '../shelf/binding';
import { pagesOfDocument } from '../stack/queries';

/** Where all accounts, or all amounts, stand in a document. */
export async function hideablePlaces(
  manager: EntityManager,
  documentId: string,
  what: Hideable,
): Promise<HidingPlace[]> {
  const pages = await textsOf(manager, documentId);
  return placesToHide(pages, what).map(({ page, box, text }) => ({
    pageId: pages[page].pageId,
    box: shareOf(box, pages[page]),
    text,
  }));
}

const QUALITY = 88;

/**
 * A copy of a document in which areas of its pages are hidden. A page with something hidden is a picture with these areas painted
 * over, and the words outside them; all others are drawn as they are, with nothing beside: nothing of the former file is in it
 * otherwise.
 * @param areas in shares of their pages
 * @throws Problem 'not-found', 'page-not-drawn'
 */
export async function copyWithHidden(
  { database }: Context,
  { sources, pictures }: { sources: SourceShelf; pictures: PictureDesk },
  documentId: string,
  areas: readonly { pageId: string; box: Box }[],
): Promise<{ bytes: Uint8Array; name: string }> {
  const { manager } = database.source;
  const document = await manager.findOneBy(Document, { id: documentId });
  const pageList = await pagesOfDocument(manager, documentId);
  if (!document || areas.some(({ pageId }) => !pageList.some(({ id }) => id === pageId)))
    throw new Problem('not-found', { what: 'That page of the document' });
  const texts = await textsOf(manager, documentId);
  const hiddenOn = (id: string) => areas.filter(({ pageId }) => pageId === id).map(({ box }) => withMargin(box));
  const created = new Date();
  const title = titleOf(document.name, texts, hiddenOn);
  const bytes = await withPages(manager, sources, documentId, (pages, language) =>
    withScratch(async (folder) => {
      const open = pages.filter((_, at) => hiddenOn(pageList[at].id).length === 0);
      const taken = await bare(await preparePages(open, 'full', folder));
      const bound: BindPage[] = [];
      for (const page of pageList) {
        const hidden = hiddenOn(page.id);
        const text = texts.find(({ pageId }) => pageId === page.id);
        bound.push(hidden.length === 0 ? taken.shift()! : await paintedPage(pictures, page, text, hidden));
      }
      const fileId = createHash('md5').update(`${documentId} ${created.toISOString()} hidden`).digest();
      return (await bindPdf(bound, { title, created, language: language || undefined, fileId })).bytes;
    }),
  );
  return { bytes, name: title };
}

/** Pages that are taken over, with nothing beside what is drawn on them. */
async function bare(pages: BindPage[]): Promise<BindPage[]> {
  const stripped = new Map<Uint8Array, Promise<Uint8Array>>();
  const strip = (bytes: Uint8Array) => {
    const known = stripped.get(bytes) ?? barePages(bytes);
    stripped.set(bytes, known);
    return known;
  };
  return Promise.all(
    pages.map(async (page) => (page.kind === 'pdf' ? { ...page, bytes: await strip(page.bytes) } : page)),
  );
}

/** A page as a picture in which areas are black, with the words that are left. */
async function paintedPage(
  pictures: PictureDesk,
  page: Page,
  text: ReadPage | undefined,
  areas: readonly Box[],
): Promise<BindPage> {
  const { bytes } = await pictures.picture(page.id, 'full', page.turn, page.version);
  const { data, info } = await sharp(bytes)
    .toColourspace('srgb')
    .removeAlpha()
    .raw()
    .toBuffer({ resolveWithObject: true });
  for (const area of areas) paint(data, info, area);
  const encoded = await sharp(data, { raw: { width: info.width, height: info.height, channels: info.channels } })
    .jpeg({ quality: QUALITY, chromaSubsampling: '4:4:4' })
    .toBuffer();
  const picture: EncodedPicture = {
    format: 'jpeg',
    bytes: encoded,
    width: info.width,
    height: info.height,
    shown: [info.width, info.height],
    channels: 3,
    orientation: 1,
  };
  const scaled =
    text && areas.map(([x, y, w, h]): Box => [x * text.width, y * text.height, w * text.width, h * text.height]);
  return {
    kind: 'picture',
    picture,
    size: [page.pointWidth, page.pointHeight],
    text: text && { width: text.width, height: text.height, words: wordsLeft(text.words, scaled!) },
  };
}

function paint(
  data: Buffer,
  { width, height, channels }: { width: number; height: number; channels: number },
  [x, y, wide, high]: Box,
): void {
  const [left, right] = [Math.floor(x * width), Math.ceil((x + wide) * width)].map((at) => clamp(at, width));
  const [top, bottom] = [Math.floor(y * height), Math.ceil((y + high) * height)].map((at) => clamp(at, height));
  for (let row = top; row < bottom; row++)
    data.fill(0, (row * width + left) * channels, (row * width + right) * channels);
}

const clamp = (at: number, most: number) => Math.max(0, Math.min(most, at));

const LEAST_LETTERS = 3;

/** What the copy is called: as the document, unless that says a word which is hidden. */
function titleOf(name: string, texts: readonly ReadPage[], hiddenOn: (pageId: string) => Box[]): string {
  const plain = name.toLowerCase();
  const tells = texts.some(({ pageId, words, width, height }) => {
    const areas = hiddenOn(pageId).map(([x, y, w, h]): Box => [x * width, y * height, w * width, h * height]);
    const left = new Set(wordsLeft(words, areas));
    return words.some((word) => {
      const letters = word.text.toLowerCase().replace(/^[^\p{L}\p{N}]+|[^\p{L}\p{N}]+$/gu, '');
      return !left.has(word) && letters.length >= LEAST_LETTERS && plain.includes(letters);
    });
  });
  return tells ? 'A paper, parts hidden' : `${name || 'A paper'}, parts hidden`;
}
