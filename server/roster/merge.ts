import type { Queries } from '../db/database.ts';

/** Columns that say who did something, wherever a student can stand in one. */
const DOERS = [
  'replies.author',
  'recordings.owner',
  'uploads.owner',
  'mails.person',
  'remarks.settled_by',
  'grade_changes.student',
  'platform_people.person',
];

/** Columns that are there once for each student: what the one who stays has already counts. */
const ONCE = [
  { table: 'answer_drafts', column: 'student', with: ['assignment'] },
  { table: 'notice_settings', column: 'person', with: [] },
  { table: 'typed_drafts', column: 'student', with: ['assignment'] },
  { table: 'standings', column: 'student', with: ['assignment'] },
  { table: 'entered_grades', column: 'student', with: ['assignment'] },
  { table: 'greetings', column: 'student', with: ['teacher'] },
  { table: 'listenings', column: 'person', with: ['recording'] },
  { table: 'speech_agreements', column: 'person', with: ['place'] },
  { table: 'platform_roles', column: 'person', with: ['context'] },
  { table: 'platform_grades', column: 'student', with: ['context', 'assignment'] },
  { table: 'enrolments', column: 'person', with: ['course'] },
  { table: 'course_invitations', column: 'person', with: ['course'] },
];

/**
 * Two entries of one student become one: all that was handed in, said and heard by `from` is that of `into`, who signs in as
 * before; `from` is gone. Call in a transaction.
 */
export async function mergePeople(tx: Queries, from: string, into: string): Promise<void> {
  await moveWorks(tx, from, into);
  for (const holder of DOERS) {
    const [table, column] = holder.split('.');
    await tx.query(`update ${table} set ${column} = $2 where ${column} = $1`, [from, into]);
  }
  for (const { table, column, with: others } of ONCE) {
    const same = ['true', ...others.map((other) => `o.${other} = t.${other}`)].join(' and ');
    await tx.query(
      `update ${table} t set ${column} = $2 where ${column} = $1
         and not exists (select from ${table} o where o.${column} = $2 and ${same})`,
      [from, into],
    );
  }
  const [lost] = await tx.query('delete from people where id = $1 returning mail, number', [from]);
  await tx.query('update people set mail = coalesce(mail, $2), number = coalesce(number, $3) where id = $1', [
    ...[into, lost!.mail, lost!.number],
  ]);
}

/** Far above every version that there is. */
const APART = 1_000_000;

/** Versions of one assignment are counted anew, in the order in which they came. */
async function moveWorks(tx: Queries, from: string, into: string): Promise<void> {
  await tx.query(
    `update submissions set version = version + case student when $1 then $3 else 2 * $3 end where student in ($1, $2)
       and assignment in (select assignment from submissions where student = $1)`,
    [from, into, APART],
  );
  await tx.query('update submissions set student = $2 where student = $1', [from, into]);
  await tx.query(
    `update submissions s set version = n.version from (
       select id, row_number() over (partition by assignment order by handed_in_at, id) as version from submissions
       where student = $1 and version > $2) n where n.id = s.id`,
    [into, APART],
  );
}
