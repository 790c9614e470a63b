import type { Context } from '../context.ts';
import { problems } from '../errors.ts';
import { selectSentToday } from './queries.ts';

/** @throws ProblemError where a person would send more within a day than they may */
export async function refuseTooMuch({ db, settings }: Context, person: string, more: number): Promise<void> {
  if ((await selectSentToday(db, person)) + more > settings.maxDayBytes) throw problems.dayFull(settings.maxDayBytes);
}
