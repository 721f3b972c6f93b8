import { endpoints } from '@crow/contract/endpoints';
import { ProblemCode } from '@crow/contract/problems';
import { DocumentSummary } from '@crow/contract/documents';
import { DiskChoice } from '@crow/contract/folders';
import { Button, Empty } from '../../parts/controls';
import { bytes, count } from '../../parts/words';
import { useChange, useChangedOnDisk, useStrangers } from '../../queries';
import { DocumentRow } from './DocumentRow';
import { CHANGED, useShelfPlace } from './shelfPlace';

/** What can become of a file that was found otherwise than it was written, the one that changes nothing on disk first. */
const CHOICES: Partial<Record<ProblemCode, [DiskChoice, string][]>> = {
  'shelf-file-changed': [
    ['as-on-disk', 'Take over the changed file'],
    ['as-filed', 'Put our copy back beside it'],
    ['new-paper', 'Take it in as a new paper'],
  ],
  'shelf-file-moved': [
    ['as-on-disk', 'Move the document, too'],
    ['as-filed', 'Move the file back'],
  ],
  'shelf-file-missing': [
    ['as-filed', 'Put it back'],
    ['as-on-disk', 'The document to the bin'],
  ],
};
const WHAT: Partial<Record<ProblemCode, string>> = {
  'shelf-file-changed': 'changed',
  'shelf-file-moved': 'moved',
  'shelf-file-missing': 'missing',
};

function useSettle() {
  return useChange(endpoints.settleOnDisk, ['document', 'folder', 'stack']);
}

/** What can be done about the document's file on disk, if somebody did something to it. */
export function DiskChoices({ documents }: { documents: Pick<DocumentSummary, 'id' | 'problem'>[] }) {
  const settle = useSettle();
  const code = documents[0]?.problem?.code;
  const choices = (code && CHOICES[code]) ?? [];
  if (choices.length === 0) return null;
  return (
    <div className="mt-2 flex flex-wrap gap-2">
      {choices.map(([choice, words]) => (
        <Button
          key={choice}
          disabled={settle.isPending}
          onClick={() => settle.mutate({ body: { ids: documents.map(({ id }) => id), choice } })}
        >
          {words}
        </Button>
      ))}
    </div>
  );
}

/** PDFs that somebody put into the shelf folder. */
function Strangers({ files }: { files: { path: string; bytes: number }[] }) {
  const settle = useChange(endpoints.settleStrangers, ['document', 'stack']);
  if (files.length === 0) return null;
  const all = files.map(({ path }) => path);
  const choose = (paths: string[], choice: 'take-in' | 'leave') => settle.mutate({ body: { paths, choice } });
  const choices = (paths: string[]) => (
    <div className="mt-1 flex flex-wrap gap-2">
      <Button disabled={settle.isPending} onClick={() => choose(paths, 'take-in')}>
        Take {paths.length > 1 ? 'them' : 'it'} in
      </Button>
      <Button disabled={settle.isPending} onClick={() => choose(paths, 'leave')}>
        Leave {paths.length > 1 ? 'them' : 'it'} there
      </Button>
    </div>
  );
  return (
    <section aria-label="Files that somebody put there">
      <div className="border-b border-rule bg-sunken px-4 py-2">
        <p>
          {count(files.length, 'PDF lies', 'PDFs lie')} in the shelf folder that Crow Shelf did not file. Taken in, each
          comes to Check and is filed in the folder where it lay.
        </p>
        {files.length > 1 && choices(all)}
      </div>
      <ul>
        {files.map(({ path, bytes: size }) => (
          <li key={path} className="border-b border-rule px-4 py-2">
            <span className="[overflow-wrap:anywhere]">{path}</span> <span className="text-quiet">{bytes(size)}</span>
            {choices([path])}
          </li>
        ))}
      </ul>
    </section>
  );
}

/** All documents whose files somebody changed, moved or took away, each or all of a sort to be settled. */
export function ChangedOnDiskPane() {
  const { data: documents } = useChangedOnDisk();
  const { document: openId, go } = useShelfPlace();
  const { data: strangers = [] } = useStrangers();
  if (!documents) return null;
  if (documents.length === 0 && strangers.length === 0) {
    return (
      <Empty title="Everything on disk is as it was filed">
        <p>
          When somebody changes, moves or deletes a file in the shelf folder, it is shown here and nothing is
          overwritten.
        </p>
      </Empty>
    );
  }
  const sorts = Object.entries(WHAT)
    .map(([code, what]) => ({ what, of: documents.filter(({ problem }) => problem?.code === code) }))
    .filter(({ of }) => of.length > 0);
  return (
    <div className="flex h-full flex-col">
      <header className="flex h-14 shrink-0 items-center border-b border-rule px-4">
        <h2 className="text-lg font-semibold">Changed on disk</h2>
      </header>
      <div className="min-h-0 flex-1 overflow-y-auto">
        <Strangers files={strangers} />
        {sorts.map(({ what, of }) => (
          <section key={what} aria-label={`Files ${what}`}>
            {of.length > 1 && (
              <div className="border-b border-rule bg-sunken px-4 py-2">
                <p>
                  All {count(of.length, 'file')} {what}:
                </p>
                <DiskChoices documents={of} />
              </div>
            )}
            {of.map((document) => (
              <DocumentRow
                key={document.id}
                document={document}
                current={document.id === openId}
                onOpen={() => go({ folder: CHANGED, document: document.id })}
              >
                <DiskChoices documents={[document]} />
              </DocumentRow>
            ))}
          </section>
        ))}
      </div>
    </div>
  );
}
