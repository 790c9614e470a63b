import { afterAll, beforeAll, describe, expect, it, vi } from 'vitest';
import type { Recording } from '../../contract/recordings.ts';
import type { SpeechSettings } from '../../contract/speech.ts';
import type { Feedback } from '../../contract/submissions.ts';
import { bodies, type TestDatabase } from '../testing/databases.ts';
import { handIn, sayRemark, startTestSchool, type TestSchool } from '../testing/school.ts';
import type { Heard, Transcriber } from '../speech/transcriber.ts';

const engine = (name: string, soundGoesTo: Transcriber['soundGoesTo']): Transcriber => ({
  name,
  languages: soundGoesTo === 'this server' ? ['en'] : undefined,
  wordTimes: false,
  soundGoesTo,
  transcribe: ({ language }): Promise<Heard> => Promise.resolve({ language, text: `heard by ${name}`, words: [] }),
});

describe.each(bodies)('speech settings on $name', ({ open }) => {
  let test: TestDatabase;
  let school: TestSchool;
  let submission: string;
  beforeAll(async () => {
    test = await open();
    school = await startTestSchool(test.db, [engine('Elsewhere', 'another server'), engine('Here', 'this server')]);
    submission = await handIn(school);
  });
  afterAll(async () => {
    await school.stop();
    await test.remove();
  });

  const settings = async (who: keyof TestSchool['as'] = 'teacher'): Promise<SpeechSettings> =>
    (await school.as[who].send('GET', '/speech')).json as SpeechSettings;
  const set = (path: string, body: object, who: keyof TestSchool['as'] = 'teacher') =>
    school.as[who].send('PUT', path, { body });
  const heard = async (): Promise<Recording> => {
    const id = await sayRemark(school, submission);
    const remark = async () =>
      ((await school.as.teacher.send('GET', `/submissions/${submission}/feedback`)).json as Feedback).remarks.find(
        (one) => one.id === id,
      )!.recording!;
    await vi.waitFor(async () => expect((await remark()).speech?.state).toMatch(/done|failed/), { timeout: 80_000 });
    return remark();
  };

  it('say what each engine can do, where sound goes, and how to get what is not here', async () => {
    const { engines, aligned, missing, agreements, language, courses } = await settings();
    expect(engines).toEqual([
      { name: 'Elsewhere', languages: null, wordTimes: false, soundGoesTo: 'another server' },
      { name: 'Here', languages: ['en'], wordTimes: false, soundGoesTo: 'this server' },
    ]);
    expect(aligned).toEqual(['en', 'fr']);
    expect(missing.map(({ how }) => how).join()).toMatch(/VIVID_SPEECH_SERVER.*VIVID_TRANSLATE_SERVER/);
    expect([agreements, language]).toEqual([[], null]);
    expect(courses).toEqual([{ id: school.course, title: 'Here', language: 'en' }]);
    expect((await settings('author')).courses).toEqual([]);
  });

  it('let a voice go to another server only while its owner agrees', async () => {
    expect((await heard()).transcript?.text).toMatch(/by\W+Here/);
    const agree = (agreed: boolean) => set('/speech/agreement', { place: 'speech server', agreed });
    await set('/speech/agreement', { place: 'speech server', agreed: true }, 'colleague');
    expect((await heard()).transcript?.text).toMatch(/by\W+Here/);
    expect(((await agree(true)).json as SpeechSettings).agreements).toEqual(['speech server']);
    expect((await agree(true)).status).toBe(200);
    expect((await heard()).transcript?.text).toMatch(/by\W+Elsewhere/);
    expect(((await agree(false)).json as SpeechSettings).agreements).toEqual([]);
    expect((await heard()).transcript?.text).toMatch(/by\W+Here/);
    expect((await set('/speech/agreement', { place: 'the moon', agreed: true })).status).toBe(400);
  });

  it('tell what is spoken: the teacher’s own language before that of the course', async () => {
    await set(`/courses/${school.course}/spoken-language`, { language: 'es' });
    const spanish = await heard();
    expect([spanish.speech?.state, spanish.speech?.reason]).toEqual([
      'failed',
      expect.stringContaining('knows Spanish'),
    ]);
    await set('/speech/language', { language: 'en-GB' });
    expect((await heard()).transcript?.language).toBe('en-GB');
    const after = (await set('/speech/language', { language: null })).json as SpeechSettings;
    expect([after.language, after.courses[0]!.language]).toEqual([null, 'es']);
    expect((await set('/speech/language', { language: 'not a tag!' })).status).toBe(400);
    await set(`/courses/${school.course}/spoken-language`, { language: 'en' });
  });

  it('of a course are for its teachers', async () => {
    const path = `/courses/${school.course}/spoken-language`;
    expect((await set(path, { language: 'fr' }, 'nobody')).status).toBe(401);
    expect((await set(path, { language: 'fr' }, 'colleague')).status).toBe(404);
    expect((await set(path, { language: 'fr' }, 'author')).status).toBe(403);
    expect((await settings()).courses[0]!.language).toBe('en');
  });
});
