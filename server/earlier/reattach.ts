import type { NamedFolio, Reattachment } from '#core/anchor';
import type { Context } from '../context.ts';
import type { Queries } from '../db/database.ts';
import { selectFolio, selectHashes } from '../submissions/queries.ts';
import { heavyWork } from '../threads/heavy-work.ts';
import { runTask } from '../threads/one-task.ts';
import { selectPending, upsertReattachment, type Pending } from './queries.ts';
import type { ReattachTask } from './reattach-worker.ts';

const LIMITS = { memory: 1024, cpu: 120 };

/** Finds the places of earlier remarks in a new version after its hand-in was answered. What fails is done when it is opened. */
export function reattachSoon({ db }: Pick<Context, 'db'>, submission: string, who: string): void {
  void reattachEarlier(db, submission, who).catch((error: unknown) => {
    process.stderr.write(`Could not look for earlier remarks in ${submission}: ${String(error)}\n`);
  });
}

const underWay = new Map<string, Promise<void>>();

/**
 * Finds the places in this version of all earlier remarks that were not sought in it yet, off the request thread; once, however
 * many ask for it meanwhile.
 * @param who asks, and has one turn at a time
 */
export async function reattachEarlier(db: Queries, submission: string, who: string): Promise<void> {
  const begun = underWay.get(submission) ?? seek(db, submission, who).finally(() => underWay.delete(submission));
  underWay.set(submission, begun);
  await begun;
}

async function seek(db: Queries, submission: string, who: string): Promise<void> {
  const pending = await selectPending(db, submission);
  if (pending.length === 0) return;
  const next = await namedFolio(db, submission);
  for (const [version, remarks] of byVersion(pending)) {
    const anchors = remarks.map(({ anchor, latest_anchor }) => latest_anchor ?? anchor);
    const found = await inThread(who, { old: await namedFolio(db, version), next, anchors });
    for (const [index, { status, anchor, confidence }] of found.entries())
      await upsertReattachment(db, {
        remark: remarks[index]!.remark,
        submission,
        status,
        anchor: anchor ?? null,
        confidence,
      });
  }
}

/** By the newest version in which each has a place. */
function byVersion(pending: readonly Pending[]): Map<string, Pending[]> {
  const groups = new Map<string, Pending[]>();
  for (const one of pending) {
    const version = one.latest ?? one.own;
    groups.set(version, [...(groups.get(version) ?? []), one]);
  }
  return groups;
}

async function namedFolio(db: Queries, submission: string): Promise<NamedFolio> {
  return {
    folio: (await selectFolio(db, submission))!,
    files: await selectHashes(db, 'submission_files', submission),
    pictures: await selectHashes(db, 'submission_pictures', submission),
  };
}

const inThread = (who: string, task: ReattachTask): Promise<Reattachment[]> =>
  heavyWork.take(who, () => runTask<Reattachment[]>('reattaching', task, LIMITS));
