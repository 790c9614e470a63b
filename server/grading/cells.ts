import { outcomeOf, type Outcome, type Sheet } from '#core/grading';
import { isLate, minutesLate, workState } from '#core/workflow';
import { setImmediate } from 'node:timers/promises';
import { z } from 'zod';
import { Hundredths, Id, Instant } from '../../contract/basics.ts';
import type { GradeCell } from '../../contract/gradebook.ts';
import { Adjustment, Flag, Grade, Scores } from '../../contract/grading.ts';
import { Held } from '../../contract/submissions.ts';
import { select, type Queries } from '../db/database.ts';
import { GRADE_JSON, gradeJson } from './queries.ts';
import { BACK_AGAIN } from '../submissions/state.ts';
import type { Column } from './columns.ts';

/** A student in an assignment. */
export interface Place {
  assignment: string;
  student: string;
}

/** What a cell is made of, and what comes of it. */
export interface Found {
  cell: GradeCell;
  /** The arithmetic, or why there is no result. */
  explanation: string;
  held: z.infer<typeof Held> | null;
  /** What a new version comes to so far, while the grade that was returned stands; null where nothing stands before it. */
  coming: { points: number | null } | null;
}

/** So many works are read at once, and so many computed, before others have a turn. */
const READ_AT_ONCE = 2500;
const COMPUTED_AT_ONCE = 250;

export const placeOf = ({ assignment, student }: Place): string => `${assignment} ${student}`;

/** Only at some places `x`, which are given as JSON. */
const at = (some: boolean, assignment: string, student: string): string =>
  some
    ? `join jsonb_to_recordset($2::jsonb) as x(assignment uuid, student uuid) on x.assignment = ${assignment} and x.student = ${student}`
    : '';

const WorkRow = z.object({
  assignment: Id,
  student: Id,
  submission: Id,
  version: z.int(),
  handedInAt: Instant,
  returnedAt: Instant.nullable(),
  readyAt: Instant.nullable(),
  held: Held.nullable(),
  rubricVersion: z.int().nullable(),
  grade: Grade.nullable(),
  /** What an earlier version was given, which stands until this one is returned. */
  before: z.object({ grade: Grade, held: Held.nullable() }).nullable(),
  remarks: z.int(),
  spoken: z.int(),
  heard: z.int(),
  unanswered: z.int(),
  scores: Scores,
  points: z.record(Id, Hundredths),
  adjustment: Adjustment.nullable(),
  backAgain: z.boolean(),
});
type WorkRow = z.infer<typeof WorkRow>;
const WorkRows = z.object({ rows: z.array(WorkRow).nullable() });

/**
 * The newest versions with all that their results are made of, where they are not made yet. What belongs to many works is counted once for all of them: a
 * query for each would take a class of thirty some seconds. It comes as one value, since a database that is asked for a thousand rows
 * takes longer to hand them over than to find them.
 */
