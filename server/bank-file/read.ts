import { wellFormedIn } from '#core/text';
import { strFromU8, unzipSync } from 'fflate';
import { randomUUID } from 'node:crypto';
import { z } from 'zod';
import { BankAnnotation, BankPage } from '../../contract/bank-file.ts';
import { BankedRemark } from '../../contract/bank.ts';
import { LanguageTag } from '../../contract/basics.ts';
import { WebLink } from '../../contract/basics.ts';
import { Transcript } from '../../contract/transcripts.ts';
import { BagError, openBag } from './bag.ts';
import { readTable, tagsOf } from './table.ts';

/** More than anybody has, and few enough to be looked at at once. */
export const MOST_LINES = 5_000;
const MOST_UNPACKED_BYTES = 400 * 1024 * 1024;
const MOST_FILES = 20_000;

/** A remark as a file has it. */
export interface FileRemark {
  id: string;
  madeAt: string | null;
  content: Pick<
    BankedRemark,
    'name' | 'text' | 'link' | 'reaction' | 'suggestion' | 'tags' | 'description' | 'kind' | 'criterion' | 'gap'
  >;
  language: string;
  sound: { file: string; sha256: string; seconds: number; peaks: number[] } | null;
  transcript: Transcript | null;
  translations: { language: string; text: string; source: 'machine' | 'person' | 'bank' }[];
}

/** What a line of a file says: a remark, or why it is none. */
export type FileLine = { line: number; name: string } & ({ remark: FileRemark } | { refused: string });

export interface ReadBank {
  lines: FileLine[];
  /** Sounds, by their names in the file. */
  sounds: Map<string, Uint8Array>;
}

/**
 * A bag or a table, every line of it looked at.
 * @throws BagError with a sentence, where the file as a whole cannot be taken
 */
export function readBank(bytes: Uint8Array): ReadBank {
  const isZip = bytes[0] === 0x50 && bytes[1] === 0x4b;
  return isZip ? readBag(bytes) : { lines: readRows(bytes), sounds: new Map() };
}

function readBag(bytes: Uint8Array): ReadBank {
  const payload = openBag(unpacked(bytes));
  const text = payload.get('data/bank.jsonld');
  if (!text) throw new BagError('There is no bank in this bag: data/bank.jsonld is missing.');
  const { items } = pageIn(text);
  refuseTooMany(items.length);
  const lines = items.map((item, index) => lineOf(item, index + 1, payload));
  return { lines, sounds: payload };
}

function unpacked(bytes: Uint8Array): Map<string, Uint8Array> {
  let [files, size] = [0, 0];
  try {
    const found = unzipSync(bytes, {
      filter: ({ originalSize }) => {
        files++;
        size += originalSize;
        if (files > MOST_FILES || size > MOST_UNPACKED_BYTES)
          throw new BagError('This file unpacks to more than can be taken at once. Bring it in in parts.');
        return true;
      },
    });
    return new Map(Object.entries(found));
  } catch (error) {
    if (error instanceof BagError) throw error;
    throw new BagError('This zip file is damaged or was cut short.');
  }
}

function pageIn(text: Uint8Array): z.infer<typeof BankPage> {
  let json: unknown;
  try {
    json = JSON.parse(strFromU8(text));
  } catch {
    throw new BagError('The bank in this bag (data/bank.jsonld) is not JSON.');
  }
  const page = BankPage.safeParse(json);
  if (page.success) return page.data;
  const issue = page.error.issues[0]!;
  throw new BagError(`The bank in this bag cannot be read: ${issue.path.join('.') || 'it'}: ${issue.message}.`);
}

function refuseTooMany(count: number): void {
  if (count > MOST_LINES)
    throw new BagError(`It has ${count} remarks; ${MOST_LINES} is the most that can be brought in at once. Part it.`);
}

const nameIn = (item: unknown): string => {
  const { headline } = (item ?? {}) as { headline?: unknown };
  return typeof headline === 'string' ? headline.slice(0, 80) : '';
};

