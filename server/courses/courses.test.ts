import { randomUUID } from 'node:crypto';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { PLAIN_MARKING } from '#core/grading';
import type { Waiting } from '../../contract/waiting.ts';
import type { Course } from '../../contract/courses.ts';
import type { Note } from '../../contract/notes.ts';
import { NO_WORDS } from '../../contract/said.ts';
import { bodies, type TestDatabase } from '../testing/databases.ts';
import { essay, handIn, savedAgain, SOUND, startTestSchool, voice, type TestSchool } from '../testing/school.ts';

describe.each(bodies)('courses on $name', ({ open }) => {
  let test: TestDatabase;
  let school: TestSchool;
  beforeAll(async () => {
    test = await open();
    school = await startTestSchool(test.db);
    await handIn(school);
    await handIn(school);
  });
  afterAll(async () => {
    await school.stop();
    await test.remove();
  });
  const read = async (who: keyof TestSchool['as']): Promise<Course> =>
    (await school.as[who].send('GET', `/courses/${school.course}`)).json as Course;

  it('are listed for whoever teaches or learns in them', async () => {
    const list = async (who: keyof TestSchool['as']) => (await school.as[who].send('GET', '/courses')).json;
    expect(await list('teacher')).toEqual([{ id: school.course, title: 'Here', teaches: true, aside: false }]);
    expect(await list('author')).toEqual([{ id: school.course, title: 'Here', teaches: false, aside: false }]);
    expect(await list('stranger')).toMatchObject([{ title: 'Elsewhere' }]);
  });

  it('tell their teachers who learns in them and how far each assignment is; a student counts once', async () => {
    const course = await read('teacher');
    expect(course).toMatchObject({ teachers: ['The teacher'], students: ['The author', 'The classmate'] });
    expect(course.assignments).toMatchObject([{ id: school.assignment, handedIn: 1, returned: 0 }]);
  });

  it('tell a student nothing of the others', async () => {
    const course = await read('author');
    expect(course).toMatchObject({ teaches: false, teachers: ['The teacher'], students: [] });
    expect(course.assignments).toMatchObject([{ id: school.assignment, handedIn: null, returned: null }]);
  });

  it('are changed in part, put aside so that nothing comes in any more, and brought back', async () => {
    const change = (body: object) => school.as.teacher.send('PATCH', `/courses/${school.course}`, { body });
    await change({ terms: ['Autumn', 'Spring'] });
    expect(await read('teacher')).toMatchObject({ title: 'Here', terms: ['Autumn', 'Spring'], aside: false });
    for (const wrong of [{ title: ' ' }, { terms: [''] }, { aside: 'yes' }])
      expect((await change(wrong)).status).toBe(400);
    const waiting = async () =>
      ((await school.as.teacher.send('POST', '/waiting', { body: {} })).json as Waiting).shown;
    expect([(await change({ aside: true })).json, await waiting()]).toMatchObject([{ aside: true }, 0]);
    const refused = await school.as.author.send('POST', `/assignments/${school.assignment}/submissions`, {
      ...{ file: savedAgain(await essay()), fileName: 'late.docx' },
    });
    expect(refused.json).toMatchObject({ type: 'urn:vivid-margin:course-aside' });
    expect((await school.as.author.send('GET', '/own-work')).json).toMatchObject([{ assignment: { aside: true } }]);
    await change({ aside: false });
    expect(await waiting()).toBe(1);
  });

  it('are copied for another year with what is asked and scored, without works, people and dates', async () => {
    const set = { marking: { ...PLAIN_MARKING, shown: 'percent' }, attempts: 2, formats: ['docx'], term: 'Autumn' };
    await school.as.teacher.send('PATCH', `/assignments/${school.assignment}`, { body: set });
    const say = (at: object) =>
      school.as.teacher.send('PUT', `/courses/${school.course}/notes/${randomUUID()}`, {
        body: { ...NO_WORDS, name: '', tags: [], at, recording: { id: randomUUID(), sound: SOUND } },
        ...{ file: sound, fileName: 'note.ogg' },
      });
    const sound = await voice();
    for (const at of [{ place: 'course' }, { place: 'instructions', assignment: school.assignment }])
      expect((await say(at)).status).toBe(200);
    expect((await say({ place: 'class', assignment: school.assignment })).status).toBe(200);
    const { json } = await school.as.teacher.send('POST', `/courses/${school.course}/copy`, {
      body: { title: 'Next' },
    });
    const { id } = json as { id: string };
    const copy = (await school.as.teacher.send('GET', `/courses/${id}`)).json as Course;
    expect(copy).toMatchObject({ title: 'Next', students: [], terms: ['Autumn', 'Spring'], teachers: ['The teacher'] });
    expect(copy.assignments).toMatchObject([{ title: 'Essay', dueAt: null, open: false, handedIn: 0 }]);
    const assignment = copy.assignments[0]!.id;
    expect((await school.as.teacher.send('GET', `/assignments/${assignment}`)).json).toMatchObject({
      ...set,
      rows: [],
    });
    const rubric = (await school.as.teacher.send('GET', `/assignments/${assignment}/rubric`)).json as {
      rubric: { id: string; levels: object[] }[];
      scale: object[];
    };
    expect([rubric.rubric.map(({ levels }) => levels.length), rubric.scale.length]).toEqual([[2, 2], 2]);
    expect(rubric.rubric[0]!.id).not.toBe(school.criteria[0]!.id);
    // A message to a class was for that class.
    const notes = (await school.as.teacher.send('GET', `/courses/${id}/notes`)).json as Note[];
    expect(notes.map(({ at }) => at)).toEqual([{ place: 'course' }, { place: 'instructions', assignment }]);
    const said = notes[1]!.recording!;
    const bytes = await school.as.teacher.fetch(`/recordings/${said.id}/sound/${said.sound.sha256}`);
    expect([bytes.status, (await bytes.arrayBuffer()).byteLength]).toEqual([200, sound.length]);

    const again = { title: 'Essay, again', from: school.assignment };
    const one = await school.as.teacher.send('POST', `/courses/${school.course}/assignments`, { body: again });
    expect(one.status).toBe(200);
    // Nobody copies what they do not teach.
    const [elsewhere] = await test.db.query("select id from courses where title = 'Elsewhere'");
    const taken = await school.as.colleague.send('POST', `/courses/${String(elsewhere!.id)}/assignments`, {
      body: again,
    });
    expect(taken.status).toBe(404);
  });

  it('take only so many versions, and only in the formats that were asked for', async () => {
    const send = async (fileName: string, file: Buffer) =>
      (await school.as.classmate.send('POST', `/assignments/${school.assignment}/submissions`, { fileName, file }))
        .json;
    expect(await send('a.txt', Buffer.from('Some words about the shore.'))).toMatchObject({
      ...{ type: 'urn:vivid-margin:format-refused', detail: expect.stringContaining('docx') },
    });
    for (let version = 0; version < 2; version++)
      expect(await send('a.docx', savedAgain(await essay()))).toHaveProperty('submission');
    expect(await send('a.docx', savedAgain(await essay()))).toMatchObject({ type: 'urn:vivid-margin:no-attempt-left' });
    expect((await school.as.classmate.send('GET', '/own-work')).json).toMatchObject([
      { assignment: { attemptsLeft: 0 } },
    ]);
  });

  it('keep the works of whoever leaves, who has no part in them any more, and can come back', async () => {
    const leave = (left: boolean, who: keyof TestSchool['ids'] = 'author') =>
      school.as.teacher.send('PUT', `/courses/${school.course}/people/${school.ids[who]}/left`, { body: { left } });
    expect((await leave(true)).json).toMatchObject({ left: true, works: 2 });
    expect(await read('teacher')).toMatchObject({ students: ['The classmate'] });
    const overview = (await school.as.teacher.send('GET', `/assignments/${school.assignment}`)).text;
    expect(overview).toContain('The author');
    expect((await school.as.author.send('GET', `/courses/${school.course}`)).status).toBe(404);
    expect((await school.as.author.send('GET', '/own-work')).json).toHaveLength(1);
    const refused = await school.as.author.send('POST', `/assignments/${school.assignment}/submissions`, {
      ...{ file: savedAgain(await essay()), fileName: 'late.docx' },
    });
    expect(refused.status).toBe(404);
    expect((await leave(true, 'teacher')).status).toBe(404);
    await leave(false);
    expect(await read('teacher')).toMatchObject({ students: ['The author', 'The classmate'] });
  });
});
