import { useState } from 'react';
import { endpoints } from '@crow/contract/endpoints';
import { Button, Empty } from '../../parts/controls';
import { count } from '../../parts/words';
import { useBin, useChange } from '../../queries';
import { DocumentRow } from './DocumentRow';
import { BIN, useShelfPlace } from './shelfPlace';

/** What was put into the bin: it can be brought back until the bin is emptied. */
export function BinPane() {
  const { data } = useBin(true);
  const { document: openId, go } = useShelfPlace();
  const [sure, setSure] = useState(false);
  const bringBack = useChange(endpoints.bringBackDocument, ['document']);
  const bringBackStack = useChange(endpoints.bringBackStack, ['stack']);
  const empty = useChange(endpoints.emptyBin, ['document', 'stack'], () => {
    setSure(false);
    go({ folder: BIN });
  });
  if (!data) return null;
  const { documents, stacks } = data;
  const number = documents.length + stacks.length;
  if (number === 0) {
    return (
      <Empty title="The bin is empty">
        <p>What you delete comes here first.</p>
      </Empty>
    );
  }
  return (
    <div className="flex h-full flex-col">
      <header className="flex h-14 shrink-0 items-center justify-between gap-2 border-b border-rule px-4">
        <h2 className="text-lg font-semibold">Bin</h2>
        {sure ? (
          <span className="flex items-center gap-2 text-sm">
            Delete {number} for good, with the originals?
            <Button onClick={() => empty.mutate({})}>Delete</Button>
            <Button main onClick={() => setSure(false)}>
              Keep
            </Button>
          </span>
        ) : (
          <Button onClick={() => setSure(true)}>Empty the bin …</Button>
        )}
      </header>
      <div className="min-h-0 flex-1 overflow-y-auto">
        {documents.map((document) => (
          <DocumentRow
            key={document.id}
            document={document}
            current={document.id === openId}
            onOpen={() => go({ folder: BIN, document: document.id })}
          >
            <Button className="mt-1" onClick={() => bringBack.mutate({ params: { id: document.id } })}>
              Bring back{document.folderPath && ` to ${document.folderPath.replaceAll('/', ' / ')}`}
            </Button>
          </DocumentRow>
        ))}
        {stacks.map((stack) => (
          <div key={stack.id} className="border-b border-rule px-4 py-2.5">
            <p className="font-semibold">{stack.name}</p>
            <p className="text-sm text-quiet">a stack of {count(stack.pages, 'page')}, not sorted</p>
            <Button className="mt-1" onClick={() => bringBackStack.mutate({ params: { id: stack.id } })}>
              Bring back to Sort
            </Button>
          </div>
        ))}
      </div>
    </div>
  );
}
