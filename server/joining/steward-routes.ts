import { Router } from 'express';
import { readPeople, resetPerson, SchoolPerson } from '../../contract/steward.ts';
import type { Context } from '../context.ts';
import { select, type Queries } from '../db/database.ts';
import { problems } from '../errors.ts';
import { serve } from '../http/serve.ts';
import { isSteward } from '../school/people.ts';
import { slipFor } from './slips.ts';

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
  return router;
}

const titles = (role: string): string => `(select coalesce(jsonb_agg(c.title order by c.title, c.id), '[]')
  from enrolments e join courses c on c.id = e.course where e.person = p.id and e.role = '${role}' and not c.second_marking)`;

const selectPeople = (db: Queries): Promise<SchoolPerson[]> =>
  select(
    db,
    SchoolPerson,
    `select p.id, p.name, p.login, p.steward, p.came_in_at as "cameInAt", ${titles('teacher')} as teaches,
       ${titles('student')} as learns
     from people p order by p.name, p.id`,
  );
