import { useCallback, useRef, useState } from 'react';
import { Link, useNavigate } from 'react-router';
import { Camera, FileUp } from 'lucide-react';
import { endpoints } from '@crow/contract/endpoints';
import { StackSummary } from '@crow/contract/shapes';
import { addressOf } from '../../api';
import { Button, ProblemText, Progress } from '../../parts/controls';
import { Transfer, useIntake } from '../../parts/intake';
import { useKeys } from '../../parts/keys';
import { PagePicture, sizeFor } from '../../parts/PagePicture';
import { useSize } from '../../parts/useSize';
import { bytes, count } from '../../parts/words';
import { useChange, useStack, useStacks } from '../../queries';
import { CameraSource } from './CameraSource';

const ACCEPT = '.pdf,.jpg,.jpeg,.png,.tif,.tiff,.heic,.heif,.webp,application/pdf,image/*';

type Source = 'files' | 'camera';
const WHEN = new Intl.DateTimeFormat('en-GB', { day: 'numeric', month: 'long', hour: '2-digit', minute: '2-digit' });

/** The Capture station: papers come in as files; what was taken in lies along the bottom like a ribbon. */
export default function Capture() {
  const { data: stacks = [] } = useStacks();
  const navigate = useNavigate();
  const { transfers, takeIn, addTo } = useIntake();
  const [chosen, setChosen] = useState<string>();
  const [pageId, setPageId] = useState<string>();
  const chooser = useRef<HTMLInputElement>(null);
  const shown = stacks.find(({ id }) => id === chosen) ?? stacks.find(({ pages }) => pages > 0);
  const { data: stack } = useStack(shown?.id);
  const pages = stack?.pageList ?? [];
  const page = pages.find(({ id }) => id === pageId) ?? pages[0];
  const choose = () => chooser.current?.click();
  const [source, setSource] = useState<Source>('files');
  /** The stack that the camera's pages go to: one as long as this source stays chosen. */
  const roll = useRef<{ id: string; name: string; taken: number }>(undefined);
  const takeByCamera = useCallback(
    (picture: Blob) => {
      roll.current ??= { id: crypto.randomUUID(), name: `Camera, ${WHEN.format(new Date())}`, taken: 0 };
      const { id, name, taken } = roll.current;
      roll.current.taken++;
      setChosen(id);
      addTo({ id, name }, new File([picture], `Page ${taken + 1}.jpg`, { type: 'image/jpeg' }), taken);
    },
    [addTo],
  );
  const chooseSource = (next: Source) => {
    roll.current = undefined;
    setSource(next);
  };
  const leaf = (by: number) => {
    const next = pages[pages.findIndex(({ id }) => id === page?.id) + by];
    if (next) setPageId(next.id);
  };
  const tidy = () => page && void navigate(`/page/${stack!.id}/${page.id}`);
  useKeys({
    o: choose,
    k: () => chooseSource(source === 'camera' ? 'files' : 'camera'),
    e: tidy,
    ArrowRight: () => leaf(1),
    ArrowLeft: () => leaf(-1),
  });

  return (
    <div className="flex h-full">
      <div className="flex min-w-0 flex-1 flex-col">
        <input
          ref={chooser}
          type="file"
          multiple
          accept={ACCEPT}
          aria-label="Choose files"
          className="sr-only"
          tabIndex={-1}
          onChange={(event) => {
            takeIn([...(event.target.files ?? [])]);
            event.target.value = '';
          }}
        />
        {source === 'camera' ? (
          <CameraSource onTake={takeByCamera} />
        ) : page ? (
          <Picture page={page} number={pages.indexOf(page) + 1} of={pages.length} name={stack!.name} onTidy={tidy} />
        ) : (
          <Invitation onChoose={choose} />
        )}
        {pages.length > 0 && (
          <ol
            aria-label="Pages taken in"
            className="flex h-[132px] shrink-0 gap-2 overflow-x-auto border-t border-rule bg-sunken p-3"
          >
            {pages.map((each, index) => (
              <li key={each.id} className="shrink-0">
                <button
                  aria-label={`Page ${index + 1}`}
                  aria-current={each.id === page?.id}
                  onClick={() => setPageId(each.id)}
                  className={`block h-[96px] bg-paper ${each.id === page?.id ? 'outline-2 outline-offset-2 outline-accent' : ''}`}
                  style={{ aspectRatio: `${each.width} / ${each.height}`, contentVisibility: 'auto' }}
                >
                  <PagePicture page={each} size="thumb" alt="" />
                </button>
                <div className="text-center font-mono text-xs text-quiet">{index + 1}</div>
              </li>
            ))}
          </ol>
        )}
      </div>
      <aside className="flex w-[340px] shrink-0 flex-col border-l border-rule">
        <header className="flex h-14 shrink-0 items-center justify-between border-b border-rule px-4">
          <h1 className="text-lg font-semibold">Taken in</h1>
          <div className="flex gap-2">
            <Button
              onClick={() => chooseSource(source === 'camera' ? 'files' : 'camera')}
              aria-pressed={source === 'camera'}
              className={source === 'camera' ? 'border-accent font-semibold' : ''}
              hint="k"
            >
              <Camera size={15} aria-hidden /> Camera
            </Button>
            <Button onClick={choose} hint="o">
              <FileUp size={15} aria-hidden /> Files
            </Button>
          </div>
        </header>
        <div className="flex-1 overflow-y-auto" aria-live="polite">
          {transfers.map((transfer) => (
            <TransferRow key={transfer.id} transfer={transfer} />
          ))}
          {stacks.map((each) => (
            <StackRow key={each.id} stack={each} current={each.id === shown?.id} onShow={() => setChosen(each.id)} />
          ))}
          {transfers.length === 0 && stacks.length === 0 && (
            <p className="p-4 text-quiet">
              Nothing waits here. What you take in appears in this list, with its progress.
            </p>
          )}
        </div>
      </aside>
    </div>
  );
}

