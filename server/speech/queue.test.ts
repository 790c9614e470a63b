import { randomUUID } from 'node:crypto';
import { afterAll, beforeAll, beforeEach, describe, expect, it, vi } from 'vitest';
import type { Recording } from '../../contract/recordings.ts';
import type { SpeechJob, Transcript } from '../../contract/transcripts.ts';
import type { Feedback } from '../../contract/submissions.ts';
import { bodies, type TestDatabase } from '../testing/databases.ts';
import { handIn, SOUND, spoken, startTestSchool, voice, type TestSchool } from '../testing/school.ts';
import { queueJob } from './jobs.ts';
import { speechQueue, type SpeechQueue } from './queue.ts';
import { SpeechError } from './speech-error.ts';
import { speechThread } from './speech-thread.ts';
import type { Clip, Heard, Transcriber } from './transcriber.ts';

/** What really is said in the recording: aligning anything else takes long. */
const SAID =
  'When you write that a reason is obvious, the reader stops looking. Take these four words out, and your explanation becomes stronger.';
const WORDS = 'when amaru writes that a reason is obvious'.split(' ');
const heard: Heard = {
  language: 'en',
  text: WORDS.join(' '),
  words: WORDS.map((word, index) => ({ word, start: index * 0.9, end: index * 0.9 + 0.6, confidence: 0.9 })),
};

