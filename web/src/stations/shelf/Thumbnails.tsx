import { useVirtualizer } from '@tanstack/react-virtual';
import { useEffect, useState } from 'react';
import { Page } from '@crow/contract/pages';
import { PagePicture } from '../../parts/PagePicture';

const WIDTH = 76;
const BELOW = 26;

interface ThumbnailsProps {
  pages: Page[];
  /** From 1. */
  current: number;
  onGo: (number: number) => void;
}

/** The pages of a document, small, along its side. */
export function Thumbnails({ pages, current, onGo }: ThumbnailsProps) {
  const [scroller, setScroller] = useState<HTMLElement | null>(null);
  const heightOf = ({ width, height }: Page) => Math.min(2 * WIDTH, (WIDTH * height) / width);
  const virtualizer = useVirtualizer({
    count: pages.length,
    getScrollElement: () => scroller,
    estimateSize: (index) => heightOf(pages[index]) + BELOW,
    overscan: 4,
    paddingStart: 12,
    paddingEnd: 12,
  });
  useEffect(() => virtualizer.scrollToIndex(current - 1, { align: 'auto' }), [virtualizer, current]);
  return (
    <nav
      ref={setScroller}
      aria-label="Pages, small"
      className="w-28 shrink-0 overflow-y-auto border-r border-rule bg-ground"
    >
      <ol className="relative" style={{ height: virtualizer.getTotalSize() }}>
        {virtualizer.getVirtualItems().map(({ index, key, start }) => {
          const page = pages[index];
          const isCurrent = index + 1 === current;
          return (
            <li key={key} className="absolute inset-x-0 flex justify-center" style={{ top: start }}>
              <button aria-current={isCurrent ? 'page' : undefined} onClick={() => onGo(index + 1)}>
                <span
                  className={`block shadow-paper ${isCurrent ? 'outline-2 outline-offset-1 outline-accent' : ''}`}
                  style={{ width: WIDTH, height: heightOf(page) }}
                >
                  <PagePicture page={page} size="thumb" alt="" />
                </span>
                <span className={`font-mono text-sm ${isCurrent ? 'font-semibold' : 'text-quiet'}`}>
                  <span className="sr-only">Page </span>
                  {index + 1}
                </span>
              </button>
            </li>
          );
        })}
      </ol>
    </nav>
  );
}
