import {
  ChevronDown,
  ChevronUp,
  Maximize2,
  Minimize2,
  NotebookText,
  PanelLeft,
  RotateCw,
  ListTree,
  ZoomIn,
  ZoomOut,
} from 'lucide-react';
import { useCallback, useEffect, useRef, useState } from 'react';
import { Document } from '@crow/contract/documents';
import { Hit } from '@crow/contract/finding';
import { addTurns, Turn } from '@crow/core/geometry';
import { Choice, Empty, IconButton, ProblemText } from '../../parts/controls';
import { KeyWords, useKeys } from '../../parts/keys';
import { useKept } from '../../parts/useKept';
import { useMedium } from '../../parts/useNarrow';
import { useContents, useDocument, useHits } from '../../queries';
import { AboutPane } from './AboutPane';
import { DiskChoices } from './DiskChoices';
import { Outline, PageLinks } from './ownContents';
import { DocumentMenu } from './DocumentMenu';
import { useMarking } from './marks/useMarking';
import { PagesHandle, PagesScroller } from './PagesScroller';
import { Zoom } from './reading';
import { Place } from './shelfPlace';
import { Thumbnails } from './Thumbnails';
import { useHiding } from './useHiding';

const KEYS: KeyWords = [
  ['ArrowLeft ArrowRight PageUp PageDown', 'Turn the pages'],
  ['Enter n', 'To the next hit; with Shift, to the one before'],
  ['+ - 0', 'Larger, smaller, as usual'],
  ['w p', 'As wide as there is room, whole pages'],
  ['r', 'Turn the view'],
  ['t', 'The pages, small, along the side'],
  ['o', 'The contents of a paper that brings some'],
  ['f', 'The whole window for this paper; Escape goes back'],
  ['i', 'What the paper says, and questions about it'],
];

interface OpenProps {
  id: string;
  query: string;
  /** A place that is shown and marked, such as the one that an answer stands at. */
  at?: Place;
  /** Given the element that scrolls, for whoever scrolls it along with another. */
  onScroller?: (element: HTMLElement | null) => void;
  /** Whether keys act on it: of two beside each other, they act on the one that is used. */
  keys?: boolean;
}

/** A document to read: leaf, zoom, turn, select its text, go from hit to hit. */
export function OpenDocument({ id, query, ...rest }: OpenProps) {
  const { data: document, error } = useDocument(id);
  const { data: hits } = useHits(id, query);
  if (document) return <Reader document={document} hits={query.trim() && hits ? hits : NO_HITS} {...rest} />;
  return error ? (
    <Empty title="This paper is not here">
      <p>It may have been deleted, or the address is not whole. Find it by a word in it: press /.</p>
    </Empty>
  ) : null;
}

const NO_HITS: Hit[] = [];
const ZOOMS: { value: string; name: string }[] = [
  { value: 'usual', name: 'as usual' },
  { value: 'width', name: 'full width' },
  { value: 'page', name: 'whole page' },
];

