import { z } from 'zod';
import { BankedRemark, type BankedChange, type NewBanked } from '../../contract/bank.ts';
import { Id } from '../../contract/basics.ts';
import { NO_WORDS, SaidContent } from '../../contract/said.ts';
import { asTeacher, BANKED_FOR } from '../access/visible.ts';
import { select, selectOne, type Queries } from '../db/database.ts';
import { problems } from '../errors.ts';
import { recordingJson } from '../recordings/queries.ts';

/** What became of a banked remark `b`. Of a copy that is put aside nobody hears. */
const USAGE = `(select jsonb_build_object('uses', count(*), 'lastUsedAt', max(u.used_at),
    'heard', count(*) filter (where exists (select from listenings l
      where l.recording = r.recording and l.person <> r.author and l.finished_at is not null)),
    'answered', count(*) filter (where exists (select from replies y where y.remark = r.id)))
  from bank_uses u join remarks r on r.id = u.remark and r.put_aside_at is null where u.banked = b.id)`;

const BANKED_JSON = `(b.content - 'stamp' - 'ink' - 'talk') || ${USAGE} || jsonb_build_object(
  'id', b.id, 'owner', (select jsonb_build_object('id', o.id, 'name', o.name) from people o where o.id = b.owner),
  'lendsVoice', b.lends_voice, 'shared', jsonb_build_object(
    'courses', (select coalesce(jsonb_agg(h.course), '[]') from bank_shares h where h.banked = b.id and h.course is not null and b.owner = $2),
    'people', (select coalesce(jsonb_agg(h.person), '[]') from bank_shares h where h.banked = b.id and h.person is not null and b.owner = $2)),
   'description', b.description, 'kind', b.kind, 'criterion', b.criterion, 'gap', b.gap, 'pinned', case when b.owner = $2 then b.pinned end,
  'language', coalesce((select t.language from transcripts t where t.recording = b.recording), g.language, b.language),
  'recording', ${recordingJson('g', asTeacher, 2)}, 'madeAt', b.made_at, 'asideAt', b.put_aside_at)`;

/** Banked remarks in the order of the ids that are given, as a person sees them. */
export async function selectBanked(db: Queries, person: string, ids: readonly string[]): Promise<BankedRemark[]> {
  if (ids.length === 0) return [];
  const rows = await select(
    db,
    z.object({ remark: BankedRemark }),
    `select ${BANKED_JSON} as remark
     from jsonb_array_elements_text($1::jsonb) with ordinality as wanted (id, place)
     join banked_remarks b on b.id = wanted.id::uuid left join recordings g on g.id = b.recording where $2::uuid is not null order by wanted.place`,
    [JSON.stringify(ids), person],
  );
  return rows.map(({ remark }) => asSeenBy(person, remark));
}

/** Where its owner does not lend their voice, others get its words, to be spoken, and nothing of its sound. */
function asSeenBy(person: string, banked: BankedRemark): BankedRemark {
  if (banked.owner.id === person || banked.lendsVoice || !banked.recording) return banked;
  const said = banked.recording.transcript?.text ?? '';
  return { ...banked, recording: null, text: [banked.text, said].filter(Boolean).join('\n') };
}

const ORDERS = {
  name: "lower(b.content ->> 'name') collate any_language, b.id",
  newest: 'b.made_at desc, b.id',
  used: 'coalesce(u.uses, 0) desc, b.made_at desc, b.id',
  lastUsed: 'u.last_used_at desc nulls last, b.made_at desc, b.id',
};

export interface Listed {
  kind: string | null;
  criterion: string | null;
  language: string | null;
  tag: string | null;
  owner: string | null;
  unused: boolean;
  aside: boolean;
}

const UNUSED = `b.made_at < now() - interval '1 year'
  and not exists (select from bank_uses n where n.banked = b.id and n.used_at > now() - interval '1 year')`;

