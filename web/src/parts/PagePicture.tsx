import { addressOf } from '@crow/contract/client';
import { endpoints } from '@crow/contract/endpoints';
import { Page } from '@crow/contract/pages';

export type PictureSize = 'thumb' | 'screen' | 'full';

export function pictureAddress(id: string, size: PictureSize, turn: number, version: string): string {
  return addressOf(endpoints.pagePicture, { params: { id, size }, query: { turn, ...(version && { version }) } });
}

/** The picture size that is enough for a page shown `width` CSS pixels wide. */
export function sizeFor(width: number, page: Pick<Page, 'width' | 'height'>): PictureSize {
  const longSide = (width * Math.max(page.width, page.height)) / page.width;
  const pixels = longSide * Math.min(2, window.devicePixelRatio || 1);
  return pixels <= 440 ? 'thumb' : pixels <= 1750 ? 'screen' : 'full';
}

/** A page's picture on white paper, in the size that suits; a blank sheet until it is made. */
export function PagePicture({
  page,
  size,
  alt,
}: {
  page: Pick<Page, 'id' | 'turn' | 'version' | 'pictured' | 'problem'>;
  size: PictureSize;
  alt: string;
}) {
  if (!page.pictured && size !== 'full') {
    return (
      <div
        role="img"
        aria-label={alt}
        className="flex h-full w-full items-center justify-center bg-paper text-xs text-[#5d5966]"
      >
        {page.problem ? 'not drawn' : '…'}
      </div>
    );
  }
  return (
    <img
      src={pictureAddress(page.id, size, page.turn, page.version)}
      alt={alt}
      draggable={false}
      decoding="async"
      className="paper-picture block h-full w-full bg-paper object-contain"
    />
  );
}
