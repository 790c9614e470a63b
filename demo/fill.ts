import { passageAnchor, type Anchor } from '#core/anchor';
import { PLAIN_MARKING } from '#core/grading';
import { answersFile, type Folio, type Question } from '#core/folio';
import { randomUUID } from 'node:crypto';
import { readFile } from 'node:fs/promises';
import { NO_WORDS } from '../contract/said.ts';
import { updateMarking } from '../server/assignments/marking.ts';
import { upsertPoints, upsertScore } from '../server/grading/queries.ts';
import { putAdjustment, putStanding } from '../server/grading/standing.ts';
import { upsertListening } from '../server/recordings/queries.ts';
import { putTranscript, putTranslation } from '../server/transcripts/queries.ts';
import type { Database, Queries } from '../server/db/database.ts';
import { insertHandout } from '../server/handouts/queries.ts';
import { keepMedium } from '../server/media/media.ts';
import { fromRoot } from '../server/root.ts';
import { readDocument } from '../server/documents/read.ts';
import { insertRemark, updateDealt } from '../server/remarks/queries.ts';
import { insertReply } from '../server/replies/queries.ts';
import { addCourse, addPerson, enrol } from '../server/school/people.ts';
import { reattachEarlier } from '../server/earlier/reattach.ts';
import { insertSubmission, keepFiles, type HandedIn } from '../server/submissions/insert.ts';
import { markOpened } from '../server/access/work-state.ts';
import { selectFolio } from '../server/submissions/queries.ts';
import { setReturned } from '../server/feedback/return.ts';
import { updateReady } from '../server/returning/queries.ts';
import { hashPassword } from '../server/sessions/passwords.ts';
import {
  ASSIGNMENTS,
  COURSE,
  SCALE,
  SECOND_COURSE,
  TERMS,
  type SampleAssignment,
  type SampleWork,
} from './assignment.ts';
import { fillModeration } from './fill-moderation.ts';
import { fillTerm } from './fill-term.ts';
import { HEARD } from './heard.ts';
import { loginOf, STUDENTS, TEACHERS } from './people.ts';
import { fillBank, fillGreetings, sayAgain, sayNotes } from './fill-bank.ts';
import { daysAgo, draftOf, keepVoice, putWords } from './voices.ts';
import { WRITTEN } from './written.ts';
import { FEEDBACK, type SampleFeedback, type SampleRemark } from './remarks.ts';

/** So many of the students are in the second course too. */
const IN_BOTH = 12;

export const SAMPLE_PASSWORD = 'shoreline';

/** Fills an empty database with Fennick Tidal College, all or nothing; one that has a school already is left as it is. */
export async function fillSampleSchool(db: Database): Promise<void> {
  if ((await db.query('select 1 as one from school')).length === 0) await db.transaction(fill);
}

async function fill(tx: Queries): Promise<void> {
  await tx.query('insert into school (name, sample) values ($1, true)', ['Fennick Tidal College']);
  const people = await addPeople(tx);
  const banked = await fillBank(tx, people.teacher);
  await fillGreetings(tx, people.teacher, people.id);
  const marked = new Set<string>();
  for (const sample of ASSIGNMENTS) {
    const course = sample.course === SECOND_COURSE ? people.secondCourse : people.course;
    const added = await addAssignment(tx, course, sample);
    for (const { student, flag = null, extendedDaysAgo } of sample.standings ?? [])
      await putStanding(
        tx,
        { assignment: added.assignment, student: people.id(student), person: people.teacher },
        { flag, extendedUntil: extendedDaysAgo === undefined ? null : daysAgo(extendedDaysAgo) },
      );
    const { teacher } = people;
    await sayNotes(tx, sample.title, { course, teacher, assignment: added.assignment }, people.id);
    for (const work of sample.works) {
      const student = people.id(work.student);
      const submission = await handIn(tx, sample, added, student, work);
      if (work.total !== undefined)
        await putAdjustment(tx, submission, { extra: null, total: work.total * 100, reason: '' }, teacher);
      const feedback = FEEDBACK.find((one) => one.student === work.student && !marked.has(work.student));
      marked.add(work.student);
      if (feedback) await sayAgain(tx, banked, feedback, { submission, teacher, student });
      if (feedback)
        await giveFeedback(tx, {
          feedback,
          submission,
          added,
          teacher,
          second: people.second,
          student,
        });
      else await reattachEarlier(tx, submission, student);
    }
  }
  await fillTerm(
    tx,
    people,
    banked,
    async (course, sample) => (await addAssignment(tx, course, { ...sample, works: [] })).assignment,
  );
  await fillModeration(tx, people, banked);
}

