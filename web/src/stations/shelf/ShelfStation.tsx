import { ArrowLeft } from 'lucide-react';
import { ReactNode } from 'react';
import { Panel, PanelGroup, PanelResizeHandle } from 'react-resizable-panels';
import { Empty } from '../../parts/controls';
import { BinPane } from './BinPane';
import { ChosenProvider } from './chosen';
import { ChangedOnDiskPane } from './DiskChoices';
import { DocumentsPane } from './DocumentsPane';
import { FindPane } from './FindPane';
import { FoldersPane } from './FoldersPane';
import { OpenDocument } from './OpenDocument';
import { useMedium, useSmall } from '../../parts/useNarrow';
import { BIN, CHANGED, useShelfPlace } from './shelfPlace';

/** The Shelf station: folders, what is in one (or what was found), and the open document, side by side. */
export default function ShelfStation() {
  const { folder, document, find, go } = useShelfPlace();
  const small = useSmall();
  const medium = useMedium();
  const list =
    find !== undefined ? (
      <FindPane />
    ) : folder === BIN ? (
      <BinPane />
    ) : folder === CHANGED ? (
      <ChangedOnDiskPane />
    ) : (
      <DocumentsPane />
    );
  const back = find !== undefined ? 'What was found' : 'The folder';
  // One pane at a time, and the way back always in the same corner; on a larger screen the folders stand beside what is in one.
  if (document && (small || medium))
    return (
      <ChosenProvider>
        <OnePane back={back} onBack={() => go({ folder, find })}>
          <OpenDocument key={document} id={document} query={find ?? ''} />
        </OnePane>
      </ChosenProvider>
    );
  if (small)
    return (
      <ChosenProvider>
        {folder || find !== undefined ? (
          <OnePane back="All folders" onBack={() => go({})}>
            {list}
          </OnePane>
        ) : (
          <FoldersPane />
        )}
      </ChosenProvider>
    );
  if (medium)
    return (
      <ChosenProvider>
        <PanelGroup direction="horizontal" autoSaveId="shelf-of-two">
          <Panel defaultSize={36} minSize={25} order={1} id="folders">
            <FoldersPane />
          </Panel>
          <Handle />
          <Panel defaultSize={64} minSize={40} order={2} id="documents">
            {list}
          </Panel>
        </PanelGroup>
      </ChosenProvider>
    );
  return (
    <ChosenProvider>
      <PanelGroup direction="horizontal" autoSaveId="shelf">
        <Panel defaultSize={18} minSize={12} order={1} id="folders">
          <FoldersPane />
        </Panel>
        <Handle />
        <Panel defaultSize={30} minSize={20} order={2} id="documents">
          {list}
        </Panel>
        <Handle />
        <Panel defaultSize={52} minSize={25} order={3} id="document">
          {document ? (
            <OpenDocument key={document} id={document} query={find ?? ''} />
          ) : (
            <Empty title="No document is open">
              <p>Choose one in the list, or press / and type a word that stands in it.</p>
            </Empty>
          )}
        </Panel>
      </PanelGroup>
    </ChosenProvider>
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

function Handle() {
  return (
    <PanelResizeHandle className="w-px bg-rule outline-offset-0 data-[resize-handle-state=drag]:bg-accent data-[resize-handle-state=hover]:bg-accent" />
  );
}
