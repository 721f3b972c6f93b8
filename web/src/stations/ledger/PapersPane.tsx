import { useQuery } from '@tanstack/react-query';
import { Link } from 'react-router';
import { Output } from '@crow/contract/endpoint';
import { endpoints } from '@crow/contract/endpoints';
import { ask } from '../../api';
import { alikeInWords } from '../../parts/books/words';
import { Button, Empty } from '../../parts/controls';
import { shownDay } from '../../parts/days';
import { KeyWords, useKeys } from '../../parts/keys';
import { useNotices } from '../../parts/notices';
import { count, kindName, money } from '../../parts/words';
import { useChange } from '../../queries';

type Lacking = Output<typeof endpoints.papersWithoutEntry>[number];
const KEYS: KeyWords = [['a', 'Attach what is sure']];

/** Bills and receipts on the shelf that are in no entry: each with the entry without a paper that it is likely of. */
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
  const detach = useChange(endpoints.detachPapers, ['ledger', 'document']);
  const attach = useChange(endpoints.attachPapers, ['ledger', 'document'], (_, { body }) =>
    tell({
      text: `${count(body.pairs.length, 'paper is', 'papers are')} attached.`,
      action: { label: 'Undo', run: () => detach.mutate({ body }) },
    }),
  );
  const pairs = (of: readonly Lacking[]) =>
    of.flatMap(({ paper, fit }) => (fit ? [{ documentId: paper.id, entryId: fit.entryId }] : []));
  const sure = pairs((papers ?? []).filter(({ fit }) => fit?.sure));
  const attachSure = () => {
    if (sure.length > 0) attach.mutate({ body: { pairs: sure } });
  };
  useKeys({ a: attachSure }, KEYS);
  if (!papers) return null;
  if (papers.length === 0)
    return (
      <Empty title="Every bill and receipt is in the books">
        <p>What is filed and not entered is listed here.</p>
      </Empty>
    );
  return (
    <div className="min-h-0 flex-1 overflow-y-auto p-4">
      {sure.length > 0 && (
        <p className="mb-3">
          <Button main onClick={attachSure} hint="a" disabled={attach.isPending}>
            Attach the {sure.length === 1 ? 'sure one' : `${sure.length} sure ones`}
          </Button>
        </p>
      )}
      <table className="w-full max-w-[1100px] text-sm" aria-label="Papers without an entry">
        <tbody>
          {papers.map(({ paper, fit }) => {
            const { id, name, folderId, folderPath, kind, vendor, date, total } = paper;
            return (
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
                <td className="pr-4 text-xs">
                  {fit && (
                    <>
                      {fit.sure ? 'Of' : 'Perhaps of'}{' '}
                      <Link className="underline underline-offset-2" to={`/ledger?entry=${fit.entryId}`}>
                        entry {fit.serial}
                      </Link>
                      : {fit.who}, {money(fit)}
                      <span className="block text-quiet">
                        {alikeInWords(fit.alike)}, {Math.round(100 * fit.confidence)} % likely
                      </span>
                    </>
                  )}
                </td>
                <td className="space-x-2 py-1 text-right whitespace-nowrap">
                  {fit && (
                    <Button
                      aria-label={`Attach ${name} to entry ${fit.serial}`}
                      onClick={() => attach.mutate({ body: { pairs: pairs([{ paper, fit }]) } })}
                    >
                      Attach
                    </Button>
                  )}
                  <Button onClick={() => enter.mutate({ params: { id } })}>Enter it</Button>
                </td>
              </tr>
            );
          })}
        </tbody>
      </table>
    </div>
  );
}
