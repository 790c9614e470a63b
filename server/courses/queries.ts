import { Course, CourseSummary } from '../../contract/courses.ts';
import { select, selectOne, type Queries } from '../db/database.ts';
import { addCourse, enrol } from '../school/people.ts';
import { NEWEST } from '../submissions/state.ts';

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

/** Of how many students the newest work `s` in an assignment `a` is so. */
const works = (condition: string): string =>
  `(select count(*)::int from submissions s where s.assignment = a.id and ${NEWEST} and ${condition})`;

/** A course with what is set in it; about students and their works only teachers learn. */
export const selectCourse = (db: Queries, course: string, teaches: boolean): Promise<Course | undefined> =>
  selectOne(
    db,
    Course,
    `select c.id, c.title, $2::boolean as teaches, ${names('teacher')} as teachers,
       case when $2 then ${names('student')} else '[]' end as students,
       case when $2 then (select count(*)::int from enrolments e join people p on p.id = e.person
         where e.course = c.id and e.role = 'student' and p.came_in_at is null) end as "notIn",
       (select coalesce(jsonb_agg(jsonb_build_object('id', a.id, 'title', a.title, 'dueAt', a.due_at, 'open', a.open,
            'handedIn', case when $2 then ${works('true')} end,
            'returned', case when $2 then ${works('s.returned_at is not null')} end)
          order by a.due_at nulls last, a.title, a.id), '[]') from assignments a where a.course = c.id and (a.open or $2)) as assignments
     from courses c where c.id = $1`,
    [course, teaches],
  );

/** A course of one's own. Call in a transaction. */
export async function insertCourse(tx: Queries, title: string, teacher: string): Promise<CourseSummary> {
  const id = await addCourse(tx, title);
  await enrol(tx, id, teacher, 'teacher');
  return { id, title, teaches: true };
}

export async function updateCourse(db: Queries, course: string, { title }: { title: string }): Promise<void> {
  await db.query('update courses set title = $2 where id = $1', [course, title]);
}
