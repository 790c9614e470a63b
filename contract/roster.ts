import { z } from 'zod';
import { Id, Instant } from './basics.ts';
import { endpoint } from './endpoint.ts';
import { PersonName, Slip } from './joining.ts';

const Mail = z.string().trim().max(200);
const StudentNumber = z.string().trim().max(40);

/** Somebody of a course, as its teachers see them. */
export const Member = z.object({
  id: Id,
  name: z.string(),
  login: z.string(),
  /** Empty where nobody said. */
  mail: z.string(),
  number: z.string(),
  teaches: z.boolean(),
  /** Is in the course no more; the works stay. */
  left: z.boolean(),
  /** Null until they have chosen a password. */
  cameInAt: Instant.nullable(),
  /** How many works they have handed in here. */
  works: z.int(),
});
export type Member = z.infer<typeof Member>;

/** Somebody who has an account, is asked into a course, and has not answered; called as whoever asked them did. */
export const Invited = z.object({ id: Id, name: z.string(), teaches: z.boolean(), madeAt: Instant });
export type Invited = z.infer<typeof Invited>;

/** What somebody is asked into. */
export const Invitation = z.object({
  course: Id,
  title: z.string(),
  teaches: z.boolean(),
  /** Null where that account is gone. */
  invitedBy: z.string().nullable(),
});
export type Invitation = z.infer<typeof Invitation>;

/** A class list, pasted or as a file, and what comes of each of its lines. */
export const MOST_LISTED = 1000;
export const RosterText = z.object({
  /** Empty where it comes as a file. */
  text: z.string().max(500_000),
  /** The two parts of each name are the other way round. */
  turned: z.boolean().default(false),
  /** Whether to do it, or only to say what would be done. */
  bringIn: z.boolean(),
});
export const RosterReport = z.object({
  lines: z.array(
    z.object({
      line: z.int(),
      name: z.string(),
      mail: z.string(),
      number: z.string(),
      fate: z.enum(['add', 'join', 'invite', 'known', 'refuse']),
      why: z.enum(['noName', 'longName', 'noMail', 'twice', 'otherName', 'teaches']).optional(),
    }),
  ),
  twoParts: z.boolean(),
  done: z.boolean(),
  /** Who is in the course now or invited to it, and was not before; for taking it back. */
  added: z.array(Id),
});
export type RosterReport = z.infer<typeof RosterReport>;

export const readMembers = endpoint({
  method: 'GET',
  path: '/courses/:course/members',
  answer: z.object({
    members: z.array(Member),
    invited: z.array(Invited),
    /** Until when the code of the course works; null where there is none. */
    codeUntil: Instant.nullable(),
    /** The school has a mail server. */
    mails: z.boolean(),
  }),
});
export const listStudents = endpoint({
  method: 'POST',
  path: '/courses/:course/roster',
  body: RosterText,
  upload: { files: 'perhaps', largest: 'picture' },
  answer: RosterReport,
});
/** Takes students out of the course who have handed in nothing in it, and takes invitations back. */
export const takeOut = endpoint({
  method: 'POST',
  path: '/courses/:course/roster/taken-out',
  body: z.object({ people: z.array(Id).min(1).max(MOST_LISTED) }),
  answer: z.object({ takenOut: z.array(Id) }),
});
/** Corrects how a student is called and known. */
export const changeMember = endpoint({
  method: 'PATCH',
  path: '/courses/:course/members/:person',
  body: z.object({ name: PersonName, mail: Mail, number: StudentNumber }).partial(),
  answer: Member,
});
/** Somebody who teaches the course too. Who is new gets a way in, to be sent to them. */
export const inviteTeacher = endpoint({
  method: 'POST',
  path: '/courses/:course/teachers',
  body: z.object({ name: PersonName, mail: Mail }),
  answer: z.object({
    slip: Slip.nullable(),
    mailed: z.boolean(),
    /** They have an account, and find the invitation when they sign in. */
    invited: z.boolean(),
  }),
});

/** What whoever asks is invited to. */
export const readInvitations = endpoint({
  method: 'GET',
  path: '/invitations',
  answer: z.object({ invitations: z.array(Invitation) }),
});
export const answerInvitation = endpoint({
  method: 'PUT',
  path: '/invitations/:invitation',
  body: z.object({ accept: z.boolean() }),
  answer: z.object({ invitations: z.array(Invitation) }),
});

/** A student leaves, and their works stay; or comes back. */
export const setLeft = endpoint({
  method: 'PUT',
  path: '/courses/:course/people/:person/left',
  body: z.object({ left: z.boolean() }),
  answer: Member,
});

/** Somebody was entered twice: what this one handed in is the other's from now on, and this one is gone. */
export const mergeMember = endpoint({
  method: 'POST',
  path: '/courses/:course/people/:person/merged',
  body: z.object({ into: Id }),
  answer: Member,
});
