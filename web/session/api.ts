import type { z } from 'zod';
import { pathOf, type Endpoint, type Params } from '#contract/endpoint';
import { OTHER_PERSON, Problem } from '#contract/problem';
import { PERSON_HEADER } from '#contract/session';
import { RESUMABLE_BYTES } from '#contract/uploads';
import { Refused, Unreachable } from './refused.ts';
import { speaker, tellOther } from './speaker.ts';
import { forgetSent, sendFiles, type SentFile } from './resumable.ts';

export { Refused, Unreachable };

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
  /** Files that have been sent before. */
  uploads?: readonly SentFile[];
}

/**
 * Asks the server.
 * @throws Refused or Unreachable
 */
export async function call<Path extends string, Body extends z.ZodType, Answer extends z.ZodType>(
  endpoint: Endpoint<Path, Body, Answer>,
  input: Input<Path, z.input<Body>> = {},
): Promise<z.infer<Answer>> {
  const { params, body, files = [], uploads = [] } = input;
  if (files.some(({ size }) => size > RESUMABLE_BYTES)) return callAfterSending(endpoint, input);
  const path = pathOf(endpoint.path, (params ?? {}) as Params<Path>);
  const request = { method: endpoint.method, ...payload(endpoint, body, files, uploads) };
  const response = await answered(`/api${path}`, request);
  return endpoint.answer.parse(await response.json().catch(() => undefined));
}

/**
 * Asks for bytes, at an address as `urlOf` makes it.
 * @throws Refused or Unreachable
 */
export const callForBytes = async (url: string): Promise<Blob> => (await answered(url)).blob();

async function answered(url: string, request: RequestInit = {}): Promise<Response> {
  const person = speaker();
  const named = person ? { ...request, headers: { ...request.headers, [PERSON_HEADER]: person } } : request;
  const response = await fetch(url, named).catch(() => {
    throw new Unreachable();
  });
  if (response.ok) return response;
  const problem = Problem.safeParse(await response.json().catch(() => undefined));
  if (response.status === 408 && !problem.success) throw new Refused(TOO_SLOW);
  // A proxy in between answers without problem details when the server is away.
  if (!problem.success) throw new Unreachable();
  if (problem.data.type === OTHER_PERSON) tellOther();
  throw new Refused(problem.data);
}

/** What is large goes before the request, so that it can go on where it broke off. */
async function callAfterSending<Path extends string, Body extends z.ZodType, Answer extends z.ZodType>(
  endpoint: Endpoint<Path, Body, Answer>,
  { files = [], ...input }: Input<Path, z.input<Body>>,
): Promise<z.infer<Answer>> {
  const send = async (): Promise<z.infer<Answer>> => call(endpoint, { ...input, uploads: await sendFiles(files).done });
  const answer = await send().catch(async (error: unknown) => {
    if (!isGone(error)) throw error;
    await forgetSent(files);
    return send();
  });
  await forgetSent(files);
  return answer;
}

/** Perhaps what was sent is not there any more, because that was long ago: it is worth sending it once more. */
const isGone = (error: unknown): boolean => error instanceof Refused && [404, 410].includes(error.problem.status);

/** Node's own server says so without words. */
const TOO_SLOW: Problem = {
  type: 'about:blank',
  title: 'Too slow',
  status: 408,
  detail: 'The connection was too slow for all of this to arrive in time.',
};

function payload(endpoint: Endpoint, body: unknown, files: readonly Blob[], uploads: readonly SentFile[]): RequestInit {
  if (uploads.length > 0) return json({ body, uploads });
  if (!endpoint.upload) return body === undefined ? {} : json(body);
  const form = new FormData();
  if (body !== undefined) form.set('body', JSON.stringify(body));
  for (const file of files) form.append('file', file, file instanceof File ? file.name : 'recording');
  return { body: form };
}

const json = (value: unknown): RequestInit => ({
  body: JSON.stringify(value),
  headers: { 'Content-Type': 'application/json' },
});
