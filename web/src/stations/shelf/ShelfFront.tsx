import { Link } from 'react-router';
import { ReactNode } from 'react';
import { count, money } from '../../parts/words';
import { useFolders, useGlance, useMay, useOverview } from '../../queries';
import { DocumentRow } from './DocumentRow';
import { ComingWords } from './PapersSummary';
import { useShelfPlace } from './shelfPlace';
import { Empty } from '../../parts/controls';

/** The shelf with nothing chosen: what came lately, what is due or ends soon, what waits, what the folders hold. */
export function ShelfFront() {
  const { data: glance } = useGlance();
  const { data: folders = [] } = useFolders();
  const { data: overview } = useOverview();
  const { go } = useShelfPlace();
  const works = useMay('work');
  if (!glance) return null;
  if (folders.length === 0)
    return (
      <Empty title={works ? 'The shelf is empty' : 'There is no folder for you yet'}>
        <p>
          {works
            ? 'Papers arrive here from Check, in the folders that you name there.'
            : 'Ask the owner which folders you should see.'}
        </p>
      </Empty>
    );
  const open = (folder: string | null, document: string) => go({ folder: folder ?? undefined, document });
  const sums = new Map(glance.folders.map(({ id, sums: each }) => [id, each]));
  const waits = works
    ? [
        { to: '/sort', words: count(overview?.stacks ?? 0, 'stack'), number: overview?.stacks ?? 0, where: 'to sort' },
        { to: '/check', words: count(overview?.check ?? 0, 'paper'), number: overview?.check ?? 0, where: 'to check' },
      ].filter(({ number }) => number > 0)
    : [];
  return (
    <div className="@container h-full overflow-y-auto bg-ground">
      <div className="grid grid-cols-1 gap-x-8 gap-y-6 p-6 @3xl:grid-cols-2">
        <Part title="Came lately">
          {glance.latest.length === 0 && <p className="text-quiet">Nothing has been filed yet.</p>}
          <div className="-mx-4">
            {glance.latest.map((each) => (
              <DocumentRow key={each.id} document={each} current={false} onOpen={() => open(each.folderId, each.id)} />
            ))}
          </div>
        </Part>
        <div className="flex flex-col gap-6">
          {waits.length > 0 && (
            <Part title="Waits">
              {waits.map(({ to, words, where }) => (
                <p key={to} className="border-b border-rule py-1.5">
                  <Link className="text-accent underline" to={to}>
                    {words} {where}
                  </Link>
                </p>
              ))}
            </Part>
          )}
          <Part title="Due or ending">
            {glance.comingUp.length === 0 && <p className="text-quiet">Nothing is due or ends in the next weeks.</p>}
            {glance.comingUp.map(({ document: { id, folderId, name, total }, what, day, inDays: days }) => (
              <div key={`${id} ${what}`} className="flex items-start gap-3 border-b border-rule py-1.5">
                <div className="min-w-0 flex-1">
                  <button className="text-left font-semibold hover:underline" onClick={() => open(folderId, id)}>
                    {name}
                  </button>
                  <ComingWords what={what} day={day} days={days} />
                </div>
                {what === 'due' && total && <span className="shrink-0 font-mono">{money(total)}</span>}
              </div>
            ))}
          </Part>
          <Part title="Folders">
            <table className="w-full">
              <thead className="sr-only">
                <tr>
                  <th scope="col">Folder</th>
                  <th scope="col">Papers</th>
                  <th scope="col">Sums</th>
                </tr>
              </thead>
              <tbody>
                {folders
                  .filter(({ parentId }) => parentId === null)
                  .map(({ id, name, inside }) => (
                    <tr key={id} className="align-top">
                      <td className="border-b border-rule py-1.5">
                        <button className="text-left hover:underline" onClick={() => go({ folder: id })}>
                          {name}
                        </button>
                      </td>
                      <td className="border-b border-rule py-1.5 pl-3 text-right font-mono text-quiet">{inside}</td>
                      <td className="border-b border-rule py-1.5 pl-4 text-right font-mono whitespace-nowrap">
                        {(sums.get(id) ?? []).map((sum) => (
                          <span key={sum.currency} className="block">
                            {money(sum)}
                          </span>
                        ))}
                      </td>
                    </tr>
                  ))}
              </tbody>
            </table>
          </Part>
        </div>
      </div>
    </div>
  );
}

function Part({ title, children }: { title: string; children: ReactNode }) {
  return (
    <section aria-label={title}>
      <h2 className="mb-2 border-b border-rule pb-1 text-lg font-semibold">{title}</h2>
      {children}
    </section>
  );
}
