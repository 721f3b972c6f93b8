import { useVirtualizer } from '@tanstack/react-virtual';
import { KeyboardEvent, useEffect, useState } from 'react';
import { Link, useNavigate } from 'react-router';
import { MOST_AT_ONCE } from '@crow/contract/basics';
import { endpoints } from '@crow/contract/endpoints';
import { Place, Sheet } from '@crow/contract/keeping';
import { Button, Choice } from '../../../parts/controls';
import { shownDay, shownMoment } from '../../../parts/days';
import { useNotices } from '../../../parts/notices';
import { count, kindName } from '../../../parts/words';
import { useChange } from '../../../queries';
import { linesOf, SheetListId } from './sheetGroups';

const ROW = 46;
const LEAVE = 'leave';
const NOWHERE = 'nowhere';

/** Sheets by the box or binder that they lie in, to be ticked off. */
export function SheetList({
  list,
  sheets,
  places,
}: {
  list: SheetListId;
  sheets: readonly Sheet[];
  places: readonly Place[];
}) {
  const lines = linesOf(sheets, places);
  const order = lines.flatMap((line) => ('sheet' in line ? [line.sheet.documentId] : []));
  const [chosen, setTicked] = useState<ReadonlySet<string>>(new Set());
  // What has left the list meanwhile is not ticked any more.
  const ticked = order.filter((id) => chosen.has(id));
  const [current, setCurrent] = useState<string>();
  const [scroller, setScroller] = useState<HTMLDivElement | null>(null);
  const navigate = useNavigate();
  const virtualizer = useVirtualizer({
    count: lines.length,
    getScrollElement: () => scroller,
    estimateSize: () => ROW,
    overscan: 12,
  });
  useEffect(() => {
    const at = lines.findIndex((line) => 'sheet' in line && line.sheet.documentId === current);
    if (at >= 0) virtualizer.scrollToIndex(at);
    // Not when the lines change under it.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [current]);
  const tick = (ids: readonly string[], on: boolean) =>
    setTicked((before) => new Set(on ? [...before, ...ids] : [...before].filter((id) => !ids.includes(id))));
  const key = (event: KeyboardEvent) => {
    if (event.target !== event.currentTarget) return;
    const at = order.indexOf(current ?? '');
    const steps: Record<string, number> = { ArrowDown: at + 1, ArrowUp: at - 1, Home: 0, End: order.length - 1 };
    if (event.key in steps) setCurrent(order[Math.max(0, Math.min(order.length - 1, steps[event.key]))]);
    else if (event.key === ' ' && current) tick([current], !chosen.has(current));
    else if (event.key === 'Enter' && current) {
      const sheet = sheets.find(({ documentId }) => documentId === current);
      if (sheet) void navigate(paperOf(sheet));
    } else return;
    event.preventDefault();
  };
  const items = virtualizer.getVirtualItems();
  return (
    <>
      <div
        ref={setScroller}
        className="min-h-0 flex-1 overflow-auto outline-none focus-visible:outline-2 focus-visible:-outline-offset-2 focus-visible:outline-accent"
        role="grid"
        aria-label="Sheets by where they lie"
        aria-multiselectable
        aria-rowcount={lines.length}
        tabIndex={0}
        aria-activedescendant={current && `sheet-${current}`}
        onFocus={(event) => event.target === event.currentTarget && !current && setCurrent(order[0])}
        onKeyDown={key}
      >
        <div role="presentation" className="relative" style={{ height: virtualizer.getTotalSize() }}>
          {items.map(({ index, start, key: at }) => {
            const line = lines[index];
            return (
              <div
                key={at}
                ref={virtualizer.measureElement}
                data-index={index}
                role="presentation"
                className="absolute inset-x-0 top-0"
                style={{ transform: `translateY(${start}px)` }}
              >
                {'sheet' in line ? (
                  <SheetRow
                    sheet={line.sheet}
                    list={list}
                    row={index + 1}
                    current={line.sheet.documentId === current}
                    ticked={chosen.has(line.sheet.documentId)}
                    onTick={(on) => tick([line.sheet.documentId], on)}
                  />
                ) : (
                  <PlaceRow
                    place={line.place}
                    sheets={line.sheets.length}
                    row={index + 1}
                    ticked={line.sheets.every(({ documentId }) => chosen.has(documentId))}
                    onTick={(on) =>
                      tick(
                        line.sheets.map(({ documentId }) => documentId),
                        on,
                      )
                    }
                  />
                )}
              </div>
            );
          })}
        </div>
      </div>
      <Foot
        list={list}
        ticked={sheets.filter(({ documentId }) => ticked.includes(documentId))}
        places={places}
        onDone={() => setTicked(new Set())}
      />
    </>
  );
}

const paperOf = ({ folderId, documentId }: Sheet) => `/shelf/${folderId}/${documentId}`;

function PlaceRow({
  place,
  sheets,
  row,
  ticked,
  onTick,
}: {
  place: string;
  sheets: number;
  row: number;
  ticked: boolean;
  onTick: (on: boolean) => void;
}) {
  return (
    <div role="row" aria-rowindex={row} className="flex items-center border-b border-rule bg-sunken px-4 py-1.5">
      <span role="gridcell">
        <label className="flex items-center gap-3 font-semibold pointer-coarse:min-h-11">
          <input type="checkbox" tabIndex={-1} checked={ticked} onChange={({ target }) => onTick(target.checked)} />
          {place}
          <span className="font-normal text-quiet">{count(sheets, 'sheet')}</span>
        </label>
      </span>
    </div>
  );
}

function SheetRow({
  sheet,
  list,
  row,
  current,
  ticked,
  onTick,
}: {
  sheet: Sheet;
  list: SheetListId;
  row: number;
  current: boolean;
  ticked: boolean;
  onTick: (on: boolean) => void;
}) {
  const { documentId, name, kind, vendor, day, folderPath } = sheet;
  return (
    <div
      role="row"
      id={`sheet-${documentId}`}
      aria-rowindex={row}
      aria-selected={ticked}
      className={`flex min-h-[46px] flex-wrap items-center gap-x-3 sm:flex-nowrap border-b border-rule px-4 py-1 text-sm ${current ? 'bg-raised outline-1 -outline-offset-1 outline-accent' : ''}`}
    >
      <span role="gridcell" className="grid shrink-0 place-items-center pointer-coarse:size-11">
        <input
          type="checkbox"
          tabIndex={-1}
          aria-label={name}
          checked={ticked}
          onChange={({ target }) => onTick(target.checked)}
        />
      </span>
      <span role="gridcell" className="hidden w-24 shrink-0 font-mono sm:block">
        {shownDay(day)}
      </span>
      <span role="gridcell" className="min-w-0 flex-1 basis-60">
        <Link tabIndex={-1} className="underline underline-offset-2" to={paperOf(sheet)}>
          {name}
        </Link>
        <span className="block truncate text-xs text-quiet">
          {[kindName(kind), vendor, folderPath?.replaceAll('/', ' / ')].filter(Boolean).join(' · ')}
        </span>
      </span>
      <span role="gridcell" className="w-full shrink-0 pl-7 text-xs pointer-coarse:pl-14 sm:w-[40%] sm:pl-0">
        <Why sheet={sheet} list={list} />
      </span>
    </div>
  );
}

/** Why a sheet is in its list, as far as it matters there. */
function Why({ sheet, list }: { sheet: Sheet; list: SheetListId }) {
  const { faults, why, source, mayGoFrom, goneAt, goneBy, fileUntil } = sheet;
  if (list === 'gone')
    return (
      <>
        Gone since {goneAt && shownMoment(goneAt)}
        {goneBy && `, by ${goneBy}`}
      </>
    );
  if (list === 'past') return <>The file had to be kept until {fileUntil && shownDay(fileUntil)}</>;
  if (list === 'unproven') return <span className="text-attention">! {faults.join('; ')}</span>;
  const until = list === 'keep' && mayGoFrom && `It may go from ${shownDay(mayGoFrom)}. `;
  return (
    <>
      {until}
      {why}.
      {source && (
        <span className="block truncate text-quiet" title={source}>
          {fileUntil && `File until ${shownDay(fileUntil)} · `}
          {source}
        </span>
      )}
    </>
  );
}

/** What is done with the sheets that are ticked. */
function Foot({
  list,
  ticked,
  places,
  onDone,
}: {
  list: SheetListId;
  ticked: readonly Sheet[];
  places: readonly Place[];
  onDone: () => void;
}) {
  const { tell } = useNotices();
  const change = useChange(endpoints.changeSheets, ['sheet']);
  const ids = ticked.map(({ documentId }) => documentId);
  const sheets = count(ids.length, 'sheet');
  // As many as are changed at once, one lot after the other.
  const say = async (those: readonly string[], to: object) => {
    for (let from = 0; from < those.length; from += MOST_AT_ONCE)
      await change.mutateAsync({ body: { ids: those.slice(from, from + MOST_AT_ONCE), ...to } });
  };
  const all = async (text: string, to: object, back: () => Promise<void>) => {
    try {
      await say(ids, to);
    } catch {
      return;
    }
    onDone();
    tell({ text, action: { label: 'Undo', run: () => void back().catch(() => undefined) } });
  };
  /** Puts back what each of them had. */
  const asBefore = (name: 'placeId' | 'said') => async () => {
    const before = new Map<string | null, string[]>();
    for (const sheet of ticked) before.set(sheet[name], [...(before.get(sheet[name]) ?? []), sheet.documentId]);
    for (const [value, those] of before) await say(those, { [name]: value });
  };
  const nothing = ids.length === 0;
  return (
    <div
      aria-label="With the sheets that are ticked"
      role="group"
      className="flex flex-wrap items-center gap-3 border-t border-rule bg-raised px-4 py-2"
    >
      <span role="status" className="min-w-32">
        {nothing ? 'Nothing is ticked' : `${sheets} ticked`}
      </span>
      {list === 'may-go' && (
        <Button
          main
          disabled={nothing}
          onClick={() =>
            void all(`${sheets} written down as shredded.`, { gone: true }, () => say(ids, { gone: false }))
          }
        >
          They are shredded
        </Button>
      )}
      {list === 'gone' ? (
        <Button
          disabled={nothing}
          onClick={() => void all(`${sheets} still there.`, { gone: false }, () => say(ids, { gone: true }))}
        >
          They are still there
        </Button>
      ) : (
        <>
          {list === 'keep' ? (
            <Button
              disabled={nothing}
              onClick={() => void all(`${sheets} may go, once proven.`, { said: 'may go' }, asBefore('said'))}
            >
              They may go all the same
            </Button>
          ) : (
            <Button
              disabled={nothing}
              onClick={() => void all(`${sheets} to be kept.`, { said: 'keep' }, asBefore('said'))}
            >
              Keep them
            </Button>
          )}
          {ticked.some(({ said }) => said) && (
            <Button onClick={() => void all('The rules decide again.', { said: null }, asBefore('said'))}>
              As the rules say
            </Button>
          )}
          <Choice
            label="They lie in"
            shown
            value={LEAVE}
            choices={[
              { value: LEAVE, name: '…' },
              ...places.filter(({ retired }) => !retired).map(({ id, name }) => ({ value: id, name })),
              { value: NOWHERE, name: 'no place that is known' },
            ]}
            onChange={(to) => {
              if (nothing || to === LEAVE) return;
              const name = places.find(({ id }) => id === to)?.name;
              void all(
                name ? `${sheets} in “${name}”.` : `${sheets} in no place that is known.`,
                { placeId: to === NOWHERE ? null : to },
                asBefore('placeId'),
              );
            }}
          />
        </>
      )}
    </div>
  );
}
