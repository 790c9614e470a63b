import pLimit from 'p-limit';
import { z } from 'zod';
import { Hundredths, Id, Instant } from '../../contract/basics.ts';
import type { GradeColumn } from '../../contract/gradebook.ts';
import type { SentState } from '../../contract/platforms.ts';
import { select, selectOne, type Queries } from '../db/database.ts';
import { selectGradebook } from '../gradebook/gradebook.ts';
import { Item, Items, MEDIA_TYPE } from './claims.ts';
import type { Connected } from './connected.ts';
import { PlatformError, type PlatformService } from './service.ts';

/** So many are sent for one request, and so many of them at a time. */
const AT_ONCE = 40;
const BESIDE = 4;
const UNKNOWN_THERE = 'The platform has not told who they are there. Look at its class list first.';

interface Due {
  student: string;
  name: string;
  points: number;
  possible: number;
  /** Who they are there; null where nobody has said. */
  subject: string | null;
  /** As it was tried the last time. */
  last: { points: number; possible: number; triedAt: string; problem: string | null } | null;
}

const SentRow = z.object({
  assignment: Id,
  student: Id,
  points: Hundredths,
  possible: Hundredths,
  triedAt: Instant,
  problem: z.string().nullable(),
});

/** What students see of each assignment, beside what the platform has been told of it. */
export async function selectDue(
  db: Queries,
  course: string,
  connected: Connected,
  person: string,
): Promise<Map<GradeColumn, Due[]>> {
  const { columns, rows } = await selectGradebook(db, course, person);
  const sent = await select(
    db,
    SentRow,
    `select g.assignment, g.student, (g.points * 100)::int as points, (g.possible * 100)::int as possible,
       g.tried_at as "triedAt", g.problem from platform_grades g where g.context = $1`,
    [connected.context],
  );
  const lastOf = new Map(sent.map((one) => [`${one.assignment} ${one.student}`, one]));
  const people = await select(
    db,
    z.object({ person: Id, subject: z.string() }),
    'select person, subject from platform_people where platform = $1',
    [connected.platform],
  );
  const subjectOf = new Map(people.map((one) => [one.person, one.subject]));
  return new Map(
    columns.map((column, at) => [
      column,
      rows.flatMap(({ id: student, name, cells }): Due[] => {
        const cell = cells[at];
        if (!cell || cell.nameless || !cell.returned || cell.points === null || !cell.possible) return [];
        const place = { student, name, points: cell.points, possible: cell.possible };
        const last = lastOf.get(`${column.id} ${student}`) ?? null;
        return [{ ...place, subject: subjectOf.get(student) ?? null, last }];
      }),
    ]),
  );
}

const isThere = ({ last, points, possible }: Due): boolean =>
  last !== null && last.problem === null && last.points === points && last.possible === possible;

export const stateOf = ({ id, title }: GradeColumn, due: readonly Due[]): SentState => ({
  ...{ assignment: id, title, returned: due.length, sent: due.filter(isThere).length },
  lastAt: due.flatMap(({ last }) => last?.triedAt ?? []).reduce<string | null>((a, b) => (a && a > b ? a : b), null),
  problems: due.flatMap(({ name, last }) => (last?.problem ? [{ student: name, why: last.problem }] : [])),
});

/** Sends what is not there yet and was not tried since. @returns how many are left */
export async function sendDue(
  db: Queries,
  service: PlatformService,
  { connected, column, due, since }: { connected: Connected; column: GradeColumn; due: readonly Due[]; since: string },
): Promise<number> {
  const open = due.filter(
    (one) => !isThere(one) && (one.last === null || Date.parse(one.last.triedAt) < Date.parse(since)),
  );
  const now = open.slice(0, AT_ONCE);
  if (now.length === 0) return 0;
  const address = await itemFor(db, service, connected, column);
  const turns = pLimit(BESIDE);
  await Promise.all(
    now.map((one) =>
      turns(async () => {
        const problem = one.subject === null ? UNKNOWN_THERE : await sendOne(service, address, one, one.subject);
        await keepSent(db, connected, column, one, problem);
      }),
    ),
  );
  return open.length - now.length;
}

/** @returns why it did not arrive; null where it did */
async function sendOne(
  service: PlatformService,
  item: string,
  { points, possible }: Due,
  userId: string,
): Promise<string | null> {
  try {
    await service.ask(scoresOf(item), {
      ...{ method: 'POST', accept: MEDIA_TYPE.score },
      body: {
        type: MEDIA_TYPE.score,
        content: {
          ...{ userId, scoreGiven: points / 100, scoreMaximum: possible / 100, timestamp: new Date().toISOString() },
          ...{ activityProgress: 'Completed', gradingProgress: 'FullyGraded' },
        },
      },
    });
    return null;
  } catch (error) {
    if (!(error instanceof PlatformError)) throw error;
    return error.message;
  }
}

/** Beside what the address of a column asks for itself (AGS 2.0, 3.4). */
function scoresOf(item: string): string {
  const address = new URL(item);
  address.pathname = `${address.pathname.replace(/\/$/u, '')}/scores`;
  return address.href;
}

/** The platform's column for an assignment; made there where it has none. @throws PlatformError */
async function itemFor(
  db: Queries,
  service: PlatformService,
  { context, itemsAddress }: Connected,
  { id, title, possible }: GradeColumn,
): Promise<string> {
  const known = await selectOne(
    db,
    z.object({ address: z.string() }),
    'select address from platform_items where context = $1 and assignment = $2',
    [context, id],
  );
  if (known) return known.address;
  const listed = new URL(itemsAddress!);
  listed.searchParams.set('resource_id', id);
  const there = Items.safeParse((await service.ask(listed.href, { accept: MEDIA_TYPE.items })).json);
  const found = there.data?.find(({ resourceId }) => resourceId === id)?.id ?? (await makeItem());
  await db.query(
    `insert into platform_items (context, assignment, address) values ($1, $2, $3)
     on conflict (context, assignment) do update set address = excluded.address`,
    [context, id, found],
  );
  return found;

  async function makeItem(): Promise<string> {
    const content = { label: title, scoreMaximum: (possible ?? 100_00) / 100, resourceId: id };
    const { json } = await service.ask(itemsAddress!, {
      ...{ method: 'POST', accept: MEDIA_TYPE.item, body: { type: MEDIA_TYPE.item, content } },
    });
    const made = Item.safeParse(json);
    if (!made.success) throw new PlatformError('The platform made a column, but did not say where.');
    return made.data.id;
  }
}

const keepSent = async (
  db: Queries,
  { context }: Connected,
  { id }: GradeColumn,
  { student, points, possible }: Due,
  problem: string | null,
): Promise<void> =>
  void (await db.query(
    `insert into platform_grades (context, assignment, student, points, possible, tried_at, problem)
     values ($1, $2, $3, $4::int / 100.0, $5::int / 100.0, now(), $6)
     on conflict (context, assignment, student) do update set points = excluded.points, possible = excluded.possible,
       tried_at = excluded.tried_at, problem = excluded.problem`,
    [context, id, student, points, possible, problem],
  ));
