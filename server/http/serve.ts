import { wellFormedIn } from '#core/text';
import type { Action, StandingFor } from '#core/workflow';
import type { Request, RequestHandler, Response, Router } from 'express';
import multer from 'multer';
import type { z } from 'zod';
import { Id } from '../../contract/basics.ts';
import type { Address, Endpoint, Params, Upload } from '../../contract/endpoint.ts';
import { PERSON_HEADER } from '../../contract/session.ts';
import { WithUploads } from '../../contract/uploads.ts';
import { authorise } from '../access/authorise.ts';
import type { Context } from '../context.ts';
import { NoRoom } from '../db/room.ts';
import { ProblemError, problems } from '../errors.ts';
import type { Settings } from '../settings.ts';
import { refuseTooMuch } from '../uploads/day.ts';
import { formFiles, type FormFile } from '../uploads/form-files.ts';
import { findUploaded, type UploadedFile } from '../uploads/uploaded.ts';
import { personOf, type SignedIn } from './person-of.ts';

/** How the person stands to what they ask for; where it is only theirs there is no such thing. */
type StandingOf<A extends Action | 'own'> = A extends Action ? StandingFor<A> : undefined;

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

/** JSON that goes out as it is stored, without being read and written again on the way. */
export class StoredJson {
  constructor(readonly text: string) {}
}

/** An answer of which some properties are stored as they go out. */
type Answered<Answer> = Answer extends readonly unknown[]
  ? Answer
  : { [Key in keyof Answer]: Answer[Key] | StoredJson };

type Handler<Path extends string, Body, Answer> = (call: Call<Path, Body>) => Promise<Answered<Answer>>;

interface SignedInCall<A extends Action | 'own'> {
  person: SignedIn;
  /** How the person stands to the object of the action; nothing where it is one's `'own'`. */
  standing: StandingOf<A>;
}

type SignedInHandler<Path extends string, Body, Answer, A extends Action | 'own'> = (
  call: Call<Path, Body> & SignedInCall<A>,
) => Promise<Answered<Answer>>;

/** How many files one work may have. */
const MAX_FILES = 20;

const MEGABYTE = 1024 * 1024;
/** What comes beside files, or without any. */
export const LARGEST_FORM = MEGABYTE;

export const largestOf = (settings: Settings): Record<Upload['largest'], number> => ({
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
  const before = [guard(context, action), ...(endpoint.upload ? receiveFiles(context, endpoint.upload) : [])];
  mount(router, endpoint, before, async (call) => handle({ ...call, ...(call.response.locals as SignedInCall<A>) }));
}

/** Serves bytes, e.g. to the browser's own player, under the same rules. */
export function serveBytes<Path extends string, A extends Action | 'own'>(
  router: Router,
  context: Context,
  { bytesAt }: Address<Path>,
  action: A,
  handle: (
    params: Params<Path>,
    request: Request,
    response: Response,
    person: SignedIn,
    standing: StandingOf<A>,
  ) => Promise<void>,
): void {
  router.get(bytesAt, guard(context, action), (request: Request, response: Response) =>
    handle(
      request.params as Params<Path>,
      request,
      response,
      personIn(response),
      response.locals.standing as StandingOf<A>,
    ),
  );
}

/** What a route lets pass; every route says so in its first handler. */
export interface Guard extends RequestHandler {
  lets?: Action | 'own' | 'anyone';
}

export function guard(context: Context, action: Action | 'own'): Guard {
  const check: RequestHandler = async (request, response, next) => {
    const person = await personOf(context.db, request);
    if (!person) throw problems.notSignedIn();
    if ((request.get(PERSON_HEADER) ?? person.id) !== person.id) throw problems.otherPerson();
    const params = request.params as Record<string, string>;
    const standing = action === 'own' ? undefined : await authorise(context.db, person.id, action, params);
    Object.assign(response.locals, { person, standing });
    next();
  };
  return Object.assign(check, { lets: action });
}

/** What stands before or beside all routes and answers nothing of its own about anybody. */
export const beside = <Handler extends RequestHandler>(handler: Handler): Handler =>
  Object.assign(handler, { beside: true });

export const open: Guard = Object.assign<RequestHandler, Pick<Guard, 'lets'>>((_request, _response, next) => next(), {
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
    const body = endpoint.body ? parseBody(endpoint.body, request.body) : undefined;
    const { files = [] } = response.locals as { files?: UploadedFile[] };
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
    response.set('Cache-Control', 'no-store').type('json').send(jsonOf(endpoint.answer, answer));
  });
}