const LANGUAGE = `coalesce((select t.language from transcripts t where t.recording = b.recording), b.language)`;
const LISTED = `${BANKED_FOR} and coalesce(b.put_aside_at <= now(), true) and (b.put_aside_at is not null) = $2 and b.kind = coalesce($3, b.kind)
  and b.criterion = coalesce($4, b.criterion) and ($5::text is null or ${LANGUAGE} = $5)
  and ($6::text is null or b.content -> 'tags' ? $6) and b.owner = coalesce($7, b.owner)
  and (not $8 or ${UNUSED})`;
const listedValues = (
  owner: string,
  { aside, kind, criterion, language, tag, owner: whose, unused }: Listed,
): unknown[] => [...[owner, aside, kind, criterion, language, tag, whose, unused]];

/** The ids of those that fit, a page of them, and how many there are. */
export async function selectPage(
  db: Queries,
  owner: string,
  listed: Listed,
  { order, offset, limit }: { order: keyof typeof ORDERS; offset: number; limit: number },
): Promise<{ ids: string[]; total: number }> {
  const rows = await select(
    db,
    z.object({ id: Id, total: z.coerce.number() }),
    `select b.id, count(*) over () as total from banked_remarks b
     left join (select banked, count(*) as uses, max(used_at) as last_used_at from bank_uses group by banked) u on u.banked = b.id
     where ${LISTED} order by ${ORDERS[order]} limit $9 offset $10`,
    [...listedValues(owner, listed), limit, offset],
  );
  return { ids: rows.map(({ id }) => id), total: rows[0]?.total ?? 0 };
}

/** Which of a bank fit. */
export async function selectFitting(db: Queries, owner: string, listed: Listed): Promise<string[]> {
  const rows = await select(
    db,
    z.object({ id: Id }),
    `select b.id from banked_remarks b where ${LISTED}`,
    listedValues(owner, listed),
  );
  return rows.map(({ id }) => id);
}

const FiltersRow = z.object({
  total: z.coerce.number(),
  aside: z.coerce.number(),
  unused: z.coerce.number(),
  kinds: z.array(z.string()),
  criteria: z.array(z.string()),
  languages: z.array(z.string()),
  tags: z.array(z.string()),
  owners: z.array(z.object({ id: Id, name: z.string() })),
});
const distinct = (value: string): string =>
  `coalesce((select jsonb_agg(distinct value order by value) from (select ${value} as value from banked_remarks b
    where ${BANKED_FOR} and b.put_aside_at is null) found where value <> ''), '[]')`;

export const selectFilters = async (db: Queries, owner: string): Promise<z.infer<typeof FiltersRow>> =>
  (await selectOne(
    db,
    FiltersRow,
    `select (select count(*) from banked_remarks b where ${BANKED_FOR} and b.put_aside_at is null) as total,
       (select count(*) from banked_remarks where owner = $1 and put_aside_at <= now()) as aside,
       (select count(*) from banked_remarks b where owner = $1 and put_aside_at is null and ${UNUSED}) as unused,
       ${distinct('b.kind')} as kinds, ${distinct('b.criterion')} as criteria, ${distinct(LANGUAGE)} as languages,
       ${distinct("jsonb_array_elements_text(b.content -> 'tags')")} as tags,
       (select coalesce(jsonb_agg(jsonb_build_object('id', p.id, 'name', p.name) order by p.name), '[]') from people p
        where exists (select from banked_remarks b where b.owner = p.id and ${BANKED_FOR} and b.put_aside_at is null)) as owners`,
    [owner],
  ))!;

/** A person's own, those that are put aside left out, in the order in which they were kept. */
export async function selectOwnIds(db: Queries, owner: string): Promise<string[]> {
  const rows = await select(
    db,
    z.object({ id: Id }),
    'select id from banked_remarks where owner = $1 and put_aside_at is null order by made_at, id',
    [owner],
  );
  return rows.map(({ id }) => id);
}

/** What tells a person's own remarks apart, those that are put aside included. */
export const selectOwnWords = (
  db: Queries,
  owner: string,
): Promise<{ id: string; text: string; seconds: number | null; tags: string[] }[]> =>
  select(
    db,
    z.object({ id: Id, text: z.string(), seconds: z.number().nullable(), tags: z.array(z.string()) }),
    `select b.id, concat_ws(' ', b.content ->> 'text', b.content ->> 'suggestion', b.content ->> 'reaction', b.content ->> 'link',
       t.text) as text, g.duration as seconds, b.content -> 'tags' as tags
     from banked_remarks b left join recordings g on g.id = b.recording left join transcripts t on t.recording = g.id
     where b.owner = $1`,
    [owner],
  );

