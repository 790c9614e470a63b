import { z } from 'zod';
import { Id } from '../../contract/basics.ts';
import { ChartWork, CourseVoice, type AssignmentCharts } from '../../contract/charts.ts';
import { blindTo, NAMELESS, viewerIn } from '../access/visible.ts';
import { select, selectOne, type Queries } from '../db/database.ts';
import { selectBlind } from '../grading/blind.ts';
import { selectCells } from '../grading/cells.ts';
import { selectColumns } from '../grading/columns.ts';
import { selectRubric } from '../grading/queries.ts';
import { selectCourseKey } from '../margin-key/queries.ts';

const Facts = ChartWork.omit({ points: true, possible: true });

/** When a teacher did something about a work `s`. */
const MOMENTS = `(select coalesce(jsonb_agg(t.at order by t.at), '[]') from (
    select s.opened_at as at
    union all select r.made_at from remarks r where r.submission = s.id and r.put_aside_at is null and r.author <> s.student
    union all select k.chosen_at from scores k where k.submission = s.id
    union all select q.given_at from question_points q where q.submission = s.id
    union all select j.set_at from adjustments j where j.submission = s.id) t where t.at is not null)`;

export async function selectCharts(db: Queries, assignment: string, person: string): Promise<AssignmentCharts> {
  const { course, title } = (await selectOne(
    db,
    z.object({ course: Id, title: z.string() }),
    'select course, title from assignments where id = $1',
    [assignment],
  ))!;
  const found = await selectCells(db, await selectColumns(db, course, [assignment]));
  const blind = await selectBlind(db, person);
  const cells = [...found.values()].flatMap(({ cell }) =>
    cell.submission === null || blind.has(cell.submission) ? [] : [cell],
  );
  const facts = await select(
    db,
    Facts,
    `select s.id as submission, p.name as student, ${MOMENTS} as moments,
       (select coalesce(jsonb_object_agg(k.criterion, k.level), '{}') from scores k where k.submission = s.id and k.level is not null) as levels,
       least((select min(k.chosen_at) from scores k where k.submission = s.id),
         (select min(q.given_at) from question_points q where q.submission = s.id),
         (select j.set_at from adjustments j where j.submission = s.id and j.total is not null),
         (select min(h.changed_at) from grade_changes h where h.assignment = s.assignment and h.student = s.student
           and h.changed_at >= s.handed_in_at and h.now ->> 'points' is not null)) as "judgedAt"
     from submissions s join people p on p.id = s.student where s.id = any($1::uuid[]) order by p.name, s.id`,
    [cells.map(({ submission }) => submission)],
  );
  const cellOf = new Map(cells.map((cell) => [cell.submission, cell]));
  return {
    title,
    rubric: await selectRubric(db, assignment),
    works: facts.map((one) => {
      const { points, possible } = cellOf.get(one.submission)!;
      return { ...one, points, possible };
    }),
  };
}

const Student = CourseVoice.shape.students.element;

/** What students have been told about all their works, as far as it is known whose they are. */
export async function selectVoice(db: Queries, course: string, person: string): Promise<CourseVoice> {
  const students = await select(
    db,
    Student,
    `with said as (
       select s.student, r.kind, count(*)::int as remarks, coalesce(sum(g.duration), 0) as seconds
       from assignments a join submissions s on s.assignment = a.id and s.withdrawn_at is null and not ${NAMELESS}
         and not ${blindTo(viewerIn('$2'))}
       join remarks r on r.submission = s.id and r.put_aside_at is null and not r.private and r.author <> s.student
       left join recordings g on g.id = r.recording where a.course = $1 group by s.student, r.kind),
     newest as (
       select distinct on (s.student) s.student, s.id from assignments a
       join submissions s on s.assignment = a.id and s.withdrawn_at is null and not ${NAMELESS}
       where a.course = $1 order by s.student, s.handed_in_at desc, s.id)
     select p.id as student, p.name, coalesce(sum(said.seconds), 0)::float8 as seconds,
       coalesce(jsonb_object_agg(said.kind, said.remarks) filter (where said.kind is not null), '{}') as kinds, newest.id as submission
     from enrolments e join people p on p.id = e.person left join said on said.student = p.id left join newest on newest.student = p.id
     where e.course = $1 and e.role = 'student' group by p.id, p.name, newest.id order by p.name, p.id`,
    [course, person],
  );
  return { marginKey: await selectCourseKey(db, course), students };
}
