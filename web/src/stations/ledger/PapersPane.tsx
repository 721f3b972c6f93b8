import { useQuery } from '@tanstack/react-query';
import { Link } from 'react-router';
import { endpoints } from '@crow/contract/endpoints';
import { ask } from '../../api';
import { Button, Empty } from '../../parts/controls';
import { shownDay } from '../../parts/days';
import { useNotices } from '../../parts/notices';
import { kindName, money } from '../../parts/words';
import { useChange } from '../../queries';

/** Bills and receipts on the shelf that are in no entry. */
export function PapersPane() {
  const { data: papers } = useQuery({
    queryKey: ['ledger', 'papers'],
    queryFn: () => ask(endpoints.papersWithoutEntry, {}),
  });
  const { tell } = useNotices();
  const takeOut = useChange(endpoints.takeOutEntry, ['ledger']);
  const enter = useChange(endpoints.enterPaper, ['ledger', 'document'], ({ id, serial }) =>
    tell({
      text: `It is entry ${serial}.`,
      action: { label: 'Undo', run: () => takeOut.mutate({ params: { id } }) },
    }),
  );
  if (!papers) return null;
  if (papers.length === 0)
    return (
      <Empty title="Every bill and receipt is in the books">
        <p>What is filed and not entered is listed here.</p>
      </Empty>
    );
  return (
    <div className="min-h-0 flex-1 overflow-y-auto p-4">
      <table className="w-full max-w-[1000px] text-sm" aria-label="Papers without an entry">
        <tbody>
          {papers.map(({ id, name, folderId, folderPath, kind, vendor, date, total }) => (
            <tr key={id} className="border-b border-rule">
              <td className="py-1.5 pr-4 font-mono">{date ? shownDay(date) : 'no date'}</td>
              <td className="pr-4">
                <Link className="underline underline-offset-2" to={`/shelf/${folderId}/${id}`}>
                  {name}
                </Link>
                <span className="block text-xs text-quiet">
                  {[kind && kindName(kind), vendor, folderPath?.replaceAll('/', ' / ')].filter(Boolean).join(' · ')}
                </span>
              </td>
              <td className="pr-4 text-right font-mono">{total ? money(total) : 'no total'}</td>
              <td className="text-right">
                <Button onClick={() => enter.mutate({ params: { id } })}>Enter it</Button>
              </td>
            </tr>
          ))}
        </tbody>
      </table>
    </div>
  );
}