const worksSql = (some: boolean): string => `
  with works as (
    select distinct on (s.assignment, s.student) s.id, s.assignment, s.student, s.version, s.handed_in_at, s.returned_at, s.ready_at,
      s.held, s.rubric_version, s.points, s.possible, s.percentage, s.grade, s.explanation
    from submissions s ${at(some, 's.assignment', 's.student')}
    where s.assignment = any($1::uuid[]) and s.withdrawn_at is null
    order by s.assignment, s.student, s.version desc),
  own as (
    select r.id, r.submission, r.recording, r.private, r.author, w.student, r.settled_at is null and r.dealt_at is null as open
    from works w join remarks r on r.submission = w.id and r.put_aside_at is null),
  said as (
    select o.submission, count(*) filter (where o.author <> o.student)::int as remarks,
      count(*) filter (where o.recording is not null and not o.private)::int as spoken, count(l.finished_at)::int as heard
    from own o left join listenings l on l.recording = o.recording and l.person = o.student group by o.submission),
  answers as (
    select distinct on (y.remark) y.author, o.submission, o.student from own o join replies y on y.remark = o.id where o.open
    order by y.remark, y.made_at desc, y.id desc),
  answered as (
    select submission, count(*)::int as unanswered from answers where author = student group by submission),
  scored as (
    select k.submission, jsonb_object_agg(k.criterion, case
        when k.level is not null then jsonb_build_object('level', k.level)
        when k.points is not null then jsonb_build_object('points', (k.points * 100)::int)
        else '{"notAssessed": true}' end) as scores
    from works w join scores k on k.submission = w.id where w.returned_at is null group by k.submission),
  pointed as (
    select q.submission, jsonb_object_agg(q.question, (q.points * 100)::int) as points
    from works w join question_points q on q.submission = w.id where w.returned_at is null group by q.submission)
  select json_agg(found) as rows from (select s.assignment, s.student, s.id as submission, s.version, s.handed_in_at as "handedInAt", s.returned_at as "returnedAt",
    s.ready_at as "readyAt", s.held, s.rubric_version as "rubricVersion", ${GRADE_JSON} as grade,
    coalesce(said.remarks, 0) as remarks, coalesce(said.spoken, 0) as spoken, coalesce(said.heard, 0) as heard,
    coalesce(answered.unanswered, 0) as unanswered, coalesce(scored.scores, '{}') as scores, coalesce(pointed.points, '{}') as points,
    case when j.submission is not null then jsonb_build_object('extra', (j.extra * 100)::int, 'total', (j.total * 100)::int,
      'reason', j.reason) end as adjustment,
    s.version > 1 and ${BACK_AGAIN} as "backAgain",
    case when s.version > 1 and s.returned_at is null then (
      select jsonb_build_object('grade', ${gradeJson('o')}, 'held', o.held) from submissions o
      where o.assignment = s.assignment and o.student = s.student and o.version < s.version and o.withdrawn_at is null
        and o.returned_at is not null and o.points is not null order by o.version desc limit 1) end as before
  from works s left join said on said.submission = s.id left join answered on answered.submission = s.id
  left join scored on scored.submission = s.id left join pointed on pointed.submission = s.id
  left join adjustments j on j.submission = s.id) found`;

const EnteredRow = z.object({ assignment: Id, student: Id, points: Hundredths, returnedAt: Instant.nullable() });
const enteredSql = (some: boolean): string =>
  `select g.assignment, g.student, (g.points * 100)::int as points, g.returned_at as "returnedAt" from entered_grades g
   ${at(some, 'g.assignment', 'g.student')} where g.assignment = any($1::uuid[])`;

const StandingRow = z.object({ assignment: Id, student: Id, flag: Flag.nullable(), extendedUntil: Instant.nullable() });
const standingsSql = (some: boolean): string =>
  `select g.assignment, g.student, g.flag, g.extended_until as "extendedUntil" from standings g
   ${at(some, 'g.assignment', 'g.student')} where g.assignment = any($1::uuid[])`;

/**
 * What is known of the students in some assignments; where nothing is, there is none.
 * @param places where only some are asked for
 * @param students how many there are at the most
 */
export async function selectCells(
  db: Queries,
  columns: readonly Column[],
  places?: readonly Place[],
  students = 300,
): Promise<Map<string, Found>> {
  const asked = places ? columns.filter(({ id }) => places.some(({ assignment }) => assignment === id)) : columns;
  const found = new Map<string, Found>();
  const columnsAtOnce = Math.max(1, Math.floor(READ_AT_ONCE / Math.max(1, students)));
  for (let from = 0; from < asked.length; from += columnsAtOnce)
    await readColumns(db, asked.slice(from, from + columnsAtOnce), places, found);
  return found;
}

async function readColumns(
  db: Queries,
  columns: readonly Column[],
  places: readonly Place[] | undefined,
  found: Map<string, Found>,
): Promise<void> {
  const some = places !== undefined;
  const values = [columns.map(({ id }) => id), ...(some ? [JSON.stringify(places)] : [])];
  const [{ rows }] = (await select(db, WorkRows, worksSql(some), values)) as [z.infer<typeof WorkRows>];
  const works = byPlace(rows ?? []);
  const entered = byPlace(await select(db, EnteredRow, enteredSql(some), values));
  const standings = byPlace(await select(db, StandingRow, standingsSql(some), values));
  const columnOf = new Map(columns.map((column) => [column.id, column]));
  let computed = 0;
  for (const key of new Set([...works.keys(), ...entered.keys(), ...standings.keys()])) {
    const [work, typed, standing] = [works.get(key), entered.get(key), standings.get(key)];
    const { assignment } = (work ?? typed ?? standing)!;
    found.set(key, foundOf(columnOf.get(assignment)!, work, typed, standing));
    if (++computed % COMPUTED_AT_ONCE === 0) await setImmediate();
  }
}

