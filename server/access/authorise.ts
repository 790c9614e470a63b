import { objectOf, refusal, type Action, type Refusal, type StandingFor } from '#core/workflow';
import { Id } from '../../contract/basics.ts';
import { select, type Queries } from '../db/database.ts';
import { problems, type ProblemError } from '../errors.ts';
import { STANDING, STANDING_ROWS } from './standing.ts';

/*
 * Who may see or do what, for every object, is decided here: `standing.ts` finds out how the person stands to the object that an
 * action is about, and `permissions` in core/workflow says what that standing allows. `server/http/serve.ts` asks for every
 * request before its handler runs. Where somebody may not even read the object, it does not exist for them.
 */

const PROBLEMS: Record<Refusal, () => ProblemError> = {
  unseen: problems.notFound,
  opened: problems.opened,
  returned: problems.returned,
  notReturned: problems.notReturned,
  blind: problems.blind,
  closed: problems.handedOver,
  notAllowed: problems.notAllowed,
};

/**
 * Lets an action pass and answers how the person stands to its object, or throws the problem that says why not.
 * @param params the parameters of the path; one of them names the object that the action is about
 */
export async function authorise<A extends Action>(
  db: Queries,
  person: string,
  action: A,
  params: Record<string, string>,
): Promise<StandingFor<A>> {
  const { allowed, why } = await asked(db, person, action, params);
  if (allowed) return allowed;
  throw PROBLEMS[why ?? 'unseen']();
}

/** Whether an action would pass, for handlers that have words of their own for it. */
export const allows = async <A extends Action>(
  db: Queries,
  person: string,
  action: A,
  params: Record<string, string>,
): Promise<boolean> => (await asked(db, person, action, params)).allowed !== undefined;

async function asked<A extends Action>(
  db: Queries,
  person: string,
  action: A,
  params: Record<string, string>,
): Promise<{ allowed?: StandingFor<A>; why?: Refusal | undefined }> {
  const kind = objectOf(action);
  if (!(kind in params)) throw new Error(`${action} is about a ${kind}, but the path names none`);
  const id = Id.safeParse(params[kind]);
  const standings = id.success ? await select(db, STANDING_ROWS[kind], STANDING[kind], [person, id.data]) : [];
  const reasons = standings.map((standing) => refusal(standing as StandingFor<A>, action));
  const allowed = reasons.indexOf(undefined);
  if (allowed >= 0) return { allowed: standings[allowed] as StandingFor<A> };
  return { why: reasons.find((reason) => reason !== 'unseen') };
}