describe.each(bodies)('listening to remarks on $name', ({ open }) => {
  let test: TestDatabase;
  let school: TestSchool;
  let submission: string;
  const transcribe = vi.fn<(clip: Clip) => Promise<Heard | undefined>>();
  const engine: Transcriber = {
    name: 'Test engine',
    languages: ['en'],
    wordTimes: true,
    soundGoesTo: 'this server',
    transcribe,
  };

  beforeAll(async () => {
    test = await open();
    school = await startTestSchool(test.db, [engine]);
    submission = await handIn(school);
  });
  beforeEach(() => {
    transcribe.mockReset().mockResolvedValue(heard);
  });
  afterAll(async () => {
    await school.stop();
    await test.remove();
  });

  const say = async (more: object = {}): Promise<string> => {
    const remark = randomUUID();
    const { status } = await school.as.teacher.send('PUT', `/submissions/${submission}/remarks/${remark}`, {
      body: { anchor: { type: 'whole' }, kind: 'next', said: spoken(remark, more) },
      file: await voice(),
    });
    expect(status).toBe(200);
    return remark;
  };
  const recordingOf = async (id: string): Promise<Recording> => {
    const { json } = await school.as.teacher.send('GET', `/submissions/${submission}/feedback`);
    return (json as Feedback).remarks.find((remark) => remark.id === id)!.recording!;
  };
  const settled = async (id: string): Promise<Recording> => {
    await vi.waitFor(async () => expect((await recordingOf(id)).speech?.state).toMatch(/done|failed/), {
      timeout: 60_000,
      interval: 50,
    });
    return recordingOf(id);
  };
  const mend = (id: string, text: string, more: object = {}) =>
    school.as.teacher.send('PUT', `/recordings/${id}/transcript`, { body: { language: 'en', text, ...more } });

  it('makes a draft with times, in sentences, with the names of the class as they are written', async () => {
    await test.db.query("update people set name = 'Amaru Quispe' where id = $1", [school.ids.author]);
    const { transcript, speech } = await settled(await say());
    expect(speech).toEqual({ task: 'transcribe', state: 'done', reason: null, progress: null });
    expect(transcript).toMatchObject({
      text: 'When Amaru writes that a reason is obvious.',
      source: 'machine',
      engine: 'Test engine',
      read: false,
      approximate: false,
    });
    expect(transcript!.words[1]).toEqual({ word: 'Amaru', start: 0.9, end: 1.5, confidence: 0.9 });
    const [{ wav, language }] = transcribe.mock.calls[0]!;
    expect(Buffer.from(wav.subarray(0, 4)).toString()).toBe('RIFF');
    expect(language).toBe('en');
  });

  it('tells what becomes of it, without asking for all of the feedback', async () => {
    const id = await say();
    await settled(id);
    const { json } = await school.as.teacher.send('GET', `/submissions/${submission}/speech`);
    const job = (json as { recording: string; speech: SpeechJob; transcript: Transcript }[]).find(
      ({ recording }) => recording === id,
    )!;
    expect([job.speech.state, job.transcript.engine]).toEqual(['done', 'Test engine']);
    expect((await school.as.author.send('GET', `/submissions/${submission}/speech`)).status).toBe(404);
  });

  it('lets nobody wait behind a long recording, and says how far it is in that one', async () => {
    const long = await say();
    await settled(long);
    await test.db.query('update recordings set duration = 1800 where id = $1', [long]);
    let answer: (heard: Heard) => void = () => undefined;
    transcribe.mockImplementationOnce(({ onProgress }) => {
      onProgress!(0.4);
      return new Promise((resolve) => (answer = resolve));
    });
    await school.as.teacher.send('PUT', `/recordings/${long}/speech`, { body: { language: 'en' } });
    await vi.waitFor(async () => expect((await recordingOf(long)).speech?.progress).toBeCloseTo(0.4), {
      timeout: 80_000,
    });
    expect((await settled(await say())).speech?.state).toBe('done');
    expect((await recordingOf(long)).speech).toMatchObject({ state: 'running', progress: 0.4 });
    answer(heard);
    expect((await settled(long)).speech?.state).toBe('done');
  });

  it('keeps what is said in an hour, and what no transcript can be is refused', async () => {
    const words = Array.from({ length: 9000 }, (_, index) => ({
      word: 'word',
      start: index * 0.4,
      end: index * 0.4 + 0.3,
    }));
    transcribe.mockResolvedValueOnce({ language: 'en', text: 'word '.repeat(9000), words });
    const id = await say();
    await test.db.query('update recordings set duration = 3600 where id = $1', [id]);
    const { transcript } = await settled(id);
    expect(transcript!.words).toHaveLength(9000);
    expect((await mend(id, `${transcript!.text} And more.`)).status).toBe(200);

    vi.spyOn(process.stderr, 'write').mockReturnValue(true);
    transcribe.mockResolvedValue({
      ...heard,
      words: [{ word: 'x'.repeat(300_000), start: 0, end: 2, confidence: 0.9 }],
    });
    const mad = await settled(await say());
    expect([mad.transcript, mad.speech?.state]).toEqual([null, 'failed']);
    vi.restoreAllMocks();
  });

  it('never takes the place of what a person wrote meanwhile', async () => {
    let answer: (heard: Heard) => void = () => undefined;
    transcribe.mockReturnValue(new Promise((resolve) => (answer = resolve)));
    const id = await say();
    await vi.waitFor(() => expect(transcribe).toHaveBeenCalled(), { timeout: 80_000 });
    await mend(id, SAID);
    answer(heard);
    const { transcript } = await settled(id);
    expect(transcript).toMatchObject({ text: SAID, source: 'person', read: true });
  });

  it.each([
    ['nothing was heard', () => Promise.resolve(undefined), 'No speech was made out in this recording.'],
    ['the engine says why', () => Promise.reject(new SpeechError('Because.', true)), 'Because.'],
    ['the engine is broken in every try', () => Promise.reject(new Error('bug')), 'The transcript could not be made.'],
  ])('says in words where %s, and the remark is there', async (_, answer, reason) => {
    vi.spyOn(process.stderr, 'write').mockReturnValue(true);
    transcribe.mockImplementation(answer);
    const { speech, transcript, sound } = await settled(await say());
    expect(speech).toEqual({ task: 'transcribe', state: 'failed', reason, progress: null });
    expect([transcript, sound.duration]).toEqual([null, SOUND.duration]);
    vi.restoreAllMocks();
  });

  it('tries again what may pass, and again when it is asked to', async () => {
    transcribe.mockRejectedValueOnce(new SpeechError('Busy.')).mockResolvedValue(heard);
    const id = await say();
    expect((await settled(id)).transcript?.engine).toBe('Test engine');
    expect(transcribe).toHaveBeenCalledTimes(2);
    expect((await school.as.teacher.send('PUT', `/recordings/${id}/speech`, { body: { language: 'fr' } })).status).toBe(
      200,
    );
    expect((await settled(id)).speech?.reason).toContain('French');
  });

  it('listens again in another language, and says so where no engine knows it', async () => {
    const id = await say();
    await settled(id);
    const listen = (language: string) =>
      school.as.teacher.send('PUT', `/recordings/${id}/speech`, { body: { language } });
    expect((await listen('de')).status).toBe(200);
    const german = await settled(id);
    expect(german.speech).toMatchObject({ state: 'failed', reason: expect.stringContaining('German') as string });
    expect(german.transcript).toMatchObject({ language: 'de', read: false, source: 'machine' });
    await listen('en');
    expect((await settled(id)).transcript).toMatchObject({ language: 'en', engine: 'Test engine' });
    await mend(id, SAID);
    await listen('de');
    expect((await settled(id)).transcript).toMatchObject({ language: 'en', text: SAID });
  });

  it('hears no words in a recording that is damaged', async () => {
    const id = await say();
    await settled(id);
    const remark = randomUUID();
    await school.as.teacher.send('PUT', `/submissions/${submission}/remarks/${remark}`, {
      body: { anchor: { type: 'whole' }, kind: 'next', said: spoken(remark) },
      file: Buffer.concat([(await voice()).subarray(0, 200), Buffer.alloc(500, 7)]),
    });
    expect((await settled(remark)).speech).toMatchObject({ state: 'failed' });
  });

  it('takes what the browser heard as a draft, and aligns it', async () => {
    const id = await say({
      draft: { language: 'en', text: 'when amaru writes that a reason is obvious', engine: 'This browser' },
    });
    const { transcript, speech } = await settled(id);
    expect(speech?.task).toBe('align');
    expect(transcribe).not.toHaveBeenCalled();
    expect(transcript).toMatchObject({ source: 'machine', engine: 'This browser', read: false, approximate: false });
    expect(transcript!.text).toBe('When Amaru writes that a reason is obvious.');
    expect(transcript!.words).toHaveLength(8);
  });

  it('knows at once what the practice microphone said', async () => {
    const id = await say({ sound: { ...SOUND, microphone: { type: 'practice', sentence: 0, from: 0 } } });
    expect((await recordingOf(id)).transcript?.engine).toBe('Practice microphone');
  });

  describe('mending', () => {
    it('aligns the words again, keeps every earlier state, and says who changed it', async () => {
      const id = await say();
      await settled(id);
      await mend(id, 'When you write that a reason is obvious, the reader stops.');
      const mended = await settled(id);
      expect(mended.transcript).toMatchObject({ source: 'person', read: true, approximate: false });
      expect(mended.transcript!.words).toHaveLength(11);
      await mend(id, 'Shorter.');
      const { json } = await school.as.teacher.send('GET', `/recordings/${id}/transcript/states`);
      const states = json as { text: string; source: string; changedBy: string }[];
      expect(states.map(({ text, source }) => [text, source])).toEqual([
        ['When you write that a reason is obvious, the reader stops.', 'person'],
        ['When Amaru writes that a reason is obvious.', 'machine'],
      ]);
      expect(states[0]!.changedBy).toBe('The teacher');
      expect((await school.as.author.send('GET', `/recordings/${id}/transcript/states`)).status).toBe(404);
    });

    it('marks a draft as read without changing it', async () => {
      const id = await say();
      const before = (await settled(id)).transcript!;
      const read = (await mend(id, before.text, { read: true })).json as Recording;
      expect(read.transcript).toEqual({ ...before, read: true });
    });
  });

  describe('captions', () => {
    it('go out in the language that is asked for, to whoever may hear the remark', async () => {
      const id = await say();
      await settled(id);
      await school.as.teacher.send('PUT', `/recordings/${id}/translations`, {
        body: { language: 'ar', text: 'لماذا؟' },
      });
      const vtt = await school.as.teacher.send('GET', `/recordings/${id}/captions/en.vtt`);
      expect(vtt.headers.get('Content-Type')).toContain('text/vtt');
      expect(vtt.text).toMatch(/^WEBVTT\n\nNOTE Language: en\n\n00:00:00\.000 --> /);
      expect((await school.as.teacher.send('GET', `/recordings/${id}/captions/ar.srt`)).text).toContain('لماذا؟');
      const { words } = (await school.as.teacher.send('GET', `/recordings/${id}/captions/en.json`)).json as Transcript;
      expect(words).toHaveLength(8);
      for (const file of ['fr.vtt', 'en.exe'])
        expect((await school.as.teacher.send('GET', `/recordings/${id}/captions/${file}`)).status).toBe(404);
      expect((await school.as.author.send('GET', `/recordings/${id}/captions/en.vtt`)).status).toBe(404);
    });

    it('come in, are aligned, and are refused where there are none', async () => {
      const id = await say();
      await settled(id);
      const content =
        'WEBVTT\n\n00:00.000 --> 00:02.000\nWhen you write\n\n00:02.000 --> 00:04.000\nthat a reason is obvious';
      const put = (content: string) =>
        school.as.teacher.send('PUT', `/recordings/${id}/captions`, { body: { language: 'en', content } });
      expect((await put(content)).status).toBe(200);
      expect((await settled(id)).transcript).toMatchObject({
        text: 'When you write that a reason is obvious',
        source: 'person',
        approximate: false,
      });
      expect((await put('WEBVTT\n\nnothing')).status).toBe(422);
      expect(((await put('Plain words.')).json as Recording).transcript?.text).toBe('Plain words.');
    });
  });

  describe('other languages', () => {
    it('are written, translated by what is at hand, and taken away', async () => {
      const id = await say();
      await settled(id);
      const put = (language: string, text: string | null) =>
        school.as.teacher.send('PUT', `/recordings/${id}/translations`, { body: { language, text } });
      await put('es', 'Escrito a mano.');
      expect((await put('pl', null)).status, 'the phrase list does not know these words').toBe(422);
      await mend(id, 'Well done. Look again.');
      const { translations } = (await put('fr', null)).json as Recording;
      expect(translations).toEqual([
        { language: 'es', text: 'Escrito a mano.', source: 'person', engine: '' },
        { language: 'fr', text: 'Bien joué. Regarde encore.', source: 'machine', engine: 'Phrase list' },
      ]);
      expect(((await put('es', '')).json as Recording).translations).toHaveLength(1);
    });
  });

  describe('after a restart', () => {
    let queue: SpeechQueue | undefined;
    const restart = async (engines: Transcriber[]): Promise<void> => {
      queue = speechQueue({ db: test.db, thread: speechThread(), engines, staleAfter: 0 });
      await vi.waitFor(
        async () => {
          const rows = await test.db.query("select 1 as one from speech_jobs where state in ('queued', 'running')");
          expect(rows).toEqual([]);
        },
        { timeout: 80_000 },
      );
    };

    it('goes on with what was running, and gives up what ended the server too often', async () => {
      const [lost, deadly] = [await say(), await say()];
      await Promise.all([settled(lost), settled(deadly)]);
      await queueJob(test.db, lost, 'transcribe', 'en');
      await test.db.query("update speech_jobs set state = 'running', attempts = 1 where recording = $1", [lost]);
      await test.db.query("update speech_jobs set state = 'running', attempts = 3 where recording = $1", [deadly]);
      transcribe.mockClear();
      await restart([engine]);
      expect(transcribe).toHaveBeenCalledTimes(1);
      expect((await recordingOf(lost)).speech?.state).toBe('done');
      expect((await recordingOf(deadly)).speech).toMatchObject({
        state: 'failed',
        reason: 'The engine stopped unexpectedly.',
      });
      await queue!.stop();
    });

    it('ends its engine when the server stops, and puts the recording back', async () => {
      const id = await say();
      await settled(id);
      let aborted = false;
      transcribe.mockImplementation(
        ({ signal }) =>
          new Promise((_, reject) =>
            signal!.addEventListener('abort', () => {
              aborted = true;
              reject(new Error('killed'));
            }),
          ),
      );
      transcribe.mockClear();
      await queueJob(test.db, id, 'transcribe', 'en');
      const stopping = speechQueue({ db: test.db, thread: speechThread(), engines: [engine], staleAfter: 0 });
      await vi.waitFor(() => expect(transcribe).toHaveBeenCalled(), { timeout: 80_000 });
      await stopping.stop();
      expect(aborted).toBe(true);
      expect((await recordingOf(id)).speech?.state).toBe('queued');
    });
  });
});
