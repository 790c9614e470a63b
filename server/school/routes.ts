import { Router } from 'express';
import { z } from 'zod';
import { Person } from '../../contract/basics.ts';
import { readSchool } from '../../contract/school.ts';
import type { Context } from '../context.ts';
import { select, selectOne } from '../db/database.ts';
import { serveAnyone } from '../http/serve.ts';
import { PERSON_COLUMNS } from '../http/person-of.ts';
import { isEmptySchool } from './people.ts';

const SchoolRow = z.object({ name: z.string(), sample: z.boolean() });

export function schoolRoutes({ db, settings }: Context): Router {
  const router = Router();
  serveAnyone(router, readSchool, async () => {
    const school = await selectOne(db, SchoolRow, 'select name, sample from school');
    const samplePeople = school?.sample
      ? await select(db, Person, `select ${PERSON_COLUMNS} from people p order by teaches desc, p.name`)
      : [];
    const empty = await isEmptySchool(db);
    return { name: school?.name ?? 'Vivid Margin', samplePeople, empty, limits: { fileBytes: settings.maxFileBytes } };
  });
  return router;
}
