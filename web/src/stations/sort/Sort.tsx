import { Link, useNavigate, useParams } from 'react-router';
import { endpoints } from '@crow/contract/endpoints';
import { StackSummary } from '@crow/contract/shapes';
import { Button, Empty } from '../../parts/controls';
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
      <header className="flex h-14 shrink-0 items-center border-b border-rule px-6">
        <h1 className="text-lg font-semibold">{count(withPages.length, 'stack waits', 'stacks wait')} to be sorted</h1>
      </header>
      <ul className="flex-1 overflow-y-auto">
        {withPages.map((each, at) => (
          <StackLine key={each.id} stack={each} first={at === 0} />
        ))}
      </ul>
    </div>
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
  return (
    <li className="flex items-center gap-6 border-b border-rule px-6 py-4 hover:bg-raised">
      <Link to={`/sort/${id}`} className="flex min-w-0 flex-1 items-center gap-6">
        <span className="flex w-[210px] shrink-0 gap-1.5">
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
            {count(pages, 'page')} · {read < pages ? `read ${read} of ${pages}` : 'all read'} ·{' '}
            {shownMoment(stack.createdAt)}
          </span>
        </span>
      </Link>
      <Button onClick={toBin}>To the bin</Button>
      <Button main autoFocus={first} onClick={() => void navigate(`/sort/${id}`)}>
        Sort
      </Button>
    </li>
  );
}
