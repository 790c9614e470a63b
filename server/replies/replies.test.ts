import { randomUUID } from 'node:crypto';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import type { Remark } from '../../contract/remarks.ts';
import type { Feedback } from '../../contract/submissions.ts';
import type { Waiting } from '../../contract/waiting.ts';
import { bodies, type TestDatabase } from '../testing/databases.ts';
import { handIn, sayRemark, SOUND, startTestSchool, voice, type TestSchool } from '../testing/school.ts';

describe.each(bodies)('a question about a criterion on $name', ({ open }) => {
  let test: TestDatabase;
  let school: TestSchool;
  let submission: string;
  let criterion: string;
  beforeAll(async () => {
    test = await open();
    school = await startTestSchool(test.db);
    submission = await handIn(school);
    criterion = school.criteria[0]!.id;
    await sayRemark(school, submission);
  });
  afterAll(async () => {
    await school.stop();
    await test.remove();
  });

  type Person = keyof TestSchool['as'];
  const ask = (who: Person, remark: string, body: object = {}, file?: Buffer) =>
    school.as[who].send('PUT', `/submissions/${submission}/questions/${remark}`, {
      body: { criterion, reply: randomUUID(), text: 'Why is it not more?', recording: null, ...body },
      ...(file ? { file } : {}),
    });
  const feedback = async (who: Person): Promise<Feedback> =>
    (await school.as[who].send('GET', `/submissions/${submission}/feedback`)).json as Feedback;
  const waiting = async (): Promise<Waiting> =>
    (await school.as.teacher.send('POST', '/waiting', { body: { most: 50 } })).json as Waiting;

  it('is refused before the return, and to everybody but the student', async () => {
    expect((await ask('author', randomUUID())).status).toBe(404);
    await school.as.teacher.send('PUT', `/submissions/${submission}/returned`, { body: { returned: true } });
    expect((await ask('classmate', randomUUID())).status).toBe(404);
    expect((await ask('teacher', randomUUID())).status).toBe(403);
    expect((await feedback('teacher')).remarks).toHaveLength(1);
  });

  it('that says nothing, or is about another assignment’s criterion, leaves nothing behind', async () => {
    expect((await ask('author', randomUUID(), { text: '' })).status).toBe(422);
    expect((await ask('author', randomUUID(), { criterion: randomUUID() })).status).toBe(422);
    expect((await feedback('teacher')).remarks).toHaveLength(1);
  });

  it('opens one thread however often it is sent, waits for the teacher, and is answered there', async () => {
    const remark = randomUUID();
    const body = { reply: randomUUID() };
    const [first, second] = [await ask('author', remark, body), await ask('author', remark, body)];
    expect([first.status, second.status]).toEqual([200, 200]);
    expect(second.json).toMatchObject({ id: remark, criterion, text: '', kind: 'question', anchor: { type: 'whole' } });
    expect((second.json as Remark).replies).toHaveLength(1);
    const reply = (await waiting()).items.find(({ kind }) => kind === 'reply');
    expect(reply?.answer).toEqual({ remark, text: 'Why is it not more?', spoken: false });
    await school.as.teacher.send('PUT', `/remarks/${remark}/replies/${randomUUID()}`, {
      body: { text: 'One more source would do.', recording: null },
    });
    expect((await waiting()).items.filter(({ kind }) => kind === 'reply')).toEqual([]);
    const seen = (await feedback('author')).remarks.find(({ id }) => id === remark);
    expect(seen?.replies.map(({ text }) => text)).toEqual(['Why is it not more?', 'One more source would do.']);
  });

  it('can be spoken, and counts as nothing that a teacher said', async () => {
    const recording = { id: randomUUID(), sound: SOUND };
    const asked = await ask('author', randomUUID(), { text: '', recording }, await voice());
    expect((asked.json as Remark).replies[0]!.recording!.id).toBe(recording.id);
    await handIn(school);
    const back = (await waiting()).items.find(({ kind }) => kind === 'back');
    expect(back?.work?.dealt).toEqual({ done: 0, of: 1 });
  });
});