function lineOf(item: unknown, line: number, payload: ReadonlyMap<string, Uint8Array>): FileLine {
  const parsed = BankAnnotation.safeParse(item);
  const name = nameIn(item);
  if (!parsed.success) return { line, name, refused: sentence(parsed.error) };
  const remark = remarkOf(wellFormedIn(parsed.data));
  const wrong = remark.sound && wrongWith(remark.sound, payload);
  if (wrong) return { line, name, refused: wrong };
  return isEmpty(remark) ? { line, name, refused: 'it says nothing' } : { line, name, remark };
}

function wrongWith({ file }: { file: string }, payload: ReadonlyMap<string, Uint8Array>): string | undefined {
  const bytes = payload.get(file);
  if (!bytes) return 'its sound is not in the file';
  return bytes.length === 0 ? 'its sound is empty' : undefined;
}

function sentence(error: z.ZodError): string {
  const [issue] = error.issues;
  return `${issue!.path.join('.') || 'it'}: ${issue!.message}`;
}

type Body = BankAnnotation['body'][number];
type Of<Purpose> = Extract<Body, { purpose: Purpose }>;

function remarkOf({ id, created, headline, abstract, about, gap, body }: BankAnnotation): FileRemark {
  const all = <Purpose extends string>(purpose: Purpose): Of<Purpose>[] =>
    body.filter((one): one is Of<Purpose> => 'purpose' in one && one.purpose === purpose);
  const audio = body.find((one): one is Extract<Body, { type: 'Audio' }> => one.type === 'Audio');
  const [spoken, ...others] = all('describing');
  const [written] = all('commenting');
  const link = all('linking')[0]?.source ?? null;
  return {
    id: id.replace('urn:uuid:', ''),
    madeAt: created,
    content: {
      ...{ name: headline, description: abstract, kind: about.termCode, criterion: about.name, gap: gap ?? null },
      text: [written?.value, audio ? undefined : spoken?.value].filter(Boolean).join('\n'),
      link: WebLink.safeParse(link).success ? link : null,
      reaction: all('replying')[0]?.value ?? null,
      suggestion: all('editing')[0]?.value ?? null,
      tags: all('tagging')
        .map(({ value }) => value)
        .slice(0, 20),
    },
    language: spoken?.language ?? written?.language ?? 'en',
    sound: audio ? { file: audio.file, sha256: audio.sha256, seconds: audio.seconds, peaks: audio.peaks } : null,
    transcript:
      audio && spoken
        ? Transcript.parse({ ...spoken, text: spoken.value, words: spoken.words ?? [], source: spoken.origin })
        : null,
    translations: audio ? others.map(({ language, value, origin }) => ({ language, text: value, source: origin })) : [],
  };
}

const isEmpty = ({ sound, content: { text, link, reaction, suggestion } }: FileRemark): boolean =>
  !sound && text === '' && link === null && reaction === null && suggestion === null;

const Row = BankedRemark.pick({ name: true, text: true, description: true, criterion: true, kind: true });

function readRows(bytes: Uint8Array): FileLine[] {
  const rows = bytes.includes(0) ? undefined : readTable(strFromU8(bytes));
  if (!rows)
    throw new BagError(
      'This is neither a bank that was saved here nor a table with a column “text”. Choose another file.',
    );
  refuseTooMany(rows.length);
  // The first line is the heads.
  return rows.map((row, index) => rowOf(wellFormedIn(row), index + 2));
}

function rowOf(row: Record<string, string>, line: number): FileLine {
  const { name = '', kind = '', criterion = '', description = '' } = row;
  const parsed = Row.safeParse({
    name,
    text: row.text ?? '',
    description,
    criterion,
    kind: kind.trim() || 'next',
  });
  if (!parsed.success) return { line, name: name.slice(0, 80), refused: sentence(parsed.error) };
  const link = WebLink.safeParse(row.link).data ?? null;
  const remark: FileRemark = {
    ...{ id: randomUUID(), madeAt: null, sound: null, transcript: null, translations: [] },
    language: LanguageTag.safeParse(row.language).data ?? 'en',
    content: {
      ...parsed.data,
      ...{ link, reaction: null, suggestion: row.suggestion?.slice(0, 5_000) ?? '', gap: null },
      tags: tagsOf(row.tags ?? '').slice(0, 20),
    },
  };
  remark.content.suggestion ||= null;
  return isEmpty(remark) ? { line, name, refused: 'it has no text' } : { line, name, remark };
}