function Reader({
  document,
  hits,
  at,
  onScroller,
  keys = true,
}: { document: Document; hits: Hit[] } & Omit<OpenProps, 'id' | 'query'>) {
  const { pageList } = document;
  const pages = useRef<PagesHandle>(null);
  const [zoom, setZoom] = useState<Zoom>('usual');
  const [turn, setTurn] = useState<Turn>(0);
  const [current, setCurrent] = useState(1);
  const firstHit = hits[0] && `${hits[0].pageId} ${hits[0].boxes[0].join()}`;
  const [gone, setGone] = useState({ among: firstHit, hit: 0 });
  // Of another query the first.
  const hit = gone.among === firstHit ? gone.hit : 0;
  const [about, setAbout] = useState(false);
  const [place, setPlace] = useState<Place>();
  const [alone, setAlone] = useState(false);
  const medium = useMedium();
  const [side, setSide] = useKept('crow-thumbnails', { shown: true });
  const { data: contents } = useContents(document.id);
  const [outlined, setOutlined] = useKept('crow-outline', { shown: false });
  const hasOutline = (contents?.outline.length ?? 0) > 0 && !medium;
  const outline = hasOutline && outlined.shown ? contents!.outline : undefined;
  const thumbnails = side.shown && pageList.length > 1 && !medium && !outline;

  const goToPage = (number: number) => pages.current?.goToPage(number);
  const goToHit = (index: number) => {
    if (hits.length === 0) return;
    const to = (index + hits.length) % hits.length;
    setGone({ among: firstHit, hit: to });
    pages.current?.goToPlace(hits[to].pageNumber - 1, hits[to].boxes[0][1]);
  };
  const goToPlace = (to: Place) => {
    setPlace(to);
    const index = pageList.findIndex(({ id }) => id === to.pageId);
    if (index >= 0) pages.current?.goToPlace(index, to.box[1]);
  };
  const goToTop = ({ pageId, top }: { pageId: string; top: number }) => {
    const index = pageList.findIndex(({ id }) => id === pageId);
    if (index >= 0) pages.current?.goToPlace(index, top);
  };
  // The first hit comes into view as soon as the hits are known and the pages are there.
  const [ready, setReady] = useState(false);
  useEffect(() => {
    if (ready && firstHit) pages.current?.goToPlace(hits[0].pageNumber - 1, hits[0].boxes[0][1]);
    // Only for another query, not whenever the window changes.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [ready, firstHit]);

  const shown = place ?? at;
  useEffect(() => {
    const index = pageList.findIndex(({ id }) => id === at?.pageId);
    if (ready && at && index >= 0) pages.current?.goToPlace(index, at.box[1]);
    // Only to another place, not whenever the pages are told again.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [ready, at]);

  const hiding = useHiding(document, { turn, hits, keys });
  const marking = useMarking(document, turn, keys && !hiding.on);
  useKeys(
    keys
      ? {
          PageDown: () => pages.current?.turnPages(1),
          PageUp: () => pages.current?.turnPages(-1),
          ArrowRight: () => pages.current?.turnPages(1),
          ArrowLeft: () => pages.current?.turnPages(-1),
          '+': () => pages.current?.zoomBy(1),
          '-': () => pages.current?.zoomBy(-1),
          0: () => setZoom('usual'),
          w: () => setZoom('width'),
          p: () => setZoom('page'),
          r: () => setTurn(addTurns(turn, 90)),
          t: () => setSide({ shown: !side.shown }),
          ...(hasOutline && { o: () => setOutlined({ shown: !outlined.shown }) }),
          f: () => setAlone(!alone),
          Enter: () => goToHit(hit + 1),
          'Shift+Enter': () => goToHit(hit - 1),
          n: () => goToHit(hit + 1),
          'Shift+N': () => goToHit(hit - 1),
          i: () => setAbout(!about),
          ...(alone && { Escape: () => setAlone(false) }),
        }
      : {},
    keys ? KEYS : [],
  );
  const tellCurrent = useCallback((number: number) => setCurrent(number), []);

  return (
    <article
      data-open-document
      tabIndex={-1}
      className={`flex flex-col bg-ground outline-none ${alone ? 'fixed inset-0 z-30' : 'h-full'}`}
      aria-label={document.name}
    >
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
        {hasOutline && (
          <IconButton
            name="Contents (o)"
            aria-pressed={outlined.shown}
            onClick={() => setOutlined({ shown: !outlined.shown })}
          >
            <ListTree size={17} />
          </IconButton>
        )}
        {pageList.length > 1 && !medium && (
          <IconButton
            name="Small pages along the side (t)"
            aria-pressed={side.shown}
            onClick={() => setSide({ shown: !side.shown })}
          >
            <PanelLeft size={17} />
          </IconButton>
        )}
        <IconButton name="Smaller (-)" onClick={() => pages.current?.zoomBy(-1)}>
          <ZoomOut size={17} />
        </IconButton>
        <IconButton name="Larger (+)" onClick={() => pages.current?.zoomBy(1)}>
          <ZoomIn size={17} />
        </IconButton>
        <Choice
          label="Size"
          className="max-[70rem]:hidden"
          value={typeof zoom === 'number' ? 'own' : zoom}
          choices={typeof zoom === 'number' ? [{ value: 'own', name: `${Math.round(zoom * 100)} %` }, ...ZOOMS] : ZOOMS}
          onChange={(to) => to !== 'own' && setZoom(to as Zoom)}
        />
        <IconButton name="Turn the view (r)" onClick={() => setTurn(addTurns(turn, 90))}>
          <RotateCw size={17} />
        </IconButton>
        <IconButton
          name={alone ? 'Back beside the shelf (f)' : 'The whole window (f)'}
          onClick={() => setAlone(!alone)}
        >
          {alone ? <Minimize2 size={17} /> : <Maximize2 size={17} />}
        </IconButton>
        <IconButton name="What it says (i)" aria-pressed={about} onClick={() => setAbout(!about)}>
          <NotebookText size={17} />
        </IconButton>
        <DocumentMenu document={document} keys={keys && !marking.busy && !hiding.on} onHide={hiding.begin} />
      </header>
      {document.problem && (
        <ProblemText report={document.problem}>
          <DiskChoices documents={[document]} />
        </ProblemText>
      )}
      <div className="flex min-h-0 flex-1">
        {outline && <Outline lines={outline} onGo={goToTop} />}
        {thumbnails && <Thumbnails pages={pageList} current={current} onGo={goToPage} />}
        <PagesScroller
          ref={pages}
          pages={pageList}
          zoom={zoom}
          onZoom={setZoom}
          turn={turn}
          hits={hits}
          onCurrent={tellCurrent}
          onScroller={onScroller}
          onReady={() => setReady(true)}
          onPointerUp={hiding.on ? hiding.onPointerUp : marking.onPointerUp}
          above={(page) => (
            <>
              <PageLinks links={contents?.links.filter(({ pageId }) => pageId === page.id) ?? []} onGo={goToTop} />
              {(hiding.on ? hiding.above : marking.above)(page)}
            </>
          )}
          over={(page, index) => (
            <>
              {marking.under(page)}
              {hiding.on && hiding.over(page)}
              {hits.map((each, at) => each.pageId === page.id && <HitMark key={at} hit={each} current={at === hit} />)}
              {shown?.pageId === page.id && (about || shown === at) && (
                <HitMark hit={{ ...shown, pageNumber: index + 1, boxes: [shown.box] }} current />
              )}
            </>
          )}
        />
        {about && <AboutPane document={document} onGoTo={goToPlace} />}
      </div>
      {hiding.on ? hiding.strip : marking.strip}
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
