import { wellFormedIn } from '#core/text';
import { mkdir, readFile, writeFile } from 'node:fs/promises';
import path from 'node:path';
import { AnnotationPage } from '../contract/annotation.ts';
import { Id } from '../contract/basics.ts';
import { exportAnnotations, sha256OfIri } from '../server/annotations/export.ts';
import { importAnnotations } from '../server/annotations/import.ts';
import type { Database } from '../server/db/database.ts';
import { openDatabase } from '../server/db/open.ts';
import { findMedium, readWholeMedium } from '../server/media/media.ts';
import { readSettings } from '../server/settings.ts';
import { parseJson } from './reattach.ts';

interface Options {
  /** A file of annotations to be read back. */
  import?: string;
  /** A folder that recordings are written to, or read from; each file is called by its SHA-256. */
  sounds?: string;
}

/** The remarks on a work as W3C Web Annotations, or how many were read back. */
export async function annotations(submission: string, options: Options): Promise<object> {
  if (!Id.safeParse(submission).success) throw new Error(`${submission} is no identifier of a work.`);
  const db = await openDatabase(readSettings(process.env));
  try {
    return await (options.import
      ? readBack(db, submission, options.import, options.sounds)
      : write(db, submission, options.sounds));
  } finally {
    await db.close();
  }
}

async function write(db: Database, submission: string, folder: string | undefined): Promise<AnnotationPage> {
  const page = await exportAnnotations(db, submission);
  if (!page) throw new Error(`There is no work ${submission}.`);
  if (folder === undefined) return page;
  await mkdir(folder, { recursive: true });
  for (const body of page.items.flatMap((item) => item.body)) {
    const sha256 = body.type === 'Audio' ? sha256OfIri(body.id) : undefined;
    if (sha256 === undefined) continue;
    const hash = Buffer.from(sha256, 'hex');
    await writeFile(path.join(folder, sha256), await readWholeMedium(db, hash, (await findMedium(db, hash))!));
  }
  return page;
}

async function readBack(db: Database, submission: string, file: string, folder: string | undefined): Promise<object> {
  const page = AnnotationPage.parse(wellFormedIn(parseJson(await readFile(file, 'utf8'), file)));
  return importAnnotations(db, submission, page, (sha256) =>
    folder === undefined ? Promise.resolve(undefined) : readFile(path.join(folder, sha256)).catch(() => undefined),
  );
}