function Invitation({ onChoose }: { onChoose: () => void }) {
  return (
    <div className="flex flex-1 items-center justify-center p-8">
      <div className="flex max-w-[560px] flex-col items-center gap-4 border border-dashed border-quiet px-14 py-16 text-center">
        <h2 className="text-2xl font-semibold">Drop your papers here</h2>
        <p className="text-lg text-quiet">
          PDF, JPEG, PNG, TIFF, HEIC or WebP; one file or hundreds. Pictures that come together become one stack, in the
          order of their names. Nothing leaves this machine.
        </p>
        <Button main onClick={onChoose} hint="o" className="h-10 px-5 text-lg">
          Choose files
        </Button>
        <p className="text-sm text-quiet">Pasting works, too.</p>
      </div>
    </div>
  );
}

function Picture({
  page,
  number,
  of,
  name,
  onTidy,
}: {
  page: Parameters<typeof sizeFor>[1] & Parameters<typeof PagePicture>[0]['page'];
  number: number;
  of: number;
  name: string;
  onTidy: () => void;
}) {
  const [ref, space] = useSize<HTMLDivElement>();
  const padding = 48;
  const scale = Math.min((space.width - padding) / page.width, (space.height - padding) / page.height);
  const width = Math.max(0, page.width * scale);
  return (
    <figure className="flex min-h-0 flex-1 flex-col">
      <figcaption className="flex h-14 shrink-0 items-center gap-3 border-b border-rule px-6">
        <span className="truncate font-semibold">{name}</span>
        <span className="shrink-0 text-quiet">
          page {number} of {of}
        </span>
        <Button onClick={onTidy} hint="e" className="ml-auto">
          Tidy this page
        </Button>
      </figcaption>
      <div ref={ref} className="flex min-h-0 flex-1 items-center justify-center">
        {width > 0 && (
          <div className="shadow-paper" style={{ width, height: page.height * scale }}>
            <PagePicture page={page} size={sizeFor(width, page)} alt={`Page ${number} of ${name}`} />
          </div>
        )}
      </div>
    </figure>
  );
}

function TransferRow({ transfer }: { transfer: Transfer }) {
  const { retry, forget } = useIntake();
  const { id, name, state, sent, file, problem } = transfer;
  if (state === 'failed') {
    return (
      <div className="border-b border-rule p-4">
        <ProblemText report={problem!}>
          <div className="mt-2 flex gap-2">
            <Button onClick={() => retry(id)}>Try again</Button>
            <Button onClick={() => forget(id)}>Let go</Button>
          </div>
        </ProblemText>
      </div>
    );
  }
  return (
    <div className="border-b border-rule px-4 py-3">
      <div className="flex justify-between gap-2">
        <span className="truncate">{name}</span>
        <span className="shrink-0 font-mono text-sm text-quiet">
          {state === 'done' ? '✓' : state === 'waiting' ? 'waits' : bytes(sent)}
        </span>
      </div>
      <Progress value={sent} of={file.size} label={`Transfer of ${name}`} />
    </div>
  );
}

function StackRow({ stack, current, onShow }: { stack: StackSummary; current: boolean; onShow: () => void }) {
  const dismiss = useChange(endpoints.dismissFile, ['stack']);
  const { id, name, pages, read, files, readingStopped } = stack;
  const refused = files.filter((file) => file.problem);
  const looking = files.some((file) => file.state === 'waiting');
  return (
    <article className={`border-b border-rule px-4 py-3 ${current ? 'bg-raised' : ''}`}>
      <div className="flex items-baseline justify-between gap-2">
        <button className="truncate text-left font-semibold" onClick={onShow} title={name}>
          {name}
        </button>
        <span className="shrink-0 text-sm text-quiet">
          {looking && pages === 0 ? 'finding pages …' : count(pages, 'page')}
        </span>
      </div>
      {pages > 0 && read < pages && (
        <div className="mt-1.5 text-sm text-quiet">
          <Progress value={read} of={pages} label={`Reading of ${name}`} />
          {readingStopped ? 'reading stopped' : `read ${read} of ${pages}`}
        </div>
      )}
      {refused.map((file) => (
        <div key={file.id} className="mt-2">
          <ProblemText report={file.problem!}>
            <div className="mt-2 flex gap-3">
              <a className="underline" href={addressOf(endpoints.originalFile, { params: { id: file.id } })}>
                Save the original
              </a>
              <button className="underline" onClick={() => dismiss.mutate({ params: { id: file.id } })}>
                Let go
              </button>
            </div>
          </ProblemText>
        </div>
      ))}
      {pages > 0 && (
        <Link to={`/sort/${id}`} className="mt-2 inline-block font-semibold text-accent underline underline-offset-2">
          Sort it →
        </Link>
      )}
    </article>
  );
}