/** Which of these ids are taken, as banked remarks of others or as recordings. */
export async function selectTaken(db: Queries, owner: string, ids: readonly string[]): Promise<Set<string>> {
  const rows = await select(
    db,
    z.object({ id: Id }),
    `select value::uuid as id from jsonb_array_elements_text($1::jsonb)
     where exists (select from banked_remarks b where b.id = value::uuid and b.owner <> $2)
       or exists (select from recordings g where g.id = value::uuid)`,
    [JSON.stringify(ids), owner],
  );
  return new Set(rows.map(({ id }) => id));
}

/** Shows what was brought in, all of it at once. */
export async function showBroughtIn(db: Queries, ids: readonly string[]): Promise<void> {
  await db.query(
    `update banked_remarks set put_aside_at = null
     where put_aside_at > now() and id in (select value::uuid from jsonb_array_elements_text($1::jsonb))`,
    [JSON.stringify(ids)],
  );
}

export async function dropBroughtIn(db: Queries, ids: readonly string[]): Promise<void> {
  await db.query(
    `delete from banked_remarks
     where put_aside_at > now() and id in (select value::uuid from jsonb_array_elements_text($1::jsonb))`,
    [JSON.stringify(ids)],
  );
}

const IndexRow = z.object({
  id: Id,
  language: z.string(),
  kind: z.string(),
  criterion: z.string(),
  name: z.string(),
  description: z.string(),
  tags: z.array(z.string()),
  transcript: z.string(),
});
export type IndexRow = z.infer<typeof IndexRow>;

/** What a bank is found and suggested by, a piece of it after an id: others get their turn between the pieces. */
export const selectIndexRows = (db: Queries, owner: string, after: string | null, limit: number): Promise<IndexRow[]> =>
  select(
    db,
    IndexRow,
    `select b.id, ${LANGUAGE} as language, b.kind, b.criterion, b.content ->> 'name' as name, b.description,
       b.content -> 'tags' as tags, concat_ws(' ', b.content ->> 'text', b.content ->> 'suggestion', w.text,
         (select string_agg(x.text, ' ' order by x.language) from translations x where x.recording = b.recording)) as transcript
     from banked_remarks b left join transcripts w on w.recording = b.recording
     where ${BANKED_FOR} and b.put_aside_at is null and ($2::uuid is null or b.id > $2) order by b.id limit $3`,
    [owner, after, limit],
  );

/** Changes with whatever a person's bank is found or suggested by, that of others who share with them included. */
export async function selectBankVersion(db: Queries, person: string): Promise<string> {
  const row = await selectOne(
    db,
    z.object({ version: z.string() }),
    `select coalesce(string_agg(v.owner || ' ' || v.version, ',' order by v.owner), '') as version from bank_versions v
     where v.owner = $1 or exists (select from banked_remarks b where b.owner = v.owner and ${BANKED_FOR})`,
    [person],
  );
  return row!.version;
}

export interface BankedToInsert {
  id: string;
  owner: string;
  content: Omit<NewBanked, 'recording' | 'from' | 'language'>;
  recording: string | null;
  language: string;
  /** SHA-256 of the request, where it may come again. */
  madeFrom?: Buffer | null;
  /** ISO 8601; now where it is not given. */
  madeAt?: string | null;
  /** Shown by nobody yet: others of the same file are still on their way. */
  hidden?: boolean;
}

const contentOf = (content: BankedToInsert['content']): string =>
  JSON.stringify(SaidContent.parse({ ...NO_WORDS, ...content }));

