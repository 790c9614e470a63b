import type { z } from 'zod';

export type Method = 'GET' | 'POST' | 'PUT' | 'PATCH' | 'DELETE';

/** The names behind the colons of a path: `/remarks/:remark` → `remark`. */
export type ParamNames<Path extends string> = Path extends `${string}:${infer Name}/${infer Rest}`
  ? Name | ParamNames<`/${Rest}`>
  : Path extends `${string}:${infer Name}`
    ? Name
    : never;

export type Params<Path extends string> = Record<ParamNames<Path>, string>;

/** One thing that can be asked of the server. A `file`, `several`, or `any` number of them, travel beside the body as multipart form data. */
export interface Endpoint<
  Path extends string = string,
  Body extends z.ZodType = z.ZodType,
  Answer extends z.ZodType = z.ZodType,
> {
  method: Method;
  path: Path;
  body?: Body;
  file?: 'required' | 'optional' | 'several' | 'any';
  answer: Answer;
}

export const endpoint = <
  const Path extends string,
  Answer extends z.ZodType,
  Body extends z.ZodType = z.ZodType<undefined>,
>(
  description: Endpoint<Path, Body, Answer>,
): Endpoint<Path, Body, Answer> => description;
