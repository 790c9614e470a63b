import type { Queries } from '../db/database.ts';
import { withHistory } from '../grading/history.ts';
import { insertSubmission, type NewSubmission } from '../submissions/insert.ts';

/**
 * Keeps what was handed in as the next version. What an earlier version was given is not shown any more unless it was returned, so
 * the history of the grade says why. Call in a transaction.
 * @returns the id of the version
 */
export const insertWork = (tx: Queries, work: NewSubmission, person: string): Promise<string> =>
  withHistory(tx, work, person, () => insertSubmission(tx, work), 'New version');
