import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import type { Course } from '../../contract/courses.ts';
import { bodies, type TestDatabase } from '../testing/databases.ts';
import { handIn, startTestSchool, type TestSchool } from '../testing/school.ts';

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
    expect(await list('teacher')).toEqual([{ id: school.course, title: 'Here', teaches: true }]);
    expect(await list('author')).toEqual([{ id: school.course, title: 'Here', teaches: false }]);
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
});
