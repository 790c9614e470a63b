import type { ObjectKind, Standings } from '#core/workflow';
import { z } from 'zod';
import { BANKED_FOR, blindTo, GIVEN_TO, LOOKS_AFTER, TEACHES, viewerIn } from './visible.ts';

const LEARNS = `exists (select from enrolments e where e.course = a.course and e.person = $1 and e.role = 'student')`;

const IN_COURSE = `${TEACHES} as teacher, ${LEARNS} as student`;

/** A work that was withdrawn is there for its author alone; what is put aside or private, for teachers. */
const BLIND = blindTo(viewerIn('$1'));
const SECOND = `exists (select from moderations d where d.second_assignment = a.id`;
const TO_WORK = `s.withdrawn_at is null and ${TEACHES} and not ${BLIND} as teacher, s.student = $1 and not ${SECOND}) as author,
  ${SECOND}) as second, ${SECOND} and d.finished_at is not null) as closed, ${TEACHES} and ${BLIND} as blind,
  s.returned_at is not null as returned, coalesce(s.held = 'remarks', false) as silent, s.opened_at is not null as opened`;

const OF_REMARK = `join submissions s on s.id = r.submission join assignments a on a.id = s.assignment`;
/** As whoever comes to a recording in another way than by a work. */
const NO_WORK = 'false, false, false';
const REMARK_SHOWS = `((r.put_aside_at is null and not r.private) or ${TEACHES})`;
const REPLY_SHOWS = `r.put_aside_at is null and (not r.private or ${TEACHES})`;

/** How a person `$1` stands to an object `$2`; a row for each way in which they come to it. */
export const STANDING: Record<ObjectKind, string> = {
  // The course of a second marking is there for its desk alone.
  course: `select ${IN_COURSE} from (select id as course from courses where not second_marking) a where a.course = $2`,
  // What is not open is there for its teachers alone.
  assignment: `select ${TEACHES} as teacher, a.open and ${LEARNS} as student, ${SECOND}) as second from assignments a where a.id = $2`,
  submission: `select ${TO_WORK} from submissions s join assignments a on a.id = s.assignment where s.id = $2`,
  remark: `select ${TO_WORK} from remarks r ${OF_REMARK} where r.id = $2 and ${REMARK_SHOWS}`,
  recording: `
    select 'remark' as holder, g.owner = $1 as owner, ${TO_WORK}
    from recordings g join remarks r on r.recording = g.id ${OF_REMARK} where g.id = $2 and ${REMARK_SHOWS}
    union all
    select 'reply', g.owner = $1, ${TO_WORK}
    from recordings g join replies y on y.recording = g.id join remarks r on r.id = y.remark ${OF_REMARK}
    where g.id = $2 and ${REPLY_SHOWS}
    union all
    select 'bank', b.owner = $1, b.owner = $1, false, ${NO_WORK}, false, false, false from banked_remarks b where b.recording = $2 and ${BANKED_FOR}
      and (b.owner = $1 or b.lends_voice)
    union all
    select 'bank', true, true, false, ${NO_WORK}, false, false, false from greetings h where h.recording = $2 and h.teacher = $1
    union all
    select 'note', a.author = $1, ${TEACHES}, ${LEARNS}, ${NO_WORK}, true, false, true from notes a
    where a.recording = $2 and (a.put_aside_at is null or ${TEACHES})`,
  note: `select ${IN_COURSE} from notes a where a.id = $2`,
  moderation: `select ${TEACHES} as teacher, d.marker = $1 as marker, d.finished_at is not null as finished
    from moderations d join assignments a on a.id = d.assignment where d.id = $2 and d.called_off_at is null`,
  banked: `select b.owner = $1 as owner, ${BANKED_FOR} as shared from banked_remarks b where b.id = $2`,
  handout: `select ${TEACHES} as teacher, a.open and ${LEARNS} and ${GIVEN_TO} as student
    from handouts h join assignments a on a.id = h.assignment where h.id = $2`,
  person: `select exists (select from people me where me.id = $1 and me.steward) as steward, not p.steward as other,
    ${LOOKS_AFTER} as own from people p where p.id = $2`,
  stamp: 'select owner = $1 as owner from stamp_pictures where id = $2',
  upload: 'select owner = $1 as owner from uploads where id = $2',
};

const InCourse = z.object({ teacher: z.boolean(), student: z.boolean() });
const ToWork = z.object({
  teacher: z.boolean(),
  author: z.boolean(),
  returned: z.boolean(),
  silent: z.boolean(),
  opened: z.boolean(),
  second: z.boolean(),
  closed: z.boolean(),
  blind: z.boolean(),
});

export const STANDING_ROWS: { [Kind in ObjectKind]: z.ZodType<Standings[Kind]> } = {
  course: InCourse,
  assignment: InCourse.extend({ second: z.boolean() }),
  submission: ToWork,
  remark: ToWork,
  recording: ToWork.extend({ holder: z.enum(['remark', 'reply', 'bank', 'note']), owner: z.boolean() }),
  note: InCourse,
  moderation: z.object({ teacher: z.boolean(), marker: z.boolean(), finished: z.boolean() }),
  handout: InCourse,
  banked: z.object({ owner: z.boolean(), shared: z.boolean() }),
  person: z.object({ steward: z.boolean(), other: z.boolean(), own: z.boolean() }),
  stamp: z.object({ owner: z.boolean() }),
  upload: z.object({ owner: z.boolean() }),
};
