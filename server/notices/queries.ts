import { z } from 'zod';
import { Id, Instant } from '../../contract/basics.ts';
import { NewsItem, NoticeSettings } from '../../contract/notices.ts';
import { blindTo, viewerIn } from '../access/visible.ts';
import { select, selectOne, type Queries } from '../db/database.ts';

const Row = z.object({ settings: NoticeSettings, mail: z.string().nullable(), seenAt: Instant.nullable() });

/** How `p` wants to be told, with `n` where they have said so: by the clock by which they were here last, or the school's. */
const SETTINGS = `jsonb_build_object('byMail', coalesce(n.by_mail, true),
  'zone', coalesce(p.zone, (select zone from school), 'UTC'),
  'quiet', jsonb_build_object('from', coalesce(n.quiet_from, 20), 'to', coalesce(n.quiet_to, 7))) as settings`;

export async function selectSettings(
  db: Queries,
  person: string,
): Promise<{ settings: NoticeSettings; mail: string | null; seenAt: string | null }> {
  const row = await selectOne(
    db,
    Row,
    `select p.mail, n.seen_at as "seenAt", ${SETTINGS}
     from people p left join notice_settings n on n.person = p.id where p.id = $1`,
    [person],
  );
  return row!;
}

export async function upsertSettings(
  db: Queries,
  person: string,
  { byMail, quiet, zone }: NoticeSettings,
): Promise<void> {
  await db.query(
    `with moved as (update people set zone = $5 where id = $1)
     insert into notice_settings (person, by_mail, quiet_from, quiet_to) values ($1, $2, $3, $4)
     on conflict (person) do update set by_mail = excluded.by_mail, quiet_from = excluded.quiet_from,
       quiet_to = excluded.quiet_to`,
    [person, byMail, quiet.from, quiet.to, zone],
  );
}

export async function updateSeen(db: Queries, person: string): Promise<string> {
  const row = await selectOne(
    db,
    z.object({ seenAt: Instant }),
    `insert into notice_settings (person, seen_at) values ($1, now())
     on conflict (person) do update set seen_at = now() returning seen_at as "seenAt"`,
    [person],
  );
  return row!.seenAt;
}

/** Works that came back to `$1` and answers of their teachers, works that came in for `$1` and answers of students, since `$2`. */
const NEWS = `
  select 'returned' as kind, a.title as assignment, a.id as "assignmentId", s.id as submission, 1 as count, s.returned_at as at
  from submissions s join assignments a on a.id = s.assignment
  where s.student = $1 and s.returned_at > $2 and s.withdrawn_at is null
  union all
  select 'answered', a.title, a.id, s.id, count(*)::int, max(y.made_at)
  from replies y join remarks r on r.id = y.remark join submissions s on s.id = r.submission join assignments a on a.id = s.assignment
  where s.student = $1 and y.author <> $1 and y.made_at > $2 and s.returned_at is not null and s.held is distinct from 'remarks'
    and r.put_aside_at is null and not r.private
  group by a.id, a.title, s.id
  union all
  select 'handedIn', a.title, a.id, null, count(*)::int, max(s.handed_in_at)
  from submissions s join assignments a on a.id = s.assignment
  join enrolments e on e.course = a.course and e.person = $1 and e.role = 'teacher'
  where s.handed_in_at > $2 and s.withdrawn_at is null
  group by a.id, a.title
  union all
  select 'asked', a.title, a.id, null, count(*)::int, max(y.made_at)
  from replies y join remarks r on r.id = y.remark join submissions s on s.id = r.submission join assignments a on a.id = s.assignment
  join enrolments e on e.course = a.course and e.person = $1 and e.role = 'teacher'
  where y.author = s.student and y.made_at > $2 and r.put_aside_at is null and not ${blindTo(viewerIn('$1'))}
  group by a.id, a.title`;

/** @param since ISO 8601 */
export const selectNews = (db: Queries, person: string, since: string): Promise<NewsItem[]> =>
  select(db, NewsItem, `select * from (${NEWS}) n order by at desc, assignment limit 100`, [person, since]);

const Due = z.object({ person: Id, mail: z.string(), since: Instant, settings: NoticeSettings });
export type Due = z.infer<typeof Due>;

/** People who had no mail for a day, and for whom something may be new since then; in what order does not matter, as all get their turn. */
export const selectDue = (db: Queries, after: string): Promise<Due[]> =>
  select(
    db,
    Due,
    `select p.id as person, p.mail, greatest(n.mailed_at, n.seen_at, now() - interval '1 day') as since,
       ${SETTINGS}
     from people p left join notice_settings n on n.person = p.id
     where p.mail is not null and p.mail <> '' and coalesce(n.by_mail, true) and p.id > $1::uuid
       and (n.mailed_at is null or n.mailed_at < now() - interval '1 day')
     order by p.id limit 100`,
    [after],
  );

/** @returns whether nobody else has just done the same */
export async function claimDigest(tx: Queries, person: string): Promise<boolean> {
  const rows = await tx.query(
    `insert into notice_settings as n (person, mailed_at) values ($1, now())
     on conflict (person) do update set mailed_at = now()
       where n.mailed_at is null or n.mailed_at < now() - interval '1 day' returning 1 as one`,
    [person],
  );
  return rows.length > 0;
}
