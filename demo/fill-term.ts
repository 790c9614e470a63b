import { passageAnchor } from '#core/anchor';
import { folioOf } from '#core/folio';
import { outcomeOf, PLAIN_MARKING, type Rubric, type Scores } from '#core/grading';
import { randomUUID } from 'node:crypto';
import type { CourseScheme } from '../contract/gradebook.ts';
import { NO_WORDS, SaidContent } from '../contract/said.ts';
import { updateMarking } from '../server/assignments/marking.ts';
import type { Queries } from '../server/db/database.ts';
import { readDocument } from '../server/documents/read.ts';
import { selectRubric, selectScale } from '../server/grading/queries.ts';
import { keepMedium } from '../server/media/media.ts';
import { addCourse, enrol } from '../server/school/people.ts';
import type { Banked } from './fill-bank.ts';
import { HEARD } from './heard.ts';
import { loginOf, STUDENTS } from './people.ts';
import { ENDS, MIDDLES, NOT_IN_TERM, OPENINGS, TERM, TERM_COURSE, TERM_NAMES, type TermAssignment } from './term.ts';

export const SCHEME: CourseScheme = {
  count: 'categories',
  categories: [
    { name: 'Logs', weight: 4000, drop: 1, equal: true },
    { name: 'Letters', weight: 4500, drop: 0, equal: false },
    { name: 'Talks', weight: 1500, drop: 0, equal: false },
  ],
  scale: [
    { grade: 'Distinction', from: 8500 },
    { grade: 'Merit', from: 7000 },
    { grade: 'Pass', from: 5000 },
    { grade: 'Not yet', from: 0 },
  ],
  decimals: 1,
  shown: true,
};

const DAY = 24 * 60 * 60 * 1000;
const MINUTE = 60 * 1000;

interface People {
  teacher: string;
  second: string;
  id: (login: string) => string;
}

interface Student {
  id: string;
  /** 0 to 1. */
  skill: number;
  /** How often something is said about the work: few hear much, some only what is to be repaired. */
  voice: 'usual' | 'little' | 'repairs';
}

/** All rows of the term, so that hundreds of works are a few statements. */
interface Rows {
  submissions: object[];
  files: object[];
  scores: object[];
  remarks: object[];
  recordings: object[];
  listenings: object[];
  returns: object[];
  changes: object[];
  entered: object[];
  standings: object[];
}

/** The same numbers each time: Numerical Recipes' linear congruential generator. */
function chance(seed: number): () => number {
  let state = seed;
  return () => {
    state = (Math.imul(state, 1664525) + 1013904223) >>> 0;
    return state / 2 ** 32;
  };
}

/** A course whose first term is marked and returned. Call in a transaction. */
export async function fillTerm(
  tx: Queries,
  { teacher, second, id }: People,
  banked: ReadonlyMap<string, Banked>,
  addAssignment: (course: string, sample: TermAssignment) => Promise<string>,
): Promise<void> {
  const course = await addCourse(tx, TERM_COURSE);
  await tx.query('update courses set terms = $2, grading = $3 where id = $1', [
    ...[course, JSON.stringify(TERM_NAMES), JSON.stringify(SCHEME)],
  ]);
  for (const person of [teacher, second]) await enrol(tx, course, person, 'teacher');
  const random = chance(20);
  const students = STUDENTS.map(loginOf)
    .filter((login) => !NOT_IN_TERM.includes(login))
    .map((login, index): Student => ({
      id: id(login),
      skill: 0.42 + 0.5 * random(),
      voice: index % 9 === 4 ? 'little' : index % 8 === 5 ? 'repairs' : 'usual',
    }));
  for (const student of students) await enrol(tx, course, student.id, 'student');

  const rows: Rows = {
    ...{ submissions: [], files: [], scores: [], remarks: [], recordings: [], listenings: [] },
    ...{ returns: [], changes: [], entered: [], standings: [] },
  };
  for (const sample of TERM) {
    const dueDaysAgo = (Date.now() - dueOf(sample)) / DAY;
    const assignment = await addAssignment(course, { ...sample, dueDaysAgo });
    if (sample.possible !== undefined) {
      await updateMarking(tx, assignment, { ...PLAIN_MARKING, shown: 'points', possible: sample.possible * 100 });
      await tx.query('update assignments set extra = $2 where id = $1', [assignment, sample.extra ?? false]);
    }
    if (sample.coming) continue;
    const place = { assignment, sample, teacher, random };
    if (sample.possible === undefined) await addWorks(tx, rows, students, banked, place);
    else enterGrades(rows, students, place);
  }
  await insertRows(tx, rows);
}

interface Place {
  assignment: string;
  sample: TermAssignment;
  teacher: string;
  random: () => number;
}

const iso = (time: number): string => new Date(time).toISOString();
/** Always at the same hour, so that marking is done in the evening. */
const dueOf = ({ dueDaysAgo }: TermAssignment): number =>
  (Math.floor(Date.now() / DAY) - dueDaysAgo) * DAY + 17.5 * 60 * MINUTE;

