import type { Action, Standing } from '#core/workflow';
import type { Request, RequestHandler, Response, Router } from 'express';
import multer from 'multer';
import type { z } from 'zod';
import { Id } from '../../contract/basics.ts';
import type { Endpoint, Params } from '../../contract/endpoint.ts';
import { authorise } from '../access.ts';
import type { Context } from '../context.ts';
import { problems } from '../errors.ts';
import { personOf, type SignedIn } from '../sessions/person-of.ts';

export interface Call<Path extends string, Body> {
  params: Params<Path>;
  body: Body;
  /** The file that came with the request; absent only where the endpoint calls it optional. */
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

interface SignedInCall {
  person: SignedIn;
  /** How the person stands to the object of the path; all false for what is one's `'own'`. */
  standing: Standing;
}

type SignedInHandler<Path extends string, Body, Answer> = (call: Call<Path, Body> & SignedInCall) => Promise<Answer>;

const NO_STANDING: Standing = { teacher: false, student: false, author: false, returned: false, opened: false };

/** How many files one work may have. */
const MAX_FILES = 20;

/** No recording is cut off: an hour of speech at the bit rate we record with is about 15 MB. */
const MAX_SOUND_BYTES = 200 * 1024 * 1024;

/** Serves an endpoint to everybody, signed in or not. */
export function serveAnyone<Path extends string, Body extends z.ZodType, Answer extends z.ZodType>(
  router: Router,
  endpoint: Endpoint<Path, Body, Answer>,
  handle: Handler<Path, z.infer<Body>, z.infer<Answer>>,
): void {
  mount(router, endpoint, [], async (call) => handle(call));
}

/**
 * Serves an endpoint to people who are signed in and who may do `action` with the object that its path names;
 * `'own'` is for what has no object because the handler answers with the asker's own things only.
 */
export function serve<Path extends string, Body extends z.ZodType, Answer extends z.ZodType>(
  router: Router,
  context: Context,
  endpoint: Endpoint<Path, Body, Answer>,
  action: Action | 'own',
  handle: SignedInHandler<Path, z.infer<Body>, z.infer<Answer>>,
): void {
  const limit = action === 'assignment.handIn' ? context.settings.maxFileBytes : MAX_SOUND_BYTES;
  const several = endpoint.file === 'several' || endpoint.file === 'any';
  mount(
    router,
    endpoint,
    [guard(context, action), ...(endpoint.file ? [receiveFiles(limit, several ? MAX_FILES : 1)] : [])],
    async (call) => handle({ ...call, ...(call.response.locals as SignedInCall) }),
  );
}

/** Serves bytes, e.g. to the browser's own player, under the same rules. */
export function serveBytes(
  router: Router,
  context: Context,
  path: string,
  action: Action,
  handle: (request: Request<Record<string, string>>, response: Response) => Promise<void>,
): void {
  router.get(path, guard(context, action), (request, response) =>
    handle(request as Request<Record<string, string>>, response),
  );
}

/** Serves bytes of the asker's own, which the handler makes sure of. */
export function serveOwnBytes(
  router: Router,
  context: Context,
  path: string,
  handle: (request: Request<Record<string, string>>, response: Response, person: SignedIn) => Promise<void>,
): void {
  router.get(path, guard(context, 'own'), (request, response) =>
    handle(request as Request<Record<string, string>>, response, (response.locals as SignedInCall).person),
  );
}

const guard =
  (context: Context, action: Action | 'own'): RequestHandler =>
  async (request, response, next) => {
    const person = await personOf(context.db, request);
    if (!person) throw problems.notSignedIn();
    const params = request.params as Record<string, string>;
    const standing = action === 'own' ? NO_STANDING : await authorise(context.db, person.id, action, params);
    Object.assign(response.locals, { person, standing } satisfies SignedInCall);
    next();
  };

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
    if ((endpoint.file === 'required' || endpoint.file === 'several') && !file) throw problems.fileMissing();
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
  if (result.success) return result.data;
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

const receiveFiles = (limit: number, count: number): RequestHandler => {
  const upload = multer({
    storage: multer.memoryStorage(),
    limits: { fileSize: limit, files: count, fields: 1, fieldSize: 1024 * 1024 },
    defParamCharset: 'utf8',
  }).array('file', count);
  return (request, response, next) =>
    upload(request, response, (error: unknown) => {
      const code = error instanceof multer.MulterError ? error.code : undefined;
      if (code === 'LIMIT_FILE_SIZE') next(problems.fileTooLarge(limit));
      else if (code === 'LIMIT_FILE_COUNT' || code === 'LIMIT_UNEXPECTED_FILE') next(problems.tooManyFiles(count));
      else if (error) next(problems.badRequest('The upload broke off before all of it had arrived. Please try again.'));
      else next();
    });
};

const filesOf = (request: Request): UploadedFile[] =>
  Array.isArray(request.files)
    ? request.files.map(({ originalname, buffer }) => ({ name: originalname, bytes: buffer }))
    : [];
