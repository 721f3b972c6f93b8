import { useVirtualizer } from '@tanstack/react-virtual';
import { useState } from 'react';
import { Empty } from '../../parts/controls';
import { useKeys } from '../../parts/keys';
import { count } from '../../parts/words';
import { useFolderDocuments, useFolders, useMay } from '../../queries';
import { useChosen } from './chosen';
import { ChosenBar } from './ChosenBar';
import { DocumentRow } from './DocumentRow';
import { useShelfPlace } from './shelfPlace';

const ROW = 85;

/** What is in the chosen folder, the newest first. */
export function DocumentsPane() {
  const { folder: folderId, document: openId, go } = useShelfPlace();
  const { data: folders } = useFolders();
  const folder = folders?.find(({ id }) => id === folderId);
  const { data: documents = [], isSuccess } = useFolderDocuments(folder?.id);
  const [scroller, setScroller] = useState<HTMLDivElement | null>(null);
  const virtualizer = useVirtualizer({
    count: documents.length,
    getScrollElement: () => scroller,
    estimateSize: () => ROW,
    overscan: 6,
  });
  const list = documents.map(({ id }) => id);
  const { toggle } = useChosen();
  const works = useMay('work');
  const step = (by: number) => {
    const at = documents.findIndex(({ id }) => id === openId);
    const next = documents[Math.max(0, Math.min(documents.length - 1, at + by))];
    if (!next) return;
    go({ folder: folderId, document: next.id }, true);
    virtualizer.scrollToIndex(documents.indexOf(next));
  };
  useKeys(
    {
      ArrowDown: () => step(1),
      ArrowUp: () => step(-1),
      x: () => works && openId && list.includes(openId) && toggle(openId, list),
    },
    [
      ['ArrowUp ArrowDown', 'From document to document'],
      ['x', 'Choose the open one, or not'],
    ],
  );
  if (!folder) {
    return folders?.length === 0 ? (
      <Empty title={works ? 'The shelf is empty' : 'There is no folder for you yet'}>
        <p>
          {works
            ? 'Papers arrive here from Check, in the folders that you name there.'
            : 'Ask the owner which folders you should see.'}
        </p>
      </Empty>
    ) : (
      <Empty title="Choose a folder">
        <p>Or press / to find a paper by any word in it.</p>
      </Empty>
    );
  }
  return (
    <div className="flex h-full flex-col">
      <header className="flex h-14 shrink-0 items-baseline gap-3 border-b border-rule px-4 pt-4">
        <h2 className="truncate text-lg font-semibold">{folder.path.replaceAll('/', ' / ')}</h2>
        <span className="shrink-0 text-quiet">{count(documents.length, 'document')}</span>
      </header>
      {isSuccess && documents.length === 0 ? (
        <Empty title="This folder is empty">
          {works && <p>Drag documents onto it, or file something into it in Check.</p>}
        </Empty>
      ) : (
        <div ref={setScroller} className="min-h-0 flex-1 overflow-y-auto bg-ground">
          <div className="relative" style={{ height: virtualizer.getTotalSize() }}>
            {virtualizer.getVirtualItems().map(({ index, key, start }) => (
              <div
                key={key}
                ref={virtualizer.measureElement}
                data-index={index}
                className="absolute inset-x-0"
                style={{ top: start }}
              >
                <DocumentRow
                  document={documents[index]}
                  current={documents[index].id === openId}
                  list={list}
                  onOpen={() => go({ folder: folderId, document: documents[index].id })}
                />
              </div>
            ))}
          </div>
        </div>
      )}
      <ChosenBar documents={documents} />
    </div>
  );
}
