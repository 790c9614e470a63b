/*
 * Dates, numbers and durations as people read them, in one place. They follow the language of the interface, not that of the
 * browser: an English sentence with a date of another language in it reads like a mistake.
 */
const LOCALE = 'en-GB';

const day = new Intl.DateTimeFormat(LOCALE, { weekday: 'short', day: 'numeric', month: 'short' });
const time = new Intl.DateTimeFormat(LOCALE, { hour: '2-digit', minute: '2-digit' });
const share = new Intl.NumberFormat(LOCALE, { style: 'percent', maximumFractionDigits: 0 });
const tenth = new Intl.NumberFormat(LOCALE, { minimumFractionDigits: 1, maximumFractionDigits: 1 });
const short = new Intl.NumberFormat(LOCALE, { maximumSignificantDigits: 2 });
const whole = new Intl.NumberFormat(LOCALE, { maximumFractionDigits: 0 });
const languages = new Intl.DisplayNames(LOCALE, { type: 'language' });
const list = new Intl.ListFormat(LOCALE);

/** `Tue 24 Nov, 14:05` */
export const dayAndTime = (instant: string): string => {
  const date = new Date(instant);
  return `${day.format(date)}, ${time.format(date)}`;
};

const exact = new Intl.DateTimeFormat(LOCALE, { dateStyle: 'full', timeStyle: 'long' });
/** `Tuesday, 24 November 2026 at 14:05:07 GMT` */
export const exactTime = (instant: string): string => exact.format(new Date(instant));

/** `14:05` */
export const timeOfDay = (date: Date): string => time.format(date);

/** From 0 to 1 as `41%`. */
export const percent = (of: number): string => share.format(of);

/** Seconds as `2.5 s`. For what runs like a clock there is `clock` in core/audio. */
export const seconds = (value: number): string => `${tenth.format(value)} s`;

const KILO = 1024;

/** `3 kB`, `1.4 MB`: as people read the size of a file; counted as the server counts its limits. */
export function byteSize(bytes: number): string {
  if (bytes < KILO) return `${bytes} B`;
  const [size, unit] = bytes < KILO * KILO ? [bytes / KILO, 'kB'] : [bytes / KILO / KILO, 'MB'];
  return `${(size < 10 ? short : whole).format(size)} ${unit}`;
}

/** The English name of a language; its tag where there is none. */
export function languageName(tag: string): string {
  try {
    return languages.of(tag) ?? tag;
  } catch {
    return tag;
  }
}

/** `a, b and c` */
export const listOf = (items: readonly string[]): string => list.format(items);

/** `1 remark`, `3 remarks`. */
export const counted = (number: number, one: string, many = `${one}s`): string =>
  `${number} ${number === 1 ? one : many}`;
