import { possiblePoints, PLAIN_SCHEME, type Rubric, type Scale } from '#core/grading';
import { z } from 'zod';
import { Question } from '../../contract/assignments.ts';
import { Id } from '../../contract/basics.ts';
import { CourseScheme, GradeColumn } from '../../contract/gradebook.ts';
import { Marking, Rubric as RubricSchema, Scale as ScaleSchema } from '../../contract/grading.ts';
import { MARKING_JSON } from '../assignments/marking.ts';
import { select, selectOne, type Queries } from '../db/database.ts';
import { RUBRIC_JSON } from './queries.ts';

const ColumnRow = GradeColumn.omit({ possible: true, shown: true }).extend({
  anonymous: z.boolean(),
  marking: Marking,
  version: z.int(),
  rubric: RubricSchema,
  questions: z.array(Question),
  scale: ScaleSchema,
});

/** An assignment with all that its results are made by. */
export interface Column extends Omit<z.infer<typeof ColumnRow>, 'rubric' | 'version'> {
  /** What a work is scored by: the newest rubric, or an earlier one that it stays with. */
  rubricOf(version: number | null): Rubric;
  possible: number | null;
  scale: Scale;
}

/** The assignments of a course, the first that is due first. @param only some of them */
export async function selectColumns(
  db: Queries,
  course: string,
  only: readonly string[] | null = null,
): Promise<Column[]> {
  const rows = await select(
    db,
    ColumnRow,
    `select a.id, a.title, a.term, a.category, (a.weight * 100)::int as weight, a.extra, a.due_at as "dueAt", a.open, a.anonymous,
       ${MARKING_JSON} as marking, a.rubric_version as version, ${RUBRIC_JSON()} as rubric,
       (select coalesce(jsonb_agg(jsonb_build_object('id', q.id, 'kind', q.kind, 'prompt', q.prompt, 'choices', q.choices,
          'points', (q.points * 100)::int) order by q.position), '[]') from questions q where q.assignment = a.id) as questions,
       (select coalesce(jsonb_agg(jsonb_build_object('grade', b.grade, 'from', (b.from_percentage * 100)::int)
          order by b.from_percentage desc), '[]') from bands b where b.assignment = a.id) as scale
     from assignments a where a.course = $1 and ($2::uuid[] is null or a.id = any($2::uuid[])) order by a.due_at nulls last, a.created_at, a.title, a.id`,
    [course, only],
  );
  const earlier = await selectEarlierRubrics(db, course, only);
  return rows.map(({ rubric, version, ...row }) => ({
    ...row,
    possible: possiblePoints({ rubric, questions: row.questions, marking: row.marking }),
    rubricOf: (wanted) =>
      wanted === null || wanted === version ? rubric : (earlier.get(`${row.id} ${wanted}`) ?? rubric),
  }));
}

async function selectEarlierRubrics(
  db: Queries,
  course: string,
  only: readonly string[] | null,
): Promise<Map<string, Rubric>> {
  const rows = await select(
    db,
    z.object({ assignment: Id, version: z.int(), rubric: RubricSchema }),
    `select a.id as assignment, v.rubric_version as version, ${RUBRIC_JSON('v.rubric_version')} as rubric
     from assignments a join (select distinct assignment, rubric_version from submissions where rubric_version is not null) v
       on v.assignment = a.id where a.course = $1 and ($2::uuid[] is null or a.id = any($2::uuid[]))`,
    [course, only],
  );
  return new Map(rows.map(({ assignment, version, rubric }) => [`${assignment} ${version}`, rubric]));
}

export const columnOf = ({
  id,
  title,
  term,
  category,
  weight,
  extra,
  possible,
  marking,
  dueAt,
  open,
}: Column): GradeColumn => ({
  ...{ id, title, term, category, weight, extra, possible, dueAt, open },
  shown: marking.shown,
});

const CourseRow = z.object({
  id: Id,
  title: z.string(),
  aside: z.boolean(),
  terms: z.array(z.string()),
  scheme: CourseScheme.nullable(),
});

/** A course, and how its results make its own. */
export async function selectCourseScheme(
  db: Queries,
  course: string,
): Promise<z.infer<typeof CourseRow> & { scheme: CourseScheme }> {
  const row = (await selectOne(
    db,
    CourseRow,
    `select id, title, put_aside_at is not null as aside, terms, grading as scheme from courses where id = $1`,
    [course],
  ))!;
  return { ...row, scheme: row.scheme ?? { ...PLAIN_SCHEME, categories: [...PLAIN_SCHEME.categories], scale: [] } };
}

export const updateScheme = async (db: Queries, course: string, scheme: CourseScheme): Promise<void> =>
  void (await db.query('update courses set grading = $2::jsonb where id = $1', [course, JSON.stringify(scheme)]));
