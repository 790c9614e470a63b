import { reattacher } from '#core/anchor';
import { itemStarts } from '#core/folio';
import { readFile } from 'node:fs/promises';
import { z } from 'zod';
import { folioOfFile } from './read.ts';

const Offset = z.int().min(0).nullish();
const Words = z.string().nullish();

const Anchors = z.array(
  z
    .object({ id: z.string(), start: Offset, end: Offset, exact: Words, prefix: Words, suffix: Words })
    .refine(({ start, end, exact }) => (typeof start === 'number' && typeof end === 'number') || !!exact, {
      message: 'an anchor has start and end, or exact, or both',
    }),
);

/** Where each anchor of OLD belongs in NEW; both are any files that can be read. */
export async function reattach(oldFile: string, newFile: string, anchorsFile: string): Promise<object[]> {
  const anchors = Anchors.parse(parseJson(await readFile(anchorsFile, 'utf8'), anchorsFile));
  const [old, next] = [await folioOfFile(oldFile), await folioOfFile(newFile)];
  const find = reattacher(old.text, next.text, { old: itemStarts(old.leaves), next: itemStarts(next.leaves) });
  return anchors.map(({ id, start, end, exact, prefix, suffix }) => {
    const { status, place, confidence } = find({
      start: start ?? undefined,
      end: end ?? undefined,
      exact: exact ?? undefined,
      prefix: prefix ?? undefined,
      suffix: suffix ?? undefined,
    });
    const rounded = Math.round(confidence * 100) / 100;
    return { id, status, start: place?.start ?? null, end: place?.end ?? null, confidence: rounded };
  });
}

export function parseJson(text: string, file: string): unknown {
  try {
    return JSON.parse(text);
  } catch {
    throw new Error(`${file} is not JSON.`);
  }
}
