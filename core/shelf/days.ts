const DAY_MS = 86_400_000;

/** How many days lie between two days (ISO 8601); negative when the second is the earlier. */
export function daysBetween(from: string, to: string): number {
  return Math.round((Date.parse(to) - Date.parse(from)) / DAY_MS);
}

/** The day so many days after another (ISO 8601). */
export function addDays(day: string, days: number): string {
  return new Date(Date.parse(day) + days * DAY_MS).toISOString().slice(0, 10);
}
