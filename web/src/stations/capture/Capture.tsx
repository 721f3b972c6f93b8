import { Camera, FileUp, FolderInput as FolderIcon, List, Printer, X } from 'lucide-react';
import { ReactNode, useCallback, useEffect, useRef, useState } from 'react';
import { useNavigate, useSearchParams } from 'react-router';
import { Document } from '@crow/contract/documents';
import { Page } from '@crow/contract/pages';
import { Binding, Stack } from '@crow/contract/stacks';
import { writeMoment } from '@crow/core/reading/dayForms';
import { later } from '../../parts/later';
import { Button, IconButton, Key } from '../../parts/controls';
import { shownMoment } from '../../parts/days';
import { Place, useIntake } from '../../parts/intake';
import { useKeys } from '../../parts/keys';
import { useSmall } from '../../parts/useNarrow';
import { twinOf } from '../../parts/twins';
import { useGo } from '../../parts/wayBack';
import { useWave, warningOn } from '../../parts/Warning';
import { useDocument, useMay, useOverview, useScans, useStack, useStacks } from '../../queries';
import { CameraSource } from './CameraSource';
import { PageView } from './PageView';
import { Ribbon } from './Ribbon';
import { TakenIn } from './TakenIn';
import { useLabels } from './useLabels';
import { WaitingStrip } from './WaitingStrip';
import { Onward, TakenPages } from './handheld';
import { PagesInHand, useDocumentPages, useStackPages } from './usePages';

const FolderSource = later(async () => (await import('./FolderSource')).default);
const ScannerSource = later(async () => (await import('./ScannerSource')).default);

const ACCEPT =
  '.pdf,.jpg,.jpeg,.png,.tif,.tiff,.heic,.heif,.webp,application/pdf,image/*,.xml,application/xml,.eml,.mbox,message/rfc822';

const SOURCES = ['files', 'camera', 'scanner', 'folders'] as const;
type Source = (typeof SOURCES)[number];

const newStack = (from: string): Place => ({
  stackId: crypto.randomUUID(),
  stackName: `${from}, ${shownMoment(new Date())}`,
  sent: 0,
});
const cameraStack = () => newStack('Camera');

