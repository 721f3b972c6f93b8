import { ArrowLeft } from 'lucide-react';
import { ReactNode, useMemo } from 'react';
import { isQuestion } from '@crow/core/finding/asking/isQuestion';
import { Panel, PanelGroup } from 'react-resizable-panels';
import { Empty } from '../../parts/controls';
import { BinPane } from './BinPane';
import { ChosenProvider, useChosen } from './chosen';
import { ChangedOnDiskPane } from './DiskChoices';
import { DocumentsPane } from './DocumentsPane';
import { FindPane } from './FindPane';
import { FoldersPane } from './FoldersPane';
import { Handle } from './Handle';
import { PapersSummary } from './PapersSummary';
import { ShelfFront } from './ShelfFront';
import { BIN, CHANGED, SENT, useShelfPlace } from './shelfPlace';
import { inOrder } from './tableColumns';
import { useTableForm } from './tableForm';
import { whenIdle } from '../../parts/idle';
import { later } from '../../parts/later';
import { useMedium, useSmall } from '../../parts/useNarrow';
import { useFolderDocuments, useFolders } from '../../queries';

// Reading, marking and hiding come once a paper is opened, or nothing else is to be done.
const OpenDocument = later(async () => (await import('./OpenDocument')).OpenDocument);
const SideBySide = later(async () => (await import('./SideBySide')).SideBySide);
const SentPane = later(async () => (await import('./sending/SentPane')).SentPane);
whenIdle(() => void OpenDocument.load().catch(() => undefined), 5000);

/** The Shelf station: folders, what is in one (or what was found), and the open document, side by side. */
export default function ShelfStation() {
  return (
    <ChosenProvider>
      <Panes />
    </ChosenProvider>
  );
}

function Panes() {
  const { folder, document, beside: other, find, at, words, go } = useShelfPlace();
  // Of a question not its own words are marked, but what answers it.
  const marked = words ?? (find !== undefined && !isQuestion(find) ? find : '');
  const small = useSmall();
  const medium = useMedium();
  const [form, setForm] = useTableForm();
  const shown = useFolders().data?.find(({ id }) => id === folder);
  const { data: found } = useFolderDocuments(shown?.id, form.inside);
  const documents = useMemo(() => found && inOrder(found, form.sorted), [found, form.sorted]);
  const { ids: chosen } = useChosen();
  const inFolder = find === undefined && shown && documents;
  const list =
    find !== undefined ? (
      <FindPane />
    ) : folder === BIN ? (
      <BinPane />
    ) : folder === SENT ? (
      <SentPane />
    ) : folder === CHANGED ? (
      <ChangedOnDiskPane />
    ) : shown ? (
      documents && <DocumentsPane folder={shown} documents={documents} form={form} onForm={setForm} />
    ) : (
      <ShelfFront />
    );
  if (document && other && !small)
    return <SideBySide ids={[document, other]} query={marked} onClose={() => go({ folder, document, find })} />;
  const back = find !== undefined ? 'What was found' : folder ? 'The folder' : 'The shelf';
  // One pane at a time, and the way back always in the same corner; on a larger screen the folders stand beside what is in one.
  if (document && (small || medium))
    return (
      <OnePane back={back} onBack={() => go({ folder, find })}>
        <OpenDocument key={document} id={document} query={marked} at={at} />
      </OnePane>
    );
  if (small)
    return folder || find !== undefined ? (
      <OnePane back="All folders" onBack={() => go({})}>
        {list}
      </OnePane>
    ) : (
      <FoldersPane />
    );
  // What is open beside the list, or, beside a table of papers, what they come to.
  const beside = document ? (
    <OpenDocument key={document} id={document} query={marked} at={at} />
  ) : inFolder && documents.length > 0 ? (
    <PapersSummary
      title={chosen.size > 0 ? `${chosen.size} chosen` : 'All together'}
      documents={chosen.size > 0 ? documents.filter(({ id }) => chosen.has(id)) : documents}
      onOpen={(id) => go({ folder, document: id })}
    />
  ) : find !== undefined ? (
    <Empty title="No document is open">
      <p>Choose one in the list, or press / and type a word that stands in it.</p>
    </Empty>
  ) : null;
  const sizes =
    find !== undefined ? { list: 44, beside: 56 } : document ? { list: 37, beside: 63 } : { list: 70, beside: 30 };
  return (
    <PanelGroup key={String(medium)} direction="horizontal" autoSaveId={medium ? 'shelf-of-two' : 'shelf-folders'}>
      <Panel defaultSize={medium ? 36 : 18} minSize={12} id="folders">
        <FoldersPane />
      </Panel>
      <Handle />
      <Panel defaultSize={medium ? 64 : 82} minSize={40} id="papers">
        {beside && !medium ? (
          <PanelGroup
            key={sizes.list}
            direction="horizontal"
            autoSaveId={`shelf-${sizes.list > 50 ? 'table' : find !== undefined ? 'find' : 'open'}`}
          >
            <Panel defaultSize={sizes.list} minSize={24} order={1} id="documents">
              {list}
            </Panel>
            <Handle />
            <Panel defaultSize={sizes.beside} minSize={18} order={2} id="document">
              {beside}
            </Panel>
          </PanelGroup>
        ) : (
          list
        )}
      </Panel>
    </PanelGroup>
  );
}

function OnePane({ back, onBack, children }: { back: string; onBack: () => void; children: ReactNode }) {
  return (
    <div className="flex h-full flex-col">
      <button
        className="flex h-11 shrink-0 items-center gap-2 border-b border-rule bg-sunken px-3 text-sm"
        onClick={onBack}
      >
        <ArrowLeft size={17} aria-hidden /> {back}
      </button>
      <div className="min-h-0 flex-1">{children}</div>
    </div>
  );
}
