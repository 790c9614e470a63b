import { Router } from 'express';
import { dataOfPerson, erasePerson, ownData, readDataRecords } from '../../contract/own-data.ts';
import type { Context } from '../context.ts';
import { problems } from '../errors.ts';
import { saveAs } from '../http/save-as.ts';
import { serve, serveBytes } from '../http/serve.ts';
import { zipped } from '../media/zip-stream.ts';
import { isSteward } from '../school/people.ts';
import { archiveOf } from './archive.ts';
import { erase } from './erase.ts';
import { insertDataRecord, selectDataRecords } from './queries.ts';

/** All of one person: downloaded by themselves, exported or erased by the school. */
export function ownDataRoutes(context: Context): Router {
  const router = Router();
  const { db } = context;

  serveBytes(router, context, ownData, 'own', (_params, _request, response, person) =>
    saveAs(response, 'my-data.zip', 'application/zip', zipped(archiveOf(db, person.id))),
  );
  serveBytes(router, context, dataOfPerson, 'person.export', async (params, _request, response, person) => {
    await insertDataRecord(db, 'exported', params.person, person.id);
    await saveAs(response, `data-${params.person}.zip`, 'application/zip', zipped(archiveOf(db, params.person)));
  });

  serve(router, context, erasePerson, 'person.erase', ({ params, body, person }) =>
    db.transaction((tx) => erase(tx, params.person, body.name, person.id)),
  );
  serve(router, context, readDataRecords, 'own', async ({ person }) => {
    if (!(await isSteward(db, person.id))) throw problems.notAllowed();
    return { records: await selectDataRecords(db) };
  });
  return router;
}