function enterGrades(rows: Rows, students: readonly Student[], { assignment, sample, teacher, random }: Place): void {
  const possible = sample.possible!;
  for (const { id, skill } of students) {
    if (sample.extra ? random() < 0.6 : random() < 0.08) continue;
    const points = Math.round(Math.min(1, skill + 0.3 * random()) * possible * 2) * 50;
    const at = dueOf(sample) + 20 * 60 * MINUTE;
    rows.entered.push({
      ...{ assignment, student: id, points, by: teacher, at: iso(at) },
      returned: sample.draft ? null : iso(at + 60 * MINUTE),
    });
    rows.changes.push(changeOf({ assignment, student: id, points, by: teacher, at: iso(at), returned: !sample.draft }));
  }
}

const NOTHING = { points: null, flag: null, returned: false };

interface Changed {
  assignment: string;
  student: string;
  by: string;
  at: string;
  points: number;
  returned: boolean;
}

const changeOf = ({ points, returned, ...place }: Changed): object => ({
  ...place,
  ...{ was: NOTHING, now: { points, flag: null, returned } },
});

/** Hands in, marks in one evening and returns on the next morning. */
async function addWorks(
  tx: Queries,
  rows: Rows,
  students: readonly Student[],
  banked: ReadonlyMap<string, Banked>,
  { assignment, sample, teacher, random }: Place,
): Promise<void> {
  const [rubric, scale] = [await selectRubric(tx, assignment), await selectScale(tx, assignment)];
  const evening = dueOf(sample) + 2 * DAY + 150 * MINUTE;
  let now = evening;
  for (const [index, student] of students.entries()) {
    const luck = random();
    if (luck < 0.05) {
      const flag = luck < 0.025 ? 'missing' : 'excused';
      rows.standings.push({ assignment, student: student.id, flag, by: teacher, at: iso(evening) });
      continue;
    }
    const submission = randomUUID();
    const late = luck > 0.92;
    const handedIn = dueOf(sample) + (late ? 1 : -1) * (0.1 + random()) * DAY;
    const text = pageOf(random);
    const bytes = Buffer.from(`${text}\n`);
    const { file, pictures } = await readDocument(bytes, 'page.txt');
    const folio = folioOf([file], [pictures.length]);
    const medium = await keepMedium(tx, bytes, 'text/plain');

    const opened = now;
    now += (2.4 + 4 * random() + (student.voice === 'little' ? -1.2 : 0.6)) * MINUTE;
    // Whoever is marked at midnight has it a little harder.
    const judged = student.skill + 0.3 * (random() - 0.5) - 0.12 * (index / students.length);
    const scores = scoresFor(rubric, judged, random);
    const { grade } = outcomeOf({ rubric, scale, scores });
    const returned = iso(evening + 0.5 * DAY);
    rows.submissions.push({
      ...{ id: submission, assignment, student: student.id, folio, by: teacher, returned },
      ...{ handed: iso(handedIn), opened: iso(opened), ...grade },
    });
    rows.files.push({ submission, file: medium.toString('hex') });
    for (const [criterion, score] of Object.entries(scores))
      rows.scores.push({ submission, criterion, ...score, by: teacher, at: iso(now) });
    rows.returns.push({
      ...{ submission, at: returned, by: teacher, given: { remarks: {}, scores, points: {}, grade } },
    });
    rows.changes.push(
      changeOf({ assignment, student: student.id, points: grade!.points, by: teacher, at: returned, returned: true }),
    );
    say(rows, { banked, student, submission, text, teacher, opened, until: now, random });
  }
}

const pick = <T>(from: readonly T[], random: () => number): T => from[Math.floor(random() * from.length)]!;

function pageOf(random: () => number): string {
  const middles = [...MIDDLES].sort(() => random() - 0.5).slice(0, 3 + Math.floor(random() * 3));
  return [pick(OPENINGS, random), ...middles, pick(ENDS, random)].join(' ');
}

const scoresFor = (rubric: Rubric, judged: number, random: () => number): Scores =>
  Object.fromEntries(
    rubric.map(({ id, levels }) => {
      const level = Math.round((judged + 0.25 * (random() - 0.5)) * (levels.length - 1));
      return [id, { level: levels[Math.max(0, Math.min(levels.length - 1, level))]!.id }];
    }),
  );

interface Said {
  banked: ReadonlyMap<string, Banked>;
  student: Student;
  submission: string;
  text: string;
  teacher: string;
  opened: number;
  until: number;
  random: () => number;
}

