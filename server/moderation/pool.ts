import { outcomeOf } from '#core/grading';
import { unscored, type ScoredWork } from '#core/moderation';
import { z } from 'zod';
import { Id } from '../../contract/basics.ts';
import { Marking, Scores } from '../../contract/grading.ts';
import { MARKING_JSON } from '../assignments/marking.ts';
import { blindTo, SHOWN_NAME, viewerIn } from '../access/visible.ts';
import { select, selectOne, type Queries } from '../db/database.ts';
import { selectCourseScheme } from '../grading/columns.ts';
import { SCORES_JSON, selectRubric, selectScale } from '../grading/queries.ts';
import { NEWEST } from '../submissions/state.ts';

const PoolRow = z.object({ id: Id, student: z.string(), scores: Scores, marking: Marking });

export interface PoolWork extends ScoredWork {
  student: string;
}

/**
 * The works of an assignment that can be marked a second time: the newest versions that are scored completely by its rubric.
 * @param person does not see those that they mark a second time themselves
 * @param marker has scored none of them
 */
export async function selectPool(
  db: Queries,
  assignment: string,
  person: string,
  marker: string | null,
): Promise<PoolWork[]> {
  const rubric = await selectRubric(db, assignment);
  if (rubric.length === 0) return [];
  const rows = await select(
    db,
    PoolRow,
    `select s.id, ${SHOWN_NAME} as student, ${SCORES_JSON} as scores, ${MARKING_JSON} as marking
     from submissions s join assignments a on a.id = s.assignment join people p on p.id = s.student
     where s.assignment = $1 and ${NEWEST} and coalesce(s.rubric_version, a.rubric_version) = a.rubric_version
       and not ${blindTo(viewerIn('$2'))} and not exists (select from scores k where k.submission = s.id and k.chosen_by = $3)
     order by 2, s.id`,
    [assignment, person, marker],
  );
  return rows.flatMap(({ id, student, scores, marking }) => {
    const grade =
      unscored(rubric, scores).length === 0
        ? outcomeOf({ rubric, scores, marking: { ...marking, late: null } }).grade
        : null;
    return grade ? [{ id, student, percentage: grade.percentage }] : [];
  });
}

/** Where a grade ends and the next begins, in hundredths of a per cent: in the assignment, or in its course. */
export async function selectBorders(db: Queries, assignment: string): Promise<number[]> {
  const own = await selectScale(db, assignment);
  const { course } = (await selectOne(db, z.object({ course: Id }), 'select course from assignments where id = $1', [
    assignment,
  ]))!;
  const scale = own.length > 0 ? own : (await selectCourseScheme(db, course)).scheme.scale;
  return scale.map(({ from }) => from).filter((from) => from > 0);
}
