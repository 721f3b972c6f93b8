import { useState } from 'react';
import { Link, useNavigate } from 'react-router';
import { addressOf } from '@crow/contract/client';
import { endpoints } from '@crow/contract/endpoints';
import { StackSummary } from '@crow/contract/stacks';
import { Button, inputLook, ProblemText, Progress } from '../../parts/controls';
import { Transfer, useIntake } from '../../parts/intake';
import { isOneDocument } from '../../parts/clear';
import { shownMoment } from '../../parts/days';
import { bytes, count } from '../../parts/words';
import { useChange, useMay } from '../../queries';
import { OutboxHead } from './OutboxHead';

/** What comes in and what has come in, with its progress; a stack can be chosen to be shown. */
export function TakenIn({
  stacks,
  shown,
  onShow,
}: {
  stacks: StackSummary[];
  shown: string | undefined;
  onShow: (id: string) => void;
}) {
  const { transfers } = useIntake();
  return (
    <div className="flex-1 overflow-y-auto" aria-live="polite">
      <OutboxHead waiting={transfers.filter(({ state }) => state === 'waiting' || state === 'sending')} />
      {transfers.map((transfer) => (
        <TransferRow key={transfer.id} transfer={transfer} />
      ))}
      {stacks.map((each) => (
        <StackRow key={each.id} stack={each} current={each.id === shown} onShow={() => onShow(each.id)} />
      ))}
      {transfers.length === 0 && stacks.length === 0 && (
        <p className="p-4 text-quiet">Nothing waits here. What you take in appears in this list, with its progress.</p>
      )}
    </div>
  );
}

function TransferRow({ transfer }: { transfer: Transfer }) {
  const { retry, forget, halted } = useIntake();
  const { id, name, state, sent, bytes: file, problem, at } = transfer;
  if (state === 'failed') {
    return (
      <div className="border-b border-rule p-4">
        <ProblemText report={problem!}>
          <div className="mt-2 flex gap-2">
            <Button onClick={() => retry(id)}>Try again</Button>
            <Button onClick={() => forget(id)}>Discard</Button>
          </div>
        </ProblemText>
      </div>
    );
  }
  return (
    <div className="border-b border-rule px-4 py-3">
      <div className="flex justify-between gap-2">
        <span className="truncate">{name}</span>
        <span className="shrink-0 font-mono text-sm text-quiet">
          {state === 'done' ? '✓' : state === 'waiting' ? 'waits' : bytes(sent)}
        </span>
      </div>
      {halted && state !== 'done' && (
        <p className="flex justify-between text-sm text-quiet">
          taken {shownMoment(new Date(at))}
          <button className="underline" aria-label={`Discard ${name}`} onClick={() => forget(id)}>
            Discard
          </button>
        </p>
      )}
      <Progress value={sent} of={file.size} label={`Transfer of ${name}`} />
    </div>
  );
}

/** Asks for the password of a locked file. */
function Unlock({ id, name }: { id: string; name: string }) {
  const [password, setPassword] = useState('');
  const unlock = useChange(endpoints.unlockFile, ['stack']);
  return (
    <form
      className="mt-2 flex gap-2"
      onSubmit={(event) => {
        event.preventDefault();
        if (password) unlock.mutate({ params: { id }, body: { password } });
      }}
    >
      <input
        type="password"
        aria-label={`Password of ${name}`}
        placeholder="Password"
        autoComplete="off"
        className={inputLook}
        value={password}
        onChange={(event) => setPassword(event.target.value)}
      />
      <Button type="submit" disabled={!password || unlock.isPending}>
        Unlock
      </Button>
    </form>
  );
}

/** What is one document, as far as anybody can tell, need not be sorted. */
function ToCheck({ id }: { id: string }) {
  const navigate = useNavigate();
  const send = useChange(
    endpoints.sortStack,
    ['stack', 'document'],
    ({ documents }) => void navigate(`/check/${documents[0]}`),
  );
  return (
    <button
      className="font-semibold text-accent underline underline-offset-2"
      disabled={send.isPending}
      onClick={() => send.mutate({ params: { id } })}
    >
      To Check →
    </button>
  );
}

function StackRow({ stack, current, onShow }: { stack: StackSummary; current: boolean; onShow: () => void }) {
  const dismiss = useChange(endpoints.dismissFile, ['stack']);
  const works = useMay('work');
  const { id, name, pages, read, files, readingStopped } = stack;
  const refused = files.filter((file) => file.problem);
  const looking = files.some((file) => file.state === 'waiting');
  return (
    <article className={`border-b border-rule px-4 py-3 ${current ? 'bg-raised' : ''}`}>
      <div className="flex items-baseline justify-between gap-2">
        <button className="truncate text-left font-semibold" onClick={onShow} title={name}>
          {name}
        </button>
        <span className="shrink-0 text-sm text-quiet">
          {looking && pages === 0 ? 'finding pages …' : count(pages, 'page')}
        </span>
      </div>
      {pages > 0 && read < pages && (
        <div className="mt-1.5 text-sm text-quiet">
          <Progress value={read} of={pages} label={`Reading of ${name}`} />
          {readingStopped ? 'reading stopped' : `read ${read} of ${pages}`}
        </div>
      )}
      {refused.map((file) => (
        <div key={file.id} className="mt-2">
          <ProblemText report={file.problem!}>
            {works && file.problem!.code === 'file-encrypted' && <Unlock id={file.id} name={file.name} />}
            <div className={`mt-2 gap-3 ${works ? 'flex' : 'hidden'}`}>
              <a className="underline" href={addressOf(endpoints.originalFile, { params: { id: file.id } })}>
                Save the original
              </a>
              <button className="underline" onClick={() => dismiss.mutate({ params: { id: file.id } })}>
                Discard
              </button>
            </div>
          </ProblemText>
        </div>
      ))}
      {stack.onward && pages > 0 && <p className="mt-1.5 text-sm text-quiet">goes to Check by itself</p>}
      {pages > 0 && works && (
        <p className="mt-2 flex items-baseline gap-4">
          {isOneDocument(stack) && <ToCheck id={id} />}
          <Link
            to={`/sort/${id}`}
            className={`text-accent underline underline-offset-2 ${isOneDocument(stack) ? '' : 'font-semibold'}`}
          >
            Sort it →
          </Link>
        </p>
      )}
    </article>
  );
}