function jsonOf(schema: z.ZodType, answer: unknown): string {
  const stored = Object.entries(answer as object).filter(([, value]) => value instanceof StoredJson);
  if (stored.length === 0) return JSON.stringify(schema.parse(answer));
  const names: Record<string, true> = Object.fromEntries(stored.map(([name]) => [name, true]));
  const rest = JSON.stringify((schema as z.ZodObject).omit(names as never).parse(answer));
  return `${rest.slice(0, -1)}${stored.map(([name, value]) => `,${JSON.stringify(name)}:${(value as StoredJson).text}`).join('')}}`;
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

/** Files of a form come in now; others have come in before, and the request names them. */
function receiveFiles(context: Context, { files, largest }: Upload): RequestHandler[] {
  const { db, settings } = context;
  const limit = largestOf(settings)[largest];
  const count = files === 'some' || files === 'any' ? MAX_FILES : 1;
  const form = multer({
    storage: formFiles(db, ({ res }) => personIn(res!).id, limit),
    limits: { fileSize: limit, files: count, fields: 1, fieldSize: LARGEST_FORM },
    defParamCharset: 'utf8',
  }).array('file', count);

  const ofForm: RequestHandler = async (request, response, next) => {
    if (!request.is('multipart/form-data')) return next();
    await refuseTooMuch(context, personIn(response).id, Number(request.get('Content-Length') ?? 0));
    form(request, response, (error: unknown) => {
      if (error) return next(problemOfForm(error, { limit, count }));
      response.locals.files = (request.files as unknown as FormFile[]).map(({ uploaded }) => uploaded);
      request.body = bodyOfForm(request);
      next();
    });
  };

  const named: RequestHandler = async (request, response, next) => {
    const { success, data } = WithUploads.safeParse(request.body);
    if (!success) return next();
    if (data.uploads.length > count) throw problems.tooManyFiles(count);
    const { id } = personIn(response);
    for (const { upload } of data.uploads) await authorise(db, id, 'upload.use', { upload });
    const found = await Promise.all(data.uploads.map((one) => findUploaded(db, one)));
    if (found.some(({ byteLength }) => byteLength > limit)) throw problems.fileTooLarge(limit);
    response.locals.files = found;
    request.body = data.body;
    next();
  };
  return [ofForm, named];
}

const personIn = ({ locals }: Response): SignedIn => (locals as { person: SignedIn }).person;

function problemOfForm(error: unknown, { limit, count }: { limit: number; count: number }): unknown {
  if (!(error instanceof multer.MulterError))
    // What broke off has no words of its own; a full disk has.
    return error instanceof ProblemError || error instanceof NoRoom ? error : problems.brokeOff();
  if (error.code === 'LIMIT_FILE_SIZE') return problems.fileTooLarge(limit);
  if (error.code === 'LIMIT_FILE_COUNT' || error.code === 'LIMIT_UNEXPECTED_FILE') return problems.tooManyFiles(count);
  return error.code === 'LIMIT_FIELD_VALUE' ? problems.formTooLarge() : problems.brokeOff();
}

function bodyOfForm(request: Request): unknown {
  try {
    return JSON.parse(String((request.body as { body?: string } | undefined)?.body));
  } catch {
    return undefined;
  }
}