/** Remarks out of the bank, about sentences of the page. */
function say(rows: Rows, { banked, student, submission, text, teacher, opened, until, random }: Said): void {
  const wanted = student.voice === 'little' ? Math.round(random()) : 1 + Math.floor(random() * 3);
  const sentences = text.match(/[^.;]+[.;]/gu)!;
  const kept = [...banked.values()].filter(({ sample: { kind } }) => student.voice !== 'repairs' || kind === 'repair');
  for (let number = 0; number < wanted; number++) {
    const { recording, sample } = pick(kept, random);
    const sentence = pick(sentences, random).trim();
    const start = text.indexOf(sentence);
    const [id, copy] = [randomUUID(), randomUUID()];
    const content = SaidContent.parse({ ...NO_WORDS, name: sample.title, tags: sample.tags });
    const at = iso(opened + ((until - opened) * (number + 1)) / (wanted + 1));
    const anchor = passageAnchor(text, start, start + sentence.length)!;
    rows.recordings.push({ id: copy, from: recording, owner: teacher, at });
    rows.remarks.push({ id, submission, by: teacher, kind: sample.kind, anchor, recording: copy, content, at });
    if (random() < 0.85) rows.listenings.push({ recording: copy, person: student.id, at: iso(until + DAY) });
  }
}

async function insertRows(tx: Queries, rows: Rows): Promise<void> {
  const insert = (sql: string, some: object[]): Promise<unknown> => tx.query(sql, [JSON.stringify(some)]);
  await insert(
    `insert into submissions (id, assignment, student, version, folio, handed_in_at, opened_at, returned_at, returned_by,
       points, possible, percentage, grade, explanation)
     select x.id, x.assignment, x.student, 1, x.folio, x.handed, x.opened, x.returned, x.by,
       x.points / 100.0, x.possible / 100.0, x.percentage / 100.0, x.grade, x.explanation
     from jsonb_to_recordset($1::jsonb) as x(id uuid, assignment uuid, student uuid, folio jsonb, handed timestamptz, opened timestamptz,
       returned timestamptz, by uuid, points int, possible int, percentage int, grade text, explanation text)`,
    rows.submissions,
  );
  await insert(
    `insert into submission_files (submission, position, name, format, file)
     select x.submission, 0, 'page.txt', 'text', decode(x.file, 'hex') from jsonb_to_recordset($1::jsonb) as x(submission uuid, file text)`,
    rows.files,
  );
  await insert(
    `insert into scores (submission, criterion, level, chosen_by, chosen_at)
     select x.submission, x.criterion, x.level, x.by, x.at
     from jsonb_to_recordset($1::jsonb) as x(submission uuid, criterion uuid, level uuid, by uuid, at timestamptz)`,
    rows.scores,
  );
  await insert(
    `insert into recordings (id, owner, medium, duration, peaks, picture, language, made_at)
     select x.id, x.owner, g.medium, g.duration, g.peaks, g.picture, g.language, x.at
     from jsonb_to_recordset($1::jsonb) as x(id uuid, "from" uuid, owner uuid, at timestamptz) join recordings g on g.id = x."from"`,
    rows.recordings,
  );
  await insert(
    `insert into transcripts (recording, language, text, words, source, engine, approximate, read)
     select x.id, t.language, t.text, t.words, t.source, t.engine, t.approximate, t.read
     from jsonb_to_recordset($1::jsonb) as x(id uuid, "from" uuid) join transcripts t on t.recording = x."from"`,
    rows.recordings,
  );
  await insert(
    `insert into remarks (id, submission, author, kind, anchor, recording, content, private, made_at)
     select x.id, x.submission, x.by, x.kind, x.anchor, x.recording, x.content, false, x.at
     from jsonb_to_recordset($1::jsonb) as x(id uuid, submission uuid, by uuid, kind text, anchor jsonb, recording uuid, content jsonb, at timestamptz)`,
    rows.remarks,
  );
  await insert(
    `insert into listenings (recording, person, begun_at, finished_at, played)
     select x.recording, x.person, x.at, x.at, '${JSON.stringify(HEARD)}'
     from jsonb_to_recordset($1::jsonb) as x(recording uuid, person uuid, at timestamptz)`,
    rows.listenings,
  );
  await insert(
    `insert into returns (submission, number, returned_at, returned_by, given)
     select x.submission, 1, x.at, x.by, x.given from jsonb_to_recordset($1::jsonb) as x(submission uuid, at timestamptz, by uuid, given jsonb)`,
    rows.returns,
  );
  await insert(
    `insert into entered_grades (assignment, student, points, entered_by, entered_at, returned_at)
     select x.assignment, x.student, x.points / 100.0, x.by, x.at, x.returned
     from jsonb_to_recordset($1::jsonb) as x(assignment uuid, student uuid, points int, by uuid, at timestamptz, returned timestamptz)`,
    rows.entered,
  );
  await insert(
    `insert into grade_changes (assignment, student, changed_by, changed_at, was, now)
     select x.assignment, x.student, x.by, x.at, x.was, x.now
     from jsonb_to_recordset($1::jsonb) as x(assignment uuid, student uuid, by uuid, at timestamptz, was jsonb, now jsonb)`,
    rows.changes,
  );
  await insert(
    `insert into standings (assignment, student, flag, set_by, set_at)
     select x.assignment, x.student, x.flag, x.by, x.at
     from jsonb_to_recordset($1::jsonb) as x(assignment uuid, student uuid, flag text, by uuid, at timestamptz)`,
    rows.standings,
  );
}
