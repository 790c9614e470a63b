import type { ErrorRequestHandler } from 'express';
import { PROBLEM_MEDIA_TYPE } from '../../contract/problem.ts';
import { isRefusedValue } from '../db/database.ts';
import { NoRoom } from '../db/room.ts';
import { ProblemError, problems } from '../errors.ts';
import { TurnsTaken } from '../threads/fair-turns.ts';

/** Answers every error as problem details; what nobody foresaw is logged and answered without its innards. */
export const answerProblem: ErrorRequestHandler = (error: unknown, _request, response, next) => {
  if (response.headersSent) return next(error);
  const { problem, retryAfter } = asProblem(error);
  if (retryAfter !== undefined) response.set('Retry-After', String(retryAfter));
  response
    .status(problem.status)
    .set('Cache-Control', 'no-store')
    .type(PROBLEM_MEDIA_TYPE)
    .send(JSON.stringify(problem));
};

export function asProblem(error: unknown): ProblemError {
  if (error instanceof ProblemError) return error;
  const status = (error as { status?: unknown } | null)?.status;
  if (status === 404 || error instanceof URIError) return problems.notFound();
  if (status === 413) return problems.formTooLarge();
  if (typeof status === 'number' && status >= 400 && status < 500)
    return problems.badRequest('The request was not understood.');
  if (error instanceof TurnsTaken) return problems.busy();
  if (error instanceof NoRoom) return problems.noRoom();
  if (isRefusedValue(error)) return problems.notKeepable();
  process.stderr.write(`${error instanceof Error ? (error.stack ?? error.message) : String(error)}\n`);
  return problems.unexpected();
}