/** The Capture station: papers come in from one source or another; the pages taken lie along the bottom like a ribbon. */
export default function Capture() {
  const [query] = useSearchParams();
  const documentId = query.get('document') ?? undefined;
  const { data: stacks = [] } = useStacks();
  const { data: document } = useDocument(documentId);
  const { place, setPlace, takeIn, takenFor, transfers } = useIntake();
  const [chosen, setChosen] = useState(query.get('stack') ?? undefined);
  const [pageId, setPageId] = useState(query.get('page') ?? undefined);
  const [source, setSource] = useState<Source>(SOURCES.find((each) => each === query.get('source')) ?? 'files');
  const [seenQuery, setSeenQuery] = useState(query);
  if (query !== seenQuery) {
    // Sent here again, such as by the rail: to the source that is meant.
    setSeenQuery(query);
    const meant = SOURCES.find((each) => each === query.get('source'));
    if (meant) setSource(meant);
  }
  const [listOpen, setListOpen] = useState(false);
  const chooser = useRef<HTMLInputElement>(null);
  const shown = stacks.find(({ id }) => id === (place?.stackId ?? chosen)) ?? stacks.find(({ pages }) => pages > 0);
  const { data: stack } = useStack(documentId ? (document?.stackId ?? undefined) : shown?.id);
  useEffect(() => () => setPlace(undefined), [setPlace]);
  useEffect(() => {
    // Pages have come to that stack another way: the next ones stand behind them.
    if (place && stack?.id === place.stackId && sentTo(stack) > place.sent) setPlace({ ...place, sent: sentTo(stack) });
  });
  const placeForScan = () => {
    const to = place ?? newStack('Scan');
    setPlace({ ...to, again: undefined });
    setPageId(undefined);
    return to;
  };

  const choose = () => chooser.current?.click();
  const takeByCamera = useCallback(
    (picture: Blob, bound: Binding | null) => {
      const name = `Photo ${writeMoment(new Date(), 'iso', { seconds: true }).replaceAll(':', '.')}.jpg`;
      // A picture that the device's own camera took keeps its bytes, and with them its size and how it was held.
      takeIn([new File([picture], name, { type: picture.type })], { otherwise: cameraStack, bound });
      setPageId(undefined);
    },
    [takeIn],
  );
  const small = useSmall();
  const chooseSource = (next: Source) => {
    // On a phone the camera goes on where it was left to see the pages.
    if (!documentId && !(small && next === 'camera')) setPlace(undefined);
    setSource(next);
    setPageId(undefined);
  };
  const show = (id: string) => {
    setPlace(undefined);
    setChosen(id);
    setPageId(undefined);
    setListOpen(false);
  };
  const switchTo = (other: Source) => chooseSource(source === other ? 'files' : other);
  useKeys({ o: choose, k: () => switchTo('camera'), s: () => switchTo('scanner'), f: () => switchTo('folders') }, [
    ['k s f', 'Camera, scanner, folders'],
    ['o', 'Choose files'],
  ]);

  const works = useMay('work');
  const watched = useOverview().data?.watched ?? 0;
  const filming = source === 'camera';
  const waiting = transfers.filter(({ state }) => state === 'waiting' || state === 'sending');
  /** A phone in the hand: the picture has the whole screen, and what was taken is a button beside the one that takes. */
  const handheld = filming && small;
  /** Where the pictures go that are taken now: none of what lies here from before. */
  useLabels(stack);
  const inHand = stack?.id === place?.stackId ? stack : undefined;
  const mine = waiting.filter(({ stackId }) => stackId === place?.stackId);
  const taken = place ? takenFor(place.stackId) : 0;
  const bench = { pageId, setPageId, source, choose: small ? () => setSource('camera') : choose };
  return (
    <div className="flex h-full">
      <div className="flex min-w-0 flex-1 flex-col">
        <input
          ref={chooser}
          type="file"
          multiple
          accept={ACCEPT}
          hidden
          onChange={(event) => {
            takeIn([...(event.target.files ?? [])]);
            event.target.value = '';
          }}
        />
        <header
          className={`flex h-14 shrink-0 items-center gap-1 border-b border-rule px-2 sm:gap-2 md:px-6 ${handheld ? 'hidden' : ''}`}
        >
          <h1 className="sr-only">Capture</h1>
          <SourceButton name="Camera" hint="k" shown={filming} onClick={() => switchTo('camera')}>
            <Camera size={15} aria-hidden className="max-md:hidden" />
          </SourceButton>
          {works && (
            <>
              <SourceButton name="Scanner" hint="s" shown={source === 'scanner'} onClick={() => switchTo('scanner')}>
                <Printer size={15} aria-hidden className="max-md:hidden" />
              </SourceButton>
              <SourceButton
                name={watched > 0 ? `Folders (${watched})` : 'Folders'}
                hint="f"
                shown={source === 'folders'}
                onClick={() => switchTo('folders')}
              >
                <FolderIcon size={15} aria-hidden className="max-md:hidden" />
              </SourceButton>
            </>
          )}
          <Button onClick={choose} hint="o">
            <FileUp size={15} aria-hidden className="max-md:hidden" /> Files
          </Button>
          <span className="ml-auto md:hidden">
            <IconButton name="Taken in" aria-expanded={listOpen} onClick={() => setListOpen(!listOpen)}>
              {listOpen ? <X size={18} /> : <List size={18} />}
            </IconButton>
          </span>
        </header>
        {filming && (
          <CameraSource
            onTake={takeByCamera}
            taken={
              handheld && <TakenPages stack={inHand} waiting={mine} number={taken} onShow={() => setSource('files')} />
            }
            onward={handheld && <Onward to={place} pages={taken} />}
          />
        )}
        {filming && !handheld && <WaitingStrip waiting={waiting} />}
        {source === 'scanner' && <ScannerSource placeFor={placeForScan} />}
        {source === 'folders' && <FolderSource />}
        {handheld && document && stack && <AddingTo stack={stack} document={document} />}
        {handheld ? null : documentId ? (
          document && stack && <DocumentBench key={documentId} {...bench} stack={stack} document={document} />
        ) : stack ? (
          <StackBench key={stack.id} {...bench} stack={stack} />
        ) : (
          !filming && <Invitation onChoose={choose} />
        )}
      </div>
      <aside
        className={`${listOpen ? 'fixed inset-x-0 top-14 bottom-14 z-30 flex bg-ground' : 'hidden'} shrink-0 flex-col ${handheld ? '' : 'md:static md:flex md:w-[320px] md:border-l md:border-rule'}`}
      >
        <header className="hidden h-14 shrink-0 items-center border-b border-rule px-4 md:flex">
          <h2 className="text-lg font-semibold">Taken in</h2>
        </header>
        <TakenIn stacks={stacks} shown={shown?.id} onShow={show} />
      </aside>
    </div>
  );
}

