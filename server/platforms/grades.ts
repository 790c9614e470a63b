import { isDeepStrictEqual } from 'node:util';
import pLimit from 'p-limit';
import { z } from 'zod';
import { Hundredths, Id, Instant } from '../../contract/basics.ts';
import type { GradeCell, GradeColumn } from '../../contract/gradebook.ts';
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

/** So many hundredths of a point, out of so many. */
const Result = z.object({ points: Hundredths, possible: Hundredths });
type Result = z.infer<typeof Result>;

interface Due {
  student: string;
  name: string;
  /** What its student sees; null where what is there is to be taken back. */
  result: Result | null;
  /** What the platform holds. */
  held: Result | null;
  /** Who they are there; null where nobody has said. */
  subject: string | null;
  /** The last time that it was tried, and why that did not arrive. */
  last: { triedAt: string; problem: string | null } | null;
}

const SentRow = z.object({
  assignment: Id,
  student: Id,
  held: Result.nullable(),
  triedAt: Instant,
  problem: z.string().nullable(),
});

/** What students see of each assignment, beside what the platform holds of it: grades to send, and grades to take back. */
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
    `select g.assignment, g.student, g.tried_at as "triedAt", g.problem, case when g.held_points is not null then
         jsonb_build_object('points', (g.held_points * 100)::int, 'possible', (g.held_possible * 100)::int) end as held
     from platform_grades g where g.context = $1`,
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
        if (cell?.nameless) return [];
        const last = lastOf.get(`${column.id} ${student}`) ?? null;
        const [result, held] = [resultIn(cell), last?.held ?? null];
        if (result === null && held === null) return [];
        return [{ student, name, result, held, subject: subjectOf.get(student) ?? null, last }];
      }),
    ]),
  );
}

function resultIn(cell: GradeCell | null | undefined): Result | null {
  const given = cell?.returned === true && cell.points !== null && cell.flag !== 'excused';
  return given && cell.possible ? { points: cell.points!, possible: cell.possible } : null;
}

const isThere = ({ result, held }: Due): boolean => isDeepStrictEqual(result, held);

export const stateOf = ({ id, title }: GradeColumn, due: readonly Due[]): SentState => ({
  ...{ assignment: id, title, returned: due.filter(({ result }) => result).length },
  ...{
    sent: due.filter((one) => one.result && isThere(one)).length,
    toWithdraw: due.filter(({ result }) => !result).length,
  },
  different: due
    .filter((one) => !isThere(one))
    .map(({ name, result, held }) => ({ student: name, here: result, there: held })),
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
  const item = platformItem(db, service, connected, column);
  await item.find();
  const turns = pLimit(BESIDE);
  await Promise.all(
    now.map((one) =>
      turns(async () => {
        const problem = one.subject === null ? UNKNOWN_THERE : await sendOne(service, item, one, one.subject);
        await keepSent(db, connected, column, one, problem);
      }),
    ),
  );
  return open.length - now.length;
}

/** A score without points clears the earlier one (LTI Assignment and Grade Services 2.0, from memory). */
const scoreOf = ({ result }: Due, userId: string): object => ({
  ...{ userId, timestamp: new Date().toISOString() },
  ...(result
    ? {
        ...{ scoreGiven: result.points / 100, scoreMaximum: result.possible / 100 },
        ...{ activityProgress: 'Completed', gradingProgress: 'FullyGraded' },
      }
    : { activityProgress: 'Initialized', gradingProgress: 'NotReady' }),
});

/** @returns why it did not arrive; null where it did */
async function sendOne(service: PlatformService, item: PlatformItem, due: Due, userId: string): Promise<string | null> {
  const send = async (address: string): Promise<unknown> =>
    service.ask(scoresOf(address), {
      ...{ method: 'POST', accept: MEDIA_TYPE.score },
      body: { type: MEDIA_TYPE.score, content: scoreOf(due, userId) },
    });
  const address = await item.find();
  try {
    await send(address).catch(async (error: unknown) => {
      if (!(error instanceof PlatformError && error.status === 404)) throw error;
      // The column was deleted on the platform, or the student isn't in its course.
      const again = await item.findAgain(address);
      if (again === address) throw error;
      await send(again);
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

/** The platform's column for an assignment. */
interface PlatformItem {
  /** Its address; it is made there where there is none. @throws PlatformError */
  find(): Promise<string>;
  /** Looks there again, once however many ask: the address that is known leads nowhere any more. @throws PlatformError */
  findAgain(gone: string): Promise<string>;
}

function platformItem(
  db: Queries,
  service: PlatformService,
  { context, itemsAddress }: Connected,
  { id, title, possible }: GradeColumn,
): PlatformItem {
  let known: Promise<string> | undefined;
  let looked = false;
  return {
    find: () => (known ??= kept().then((address) => address ?? look())),
    findAgain(gone) {
      if (!looked) {
        looked = true;
        known = look(gone);
      }
      return known!;
    },
  };

  async function kept(): Promise<string | undefined> {
    const row = await selectOne(
      db,
      z.object({ address: z.string() }),
      'select address from platform_items where context = $1 and assignment = $2',
      [context, id],
    );
    return row?.address;
  }

  async function look(gone?: string): Promise<string> {
    const listed = new URL(itemsAddress!);
    listed.searchParams.set('resource_id', id);
    const there = Items.safeParse((await service.ask(listed.href, { accept: MEDIA_TYPE.items })).json);
    const found = there.data?.find(({ resourceId }) => resourceId === id)?.id ?? (await makeItem());
    await db.query(
      `insert into platform_items (context, assignment, address) values ($1, $2, $3)
       on conflict (context, assignment) do update set address = excluded.address`,
      [context, id, found],
    );
    // With the column went all that was in it.
    if (gone !== undefined && gone !== found)
      await db.query(
        'update platform_grades set held_points = null, held_possible = null where context = $1 and assignment = $2',
        [context, id],
      );
    return found;
  }

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
  { student, result }: Due,
  problem: string | null,
): Promise<void> =>
  void (await db.query(
    `insert into platform_grades as g (context, assignment, student, points, possible, tried_at, problem, held_points, held_possible)
     select $1, $2, $3, x.points, x.possible, now(), $6::text, case when $6::text is null then x.points end, case when $6::text is null then x.possible end
     from (select $4::int / 100.0 as points, $5::int / 100.0 as possible) x
     on conflict (context, assignment, student) do update set points = excluded.points, possible = excluded.possible,
       tried_at = excluded.tried_at, problem = excluded.problem,
       held_points = case when $6::text is null then excluded.points else g.held_points end,
       held_possible = case when $6::text is null then excluded.possible else g.held_possible end`,
    [context, id, student, result?.points ?? null, result?.possible ?? null, problem],
  ));
