import { ReactNode } from 'react';
import { DocumentSummary } from '@crow/contract/documents';
import { pictureAddress } from '../../parts/PagePicture';
import { bytes, count, kindName } from '../../parts/words';
import { useMay } from '../../queries';
import { useChosen } from './chosen';
import { takeAlong } from './takeAlong';

interface RowProps {
  document: DocumentSummary;
  current: boolean;
  onOpen: () => void;
  /** The documents of the list, where several of them can be chosen. */
  list?: readonly string[];
  children?: ReactNode;
}

/** A document in a list: its first page, its name, and what is known of it. */
export function DocumentRow({ document, current, onOpen, list, children }: RowProps) {
  const { ids, toggle } = useChosen();
  const works = useMay('work');
  const chosen = list !== undefined && ids.has(document.id);
  const { name, kind, vendor, date, pages, state, firstPageId, firstPageTurn, firstPageVersion } = document;
  const facts = [kind && kindName(kind), vendor, date].filter(Boolean).join(' · ');
  return (
    <div
      className={`flex gap-3 border-b border-rule px-4 py-2.5 ${current ? 'bg-accent-soft' : 'hover:bg-raised'}`}
      onClickCapture={(event) => {
        if (!list || !works || !(event.ctrlKey || event.metaKey || event.shiftKey)) return;
        event.preventDefault();
        event.stopPropagation();
        toggle(document.id, list, event.shiftKey);
      }}
      draggable={works && state !== 'check'}
      onDragStart={(event) => takeAlong(event.dataTransfer, document, chosen ? [...ids] : [document.id])}
    >
      {list && works && (
        <input
          type="checkbox"
          aria-label={`Choose ${name || 'the document'}`}
          className="mt-1 -ml-1 self-start accent-accent"
          checked={chosen}
          onChange={() => toggle(document.id, list)}
        />
      )}
      <img
        src={pictureAddress(firstPageId, 'thumb', firstPageTurn, firstPageVersion)}
        alt=""
        loading="lazy"
        draggable={false}
        className="paper-picture h-16 w-12 shrink-0 self-start bg-paper object-contain object-top shadow-paper"
      />
      <div className="min-w-0 flex-1">
        <button
          onClick={onOpen}
          aria-current={current}
          data-document={document.id}
          className="block w-full text-left font-semibold break-words"
          title={name}
        >
          {name || 'Not named yet'}
        </button>
        <p className="truncate text-sm text-quiet">{facts || 'no facts'}</p>
        <p className="truncate text-sm text-quiet">
          {count(pages, 'page')}
          {document.bytes !== null && ` · ${bytes(document.bytes)}`}
          {document.forEntry && ' · for an entry'}
          {state === 'filing' && ' · on its way to the shelf'}
          {state === 'check' && ' · waits in Check'}
        </p>
        {document.problem && <p className="text-sm text-danger">! {document.problem.happened}</p>}
        {children}
      </div>
    </div>
  );
}
