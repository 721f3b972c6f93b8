import { ArrowLeft, ArrowRight } from 'lucide-react';
import { Link, useNavigate, useParams } from 'react-router';
import { endpoints } from '@crow/contract/endpoints';
import { Document } from '@crow/contract/documents';
import { Button, Empty, IconButton } from '../../parts/controls';
import { HeadActions } from '../../parts/HeadActions';
import { KeyWords, useKeys } from '../../parts/keys';
import { useNotices } from '../../parts/notices';
import { addPagesAddress } from '../../parts/wayBack';
import { count } from '../../parts/words';
import { useChange, useDocument, useDoubtful, useOverview, useWaiting } from '../../queries';
import { Desk } from './Desk';
import { Filing, FolderStrip } from './FolderStrip';
import { showFlight } from './flight';

const KEYS: KeyWords = [
  ['ArrowLeft ArrowRight', 'The document before, the next one'],
  ['w', 'Look through the doubtful words'],
  ['Ctrl+b', 'Put it to the back'],
];

/** The Check station: one document after the other lies on the desk, is looked over, and is filed. */
export default function Check() {
  const { id } = useParams();
  const { data: waiting } = useWaiting();
  const shownId = id ?? waiting?.[0]?.id;
  const { data: document } = useDocument(shownId);
  if (waiting && waiting.length === 0) return <NothingWaits />;
  if (!waiting || !document) return null;
  // Filed or taken back in another window: go on with the next.
  if (document.state !== 'check' || document.binnedAt) return <Moved document={document} />;
  return <OnTheDesk key={document.id} document={document} order={waiting.map((each) => each.id)} />;
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

  /** The document after this one; the first when this is the last; none when it is the only one. */
  const following = order[place + 1] ?? order.find((each) => each !== id);
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
      <Desk document={document} />
      <FolderStrip document={document} onFile={fileIt} busy={busy} />
    </div>
  );
}
