import { z } from 'zod';
import { Hundredths, Id, Instant, Nothing } from './basics.ts';
import { endpoint } from './endpoint.ts';
import { RosterReport } from './roster.ts';

const Address = z.url({ protocol: /^https$/, error: 'is not a web address that begins with https://' }).max(500);
const Line = z.string().trim().min(1).max(300);

/** A learning platform, as the steward of a school enters it. */
export const NewPlatform = z.object({
  name: Line,
  issuer: Line,
  clientId: Line,
  authAddress: Address,
  tokenAddress: Address,
  keysAddress: Address,
  trustsMail: z.boolean(),
  /** Its id for this school's deployment; empty where the first launch is to say it. */
  deployment: z.string().trim().max(255).default(''),
});
export type NewPlatform = z.infer<typeof NewPlatform>;
/** The simulated one is asked in plain HTTP, on the machine itself. */
export const Platform = NewPlatform.extend({
  ...{ id: Id, standIn: z.boolean() },
  ...{ authAddress: z.url(), tokenAddress: z.url(), keysAddress: z.url() },
});
export type Platform = z.infer<typeof Platform>;

export const readPlatforms = endpoint({
  method: 'GET',
  path: '/platforms',
  answer: z.object({
    platforms: z.array(Platform),
    /** What the platform has to be told of us. */
    ours: z.object({ login: z.string(), launch: z.string(), keys: z.string() }),
  }),
});
export const addPlatform = endpoint({ method: 'POST', path: '/platforms', body: NewPlatform, answer: Platform });
/** Nobody comes from there any more. People and grades stay. */
export const removePlatform = endpoint({ method: 'DELETE', path: '/platforms/:platform', answer: Nothing });

/** A course of a platform from which somebody has come, who is to say which course it is here. */
export const readLaunched = endpoint({
  method: 'GET',
  path: '/launched/:context',
  answer: z.object({
    title: z.string(),
    platform: z.string(),
    course: Id.nullable(),
    teaches: z.boolean(),
    /** Those that whoever asks teaches. */
    courses: z.array(z.object({ id: Id, title: z.string() })),
  }),
});
/** @param course null for a new one */
export const connectCourse = endpoint({
  method: 'PUT',
  path: '/launched/:context',
  body: z.object({ course: Id.nullable() }),
  answer: z.object({ course: Id }),
});

const SentResult = z.object({ points: Hundredths, possible: Hundredths });

const SentState = z.object({
  assignment: Id,
  title: z.string(),
  /** Results that students see, so that they may go out. */
  returned: z.int(),
  /** Of them, those that are there as they are here. */
  sent: z.int(),
  /** Results that the platform holds and students don't see any more: excused, or taken back. */
  toWithdraw: z.int(),
  /** Where the platform holds something else than students see. */
  different: z.array(z.object({ student: z.string(), here: SentResult.nullable(), there: SentResult.nullable() })),
  lastAt: Instant.nullable(),
  problems: z.array(z.object({ student: z.string(), why: z.string() })),
});
export type SentState = z.infer<typeof SentState>;

/** Who has come from a platform in this browser and is to say whether they have an account here. */
export const readArrival = endpoint({
  method: 'GET',
  path: '/platform-arrival',
  answer: z.object({
    platform: z.string(),
    /** The course there. */
    title: z.string(),
    name: z.string(),
    mail: z.string(),
    teaches: z.boolean(),
    /** Somebody here has the same mail address. */
    known: z.boolean(),
  }),
});
const Place = z.object({
  /** Where in the app it goes on. */
  to: z.string(),
});
/** Whoever is signed in is the one who came. */
export const linkArrival = endpoint({ method: 'POST', path: '/platform-arrival/link', answer: Place });
/** Whoever came has no account here and gets one. */
export const newFromArrival = endpoint({ method: 'POST', path: '/platform-arrival/new', answer: Place });

export const readCoursePlatform = endpoint({
  method: 'GET',
  path: '/courses/:course/platform',
  answer: z.object({
    course: z.string(),
    /** Null where none is connected. */
    platform: z.object({ name: z.string(), title: z.string(), lists: z.boolean(), grades: z.boolean() }).nullable(),
    assignments: z.array(SentState),
  }),
});

/** The class list of the platform, and what comes of each line. */
export const listFromPlatform = endpoint({
  method: 'POST',
  path: '/courses/:course/platform/members',
  body: z.object({ bringIn: z.boolean() }),
  answer: RosterReport,
});

/** Sends some of the grades of an assignment; asked for again until none is left. */
export const sendGrades = endpoint({
  method: 'POST',
  path: '/courses/:course/platform/grades',
  body: z.object({
    assignment: Id,
    /** What was tried since then is not tried again. */
    since: Instant,
  }),
  answer: z.object({ left: z.int(), state: SentState }),
});
