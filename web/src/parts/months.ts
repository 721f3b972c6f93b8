const MONTHS = 'January February March April May June July August September October November December'.split(' ');

/** A month, `2026-03`, in words. */
export function monthName(month: string): string {
  return `${MONTHS[Number(month.slice(5)) - 1]} ${month.slice(0, 4)}`;
}
