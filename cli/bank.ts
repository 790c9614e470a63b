import { alikeGroups, bankIndex, findRemarks, MOST_SUGGESTED, suggester } from '#core/bank';
import { readFile } from 'node:fs/promises';
import { z } from 'zod';
import { LanguageTag } from '../contract/basics.ts';
import { parseJson } from './reattach.ts';

const Words = z
  .string()
  .nullish()
  .transform((words) => words ?? '');
const Choice = z
  .string()
  .nullish()
  .transform((choice) => choice ?? undefined);

const Bank = z.object({
  remarks: z.array(
    z.object({
      id: z.string(),
      language: LanguageTag.default('en'),
      ...{ kind: Words, criterion: Words, name: Words, description: Words, transcript: Words },
      tags: z.array(z.string()).default([]),
    }),
  ),
  history: z.array(z.object({ remark: z.string(), before: Words, passage: z.string(), after: Words })).default([]),
});
const Passages = z.array(
  z.object({
    id: z.union([z.string(), z.number()]),
    ...{ kind: Choice, criterion: Choice, before: Words, passage: z.string(), after: Words },
  }),
);
const Queries = z.array(z.object({ query: z.string() }));
const Texts = z.array(z.string());

const read = async <Schema extends z.ZodType>(schema: Schema, file: string): Promise<z.infer<Schema>> =>
  schema.parse(parseJson(await readFile(file, 'utf8'), file));

/** In what most of the remarks are: passages come without a language. */
function languageOf(remarks: readonly { language: string }[]): string {
  const counts = new Map<string, number>();
  for (const { language } of remarks) counts.set(language, (counts.get(language) ?? 0) + 1);
  return [...counts].sort(([, a], [, b]) => b - a)[0]?.[0] ?? 'en';
}

export async function suggest(bankFile: string, passagesFile: string): Promise<object[]> {
  const { remarks, history } = await read(Bank, bankFile);
  const passages = await read(Passages, passagesFile);
  const language = languageOf(remarks);
  const find = suggester(remarks, history, language);
  return passages.map(({ id, ...passage }) => ({ id, ranked: find(passage, language).map((one) => one.id) }));
}

export async function find(bankFile: string, queriesFile: string): Promise<object[]> {
  const index = bankIndex((await read(Bank, bankFile)).remarks);
  const queries = await read(Queries, queriesFile);
  return queries.map(({ query }, id) => ({ id, ranked: findRemarks(index, query, { most: MOST_SUGGESTED }) }));
}

export const alike = async (textsFile: string, language: string): Promise<number[][]> =>
  alikeGroups((await read(Texts, textsFile)).map((text) => ({ text, language })));
