import { fileNameOf } from '#core/text';
import type { Recording } from '../../contract/recordings.ts';
import type { Queries } from '../db/database.ts';
import { selectFeedback } from '../feedback/queries.ts';
import { selectOwnGrades } from '../gradebook/gradebook.ts';
import { findMedium, readMedium } from '../media/media.ts';
import type { ZipPart } from '../media/zip-stream.ts';
import { selectAbout, selectDrafts, selectVersion, selectVersionIds, type Version } from './queries.ts';

const README = `All that you handed in, said and got back.

data.json      you, your drafts, your grades, and what there is beside the works
works/         a folder for each version: work.json, its text and its files; what came back, where it was returned
sounds/        what was said, named by the number that work.json has for it
`;

/** The archive of one person, part by part. What is not returned to them is not in it. */
export async function* archiveOf(db: Queries, person: string): AsyncGenerator<ZipPart> {
  yield text('README.txt', README);
  yield json('data.json', {
    person: await selectAbout(db, person),
    drafts: await selectDrafts(db, person),
    grades: await selectOwnGrades(db, person),
  });
  const said = new Set<string>();
  for (const { id } of await selectVersionIds(db, person)) {
    const version = await selectVersion(db, id);
    if (!version) continue;
    const folder = `works/${safe(version.assignment)}, version ${version.version} (${id.slice(0, 8)})`;
    const feedback = version.returnedAt ? await selectFeedback(db, id, { teacher: false, person }) : undefined;
    const { text: words, ...rest } = version;
    yield json(`${folder}/work.json`, { ...rest, feedback: feedback ?? null });
    yield text(`${folder}/text.txt`, words);
    yield* filesOf(db, folder, version);
    const recordings = (feedback?.remarks ?? []).flatMap(({ recording, replies }) => [
      recording,
      ...replies.map((reply) => reply.recording),
    ]);
    for (const recording of recordings) if (recording) yield* soundOf(db, recording, said);
  }
}

async function* filesOf(db: Queries, folder: string, { files }: Version): AsyncGenerator<ZipPart> {
  for (const [position, { name, sha256, byteLength }] of files.entries())
    yield {
      name: `${folder}/${position + 1} ${safe(name)}`,
      bytes: readMedium(db, Buffer.from(sha256, 'hex'), 0, byteLength - 1),
      packed: true,
    };
}

const ENDINGS: Record<string, string> = {
  'audio/ogg': 'ogg',
  'audio/webm': 'webm',
  'video/webm': 'webm',
  'audio/mp4': 'm4a',
};

async function* soundOf(db: Queries, { id, sound }: Recording, said: Set<string>): AsyncGenerator<ZipPart> {
  if (said.has(id)) return;
  said.add(id);
  const sha256 = Buffer.from(sound.sha256, 'hex');
  const medium = await findMedium(db, sha256);
  if (!medium) return;
  const ending = ENDINGS[medium.mediaType.split(';')[0]!] ?? 'bin';
  yield { name: `sounds/${id}.${ending}`, bytes: readMedium(db, sha256, 0, medium.byteLength - 1), packed: true };
}

const text = (name: string, content: string): ZipPart => ({ name, bytes: Buffer.from(content), packed: false });
const json = (name: string, value: unknown): ZipPart => text(name, `${JSON.stringify(value, null, 2)}\n`);

const safe = (name: string): string => fileNameOf(name, 'without a name');
