import { Router } from 'express';
import { bankFile, bankTable, importBank as importEndpoint } from '../../contract/bank-file.ts';
import type { Context } from '../context.ts';
import { problems } from '../errors.ts';
import { saveAs } from '../http/save-as.ts';
import { serve, serveBytes } from '../http/serve.ts';
import { wake } from '../recordings/make.ts';
import { exportBank } from './export.ts';
import { importBank } from './import.ts';
import { exportTable } from './table.ts';
import { zipped } from '../media/zip-stream.ts';

/** A bank out of the school and into another, as files of open formats. */
export function bankFileRoutes(context: Context): Router {
  const router = Router();
  const { db } = context;

  serve(router, context, importEndpoint, 'own', async ({ body, file, person }) => {
    if (!person.teaches) throw problems.notAllowed();
    const report = await importBank(db, person.id, file!, body.bringIn);
    if (report.done) wake(context);
    return report;
  });

  serveBytes(router, context, bankFile, 'own', (_params, _request, response, person) =>
    saveAs(response, 'remark-bank.zip', 'application/zip', zipped(exportBank(db, person.id))),
  );

  serveBytes(router, context, bankTable, 'own', (_params, _request, response, person) =>
    saveAs(response, 'remark-bank.csv', 'text/csv; charset=utf-8', exportTable(db, person.id)),
  );
  return router;
}