/** Switches to a source, or back from it to the pages. */
function SourceButton({
  name,
  hint,
  shown,
  onClick,
  children,
}: {
  name: string;
  hint: string;
  shown: boolean;
  onClick: () => void;
  children: ReactNode;
}) {
  return (
    <Button onClick={onClick} aria-pressed={shown} className={shown ? 'border-accent font-semibold' : ''} hint={hint}>
      {children} {name}
    </Button>
  );
}

interface BenchProps {
  stack: Stack;
  pageId: string | undefined;
  setPageId: (id: string) => void;
  /** The camera's picture is shown instead of the page. */
  source: Source;
  choose: () => void;
}

/** Said in an address: more pages are being taken for its stack. */
const MORE = 'more';

/** So many files were sent to a stack at most. */
const sentTo = ({ files }: Stack) => Math.max(-1, ...files.map(({ position }) => position)) + 1;

/** Has the next pages go into a document. @returns its end */
function useAddingTo(stack: Stack, document: Document): Place {
  const { place, setPlace } = useIntake();
  const name = document.name || document.proposedName || 'the document';
  const target: Place = { stackId: stack.id, stackName: name, sent: sentTo(stack), documentId: document.id };
  useEffect(() => {
    if (place?.documentId !== target.documentId) setPlace(target);
  });
  return target;
}

/** The same while the camera has the whole screen and nothing of the document is shown. */
function AddingTo({ stack, document }: { stack: Stack; document: Document }) {
  useAddingTo(stack, document);
  return null;
}

function StackBench(props: BenchProps & { stack: Stack }) {
  const { stack } = props;
  const target: Place = { stackId: stack.id, stackName: stack.name, sent: sentTo(stack) };
  const [query] = useSearchParams();
  const { setPlace } = useIntake();
  const goesOn = useRef(query.has(MORE) && query.get('stack') === stack.id ? target : undefined);
  useEffect(() => {
    // Back from a page that was looked at while more were being taken.
    if (goesOn.current) setPlace(goesOn.current);
    goesOn.current = undefined;
  }, [setPlace]);
  return <Bench {...props} inHand={useStackPages(stack)} target={target} name={stack.name} away={undefined} />;
}

function DocumentBench(props: BenchProps & { document: Document }) {
  const { stack, document } = props;
  const [query] = useSearchParams();
  const navigate = useNavigate();
  const target = useAddingTo(stack, document);
  const name = target.stackName;
  const away = () => void navigate(query.get('from')?.match(/^\/(check|shelf)\b.*/)?.[0] ?? '/check');
  return <Bench {...props} inHand={useDocumentPages(document)} target={target} name={name} away={away} />;
}

