import { Router } from 'express';
import {
  changeSound,
  keepOriginal,
  recordingOriginal,
  recordingSound,
  reportHeard,
} from '../../contract/recordings.ts';
import { holdForChange } from '../access/work-state.ts';
import type { Context } from '../context.ts';
import { problems } from '../errors.ts';
import { serve, serveBytes } from '../http/serve.ts';
import { keepUploaded } from '../media/media.ts';
import { sendMedium } from '../media/send.ts';
import { soundType } from '../media/sound-type.ts';
import { found } from './make.ts';
import { selectKept, selectListening, selectRecording, updateOriginal, upsertListening } from './queries.ts';
import { changeRendition } from './rendition.ts';

/** The sound of recordings, wherever they are held. */
export function recordingRoutes(context: Context): Router {
  const router = Router();
  const { db } = context;

  serve(router, context, changeSound, 'recording.change', async ({ params, body, file }) => {
    await db.transaction(async (tx) => {
      await holdForChange(tx, 'recording', params.recording);
      await changeRendition(tx, params.recording, { ...body, file: file! });
    });
    return found(await selectRecording(db, params.recording));
  });

  serve(router, context, keepOriginal, 'recording.change', async ({ params, file }) => {
    const type = await soundType(file!.head);
    await db.transaction(async (tx) => {
      await holdForChange(tx, 'recording', params.recording);
      await updateOriginal(tx, params.recording, await keepUploaded(tx, file!, type));
    });
    return {};
  });

  serve(router, context, reportHeard, 'recording.reportHeard', async ({ params, body, person, standing }) => {
    await db.transaction((tx) => upsertListening(tx, params.recording, person.id, body.played));
    const recording = found(
      await selectRecording(db, params.recording, { teacher: standing.teacher, person: person.id }),
    );
    // Of a note that all of a class listen to, each learns of themselves alone.
    return standing.holder === 'note' && !standing.teacher
      ? { ...recording, heard: await selectListening(db, params.recording, person.id) }
      : recording;
  });

  serveBytes(router, context, recordingSound, 'recording.hear', async ({ recording, sha256 }, request, response) => {
    const kept = await selectKept(db, recording);
    if (kept?.medium.toString('hex') !== sha256) throw problems.notFound();
    await sendMedium(db, kept.medium, request, response);
  });

  serveBytes(router, context, recordingOriginal, 'recording.readOriginal', async ({ recording }, request, response) => {
    const kept = await selectKept(db, recording);
    if (!kept) throw problems.notFound();
    await sendMedium(db, kept.original, request, response, { immutable: false });
  });
  return router;
}
