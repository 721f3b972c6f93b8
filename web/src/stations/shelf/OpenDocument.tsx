import { useVirtualizer } from '@tanstack/react-virtual';
import { ChevronDown, ChevronUp, NotebookText, RotateCw, ZoomIn, ZoomOut } from 'lucide-react';
import { useEffect, useState } from 'react';
import { Document } from '@crow/contract/documents';
import { Hit } from '@crow/contract/finding';
import { Page } from '@crow/contract/pages';
import { addTurns, Turn } from '@crow/core/geometry';
import { Empty, IconButton, ProblemText } from '../../parts/controls';
import { KeyWords, useKeys } from '../../parts/keys';
import { PageSheet } from '../../parts/PageSheet';
import { useSize } from '../../parts/useSize';
import { useDocument, useHits } from '../../queries';
import { AboutPane, Place } from './AboutPane';
import { DiskChoices } from './DiskChoices';
import { DocumentMenu } from './DocumentMenu';

const ZOOMS = [0.5, 0.7, 0.85, 1, 1.25, 1.6, 2, 2.6, 3.4];
const FITTING = ZOOMS.indexOf(1);
const PADDING = 24;
const PAGE_GAP = 20;
const KEYS: KeyWords = [
  ['ArrowLeft ArrowRight PageUp PageDown', 'Turn the pages'],
  ['Enter n', 'To the next hit; with Shift, to the one before'],
  ['+ - 0', 'Larger, smaller, fitting'],
  ['r', 'Turn the view'],
  ['i', 'What the paper says, and questions about it'],
];

/** How much of the window stands above a hit that is jumped to. */
const ABOVE_HIT = 0.3;

/** A document to read: leaf, zoom, turn, select its text, go from hit to hit. */
export function OpenDocument({ id, query }: { id: string; query: string }) {
  const { data: document, error } = useDocument(id);
  const { data: hits = [] } = useHits(id, query);
  if (document) return <Reader document={document} hits={query.trim() ? hits : []} />;
  return error ? (
    <Empty title="This paper is not here">
      <p>It may have been deleted, or the address is not whole. Find it by a word in it: press /.</p>
    </Empty>
  ) : null;
}

