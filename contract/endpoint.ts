import type { z } from 'zod';

export type Method = 'GET' | 'POST' | 'PUT' | 'PATCH' | 'DELETE';

/** The names behind the colons of a path: `/remarks/:remark` → `remark`. */
export type ParamNames<Path extends string> = Path extends `${string}:${infer Name}/${infer Rest}`
  ? Name | ParamNames<`/${Rest}`>
  : Path extends `${string}:${infer Name}`
    ? Name
    : never;

export type Params<Path extends string> = Record<ParamNames<Path>, string>;

/** Files that travel beside the body as multipart form data. */
export interface Upload {
  /** `perhaps` one; `some`, but at least one; or `any` number of them. */
  files: 'one' | 'perhaps' | 'some' | 'any';
  /** What each may be as large as. */
  largest: 'recording' | 'work' | 'picture';
}

/** One thing that can be asked of the server. */
export interface Endpoint<
  Path extends string = string,
  Body extends z.ZodType = z.ZodType,
  Answer extends z.ZodType = z.ZodType,
> {
  method: Method;
  path: Path;
  body?: Body;
  upload?: Upload;
  answer: Answer;
}

export const endpoint = <
  const Path extends string,
  Answer extends z.ZodType,
  Body extends z.ZodType = z.ZodType<undefined>,
>(
  description: Endpoint<Path, Body, Answer>,
): Endpoint<Path, Body, Answer> => description;

/** Where bytes are, which the browser fetches by itself, e.g. for its own player. */
export interface Address<Path extends string = string> {
  bytesAt: Path;
}

export const address = <const Path extends string>(path: Path): Address<Path> => ({ bytesAt: path });

export const pathOf = <Path extends string>(path: Path, params: Params<Path>): string =>
  path.replace(/:(\w+)/g, (_, name: string) => encodeURIComponent((params as Record<string, string>)[name]!));

export const urlOf = <Path extends string>({ bytesAt }: Address<Path>, params: Params<Path>): string =>
  `/api${pathOf(bytesAt, params)}`;
