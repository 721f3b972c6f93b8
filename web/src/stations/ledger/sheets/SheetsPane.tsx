import { ReactNode, useRef, useState } from 'react';
import { addressOf } from '@crow/contract/client';
import { endpoints } from '@crow/contract/endpoints';
import { Sheets } from '@crow/contract/keeping';
import { dayOf } from '@crow/core/reading/dayForms';
import { lookThroughArchive } from '../../../api';
import { Button, Choice, Empty } from '../../../parts/controls';
import { shownMoment } from '../../../parts/days';
import { useNotices } from '../../../parts/notices';
import { queryStale } from '../../../parts/stale';
import { useNarrow } from '../../../parts/useNarrow';
import { count } from '../../../parts/words';
import { useChange, useSheets } from '../../../queries';
import { Places } from './Places';
import { isInList, SHEET_LISTS, SheetListId } from './sheetGroups';
import { SheetList } from './SheetList';

const EVERYWHERE = 'everywhere';
const NOWHERE = 'nowhere';
const EMPTY: Record<SheetListId, string> = {
  'may-go':
    'A sheet may go when nothing asks for it and its file is proven: compared, in an archive, legible, complete.',
  unproven: 'Every sheet that might go has a file that can stand for it.',
  keep: 'Deeds, contracts and what the law wants as paper are listed here.',
  gone: 'What was shredded is listed here.',
  past: 'No file has been kept longer than it must be. Nothing is ever deleted by itself.',
};

/** What becomes of the sheets themselves: what may go, by the box or binder it lies in, what is kept, and what is gone. */
export function SheetsPane({ placeId }: { placeId: string | undefined }) {
  const { data } = useSheets();
  const [list, setList] = useState<SheetListId>('may-go');
  const [where, setWhere] = useState(placeId ?? EVERYWHERE);
  const narrow = useNarrow();
  const [today] = useState(() => dayOf(new Date()));
  if (!data) return null;
  const { places, sheets } = data;
  const there = sheets.filter(
    (sheet) => where === EVERYWHERE || (where === NOWHERE ? sheet.placeId === null : sheet.placeId === where),
  );
  const shown = there.filter((sheet) => isInList(list, sheet, today));
  return (
    <div className="flex min-h-0 flex-1 flex-col lg:flex-row">
      <section aria-label="Sheets" className="flex min-h-0 min-w-0 flex-1 flex-col">
        <Folded name="What proves files" folded={narrow}>
          <Proving data={data} />
        </Folded>
        <div className="flex flex-wrap items-center gap-x-4 gap-y-2 border-b border-rule px-4 py-2">
          <div role="group" aria-label="Which sheets" className="flex max-w-full gap-1 overflow-x-auto">
            {SHEET_LISTS.map(([id, name]) => (
              <button
                key={id}
                aria-pressed={list === id}
                className={`h-8 shrink-0 border px-2 pointer-coarse:h-11 ${list === id ? 'border-accent bg-raised font-semibold' : 'border-rule hover:border-quiet'}`}
                onClick={() => setList(id)}
              >
                {name}{' '}
                <span className="font-mono text-quiet">
                  {there.filter((sheet) => isInList(id, sheet, today)).length}
                </span>
              </button>
            ))}
          </div>
          <Choice
            label="Lying in"
            shown
            value={where}
            choices={[
              { value: EVERYWHERE, name: 'any place' },
              ...places.map(({ id, name }) => ({ value: id, name })),
              { value: NOWHERE, name: 'no place that is known' },
            ]}
            onChange={setWhere}
          />
        </div>
        {shown.length === 0 ? (
          <Empty title={`${SHEET_LISTS.find(([id]) => id === list)![1]}: nothing`}>
            <p>{EMPTY[list]}</p>
          </Empty>
        ) : (
          // What is ticked in one list is not ticked in another.
          <SheetList key={`${list} ${where}`} list={list} sheets={shown} places={places} />
        )}
      </section>
      <Folded name="Boxes and binders" folded={narrow}>
        <Places places={places} sheets={sheets} onLook={setWhere} />
      </Folded>
    </div>
  );
}

/** What there is no room for at first on a narrow screen. */
function Folded({ name, folded, children }: { name: string; folded: boolean; children: ReactNode }) {
  if (!folded) return children;
  return (
    <details className="shrink-0 border-b border-rule">
      <summary className="flex min-h-11 cursor-pointer items-center px-4">{name}</summary>
      {children}
    </details>
  );
}

/** What proves files, when that was last done, and how to do it again. */
function Proving({ data: { comparedAt, comparing, archive } }: { data: Sheets }) {
  const { tell } = useNotices();
  const input = useRef<HTMLInputElement>(null);
  const [busy, setBusy] = useState(false);
  const compare = useChange(endpoints.compareFiles, ['sheet']);
  const lookThrough = async (file: File) => {
    setBusy(true);
    try {
      const { same, different, missing } = await lookThroughArchive(file);
      const others = [
        different > 0 && `${count(different, 'paper')} in it ${different === 1 ? 'is' : 'are'} otherwise here`,
        missing > 0 && `${count(missing, 'paper')} of the shelf ${missing === 1 ? 'is' : 'are'} not in it`,
      ].filter((each) => each !== false);
      tell({
        text: `${count(same, 'paper')} in “${file.name}” as on the shelf${others.map((each) => `; ${each}`).join('')}.`,
      });
    } catch (error) {
      tell({ error });
    }
    queryStale('sheets');
    setBusy(false);
  };
  return (
    <div className="flex flex-wrap items-center gap-x-6 gap-y-2 border-b border-rule bg-raised px-4 py-2 text-sm">
      <span role="status" className="flex flex-wrap items-center gap-2">
        {comparing
          ? 'Files are being compared with the database …'
          : comparedAt
            ? `Files were compared on ${shownMoment(comparedAt)}.`
            : 'Files were never compared with the database.'}
        <Button disabled={comparing} onClick={() => compare.mutate({})}>
          Compare files
        </Button>
      </span>
      <span className="flex flex-wrap items-center gap-2">
        {archive
          ? `“${archive.name}” was looked through on ${shownMoment(archive.at)}: ${count(archive.papers, 'paper')}.`
          : 'No archive was looked through.'}
        <Button disabled={busy} onClick={() => input.current?.click()}>
          {busy ? 'Looking through it …' : 'Look through an archive …'}
        </Button>
        <a className="underline underline-offset-2" href={addressOf(endpoints.shelfArchive, { query: {} })}>
          Save one
        </a>
        <input
          ref={input}
          type="file"
          hidden
          aria-label="An archive of the shelf"
          accept=".zip"
          onChange={({ target }) => {
            const [file] = target.files ?? [];
            if (file) void lookThrough(file);
            target.value = '';
          }}
        />
      </span>
    </div>
  );
}
