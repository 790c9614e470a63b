import { passageAnchor, type Anchor } from '#core/anchor';
import { randomUUID } from 'node:crypto';
import { readFile } from 'node:fs/promises';
import { z } from 'zod';
import type { Database, Queries } from '../server/db/database.ts';
import { readDocument } from '../server/documents/read.ts';
import { keepMedium } from '../server/media/media.ts';
import { insertRemark, upsertListening, upsertTranscript } from '../server/remarks/queries.ts';
import { insertReply } from '../server/replies/queries.ts';
import { addCourse, addPerson, enrol } from '../server/school/people.ts';
import { insertSubmission } from '../server/submissions/insert.ts';
import { upsertScore } from '../server/submissions/queries.ts';
import { setReturned } from '../server/submissions/return.ts';
import { hashPassword } from '../server/sessions/passwords.ts';
import { ASSIGNMENT, COURSE, DUE_DAYS_AGO, HANDED_IN, RUBRIC, SCALE } from './assignment.ts';
import { loginOf, STUDENTS, TEACHERS } from './people.ts';
import { FEEDBACK, type SampleFeedback, type SampleRemark, type SpokenLine } from './remarks.ts';

export const SAMPLE_PASSWORD = 'shoreline';

/** Fills an empty database with Fennick Tidal College, all or nothing; one that has a school already is left as it is. */
export async function fillSampleSchool(db: Database): Promise<void> {
  if ((await db.query('select 1 as one from school')).length === 0) await db.transaction(fill);
}

async function fill(tx: Queries): Promise<void> {
  await tx.query('insert into school (name, sample) values ($1, true)', ['Fennick Tidal College']);
  const people = await addPeople(tx);
  const rubric = await addAssignment(tx, people.course);
  for (const [login, days] of Object.entries(HANDED_IN)) {
    const student = people.id(login);
    const submission = await handIn(tx, rubric.assignment, student, login, days);
    const feedback = FEEDBACK.find(({ essay }) => essay === login);
    if (feedback) await giveFeedback(tx, { feedback, submission, rubric, teacher: people.teacher, student });
  }
}

const daysAgo = (days: number): string => new Date(Date.now() - days * 24 * 60 * 60 * 1000).toISOString();

async function addPeople(db: Queries): Promise<{ course: string; teacher: string; id: (login: string) => string }> {
  const passwordHash = await hashPassword(SAMPLE_PASSWORD);
  const ids = new Map<string, string>();
  const course = await addCourse(db, COURSE);
  for (const name of [...TEACHERS, ...STUDENTS]) {
    const person = await addPerson(db, { name, login: loginOf(name), passwordHash });
    ids.set(loginOf(name), person);
    await enrol(db, course, person, TEACHERS.includes(name) ? 'teacher' : 'student');
  }
  return { course, teacher: ids.get(loginOf(TEACHERS[0]!))!, id: (login) => ids.get(login)! };
}

interface AddedRubric {
  assignment: string;
  criteria: { id: string; levels: string[] }[];
}

async function addAssignment(db: Queries, course: string): Promise<AddedRubric> {
  const assignment = randomUUID();
  await db.query('insert into assignments (id, course, title, brief, due_at) values ($1, $2, $3, $4, $5)', [
    assignment,
    course,
    ASSIGNMENT.title,
    ASSIGNMENT.brief,
    daysAgo(DUE_DAYS_AGO),
  ]);
  const criteria: AddedRubric['criteria'] = [];
  for (const [position, { title, description, levels }] of RUBRIC.entries()) {
    const id = randomUUID();
    await db.query('insert into criteria (id, assignment, position, title, description) values ($1, $2, $3, $4, $5)', [
      id,
      assignment,
      position,
      title,
      description,
    ]);
    const ids = levels.map(() => randomUUID());
    for (const [index, level] of levels.entries())
      await db.query(
        'insert into levels (id, criterion, position, title, description, points) values ($1, $2, $3, $4, $5, $6)',
        [ids[index], id, index, level.title, level.description, level.points],
      );
    criteria.push({ id, levels: ids });
  }
  for (const { grade, from } of SCALE)
    await db.query('insert into bands (assignment, grade, from_percentage) values ($1, $2, $3)', [
      assignment,
      grade,
      from,
    ]);
  return { assignment, criteria };
}

async function handIn(db: Queries, assignment: string, student: string, login: string, days: number): Promise<string> {
  const fileName = `${login}.docx`;
  const bytes = await readFile(new URL(`./documents/${fileName}`, import.meta.url));
  const id = randomUUID();
  const read = await readDocument(bytes, fileName);
  await insertSubmission(db, { id, assignment, student, fileName, bytes, read, handedInAt: daysAgo(days) });
  return id;
}

interface Given {
  feedback: SampleFeedback;
  submission: string;
  rubric: AddedRubric;
  teacher: string;
  student: string;
}

async function giveFeedback(db: Queries, { feedback, submission, rubric, teacher, student }: Given): Promise<void> {
  const text = await textOf(db, submission);
  for (const remark of feedback.remarks) await addRemark(db, remark, { submission, text, teacher, student });
  for (const [index, level] of feedback.levels.entries()) {
    const criterion = rubric.criteria[index]!;
    if (level !== undefined)
      await upsertScore(db, { submission, criterion: criterion.id, level: criterion.levels[level]!, person: teacher });
  }
  if (feedback.returned) await setReturned(db, submission, true, teacher);
}

async function textOf(db: Queries, submission: string): Promise<string> {
  const [row] = await db.query("select folio->>'text' as text from submissions where id = $1", [submission]);
  return z.object({ text: z.string() }).parse(row).text;
}

interface About {
  submission: string;
  text: string;
  teacher: string;
  student: string;
}

async function addRemark(
  tx: Queries,
  remark: SampleRemark,
  { submission, text, teacher, student }: About,
): Promise<void> {
  const id = randomUUID();
  const { bytes, duration, peaks } = await voiceOf(remark);
  const sound = await keepMedium(tx, bytes, 'audio/ogg');
  await insertRemark(tx, {
    id,
    submission,
    author: teacher,
    kind: remark.kind,
    anchor: anchorOf(text, remark.passage),
    sound,
    duration,
    peaks,
  });
  await upsertTranscript(tx, id, { language: 'en', text: remark.text, words: [], source: 'person' });
  if (remark.heard) await upsertListening(tx, id, student, remark.heard === 'finished');
  if (remark.reply) {
    const voice = remark.reply.spoken && (await voiceOf(remark.reply.spoken));
    const spoken = voice ? { ...voice, mediaType: 'audio/ogg' } : null;
    await insertReply(tx, { id: randomUUID(), remark: id, author: student, text: remark.reply.text, spoken });
  }
}

function anchorOf(text: string, passage: string | undefined): Anchor {
  if (passage === undefined) return { type: 'whole' };
  const start = text.indexOf(passage);
  const anchor = start < 0 ? undefined : passageAnchor(text, start, start + passage.length);
  if (!anchor) throw new Error(`The sample essay does not say “${passage}”`);
  return anchor;
}

const Voices = z.record(z.string(), z.object({ duration: z.number(), peaks: z.array(z.int()) }));

async function voiceOf({ name }: SpokenLine): Promise<{ bytes: Buffer; duration: number; peaks: number[] }> {
  const folder = new URL('./voices/', import.meta.url);
  const voices = Voices.parse(JSON.parse(await readFile(new URL('voices.json', folder), 'utf8')));
  return { bytes: await readFile(new URL(`${name}.ogg`, folder)), ...voices[name]! };
}
