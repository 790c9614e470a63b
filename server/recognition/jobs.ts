import { z } from 'zod';
import { Id } from '../../contract/basics.ts';
import { RecognisedLeaf, type Recognised } from '../../contract/recognised.ts';
import { select, selectOne, type Queries } from '../db/database.ts';

/** How often a work is tried whose recognition fails. */
export const MOST_ATTEMPTS = 2;

/** Puts a work in the queue, once. */
export async function queueRecognition(db: Queries, submission: string): Promise<void> {
  await db.query('insert into recognition_jobs (submission) values ($1) on conflict do nothing', [submission]);
}

const Claimed = z.object({ submission: Id, attempts: z.int() });
export type ClaimedWork = z.infer<typeof Claimed>;

/** Takes the work that has waited longest and that nobody else has taken. */
export const claimWork = (db: Queries): Promise<ClaimedWork | undefined> =>
  selectOne(
    db,
    Claimed,
    `update recognition_jobs set state = 'running', attempts = attempts + 1, changed_at = now()
     where submission = (select submission from recognition_jobs where state = 'queued'
       order by attempts, queued_at limit 1 for update skip locked)
     returning submission, attempts`,
  );

/** Keeps the words of one leaf, which also tells other processes that this one is still at it. */
export async function keepLeaf(db: Queries, submission: string, { leaf, lines }: RecognisedLeaf): Promise<void> {
  await db.query(
    `insert into recognised_leaves (submission, leaf, lines) values ($1, $2, $3)
     on conflict (submission, leaf) do update set lines = excluded.lines`,
    [submission, leaf, JSON.stringify(lines)],
  );
  await db.query(`update recognition_jobs set changed_at = now() where submission = $1`, [submission]);
}

export async function endWork(db: Queries, submission: string, state: 'done' | 'failed' | 'queued'): Promise<void> {
  await db.query(
    `update recognition_jobs set state = $2, changed_at = now() where submission = $1 and state = 'running'`,
    [submission, state],
  );
}

/**
 * Works that were being read when a server ended are queued again; one that has ended it too often has failed.
 * @param seconds for which a running job has not been touched
 */
export async function recoverWorks(db: Queries, seconds: number): Promise<void> {
  await db.query(
    `update recognition_jobs set state = case when attempts < $2 then 'queued' else 'failed' end, changed_at = now()
     where state = 'running' and changed_at <= now() - make_interval(secs => $1)`,
    [seconds, MOST_ATTEMPTS],
  );
}

const StateRow = z.object({ state: z.enum(['queued', 'running', 'done', 'failed']) });

/** What is recognised so far; undefined where nobody has asked for it yet. */
export async function selectRecognised(db: Queries, submission: string): Promise<Recognised | undefined> {
  const job = await selectOne(db, StateRow, 'select state from recognition_jobs where submission = $1', [submission]);
  if (!job) return undefined;
  const leaves = await select(
    db,
    RecognisedLeaf,
    'select leaf, lines from recognised_leaves where submission = $1 order by leaf',
    [submission],
  );
  return { state: job.state === 'done' || job.state === 'failed' ? job.state : 'waiting', leaves };
}

/** The language of the work's course, as its teacher set it. */
export async function selectLanguage(db: Queries, submission: string): Promise<string> {
  const row = await selectOne(
    db,
    z.object({ language: z.string() }),
    `select c.spoken_language as language from submissions s join assignments a on a.id = s.assignment join courses c on c.id = a.course
     where s.id = $1`,
    [submission],
  );
  return row?.language ?? 'en';
}