async function addPeople(db: Queries): Promise<{
  course: string;
  secondCourse: string;
  teacher: string;
  second: string;
  id: (login: string) => string;
}> {
  const passwordHash = await hashPassword(SAMPLE_PASSWORD);
  const ids = new Map<string, string>();
  const course = await addCourse(db, COURSE);
  const secondCourse = await addCourse(db, SECOND_COURSE);
  await db.query('update courses set terms = $2 where id = $1', [course, JSON.stringify(TERMS)]);
  for (const name of [...TEACHERS, ...STUDENTS]) {
    const person = await addPerson(db, { name, login: loginOf(name), passwordHash, madeIn: course });
    ids.set(loginOf(name), person);
    await enrol(db, course, person, TEACHERS.includes(name) ? 'teacher' : 'student');
  }
  const [teacher, second] = TEACHERS.map((name) => ids.get(loginOf(name))!);
  await enrol(db, secondCourse, teacher!, 'teacher');
  await db.query('update people set steward = true where id = $1', [teacher!]);
  for (const name of STUDENTS.slice(0, IN_BOTH)) await enrol(db, secondCourse, ids.get(loginOf(name))!, 'student');
  return { course, secondCourse, teacher: teacher!, second: second!, id: (login) => ids.get(login)! };
}

interface Added {
  assignment: string;
  criteria: { id: string; levels: string[] }[];
  questions: Question[];
}

async function addAssignment(db: Queries, course: string, sample: SampleAssignment): Promise<Added> {
  const { title, brief, dueDaysAgo, rubric, questions = [], scale = SCALE, weight } = sample;
  const assignment = randomUUID();
  await db.query(
    `insert into assignments (id, course, title, brief, due_at, anonymous, term, category, weight)
     values ($1, $2, $3, $4, $5, $6, $7, $8, $9)`,
    [
      ...[assignment, course, title, brief, daysAgo(dueDaysAgo), sample.anonymous ?? false],
      ...[sample.term ?? null, sample.category ?? '', weight ?? null],
    ],
  );
  await updateMarking(db, assignment, { ...PLAIN_MARKING, ...sample.marking });
  const criteria: Added['criteria'] = [];
  for (const [position, { title, description, levels, weight, bonus = false }] of rubric.entries()) {
    const id = randomUUID();
    await db.query(
      `insert into criteria (id, assignment, position, title, description, weight, bonus) values ($1, $2, $3, $4, $5, $6, $7)`,
      [id, assignment, position, title, description, weight ?? null, bonus],
    );
    const ids = levels.map(() => randomUUID());
    for (const [index, level] of levels.entries())
      await db.query(
        'insert into levels (id, criterion, position, title, description, points) values ($1, $2, $3, $4, $5, $6)',
        [ids[index], id, index, level.title, level.description, level.points],
      );
    criteria.push({ id, levels: ids });
  }
  for (const { grade, from } of scale)
    await db.query('insert into bands (assignment, grade, from_percentage) values ($1, $2, $3)', [
      assignment,
      grade,
      from,
    ]);
  for (const { name, given, text } of sample.handouts ?? []) {
    const file = await keepMedium(db, Buffer.from(text), 'text/plain');
    await insertHandout(db, { id: randomUUID(), assignment, name, file, given });
  }
  return { assignment, criteria, questions: await addQuestions(db, assignment, questions) };
}

async function addQuestions(
  db: Queries,
  assignment: string,
  questions: NonNullable<SampleAssignment['questions']>,
): Promise<Question[]> {
  const added: Question[] = [];
  for (const [position, { kind, prompt, choices = [], points }] of questions.entries()) {
    const question = { id: randomUUID(), kind, prompt, choices, points: points * 100 };
    await db.query(
      'insert into questions (id, assignment, position, kind, prompt, choices, points) values ($1, $2, $3, $4, $5, $6, $7)',
      [question.id, assignment, position, kind, prompt, JSON.stringify(choices), points],
    );
    added.push(question);
  }
  return added;
}