/** @returns false where one of this id is there already */
export async function insertBanked(tx: Queries, banked: BankedToInsert): Promise<boolean> {
  const { id, owner, content, recording, language, madeFrom = null, madeAt = null, hidden = false } = banked;
  const { description, kind, criterion, gap } = content;
  const rows = await tx.query(
    `insert into banked_remarks (id, owner, recording, content, description, kind, criterion, language, gap, made_from, made_at,
       put_aside_at)
     values ($1, $2, $3, $4, $5, $6, $7, $8, $9, $10, coalesce($11::timestamptz, now()), case when $12 then now() + interval '100 years' end)
     on conflict (id) do nothing returning 1 as one`,
    [id, owner, recording, contentOf(content), description, kind, criterion, language, gap, madeFrom, madeAt, hidden],
  );
  return rows.length > 0;
}

/** Whether the one that is there already was kept by the same request. */
export async function isSameBanked(tx: Queries, { id, owner, madeFrom = null }: BankedToInsert): Promise<boolean> {
  const rows = await tx.query('select 1 as one from banked_remarks where id = $1 and owner = $2 and made_from = $3', [
    id,
    owner,
    madeFrom,
  ]);
  return rows.length > 0;
}

/** Whoever had the key before gives it up. */
export async function updateBanked(
  tx: Queries,
  owner: string,
  before: BankedRemark,
  change: BankedChange,
): Promise<void> {
  const after = BankedRemark.parse({ ...before, ...change });
  if (after.pinned !== null)
    await tx.query('update banked_remarks set pinned = null where owner = $1 and pinned = $2 and id <> $3', [
      owner,
      after.pinned,
      before.id,
    ]);
  await tx.query(
    `update banked_remarks set content = $2, description = $3, kind = $4, criterion = $5, gap = $6, pinned = $7, lends_voice = $8,
       language = $9
     where id = $1`,
    [
      before.id,
      contentOf(after),
      after.description,
      after.kind,
      after.criterion,
      after.gap,
      after.pinned,
      after.lendsVoice,
      after.language,
    ],
  );
  if (change.shared) await replaceShares(tx, before.id, change.shared);
}

async function replaceShares(tx: Queries, banked: string, { people, courses }: BankedRemark['shared']): Promise<void> {
  const strangers = await tx.query(
    `select 1 as one from jsonb_array_elements_text($1::jsonb) chosen
     where not exists (select from enrolments e where e.person = chosen.value::uuid and e.role = 'teacher') limit 1`,
    [JSON.stringify(people)],
  );
  if (strangers.length > 0) throw problems.sharedWithTeachers();
  await tx.query('delete from bank_shares where banked = $1', [banked]);
  await tx.query(
    `insert into bank_shares (banked, person, course)
     select $1::uuid, p.id, null::uuid from jsonb_array_elements_text($2::jsonb) chosen join people p on p.id = chosen.value::uuid
     union select $1::uuid, null, value::uuid from jsonb_array_elements_text($3::jsonb)`,
    [banked, JSON.stringify(people), JSON.stringify(courses)],
  );
}

/** Other people who teach anything. */
export const selectColleagues = (db: Queries, person: string): Promise<{ id: string; name: string }[]> =>
  select(
    db,
    z.object({ id: Id, name: z.string() }),
    `select p.id, p.name from people p where p.id <> $1
     and exists (select from enrolments e where e.person = p.id and e.role = 'teacher') order by p.name, p.id`,
    [person],
  );

export async function updateBankedAside(db: Queries, id: string, aside: boolean): Promise<void> {
  await db.query(
    `update banked_remarks set put_aside_at = case when $2 then coalesce(put_aside_at, now()) end,
       pinned = case when $2 then null else pinned end where id = $1`,
    [id, aside],
  );
}

export async function updateBankedRecording(tx: Queries, id: string, recording: string | null): Promise<void> {
  await tx.query('update banked_remarks set recording = $2, gap = null where id = $1', [id, recording]);
}

/** What was put aside can be brought back for 30 days; then it goes. So does, after a day, what a server that ended was bringing in. */
export async function purgeBank(db: Queries): Promise<void> {
  await db.query(
    `delete from banked_remarks where put_aside_at < now() - interval '30 days'
       or put_aside_at > now() and put_aside_at < now() + interval '100 years' - interval '1 day'`,
  );
}
