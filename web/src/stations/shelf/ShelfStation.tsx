import { Panel, PanelGroup, PanelResizeHandle } from 'react-resizable-panels';
import { useNavigate, useParams, useSearchParams } from 'react-router';
import { Empty } from '../../parts/controls';
import { BinPane } from './BinPane';
import { ChosenProvider } from './chosen';
import { CHANGED, ChangedOnDiskPane } from './DiskChoices';
import { DocumentsPane } from './DocumentsPane';
import { FindPane } from './FindPane';
import { FoldersPane } from './FoldersPane';
import { OpenDocument } from './OpenDocument';

/** What stands in the address for no folder, and for the bin. */
const NO_FOLDER = '-';
export const BIN = 'bin';

export interface ShelfPlace {
  folder?: string;
  document?: string;
  /** What is looked for; undefined when nothing is. */
  find?: string;
}

/** Where one is in the shelf, from the address, and how to go elsewhere. */
export function useShelfPlace(): ShelfPlace & { go: (to: ShelfPlace, replace?: boolean) => void } {
  const { folder, document } = useParams();
  const [search] = useSearchParams();
  const navigate = useNavigate();
  const find = search.get('find') ?? undefined;
  const go = (to: ShelfPlace, replace = false) => {
    const path = to.document ? `/shelf/${to.folder ?? NO_FOLDER}/${to.document}` : `/shelf/${to.folder ?? ''}`;
    void navigate(
      { pathname: path, search: to.find === undefined ? '' : `?${new URLSearchParams({ find: to.find })}` },
      { replace },
    );
  };
  return { folder: folder === NO_FOLDER ? undefined : folder, document, find, go };
}

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
