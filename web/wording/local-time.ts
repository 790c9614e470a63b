import * as localTime from '#core/workflow';

/** The zone of this browser's clock, e.g. `Europe/Lisbon`. */
export const ownZone = (): string => Intl.DateTimeFormat().resolvedOptions().timeZone;

/** An instant as a field for date and time has it: `2026-11-27T20:15`. */
export const toLocal = (instant: string | number, zone = ownZone()): string => localTime.toLocal(instant, zone);

/** The instant that a person means by date and time; undefined where there is none. */
export const fromLocal = (local: string, zone = ownZone()): string | undefined => localTime.fromLocal(local, zone);

/** The day of an instant: `2026-11-27`. */
export const dayOf = (instant: string, zone = ownZone()): string => localTime.dayOf(instant, zone);
