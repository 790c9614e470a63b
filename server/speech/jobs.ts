import { z } from 'zod';
import { Id, LanguageTag } from '../../contract/basics.ts';
import { SpeechJob, Transcript } from '../../contract/transcripts.ts';
import type { Reader } from '../access/visible.ts';
import { select, selectOne, type Queries } from '../db/database.ts';
import { TRANSCRIPT_JSON } from '../transcripts/queries.ts';

export type SpeechTaskName = SpeechJob['task'];

const Claimed = z.object({ recording: Id, task: SpeechJob.shape.task, language: LanguageTag, attempts: z.int() });
export type ClaimedJob = z.infer<typeof Claimed>;

/** How often a job is tried that ends the engine, or the server, or fails for a reason that may pass. */
export const MOST_ATTEMPTS = 3;

/** Puts a recording in the queue; one that is there already is asked for anew. */
export async function queueJob(db: Queries, recording: string, task: SpeechTaskName, language: string): Promise<void> {
  await db.query(
    `insert into speech_jobs (recording, task, language) values ($1, $2, $3)
     on conflict (recording) do update set task = excluded.task, language = excluded.language, state = 'queued', reason = null,
       progress = null, attempts = 0, queued_at = now(), changed_at = now()`,
    [recording, task, language],
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
     where recording = (select j.recording from speech_jobs j join recordings g on g.id = j.recording
       where j.state = 'queued' and j.task = $1 and g.duration >= $2 and g.duration < $3
       order by j.attempts, j.queued_at limit 1 for update of j skip locked)
     returning recording, task, language, attempts`,
    [task, from, below],
  );

/** Says how much of a recording has been listened to, which also tells other processes that somebody is still at it. */
export async function noteProgress(db: Queries, { recording, task }: ClaimedJob, share: number): Promise<void> {
  await db.query(
    `update speech_jobs set progress = $3, changed_at = now() where recording = $1 and task = $2 and state = 'running'`,
    [recording, task, share],
  );
}

/** Ends a job, unless it was asked for anew meanwhile. */
export async function finishJob(
  db: Queries,
  { recording, task }: Pick<ClaimedJob, 'recording' | 'task'>,
  state: 'done' | 'failed' | 'queued',
  reason: string | null = null,
): Promise<void> {
  await db.query(
    `update speech_jobs set state = $3, reason = $4, changed_at = now()
     where recording = $1 and task = $2 and state = 'running'`,
    [recording, task, state, reason],
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

const JobRow = SpeechJob.extend({ recording: Id, transcript: Transcript.nullable() });

/** Recordings that are held by remarks on works, or by answers to them. */
const ON_WORK = `(select r.recording, r.submission from remarks r where r.recording is not null
  union all select y.recording, r.submission from replies y join remarks r on r.id = y.remark where y.recording is not null)`;

/** The jobs of a work that are not done, or were done a moment ago; for a student, those of their own recordings. */
export async function selectJobs(
  db: Queries,
  submission: string,
  { teacher, person }: Reader,
): Promise<{ recording: string; speech: SpeechJob; transcript: Transcript | null }[]> {
  const rows = await select(
    db,
    JobRow,
    `select j.recording, j.task, j.state, j.reason, j.progress, ${TRANSCRIPT_JSON} as transcript
     from speech_jobs j join ${ON_WORK} o on o.recording = j.recording join recordings g on g.id = j.recording
     left join transcripts t on t.recording = j.recording
     where o.submission = $1 and ($2 or g.owner = $3)
       and (j.state in ('queued', 'running') or j.changed_at > now() - interval '2 minutes')`,
    [submission, teacher, person],
  );
  return rows.map(({ recording, transcript, ...speech }) => ({ recording, speech, transcript }));
}

const SubjectRow = z.object({
  sound: z.instanceof(Buffer),
  author: Id,
  text: z.string(),
  names: z.array(z.string()),
});
export type SpeechSubject = z.infer<typeof SubjectRow>;

/** Who spoke and what about: the text of the work and the people of the class, where it is about a work. */
export const selectSubject = (db: Queries, recording: string): Promise<SpeechSubject | undefined> =>
  selectOne(
    db,
    SubjectRow,
    `select g.medium as sound, g.owner as author, coalesce(s.text, '') as text,
       (select coalesce(jsonb_agg(p.name), '[]') from enrolments e join people p on p.id = e.person
        where e.course = a.course) as names
     from recordings g left join ${ON_WORK} o on o.recording = g.id
     left join submissions s on s.id = o.submission left join assignments a on a.id = s.assignment
     where g.id = $1 limit 1`,
    [recording],
  );
