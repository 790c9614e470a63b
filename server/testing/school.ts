import { strToU8, unzipSync, zipSync } from 'fflate';
import { randomUUID } from 'node:crypto';
import { readFile } from 'node:fs/promises';
import { passageAnchor, type Anchor } from '#core/anchor';
import type { Database } from '../db/database.ts';
import { addCourse, addPerson, enrol } from '../school/people.ts';
import { hashPassword } from '../sessions/passwords.ts';
import { openSession } from '../http/person-of.ts';
import { NO_WORDS } from '../../contract/said.ts';
import { readSettings, type Settings } from '../settings.ts';
import type { Transcriber } from '../speech/transcriber.ts';
import { startServer } from '../start.ts';
import { Client } from './client.ts';

export const PASSWORD = 'a long password';
/** Slow by intention, so once for all schools. */
const passwordHash = hashPassword(PASSWORD);
const PEOPLE = ['teacher', 'colleague', 'author', 'classmate', 'stranger'] as const;
type PersonName = (typeof PEOPLE)[number];

export interface TestSchool {
  address: string;
  /** Signed in as each person; `nobody` is not signed in. */
  as: Record<PersonName | 'nobody', Client>;
  ids: Record<PersonName, string>;
  course: string;
  assignment: string;
  criteria: { id: string; levels: string[] }[];
  stop: () => Promise<void>;
}

export const essay = (): Promise<Buffer> =>
  readFile(new URL('../../demo/documents/amaru-quispe.docx', import.meta.url));
export const voice = (): Promise<Buffer> => readFile(new URL('../../demo/voices/amaru-obvious.ogg', import.meta.url));
export const SOUND = { duration: 8, peaks: [0, 120, 255], microphone: { type: 'device' as const } };

/** A school of its own on a server of its own: one course with teacher, author and classmate; a colleague and a stranger elsewhere. */
export async function startTestSchool(
  db: Database,
  engines: readonly Transcriber[] = [],
  more: Partial<Settings> = {},
): Promise<TestSchool> {
  const ids = {} as TestSchool['ids'];
  const [course, elsewhere] = [await addCourse(db, 'Here'), await addCourse(db, 'Elsewhere')];
  for (const name of PEOPLE) {
    const madeIn = ['colleague', 'stranger'].includes(name) ? elsewhere : course;
    ids[name] = await addPerson(db, { name: `The ${name}`, login: name, passwordHash: await passwordHash, madeIn });
  }
  await enrol(db, course, ids.teacher, 'teacher');
  await enrol(db, course, ids.author, 'student');
  await enrol(db, course, ids.classmate, 'student');
  await enrol(db, elsewhere, ids.colleague, 'teacher');
  await enrol(db, elsewhere, ids.stranger, 'student');
  const { assignment, criteria } = await addTestAssignment(db, course);

  const settings = { ...readSettings({}), port: 0, maxFileBytes: 1024 * 1024, privatePlatforms: true, ...more };
  const running = await startServer(db, settings, engines);
  const as = { nobody: new Client(running.address) } as TestSchool['as'];
  for (const name of PEOPLE) as[name] = new Client(running.address, await openSession(db, ids[name]));
  return { address: running.address, as, ids, course, assignment, criteria, stop: running.stop };
}

/** An assignment with a rubric of two criteria, each of 0 or 2.5 points. */
export async function addTestAssignment(
  db: Database,
  course: string,
): Promise<Pick<TestSchool, 'assignment' | 'criteria'>> {
  const assignment = randomUUID();
  await db.query(
    "insert into assignments (id, course, title, brief, due_at) values ($1, $2, 'Essay', 'Write.', '2026-01-01Z')",
    [assignment, course],
  );
  const criteria = [];
  for (const position of [0, 1]) {
    const criterion = { id: randomUUID(), levels: [randomUUID(), randomUUID()] };
    criteria.push(criterion);
    await db.query("insert into criteria (id, assignment, position, title, description) values ($1, $2, $3, 'C', '')", [
      criterion.id,
      assignment,
      position,
    ]);
    for (const [index, level] of criterion.levels.entries())
      await db.query(
        "insert into levels (id, criterion, position, title, description, points) values ($1, $2, $3, 'L', '', $4)",
        [level, criterion.id, index, index * 2.5],
      );
  }
  await db.query("insert into bands (assignment, grade, from_percentage) values ($1, 'Pass', 50), ($1, 'Not yet', 0)", [
    assignment,
  ]);
  return { assignment, criteria };
}

let handedIn = 0;

/** The same essay in other bytes, since what is sent twice is one version. */
export const savedAgain = (document: Buffer): Buffer =>
  Buffer.from(zipSync({ ...unzipSync(document), 'custom/saved.txt': strToU8(`${++handedIn}`) }, { level: 0 }));

/** The author hands in the essay as a new version; answers the id of the submission. */
export const handIn = async (school: TestSchool): Promise<string> =>
  handInFile(school, 'essay.docx', savedAgain(await essay()));

/** Hands a file in as a work of its own. */
export async function handInFile(
  { as, assignment }: TestSchool,
  fileName: string,
  file: Buffer,
  who: 'author' | 'classmate' = 'author',
): Promise<string> {
  const answer = await as[who].send('POST', `/assignments/${assignment}/submissions`, { file, fileName });
  if (answer.status !== 200) throw new Error(answer.text);
  return (answer.json as { submission: string }).submission;
}

/** What is said by voice alone; `more` about the recording. */
export const spoken = (recording: string, more: object = {}): object => ({
  ...NO_WORDS,
  recording: { id: recording, sound: SOUND, ...more },
});

/** The body of a remark about some words of the essay. */
export async function remarkBody(
  { as }: TestSchool,
  submission: string,
  words: string,
  recording: string,
): Promise<{ anchor: Anchor; kind: string; said: object }> {
  const { json } = await as.teacher.send('GET', `/submissions/${submission}`);
  const { text } = (json as { folio: { text: string } }).folio;
  const start = text.indexOf(words);
  return { anchor: passageAnchor(text, start, start + words.length)!, kind: 'repair', said: spoken(recording) };
}

/** The teacher says something; answers the id of the remark, which is that of its recording too. */
export async function sayRemark(
  school: TestSchool,
  submission: string,
  words = 'The reason is obvious.',
): Promise<string> {
  const remark = randomUUID();
  const body = await remarkBody(school, submission, words, remark);
  const answer = await school.as.teacher.send('PUT', `/submissions/${submission}/remarks/${remark}`, {
    body,
    file: await voice(),
  });
  if (answer.status !== 200) throw new Error(answer.text);
  return remark;
}
