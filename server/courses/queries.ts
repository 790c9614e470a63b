import { DEFAULT_KEY } from '#core/margin';
import { z } from 'zod';
import { Course, CourseSummary } from '../../contract/courses.ts';
import { MarginKey } from '../../contract/margin-key.ts';
import { select, selectOne, type Queries } from '../db/database.ts';

const KeyRow = z.object({ margin_key: MarginKey.nullable() });

/** The margin key of the course that a work belongs to. */
export async function selectMarginKey(db: Queries, submission: string): Promise<MarginKey> {
  const row = await selectOne(
    db,
    KeyRow,
    `select c.margin_key from submissions s join assignments a on a.id = s.assignment join courses c on c.id = a.course
     where s.id = $1`,
    [submission],
  );
  return row?.margin_key ?? [...DEFAULT_KEY];
}

export async function updateMarginKey(db: Queries, course: string, key: MarginKey): Promise<void> {
  await db.query('update courses set margin_key = $2 where id = $1', [course, JSON.stringify(key)]);
}

/** The kinds that remarks of a course have, with how many; what is put aside counts too, since it can come back. */
export const selectKindsInUse = (db: Queries, course: string): Promise<{ kind: string; remarks: number }[]> =>
  select(
    db,
    z.object({ kind: z.string(), remarks: z.int() }),
    `select r.kind, count(*)::int as remarks from remarks r join submissions s on s.id = r.submission
     join assignments a on a.id = s.assignment where a.course = $1 group by r.kind`,
    [course],
  );

export const selectCourses = (db: Queries, person: string): Promise<CourseSummary[]> =>
  select(
    db,
    CourseSummary,
    `select c.id, c.title, e.role = 'teacher' as teaches from courses c
     join enrolments e on e.course = c.id and e.person = $1 order by teaches desc, c.title, c.id`,
    [person],
  );

const names = (role: string): string => `(select coalesce(jsonb_agg(p.name order by p.name, p.id), '[]')
  from enrolments e join people p on p.id = e.person where e.course = c.id and e.role = '${role}')`;

/** How many students have a work in an assignment `a` of which the condition on work `s` is true. */
const works = (condition: string): string => `(select count(distinct s.student)::int from submissions s
  where s.assignment = a.id and s.withdrawn_at is null and ${condition})`;

/** A course with what is set in it; about students and their works only teachers learn. */
export const selectCourse = (db: Queries, course: string, teaches: boolean): Promise<Course | undefined> =>
  selectOne(
    db,
    Course,
    `select c.id, c.title, $2::boolean as teaches, ${names('teacher')} as teachers,
       case when $2 then ${names('student')} else '[]' end as students,
       (select coalesce(jsonb_agg(jsonb_build_object('id', a.id, 'title', a.title, 'dueAt', a.due_at,
            'handedIn', case when $2 then ${works('true')} end,
            'returned', case when $2 then ${works('s.returned_at is not null')} end)
          order by a.due_at nulls last, a.title, a.id), '[]') from assignments a where a.course = c.id) as assignments
     from courses c where c.id = $1`,
    [course, teaches],
  );
