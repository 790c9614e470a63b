import { wellFormed, wellFormedIn } from '#core/text';
import type { Action, StandingFor } from '#core/workflow';
import type { Request, RequestHandler, Response, Router } from 'express';
import multer from 'multer';
import type { z } from 'zod';
import { Id } from '../../contract/basics.ts';
import type { Address, Endpoint, Params, Upload } from '../../contract/endpoint.ts';
import { authorise } from '../access/authorise.ts';
import type { Context } from '../context.ts';
import { problems } from '../errors.ts';
import { personOf, type SignedIn } from './person-of.ts';

export interface Call<Path extends string, Body> {
  params: Params<Path>;
  body: Body;
  /** The file that came with the request; absent only where the endpoint says `perhaps`. */
  file: UploadedFile | undefined;
  /** All files, where the endpoint takes several. */
  files: UploadedFile[];
  request: Request;
  response: Response;
}

export interface UploadedFile {
  name: string;
  bytes: Buffer;
}

type Handler<Path extends string, Body, Answer> = (call: Call<Path, Body>) => Promise<Answer>;

interface SignedInCall<A extends Action | 'own'> {
  person: SignedIn;
  /** How the person stands to the object of the action; nothing where it is one's `'own'`. */
  standing: A extends Action ? StandingFor<A> : undefined;
}

type SignedInHandler<Path extends string, Body, Answer, A extends Action | 'own'> = (
  call: Call<Path, Body> & SignedInCall<A>,
) => Promise<Answer>;

/** How many files one work may have. */
const MAX_FILES = 20;

const MEGABYTE = 1024 * 1024;
/** What comes beside files, or without any. */
export const LARGEST_FORM = MEGABYTE;

const largest = ({ settings }: Context): Record<Upload['largest'], number> => ({
  // No recording is cut off: an hour of speech at the bit rate we record with is about 15 MB.
  recording: 200 * MEGABYTE,
  work: settings.maxFileBytes,
  picture: 2 * MEGABYTE,
});

/** Serves an endpoint to everybody, signed in or not. */
export function serveAnyone<Path extends string, Body extends z.ZodType, Answer extends z.ZodType>(
  router: Router,
  endpoint: Endpoint<Path, Body, Answer>,
  handle: Handler<Path, z.infer<Body>, z.infer<Answer>>,
): void {
  mount(router, endpoint, [open], async (call) => handle(call));
}

/**
 * Serves an endpoint to people who are signed in and who may do `action` with the object that its path names;
 * `'own'` is for what has no object because the handler answers with the asker's own things only.
 */
export function serve<Path extends string, Body extends z.ZodType, Answer extends z.ZodType, A extends Action | 'own'>(
  router: Router,
  context: Context,
  endpoint: Endpoint<Path, Body, Answer>,
  action: A,
  handle: SignedInHandler<Path, z.infer<Body>, z.infer<Answer>, A>,
): void {
  const before = [guard(context, action), ...(endpoint.upload ? [receiveFiles(context, endpoint.upload)] : [])];
  mount(router, endpoint, before, async (call) => handle({ ...call, ...(call.response.locals as SignedInCall<A>) }));
}

/** Serves bytes, e.g. to the browser's own player, under the same rules. */
export function serveBytes<Path extends string>(
  router: Router,
  context: Context,
  { bytesAt }: Address<Path>,
  action: Action,
  handle: (params: Params<Path>, request: Request, response: Response) => Promise<void>,
): void {
  router.get(bytesAt, guard(context, action), (request: Request, response: Response) =>
    handle(request.params as Params<Path>, request, response),
  );
}

/** What a route lets pass; every route says so in its first handler. */
export interface Guard extends RequestHandler {
  lets?: Action | 'own' | 'anyone';
}

function guard(context: Context, action: Action | 'own'): Guard {
  const check: RequestHandler = async (request, response, next) => {
    const person = await personOf(context.db, request);
    if (!person) throw problems.notSignedIn();
    const params = request.params as Record<string, string>;
    const standing = action === 'own' ? undefined : await authorise(context.db, person.id, action, params);
    Object.assign(response.locals, { person, standing });
    next();
  };
  return Object.assign(check, { lets: action });
}

const open: Guard = Object.assign<RequestHandler, Pick<Guard, 'lets'>>((_request, _response, next) => next(), {
  lets: 'anyone',
});

function mount<Path extends string, Body extends z.ZodType, Answer extends z.ZodType>(
  router: Router,
  endpoint: Endpoint<Path, Body, Answer>,
  before: RequestHandler[],
  handle: Handler<Path, z.infer<Body>, z.infer<Answer>>,
): void {
  const method = endpoint.method.toLowerCase() as 'get' | 'post' | 'put' | 'patch' | 'delete';
  router[method](endpoint.path, ...before, async (request: Request, response: Response) => {
    const body = endpoint.body
      ? parseBody(endpoint.body, request.is('multipart/form-data') ? bodyOfForm(request) : request.body)
      : undefined;
    const files = filesOf(request);
    const [file] = files;
    if (['one', 'some'].includes(endpoint.upload?.files ?? '') && !file) throw problems.fileMissing();
    const answer = await handle({
      params: parseParams<Path>(request),
      body: body as z.infer<Body>,
      file,
      files,
      request,
      response,
    });
    response.set('Cache-Control', 'no-store').json(endpoint.answer.parse(answer));
  });
}

function parseBody<Schema extends z.ZodType>(schema: Schema, value: unknown): z.infer<Schema> {
  const result = schema.safeParse(value);
  // Only now: what a schema lets through is no deeper than it.
  if (result.success) return wellFormedIn(result.data);
  const issue = result.error.issues[0]!;
  throw problems.badRequest(`The request was not understood: ${issue.path.join('.') || 'its body'}: ${issue.message}.`);
}

function parseParams<Path extends string>(request: Request): Params<Path> {
  if (!Object.values(request.params).every((value) => Id.safeParse(value).success)) throw problems.notFound();
  return request.params as Params<Path>;
}

function bodyOfForm(request: Request): unknown {
  try {
    return JSON.parse(String((request.body as { body?: string } | undefined)?.body));
  } catch {
    return undefined;
  }
}

const receiveFiles = (context: Context, { files, largest: kind }: Upload): RequestHandler => {
  const limit = largest(context)[kind];
  const count = files === 'some' || files === 'any' ? MAX_FILES : 1;
  const upload = multer({
    storage: multer.memoryStorage(),
    limits: { fileSize: limit, files: count, fields: 1, fieldSize: LARGEST_FORM },
    defParamCharset: 'utf8',
  }).array('file', count);
  return (request, response, next) =>
    upload(request, response, (error: unknown) => {
      const code = error instanceof multer.MulterError ? error.code : undefined;
      if (code === 'LIMIT_FILE_SIZE') next(problems.fileTooLarge(limit));
      else if (code === 'LIMIT_FILE_COUNT' || code === 'LIMIT_UNEXPECTED_FILE') next(problems.tooManyFiles(count));
      else if (code === 'LIMIT_FIELD_VALUE') next(problems.formTooLarge());
      else if (error) next(problems.badRequest('The upload broke off before all of it had arrived. Please try again.'));
      else next();
    });
};

const filesOf = (request: Request): UploadedFile[] =>
  Array.isArray(request.files)
    ? request.files.map(({ originalname, buffer }) => ({ name: wellFormed(originalname), bytes: buffer }))
    : [];
