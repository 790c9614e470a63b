import type { z } from 'zod';
import { pathOf, type Endpoint, type Params } from '#contract/endpoint';
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
  /** Where the endpoint takes any. */
  files?: readonly Blob[];
  /** How much of what is sent has arrived, from 0 to 1. */
  onProgress?: (share: number) => void;
}

/**
 * Asks the server.
 * @throws Refused or Unreachable
 */
export async function call<Path extends string, Body extends z.ZodType, Answer extends z.ZodType>(
  endpoint: Endpoint<Path, Body, Answer>,
  { params, body, files = [], onProgress }: Input<Path, z.input<Body>> = {},
): Promise<z.infer<Answer>> {
  const path = pathOf(endpoint.path, (params ?? {}) as Params<Path>);
  const request = { method: endpoint.method, ...payload(endpoint, body, files) };
  const response = await (onProgress ? sent(`/api${path}`, request, onProgress) : fetch(`/api${path}`, request)).catch(
    () => {
      throw new Unreachable();
    },
  );
  const answer: unknown = await response.json().catch(() => undefined);
  if (response.ok) return endpoint.answer.parse(answer);
  const problem = Problem.safeParse(answer);
  if (response.status === 408 && !problem.success) throw new Refused(TOO_SLOW);
  // A proxy in between answers without problem details when the server is away.
  if (!problem.success) throw new Unreachable();
  throw new Refused(problem.data);
}

/** Node's own server says so without words. */
const TOO_SLOW: Problem = {
  type: 'about:blank',
  title: 'Too slow',
  status: 408,
  detail: 'The connection was too slow for all of this to arrive in time.',
};

function payload(endpoint: Endpoint, body: unknown, files: readonly Blob[]): RequestInit {
  if (!endpoint.upload)
    return body === undefined ? {} : { body: JSON.stringify(body), headers: { 'Content-Type': 'application/json' } };
  const form = new FormData();
  if (body !== undefined) form.set('body', JSON.stringify(body));
  for (const file of files) form.append('file', file, file instanceof File ? file.name : 'recording');
  return { body: form };
}

/** Like `fetch`, which does not tell how much has been sent. */
const sent = (url: string, { method, body }: RequestInit, onProgress: (share: number) => void): Promise<Response> =>
  new Promise((resolve, reject) => {
    const request = new XMLHttpRequest();
    request.open(method!, url);
    request.upload.addEventListener('progress', ({ loaded, total }) => onProgress(total > 0 ? loaded / total : 0));
    request.upload.addEventListener('load', () => onProgress(1));
    request.addEventListener('load', () => resolve(new Response(request.responseText, { status: request.status })));
    request.addEventListener('error', reject);
    request.send(body as XMLHttpRequestBodyInit);
  });
