import { may, type Action, type Standing } from '#core/workflow';
import { z } from 'zod';
import { Id } from '../contract/basics.ts';
import { selectOne, type Queries } from './db/database.ts';
import { problems } from './errors.ts';

/*
 * Who may see or do what, for every object, is decided here: `standingTo` finds out how the person stands to the object that
 * the request names, and `permissions` in core/workflow says what that standing allows. `server/http/serve.ts` asks for every
 * request before its handler runs. Where somebody may not even read the object, it does not exist for them.
 */

export type ObjectKind = 'course' | 'assignment' | 'submission' | 'remark' | 'reply';

const OBJECT_KINDS: readonly ObjectKind[] = ['reply', 'remark', 'submission', 'assignment', 'course'];

const StandingRow = z.object({
  teacher: z.boolean(),
  student: z.boolean(),
  author: z.boolean(),
  returned: z.boolean(),
  opened: z.boolean(),
}) satisfies z.ZodType<Standing>;

const TEACHES = `exists (select from enrolments e where e.course = a.course and e.person = $1 and e.role = 'teacher')`;
const LEARNS = `exists (select from enrolments e where e.course = a.course and e.person = $1 and e.role = 'student')`;

/** A work that was withdrawn is there for its author alone; what is put aside or private, for teachers. */
const WORK = `s.withdrawn_at is null and ${TEACHES} as teacher, ${LEARNS} as student, s.student = $1 as author,
  s.returned_at is not null as returned, s.opened_at is not null as opened`;

/**
 * Which remarks a person `$1` may read, for what is looked for among many; a condition on remark `r`, work `s` and assignment `a`.
 */
export const READABLE_REMARK = `s.withdrawn_at is null and r.put_aside_at is null
  and (${TEACHES} or (s.student = $1 and s.returned_at is not null and not r.private))`;

const STANDING: Record<ObjectKind, string> = {
  course: `select ${TEACHES} as teacher, ${LEARNS} as student, false as author, false as returned, false as opened
    from (select id as course from courses) a where a.course = $2`,
  assignment: `select ${TEACHES} as teacher, ${LEARNS} as student, false as author, false as returned, false as opened
    from assignments a where a.id = $2`,
  submission: `select ${WORK} from submissions s join assignments a on a.id = s.assignment where s.id = $2`,
  remark: `
    select ${WORK} from remarks r join submissions s on s.id = r.submission join assignments a on a.id = s.assignment
    where r.id = $2 and ((r.put_aside_at is null and not r.private) or ${TEACHES})`,
  reply: `
    select ${WORK} from replies p join remarks r on r.id = p.remark
    join submissions s on s.id = r.submission join assignments a on a.id = s.assignment
    where p.id = $2 and r.put_aside_at is null and (not r.private or ${TEACHES})`,
};

/**
 * Lets an action pass and answers how the person stands to its object, or throws the problem that says why not.
 * @param params the parameters of the path; the most specific object among them counts
 */
export async function authorise(
  db: Queries,
  person: string,
  action: Action,
  params: Record<string, string>,
): Promise<Standing> {
  const standing = await standingTo(db, person, action, params);
  if (may(standing, action)) return standing;
  if (action === 'work.withdraw' && standing.author) throw problems.opened();
  const readable = /^(assignment|course)\./.test(action) ? standing.student : may(standing, 'work.read');
  if (!readable || (standing.author && !standing.returned)) throw problems.notFound();
  const otherwise = { ...standing, returned: !standing.returned };
  if (!may(otherwise, action)) throw problems.notAllowed();
  throw standing.returned ? problems.returned() : problems.notReturned();
}

async function standingTo(
  db: Queries,
  person: string,
  action: Action,
  params: Record<string, string>,
): Promise<Standing> {
  const kind = objectOf(action, params);
  const id = Id.safeParse(params[kind]);
  const standing = id.success ? await selectOne(db, StandingRow, STANDING[kind], [person, id.data]) : undefined;
  if (!standing) throw problems.notFound();
  return standing;
}

/**
 * `PUT /remarks/:remark/replies/:reply` makes a reply that does not exist yet, so it is the remark that counts; and where a
 * remark is put into a later version, the version counts.
 */
function objectOf(action: Action, params: Record<string, string>): ObjectKind {
  const made: Partial<Record<Action, ObjectKind>> = {
    'reply.make': 'remark',
    'remark.make': 'submission',
    'remark.reattach': 'submission',
  };
  const kind = made[action] ?? OBJECT_KINDS.find((candidate) => candidate in params);
  if (!kind) throw new Error(`${action} needs an object, but the path names none`);
  return kind;
}
