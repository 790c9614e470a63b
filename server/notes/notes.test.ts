import { randomUUID } from 'node:crypto';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import type { Note } from '../../contract/notes.ts';
import { NO_WORDS } from '../../contract/said.ts';
import { purge } from '../purge.ts';
import { bodies, type TestDatabase } from '../testing/databases.ts';
import { SOUND, startTestSchool, voice, type TestSchool } from '../testing/school.ts';
import { putTranscript } from '../transcripts/queries.ts';

const { stamp: _stamp, criterion: _criterion, private: _private, ...CONTENT } = NO_WORDS;

describe.each(bodies)('notes on $name', ({ open }) => {
  let test: TestDatabase;
  let school: TestSchool;
  let question: string;
  beforeAll(async () => {
    test = await open();
    school = await startTestSchool(test.db);
    question = randomUUID();
    await test.db.query(
      "insert into questions (id, assignment, position, kind, prompt, points) values ($1, $2, 0, 'short', 'Why?', 1)",
      [question, school.assignment],
    );
  });
  afterAll(async () => {
    await school.stop();
    await test.remove();
  });

  const make = async (at: object, more: object = {}, file?: Buffer, id = randomUUID()) => {
    const path = `/courses/${school.course}/notes/${id}`;
    const body = { ...CONTENT, at, ...more };
    const answer = await school.as.teacher.send('PUT', path, { body, ...(file && { file }) });
    return { id, status: answer.status, note: answer.json as Note };
  };
  const speak = (at: object) => {
    const recording = randomUUID();
    return voice().then((sound) => make(at, { recording: { id: recording, sound: SOUND } }, sound));
  };
  const read = async (who: 'teacher' | 'author' | 'classmate' = 'author'): Promise<Note[]> =>
    (await school.as[who].send('GET', `/courses/${school.course}/notes`)).json as Note[];

  it('stand on a course, in instructions, on a question, and are said to a class; all of it hears them', async () => {
    const { assignment } = school;
    const places = [
      { place: 'course' },
      { place: 'instructions', assignment },
      { place: 'question', assignment, question },
      { place: 'class', assignment },
    ];
    for (const at of places) expect((await speak(at)).status).toBe(200);
    const notes = await read();
    expect(notes.map(({ at }) => at)).toEqual(places);
    const { id, sound } = notes[0]!.recording!;
    const path = `/recordings/${id}/sound/${sound.sha256}`;
    const statuses = async () =>
      Promise.all(
        (['author', 'classmate', 'stranger', 'nobody'] as const).map((who) => school.as[who].send('GET', path)),
      );
    expect((await statuses()).map(({ status }) => status)).toEqual([200, 200, 404, 401]);
    expect((await school.as.stranger.send('GET', `/courses/${school.course}/notes`)).status).toBe(404);
  });

  it('the teacher sees who heard it; each student learns of themselves alone', async () => {
    const { note } = await speak({ place: 'class', assignment: school.assignment });
    const report = (who: 'author' | 'classmate' | 'teacher', all: boolean) =>
      school.as[who].send('PUT', `/recordings/${note.recording!.id}/heard`, {
        body: { played: all ? [{ start: 0, end: 100 }] : [{ start: 0, end: 1 }] },
      });
    expect((await report('author', true)).json).toMatchObject({ heard: { finishedAt: expect.any(String) as string } });
    expect((await report('classmate', false)).json).toMatchObject({ heard: { finishedAt: null } });
    expect((await report('teacher', true)).status).toBe(403);
    const seen = async (who: 'teacher' | 'author' | 'classmate') => (await read(who)).find(({ id }) => id === note.id)!;
    expect((await seen('teacher')).listeners).toEqual([
      { name: 'The author', finishedAt: expect.any(String) as string },
      { name: 'The classmate', finishedAt: null },
    ]);
    expect(await seen('classmate')).toMatchObject({ listeners: [], recording: { heard: { finishedAt: null } } });
    expect((await seen('author')).recording!.heard!.finishedAt).not.toBeNull();
  });

  it('can come out of the bank, as a copy', async () => {
    const banked = randomUUID();
    const recording = randomUUID();
    const about = { description: '', kind: 'next', criterion: '', gap: null };
    await school.as.teacher.send('PUT', `/bank/${banked}`, {
      body: { ...CONTENT, ...about, name: 'Read aloud', recording: { id: recording, sound: SOUND } },
      file: await voice(),
    });
    const known = { source: 'person' as const, engine: '', approximate: false, read: true };
    await putTranscript(test.db, recording, { language: 'en', text: 'Read it aloud.', words: [], ...known }, null);
    const { note } = await make({ place: 'course' }, { banked });
    expect(note).toMatchObject({ name: 'Read aloud', recording: { transcript: { text: 'Read it aloud.' } } });
    expect(note.recording!.id).not.toBe(recording);
    const foreign = await school.as.colleague.send('PUT', `/courses/${school.course}/notes/${randomUUID()}`, {
      body: { ...CONTENT, at: { place: 'course' }, banked },
    });
    expect(foreign.status).toBe(404);
  });

  it('is made once however often it is sent, put aside and brought back; what stays aside goes', async () => {
    const { id, note } = await make({ place: 'course' }, { text: 'Bring boots.' });
    expect((await make({ place: 'course' }, { text: 'Bring boots.' }, undefined, id)).status).toBe(200);
    expect((await make({ place: 'course' }, { text: 'Bring a hat.' }, undefined, id)).status).toBe(409);
    expect(note).toMatchObject({ text: 'Bring boots.', recording: null });
    const put = (aside: boolean) => school.as.teacher.send('PUT', `/notes/${id}/aside`, { body: { aside } });
    const there = async () => (await read()).some((one) => one.id === id);
    expect([(await put(true)).status, await there()]).toEqual([200, false]);
    expect([(await put(false)).status, await there()]).toEqual([200, true]);
    await put(true);
    await test.db.query("update notes set put_aside_at = now() - interval '31 days' where id = $1", [id]);
    await purge(test.db);
    expect((await put(false)).status).toBe(404);
    expect((await read()).every(({ recording, text }) => recording !== null || text !== '')).toBe(true);
  });

  it('refuses nothing at all, places of elsewhere, and students', async () => {
    expect((await make({ place: 'course' })).status).toBe(422);
    expect((await make({ place: 'class', assignment: randomUUID() }, { text: 'x' })).status).toBe(404);
    const astray = { place: 'question', assignment: school.assignment, question: randomUUID() };
    expect((await make(astray, { text: 'x' })).status).toBe(404);
    const path = `/courses/${school.course}/notes/${randomUUID()}`;
    const body = { ...CONTENT, at: { place: 'course' }, text: 'Mine' };
    expect((await school.as.author.send('PUT', path, { body })).status).toBe(403);
  });

  it('its words are mended and its sound is cut by teachers', async () => {
    const { note } = await speak({ place: 'course' });
    const mend = (who: 'teacher' | 'author') =>
      school.as[who].send('PUT', `/recordings/${note.recording!.id}/transcript`, {
        body: { language: 'en', text: 'Look.' },
      });
    expect([(await mend('author')).status, (await mend('teacher')).status]).toEqual([403, 200]);
    const edit = { kept: [{ start: 0, end: 7 }], levelled: false };
    const cut = await school.as.teacher.send('PUT', `/recordings/${note.recording!.id}/sound`, {
      body: { sound: { ...SOUND, duration: 7 }, edit },
      file: Buffer.concat([await voice()]),
    });
    expect(cut.json).toMatchObject({ sound: { duration: 7 }, edit });
    expect((await read()).find(({ id }) => id === note.id)!.recording).toMatchObject({
      edit: null,
      transcript: { text: 'Look.' },
    });
  });
});
