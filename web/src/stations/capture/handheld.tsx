import { useNavigate, useSearchParams } from 'react-router';
import { Stack } from '@crow/contract/stacks';
import { Button } from '../../parts/controls';
import { Place, Transfer, useIntake } from '../../parts/intake';
import { PagePicture } from '../../parts/PagePicture';
import { count } from '../../parts/words';
import { Small } from './WaitingStrip';

const SQUARE = 'relative h-14 w-14 shrink-0 overflow-hidden border border-[#3a3842] bg-[#28272e]';

/** The pages taken so far, as the last one small with their number; a tap shows them all. */
export function TakenPages({
  stack,
  waiting,
  number,
  onShow,
}: {
  stack: Stack | undefined;
  waiting: Transfer[];
  /** How many were taken. */
  number: number;
  onShow: () => void;
}) {
  const last = stack?.pageList.findLast(({ dropped }) => !dropped);
  const newest = waiting.at(-1);
  return (
    <button
      className={SQUARE}
      aria-label={number === 0 ? 'Other ways to take papers in' : `${count(number, 'page')} taken: see them`}
      onClick={onShow}
    >
      {newest ? (
        <Small transfer={newest} number={number} />
      ) : last ? (
        <PagePicture page={last} size="thumb" alt="" />
      ) : (
        <span className="text-sm">Files …</span>
      )}
      {number > 0 && (
        <span className="absolute right-0 bottom-0 bg-[#141318]/85 px-1.5 font-mono text-sm text-white">{number}</span>
      )}
    </button>
  );
}

/** Goes on with the pages taken: to Check as one document, or back to the document that they were added to. */
export function Onward({ to, pages }: { to: Pick<Place, 'stackId' | 'documentId'> | undefined; pages: number }) {
  const navigate = useNavigate();
  const [query] = useSearchParams();
  const { finish } = useIntake();
  if (!to || pages === 0) return null;
  const { stackId, documentId } = to;
  const go = () => {
    if (documentId) return void navigate(query.get('from') ?? `/check/${documentId}`);
    finish(stackId);
    void navigate(`/check?stack=${stackId}`);
  };
  return (
    <Button className="h-14 px-4 text-lg" onClick={go}>
      {documentId ? 'Done' : 'Check →'}
    </Button>
  );
}
