import { Router } from 'express';
import { acceptFor, changePerson, mergePerson, readPeople, resetPerson, SchoolPerson } from '../../contract/steward.ts';
import { isMail } from '#core/roster';
import { allows } from '../access/authorise.ts';
import { STAFF } from '../access/visible.ts';
import type { Context } from '../context.ts';
import { select, type Queries } from '../db/database.ts';
import { problems } from '../errors.ts';
import { serve } from '../http/serve.ts';
import { isSteward } from '../school/people.ts';
import { slipFor } from '../joining/slips.ts';
import { answerInvitation } from './invitations.ts';
import { mergePeople } from './merge.ts';
import { keepMember } from './queries.ts';

/** What the school's steward does: people and their ways in. */
export function stewardRoutes(context: Context): Router {
  const router = Router();
  const { db } = context;

  serve(router, context, readPeople, 'own', async ({ person }) => {
    if (!(await isSteward(db, person.id))) throw problems.notAllowed();
    return { people: await selectPeople(db) };
  });

  serve(router, context, resetPerson, 'person.reset', ({ params, person }) =>
    db.transaction(async (tx) => ({ slip: await slipFor(tx, params.person, person.id) })),
  );

  serve(router, context, changePerson, 'person.administer', async ({ params, body }) => {
    if (body.mail && !isMail(body.mail)) throw problems.noMail();
    await db.transaction((tx) => keepMember(tx, params.person, body));
    return {};
  });

  serve(router, context, mergePerson, 'person.administer', ({ params: { person: from }, body: { into }, person }) =>
    db.transaction(async (tx) => {
      if (from === into || !(await allows(tx, person.id, 'person.merge', { person: into }))) throw problems.notFound();
      // What a teacher said belongs to other people's works.
      const staff = await tx.query(`select 1 as one from people p where p.id = $1 and ${STAFF}`, [from]);
      if (staff.length > 0) throw problems.mergesTeacher();
      await mergePeople(tx, from, into);
      return {};
    }),
  );

  serve(router, context, acceptFor, 'person.administer', ({ params: { person, course } }) =>
    db.transaction(async (tx) => {
      if (!(await answerInvitation(tx, { course, person, accept: true }))) throw problems.invitationOver();
      return {};
    }),
  );
  return router;
}

const titles = (role: string): string => `(select coalesce(jsonb_agg(c.title order by c.title, c.id), '[]')
  from enrolments e join courses c on c.id = e.course where e.person = p.id and e.role = '${role}' and not c.second_marking)`;

const selectPeople = (db: Queries): Promise<SchoolPerson[]> =>
  select(
    db,
    SchoolPerson,
    `select p.id, p.name, p.login, p.steward, p.came_in_at as "cameInAt", ${titles('teacher')} as teaches,
       ${titles('student')} as learns, coalesce(p.mail, '') as mail, coalesce(p.number, '') as number,
       (select coalesce(jsonb_agg(jsonb_build_object('course', c.id, 'title', c.title) order by c.title, c.id), '[]')
        from course_invitations i join courses c on c.id = i.course where i.person = p.id) as invited
     from people p order by p.name, p.id`,
  );
