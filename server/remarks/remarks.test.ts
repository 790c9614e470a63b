import { randomUUID } from 'node:crypto';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import type { Feedback } from '../../contract/submissions.ts';
import type { Remark } from '../../contract/remarks.ts';
import { PRACTICE_SENTENCES } from '../../contract/practice.ts';
import { bodies, type TestDatabase } from '../testing/databases.ts';
import {
  handIn,
  remarkBody,
  sayRemark,
  SOUND,
  spoken,
  startTestSchool,
  voice,
  type TestSchool,
} from '../testing/school.ts';

describe.each(bodies)('remarks on $name', ({ open }) => {
  let test: TestDatabase;
  let school: TestSchool;
  let submission: string;
  beforeAll(async () => {
    test = await open();
    school = await startTestSchool(test.db);
    submission = await handIn(school);
  });
  afterAll(async () => {
    await school.stop();
    await test.remove();
  });

  const feedback = async (): Promise<Feedback> =>
    (await school.as.teacher.send('GET', `/submissions/${submission}/feedback`)).json as Feedback;
  const put = async (remark: string, body: object, file: Buffer) =>
    school.as.teacher.send('PUT', `/submissions/${submission}/remarks/${remark}`, { body, file });

  it('keeps a remark once, however often it is sent, and its sound byte for byte', async () => {
    const remark = randomUUID();
    const body = await remarkBody(school, submission, 'The reason is obvious.', remark);
    const [first, second] = [await put(remark, body, await voice()), await put(remark, body, await voice())];
    expect([first.status, second.status]).toEqual([200, 200]);
    const kept = (await feedback()).remarks.filter(({ id }) => id === remark);
    expect(kept).toHaveLength(1);
    expect(kept[0]).toMatchObject({
      kind: 'repair',
      recording: { id: remark, sound: { duration: SOUND.duration, peaks: SOUND.peaks }, transcript: null },
    });

    const path = `/recordings/${remark}/sound/${kept[0]!.recording!.sound.sha256}`;
    const sound = await fetchBytes(school, path);
    expect(sound.bytes.equals(await voice())).toBe(true);
    expect(sound.headers.get('Content-Type')).toBe('audio/ogg');
    expect(sound.headers.get('Cache-Control')).toBe('private, max-age=31536000, immutable');
  });

  it('answers ranges as RFC 9110 says', async () => {
    const remark = await sayRemark(school, submission);
    const { sha256 } = (await feedback()).remarks.find(({ id }) => id === remark)!.recording!.sound;
    const path = `/recordings/${remark}/sound/${sha256}`;
    const all = await voice();
    const middle = await fetchBytes(school, path, { Range: 'bytes=10-19' });
    expect([middle.status, middle.headers.get('Content-Range')]).toEqual([206, `bytes 10-19/${all.length}`]);
    expect(middle.bytes.equals(all.subarray(10, 20))).toBe(true);
    const last = await fetchBytes(school, path, { Range: 'bytes=-5' });
    expect(last.bytes.equals(all.subarray(-5))).toBe(true);
    expect((await fetchBytes(school, path, { Range: `bytes=${all.length}-` })).status).toBe(416);
    expect((await fetchBytes(school, path, { Range: 'bytes=0-1', 'If-Range': '"other"' })).status).toBe(200);
    expect(
      (await fetchBytes(school, path, { 'If-None-Match': `"${sha256}"`, 'Cache-Control': 'max-age=0' })).status,
    ).toBe(304);
    expect((await fetchBytes(school, `/recordings/${remark}/sound/${'0'.repeat(64)}`)).status).toBe(404);
  });

  it('refuses an identifier that stands for something else', async () => {
    const remark = await sayRemark(school, submission);
    const other = Buffer.concat([await voice(), Buffer.from('more')]);
    const body = await remarkBody(school, submission, 'The reason is obvious.', remark);
    expect((await put(remark, body, other)).status).toBe(409);
    expect((await put(remark, { ...body, kind: 'next' }, await voice())).status).toBe(409);
    expect((await put(remark, body, await voice())).status).toBe(200);
    await school.as.teacher.send('PATCH', `/remarks/${remark}`, { body: { kind: 'next', text: 'More.' } });
    expect(await put(remark, body, await voice())).toMatchObject({
      status: 200,
      json: { kind: 'next', text: 'More.' },
    });
  });

  it('refuses a recording without sound, one that is none, and a passage that is not there', async () => {
    const body = await remarkBody(school, submission, 'The reason is obvious.', randomUUID());
    const before = (await feedback()).remarks.length;
    expect(await put(randomUUID(), body, Buffer.alloc(0))).toMatchObject({
      status: 422,
      json: { title: 'Empty recording' },
    });
    expect(await put(randomUUID(), body, Buffer.from('not a sound'))).toMatchObject({
      status: 422,
      json: { title: 'Not a recording' },
    });
    expect(
      (
        await put(
          randomUUID(),
          { ...body, said: spoken(randomUUID(), { sound: { ...SOUND, duration: 0 } }) },
          await voice(),
        )
      ).status,
    ).toBe(400);
    const astray = { ...body, anchor: { ...body.anchor, start: (body.anchor as { start: number }).start + 1 } };
    expect(await put(randomUUID(), astray, await voice())).toMatchObject({
      status: 422,
      json: { title: 'Passage not found' },
    });
    expect((await feedback()).remarks).toHaveLength(before);
  });

  it('transcribes what the practice microphone said, as far as it came', async () => {
    const sentence = PRACTICE_SENTENCES[1]!;
    const enough = sentence.words[3]!.end + 0.3;
    const body = await remarkBody(school, submission, 'The reason is obvious.', randomUUID());
    const sound = { ...SOUND, duration: enough, microphone: { type: 'practice', sentence: 1, from: 0.3 } };
    const { json } = await put(randomUUID(), { ...body, said: spoken(randomUUID(), { sound }) }, await voice());
    const { transcript } = (json as Remark).recording!;
    expect(transcript).toMatchObject({
      source: 'machine',
      language: 'en',
      text: sentence.text.split(' ').slice(0, 4).join(' '),
    });
    expect(transcript!.words.at(-1)!.end).toBeCloseTo(enough);
  });

  it('puts aside and brings back, mends, and changes the kind', async () => {
    const remark = await sayRemark(school, submission, 'Two turnstones');
    await school.as.teacher.send('PUT', `/remarks/${remark}/aside`, { body: { aside: true } });
    expect((await feedback()).aside.map(({ id }) => id)).toContain(remark);
    expect((await feedback()).remarks.map(({ id }) => id)).not.toContain(remark);
    await school.as.teacher.send('PUT', `/remarks/${remark}/aside`, { body: { aside: false } });
    await school.as.teacher.send('PUT', `/recordings/${remark}/transcript`, {
      body: { language: 'en', text: 'Which two? 🐦' },
    });
    await school.as.teacher.send('PATCH', `/remarks/${remark}`, { body: { kind: 'question' } });
    expect((await feedback()).remarks.find(({ id }) => id === remark)).toMatchObject({
      kind: 'question',
      recording: { transcript: { text: 'Which two? 🐦', source: 'person' } },
    });
  });

  it('changes nothing that somebody else has changed meanwhile, and says what stands there', async () => {
    const remark = await sayRemark(school, submission, 'Two turnstones');
    const change = (body: object) => school.as.teacher.send('PATCH', `/remarks/${remark}`, { body });
    const text = async (): Promise<string> => (await feedback()).remarks.find(({ id }) => id === remark)!.text;
    expect((await change({ text: 'mine', was: { text: '' } })).status).toBe(200);
    expect(await change({ text: 'theirs', kind: 'question', was: { text: '', kind: 'next' } })).toMatchObject({
      status: 409,
      json: { type: 'urn:vivid-margin:changed-meanwhile', now: { text: 'mine' } },
    });
    expect(await text()).toBe('mine');
    // Another field, the same words, or whoever has seen what stands there.
    expect((await change({ tags: ['a'], was: { tags: [] } })).status).toBe(200);
    expect((await change({ text: 'mine', was: { text: '' } })).status).toBe(200);
    expect((await change({ text: 'theirs', was: { text: 'mine' } })).status).toBe(200);
    expect(await text()).toBe('theirs');
  });

  it('returns points and grade as they were, tells who has heard, and keeps answers', async () => {
    const remark = await sayRemark(school, submission, 'empty');
    const [first, second] = school.criteria;
    const score = (criterion: string, level: string | null) =>
      school.as.teacher.send('PUT', `/submissions/${submission}/scores/${criterion}`, {
        body: { score: level && { level } },
      });
    await score(first!.id, first!.levels[1]!);
    expect((await score(first!.id, second!.levels[1]!)).status).toBe(422);
    await score(second!.id, second!.levels[0]!);
    const returned = (
      await school.as.teacher.send('PUT', `/submissions/${submission}/returned`, { body: { returned: true } })
    ).json as Feedback;
    expect(returned.grade).toEqual({
      ...{ points: 250, possible: 500, percentage: 5000, grade: 'Pass' },
      explanation: '2.5 + 0 = 2.5 of 5, that is 50 %: Pass.',
    });

    const hear = async (...played: [number, number][]) =>
      (
        await school.as.author.send('PUT', `/recordings/${remark}/heard`, {
          body: { played: played.map(([start, end]) => ({ start, end })) },
        })
      ).json;
    expect(await hear()).toMatchObject({ heard: { finishedAt: null, played: [] } });
    // Heard twice is heard once, and what was jumped over is not heard.
    await hear([0, 2], [1, 3]);
    expect(await hear([6, 99], [0, 1])).toMatchObject({
      heard: {
        finishedAt: null,
        played: [
          { start: 0, end: 3 },
          { start: 6, end: 8 },
        ],
      },
    });
    const answer = { text: 'I see.', recording: null };
    const reply = randomUUID();
    await school.as.author.send('PUT', `/remarks/${remark}/replies/${reply}`, { body: answer });
    await school.as.author.send('PUT', `/remarks/${remark}/replies/${reply}`, { body: answer });
    const voiced = { body: { text: '', recording: { id: randomUUID(), sound: SOUND } }, file: await voice() };
    expect((await school.as.author.send('PUT', `/remarks/${remark}/replies/${randomUUID()}`, voiced)).status).toBe(200);
    expect(
      (
        await school.as.author.send('PUT', `/remarks/${remark}/replies/${randomUUID()}`, {
          body: { text: ' ', recording: null },
        })
      ).status,
    ).toBe(422);

    const seen = (await feedback()).remarks.find(({ id }) => id === remark)!;
    expect(seen.recording!.heard).toMatchObject({ finishedAt: null });
    expect(await hear([2.5, 6])).toMatchObject({ heard: { finishedAt: expect.any(String) as string } });
    expect(seen.replies.map(({ text, recording }) => [text, recording?.sound.duration])).toEqual([
      ['I see.', undefined],
      ['', SOUND.duration],
    ]);

    // Settled by either side, it waits for nobody; a new answer opens it again.
    const settle = async (who: 'author' | 'teacher' | 'classmate', settled: boolean) =>
      school.as[who].send('PUT', `/remarks/${remark}/settled`, { body: { settled } });
    expect((await settle('author', true)).json).toMatchObject({ settled: { by: { name: 'The author' } } });
    expect((await settle('teacher', true)).json).toMatchObject({ settled: { by: { name: 'The author' } } });
    expect((await school.as.teacher.send('POST', '/waiting', { body: {} })).json).toMatchObject({ items: [] });
    expect((await settle('teacher', false)).json).toMatchObject({ settled: null });
    await settle('author', true);
    const more = { body: { text: 'One thing more.', recording: null } };
    const opened = await school.as.author.send('PUT', `/remarks/${remark}/replies/${randomUUID()}`, more);
    expect(opened.json).toMatchObject({ settled: null });
    expect((await settle('classmate', true)).status).toBe(404);

    const waiting = await school.as.teacher.send('POST', '/waiting', { body: {} });
    expect(waiting.json).toMatchObject({
      items: [{ kind: 'reply', work: null, answer: { remark, text: 'One thing more.' } }],
    });

    await school.as.teacher.send('PUT', `/submissions/${submission}/returned`, { body: { returned: false } });
    expect((await school.as.author.send('GET', `/submissions/${submission}/feedback`)).status).toBe(404);
    expect((await feedback()).remarks.find(({ id }) => id === remark)!.replies).toHaveLength(3);
  });

  it('refuses another answer under the identifier of one', async () => {
    const remark = await sayRemark(school, submission);
    await school.as.teacher.send('PUT', `/submissions/${submission}/returned`, { body: { returned: true } });
    const reply = randomUUID();
    const answer = (text: string) =>
      school.as.author.send('PUT', `/remarks/${remark}/replies/${reply}`, { body: { text, recording: null } });
    expect([(await answer('Thank you.')).status, (await answer('Thank you.')).status]).toEqual([200, 200]);
    expect((await answer('No.')).status).toBe(409);
    await school.as.teacher.send('PUT', `/submissions/${submission}/returned`, { body: { returned: false } });
  });
});

async function fetchBytes({ as }: TestSchool, path: string, headers: Record<string, string> = {}) {
  const response = await as.teacher.fetch(path, headers);
  return { status: response.status, headers: response.headers, bytes: Buffer.from(await response.arrayBuffer()) };
}
