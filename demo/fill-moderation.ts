import { passageAnchor } from '#core/anchor';
import { sampleOf, seededRandom } from '#core/moderation';
import type { Scores } from '#core/grading';
import { randomUUID } from 'node:crypto';
import { z } from 'zod';
import { Id } from '../contract/basics.ts';
import { NO_WORDS, SaidContent } from '../contract/said.ts';
import { select, selectOne, type Queries } from '../server/db/database.ts';
import { selectRubric, selectScores, upsertScore } from '../server/grading/queries.ts';
import { selectBorders, selectPool } from '../server/moderation/pool.ts';
import { finish, selectCompared, selectModeration } from '../server/moderation/queries.ts';
import { settle } from '../server/moderation/settle.ts';
import { insertModeration } from '../server/moderation/start.ts';
import type { Banked } from './fill-bank.ts';
import { TERM_COURSE } from './term.ts';

/** What the sample of the sample school is drawn with. */
const SEED = 'shoreline';

/** How many levels the second marker is above the first, one score after another. */
const APART = [0, 0, -1, 0, 1, 0, 0, -1, 0, 0, 0, -2, 0, 1, 0];
const WANTED = { random: 4, borders: 2, extremes: 2 };

/** The last letters of the term, some of them marked a second time by a colleague and handed over; one is settled. Call in a transaction. */
export async function fillModeration(
  tx: Queries,
  { teacher, second }: { teacher: string; second: string },
  banked: ReadonlyMap<string, Banked>,
): Promise<void> {
  const { assignment } = (await selectOne(
    tx,
    z.object({ assignment: Id }),
    `select a.id as assignment from assignments a join courses c on c.id = a.course and c.title = $1 and not c.second_marking
     where a.category = 'Letters' and exists (select from submissions s where s.assignment = a.id)
     order by a.due_at desc limit 1`,
    [TERM_COURSE],
  ))!;
  const pool = await selectPool(tx, assignment, teacher, second);
  const sample = sampleOf(pool, WANTED, await selectBorders(tx, assignment), seededRandom(SEED));
  const id = await insertModeration(tx, {
    ...{ assignment, marker: second, person: teacher, seed: SEED },
    works: sample.map(({ id: work, reason }) => ({ work, reason })),
  });
  const told = await selectModeration(tx, id);
  const own = await selectRubric(tx, assignment);
  const pairs = await select(
    tx,
    z.object({ work: Id, copy: Id, text: z.string() }),
    `select w.work, w.second_work as copy, s.folio ->> 'text' as text from moderated_works w
     join submissions s on s.id = w.second_work where w.moderation = $1 order by s.student`,
    [id],
  );
  const kept = [...banked.values()];
  let turn = 0;
  for (const [index, { work, copy, text }] of pairs.entries()) {
    const first = await selectScores(tx, work);
    for (const [place, { id: criterion, levels }] of told.secondRubric.entries()) {
      const given = first[own[place]!.id] as { level: string };
      const at = own[place]!.levels.findIndex((level) => level.id === given.level) + APART[turn++ % APART.length]!;
      const score = { level: levels[Math.max(0, Math.min(levels.length - 1, at))]!.id };
      await upsertScore(tx, { submission: copy, criterion, score, person: second });
    }
    await say(tx, { copy, text, second }, kept[index % kept.length]!);
  }
  await finish(tx, told);

  const [compared] = await selectCompared(tx, id);
  const scores: Scores = compared!.secondScores;
  const why = 'We read the ending together: the boat is named twice, so the second reading stands.';
  await settle(tx, { moderation: id, work: compared!.work, rubric: own, scores, why, person: teacher });
}

/** A remark out of the bank, about the first sentence. */
async function say(
  tx: Queries,
  { copy, text, second }: { copy: string; text: string; second: string },
  { recording, sample }: Banked,
): Promise<void> {
  const sound = randomUUID();
  await tx.query(
    `insert into recordings (id, owner, medium, duration, peaks, picture, language)
     select $1, $2, medium, duration, peaks, picture, language from recordings where id = $3`,
    [sound, second, recording],
  );
  await tx.query(
    `insert into transcripts (recording, language, text, words, source, engine, approximate, read)
     select $1, language, text, words, source, engine, approximate, read from transcripts where recording = $2`,
    [sound, recording],
  );
  const anchor = passageAnchor(text, 0, text.indexOf('.') + 1);
  const content = SaidContent.parse({ ...NO_WORDS, name: sample.title, tags: sample.tags });
  await tx.query(
    `insert into remarks (id, submission, author, kind, anchor, recording, content)
     values (gen_random_uuid(), $1, $2, $3, $4, $5, $6)`,
    [copy, second, sample.kind, JSON.stringify(anchor), sound, JSON.stringify(content)],
  );
}
