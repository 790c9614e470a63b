const LOCALE = 'en-GB';
const day = new Intl.DateTimeFormat(LOCALE, { weekday: 'short', day: 'numeric', month: 'short' });
const time = new Intl.DateTimeFormat(LOCALE, { hour: '2-digit', minute: '2-digit' });

/** `Tue 24 Nov, 14:05` */
export const dayAndTime = (instant: string): string => {
  const date = new Date(instant);
  return `${day.format(date)}, ${time.format(date)}`;
};

/** `14:05` */
export const timeOfDay = (date: Date): string => time.format(date);
