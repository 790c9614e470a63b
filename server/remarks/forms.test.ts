import { passageAnchor } from '#core/anchor';
import { DEFAULT_KEY } from '#core/margin';
import { createHash, randomUUID } from 'node:crypto';
import { readFile } from 'node:fs/promises';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import type { Stroke } from '../../contract/ink.ts';
import type { Remark } from '../../contract/remarks.ts';
import { NO_WORDS, type SaidWords } from '../../contract/said.ts';
import type { ClassStates, Feedback } from '../../contract/submissions.ts';
import type { Track } from '../../contract/talk.ts';
import { purge } from '../purge.ts';
import { bodies, type TestDatabase } from '../testing/databases.ts';
import { handIn, sayRemark, SOUND, spoken, startTestSchool, voice, type TestSchool } from '../testing/school.ts';

const sha256 = (bytes: Buffer): string => createHash('sha256').update(bytes).digest('hex');
const picture = () => readFile(new URL('../../docs/screenshots/to-mark.png', import.meta.url));

describe.each(bodies)('forms of remarks on $name', ({ open }) => {
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

  const feedback = async (who: 'teacher' | 'author' = 'teacher', work = submission): Promise<Feedback> =>
    (await school.as[who].send('GET', `/submissions/${work}/feedback`)).json as Feedback;
  const one = async (id: string): Promise<Remark> => (await feedback()).remarks.find((remark) => remark.id === id)!;
  async function passage(words: string) {
    const { json } = await school.as.teacher.send('GET', `/submissions/${submission}`);
    const { text } = (json as { folio: { text: string } }).folio;
    const start = text.indexOf(words);
    return passageAnchor(text, start, start + words.length)!;
  }
  async function make(content: Partial<SaidWords>, more: { anchor?: object; file?: Buffer; kind?: string } = {}) {
    const id = randomUUID();
    const body = {
      anchor: more.anchor ?? { type: 'whole' },
      kind: more.kind ?? 'next',
      said: { ...NO_WORDS, ...content, file: more.file ? { name: 'reading list.pdf' } : null },
    };
    const files: Record<string, Buffer> = more.file ? { 'reading list.pdf': more.file } : {};
    return {
      id,
      answer: await school.as.teacher.send('PUT', `/submissions/${submission}/remarks/${id}`, { body, files }),
    };
  }

  it('written, linked, tagged, scored: what is sent comes back', async () => {
    const content = {
      name: 'Sources',
      text: 'Two lines,\nand a sign: é 👩‍🏫',
      link: 'https://example.org/tides?when=now#noon',
      tags: ['evidence', 'second look'],
      criterion: school.criteria[0]!.id,
    };
    const { id, answer } = await make(content, { anchor: await passage('The reason is obvious.') });
    expect(answer.status).toBe(200);
    expect(await one(id)).toMatchObject({ ...content, recording: null, file: null, private: false });
  });

  it('an attached file comes back byte for byte, to be saved and not to be shown', async () => {
    const bytes = Buffer.from('<script>alert(1)</script>');
    const { id } = await make({ text: 'Read this' }, { file: bytes });
    const { file } = await one(id);
    expect(file).toEqual({ sha256: sha256(bytes), name: 'reading list.pdf', byteLength: bytes.length });
    const response = await school.as.teacher.fetch(`/remarks/${id}/file/${file!.sha256}`);
    expect(Buffer.from(await response.arrayBuffer()).equals(bytes)).toBe(true);
    expect(response.headers.get('Content-Type')).toBe('application/octet-stream');
    expect(response.headers.get('Content-Disposition')).toBe('attachment; filename="reading list.pdf"');
    await purge(test.db);
    expect((await school.as.teacher.fetch(`/remarks/${id}/file/${file!.sha256}`)).status).toBe(200);
  });

  it.each([
    ['nothing at all', {}, 'Empty remark'],
    ['a link that would run', { link: 'javascript:alert(1)' }, 'Not understood'],
    ['two emoji', { reaction: '👍👍' }, 'Not understood'],
    ['letters as emoji', { reaction: 'ok' }, 'Not understood'],
    ['a suggestion for no words', { suggestion: 'new words' }, 'Nothing to change'],
    ['a criterion of elsewhere', { text: 'x', criterion: randomUUID() }, 'Unknown level'],
    ['a picture that is nobody’s stamp', { stamp: { picture: 'a'.repeat(64), size: 3 } }, 'Unknown stamp'],
  ] as [string, Partial<SaidWords>, string][])('refuses %s', async (_, content, title) => {
    const before = (await feedback()).remarks.length;
    const { answer } = await make(content);
    expect(answer).toMatchObject({ json: { title } });
    expect((await feedback()).remarks).toHaveLength(before);
  });

  it('takes every emoji of the standard set: with skin, joined, flags, keycaps', async () => {
    for (const reaction of ['👏', '👩🏽‍🔬', '🏴󠁧󠁢󠁳󠁣󠁴󠁿', '🇫🇯', '7️⃣', '❤️']) {
      const { id, answer } = await make({ reaction }, { anchor: await passage('The reason is obvious.') });
      expect(answer.status).toBe(200);
      expect((await one(id)).reaction).toBe(reaction);
    }
  });

  const LINE: Stroke = { tool: 'line', colour: 'repair', width: 12, points: 'ACAAoBoBAC', hold: { type: 'along' } };

  it('drawn: strokes come back as they were, and stay when something else is changed', async () => {
    const { id, answer } = await make({ ink: [LINE] }, { anchor: await passage('The reason is obvious.') });
    expect(answer.status).toBe(200);
    await school.as.teacher.send('PATCH', `/remarks/${id}`, { body: { text: 'See the line.' } });
    expect(await one(id)).toMatchObject({ ink: [LINE], text: 'See the line.' });
    const rubbed = await school.as.teacher.send('PATCH', `/remarks/${id}`, { body: { ink: null } });
    expect([rubbed.status, (await one(id)).ink]).toEqual([200, null]);
    const { id: other } = await make({ ink: [LINE] });
    const emptied = await school.as.teacher.send('PATCH', `/remarks/${other}`, { body: { ink: null } });
    expect(emptied.json).toMatchObject({ title: 'Empty remark' });
  });

  it.each([
    ['no strokes', []],
    ['a tool that is not known', [{ ...LINE, tool: 'brush' }]],
    ['points that are none', [{ ...LINE, points: '<svg onload=alert(1)>' }]],
    ['points that break off', [{ ...LINE, points: 'ACAAg' }]],
    ['50,000 points', [{ ...LINE, points: 'ACAA'.repeat(50_000) }]],
    ['a colour that would be more', [{ ...LINE, colour: 'red;background:url(x)' }]],
  ])('refuses ink of %s', async (_, ink) => {
    const before = (await feedback()).remarks.length;
    const { answer } = await make({ ink: ink as Stroke[] });
    expect([answer.status, (await feedback()).remarks.length]).toEqual([400, before]);
  });

  const TALK: Track = [
    { type: 'kind', at: 0, kind: 'strength' },
    { type: 'view', at: 0.5, leaf: 0, share: 0.1, offset: 20 },
    { type: 'select', at: 1, anchor: { type: 'whole' } },
    { type: 'stroke', at: 2, placed: { leaf: 0, held: { stroke: LINE, start: 4, end: 20 } } },
    { type: 'erase', at: 3, stroke: 0 },
  ];
  async function talkThrough(work: string, talk: unknown) {
    const id = randomUUID();
    const body = { anchor: { type: 'whole' }, kind: 'next', said: { ...spoken(id), talk } };
    const file = await voice();
    return { id, answer: await school.as.teacher.send('PUT', `/submissions/${work}/remarks/${id}`, { body, file }) };
  }

  it('talked through: what was done comes back with the sound, keeps to it when it is cut, and cannot be changed', async () => {
    const work = await handIn(school);
    const { id, answer } = await talkThrough(work, TALK);
    expect(answer.json).toMatchObject({ talk: TALK });
    const cut = await school.as.teacher.send('PUT', `/recordings/${id}/sound`, {
      body: { sound: { ...SOUND, duration: 6.5 }, edit: { kept: [{ start: 1.5, end: 8 }], levelled: true } },
      file: await readFile(new URL('../../demo/voices/bronagh-reply.ogg', import.meta.url)),
    });
    expect(cut.status).toBe(200);
    const timesOf = async (who: 'teacher' | 'author') =>
      (await feedback(who, work)).remarks[0]!.talk!.map(({ at }) => at);
    expect(await timesOf('teacher')).toEqual([0, 0, 0, 0.5, 1.5]);
    await school.as.teacher.send('PATCH', `/remarks/${id}`, { body: { name: 'First thoughts', talk: [] } });
    expect((await feedback('teacher', work)).remarks[0]).toMatchObject({ name: 'First thoughts' });
    await school.as.teacher.send('PUT', `/submissions/${work}/returned`, { body: { returned: true } });
    expect(await timesOf('author')).toEqual([0, 0, 0, 0.5, 1.5]);
  });

  it.each([
    [
      'in no order of time',
      [
        { type: 'halt', at: 2 },
        { type: 'halt', at: 1 },
      ],
    ],
    ['of what nobody can do', [{ type: 'dance', at: 1 }]],
    ['before it began', [{ type: 'halt', at: -1 }]],
    ['with ink that is none', [{ type: 'stroke', at: 1, placed: { leaf: 0, stroke: { ...LINE, points: 'A' } } }]],
    ['without end', Array.from({ length: 5001 }, (_, at) => ({ type: 'halt', at }))],
  ])('refuses a track %s', async (_, talk) => {
    const before = (await feedback()).remarks.length;
    const { answer } = await talkThrough(submission, talk);
    expect([answer.status, (await feedback()).remarks.length]).toEqual([400, before]);
  });

  it('refuses a track without a recording', async () => {
    expect((await make({ text: 'Look here', talk: TALK })).answer.status).toBe(400);
  });

  it('changes one thing and leaves the rest; emptying it is refused', async () => {
    const { id } = await make({ text: 'First', tags: ['a'] });
    await school.as.teacher.send('PATCH', `/remarks/${id}`, { body: { text: 'Second', kind: 'repair' } });
    expect(await one(id)).toMatchObject({ text: 'Second', tags: ['a'], kind: 'repair' });
    const emptied = await school.as.teacher.send('PATCH', `/remarks/${id}`, { body: { text: '' } });
    expect(emptied.json).toMatchObject({ title: 'Empty remark' });
    expect((await one(id)).text).toBe('Second');
  });

  it('a suggestion is taken over by its student alone, and only after the return', async () => {
    const work = await handIn(school);
    const { text } = ((await school.as.teacher.send('GET', `/submissions/${work}`)).json as { folio: { text: string } })
      .folio;
    const start = text.indexOf('obvious');
    const id = randomUUID();
    const body = {
      anchor: passageAnchor(text, start, start + 7),
      kind: 'repair',
      said: { ...NO_WORDS, suggestion: 'likely' },
    };
    expect(
      (await school.as.teacher.send('PUT', `/submissions/${work}/remarks/${id}`, { body, files: {} })).status,
    ).toBe(200);
    const take = (who: 'teacher' | 'author' | 'classmate', taken = true) =>
      school.as[who].send('PUT', `/remarks/${id}/taken`, { body: { taken } });
    expect((await take('author')).status).toBe(404);
    await school.as.teacher.send('PUT', `/submissions/${work}/returned`, { body: { returned: true } });
    expect((await take('classmate')).status).toBe(404);
    expect((await take('teacher')).status).toBe(403);
    expect((await take('author')).json).toMatchObject({ suggestion: 'likely', takenAt: expect.any(String) as string });
    expect((await feedback('teacher', work)).remarks[0]!.takenAt).not.toBeNull();
    expect((await take('author', false)).json).toMatchObject({ takenAt: null });
  });

  it('a private note never reaches the student, not even its sound, its file or its number', async () => {
    const work = await handIn(school);
    const id = randomUUID();
    const body = {
      anchor: { type: 'whole' },
      kind: 'repair',
      said: { ...spoken(id), text: 'Ask a colleague', private: true, file: { name: 'secret.txt' } },
    };
    const files = { sound: await voice(), 'secret.txt': Buffer.from('secret') };
    const made = await school.as.teacher.send('PUT', `/submissions/${work}/remarks/${id}`, { body, files });
    expect(made.status).toBe(200);
    await school.as.teacher.send('PUT', `/submissions/${work}/returned`, { body: { returned: true } });
    const seen = await school.as.author.send('GET', `/submissions/${work}/feedback`);
    expect(seen.status).toBe(200);
    for (const secret of [id, 'Ask a colleague', 'secret.txt']) expect(seen.text).not.toContain(secret);
    for (const path of [
      `/recordings/${id}/sound/${sha256(await voice())}`,
      `/remarks/${id}/file/${sha256(Buffer.from('secret'))}`,
      `/recordings/${id}/original`,
    ])
      expect((await school.as.author.send('GET', path)).status).toBe(404);
    expect(
      (await school.as.author.send('PUT', `/recordings/${id}/heard`, { body: { played: [{ start: 0, end: 100 }] } }))
        .status,
    ).toBe(404);
    const next = await handIn(school);
    expect((await school.as.author.send('GET', `/submissions/${next}/earlier`)).text).not.toContain(id);
    expect((await school.as.teacher.send('GET', `/submissions/${next}/earlier`)).text).toContain(id);
  });

  it('a rendition takes the place of the sound; the original stays, for teachers, and goes in the end', async () => {
    const work = await handIn(school);
    const id = await sayRemark(school, work);
    await test.db.query(
      "insert into transcripts (recording, language, text, words, source) values ($1, 'en', 'um the tide turns', $2, 'machine')",
      [
        id,
        JSON.stringify([
          { word: 'um', start: 0.2, end: 0.5 },
          { word: 'the', start: 1, end: 1.2 },
          { word: 'tide', start: 1.2, end: 1.6 },
          { word: 'turns', start: 1.6, end: 2 },
        ]),
      ],
    );
    const [before] = (await feedback('teacher', work)).remarks;
    const rendition = await readFile(new URL('../../demo/voices/bronagh-reply.ogg', import.meta.url));
    const edit = { kept: [{ start: 0.9, end: 2.5 }], levelled: true };
    const send = () =>
      school.as.teacher.send('PUT', `/recordings/${id}/sound`, {
        body: { sound: { ...SOUND, duration: 1.6 }, edit },
        file: rendition,
      });
    expect([(await send()).status, (await send()).status]).toEqual([200, 200]);
    const [after] = (await feedback('teacher', work)).remarks;
    expect(after!.recording).toMatchObject({ sound: { sha256: sha256(rendition), duration: 1.6 }, edit });
    expect(after!.recording!.transcript!.text).toBe('the tide turns');
    expect(after!.recording!.transcript!.words[0]!.start).toBeCloseTo(0.1);

    const original = await school.as.teacher.fetch(`/recordings/${id}/original`);
    expect(sha256(Buffer.from(await original.arrayBuffer()))).toBe(before!.recording!.sound.sha256);
    await school.as.teacher.send('PUT', `/submissions/${work}/returned`, { body: { returned: true } });
    expect((await school.as.author.send('GET', `/recordings/${id}/original`)).status).toBe(403);
    expect((await feedback('author', work)).remarks[0]!.recording!.edit).toBeNull();

    await test.db.query("update submissions set returned_at = now() - interval '31 days' where id = $1", [work]);
    await purge(test.db);
    const left = await school.as.teacher.fetch(`/recordings/${id}/original`);
    expect(sha256(Buffer.from(await left.arrayBuffer()))).toBe(sha256(rendition));
  });

  it('the original may come after the rendition, and the same remark may be sent again', async () => {
    const id = randomUUID();
    const rendition = await readFile(new URL('../../demo/voices/bronagh-reply.ogg', import.meta.url));
    const body = {
      anchor: { type: 'whole' },
      kind: 'next',
      said: spoken(id, { edit: { kept: [{ start: 0, end: 2 }], levelled: true } }),
    };
    const make = () =>
      school.as.teacher.send('PUT', `/submissions/${submission}/remarks/${id}`, { body, file: rendition });
    expect((await make()).status).toBe(200);
    const original = await school.as.teacher.send('PUT', `/recordings/${id}/original`, { file: await voice() });
    expect(original.status).toBe(200);
    expect((await make()).status).toBe(200);
    const kept = await school.as.teacher.fetch(`/recordings/${id}/original`);
    expect(sha256(Buffer.from(await kept.arrayBuffer()))).toBe(sha256(await voice()));
  });

  it('stamps: a teacher’s own pictures are theirs; once stamped they stay on the work', async () => {
    const stamp = randomUUID();
    const bytes = await picture();
    const added = await school.as.teacher.send('PUT', `/stamps/${stamp}`, { files: { 'gull.png': bytes } });
    expect(added.json).toEqual({ id: stamp, name: 'gull.png', sha256: sha256(bytes) });
    const refused = await school.as.teacher.send('PUT', `/stamps/${randomUUID()}`, { file: Buffer.from('<svg/>') });
    expect(refused.json).toMatchObject({ title: 'Not a picture' });
    expect((await school.as.colleague.send('GET', '/stamps')).json).toEqual([]);
    expect((await school.as.colleague.send('GET', `/stamps/${stamp}/picture/${sha256(bytes)}`)).status).toBe(404);

    const anchor = await passage('The reason is obvious.');
    const { id } = await make({ stamp: { picture: sha256(bytes), size: 4 } }, { anchor });
    await school.as.teacher.send('DELETE', `/stamps/${stamp}`);
    await purge(test.db);
    expect((await school.as.teacher.fetch(`/remarks/${id}/stamp/${sha256(bytes)}`)).status).toBe(200);
    const bigger = await school.as.teacher.send('PATCH', `/remarks/${id}`, {
      body: { stamp: { picture: sha256(bytes), size: 6 } },
    });
    expect(bigger.json).toMatchObject({ stamp: { size: 6 } });
  });

  it('the margin key of a course can be changed, but no kind can go that a remark has', async () => {
    const set = (key: object) =>
      school.as.teacher.send('PUT', `/courses/${school.course}/margin-key`, { body: { key } });
    await make({ text: 'Look' }, { kind: 'question' });
    const without = DEFAULT_KEY.filter(({ kind }) => kind !== 'question');
    expect((await set(without)).json).toMatchObject({ title: 'Kind in use' });
    const more = [...DEFAULT_KEY, { kind: 'wonder', name: 'Wonder', color: 'plum', glyph: '★', line: 'dashed' }];
    expect((await set(more)).status).toBe(200);
    expect((await make({ text: 'Oh!' }, { kind: 'wonder' })).answer.status).toBe(200);
    expect((await make({ text: 'Oh!' }, { kind: 'no-such-kind' })).answer.json).toMatchObject({
      title: 'Unknown kind',
    });
    expect((await set(more.map((entry) => ({ ...entry, glyph: '★' })))).status).toBe(400);
    const work = await school.as.author.send('GET', `/submissions/${submission}`);
    expect(work.json).toMatchObject({ marginKey: more });
  });

  it('the class strip has everybody, with how far they are', async () => {
    const { json } = await school.as.teacher.send('GET', `/submissions/${submission}/class`);
    const { students } = json as ClassStates;
    expect(students.map(({ name }) => name)).toEqual(['The author', 'The classmate']);
    expect(students[1]).toMatchObject({ name: 'The classmate', submission: null, state: null });
    expect(students[0]!.state).toBe('returned');
    const again = await handIn(school);
    const after = await school.as.teacher.send('GET', `/submissions/${again}/class`);
    expect((after.json as ClassStates).students[0]).toMatchObject({
      name: 'The author',
      submission: again,
      state: 'back',
    });
  });

  it('a budget of seconds belongs to the assignment, or none', async () => {
    for (const budget of [45, null]) {
      await school.as.teacher.send('PATCH', `/assignments/${school.assignment}`, { body: { budget } });
      expect((await school.as.teacher.send('GET', `/submissions/${submission}`)).json).toMatchObject({ budget });
    }
    expect(
      (await school.as.teacher.send('PATCH', `/assignments/${school.assignment}`, { body: { budget: 1 } })).status,
    ).toBe(400);
  });
});
