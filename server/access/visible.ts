/*
 * What of many objects a person may see: conditions for queries that answer more than one. `standing.ts` decides about the one
 * object that a request names; the two go together.
 */

/** For whom something is read. */
export interface Reader {
  /** Teaches the course; otherwise it is the student whose work it is. */
  teacher: boolean;
  person: string;
}

/** For what reads on behalf of nobody, e.g. an export by whoever runs the server: as a teacher does, or as the student would. */
export const asTeacher: Reader = { teacher: true, person: '00000000-0000-0000-0000-000000000000' };
export const asStudent: Reader = { ...asTeacher, teacher: false };

/** Which remarks `r` on a work that the reader may read are shown to them. */
export const shownRemark = ({ teacher }: Reader): string => (teacher ? 'true' : 'not r.private');

/**
 * Whether teachers do not see yet whose the work `s` in assignment `a` is: its newest version has not been returned. Earlier versions,
 * which were returned under a name, are nameless with it.
 */
export const NAMELESS = `(a.anonymous and s.id is not null and (select v.returned_at is null from submissions v
  where v.assignment = s.assignment and v.student = s.student and v.withdrawn_at is null order by v.version desc limit 1))`;

/** Nobody can tell from it whose it is: the secret of the assignment leaves the database nowhere. */
const hidden = (who: string): string => `md5(a.secret::text || ${who}.id::text)`;

/** What the student `who` of such a work is called by its teachers: always the same in one assignment. */
export const shownName = (who: string): string =>
  `case when ${NAMELESS} then 'Student ' || upper(substr(${hidden(who)}, 1, 4)) else ${who}.name end`;
export const SHOWN_NAME = shownName('p');

/** By what the student `who` of such a work is known to its teachers; it looks like any other id (RFC 9562, 5.8). */
export const shownId = (who: string): string => `case when ${NAMELESS}
  then overlay(overlay(${hidden(who)} placing '8' from 13) placing '8' from 17)::uuid else ${who}.id end`;
export const SHOWN_ID = shownId('p');

/** When something about such a work was: only on which day, since the moment may tell whose it is. */
export const shownAt = (moment: string): string =>
  `case when ${NAMELESS} then date_trunc('day', ${moment}, 'UTC') else ${moment} end`;

/** Whether a person `$1` teaches the course of assignment `a`. */
export const TEACHES = `exists (select from enrolments e where e.course = a.course and e.person = $1 and e.role = 'teacher')`;

/**
 * Whether a person `$1` looks after the entry `p`: it was made in a course of theirs, nobody of another course has anything to do with it, and
 * it is no steward's and no teacher's who has come in. Everybody else is the steward's.
 */
export const LOOKS_AFTER = `(not p.steward
  and exists (select from enrolments m where m.course = p.made_in and m.person = $1 and m.role = 'teacher')
  and not exists (select from enrolments o where o.person = p.id and (o.role = 'teacher' and p.came_in_at is not null
    or not exists (select from enrolments t where t.course = o.course and t.person = $1 and t.role = 'teacher'))))`;

/** Whether a person `p` teaches somewhere or is a steward. */
export const STAFF = `(p.steward or exists (select from enrolments e where e.person = p.id and e.role = 'teacher'))`;

declare const viewer: unique symbol;
/**
 * Whoever a query about remarks and scores is read by, as SQL. It is a type of its own, so that none can be written that has not asked by
 * whom: somebody who marks a second time must not see what was given, in no count and in no version.
 */
export type Viewer = string & { readonly [viewer]: true };
/** The person in a parameter. */
export const viewerIn = (parameter: `$${number}`): Viewer => parameter as Viewer;

/** Whether a person marks the work `s`, or another version of it, a second time and must not see yet what was given. */
export const blindTo = (
  person: Viewer,
): string => `exists (select from moderations d join moderated_works w on w.moderation = d.id join submissions m on m.id = w.work
  where d.marker = ${person} and d.finished_at is null and d.called_off_at is null
    and m.assignment = s.assignment and m.student = s.student)`;

/** A number about a work `s` that nobody who is blind to it learns. */
export const countFor = (person: Viewer, count: string): string =>
  `case when ${blindTo(person)} then 0 else ${count} end`;

/** Whether a person `$1` may use the banked remark `b`: it is theirs, or its owner shares it with them, who teach. */
export const BANKED_FOR = `(b.owner = $1 or b.put_aside_at is null and exists (select from bank_shares h where h.banked = b.id
  and (h.person = $1 and exists (select from enrolments e where e.person = $1 and e.role = 'teacher') or exists (select from enrolments e where e.course = h.course and e.person = $1 and e.role = 'teacher'))))`;

/** Whether a student `$1` has been given what is handed out as `h`. */
export const GIVEN_TO = `h.put_aside_at is null and (h.given = 'atOnce' or exists (select from submissions s
  where s.assignment = h.assignment and s.student = $1 and s.returned_at is not null))`;

/** Whether the student of a work has been given the remarks on it. */
export const hasRemarks = (work: string): string =>
  `${work}.returned_at is not null and ${work}.held is distinct from 'remarks'`;

/** Which remarks a person `$1` may read among all; a condition on remark `r`, work `s` and assignment `a`. */
export const READABLE_REMARK = `s.withdrawn_at is null and r.put_aside_at is null
  and (${TEACHES} and not ${blindTo(viewerIn('$1'))}
    or (s.student = $1 and ${hasRemarks('s')} and not r.private))`;
