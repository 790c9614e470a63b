import { isMail, planRoster, readRoster, type PlannedLine } from '#core/roster';
import { Router } from 'express';
import Papa from 'papaparse';
import {
  changeMember,
  inviteTeacher,
  listStudents,
  mergeMember,
  MOST_LISTED,
  readMembers,
  setLeft,
  takeOut,
} from '../../contract/roster.ts';
import type { Context } from '../context.ts';
import { DatabaseError, UNIQUE_VIOLATION, type Queries } from '../db/database.ts';
import { decodeText } from '../documents/decode-text.ts';
import { readTable } from '../documents/read-table.ts';
import { problems } from '../errors.ts';
import { serve } from '../http/serve.ts';
import { selectCourseCode } from '../joining/codes.ts';
import { addressOf, inviteByMail } from '../joining/invite.ts';
import { selectResettable, slipFor } from '../joining/slips.ts';
import { enrol, selectTitle } from '../school/people.ts';
import { bytesOf, type UploadedFile } from '../uploads/uploaded.ts';
import { addNew } from './add-new.ts';
import { mergePeople } from './merge.ts';
import {
  deleteEnrolments,
  selectByMail,
  selectKnown,
  selectMember,
  selectMembers,
  updateLeft,
  updateMember,
} from './queries.ts';

/** Who teaches and who learns in a course. */
export function rosterRoutes(context: Context): Router {
  const router = Router();
  const { db, settings } = context;

  serve(router, context, readMembers, 'course.set', async ({ params }) => ({
    members: await selectMembers(db, params.course),
    codeUntil: await selectCourseCode(db, params.course),
    mails: settings.mail.server !== undefined,
  }));

  serve(router, context, listStudents, 'course.set', async ({ params, body, file, person }) => {
    const read = readRoster(file ? await textOf(file, person.id) : body.text, body.turned);
    if (read.lines.length > MOST_LISTED) throw problems.listTooLong(MOST_LISTED);
    const report = { twoParts: read.twoParts, done: body.bringIn };
    return db.transaction(async (tx) => {
      // Two lists at once would both bring in whom neither has seen yet.
      if (body.bringIn) await tx.query('select from courses where id = $1 for update', [params.course]);
      const teachers = (await selectMembers(tx, params.course)).filter(({ teaches }) => teaches);
      const known = await selectKnown(tx, params.course);
      const lines = planRoster(read.lines, known, new Set(teachers.map(({ id }) => id)));
      return { ...report, lines, added: body.bringIn ? await bringIn(tx, params.course, lines) : [] };
    });
  });

  serve(router, context, takeOut, 'course.set', async ({ params, body }) => ({
    takenOut: await db.transaction((tx) => deleteEnrolments(tx, params.course, body.people)),
  }));

  serve(router, context, changeMember, 'course.set', async ({ params: { course, person }, body }) => {
    const member = await selectMember(db, course, person);
    // A teacher's name is their own.
    if (!member || member.teaches) throw problems.notFound();
    if (body.mail && !isMail(body.mail)) throw problems.noMail();
    try {
      await db.transaction((tx) => updateMember(tx, person, body));
    } catch (error) {
      if (error instanceof DatabaseError && error.code === UNIQUE_VIOLATION) throw problems.mailOrNumberTaken();
      throw error;
    }
    return (await selectMember(db, course, person))!;
  });

  serve(router, context, setLeft, 'course.set', async ({ params: { course, person }, body }) => {
    if (!(await updateLeft(db, course, person, body.left))) throw problems.notFound();
    return (await selectMember(db, course, person))!;
  });

  serve(
    router,
    context,
    mergeMember,
    'course.set',
    async ({ params: { course, person }, body: { into }, person: me }) =>
      db.transaction(async (tx) => {
        const [from, stays] = [await selectMember(tx, course, person), await selectMember(tx, course, into)];
        if (!from || !stays || from.teaches || stays.teaches || person === into) throw problems.notFound();
        // Whoever is in other courses too is not this teacher's to do away with.
        const allowed = await selectResettable(tx, { course, people: [person], teacher: me.id });
        if (!Array.isArray(allowed)) throw problems.mergeElsewhere();
        await mergePeople(tx, person, into);
        return (await selectMember(tx, course, into))!;
      }),
  );

  serve(router, context, inviteTeacher, 'course.set', async ({ params, body: { name, mail }, person, request }) => {
    if (mail !== '' && !isMail(mail)) throw problems.noMail();
    return db.transaction(async (tx) => {
      const known = mail === '' ? undefined : await selectByMail(tx, mail);
      const member = known && (await selectMember(tx, params.course, known.id));
      if (member) throw member.teaches ? problems.teachesAlready(member.name) : problems.learnsHere(member.name);
      const id = known?.id ?? (await addNew(tx, { name, mail, number: '' }));
      await enrol(tx, params.course, id, 'teacher');
      if (known) return { slip: null, mailed: false };
      const slip = await slipFor(tx, id, person.id);
      const title = await selectTitle(tx, params.course);
      const mailed =
        settings.mail.server !== undefined && (await inviteByMail(tx, slip, title, addressOf(settings, request)));
      return { slip: mailed ? null : slip, mailed };
    });
  });
  return router;

  /** A workbook as if it had been copied out of its table. */
  async function textOf(file: UploadedFile, who: string): Promise<string> {
    if (/\.xlsx$/iu.test(file.name)) return Papa.unparse(await readTable(context, who, file), { delimiter: '\t' });
    const decoded = decodeText(await bytesOf(db, file));
    if (!decoded) throw problems.listUnreadable();
    return decoded.text;
  }
}

/** @returns the ids of those who were not in the course before */
async function bringIn(tx: Queries, course: string, lines: readonly PlannedLine[]): Promise<string[]> {
  const added: string[] = [];
  for (const line of lines) {
    if (line.fate !== 'add' && line.fate !== 'join') continue;
    const id = line.fate === 'join' ? line.person : await addNew(tx, line);
    await enrol(tx, course, id, 'student');
    added.push(id);
  }
  return added;
}
