import { planOneRoster, type IncomingClass, type OneRosterPlan } from '#core/oneroster';
import { fileNameOf } from '#core/text';
import { Router } from 'express';
import {
  oneRosterFile,
  readOneRosterFile,
  takeBackOneRoster,
  type BroughtIn,
  type OneRosterReport,
} from '../../contract/oneroster.ts';
import type { Context } from '../context.ts';
import { problems } from '../errors.ts';
import { serve, serveBytes } from '../http/serve.ts';
import { saveAs } from '../http/save-as.ts';
import { selectTitle } from '../school/people.ts';
import { bytesOf } from '../uploads/uploaded.ts';
import { bringIn, selectOwn, takeBack } from './bring-in.ts';
import { selectOutgoing } from './outgoing.ts';
import { packApart, unpackApart } from './pack-apart.ts';

/** Of each fate so many lines are told. */
const MOST_TOLD = 300;
/** More results than a course has. */
const MOST_RESULTS = 20_000;
const FATES = ['refused', 'changed', 'new', 'unchanged'] as const;

/** A course in an open standard, out and in. */
export function oneRosterRoutes(context: Context): Router {
  const router = Router();
  const { db } = context;

  serveBytes(router, context, oneRosterFile, 'course.set', async ({ course }, _request, response, person) => {
    const packed = await packApart(person.id, await selectOutgoing(db, course, person.id));
    const name = `${fileNameOf(await selectTitle(db, course), 'course')} OneRoster.zip`;
    await saveAs(response, name, 'application/zip', inOnePart(packed));
  });

  serve(router, context, readOneRosterFile, 'course.set', async ({ params: { course }, body, file, person }) => {
    const classes = await unpackApart(person.id, () => bytesOf(db, file!));
    const chosen = chosenOf(classes, body.class, await selectTitle(db, course));
    if (chosen.results.length > MOST_RESULTS) throw problems.listTooLong(MOST_RESULTS);
    const own = await selectOwn(db, course, person.id, chosen);
    const plan = planOneRoster(chosen, own);
    const broughtIn = body.bringIn ? await bringIn(db, course, plan, own, person.id) : null;
    return reportOf(classes, chosen, plan, broughtIn);
  });

  serve(router, context, takeBackOneRoster, 'course.set', async ({ params: { course }, body, person }) => {
    await takeBack(db, course, body, person.id);
    return {};
  });
  return router;
}

async function* inOnePart(bytes: Uint8Array): AsyncGenerator<Uint8Array> {
  yield bytes;
}

function chosenOf(classes: readonly IncomingClass[], asked: string | null, title: string): IncomingClass {
  const found =
    asked === null ? classes.find((one) => one.title.trim() === title) : classes.find((one) => one.id === asked);
  return found ?? classes[0]!;
}

function reportOf(
  classes: readonly IncomingClass[],
  chosen: IncomingClass,
  { lines }: OneRosterPlan,
  broughtIn: BroughtIn | null,
): OneRosterReport {
  const of = (fate: (typeof FATES)[number]) => lines.filter((line) => line.fate === fate);
  return {
    classes: classes.map(({ id, title, students }) => ({ id, title, students: students.length })),
    ...{ chosen: chosen.id, teachers: chosen.teachers, broughtIn },
    counts: {
      ...{ new: of('new').length, changed: of('changed').length },
      ...{ unchanged: of('unchanged').length, refused: of('refused').length },
    },
    lines: FATES.flatMap((fate) => of(fate).slice(0, MOST_TOLD)),
  };
}
