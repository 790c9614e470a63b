const two = (value: number): string => String(value).padStart(2, '0');

/** An instant as a field for date and time has it: `2026-11-27T20:15`, by the clock of this browser. */
export function toLocal(instant: string): string {
  const date = new Date(instant);
  const day = `${date.getFullYear()}-${two(date.getMonth() + 1)}-${two(date.getDate())}`;
  return `${day}T${two(date.getHours())}:${two(date.getMinutes())}`;
}

/**
 * The instant that a person means by date and time on the clock of this browser. Of an hour that comes twice it is the first.
 * @returns undefined where it is no time, or one that the clock jumps over
 */
export function fromLocal(local: string): string | undefined {
  const date = new Date(local);
  if (Number.isNaN(date.getTime())) return undefined;
  const instant = date.toISOString();
  return toLocal(instant) === local.slice(0, 16) ? instant : undefined;
}

/** The zone of this browser's clock, as people read it: `Europe/Lisbon`. */
export const zoneName = (): string => Intl.DateTimeFormat().resolvedOptions().timeZone.replaceAll('_', ' ');
