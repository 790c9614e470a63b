import { fateOf, isLinkedByMail, planRoster, type Known, type PlannedLine } from '#core/roster';
import { z } from 'zod';
import { Id } from '../../contract/basics.ts';
import { MOST_LISTED, type RosterReport } from '../../contract/roster.ts';
import { select, type Database, type Queries } from '../db/database.ts';
import { problems } from '../errors.ts';
import { bringInOne } from '../roster/bring-in.ts';
import { selectKnown } from '../roster/queries.ts';
import { linkPerson } from './arrive.ts';
import { hasRole, MEDIA_TYPE, Members, nameOf, type ListedMember } from './claims.ts';
import type { Connected } from './connected.ts';
import { selectPlatform } from './sign-in.ts';
import { PlatformError, type PlatformService } from './service.ts';

const MOST_PAGES = 50;

/** Everybody whom a platform has in a course, page by page. @throws PlatformError */
export async function readMembersThere(service: PlatformService, address: string): Promise<ListedMember[]> {
  const found: ListedMember[] = [];
  let page: string | undefined = address;
  for (let pages = 0; page !== undefined; pages++) {
    const { json, next } = await service.ask(page, { accept: MEDIA_TYPE.members });
    const read = Members.safeParse(json);
    if (!read.success) throw new PlatformError('The platform’s class list is not as the standard wants it.');
    found.push(...read.data.members);
    if (found.length > MOST_LISTED || pages > MOST_PAGES) throw problems.listTooLong(MOST_LISTED);
    page = next;
  }
  return found;
}

interface Listing {
  course: string;
  connected: Connected;
  members: readonly ListedMember[];
  bringIn: boolean;
  /** Who brings them in. */
  teacher: string;
}

/** Says what comes of each student of the list, and does it where it is wished. */
export function listMembers(
  db: Database,
  { course, connected, members, bringIn, teacher }: Listing,
): Promise<RosterReport> {
  const students = members.filter(
    ({ roles, status }) => hasRole(roles, 'student') && (status ?? 'Active') === 'Active',
  );
  return db.transaction(async (tx) => {
    if (bringIn) await tx.query('select from courses where id = $1 for update', [course]);
    const linked = await selectLinked(tx, connected.platform);
    const known = await selectKnown(tx, { course, teacher, ids: [...linked.values()] });
    const lines = planned(students, linked, known);
    const added = bringIn ? await bringAll(tx, { course, connected, teacher, students, known }, lines) : [];
    return { lines, twoParts: false, done: bringIn, added };
  });
}

async function selectLinked(db: Queries, platform: string): Promise<Map<string, string>> {
  const rows = await select(
    db,
    z.object({ subject: z.string(), person: Id }),
    'select subject, person from platform_people where platform = $1',
    [platform],
  );
  return new Map(rows.map(({ subject, person }) => [subject, person]));
}

/** Whoever has come from there before is known, whatever they are called there by now. */
function planned(
  students: readonly ListedMember[],
  linked: ReadonlyMap<string, string>,
  known: readonly Known[],
): PlannedLine[] {
  const byId = new Map(known.map((one) => [one.id, one]));
  const lines = students.map((member, index) => ({
    ...{ line: index + 1, name: nameOf(member), mail: member.email ?? '', number: member.lis_person_sourcedid ?? '' },
  }));
  const fates = planRoster(lines, known);
  return students.map((member, index): PlannedLine => {
    const person = byId.get(linked.get(member.user_id) ?? '');
    return person ? { ...lines[index]!, ...fateOf(person) } : fates[index]!;
  });
}

interface Bringing {
  course: string;
  connected: Connected;
  teacher: string;
  students: readonly ListedMember[];
  known: readonly Known[];
}

/** Whoever is new here is who they are there; whoever was here before is so only where the rule for it says so. */
async function bringAll(
  tx: Queries,
  { course, connected: { platform }, teacher, students, known }: Bringing,
  lines: readonly PlannedLine[],
): Promise<string[]> {
  const { trustsMail } = await selectPlatform(tx, platform);
  const byId = new Map(known.map((one) => [one.id, one]));
  const added: string[] = [];
  for (const [index, line] of lines.entries()) {
    if (line.fate === 'refuse') continue;
    const person = await bringInOne(tx, course, line, teacher);
    const before = byId.get(person);
    const here = line.fate === 'known' || line.fate === 'join';
    const same = before && here && sameMail(before.mail, line.mail) && isLinkedByMail(trustsMail, before);
    if (line.fate === 'add' || same) await linkPerson(tx, platform, students[index]!.user_id, person);
    if (line.fate !== 'known') added.push(person);
  }
  return added;
}

const sameMail = (one: string, other: string): boolean =>
  one !== '' && one.normalize('NFKC').toLowerCase() === other.normalize('NFKC').toLowerCase();
