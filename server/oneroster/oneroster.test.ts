import ExcelJS from 'exceljs';
import { strToU8, unzipSync, zipSync } from 'fflate';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { PLAIN_MARKING } from '#core/grading';
import type { Gradebook } from '../../contract/gradebook.ts';
import type { OneRosterReport } from '../../contract/oneroster.ts';
import type { RosterReport } from '../../contract/roster.ts';
import { addCourse, enrol } from '../school/people.ts';
import { updateMember } from '../roster/queries.ts';
import { bodies, type TestDatabase } from '../testing/databases.ts';
import { handIn, startTestSchool, type TestSchool } from '../testing/school.ts';

describe.each(bodies)('OneRoster files, on $name', ({ open }) => {
  let test: TestDatabase;
  let school: TestSchool;
  /** Of the same teacher, with nothing in it. */
  let empty: string;
  beforeAll(async () => {
    test = await open();
    school = await startTestSchool(test.db);
    empty = await addCourse(test.db, 'Another year');
    await enrol(test.db, empty, school.ids.teacher, 'teacher');
    const { author, classmate } = school.ids;
    await updateMember(test.db, author, { number: 'A7' });
    // Whoever has an account would only be invited.
    await test.db.query('update people set came_in_at = null where id in ($1, $2)', [author, classmate]);
    await school.as.teacher.send('PATCH', `/assignments/${school.assignment}`, {
      body: { title: 'Essay, the first', category: 'Letters', marking: { ...PLAIN_MARKING } },
    });
    const of = (student: string, to: object) => ({ assignment: school.assignment, student, to });
    await school.as.teacher.send('PUT', `/courses/${school.course}/gradebook`, {
      body: { changes: [of(author, { points: 350 }), of(classmate, { flag: 'excused' })], why: '' },
    });
  });
  afterAll(async () => {
    await school.stop();
    await test.remove();
  });

  const packed = async (course = school.course): Promise<Buffer> =>
    Buffer.from(await (await school.as.teacher.fetch(`/courses/${course}/oneroster`)).arrayBuffer());
  const send = (course: string, file: Buffer, bringIn: boolean, who: 'teacher' | 'author' = 'teacher') =>
    school.as[who].send('POST', `/courses/${course}/oneroster`, {
      ...{ file, fileName: 'roster.zip' },
      body: { class: null, bringIn },
    });
  const report = async (course: string, file: Buffer, bringIn = false): Promise<OneRosterReport> =>
    (await send(course, file, bringIn)).json as OneRosterReport;
  const book = async (course: string): Promise<Gradebook> =>
    (await school.as.teacher.send('GET', `/courses/${course}/gradebook`)).json as Gradebook;

  it('go out with a course, and into another one that is empty; then all is as it was there', async () => {
    const file = await packed();
    expect(Object.keys(unzipSync(file))).toContain('manifest.csv');
    const looked = await report(empty, file);
    expect(looked).toMatchObject({ counts: { new: 5, refused: 0, changed: 0 }, broughtIn: null });
    expect((await book(empty)).rows).toEqual([]);

    const done = await report(empty, file, true);
    const { columns, rows } = await book(empty);
    expect(columns).toMatchObject([{ title: 'Essay, the first', category: 'Letters', possible: 500, open: false }]);
    expect(rows.map(({ name, cells }) => [name, cells[0]?.points, cells[0]?.flag])).toEqual([
      ['The author', 350, null],
      ['The classmate', null, 'excused'],
    ]);
    // Nobody is there twice: who was known has joined.
    expect(rows.map(({ id }) => id)).toEqual([school.ids.author, school.ids.classmate]);
    expect((await report(empty, file)).counts).toEqual({ new: 0, changed: 0, unchanged: 5, refused: 0 });

    const back = await school.as.teacher.send('POST', `/courses/${empty}/oneroster/taken-back`, {
      body: done.broughtIn!,
    });
    expect(back.status).toBe(200);
    expect(await book(empty)).toMatchObject({ rows: [], columns: [] });
  });

  it('only invite whoever has an account, and keep their results for later', async () => {
    const { author, classmate } = school.ids;
    await test.db.query('update people set came_in_at = now() where id in ($1, $2)', [author, classmate]);
    const looked = await report(empty, await packed(), true);
    expect(looked.lines.filter(({ to }) => to === 'invited to the course')).toHaveLength(2);
    expect(looked.lines.filter(({ why }) => why?.includes('only invited'))).toHaveLength(2);
    expect((await book(empty)).rows).toEqual([]);
    await send(empty, await packed(), false);
    await test.db.query('delete from course_invitations');
    await test.db.query('delete from assignments where course = $1', [empty]);
    await test.db.query('update people set came_in_at = null where id in ($1, $2)', [author, classmate]);
  });

  it('are taken back without touching what somebody has done since', async () => {
    const file = await packed();
    const { broughtIn } = await report(empty, file, true);
    await school.as.teacher.send('PATCH', `/assignments/${broughtIn!.assignments[0]!}`, { body: { open: true } });
    await handIn({ ...school, assignment: broughtIn!.assignments[0]! });
    const back = await school.as.teacher.send('POST', `/courses/${empty}/oneroster/taken-back`, { body: broughtIn! });
    expect(back.json).toMatchObject({ type: 'urn:vivid-margin:import-used' });
    const { columns, rows } = await book(empty);
    expect([columns.length, rows.length, rows[0]!.cells[0]!.points]).toEqual([1, 2, null]);
    // Assignments of others are nobody's to be taken back.
    const others = { people: [school.ids.author], assignments: [school.assignment], cells: [] };
    await school.as.teacher.send('POST', `/courses/${empty}/oneroster/taken-back`, { body: others });
    expect((await book(school.course)).columns).toHaveLength(1);
  });

  it('that are broken, no zip, or a bomb change nothing and say why', async () => {
    const problem = async (file: Buffer): Promise<unknown> => {
      const answer = await send(school.course, file, true);
      return [answer.status, (answer.json as { detail: string }).detail];
    };
    expect(await problem(Buffer.from('no zip'))).toEqual([422, expect.stringContaining('no .zip file')]);
    const bomb = Buffer.from(zipSync({ 'users.csv': new Uint8Array(80 * 1024 * 1024) }));
    expect(bomb.length).toBeLessThan(200_000);
    expect(await problem(bomb)).toEqual([422, expect.stringContaining('unpacks to more')]);
    const parts = unzipSync(await packed());
    delete parts['manifest.csv'];
    expect(await problem(Buffer.from(zipSync(parts)))).toEqual([422, expect.stringContaining('manifest.csv')]);
    expect((await send(school.course, await packed(), false, 'author')).status).toBe(403);
  });

  it('bring new people in, whom the school did not know, with a wrong line beside them', async () => {
    const parts = unzipSync(await packed());
    const add = (name: string, line: string): void => {
      parts[name] = Buffer.concat([parts[name]!, strToU8(`${line}\r\n`)]);
    };
    add('users.csv', 'x1,,,true,neo,,Neo,Lund,,Z9,neo@lund.example');
    add('enrollments.csv', `ex1,,,${school.course},school,x1,student,false,,`);
    add('results.csv', `rx1,,,${school.assignment},x1,fully graded,4.5`);
    add('results.csv', `rx2,,,${school.assignment},x7,fully graded,4.5`);
    const done = await report(school.course, Buffer.from(zipSync(parts)), true);
    expect(done.counts).toMatchObject({ new: 2, refused: 1 });
    const { rows } = await book(school.course);
    expect(rows.find(({ name }) => name === 'Neo Lund')!.cells[0]).toMatchObject({ points: 450, entered: true });
    await school.as.teacher.send('POST', `/courses/${school.course}/oneroster/taken-back`, { body: done.broughtIn! });
    expect((await book(school.course)).rows.map(({ name }) => name)).toEqual(['The author', 'The classmate']);
    expect(await test.db.query("select 1 as one from people where name = 'Neo Lund'")).toEqual([]);
  });

  it('and a class list out of a workbook is read like one that is pasted', async () => {
    const workbook = new ExcelJS.Workbook();
    const sheet = workbook.addWorksheet('Class');
    sheet.addRow(['Name', 'Mail', 'Number']);
    sheet.addRow(['Pia Holm', 'pia@holm.example', 41]);
    sheet.addRow(['The author', '', 'A7']);
    sheet.addRow([{ formula: '"Mal" & "ory"', result: 'Mallory' }, '', 42]);
    const answer = await school.as.teacher.send('POST', `/courses/${school.course}/roster`, {
      ...{ file: Buffer.from(await workbook.xlsx.writeBuffer()), fileName: 'class.XLSX' },
      body: { text: '', bringIn: false },
    });
    expect((answer.json as RosterReport).lines.map(({ name, number, fate }) => [name, number, fate])).toEqual([
      ['Pia Holm', '41', 'add'],
      ['The author', 'A7', 'known'],
      ['Mallory', '42', 'add'],
    ]);
  });
});