function Reader({ document, hits }: { document: Document; hits: Hit[] }) {
  const { pageList } = document;
  const [sizeRef, { width }] = useSize<HTMLDivElement>();
  const [scroller, setScroller] = useState<HTMLDivElement | null>(null);
  const [zoom, setZoom] = useState(FITTING);
  const [turn, setTurn] = useState<Turn>(0);
  const [hit, setHit] = useState(0);
  const [about, setAbout] = useState(false);
  const [place, setPlace] = useState<Place>();
  const pageWidth = Math.max(120, Math.min(900, width - 2 * PADDING)) * ZOOMS[zoom];
  const sideways = turn % 180 !== 0;
  const heightOf = (page: Page) =>
    sideways ? (pageWidth * page.width) / page.height : (pageWidth * page.height) / page.width;
  const virtualizer = useVirtualizer({
    count: pageList.length,
    getScrollElement: () => scroller,
    estimateSize: (index) => heightOf(pageList[index]) + PAGE_GAP,
    overscan: 1,
    paddingStart: PADDING,
    paddingEnd: PADDING,
  });
  useEffect(() => virtualizer.measure(), [virtualizer, pageWidth, turn]);
  const offset = (virtualizer.scrollOffset ?? 0) + (scroller?.clientHeight ?? 0) * ABOVE_HIT;
  const current = Math.max(0, (virtualizer.getVirtualItemForOffset(offset)?.index ?? 0) + 1);

  const goToPage = (number: number) =>
    virtualizer.scrollToIndex(Math.max(0, Math.min(pageList.length - 1, number - 1)), { align: 'start' });
  const goToHit = (index: number) => {
    if (hits.length === 0) return;
    const to = (index + hits.length) % hits.length;
    setHit(to);
    const { pageNumber, boxes } = hits[to];
    scrollTo(pageNumber - 1, boxes[0][1]);
  };
  /** Brings a height on a page, as a share of it, into view. */
  const scrollTo = (index: number, share: number) => {
    const [start] = virtualizer.getOffsetForIndex(index, 'start') ?? [0];
    const within = sideways ? 0 : share * heightOf(pageList[index]);
    virtualizer.scrollToOffset(Math.max(0, start + within - (scroller?.clientHeight ?? 0) * ABOVE_HIT));
  };
  const goToPlace = (to: Place) => {
    setPlace(to);
    const index = pageList.findIndex(({ id }) => id === to.pageId);
    if (index >= 0) scrollTo(index, to.box[1]);
  };
  // The first hit comes into view as soon as the hits are known.
  const firstHit = hits[0] && `${hits[0].pageId} ${hits[0].boxes[0].join()}`;
  useEffect(() => {
    if (firstHit && width > 0) goToHit(0);
    // Only for another query, not whenever the window changes.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [firstHit, width > 0]);

  useKeys(
    {
      PageDown: () => goToPage(current + 1),
      PageUp: () => goToPage(current - 1),
      ArrowRight: () => goToPage(current + 1),
      ArrowLeft: () => goToPage(current - 1),
      '+': () => setZoom(Math.min(ZOOMS.length - 1, zoom + 1)),
      '-': () => setZoom(Math.max(0, zoom - 1)),
      0: () => setZoom(FITTING),
      r: () => setTurn(addTurns(turn, 90)),
      Enter: () => goToHit(hit + 1),
      'Shift+Enter': () => goToHit(hit - 1),
      n: () => goToHit(hit + 1),
      'Shift+N': () => goToHit(hit - 1),
      i: () => setAbout(!about),
    },
    KEYS,
  );

  return (
    <article data-open-document tabIndex={-1} className="flex h-full flex-col outline-none" aria-label={document.name}>
      <header className="flex h-14 shrink-0 items-center gap-1 border-b border-rule pr-2 pl-4">
        <h2 className="min-w-0 flex-1 truncate text-lg font-semibold" title={document.shelfPath ?? document.name}>
          {document.name || 'Not named yet'}
        </h2>
        {hits.length > 0 && (
          <span className="flex items-center">
            <span className="font-mono text-sm" role="status">
              {hit + 1}/{hits.length}
            </span>
            <IconButton name="Hit before (Shift+N)" onClick={() => goToHit(hit - 1)}>
              <ChevronUp size={17} />
            </IconButton>
            <IconButton name="Next hit (n)" onClick={() => goToHit(hit + 1)}>
              <ChevronDown size={17} />
            </IconButton>
          </span>
        )}
        <span
          className="px-1 font-mono text-sm text-quiet"
          aria-label={`Page ${Math.min(current, pageList.length)} of ${pageList.length}`}
        >
          {Math.min(current, pageList.length)}/{pageList.length}
        </span>
        <IconButton name="Smaller (-)" onClick={() => setZoom(Math.max(0, zoom - 1))} disabled={zoom === 0}>
          <ZoomOut size={17} />
        </IconButton>
        <IconButton
          name="Larger (+)"
          onClick={() => setZoom(Math.min(ZOOMS.length - 1, zoom + 1))}
          disabled={zoom === ZOOMS.length - 1}
        >
          <ZoomIn size={17} />
        </IconButton>
        <IconButton name="Turn the view (r)" onClick={() => setTurn(addTurns(turn, 90))}>
          <RotateCw size={17} />
        </IconButton>
        <IconButton name="What it says (i)" aria-pressed={about} onClick={() => setAbout(!about)}>
          <NotebookText size={17} />
        </IconButton>
        <DocumentMenu document={document} />
      </header>
      {document.problem && (
        <ProblemText report={document.problem}>
          <DiskChoices documents={[document]} />
        </ProblemText>
      )}
      <div className="flex min-h-0 flex-1">
        <div
          ref={(element) => {
            setScroller(element);
            return sizeRef(element);
          }}
          className="min-h-0 min-w-0 flex-1 overflow-auto bg-sunken"
          role="region"
          tabIndex={0}
          aria-label="Pages"
        >
          <div className="relative mx-auto" style={{ height: virtualizer.getTotalSize(), width: pageWidth }}>
            {width > 0 &&
              virtualizer.getVirtualItems().map(({ index, key, start }) => {
                const page = pageList[index];
                const sheetWidth = sideways ? heightOf(page) : pageWidth;
                return (
                  <div
                    key={key}
                    className="absolute left-0"
                    style={{ top: start, width: pageWidth, height: heightOf(page) }}
                  >
                    <div
                      className="absolute top-1/2 left-1/2"
                      style={{ width: sheetWidth, transform: `translate(-50%, -50%) rotate(${turn}deg)` }}
                    >
                      <PageSheet page={page} number={index + 1} width={sheetWidth}>
                        {hits.map(
                          (each, at) => each.pageId === page.id && <HitMark key={at} hit={each} current={at === hit} />,
                        )}
                        {place?.pageId === page.id && about && (
                          <HitMark hit={{ ...place, pageNumber: index + 1, boxes: [place.box] }} current />
                        )}
                      </PageSheet>
                    </div>
                  </div>
                );
              })}
          </div>
        </div>
        {about && <AboutPane document={document} onGoTo={goToPlace} />}
      </div>
    </article>
  );
}

function HitMark({ hit, current }: { hit: Hit; current: boolean }) {
  return hit.boxes.map(([x, y, width, height], index) => (
    <span
      key={index}
      data-hit={current ? 'current' : 'other'}
      className={`pointer-events-none absolute mix-blend-multiply ${current ? 'bg-[#f0b849] outline-2 outline-offset-1 outline-[#8a5a10]' : 'bg-[#f6dfa8]'}`}
      style={{ left: `${x * 100}%`, top: `${y * 100}%`, width: `${width * 100}%`, height: `${height * 100}%` }}
    />
  ));
}
