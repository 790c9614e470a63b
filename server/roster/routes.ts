import { isMail, planRoster } from '#core/roster';
import { Router } from 'express';
import Papa from 'papaparse';
import {
  answerInvitation,
  changeMember,
  inviteTeacher,
  listStudents,
  mergeMember,
  MOST_LISTED,
  readInvitations,
  readMembers,
  setLeft,
  takeOut,
} from '../../contract/roster.ts';
import { allows } from '../access/authorise.ts';
import type { Context } from '../context.ts';
import { readTable } from '../documents/read-table.ts';
import { problems } from '../errors.ts';
import { serve } from '../http/serve.ts';
import { selectCourseCode } from '../joining/codes.ts';
import { addressOf, inviteByMail } from '../joining/invite.ts';
import { slipFor } from '../joining/slips.ts';
import { readTextApart } from '../reading/read-apart.ts';
import { NotReadable } from '../reading/read-text.ts';
import { enrol, selectTitle } from '../school/people.ts';
import { bytesOf, type UploadedFile } from '../uploads/uploaded.ts';
import { addNew } from './add-new.ts';
import { bringInAll } from './bring-in.ts';
import { answerInvitation as answerTo, insertInvitation, selectInvitations, selectInvited } from './invitations.ts';
import { mergePeople } from './merge.ts';
import {
  deleteEnrolments,
  keepMember,
  selectByMail,
  selectKnown,
  selectMember,
  selectMembers,
  updateLeft,
} from './queries.ts';

/** Who teaches and who learns in a course. */
export function rosterRoutes(context: Context): Router {
  const router = Router();
  const { db, settings } = context;

  serve(router, context, readMembers, 'course.set', async ({ params }) => ({
    members: await selectMembers(db, params.course),
    invited: await selectInvited(db, params.course),
    codeUntil: await selectCourseCode(db, params.course),
    mails: settings.mail.server !== undefined,
  }));

  serve(router, context, listStudents, 'course.set', async ({ params, body, file, person }) => {
    const text = file ? await textOf(file, person.id) : body.text;
    const read = await readTextApart(person.id, { kind: 'roster', text, turned: body.turned }).catch(
      (error: unknown) => {
        throw error instanceof NotReadable ? problems.listUnreadable() : error;
      },
    );
    if (read.lines.length > MOST_LISTED) throw problems.listTooLong(MOST_LISTED);
    const report = { twoParts: read.twoParts, done: body.bringIn };
    return db.transaction(async (tx) => {
      // Two lists at once would both bring in whom neither has seen yet.
      if (body.bringIn) await tx.query('select from courses where id = $1 for update', [params.course]);
      const known = await selectKnown(tx, { course: params.course, teacher: person.id });
      const lines = planRoster(read.lines, known);
      return { ...report, lines, added: body.bringIn ? await bringInAll(tx, params.course, lines, person.id) : [] };
    });
  });

  serve(router, context, takeOut, 'course.set', async ({ params, body }) => ({
    takenOut: await db.transaction((tx) => deleteEnrolments(tx, params.course, body.people)),
  }));

  serve(router, context, changeMember, 'course.set', async ({ params: { course, person }, body, person: me }) => {
    const member = await selectMember(db, course, person);
    // A teacher's name is their own.
    if (!member || member.teaches) throw problems.notFound();
    if (!(await allows(db, me.id, 'person.change', { person }))) throw problems.notOnlyYours(member.name);
    if (body.mail && !isMail(body.mail)) throw problems.noMail();
    await db.transaction((tx) => keepMember(tx, person, body));
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
        // The one who goes is done away with, and the one who stays gets what was the other's, their ways in too.
        for (const one of [from, stays])
          if (!(await allows(tx, me.id, 'person.merge', { person: one.id }))) throw problems.notOnlyYours(one.name);
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
      if (known) {
        await insertInvitation(tx, { course: params.course, person: known.id, role: 'teacher', name, by: person.id });
        return { slip: null, mailed: false, invited: true };
      }
      const id = await addNew(tx, { name, mail, number: '' }, params.course);
      await enrol(tx, params.course, id, 'teacher');
      const slip = await slipFor(tx, id, person.id);
      const title = await selectTitle(tx, params.course);
      const mailed =
        settings.mail.server !== undefined && (await inviteByMail(tx, slip, title, addressOf(settings, request)));
      return { slip: mailed ? null : slip, mailed, invited: false };
    });
  });

  serve(router, context, readInvitations, 'own', async ({ person }) => ({
    invitations: await selectInvitations(db, person.id),
  }));
  serve(router, context, answerInvitation, 'own', ({ params: { invitation: course }, body: { accept }, person }) =>
    db.transaction(async (tx) => {
      if (!(await answerTo(tx, { course, person: person.id, accept }))) throw problems.invitationOver();
      return { invitations: await selectInvitations(tx, person.id) };
    }),
  );
  return router;

  /** A workbook as if it had been copied out of its table. */
  async function textOf(file: UploadedFile, who: string): Promise<string | Uint8Array> {
    if (/\.xlsx$/iu.test(file.name)) return Papa.unparse(await readTable(context, who, file), { delimiter: '\t' });
    return bytesOf(db, file);
  }
}
