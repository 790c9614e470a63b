import { Greeting } from '../../contract/bank.ts';
import { asTeacher } from '../access/visible.ts';
import { select, type Queries } from '../db/database.ts';
import { recordingJson } from '../recordings/queries.ts';

/** The students of a course in the order of names, with what a teacher says to greet them. */
export const selectGreetings = (db: Queries, course: string, teacher: string): Promise<Greeting[]> =>
  select(
    db,
    Greeting,
    `select p.id as student, p.name, ${recordingJson('g', asTeacher, 2)} as recording
     from enrolments e join people p on p.id = e.person
     left join greetings h on h.student = p.id and h.teacher = $2 left join recordings g on g.id = h.recording
     where e.course = $1 and e.role = 'student' order by p.name, p.id`,
    [course, teacher],
  );

export async function upsertGreeting(tx: Queries, teacher: string, student: string, recording: string): Promise<void> {
  await tx.query(
    `insert into greetings (teacher, student, recording) values ($1, $2, $3)
     on conflict (teacher, student) do update set recording = excluded.recording`,
    [teacher, student, recording],
  );
}

export async function deleteGreeting(db: Queries, teacher: string, student: string): Promise<void> {
  await db.query('delete from greetings where teacher = $1 and student = $2', [teacher, student]);
}
