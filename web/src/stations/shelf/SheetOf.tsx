import { endpoints } from '@crow/contract/endpoints';
import { Choice } from '../../parts/controls';
import { shownDay } from '../../parts/days';
import { useNotices } from '../../parts/notices';
import { useChange, useMay, useSheet } from '../../queries';
import { sayState } from '../ledger/sheets/sheetGroups';

const NOWHERE = '';

/** What becomes of the sheet of a paper, and where it lies. */
export function SheetOf({ id }: { id: string }) {
  const works = useMay('work');
  const { tell } = useNotices();
  const { data } = useSheet(id, works);
  const change = useChange(endpoints.changeSheets, ['sheet']);
  if (!data?.sheet) return null;
  const { sheet, places } = data;
  const { placeId, why, source, fileUntil } = sheet;
  const lay = (to: string | null) =>
    change.mutate({ body: { ids: [id], placeId: to } }, () =>
      tell({
        text: to
          ? `The sheet lies in “${places.find((each) => each.id === to)?.name}”.`
          : 'The sheet lies nowhere that is known.',
        action: { label: 'Undo', run: () => change.mutate({ body: { ids: [id], placeId } }) },
      }),
    );
  return (
    <section aria-label="The sheet" className="space-y-1 text-sm">
      <p title={[why, source].filter(Boolean).join('. ')}>{sayState(sheet, shownDay)}</p>
      {fileUntil && <p className="text-quiet">The file must be kept until {shownDay(fileUntil)}.</p>}
      {places.length > 0 && (
        <Choice
          label="The sheet lies in"
          shown
          value={placeId ?? NOWHERE}
          choices={[
            { value: NOWHERE, name: 'no place that is known' },
            ...places
              .filter((each) => !each.retired || each.id === placeId)
              .map(({ id: value, name }) => ({ value, name })),
          ]}
          onChange={(to) => lay(to || null)}
        />
      )}
    </section>
  );
}
