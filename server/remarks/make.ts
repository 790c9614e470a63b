import { anchorHolds } from '#core/anchor';
import type { NewRemark, Remark } from '../../contract/remarks.ts';
import type { Context } from '../context.ts';
import type { Queries } from '../db/database.ts';
import { problems } from '../errors.ts';
import { keepMedium } from '../media/media.ts';
import { soundType } from '../media/sound-type.ts';
import { selectFolio } from '../submissions/queries.ts';
import { insertRemark, isSameRemark, selectRemark, upsertTranscript } from './queries.ts';

export interface RemarkRequest {
  id: string;
  submission: string;
  author: string;
  remark: NewRemark;
  bytes: Buffer;
}

/** Keeps a remark and its sound together, once however often it is sent, and then asks for its transcript. */
export async function makeRemark({ db, transcriber }: Context, request: RemarkRequest): Promise<Remark> {
  const { id, submission, author, remark, bytes } = request;
  const mediaType = await soundType(bytes);
  const folio = await selectFolio(db, submission);
  if (!folio) throw problems.notFound();
  if (!anchorHolds(folio, remark.anchor)) throw problems.anchorLost();

  await db.transaction(async (tx) => {
    await refuseIfReturned(tx, submission);
    const sound = await keepMedium(tx, bytes, mediaType);
    const { kind, anchor } = remark;
    const { duration, peaks } = remark.sound;
    const row = { id, submission, author, kind, anchor, sound, duration, peaks };
    if (!(await insertRemark(tx, row)) && !(await isSameRemark(tx, row))) throw problems.idTaken();
  });

  const made = (await selectRemark(db, id))!;
  if (made.transcript) return made;
  const { duration, microphone } = remark.sound;
  const transcript = await transcriber.transcribe({ bytes, mediaType, duration, microphone });
  if (!transcript) return made;
  await upsertTranscript(db, id, transcript);
  return { ...made, transcript };
}

/** Permission was checked before; this also holds against a return in the same moment. */
async function refuseIfReturned(tx: Queries, submission: string): Promise<void> {
  const rows = await tx.query('select 1 as one from submissions where id = $1 and returned_at is null for update', [
    submission,
  ]);
  if (rows.length === 0) throw problems.returned();
}
