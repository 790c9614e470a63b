import { minutesLate } from '#core/workflow';
import { z } from 'zod';
import { Id, Instant } from '../../contract/basics.ts';
import { Marking, Standing } from '../../contract/grading.ts';
import { Held, type Feedback } from '../../contract/submissions.ts';
import { NAMELESS, type Reader } from '../access/visible.ts';
import { selectQuestions } from '../assignments/queries.ts';
import { selectOne, type Queries } from '../db/database.ts';
import {
  GRADE_JSON,
  GradeOrNone,
  selectPoints,
  selectRubricOf,
  selectScale,
  selectScores,
} from '../grading/queries.ts';
import { dueOf, MARKING_JSON, standingOf, withoutTime } from '../assignments/marking.ts';
import { selectAdjustment } from '../grading/standing.ts';
import { selectRemarks } from '../remarks/queries.ts';
import { changeOf, selectReturns } from './returns.ts';

const Head = z.object({
  assignment: Id,
  returnedAt: Instant.nullable(),
  handedInAt: Instant,
  due: Instant.nullable(),
  grade: GradeOrNone,
  marking: Marking,
  standing: Standing,
  nameless: z.boolean(),
  readyAt: Instant.nullable(),
  returnAt: Instant.nullable(),
  held: Held.nullable(),
});

/** All that was said about a work; its student does not see what is held back. */
export async function selectFeedback(db: Queries, submission: string, reader: Reader): Promise<Feedback | undefined> {
  const head = await selectOne(
    db,
    Head,
    `select s.assignment, s.returned_at as "returnedAt", s.handed_in_at as "handedInAt", ${dueOf('s.student')} as due,
       case when s.returned_at is not null then ${GRADE_JSON} end as grade, ${MARKING_JSON} as marking,
       ${standingOf('s.student')} as standing, ${NAMELESS} as nameless, s.ready_at as "readyAt", s.return_at as "returnAt", s.held
     from submissions s join assignments a on a.id = s.assignment where s.id = $1`,
    [submission],
  );
  if (!head) return undefined;
  const { assignment, handedInAt, due, nameless, ...rest } = head;
  const returns = await selectReturns(db, submission);
  const whole: Feedback = {
    ...{ ...rest, standing: withoutTime(rest.standing, reader.teacher && nameless) },
    minutesLate: minutesLate(handedInAt, due),
    remarks: await selectRemarks(db, { submission }, reader),
    aside: reader.teacher ? await selectRemarks(db, { submission, aside: true }, reader) : [],
    rubric: await selectRubricOf(db, submission),
    scale: await selectScale(db, assignment),
    scores: await selectScores(db, submission),
    questions: await selectQuestions(db, assignment),
    points: await selectPoints(db, submission),
    adjustment: (await selectAdjustment(db, submission)) ?? null,
    returns: returns.map(({ at }) => at),
    changed: changeOf(returns),
  };
  return reader.teacher ? whole : withoutHeld(whole);
}

function withoutHeld(whole: Feedback): Feedback {
  const { held, changed } = whole;
  if (held === 'remarks')
    return { ...whole, remarks: [], changed: changed && { ...changed, added: [], changed: [], gone: 0 } };
  if (held !== 'grade') return whole;
  return {
    ...whole,
    ...{ scores: {}, points: {}, adjustment: null, grade: null },
    changed: changed && { ...changed, scores: [], grade: null },
  };
}
