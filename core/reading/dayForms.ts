/** How days are written: ISO 8601, with points, with strokes, the month first, in words. */
export const DAY_FORMS = ['iso', 'points', 'strokes', 'monthFirst', 'words'] as const;
export type DayForm = (typeof DAY_FORMS)[number];

const MONTHS = 'January February March April May June July August September October November December'.split(' ');

/** A day (ISO 8601) as it is shown; what is no day stays as it is. */
export function writeDay(day: string, form: DayForm = 'iso'): string {
  if (!isDay(day)) return day;
  const [year, month, date] = day.split('-');
  switch (form) {
    case 'points':
      return `${date}.${month}.${year}`;
    case 'strokes':
      return `${date}/${month}/${year}`;
    case 'monthFirst':
      return `${month}/${date}/${year}`;
    case 'words':
      return `${Number(date)} ${MONTHS[Number(month) - 1]} ${year}`;
    default:
      return day;
  }
}

/** A day typed in a form that another one would be misread for, in ISO 8601; anything else stays as it was typed. */
export function readTypedDay(typed: string, form: DayForm): string {
  const found = form === 'monthFirst' && /^\s*(\d{1,2})[/.-](\d{1,2})[/.-](\d{4})\s*$/.exec(typed);
  if (!found) return typed;
  const day = `${found[3]}-${found[1].padStart(2, '0')}-${found[2].padStart(2, '0')}`;
  return isDay(day) ? day : typed;
}

/** The day of a moment, in the time where it is asked; ISO 8601. */
export function dayOf(moment: Date): string {
  const two = (value: number) => String(value).padStart(2, '0');
  return `${moment.getFullYear()}-${two(moment.getMonth() + 1)}-${two(moment.getDate())}`;
}

/** A moment as a day and the time on it, in the time where it is shown. */
export function writeMoment(moment: Date, form: DayForm = 'iso', { seconds = false } = {}): string {
  const two = (value: number) => String(value).padStart(2, '0');
  const time = `${two(moment.getHours())}:${two(moment.getMinutes())}${seconds ? `:${two(moment.getSeconds())}` : ''}`;
  return `${writeDay(dayOf(moment), form)} ${time}`;
}

/** Whether a text is a day that there is, in ISO 8601, of a year in which papers were written. */
export function isDay(text: string): boolean {
  const found = /^(19|20)\d{2}-\d{2}-\d{2}$/.test(text);
  return found && new Date(`${text}T00:00:00Z`).toJSON()?.slice(0, 10) === text;
}