/** The page that the ribbon is at, unless the camera's picture is shown; what can be done with it; and the ribbon. */
function Bench({
  stack,
  inHand,
  target,
  name,
  away,
  pageId,
  setPageId,
  source,
  choose,
}: BenchProps & {
  inHand: PagesInHand;
  /** The end of what is in hand. */
  target: Place;
  name: string;
  /** Leaves a document that pages are added to. */
  away: (() => void) | undefined;
}) {
  const [query] = useSearchParams();
  const go = useGo();
  const wave = useWave();
  const { place, setPlace } = useIntake();
  const { pages } = inHand;
  const filming = source === 'camera';
  /** The key that otherwise lets go of the place stops a scan. */
  const scanning = useScans().data?.some(({ state }) => state === 'running') ?? false;
  const page = pages.find(({ id }) => id === pageId) ?? shownOf(pages, source);
  const index = page ? pages.indexOf(page) : -1;
  const twin = page && twinOf(page, stack.pageList);
  const parts = page ? pages.filter((each) => each.fileId === page.fileId && each.fileNumber === page.fileNumber) : [];
  const canPart = inHand.apart !== undefined && parts.length === 1 && !inHand.parting;
  const canJoin = inHand.together && parts.filter(({ dropped }) => !dropped).length > 1;

  const leaf = (by: number) => pages[index + by] && setPageId(pages[index + by].id);
  const from = `/capture?${new URLSearchParams({
    ...Object.fromEntries(query),
    stack: stack.id,
    ...(page && { page: page.id }),
    ...(place?.stackId === stack.id && { [MORE]: '' }),
    source,
  })}`;
  const tidy = () => page && go(`/page/${stack.id}/${page.id}`, { from });
  const compare = () => page && twin && go(`/compare/${stack.id}/${twin.id}/${page.id}`, { from });
  const landAt = (part: Partial<Place>) => {
    setPlace({ ...target, ...part });
    if (source === 'files') choose();
  };
  const drop = () => {
    if (!page) return;
    // It stays in view, so that the same key brings it back.
    setPageId(page.id);
    inHand.drop(page);
  };
  const step = (by: -1 | 1) => {
    const before = pages[by < 0 ? index - 1 : index + 2];
    if (page && (by < 0 ? index > 0 : index < pages.length - 1)) inHand.move(page.id, before?.id ?? null);
  };
  useKeys(
    {
      ArrowRight: () => leaf(1),
      ArrowLeft: () => leaf(-1),
      'Alt+ArrowRight': () => step(1),
      'Alt+ArrowLeft': () => step(-1),
      e: tidy,
      a: () => landAt({}),
      i: () => page && landAt({ before: page.id }),
      t: () => page && landAt({ again: page.id }),
      v: compare,
      p: () => canPart && page && inHand.apart!(page.id),
      b: () => canPart && page && inHand.cutBook!(page.id),
      g: () => canJoin && inHand.together!(parts.map(({ id }) => id)),
      y: () => page && warningOn(page) && wave(page),
      Delete: drop,
      Backspace: drop,
      Escape: () => !scanning && setPlace(away ? target : undefined),
      'Ctrl+z': () => inHand.undo?.(),
      'Ctrl+Shift+z': () => inHand.redo?.(),
      'Ctrl+Shift+Z': () => inHand.redo?.(),
    },
    [
      ['ArrowLeft ArrowRight', 'From page to page'],
      ['Alt+ArrowLeft Alt+ArrowRight', 'Move the page'],
      ['e', 'Tidy the page'],
      ['a i t', 'Add pages at the end, before this one, or capture it again'],
      ['v', 'Compare two captures of a sheet'],
      ['p g', 'Several papers on the page apart, or together again'],
      ['b', 'An open book into its two pages'],
      ['y', 'Accept a page in spite of its warning'],
      ['Delete Backspace', 'Drop the page'],
      ['Escape', 'Stop adding pages there'],
      ['Ctrl+z Ctrl+Shift+z', 'Undo, redo'],
    ],
  );
  return (
    <>
      {away && (
        <div className="flex shrink-0 items-center gap-3 border-b border-rule bg-accent-soft px-4 py-1.5">
          <span className="min-w-0 flex-1 truncate">
            Pages are added to <strong className="font-semibold">{name}</strong>
          </span>
          <Button main onClick={away}>
            Done
          </Button>
        </div>
      )}
      {!filming &&
        (page ? (
          <PageView page={page} name={name} number={index + 1} onTidy={tidy} />
        ) : (
          <Invitation onChoose={choose} />
        ))}
      <div className="flex min-h-10 shrink-0 flex-wrap items-center gap-x-1 border-t lg:flex-nowrap border-rule px-2 py-1 text-sm">
        {page && (
          <>
            <span className="px-2 whitespace-nowrap text-quiet">
              {index + 1} of {pages.length}
            </span>
            <Tool onClick={tidy} hint="e">
              Tidy
            </Tool>
            <Tool onClick={() => landAt({ again: page.id })} hint="t">
              Take again
            </Tool>
            <Tool onClick={() => landAt({ before: page.id })} hint="i">
              Insert before
            </Tool>
            <Tool onClick={drop} hint="Del">
              {page.dropped ? 'Bring back' : 'Drop'}
            </Tool>
            {twin && (
              <Tool onClick={compare} hint="v">
                Compare
              </Tool>
            )}
            {canPart && (
              <Tool onClick={() => inHand.apart!(page.id)} hint="p">
                Take apart
              </Tool>
            )}
            {canPart && (
              <Tool onClick={() => inHand.cutBook!(page.id)} hint="b">
                Open book
              </Tool>
            )}
            {inHand.parting && (
              <span role="status" className="px-2 whitespace-nowrap text-quiet">
                Looking for its pages …
              </span>
            )}
            {canJoin && (
              <Tool onClick={() => inHand.together!(parts.map(({ id }) => id))} hint="g">
                Put together
              </Tool>
            )}
          </>
        )}
        <span className="flex min-w-0 flex-1 items-center justify-end gap-2 px-2 text-quiet" aria-live="polite">
          {place ? (
            <>
              <span className="truncate">Next pages go {landingWords(place, pages, away ? name : undefined)}</span>
              {(!away || place.before || place.again) && (
                <button
                  className="whitespace-nowrap text-ink underline"
                  onClick={() => setPlace(away ? target : undefined)}
                >
                  {away ? 'To its end' : 'No, a new stack'} <Key>Esc</Key>
                </button>
              )}
            </>
          ) : (
            <button className="whitespace-nowrap text-ink underline" onClick={() => landAt({})}>
              Add pages here <Key>a</Key>
            </button>
          )}
        </span>
      </div>
      <Ribbon pages={pages} current={page?.id} place={place} onCurrent={setPageId} onMove={inHand.move} />
    </>
  );
}

