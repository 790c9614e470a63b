import { randomUUID } from 'node:crypto';
import type { Database } from '../db/database.ts';
import { addPerson } from '../school/people.ts';
import { handIn, sayRemark, type TestSchool } from './school.ts';

/** Makes one of each object that a path can name, and returns their ids by parameter name. */
export async function oneOfEach(db: Database, school: TestSchool): Promise<Record<string, string>> {
  const submission = await handIn(school);
  const remark = await sayRemark(school, submission);
  const { criteria, course, assignment } = school;
  const stamp = randomUUID();
  await db.query("insert into stamp_pictures (id, owner, name, file) select $1, $2, '', sha256 from media limit 1", [
    stamp,
    school.ids.teacher,
  ]);
  const banked = randomUUID();
  await db.query(
    `insert into banked_remarks (id, owner, content, kind, language)
     values ($1, $2, '{"name": "", "text": "Kept", "link": null, "reaction": null, "suggestion": null, "tags": []}', 'next', 'en')`,
    [banked, school.ids.teacher],
  );
  const note = randomUUID();
  await db.query(
    `insert into notes (id, course, place, author, content)
     values ($1, $2, 'course', $3, '{"name": "", "text": "Noted", "link": null, "reaction": null, "suggestion": null, "tags": []}')`,
    [note, school.course, school.ids.teacher],
  );
  const handout = randomUUID();
  await db.query(
    "insert into handouts (id, assignment, name, file, given) select $1, $2, 'Start.txt', sha256, 'atOnce' from media limit 1",
    [handout, school.assignment],
  );
  const moderation = randomUUID();
  const [copy] = await db.query(
    `with hidden as (insert into courses (id, title, second_marking) values (gen_random_uuid(), 'Again', true) returning id)
     insert into assignments (id, course, title, brief) select gen_random_uuid(), id, 'Again', '' from hidden returning id`,
  );
  await db.query(
    `insert into moderations (id, assignment, rubric_version, second_assignment, marker, started_by)
     select $1, $2, 1, $3, $4, $4`,
    [moderation, assignment, copy!.id, await addPerson(db, { name: 'M', login: 'm', passwordHash: null })],
  );
  await db.query(`insert into moderated_works (moderation, work, second_work, reason) values ($1, $2, $2, 'random')`, [
    moderation,
    submission,
  ]);
  const upload = randomUUID();
  await db.query('insert into uploads (id, owner, byte_length) values ($1, $2, 9)', [upload, school.ids.teacher]);
  return {
    ...{ course, assignment, submission, work: submission, remark, recording: remark, criterion: criteria[0]!.id },
    ...{ banked, note, handout, moderation, upload, stamp, student: school.ids.author, person: school.ids.author },
    ...{ question: randomUUID(), reply: randomUUID(), sha256: 'a'.repeat(64), position: '0' },
  };
}
