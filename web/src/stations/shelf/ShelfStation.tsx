import { Panel, PanelGroup, PanelResizeHandle } from 'react-resizable-panels';
import { Empty } from '../../parts/controls';
import { BinPane } from './BinPane';
import { ChosenProvider } from './chosen';
import { ChangedOnDiskPane } from './DiskChoices';
import { DocumentsPane } from './DocumentsPane';
import { FindPane } from './FindPane';
import { FoldersPane } from './FoldersPane';
import { OpenDocument } from './OpenDocument';
import { BIN, CHANGED, useShelfPlace } from './shelfPlace';

/** The Shelf station: folders, what is in one (or what was found), and the open document, side by side. */
export default function ShelfStation() {
  const { folder, document, find } = useShelfPlace();
  return (
    <ChosenProvider>
      <PanelGroup direction="horizontal" autoSaveId="shelf">
        <Panel defaultSize={18} minSize={12} order={1} id="folders">
          <FoldersPane />
        </Panel>
        <Handle />
        <Panel defaultSize={30} minSize={20} order={2} id="documents">
          {find !== undefined ? (
            <FindPane />
          ) : folder === BIN ? (
            <BinPane />
          ) : folder === CHANGED ? (
            <ChangedOnDiskPane />
          ) : (
            <DocumentsPane />
          )}
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

function Handle() {
  return (
    <PanelResizeHandle className="w-px bg-rule outline-offset-0 data-[resize-handle-state=drag]:bg-accent data-[resize-handle-state=hover]:bg-accent" />
  );
}
