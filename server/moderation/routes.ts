import { sampleOf, seededRandom } from '#core/moderation';
import { Router } from 'express';
import { randomBytes } from 'node:crypto';
import {
  applySettled,
  callOffModeration,
  drawSample,
  finishModeration,
  readModeration,
  readModerations,
  settleWork,
  startModeration,
} from '../../contract/moderation.ts';
import { selectSummary } from '../assignments/queries.ts';
import type { Context } from '../context.ts';
import { problems } from '../errors.ts';
import { serve } from '../http/serve.ts';
import { selectBorders, selectPool } from './pool.ts';
import {
  callOff,
  finish,
  headOf,
  selectCompared,
  selectFirstDesk,
  selectMarkers,
  selectModeration,
  selectModerations,
} from './queries.ts';
import { applySettled as apply, settle } from './settle.ts';
import { insertModeration } from './start.ts';

/** Works that a second teacher scores without seeing what the first one gave. */
export function moderationRoutes(context: Context): Router {
  const router = Router();
  const { db } = context;

  const refuseStranger = async (assignment: string, marker: string, person: string): Promise<void> => {
    const markers = await selectMarkers(db, assignment, person);
    if (!markers.some(({ id }) => id === marker)) throw problems.notASecondMarker();
  };

  serve(router, context, readModerations, 'assignment.oversee', async ({ params: { assignment }, person }) => {
    const { title, courseId } = await selectSummary(db, assignment);
    return {
      ...{ title, course: courseId },
      markers: await selectMarkers(db, assignment, person.id),
      pool: (await selectPool(db, assignment, person.id, null)).length,
      borders: (await selectBorders(db, assignment)).length > 0,
      moderations: (await selectModerations(db, assignment)).map(headOf),
    };
  });

  serve(router, context, drawSample, 'moderation.start', async ({ params: { assignment }, body, person }) => {
    await refuseStranger(assignment, body.marker, person.id);
    const pool = await selectPool(db, assignment, person.id, body.marker);
    const works = new Map(pool.map((work) => [work.id, work]));
    const seed = body.seed || randomBytes(5).toString('hex');
    const sample = sampleOf(pool, body, await selectBorders(db, assignment), seededRandom(seed));
    return {
      seed,
      works: sample.map(({ id, reason }) => {
        const { student, percentage } = works.get(id)!;
        return { work: id, reason, student, percentage };
      }),
    };
  });

  serve(
    router,
    context,
    startModeration,
    'moderation.start',
    async ({ params, body: { marker, works, seed }, person }) => {
      const { assignment } = params;
      await refuseStranger(assignment, marker, person.id);
      const id = await db.transaction(async (tx) => {
        const pool = new Set((await selectPool(tx, assignment, person.id, marker)).map((work) => work.id));
        const asked = new Set(works.map(({ work }) => work));
        if (asked.size < works.length || works.some(({ work }) => !pool.has(work))) throw problems.notInSample();
        return insertModeration(tx, { assignment, marker, person: person.id, works, seed });
      });
      return { id };
    },
  );

  serve(router, context, readModeration, 'moderation.read', async ({ params, person }) => {
    const told = await selectModeration(db, params.moderation);
    const mine = told.marking === person.id && told.finishedAt === null;
    return {
      ...headOf(told),
      ...{ assignment: { id: told.assignment, title: told.title }, course: told.course, mine, rubric: told.rubric },
      desk: mine ? { assignment: told.secondAssignment, first: await selectFirstDesk(db, told) } : null,
      compared: await selectCompared(db, params.moderation),
    };
  });

  serve(router, context, finishModeration, 'moderation.finish', async ({ params }) => {
    await db.transaction(async (tx) => {
      await tx.query('select from moderations where id = $1 for update', [params.moderation]);
      const told = await selectModeration(tx, params.moderation);
      if (told.finishedAt !== null) throw problems.handedOver();
      if (told.scored < told.works) throw problems.notScoredYet(told.works - told.scored);
      await finish(tx, told);
    });
    return {};
  });

  serve(router, context, callOffModeration, 'moderation.callOff', async ({ params }) => {
    await db.transaction((tx) => callOff(tx, params.moderation));
    return {};
  });

  serve(router, context, settleWork, 'moderation.settle', async ({ params: { moderation, work }, body, person }) => {
    await db.transaction(async (tx) => {
      const { rubric } = await selectModeration(tx, moderation);
      await settle(tx, { moderation, work, rubric, ...body, person: person.id });
    });
    return { unapplied: (await selectCompared(db, moderation)).find((one) => one.work === work)!.unapplied };
  });

  serve(router, context, applySettled, 'moderation.settle', async ({ params: { moderation, work }, person }) => {
    await db.transaction((tx) => apply(tx, moderation, work, person.id));
    return {};
  });
  return router;
}
