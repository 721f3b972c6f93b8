import { ArrowLeft, ArrowRight } from 'lucide-react';
import { useState } from 'react';
import { Link, useNavigate, useParams, useSearchParams } from 'react-router';
import { endpoints } from '@crow/contract/endpoints';
import { AtWork, Document } from '@crow/contract/documents';
import { Button, Empty, IconButton } from '../../parts/controls';
import { HeadActions } from '../../parts/HeadActions';
import { useIntake } from '../../parts/intake';
import { KeyWords, useKeys } from '../../parts/keys';
import { useNotices } from '../../parts/notices';
import { useSmall } from '../../parts/useNarrow';
import { addPagesAddress } from '../../parts/wayBack';
import { count } from '../../parts/words';
import {
  useAtWork,
  useChange,
  useDocument,
  useDoubtful,
  useOverview,
  useStack,
  useStacks,
  useWaiting,
} from '../../queries';
import { Desk } from './Desk';
import { useDeskSeat } from './useDeskSeat';
import { Filing, FolderStrip } from './FolderStrip';
import { showFlight } from './flight';

const KEYS: KeyWords = [
  ['ArrowLeft ArrowRight', 'The document before, the next one'],
  ['ArrowDown', 'In a note: what the paper says that it could be'],
  ['w', 'Look through the doubtful words'],
  ['Ctrl+b', 'Put it to the back'],
];

/** The Check station: one document after the other lies on the desk, is looked over, and is filed. */
export default function Check() {
  const { id } = useParams();
  const [query] = useSearchParams();
  const { data: waiting } = useWaiting();
  /** The stack that was just sent here: its document is the one to look at, as soon as it is there. */
  const stackId = id ? null : query.get('stack');
  const { data: atWork, isPending } = useAtWork();
  // Whether anybody is at one is not worth not seeing any.
  const others = isPending ? undefined : (atWork ?? []);
  /** The first that nobody else has before them; where somebody has each, the first. */
  const first = others && (waiting?.find((each) => !isTaken(others, each.id)) ?? waiting?.[0]);
  const coming = stackId ? waiting?.find((each) => each.stackId === stackId) : first;
  const { data: document } = useDocument(id ?? coming?.id);
  if (stackId && !coming) return <Coming stackId={stackId} />;
  if (waiting && waiting.length === 0) return <NothingWaits />;
  if (!waiting || !document) return null;
  // Filed or taken back in another window: go on with the next.
  if (document.state !== 'check' || document.binnedAt) return <Moved document={document} />;
  return <OnTheDesk key={document.id} document={document} order={waiting.map((each) => each.id)} />;
}

/** Whether somebody else has a document before them. */
const isTaken = (others: AtWork[], id: string): boolean =>
  others.some(({ documentId, own }) => documentId === id && !own);

/** Who else looks at this paper: nobody checks one twice without knowing. */
function AlsoHere({ others }: { others: AtWork[] }) {
  const names = [...new Set(others.map(({ name, own }) => (own ? 'You, in another window,' : name)))];
  return (
    <p role="status" className="shrink-0 border-b border-rule bg-attention-soft px-3 py-1.5 text-sm md:px-6">
      <strong className="font-semibold">{names.join(' and ')}</strong>{' '}
      {others.length > 1 ? 'have' : others[0].own ? 'have' : 'has'} this paper on the desk, too.
    </p>
  );
}

/** While what was captured is sent, made flat and becomes a document. */
function Coming({ stackId }: { stackId: string }) {
  const { transfers, takenFor } = useIntake();
  const { data: stacks } = useStacks();
  const onTable = stacks?.find((each) => each.id === stackId);
  /** Whether it has come: before, the server knows nothing of it. */
  const [came, setCame] = useState(false);
  if (onTable && !came) setCame(true);
  const { data: stack } = useStack(came ? stackId : undefined);
  const left = transfers.filter((each) => each.stackId === stackId && each.state !== 'done');
  const failed = left.filter(({ state }) => state === 'failed').length + (stack?.failed ?? 0);
  const isOver = stack?.state === 'sorted' || (stacks && !onTable && left.length === 0 && takenFor(stackId) === 0);
  if (isOver)
    return (
      <Empty title="These pages wait here no more">
        <p>
          <Link className="text-accent underline" to="/check">
            Go on with the next paper
          </Link>{' '}
          or{' '}
          <Link className="text-accent underline" to="/capture?source=camera">
            photograph another
          </Link>
          .
        </p>
      </Empty>
    );
  return (
    <Empty title={left.length > 0 ? 'The pages are on their way' : 'The pages are being made flat'}>
      <p role="status">
        {left.length > 0
          ? `${count(left.length, 'page')} still to be sent. The paper lies here as soon as it is there.`
          : 'The paper lies here in a moment.'}
      </p>
      {failed > 0 && (
        <p>
          <Link className="text-accent underline" to="/capture">
            Something could not be taken in: see what
          </Link>
        </p>
      )}
    </Empty>
  );
}