const byPlace = <Row extends Place>(rows: readonly Row[]): Map<string, Row> =>
  new Map(rows.map((row) => [placeOf(row), row]));

const NO_WORK = {
  submission: null,
  state: null,
  late: false,
  spoken: 0,
  heard: 0,
  unanswered: 0,
  again: false,
} as const;

/** Of a work about which nothing is told. */
export const hiddenCell = (flag: GradeCell['flag']): GradeCell => ({
  ...NO_WORK,
  ...{ points: null, possible: null, grade: null, flag, entered: false, returned: false, nameless: true },
});

function foundOf(
  column: Column,
  work: WorkRow | undefined,
  typed: z.infer<typeof EnteredRow> | undefined,
  standing: z.infer<typeof StandingRow> | undefined,
): Found {
  const flag = standing?.flag ?? null;
  const late = work ? minutesLate(work.handedInAt, standing?.extendedUntil ?? column.dueAt) : 0;
  // A flag that stands at a work tells whose it is.
  if (work && column.anonymous && work.returnedAt === null)
    return { cell: hiddenCell(null), explanation: '', held: null, coming: null };
  const sheet: Sheet = {
    ...{ scale: column.scale, marking: column.marking, standing: { flag }, minutesLate: late },
    ...(work
      ? {
          rubric: column.rubricOf(work.rubricVersion),
          scores: work.scores,
          questions: column.questions,
          points: work.points,
          adjustment: work.adjustment,
        }
      : { rubric: [], scores: {} }),
  };
  // What was returned stands until something else is.
  const given = work && (work.returnedAt === null ? work.before : { grade: work.grade, held: work.held });
  const own: Pick<Outcome, 'grade' | 'explanation'> | undefined =
    work && (given ? { grade: given.grade, explanation: given.grade?.explanation ?? '' } : outcomeOf(sheet));
  const isTyped = typed !== undefined && !own?.grade;
  const { grade, explanation } = isTyped
    ? typedOutcome(column, sheet, typed.points)
    : (own ?? outcomeOfNoWork(sheet, column));
  const { submission, spoken, heard, unanswered } = work ?? NO_WORK;
  return {
    cell: {
      ...{ submission, spoken, heard, unanswered, flag },
      state: work ? workState({ ...work, scores: scoresIn(work) }) : null,
      late: work !== undefined && isLate(work.handedInAt, standing?.extendedUntil ?? column.dueAt),
      points: grade?.points ?? null,
      possible: grade?.possible ?? null,
      grade: grade?.grade ?? null,
      entered: isTyped,
      returned: isTyped ? typed.returnedAt !== null : given !== null && given !== undefined && given.held !== 'grade',
      nameless: false,
      again: work !== undefined && work.returnedAt === null && work.before !== null,
    },
    explanation,
    held: given?.held ?? work?.held ?? null,
    coming: work?.returnedAt === null && work.before ? { points: outcomeOf(sheet).grade?.points ?? null } : null,
  };
}

/** What was typed is the whole work's. */
const typedOutcome = ({ marking, possible }: Column, sheet: Sheet, points: number): Outcome =>
  outcomeOf({
    ...sheet,
    ...{ rubric: [], scores: {}, questions: [], points: {}, minutesLate: 0 },
    marking: { ...marking, possible },
    adjustment: { extra: null, total: points, reason: '' },
  });

/** A flag says something where nothing was handed in, too. */
const outcomeOfNoWork = (sheet: Sheet, { possible, marking }: Column): Pick<Outcome, 'grade' | 'explanation'> =>
  sheet.standing?.flag ? outcomeOf({ ...sheet, marking: { ...marking, possible } }) : { grade: null, explanation: '' };

const scoresIn = ({ scores, points, adjustment }: WorkRow): number =>
  Object.keys(scores).length + Object.keys(points).length + ((adjustment?.total ?? null) === null ? 0 : 1);
