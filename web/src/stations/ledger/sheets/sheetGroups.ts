import { Place, Sheet } from '@crow/contract/keeping';
import { writeDay } from '@crow/core/reading/dayForms';

/** The lists that sheets are in, each with what stands over it when it is empty. */
export const SHEET_LISTS = [
  ['may-go', 'May go'],
  ['unproven', 'Not proven yet'],
  ['keep', 'Keep'],
  ['gone', 'Gone'],
  ['past', 'Files past their time'],
] as const;
export type SheetListId = (typeof SHEET_LISTS)[number][0];

/** Whether a sheet is in a list. @param today ISO 8601 */
export function isInList(list: SheetListId, { state, faults, fileUntil }: Sheet, today: string): boolean {
  if (list === 'past') return fileUntil !== null && fileUntil < today;
  if (list === 'may-go') return state === 'may go';
  if (list === 'gone') return state === 'gone';
  return state === 'keep' && faults.length > 0 === (list === 'unproven');
}

/** A heading, or a sheet below it. */
export type SheetLine = { place: string; sheets: Sheet[] } | { sheet: Sheet };

/** The sheets of a list by where they lie, in the order of the places, those that lie nowhere last. */
export function linesOf(sheets: readonly Sheet[], places: readonly Place[]): SheetLine[] {
  const order = [...places.map(({ id }) => id), null];
  return order.flatMap((placeId): SheetLine[] => {
    const those = sheets.filter((sheet) => sheet.placeId === placeId);
    if (those.length === 0) return [];
    const place = places.find(({ id }) => id === placeId)?.name ?? 'It is not said where';
    return [{ place, sheets: those }, ...those.map((sheet) => ({ sheet }))];
  });
}

/** What becomes of a sheet, in a sentence. */
export function sayState(
  { state, faults, mayGoFrom, said }: Sheet,
  shownDay: (day: string) => string = (day) => writeDay(day, 'iso'),
): string {
  if (state === 'gone') return 'The sheet is gone.';
  if (state === 'none') return 'It came as a file; there is no sheet.';
  if (state === 'may go') return 'The sheet may go.';
  if (faults.length > 0) return `Keep the sheet for now: ${faults.join('; ')}.`;
  return mayGoFrom && said !== 'keep' ? `Keep the sheet; it may go from ${shownDay(mayGoFrom)}.` : 'Keep the sheet.';
}
