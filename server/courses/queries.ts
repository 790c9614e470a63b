import { DEFAULT_KEY } from '#core/margin';
import { Course, CourseSummary } from '../../contract/courses.ts';
import { select, selectOne, type Queries } from '../db/database.ts';
import { addCourse, enrol } from '../school/people.ts';
import { NEWEST } from '../submissions/state.ts';

export const selectCourses = (db: Queries, person: string): Promise<CourseSummary[]> =>
  select(
    db,
    CourseSummary,
    `select c.id, c.title, e.role = 'teacher' as teaches, c.put_aside_at is not null as aside from courses c
     join enrolments e on e.course = c.id and e.person = $1 and e.role <> 'left' where not c.second_marking order by aside, teaches desc, c.title, c.id`,
    [person],
  );

const names = (role: string): string => `(select coalesce(jsonb_agg(p.name order by p.name, p.id), '[]')
  from enrolments e join people p on p.id = e.person where e.course = c.id and e.role = '${role}')`;

/** Of how many students the newest work `s` in an assignment `a` is so. */
const works = (condition: string): string =>
  `(select count(*)::int from submissions s where s.assignment = a.id and ${NEWEST} and ${condition})`;

const CourseRow = Course.extend({ marginKey: Course.shape.marginKey.nullable() });

/** A course with what is set in it; about students and their works only teachers learn. */
export const selectCourse = async (db: Queries, course: string, teaches: boolean): Promise<Course | undefined> => {
  const row = await selectOne(
    db,
    CourseRow,
    `select c.id, c.title, $2::boolean as teaches, c.put_aside_at is not null as aside, c.terms, c.margin_key as "marginKey",
       ${names('teacher')} as teachers,
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
  return row && { ...row, marginKey: row.marginKey ?? [...DEFAULT_KEY] };
};

/** A course of one's own. Call in a transaction. */
export async function insertCourse(tx: Queries, title: string, teacher: string): Promise<CourseSummary> {
  const id = await addCourse(tx, title);
  await enrol(tx, id, teacher, 'teacher');
  return { id, title, teaches: true, aside: false };
}

export async function updateCourse(
  db: Queries,
  course: string,
  { title, terms, aside }: { title?: string | undefined; terms?: string[] | undefined; aside?: boolean | undefined },
): Promise<CourseSummary> {
  const [row] = await select(
    db,
    CourseSummary,
    `update courses set title = coalesce($2, title), terms = coalesce($3::jsonb, terms),
       put_aside_at = case when $4::boolean is null then put_aside_at when $4 then coalesce(put_aside_at, now()) end
     where id = $1 returning id, title, true as teaches, put_aside_at is not null as aside`,
    [course, title ?? null, terms ? JSON.stringify(terms) : null, aside ?? null],
  );
  return row!;
}
