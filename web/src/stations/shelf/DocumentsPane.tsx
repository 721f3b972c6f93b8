import { useVirtualizer } from '@tanstack/react-virtual';
import { useState } from 'react';
import { DocumentSummary } from '@crow/contract/documents';
import { Folder } from '@crow/contract/folders';
import { Empty, Tick } from '../../parts/controls';
import { useKeys } from '../../parts/keys';
import { count } from '../../parts/words';
import { useSize } from '../../parts/useSize';
import { useMay } from '../../queries';
import { useChosen } from './chosen';
import { ChosenBar } from './ChosenBar';
import { DocumentRow } from './DocumentRow';
import { PapersTable } from './PapersTable';
import { useShelfPlace } from './shelfPlace';
import { TableForm } from './tableForm';
import { SaveTable, TableTools } from './TableTools';

const ROW = 85;

/** Narrower than this a table would be all folds: the papers stand below each other instead, each with its picture. */
const TABLE_FROM = 560;

interface PaneProps {
  documents: readonly DocumentSummary[];
  folder: Folder;
  form: TableForm;
  onForm: (form: TableForm) => void;
}

/** What is in the chosen folder: as a table where there is room, else as a list, the papers filed last first. */
export function DocumentsPane({ documents, folder, form, onForm }: PaneProps) {
  const { folder: folderId, document: openId, go } = useShelfPlace();
  const [sizeRef, { width }] = useSize<HTMLDivElement>();
  const [current, setCurrent] = useState<string>();
  const open = (id: string) => go({ folder: folderId, document: id });
  const works = useMay('work');
  const empty = documents.length === 0;
  const asTable = width >= TABLE_FROM;
  const { ids: chosen } = useChosen();
  const named = chosen.size > 0 ? documents.filter(({ id }) => chosen.has(id)) : documents;
  return (
    <div ref={sizeRef} className="flex h-full flex-col">
      <header className="flex h-14 shrink-0 items-center gap-2 border-b border-rule pr-2 pl-4">
        <h2 className="truncate text-lg font-semibold">{folder.path.replaceAll('/', ' / ')}</h2>
        <span className="mr-auto shrink-0 text-quiet">{count(documents.length, 'document')}</span>
        {folder.inside > folder.documents && (
          <Tick
            className="shrink-0 text-sm whitespace-nowrap"
            checked={form.inside}
            onChange={() => onForm({ ...form, inside: !form.inside })}
          >
            with folders inside
          </Tick>
        )}
        {asTable && <TableTools form={form} onForm={onForm} />}
        {!empty && <SaveTable ids={named.map(({ id }) => id)} name={folder.path.replaceAll('/', ', ')} />}
      </header>
      {empty ? (
        <Empty title="This folder is empty">
          {works && <p>Drag documents onto it, or file something into it in Check.</p>}
        </Empty>
      ) : asTable ? (
        <PapersTable
          documents={documents}
          form={form}
          onForm={onForm}
          current={openId ?? current}
          onCurrent={setCurrent}
          onOpen={open}
        />
      ) : width > 0 ? (
        <DocumentList documents={documents} />
      ) : null}
      <ChosenBar documents={documents} />
    </div>
  );
}

function DocumentList({ documents }: { documents: readonly DocumentSummary[] }) {
  const { folder: folderId, document: openId, go } = useShelfPlace();
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
  return (
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
  );
}
