import type { z } from 'zod';
import type { Endpoint, Params } from '#contract/endpoint';
import { Problem } from '#contract/problem';

/** The server answered, and said what is wrong. */
export class Refused extends Error {
  constructor(readonly problem: Problem) {
    super(problem.detail);
    this.name = 'Refused';
  }
}

/** No answer came: the network or the server is away. */
export class Unreachable extends Error {
  constructor() {
    super('The server cannot be reached at the moment.');
    this.name = 'Unreachable';
  }
}

/** A sentence for the person, whatever went wrong. */
export const sentenceOf = (error: unknown): string =>
  error instanceof Refused || error instanceof Unreachable
    ? error.message
    : 'Something unexpected happened. Reload the page and try again.';

interface Input<Path extends string, Body> {
  /** Ids for the names behind the colons of the path. */
  params?: Params<Path>;
  body?: Body;
  file?: Blob;
  fileName?: string;
}

/**
 * Asks the server.
 * @throws Refused or Unreachable
 */
export async function call<Path extends string, Body extends z.ZodType, Answer extends z.ZodType>(
  endpoint: Endpoint<Path, Body, Answer>,
  { params, body, file, fileName }: Input<Path, z.input<Body>> = {},
): Promise<z.infer<Answer>> {
  const path = endpoint.path.replace(/:(\w+)/g, (_, name: string) =>
    encodeURIComponent((params as Record<string, string>)[name]!),
  );
  const response = await fetch(`/api${path}`, {
    method: endpoint.method,
    ...payload(endpoint, body, file, fileName),
  }).catch(() => {
    throw new Unreachable();
  });
  const answer: unknown = await response.json().catch(() => undefined);
  if (response.ok) return endpoint.answer.parse(answer);
  const problem = Problem.safeParse(answer);
  // A proxy in between answers without problem details when the server is away.
  if (!problem.success) throw new Unreachable();
  throw new Refused(problem.data);
}

function payload(endpoint: Endpoint, body: unknown, file?: Blob, fileName?: string): RequestInit {
  if (!endpoint.file)
    return body === undefined ? {} : { body: JSON.stringify(body), headers: { 'Content-Type': 'application/json' } };
  const form = new FormData();
  if (body !== undefined) form.set('body', JSON.stringify(body));
  if (file) form.set('file', file, fileName ?? 'recording');
  return { body: form };
}
