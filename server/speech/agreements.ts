import { z } from 'zod';
import { SpeechPlace } from '../../contract/speech.ts';
import { select, type Queries } from '../db/database.ts';

/** Where a person lets their voice and their words go. */
export const selectAgreements = async (db: Queries, person: string): Promise<SpeechPlace[]> =>
  (
    await select(
      db,
      z.object({ place: SpeechPlace }),
      'select place from speech_agreements where person = $1 order by place',
      [person],
    )
  ).map(({ place }) => place);

export const hasAgreed = async (db: Queries, person: string, place: SpeechPlace): Promise<boolean> =>
  (await selectAgreements(db, person)).includes(place);

export async function putAgreement(db: Queries, person: string, place: SpeechPlace, agreed: boolean): Promise<void> {
  await db.query(
    agreed
      ? 'insert into speech_agreements (person, place) values ($1, $2) on conflict do nothing'
      : 'delete from speech_agreements where person = $1 and place = $2',
    [person, place],
  );
}
