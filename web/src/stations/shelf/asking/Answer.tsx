import { useState } from 'react';
import { AnswerSource, UnderstoodQuestion } from '@crow/contract/asking';
import { shownDay } from '../../../parts/days';
import { count, money } from '../../../parts/words';
import { Button } from '../../../parts/controls';
import { useShelfAnswer } from '../../../queries';
import { useShelfPlace } from '../shelfPlace';
import { explained, headline, notAnswered, sums } from './answerWords';
import { HowUnderstood } from './HowUnderstood';

/** So many papers are listed at first, and so many more each time that more are asked for. */
const [AT_FIRST, MORE] = [40, 200];

/** What a question over the shelf is answered by: the answer, how the question was understood, and every paper it comes from. */
export function Answer({ question }: { question: string }) {
  const [changed, setChanged] = useState<{ of: string; to: UnderstoodQuestion }>();
  const own = changed?.of === question ? changed.to : undefined;
  const { data: reply, isFetching } = useShelfAnswer(question, own);
  const [listed, setListed] = useState({ of: question, many: AT_FIRST });
  const many = listed.of === question ? listed.many : AT_FIRST;
  if (!reply)
    return (
      <p className="px-4 py-3 text-quiet" role="status">
        {isFetching ? 'Looking through the papers …' : ''}
      </p>
    );
  const { understood, answer, cannot } = reply;
  const sources = answer?.sources ?? [];
  const without = cannot?.why === 'about' && understood ? withoutWords(own ?? understood, cannot.words) : undefined;
  return (
    <section aria-label="Answer" className="flex min-h-0 flex-1 flex-col">
      <div className="border-b border-rule px-4 py-3" role="status">
        {answer && understood && (
          <>
            <p className={`text-lg font-semibold break-words ${understood.wants.startsWith('who') ? '' : 'font-mono'}`}>
              {headline(answer, understood)}
            </p>
            <p className="mt-1 text-quiet">{explained(answer, understood)}</p>
          </>
        )}
        {cannot && (
          <>
            <p className="text-lg font-semibold">{notAnswered(reply)}</p>
            <p className="mt-1 text-quiet">
              {cannot.why === 'paid'
                ? 'Ask for what is due, or until when.'
                : understood
                  ? 'Take out a condition, or ask with other words.'
                  : 'Ask how much, how many, which, who, when or until when; “in quotes”, words are looked for.'}
            </p>
            {without && (
              <p className="mt-2">
                <Button onClick={() => setChanged({ of: question, to: without })}>
                  Ask without {cannot.words.map((word) => `“${word}”`).join(' and ')}
                </Button>
              </p>
            )}
          </>
        )}
      </div>
      {/* What was changed stands there at once, even while the answer is on its way. */}
      {understood && (
        <HowUnderstood
          understood={own ?? understood}
          senders={reply.senders}
          isChanged={own !== undefined}
          onChange={(to) => setChanged(to && { of: question, to })}
        />
      )}
      <div className="min-h-0 flex-1 overflow-y-auto bg-ground">
        {answer && understood?.wants === 'who most' && answer.who.length > 1 && (
          <table className="w-full text-sm" aria-label="By who">
            <tbody>
              {answer.who.slice(0, 10).map(({ name, sums: each }) => (
                <tr key={name} className="border-b border-rule">
                  <th scope="row" className="px-4 py-1.5 text-left font-normal">
                    {name}
                  </th>
                  <td className="px-4 py-1.5 text-right font-mono whitespace-nowrap">{sums(each)}</td>
                </tr>
              ))}
            </tbody>
          </table>
        )}
        {sources.length > 0 && (
          <ul aria-label="Papers that it comes from">
            {sources.slice(0, many).map((source) => (
              <SourceRow
                key={source.id}
                source={source}
                question={question}
                day={understood?.wants === 'day' ? answer!.days.find(({ id }) => id === source.id)?.day : undefined}
              />
            ))}
          </ul>
        )}
        {sources.length > many && (
          <p className="p-4 text-center">
            <Button onClick={() => setListed({ of: question, many: many + MORE })}>
              More of the {count(sources.length, 'paper')}
            </Button>
          </p>
        )}
      </div>
    </section>
  );
}

/** The same question without words that no paper is about; nothing where it would be about nothing then. */
function withoutWords(understood: UnderstoodQuestion, words: readonly string[]): UnderstoodQuestion | undefined {
  const about = understood.about.filter((word) => !words.includes(word));
  const { who, kinds, folder } = understood;
  return about.length + who.length + kinds.length > 0 || folder !== null ? { ...understood, about } : undefined;
}

function SourceRow({ source, question, day }: { source: AnswerSource; question: string; day?: string }) {
  const { document: openId, go } = useShelfPlace();
  const { id, folderId, name, date, pageId, box, lines } = source;
  const open = () =>
    go({
      folder: folderId ?? undefined,
      document: id,
      find: question,
      ...(pageId && box && { at: { pageId, box } }),
      ...(lines.length > 0 && { words: lines[0] }),
    });
  return (
    <li className={`border-b border-rule ${id === openId ? 'bg-accent-soft' : 'hover:bg-raised'}`}>
      <button
        className="flex w-full items-baseline gap-3 px-4 py-2 text-left"
        aria-current={id === openId}
        onClick={open}
      >
        <span className="min-w-0 flex-1">
          <span className="block font-semibold break-words">{name || 'Not named yet'}</span>
          <span className="block text-sm text-quiet">
            {[date && shownDay(date), ...lines].filter(Boolean).join(' · ')}
          </span>
        </span>
        {(day ?? source.money) && (
          <span className="shrink-0 font-mono whitespace-nowrap">{day ? shownDay(day) : money(source.money!)}</span>
        )}
      </button>
    </li>
  );
}
