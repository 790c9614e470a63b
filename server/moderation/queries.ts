import { unscored } from '#core/moderation';
import { isDeepStrictEqual } from 'node:util';
import { z } from 'zod';
import { Id, Instant } from '../../contract/basics.ts';
import { Rubric, Scores } from '../../contract/grading.ts';
import { ComparedWork, ModerationHead, Reason, type Unapplied } from '../../contract/moderation.ts';
import { SHOWN_NAME } from '../access/visible.ts';
import { select, selectOne, type Queries } from '../db/database.ts';
import { RUBRIC_JSON, SCORES_JSON } from '../grading/queries.ts';
import { NEWEST } from '../submissions/state.ts';

const HeadRow = ModerationHead.omit({ scored: true }).extend({
  assignment: Id,
  title: z.string(),
  course: Id,
  marking: Id,
  secondAssignment: Id,
  rubric: Rubric,
  secondRubric: Rubric,
});
type HeadRow = z.infer<typeof HeadRow>;

/** All that is told of a second marking at any time. */
export interface Told extends HeadRow {
  scored: number;
}

const SCORED_ROW = z.object({ moderation: Id, scores: Scores });

/** @param where a condition on the moderation `d` with the value `$1` */
async function selectTold(db: Queries, where: string, value: string): Promise<Told[]> {
  const rows = await select(
    db,
    HeadRow,
    `select d.id, m.name as marker, d.marker as marking, b.name as "startedBy", d.started_at as "startedAt", d.seed,
       d.finished_at as "finishedAt", d.assignment, a.title, a.course, d.second_assignment as "secondAssignment",
       ${RUBRIC_JSON('d.rubric_version')} as rubric,
       (select ${RUBRIC_JSON()} from assignments a where a.id = d.second_assignment) as "secondRubric",
       (select count(*)::int from moderated_works w where w.moderation = d.id) as works,
       (select count(*)::int from moderated_works w where w.moderation = d.id and w.settled_at is not null) as settled
     from moderations d join assignments a on a.id = d.assignment join people m on m.id = d.marker
     join people b on b.id = d.started_by where ${where} and d.called_off_at is null order by d.started_at desc, d.id`,
    [value],
  );
  const scores = await select(
    db,
    SCORED_ROW,
    `select w.moderation, ${SCORES_JSON} as scores from moderated_works w join submissions s on s.id = w.second_work
     where w.moderation = any($1::uuid[])`,
    [rows.map(({ id }) => id)],
  );
  return rows.map((row) => ({
    ...row,
    scored: scores.filter((one) => one.moderation === row.id && unscored(row.secondRubric, one.scores).length === 0)
      .length,
  }));
}

export const selectModerations = (db: Queries, assignment: string): Promise<Told[]> =>
  selectTold(db, 'd.assignment = $1', assignment);

export const selectModeration = async (db: Queries, moderation: string): Promise<Told> =>
  (await selectTold(db, 'd.id = $1', moderation))[0]!;

export const headOf = ({
  id,
  marker,
  startedBy,
  startedAt,
  seed,
  finishedAt,
  works,
  scored,
  settled,
}: Told): ModerationHead => ({
  ...{ id, marker, startedBy, startedAt, seed, finishedAt, works, scored, settled },
});

/** Who teaches the course of an assignment, but one. */
export const selectMarkers = (db: Queries, assignment: string, but: string): Promise<{ id: string; name: string }[]> =>
  select(
    db,
    z.object({ id: Id, name: z.string() }),
    `select p.id, p.name from assignments a join enrolments e on e.course = a.course and e.role = 'teacher'
     join people p on p.id = e.person where a.id = $1 and p.id <> $2 order by p.name, p.id`,
    [assignment, but],
  );

/** The first work of a second marking that is not scored yet, or the first of all. */
export async function selectFirstDesk(db: Queries, { secondAssignment, secondRubric }: Told): Promise<string> {
  const rows = await select(
    db,
    z.object({ id: Id, scores: Scores }),
    `select s.id, ${SCORES_JSON} as scores from submissions s join assignments a on a.id = s.assignment
     join people p on p.id = s.student where s.assignment = $1 order by ${SHOWN_NAME}, s.id`,
    [secondAssignment],
  );
  return (rows.find(({ scores }) => unscored(secondRubric, scores).length > 0) ?? rows[0]!).id;
}

