import { useMutation, useQueryClient } from '@tanstack/react-query';
import { Link, useNavigate, useParams } from 'react-router';
import { endpoints } from '@crow/contract/endpoints';
import { StackSummary } from '@crow/contract/stacks';
import { ask } from '../../api';
import { Button, Empty } from '../../parts/controls';
import { isClear, isOneDocument } from '../../parts/clear';
import { pictureAddress } from '../../parts/PagePicture';
import { useNotices } from '../../parts/notices';
import { shownMoment } from '../../parts/days';
import { count } from '../../parts/words';
import { useChange, useStack, useStacks } from '../../queries';
import { LightTable } from './LightTable';

/** The Sort station: the stacks that wait, and the one that lies on the light table. */
export default function Sort() {
  const { id } = useParams();
  const { data: stacks } = useStacks();
  const { data: stack, isError } = useStack(id);
  if (id && !isError) return stack ? <LightTable key={id} stack={stack} /> : null;
  const withPages = stacks?.filter(({ pages }) => pages > 0) ?? [];
  if (stacks && withPages.length === 0) {
    return (
      <Empty title="No stack waits to be sorted">
        <p>
          <Link className="text-accent underline" to="/capture">
            Take in papers
          </Link>{' '}
          and they come here; what has been sorted already is in{' '}
          <Link className="text-accent underline" to="/check">
            Check
          </Link>
          .
        </p>
      </Empty>
    );
  }
  return (
    <div className="flex h-full flex-col">
      <header className="flex h-14 shrink-0 items-center gap-2 border-b border-rule px-3 md:px-6">
        <h1 className="mr-auto text-lg font-semibold">
          {count(withPages.length, 'stack waits', 'stacks wait')} to be sorted
        </h1>
        <SendAll stacks={withPages} />
      </header>
      <ul className="flex-1 overflow-y-auto">
        {withPages.map((each, at) => (
          <StackLine key={each.id} stack={each} first={at === 0} />
        ))}
      </ul>
    </div>
  );
}

/** Sends all stacks to Check whose cuts are sure; those with doubtful gaps, or still being read, stay. */
function SendAll({ stacks }: { stacks: StackSummary[] }) {
  const { tell } = useNotices();
  const client = useQueryClient();
  const send = useMutation({
    mutationFn: async () => {
      const sent = [];
      for (const { id } of stacks.filter(isClear)) sent.push(await ask(endpoints.sortStack, { params: { id } }));
      return sent.flatMap(({ documents }) => documents).length;
    },
    onSuccess: (documents) => {
      const left = stacks.length - stacks.filter(isClear).length;
      const rest =
        left > 0 ? ` ${count(left, 'stack stays', 'stacks stay')}: to be looked at, or still being read.` : '';
      tell({ text: `${count(documents, 'document')} now in Check.${rest}` });
    },
    onError: (error) => tell({ error }),
    onSettled: () => client.invalidateQueries(),
  });
  const clear = stacks.filter(isClear).length;
  if (stacks.length < 2) return null;
  return (
    <Button onClick={() => send.mutate()} disabled={clear === 0 || send.isPending}>
      {clear === stacks.length || clear === 0 ? 'Send all to Check' : `Send the ${clear} clear ones to Check`}
    </Button>
  );
}

/** @param first whether Enter opens it */
function StackLine({ stack, first }: { stack: StackSummary; first: boolean }) {
  const navigate = useNavigate();
  const { tell } = useNotices();
  const { id, name, pages, read, firstPages } = stack;
  const bringBack = useChange(endpoints.bringBackStack, ['stack']);
  const remove = useChange(endpoints.deleteStack, ['stack'], () =>
    tell({
      text: `“${name}” is in the bin.`,
      action: { label: 'Bring it back', run: () => bringBack.mutate({ params: { id } }) },
    }),
  );
  const toBin = () => remove.mutate({ params: { id } });
  const send = useChange(endpoints.sortStack, ['stack', 'document']);
  return (
    <li className="flex flex-wrap items-center gap-x-6 gap-y-2 border-b border-rule px-3 py-4 hover:bg-raised md:flex-nowrap md:px-6">
      <Link to={`/sort/${id}`} className="flex min-w-0 flex-1 basis-full items-center gap-4 md:basis-auto md:gap-6">
        <span className="flex w-[110px] shrink-0 gap-1.5 overflow-hidden md:w-[210px]">
          {firstPages.map((page) => (
            <img
              key={page.id}
              src={pictureAddress(page.id, 'thumb', page.turn, page.version)}
              alt=""
              className="paper-picture h-16 bg-paper shadow-paper"
              loading="lazy"
            />
          ))}
        </span>
        <span className="min-w-0">
          <span className="block truncate text-lg font-semibold">{name}</span>
          <span className="text-quiet">
            {count(pages, 'page')} → {count(stack.documents, 'document')}
            {stack.doubtful > 0 && (
              <span className="text-attention"> · ? {count(stack.doubtful, 'doubtful gap')}</span>
            )}{' '}
            · {read < pages ? `read ${read} of ${pages}` : 'all read'} · {shownMoment(stack.createdAt)}
          </span>
        </span>
      </Link>
      <Button onClick={toBin}>To the bin</Button>
      {isOneDocument(stack) && (
        <Button onClick={() => send.mutate({ params: { id } })} disabled={send.isPending}>
          To Check
        </Button>
      )}
      <Button main ref={first ? focusFirst : undefined} onClick={() => void navigate(`/sort/${id}`)}>
        Sort
      </Button>
    </li>
  );
}

/** The first stack has the cursor when one comes here; a stack that arrives later takes it from nobody. */
function focusFirst(button: HTMLButtonElement | null): void {
  if (document.activeElement === document.body) button?.focus();
}
