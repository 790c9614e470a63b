import { Router } from 'express';
import { z } from 'zod';
import { Person, Zone } from '../../contract/basics.ts';
import { changeSchool, readSchool } from '../../contract/school.ts';
import type { Context } from '../context.ts';
import { select, selectOne } from '../db/database.ts';
import { problems } from '../errors.ts';
import { serve, serveAnyone } from '../http/serve.ts';
import { PERSON_COLUMNS } from '../http/person-of.ts';
import { isEmptySchool, isSteward } from './people.ts';

const SchoolRow = z.object({ name: z.string(), zone: Zone, sample: z.boolean() });

export function schoolRoutes(context: Context): Router {
  const router = Router();
  const { db, settings } = context;
  serveAnyone(router, readSchool, async () => {
    const school = await selectOne(db, SchoolRow, 'select name, zone, sample from school');
    const samplePeople = school?.sample
      ? await select(db, Person, `select ${PERSON_COLUMNS} from people p order by teaches desc, p.name`)
      : [];
    const empty = await isEmptySchool(db);
    return {
      ...{ name: school?.name ?? 'Vivid Margin', zone: school?.zone ?? 'UTC' },
      ...{ samplePeople, empty, limits: { fileBytes: settings.maxFileBytes } },
    };
  });

  serve(router, context, changeSchool, 'own', async ({ person, body: { name, zone } }) => {
    if (!(await isSteward(db, person.id))) throw problems.notAllowed();
    await db.query('update school set name = $1, zone = $2', [name, zone]);
    return {};
  });
  return router;
}