function NothingWaits() {
  const { data } = useOverview();
  return (
    <Empty title="Nothing waits to be checked">
      <p>
        {data && data.stacks > 0 ? (
          <>
            {count(data.stacks, 'stack still waits', 'stacks still wait')} in{' '}
            <Link className="text-accent underline" to="/sort">
              Sort
            </Link>
            .
          </>
        ) : (
          <>
            All papers are filed.{' '}
            <Link className="text-accent underline" to="/shelf">
              See the shelf
            </Link>{' '}
            or{' '}
            <Link className="text-accent underline" to="/capture">
              take in more
            </Link>
            .
          </>
        )}
      </p>
    </Empty>
  );
}

function Moved({ document }: { document: Document }) {
  return (
    <Empty title={document.binnedAt ? 'This document is in the bin' : 'This document has been filed'}>
      <p>
        <Link className="text-accent underline" to="/check">
          Go on with the next one
        </Link>
      </p>
    </Empty>
  );
}

function OnTheDesk({ document, order }: { document: Document; order: string[] }) {
  const navigate = useNavigate();
  const { tell } = useNotices();
  const unfile = useChange(endpoints.unfileDocument, ['document'], () => void navigate(`/check/${id}`));
  const bringBack = useChange(endpoints.bringBackDocument, ['document'], () => void navigate(`/check/${id}`));
  const place = order.indexOf(document.id);
  const { id } = document;

  const others = useDeskSeat(id);
  const { data: atWork = [] } = useAtWork();
  /** The next document that nobody else has before them; the first again after the last; none when it is the only one. */
  const after = [...order.slice(place + 1), ...order.slice(0, Math.max(0, place))];
  const following = after.find((each) => !isTaken(atWork, each)) ?? after[0];
  const goOn = () => void navigate(following ? `/check/${following}` : '/check');
  const step = (by: number) => {
    const to = order[(place + by + order.length) % order.length];
    if (to) void navigate(`/check/${to}`);
  };

  const file = useChange(endpoints.fileDocument, ['document', 'folder'], (filed) => {
    showFlight();
    const text = `“${filed.name}” is filed in ${filed.folderPath?.replaceAll('/', ' / ')}.`;
    tell({ text, action: { label: 'Undo', run: () => unfile.mutate({ params: { id } }) } });
    goOn();
  });
  const back = useChange(endpoints.putToBack, ['document'], goOn);
  const bin = useChange(endpoints.binDocument, ['document'], () => {
    tell({
      text: 'The document is in the bin.',
      action: { label: 'Bring it back', run: () => bringBack.mutate({ params: { id } }) },
    });
    goOn();
  });
  const toTable = useChange(
    endpoints.unsortStack,
    ['stack', 'document'],
    ({ stack }) => void navigate(`/sort/${stack}`),
  );
  const small = useSmall();
  const [notes, setNotes] = useState<HTMLElement | null>(null);
  const { data: doubtful = [] } = useDoubtful(id);
  const lookThrough = () => {
    if (doubtful.length > 0) void navigate(`/words/${id}`, { state: { from: `/check/${id}` } });
  };
  const busy = file.isPending || back.isPending || bin.isPending || toTable.isPending;
  const fileIt = (wish: Filing) => {
    if (!busy) file.mutate({ params: { id }, body: wish });
  };
  const putToBack = () => {
    if (!busy && order.length > 1) back.mutate({ params: { id } });
  };
  const toBin = () => {
    if (!busy) bin.mutate({ params: { id } });
  };
  useKeys(
    { ArrowRight: () => step(1), ArrowLeft: () => step(-1), 'Ctrl+b': putToBack, b: putToBack, w: lookThrough },
    KEYS,
  );

  return (
    <div className="flex h-full flex-col">
      <header className="flex h-14 shrink-0 items-center gap-2 border-b border-rule px-3 md:px-6">
        <h1 className="shrink-0 text-lg font-semibold">
          {place + 1} of {order.length}
        </h1>
        <IconButton name="The one before (←)" onClick={() => step(-1)} disabled={order.length < 2}>
          <ArrowLeft size={17} />
        </IconButton>
        <IconButton name="The next one (→)" onClick={() => step(1)} disabled={order.length < 2}>
          <ArrowRight size={17} />
        </IconButton>
        <p className="mr-auto min-w-0 truncate text-quiet">
          {count(document.pages, 'page')}
          {document.stackName && ` from ${document.stackName}`}
          {document.forEntry && ' · for an entry in the books'}
          {document.read < document.pages && ` · reading, ${document.read} done`}
        </p>
        {doubtful.length > 0 && (
          <Button onClick={lookThrough} hint="w">
            {count(doubtful.length, 'doubtful word')}
          </Button>
        )}
        <HeadActions
          actions={[
            ...(document.stackId
              ? [
                  {
                    name: 'Back to the table',
                    run: () => toTable.mutate({ params: { id: document.stackId! } }),
                    off: busy,
                  },
                ]
              : []),
            { name: 'Add pages', run: () => void navigate(addPagesAddress(id, `/check/${id}`)) },
            { name: 'To the back', hint: 'Ctrl+B', run: putToBack, off: order.length < 2 },
            { name: 'To the bin', run: toBin },
          ]}
        />
      </header>
      {others.length > 0 && <AlsoHere others={others} />}
      <Desk document={document} notesInto={small ? notes : undefined} />
      <FolderStrip document={document} onFile={fileIt} busy={busy} notesRef={setNotes} />
    </div>
  );
}