const CompareRow = ComparedWork.omit({ settled: true, unapplied: true }).extend({
  newest: z.boolean(),
  sameRubric: z.boolean(),
  totalled: z.boolean(),
  scores: Scores,
  settledScores: Scores.nullable(),
  settledBy: z.string().nullable(),
  settledAt: Instant.nullable(),
  why: z.string(),
  reason: Reason,
});

function unappliedOf(work: Omit<z.infer<typeof CompareRow>, 'settledBy' | 'settledAt' | 'why'>): Unapplied | null {
  const { settledScores, scores, newest, sameRubric, totalled, returned } = work;
  if (!settledScores) return null;
  const same = isDeepStrictEqual(scores, settledScores);
  if (same && !totalled) return null;
  if (!newest || !sameRubric) return 'replaced';
  if (returned) return 'returned';
  return same ? 'total' : 'levels';
}

/** What was handed over. */
export async function selectCompared(db: Queries, moderation: string): Promise<ComparedWork[]> {
  const rows = await select(
    db,
    CompareRow,
    `select w.work, w.second_work as second, ${SHOWN_NAME} as student, w.reason, w.first_scores as first,
       w.second_scores as "secondScores", s.returned_at is not null as returned, w.settled_scores as "settledScores",
       y.name as "settledBy", w.settled_at as "settledAt", w.why, ${NEWEST} as newest,
       coalesce(s.rubric_version, a.rubric_version) = d.rubric_version as "sameRubric", ${SCORES_JSON} as scores,
       exists (select from adjustments x where x.submission = s.id and x.total is not null) as totalled,
       (select coalesce(jsonb_agg(distinct t.name), '[]') from scores k join people t on t.id = k.chosen_by
        where k.submission = s.id) as "firstMarkers"
     from moderated_works w join moderations d on d.id = w.moderation and d.finished_at is not null
     join submissions s on s.id = w.work join assignments a on a.id = s.assignment join people p on p.id = s.student
     left join people y on y.id = w.settled_by where w.moderation = $1 order by 3, w.work`,
    [moderation],
  );
  return rows.map(({ settledScores, settledBy, settledAt, why, newest, sameRubric, totalled, scores, ...row }) => ({
    ...row,
    unapplied: unappliedOf({ ...row, newest, sameRubric, totalled, scores, settledScores }),
    settled: settledScores && settledAt ? { scores: settledScores, by: settledBy, at: settledAt, why } : null,
  }));
}

/** What the second marker gave, by the criteria and levels of the assignment itself: the copy has them at the same places. */
const SECOND_SCORES = `(select coalesce(jsonb_object_agg(o.id, case
    when l.id is not null then jsonb_build_object('level', l.id)
    when k.points is not null then jsonb_build_object('points', (k.points * 100)::int)
    else '{"notAssessed": true}' end), '{}')
  from scores k join criteria n on n.id = k.criterion
  join criteria o on o.assignment = d.assignment and o.version = d.rubric_version and o.position = n.position
  left join levels c on c.id = k.level left join levels l on l.criterion = o.id and l.position = c.position
  where k.submission = w.second_work)`;

/** Keeps what both gave, and shows it to all who teach the course. Call in a transaction. */
export async function finish(tx: Queries, { id, course, secondAssignment }: Told): Promise<void> {
  await tx.query(
    `update moderated_works w set second_scores = ${SECOND_SCORES},
       first_scores = (select ${SCORES_JSON} from submissions s where s.id = w.work)
     from moderations d where d.id = w.moderation and d.id = $1`,
    [id],
  );
  await tx.query('update moderations set finished_at = now() where id = $1', [id]);
  const { hidden } = (await selectOne(
    tx,
    z.object({ hidden: Id }),
    'select course as hidden from assignments where id = $1',
    [secondAssignment],
  ))!;
  await tx.query(
    `insert into enrolments (course, person, role) select $1, person, 'teacher' from enrolments
     where course = $2 and role = 'teacher' on conflict do nothing`,
    [hidden, course],
  );
  await putAside(tx, hidden);
}

/** What was said stays where it is, and asks for nothing any more. Call in a transaction. */
export async function callOff(tx: Queries, moderation: string): Promise<void> {
  const { hidden } = (await selectOne(
    tx,
    z.object({ hidden: Id }),
    `update moderations d set called_off_at = now() from assignments a where d.id = $1 and a.id = d.second_assignment
     returning a.course as hidden`,
    [moderation],
  ))!;
  await putAside(tx, hidden);
}

const putAside = async (tx: Queries, course: string): Promise<void> =>
  void (await tx.query('update courses set put_aside_at = coalesce(put_aside_at, now()) where id = $1', [course]));
