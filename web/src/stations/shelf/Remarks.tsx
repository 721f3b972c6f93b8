import { X } from 'lucide-react';
import { FormEvent, useId, useState } from 'react';
import { Document, LONGEST_NOTE, LONGEST_TAG } from '@crow/contract/documents';
import { endpoints } from '@crow/contract/endpoints';
import { inputLook } from '../../parts/controls';
import { useNotices } from '../../parts/notices';
import { useChange, useMay, useTags } from '../../queries';
import { useShelfPlace } from './shelfPlace';

/** What people call a paper and write about it: tags, each a way to the other papers that have it, and a note. */
export function Remarks({ document: { id, tags, note } }: { document: Pick<Document, 'id' | 'tags' | 'note'> }) {
  const works = useMay('work');
  const { go } = useShelfPlace();
  const { tell } = useNotices();
  const list = useId();
  const { data: known = [] } = useTags(works);
  const change = useChange(endpoints.remarkOnDocuments, ['document']);
  const [typed, setTyped] = useState('');
  const remark = (to: { add?: string[]; remove?: string[]; note?: string }, then?: () => void) =>
    change.mutate({ body: { changes: [{ id, ...to }] } }, then);
  const add = (event: FormEvent) => {
    event.preventDefault();
    const tag = typed.trim();
    if (tag && !tags.includes(tag)) remark({ add: [tag] });
    setTyped('');
  };
  const remove = (tag: string) => {
    remark({ remove: [tag] }, () =>
      tell({ text: `“${tag}” is taken off.`, action: { label: 'Undo', run: () => remark({ add: [tag] }) } }),
    );
  };
  if (!works && tags.length === 0 && !note) return null;
  return (
    <section aria-label="Tags and note" className="space-y-2">
      {tags.length > 0 && (
        <ul aria-label="Tags" className="flex flex-wrap gap-1.5">
          {tags.map((tag) => (
            <li key={tag} className="inline-flex max-w-full items-center border border-rule bg-raised pl-2 text-sm">
              <button
                className="min-w-0 truncate py-0.5 hover:underline"
                title="All papers with this tag"
                onClick={() => go({ document: id, find: `tag:"${tag}"` })}
              >
                {tag}
              </button>
              {works && (
                <button
                  aria-label={`Take “${tag}” off`}
                  className="grid size-6 shrink-0 place-items-center hover:bg-sunken pointer-coarse:size-9"
                  onClick={() => remove(tag)}
                >
                  <X size={13} aria-hidden />
                </button>
              )}
            </li>
          ))}
        </ul>
      )}
      {works ? (
        <>
          <form onSubmit={add}>
            <input
              className={inputLook}
              aria-label="Add a tag"
              placeholder="Add a tag"
              list={list}
              maxLength={LONGEST_TAG}
              value={typed}
              onChange={(event) => setTyped(event.target.value)}
            />
            <datalist id={list}>
              {known.map(({ tag }) => (
                <option key={tag} value={tag} />
              ))}
            </datalist>
          </form>
          <Note
            note={note}
            onKeep={(to) =>
              remark({ note: to }, () =>
                tell({ text: 'The note is kept.', action: { label: 'Undo', run: () => remark({ note }) } }),
              )
            }
          />
        </>
      ) : (
        note && <p className="whitespace-pre-wrap">{note}</p>
      )}
    </section>
  );
}

/** A note that is kept as soon as one leaves it. */
function Note({ note, onKeep }: { note: string; onKeep: (note: string) => void }) {
  const [typed, setTyped] = useState(note);
  const [of, setOf] = useState(note);
  // What another window wrote is shown, but never under the hand.
  if (note !== of) {
    setOf(note);
    if (typed.trim() === of) setTyped(note);
  }
  const keep = () => typed.trim() !== note && onKeep(typed.trim());
  return (
    <textarea
      aria-label="Note"
      placeholder="A note, found like what stands on the paper"
      className="block min-h-16 w-full resize-y border border-rule bg-paper px-2 py-1.5 field-sizing-content"
      maxLength={LONGEST_NOTE}
      value={typed}
      onChange={(event) => setTyped(event.target.value)}
      onBlur={keep}
      onKeyDown={(event) => {
        if (event.key === 'Enter' && event.ctrlKey) keep();
        if (event.key === 'Escape') setTyped(note);
      }}
    />
  );
}
