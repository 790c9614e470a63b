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

/** Whether teachers do not see yet whose the work `s` in assignment `a` is. */
export const NAMELESS = `(a.anonymous and s.id is not null and s.returned_at is null)`;

/** What the student `p` of such a work is called by its teachers: always the same in one assignment. */
export const SHOWN_NAME = `case when ${NAMELESS}
  then 'Student ' || upper(substr(md5(a.id::text || p.id::text), 1, 4)) else p.name end`;

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

/** Whether a person marks the work `s` a second time and must not see yet what was given. */
export const blindTo = (
  person: string,
): string => `exists (select from moderated_works w join moderations d on d.id = w.moderation where w.work = s.id
  and d.marker = ${person} and d.finished_at is null and d.called_off_at is null)`;

/** Whether a person `$1` may use the banked remark `b`: it is theirs, or its owner shares it with them. */
export const BANKED_FOR = `(b.owner = $1 or b.put_aside_at is null and exists (select from bank_shares h where h.banked = b.id
  and (h.person = $1 or exists (select from enrolments e where e.course = h.course and e.person = $1 and e.role = 'teacher'))))`;

/** Whether a student `$1` has been given what is handed out as `h`. */
export const GIVEN_TO = `h.put_aside_at is null and (h.given = 'atOnce' or exists (select from submissions s
  where s.assignment = h.assignment and s.student = $1 and s.returned_at is not null))`;

/** Whether the student of a work has been given the remarks on it. */
export const hasRemarks = (work: string): string =>
  `${work}.returned_at is not null and ${work}.held is distinct from 'remarks'`;

/** Which remarks a person `$1` may read among all; a condition on remark `r`, work `s` and assignment `a`. */
export const READABLE_REMARK = `s.withdrawn_at is null and r.put_aside_at is null
  and (${TEACHES} and not ${blindTo('$1')}
    or (s.student = $1 and ${hasRemarks('s')} and not r.private))`;
