/*
 * Who somebody is, is never decided by data from outside. Launches, class lists, pasted lists, files and merging all ask here what may
 * be done with a person whom the school knows already.
 */

/** How somebody whom the school knows stands to a course and to whoever brings data in. */
export interface Standing {
  /** In this course; null where they are not. */
  here: 'teacher' | 'student' | 'left' | null;
  /** Teaches somewhere, or is a steward. */
  staff: boolean;
  /** Was entered in a course of whoever brings the data, is in no other course, and has never signed in. */
  own: boolean;
}

/** What a list does with them: whoever has an account joins by accepting an invitation. */
export type Meeting = 'known' | 'join' | 'invite' | 'teaches';

export function meetingOf({ here, staff, own }: Standing): Meeting {
  if (here === 'teacher') return 'teaches';
  if (here === 'student') return 'known';
  return here === 'left' || (own && !staff) ? 'join' : 'invite';
}

/**
 * Whether a platform's word is enough that somebody there is the person with the same mail address here. A name or a number never is,
 * and whoever teaches or looks after the school links their account themselves.
 * @param trusted the school trusts the platform with addresses
 */
export const isLinkedByMail = (trusted: boolean, { staff }: Pick<Standing, 'staff'>): boolean => trusted && !staff;
