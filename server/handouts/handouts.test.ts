import { randomUUID } from 'node:crypto';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import type { AssignmentOverview, OwnWork } from '../../contract/assignments.ts';
import type { Handout } from '../../contract/handouts.ts';
import { purge } from '../purge.ts';
import { bodies, type TestDatabase } from '../testing/databases.ts';
import { handIn, startTestSchool, type TestSchool } from '../testing/school.ts';

const START = Buffer.from('Tide table to be filled in\n');
const MODEL = Buffer.from('How somebody filled it in\n');

describe.each(bodies)('what is handed out on $name', ({ open }) => {
  let test: TestDatabase;
  let school: TestSchool;
  const [start, model] = [randomUUID(), randomUUID()];

  beforeAll(async () => {
    test = await open();
    school = await startTestSchool(test.db);
  });
  afterAll(async () => {
    await school.stop();
    await test.remove();
  });

  const hand = (
    id: string,
    file: Buffer,
    fileName: string,
    given = 'atOnce',
    who: keyof TestSchool['as'] = 'teacher',
  ) =>
    school.as[who].send('PUT', `/assignments/${school.assignment}/handouts/${id}`, { body: { given }, file, fileName });
  const change = (id: string, body: object) => school.as.teacher.send('PATCH', `/handouts/${id}`, { body });
  const given = async (who: 'author' | 'classmate'): Promise<string[]> =>
    ((await school.as[who].send('GET', '/own-work')).json as OwnWork[])[0]!.assignment.handouts.map(({ name }) => name);
  const fetched = async (id: string, who: keyof TestSchool['as']): Promise<Response> =>
    school.as[who].fetch(`/handouts/${id}/file`);

  it('is kept once, however often it is sent, and only by a teacher', async () => {
    for (let time = 0; time < 2; time++)
      expect((await hand(start, START, 'Tide table.txt')).json).toEqual({
        ...{ id: start, name: 'Tide table.txt', byteLength: START.length, given: 'atOnce' },
      });
    await hand(model, MODEL, 'Model “Ü”.txt', 'withReturn');
    expect((await hand(start, MODEL, 'Other.txt')).status).toBe(409);
    expect((await hand(randomUUID(), START, 'Mine.txt', 'atOnce', 'author')).status).toBe(403);
    expect((await hand(randomUUID(), START, 'x.txt', 'sometime')).status).toBe(400);
    const { handouts } = (await school.as.teacher.send('GET', `/assignments/${school.assignment}`))
      .json as AssignmentOverview;
    expect(handouts.map(({ name }) => name)).toEqual(['Tide table.txt', 'Model “Ü”.txt']);
  });

  it('is read by the class at once, or by each student when their work is returned', async () => {
    expect([await given('author'), await given('classmate')]).toEqual([['Tide table.txt'], ['Tide table.txt']]);
    const bytes = await fetched(start, 'classmate');
    expect(Buffer.from(await bytes.arrayBuffer())).toEqual(START);
    expect(bytes.headers.get('Content-Disposition')).toContain('Tide table.txt');
    expect((await fetched(model, 'author')).status).toBe(404);
    expect((await fetched(start, 'stranger')).status).toBe(404);

    const submission = await handIn(school);
    await school.as.teacher.send('PUT', `/submissions/${submission}/returned`, { body: { returned: true } });
    expect(await given('author')).toEqual(['Tide table.txt', 'Model “Ü”.txt']);
    expect((await fetched(model, 'author')).status).toBe(200);
    expect((await fetched(model, 'classmate')).status).toBe(404);
  });

  it('is given otherwise, put aside, brought back, and copied with its assignment', async () => {
    await change(model, { given: 'atOnce' });
    expect(await given('classmate')).toContain('Model “Ü”.txt');
    await change(start, { aside: true });
    expect([await given('classmate'), (await fetched(start, 'classmate')).status]).toEqual([['Model “Ü”.txt'], 404]);
    await change(start, { aside: false });
    expect((await fetched(start, 'classmate')).status).toBe(200);
    const { json } = await school.as.teacher.send('POST', `/courses/${school.course}/assignments`, {
      body: { title: 'Again', from: school.assignment },
    });
    const copy = (await school.as.teacher.send('GET', `/assignments/${(json as { id: string }).id}`))
      .json as AssignmentOverview;
    expect(copy.handouts.map(({ name, given }) => [name, given])).toEqual([
      ['Tide table.txt', 'atOnce'],
      ['Model “Ü”.txt', 'atOnce'],
    ]);
    // Nobody has been asked yet.
    expect((await fetched(copy.handouts[0]!.id, 'classmate')).status).toBe(404);
  });

  it('goes after 30 days aside, and is no more than twenty', async () => {
    await change(start, { aside: true });
    await test.db.query("update handouts set put_aside_at = now() - interval '31 days' where id = $1", [start]);
    await purge(test.db);
    expect((await change(start, { aside: false })).status).toBe(404);
    const answers: Handout[] = [];
    for (let index = 1; index < 20; index++)
      answers.push((await hand(randomUUID(), Buffer.from(`No. ${index}`), `${index}.txt`)).json as Handout);
    expect(answers.every(({ given }) => given === 'atOnce')).toBe(true);
    expect((await hand(randomUUID(), START, 'One more.txt')).status).toBe(413);
  });
});
