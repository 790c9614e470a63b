import { z } from 'zod';
import { Id, LanguageTag } from '../../contract/basics.ts';
import { SpeechJob, Transcript } from '../../contract/remarks.ts';
import { select, selectOne, type Queries } from '../db/database.ts';
import { TRANSCRIPT_JSON } from '../remarks/transcripts.ts';

export type SpeechTaskName = SpeechJob['task'];

const Claimed = z.object({ remark: Id, task: SpeechJob.shape.task, language: LanguageTag, attempts: z.int() });
export type ClaimedJob = z.infer<typeof Claimed>;

/** How often a job is tried that ends the engine, or the server, or fails for a reason that may pass. */
export const MOST_ATTEMPTS = 3;

/** Puts a recording in the queue; one that is there already is asked for anew. */
export async function queueJob(db: Queries, remark: string, task: SpeechTaskName, language: string): Promise<void> {
  await db.query(
    `insert into speech_jobs (remark, task, language) values ($1, $2, $3)
     on conflict (remark) do update set task = excluded.task, language = excluded.language, state = 'queued', reason = null,
       progress = null, attempts = 0, queued_at = now(), changed_at = now()`,
    [remark, task, language],
  );
}

/** Jobs that are worked off one after the other: those of a task, for recordings of `from` to less than `below` seconds. */
export interface Lane {
  task: SpeechTaskName;
  from: number;
  below: number;
}

/** Takes the oldest job of a lane that nobody else has taken. */
export const claimJob = (db: Queries, { task, from, below }: Lane): Promise<ClaimedJob | undefined> =>
  selectOne(
    db,
    Claimed,
    `update speech_jobs set state = 'running', progress = null, attempts = attempts + 1, changed_at = now()
     where remark = (select j.remark from speech_jobs j join remarks r on r.id = j.remark
       where j.state = 'queued' and j.task = $1 and coalesce(r.duration, 0) >= $2 and coalesce(r.duration, 0) < $3
       order by j.attempts, j.queued_at limit 1 for update of j skip locked)
     returning remark, task, language, attempts`,
    [task, from, below],
  );

/** Says how much of a recording has been listened to, which also tells other processes that somebody is still at it. */
export async function noteProgress(db: Queries, { remark, task }: ClaimedJob, share: number): Promise<void> {
  await db.query(
    `update speech_jobs set progress = $3, changed_at = now() where remark = $1 and task = $2 and state = 'running'`,
    [remark, task, share],
  );
}

/** Ends a job, unless it was asked for anew meanwhile. */
export async function finishJob(
  db: Queries,
  { remark, task }: Pick<ClaimedJob, 'remark' | 'task'>,
  state: 'done' | 'failed' | 'queued',
  reason: string | null = null,
): Promise<void> {
  await db.query(
    `update speech_jobs set state = $3, reason = $4, changed_at = now()
     where remark = $1 and task = $2 and state = 'running'`,
    [remark, task, state, reason],
  );
}

/**
 * Jobs that were running when the server ended are queued again; one that has ended it too often has failed.
 * @param seconds for which a running job has not been touched
 */
export async function recoverJobs(db: Queries, seconds: number, reason: string): Promise<void> {
  await db.query(
    `update speech_jobs set state = case when attempts < $2 then 'queued' else 'failed' end,
       reason = case when attempts < $2 then null else $3 end, changed_at = now()
     where state = 'running' and changed_at <= now() - make_interval(secs => $1)`,
    [seconds, MOST_ATTEMPTS, reason],
  );
}

const JobRow = SpeechJob.extend({ remark: Id, transcript: Transcript.nullable() });

/** The jobs of a work that are not done, or were done a moment ago. */
export async function selectJobs(
  db: Queries,
  submission: string,
): Promise<{ remark: string; speech: SpeechJob; transcript: Transcript | null }[]> {
  const rows = await select(
    db,
    JobRow,
    `select j.remark, j.task, j.state, j.reason, j.progress, ${TRANSCRIPT_JSON} as transcript
     from speech_jobs j join remarks r on r.id = j.remark left join transcripts t on t.remark = j.remark
     where r.submission = $1 and (j.state in ('queued', 'running') or j.changed_at > now() - interval '2 minutes')`,
    [submission],
  );
  return rows.map(({ remark, transcript, ...speech }) => ({ remark, speech, transcript }));
}

const SubjectRow = z.object({
  sound: z.instanceof(Buffer),
  author: Id,
  duration: z.number(),
  submission: Id,
  text: z.string(),
  names: z.array(z.string()),
});
export type SpeechSubject = z.infer<typeof SubjectRow>;

/** What a recording is about: the text of the work and the people of the class. */
export const selectSubject = (db: Queries, remark: string): Promise<SpeechSubject | undefined> =>
  selectOne(
    db,
    SubjectRow,
    `select r.sound, r.author, r.duration, r.submission, s.folio->>'text' as text,
       (select coalesce(jsonb_agg(p.name), '[]') from enrolments e join people p on p.id = e.person
        where e.course = a.course) as names
     from remarks r join submissions s on s.id = r.submission join assignments a on a.id = s.assignment
     where r.id = $1 and r.sound is not null`,
    [remark],
  );