/** The page that is shown where none is chosen: the first of files, the last of what comes one by one; none that is set aside. */
function shownOf(pages: Page[], source: Source): Page | undefined {
  const used = pages.filter(({ dropped }) => !dropped);
  if (source === 'files') return used[0] ?? pages[0];
  return used.findLast(({ pictured }) => pictured) ?? used.at(-1) ?? pages.at(-1);
}

function Tool({ hint, children, onClick }: { hint: string; children: ReactNode; onClick: () => void }) {
  return (
    <button className="flex h-8 items-center gap-1.5 px-2 whitespace-nowrap hover:bg-sunken" onClick={onClick}>
      {children} <Key>{hint}</Key>
    </button>
  );
}

/** @param name of the stack, when it is another than the one that is shown */
function landingWords({ before, again }: Place, pages: Page[], name?: string): string {
  const number = (id: string) => pages.findIndex((page) => page.id === id) + 1;
  if (again) return `in place of page ${number(again)}`;
  if (before) return `before page ${number(before)}`;
  return name === undefined ? 'last' : `to the end of “${name}”`;
}

function Invitation({ onChoose }: { onChoose: () => void }) {
  return (
    <div className="flex flex-1 items-center justify-center overflow-y-auto p-4 md:p-8">
      <div className="flex max-w-[560px] flex-col items-center gap-4 border border-dashed border-quiet px-6 py-10 text-center md:px-14 md:py-16">
        <h2 className="text-2xl font-semibold">Drop your papers here</h2>
        <p className="text-lg text-quiet">
          PDF, JPEG, PNG, TIFF, HEIC, WebP or e-invoices (XML); one file or hundreds. Pictures that come together become
          one stack, in the order of their names. Nothing leaves this machine.
        </p>
        <Button main onClick={onChoose} hint="o" className="h-10 px-5 text-lg">
          Choose files
        </Button>
        <p className="text-sm text-quiet">Pasting works, too.</p>
      </div>
    </div>
  );
}