async function handIn(
  db: Queries,
  { title }: SampleAssignment,
  { assignment, questions }: Added,
  student: string,
  { files = [], answers, daysAgo: days }: SampleWork,
): Promise<string> {
  const id = randomUUID();
  const handedIn: HandedIn[] = await Promise.all(
    files.map(async (name) => {
      const bytes = await readFile(fromRoot(`demo/documents/${name}`));
      return { ...(await readDocument(bytes, name)), source: bytes };
    }),
  );
  if (answers) {
    const byQuestion = Object.fromEntries(questions.map((question, index) => [question.id, answers[index] ?? '']));
    handedIn.push({ file: answersFile(title, questions, byQuestion), pictures: [] });
  }
  const kept = await keepFiles(db, handedIn);
  await insertSubmission(db, { id, assignment, student, files: kept, handedInAt: daysAgo(days) });
  return id;
}

interface Given {
  feedback: SampleFeedback;
  submission: string;
  added: Added;
  teacher: string;
  second: string;
  student: string;
}

async function giveFeedback(
  db: Queries,
  { feedback, submission, added, teacher, second, student }: Given,
): Promise<void> {
  const folio = (await selectFolio(db, submission))!;
  await markOpened(db, submission);
  for (const remark of feedback.remarks)
    await addRemark(db, remark, { submission, anchor: anchorOf(folio, added, remark), teacher, student });
  for (const written of WRITTEN.filter((one) => one.student === feedback.student))
    await insertRemark(db, {
      id: randomUUID(),
      submission,
      author: written.second ? second : teacher,
      kind: written.kind,
      anchor: passageOf(folio, written.passage),
      words: { ...NO_WORDS, ...written.words },
      recording: null,
      file: null,
    });
  for (const [index, level] of feedback.levels.entries()) {
    const criterion = added.criteria[index]!;
    if (level !== undefined)
      await upsertScore(db, {
        ...{ submission, criterion: criterion.id, person: teacher },
        score: { level: criterion.levels[level]! },
      });
  }
  for (const [index, points] of (feedback.points ?? []).entries())
    await upsertPoints(db, {
      submission,
      question: added.questions[index]!.id,
      points: points * 100,
      person: teacher,
    });
  if (feedback.returned) await setReturned(db, submission, true, teacher);
  if (feedback.ready) await updateReady(db, submission, true);
}

interface About {
  submission: string;
  anchor: Anchor;
  teacher: string;
  student: string;
}

async function addRemark(
  tx: Queries,
  remark: SampleRemark,
  { submission, anchor, teacher, student }: About,
): Promise<void> {
  const id = randomUUID();
  const recording = await keepVoice(tx, remark, teacher);
  await insertRemark(tx, {
    ...{ id, submission, author: teacher, kind: remark.kind, anchor, recording, file: null },
    words: NO_WORDS,
  });
  if (remark.draft) await putTranscript(tx, recording, await draftOf(remark), null);
  else await putWords(tx, recording, remark);
  for (const [language, text] of Object.entries(remark.translations ?? {}))
    await putTranslation(tx, recording, { language, text, source: 'person', engine: '' });
  if (remark.heard)
    await upsertListening(tx, recording, student, remark.heard === 'finished' ? HEARD : [{ start: 0, end: 3 }]);
  if (remark.dealt) await updateDealt(tx, id, true);
  if (remark.reply) {
    const { text, spoken } = remark.reply;
    const answer = spoken ? await keepVoice(tx, spoken, student) : null;
    await insertReply(tx, { id: randomUUID(), remark: id, author: student, text, recording: answer });
    if (spoken) await putWords(tx, answer!, spoken);
  }
}

function anchorOf(folio: Folio, { questions }: Added, { passage, anchor, question }: SampleRemark): Anchor {
  if (question !== undefined) return { type: 'answer', question: questions[question]!.id };
  return passage === undefined ? (anchor ?? { type: 'whole' }) : passageOf(folio, passage);
}

function passageOf({ text }: Folio, passage: string): Anchor {
  const start = text.indexOf(passage);
  const found = start < 0 ? undefined : passageAnchor(text, start, start + passage.length);
  if (!found) throw new Error(`The sample work does not say “${passage}”`);
  return found;
}
