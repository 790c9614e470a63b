export interface Invitation {
  name: string;
  school: string;
  /** Null where it is to the school as a whole. */
  course: string | null;
  /** Where one comes in. */
  address: string;
  login: string;
  /** Until when it works: an ISO 8601 instant. */
  until: string;
}

const day = new Intl.DateTimeFormat('en-GB', { dateStyle: 'long', timeZone: 'UTC' });

/** What somebody is written who may come in, as plain text. */
export function invitation({ name, school, course, address, login, until }: Invitation): {
  subject: string;
  body: string;
} {
  const place = course === null ? school : `“${course}” at ${school}`;
  return {
    subject: `Your way into ${course ?? school}`,
    body: [
      `Hello ${name},`,
      `you are invited to ${place}. Open this address and choose a password:`,
      address,
      `It works once, until ${day.format(new Date(until))}. Later you sign in as ${login}.`,
      '',
    ].join('\n\n'),
  };
}
