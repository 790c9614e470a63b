const DAY = 24 * 60 * 60 * 1000;

/** An instant as a field for date and time has it: `2026-11-27T20:15`, by the clock of a zone. */
export function toLocal(instant: string | number, zone: string): string {
  // Swedes write dates as ISO 8601 does.
  const format = new Intl.DateTimeFormat('sv-SE', { timeZone: zone, dateStyle: 'short', timeStyle: 'short' });
  return format.format(new Date(instant)).replace(' ', 'T');
}

/**
 * The instant that a person means by date and time on the clock of a zone. Of an hour that comes twice it is the first.
 * @returns undefined where it is no time, or one that the clock jumps over
 */
export function fromLocal(local: string, zone: string): string | undefined {
  const minute = local.slice(0, 16);
  const asUtc = Date.parse(`${minute}Z`);
  if (Number.isNaN(asUtc)) return undefined;
  // The clock was changed at most once within these two days.
  const differences = [asUtc - DAY, asUtc + DAY].map((near) => Date.parse(`${toLocal(near, zone)}Z`) - near);
  const found = differences.map((difference) => asUtc - difference).filter((one) => toLocal(one, zone) === minute);
  return found.length > 0 ? new Date(Math.min(...found)).toISOString() : undefined;
}

/** The day of an instant by the clock of a zone: `2026-11-27`. */
export const dayOf = (instant: string, zone: string): string => toLocal(instant, zone).slice(0, 10);
