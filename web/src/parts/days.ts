import { DayForm, readTypedDay, writeDay, writeMoment } from '@crow/core/reading/dayForms';

/** How days are written in this window: as the settings say. Read before anything is drawn again after a change. */
let form: DayForm = 'iso';

export function writeDaysAs(wanted: DayForm): void {
  form = wanted;
}

/** A day (ISO 8601) as it is shown. */
export const shownDay = (day: string): string => writeDay(day, form);
/** A moment (ISO 8601) as it is shown, in the time of this machine. */
export const shownMoment = (moment: string | Date, options?: { seconds?: boolean }): string =>
  writeMoment(new Date(moment), form, options);
/** A day as it was typed, told apart from one in another form. */
export const typedDay = (typed: string): string => readTypedDay(typed, form);
