import { randomUUID } from 'node:crypto';
import { readFile } from 'node:fs/promises';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import type { BankedRemark } from '../../contract/bank.ts';
import type { Remark } from '../../contract/remarks.ts';
import { NO_WORDS } from '../../contract/said.ts';
import type { Feedback } from '../../contract/submissions.ts';
import { purge } from '../purge.ts';
import { putTranscript, putTranslation } from '../transcripts/queries.ts';
import { bodies, type TestDatabase } from '../testing/databases.ts';
import { handIn, sayRemark, SOUND, startTestSchool, voice, type TestSchool } from '../testing/school.ts';

const ABOUT = { description: '', kind: 'repair', criterion: '', gap: null };
const { stamp: _stamp, ink: _ink, criterion: _criterion, private: _private, ...CONTENT } = NO_WORDS;
const AROUND = { before: 'It rained. ', passage: 'Experts agree on this.', after: ' Then we left.' };

describe.each(bodies)('the remark bank on $name', ({ open }) => {
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

  const keep = async (more: object, file?: Buffer, id = randomUUID()) => {
    const body = { ...CONTENT, ...ABOUT, ...more };
    const answer = await school.as.teacher.send('PUT', `/bank/${id}`, { body, ...(file && { file }) });
    return { id, status: answer.status, banked: answer.json as BankedRemark };
  };
  const find = async (body: object, who: 'teacher' | 'colleague' = 'teacher') => {
    const answer = await school.as[who].send('POST', '/bank/find', { body: { query: '', ...body } });
    return answer.json as { remarks: BankedRemark[]; total: number };
  };
  const drop = async (banked: string, more: object = {}, file?: Buffer, remark = randomUUID()) => {
    const body = {
      ...{
        banked,
        anchor: { type: 'whole' },
        kind: 'repair',
        criterion: null,
        around: AROUND,
        recording: randomUUID(),
      },
      ...more,
    };
    const path = `/submissions/${submission}/banked/${remark}`;
    const answer = await school.as.teacher.send('PUT', path, { body, ...(file && { file }) });
    return { remark, body, status: answer.status, json: answer.json as Remark };
  };
  const words = (text: string) =>
    text.split(' ').map((word, index) => ({ word, start: index * 0.5, end: index * 0.5 + 0.4 }));
  const transcript = (text: string) => ({
    ...{
      language: 'en',
      text,
      words: words(text),
      source: 'person' as const,
      engine: '',
      approximate: false,
      read: true,
    },
  });

  it('keeps what was said on a work: its sound, its words and its languages, as a copy', async () => {
    const remark = await sayRemark(school, submission);
    await putTranscript(test.db, remark, transcript('Where does this number come from?'), null);
    await putTranslation(test.db, remark, { language: 'es', text: '¿De dónde?', source: 'person', engine: '' });
    const { id, banked, status } = await keep({ from: remark, name: 'Where from?', tags: ['source'] });
    expect(status).toBe(200);
    expect(banked).toMatchObject({
      ...{ id, name: 'Where from?', tags: ['source'], language: 'en', uses: 0, pinned: null },
      recording: { transcript: { text: 'Where does this number come from?' }, translations: [{ text: '¿De dónde?' }] },
    });
    expect(banked.recording!.id).not.toBe(remark);
    await school.as.teacher.send('PUT', `/recordings/${remark}/transcript`, {
      body: { language: 'en', text: 'Else.' },
    });
    const again = await school.as.teacher.send('GET', `/bank/${id}`);
    expect((again.json as BankedRemark).recording!.transcript!.text).toBe('Where does this number come from?');
    expect((await school.as.teacher.fetch(`/recordings/${id}/sound/${banked.recording!.sound.sha256}`)).status).toBe(
      200,
    );
    expect((await school.as.author.fetch(`/recordings/${id}/sound/${banked.recording!.sound.sha256}`)).status).toBe(
      404,
    );
    expect((await keep({ from: remark, name: 'Where from?', tags: ['source'] }, undefined, id)).status).toBe(200);
    expect((await keep({ from: remark, name: 'Another' }, undefined, id)).status).toBe(409);
  });

  it('keeps what is still being listened to, and listens to the copy as well', async () => {
    const remark = await sayRemark(school, submission);
    await test.db.query('delete from transcripts where recording = $1', [remark]);
    await test.db.query(
      `insert into speech_jobs (recording, task, language) values ($1, 'transcribe', 'en')
       on conflict (recording) do update set state = 'queued'`,
      [remark],
    );
    const { banked } = await keep({ from: remark });
    expect(banked.recording).toMatchObject({ transcript: null, speech: { task: 'transcribe' } });
  });

  it('records a new one right in the bank, and refuses an empty one and a student', async () => {
    const recording = randomUUID();
    const { status, banked } = await keep({ recording: { id: recording, sound: SOUND } }, await voice());
    expect(status).toBe(200);
    expect(banked.recording!.id).toBe(recording);
    expect((await keep({ name: 'Nothing in it' })).status).toBe(422);
    const body = { ...CONTENT, ...ABOUT, text: 'Mine' };
    expect((await school.as.author.send('PUT', `/bank/${randomUUID()}`, { body })).status).toBe(403);
  });

  it('a copy on a work is the work’s own: neither changes the other', async () => {
    const { id } = await keep(
      { text: 'Name your source, please.', tags: ['evidence'], recording: { id: randomUUID(), sound: SOUND } },
      await voice(),
    );
    const { remark, status, json, body } = await drop(id);
    expect(status).toBe(200);
    expect(json).toMatchObject({ text: 'Name your source, please.', tags: ['evidence'], kind: 'repair' });
    expect(json.recording!.id).toBe(body.recording);
    expect((await drop(id, body, undefined, remark)).status).toBe(200);
    expect((await drop(id, { ...body, kind: 'next' }, undefined, remark)).status).toBe(409);
    await school.as.teacher.send('PATCH', `/bank/${id}`, { body: { text: 'Changed in the bank.' } });
    const { remarks } = (await school.as.teacher.send('GET', `/submissions/${submission}/feedback`)).json as Feedback;
    expect(remarks.find((one) => one.id === remark)!.text).toBe('Name your source, please.');
    await school.as.teacher.send('PATCH', `/remarks/${remark}`, { body: { text: 'Better on the work.' } });
    expect((await find({ query: 'changed' })).remarks[0]!.text).toBe('Changed in the bank.');
    const uses = await school.as.teacher.send('GET', `/bank/${id}/uses`);
    expect(uses.json).toMatchObject([{ remark, student: 'The author', heardAt: null, edited: true }]);
    const better = await school.as.teacher.send('PUT', `/bank/${id}/better`, {
      body: { remark, recording: randomUUID() },
    });
    expect(better.json).toMatchObject({ text: 'Better on the work.', uses: 1 });
  });

  it('a greeting that was spliced in comes as its own sound, with its words, and does not go back into the bank', async () => {
    const { id } = await keep({ recording: { id: randomUUID(), sound: SOUND } }, await voice());
    const greeting = await readFile(new URL('../../demo/voices/bronagh-reply.ogg', import.meta.url));
    const greeted = { sound: { ...SOUND, duration: 3 }, transcript: transcript('Hello Ines, name it.') };
    const { remark, status, json } = await drop(id, { greeted }, greeting);
    expect(status).toBe(200);
    expect(json.recording).toMatchObject({ sound: { duration: 3 }, transcript: { text: 'Hello Ines, name it.' } });
    const back = await school.as.teacher.send('PUT', `/bank/${id}/better`, {
      body: { remark, recording: randomUUID() },
    });
    expect(back.json).toMatchObject({ title: 'Greets a student' });
  });

  it('refuses what is somebody else’s, a work that is returned, a passage that is not there', async () => {
    const { id } = await keep({ text: 'Mine alone.' });
    const work = await handIn(school);
    const body = {
      banked: id,
      anchor: { type: 'whole' },
      kind: 'next',
      criterion: null,
      around: AROUND,
      recording: randomUUID(),
    };
    const put = (who: 'colleague' | 'teacher', more: object = {}) =>
      school.as[who].send('PUT', `/submissions/${work}/banked/${randomUUID()}`, { body: { ...body, ...more } });
    expect((await put('colleague')).status).toBe(404);
    const foreign = randomUUID();
    await test.db.query(
      'insert into banked_remarks (id, owner, content, kind, language) select $1, $2, content, kind, language from banked_remarks where id = $3',
      [foreign, school.ids.colleague, id],
    );
    expect((await put('teacher', { banked: foreign })).status).toBe(404);
    expect((await find({}, 'colleague')).remarks.map((one) => one.id)).toEqual([foreign]);
    const astray = { type: 'passage', start: 0, end: 3, quote: { exact: 'zzz', prefix: '', suffix: '' } };
    expect((await put('teacher', { anchor: astray })).status).toBe(422);
    await school.as.teacher.send('PUT', `/submissions/${work}/returned`, { body: { returned: true } });
    expect((await put('teacher')).status).toBe(409);
  });

  it('finds by words in any form, by filters, and in order', async () => {
    const { id } = await keep({
      name: 'Comma splice',
      kind: 'question',
      criterion: 'Language',
      tags: ['commas'],
      text: 'Two sentences.',
    });
    expect((await find({ query: 'commas' })).remarks[0]!.id).toBe(id);
    expect((await find({ query: 'coma splise' })).remarks[0]!.id).toBe(id);
    expect((await find({ query: 'sentence', kind: 'strength' })).total).toBe(0);
    expect((await find({ kind: 'question' })).remarks.map((one) => one.id)).toEqual([id]);
    expect((await find({ criterion: 'Language', tag: 'commas', language: 'en' })).total).toBe(1);
    const { remarks, total } = await find({ order: 'name' });
    expect(remarks).toHaveLength(total);
    expect((await find({ order: 'used' })).remarks[0]!.uses).toBeGreaterThan(0);
    const filters = await school.as.teacher.send('GET', '/bank/filters');
    expect(filters.json).toMatchObject({ total, criteria: ['Language'], languages: ['en'] });
    await school.as.teacher.send('PATCH', `/bank/${id}`, { body: { name: 'Run-on' } });
    expect((await find({ query: 'run-on' })).remarks[0]!.id).toBe(id);
  });

  it('suggests what fits the passage, says why, and learns from what was used', async () => {
    const { id } = await keep({
      name: 'Where from?',
      text: 'Tell us who found it out.',
      tags: ['source'],
      criterion: 'Evidence',
    });
    const suggest = async (passage: string) => {
      const body = { ...AROUND, passage, kind: null, criterion: null };
      const { json } = await school.as.teacher.send('POST', `/submissions/${submission}/bank`, { body });
      return json as { criterion: string | null; suggestions: { remark: BankedRemark; reasons: { why: string }[] }[] };
    };
    const first = await suggest('Scientists say that nobody knows.');
    const found = first.suggestions.find(({ remark }) => remark.id === id)!;
    expect(found.reasons).toContainEqual({
      why: 'label',
      label: 'source',
      says: 'claims something and names no source near it',
    });
    for (const passage of ['The lamp is red.', 'The buoy is green.'])
      await drop(id, { around: { before: '', passage, after: '' } });
    const later = await suggest('The gate is blue.');
    expect(later.suggestions[0]).toMatchObject({ remark: { id, uses: 2 }, reasons: [{ why: 'like', uses: 2 }] });
    expect(later.criterion).toBe('Evidence');
    expect((await school.as.author.send('POST', `/submissions/${submission}/bank`, { body: {} })).status).toBe(404);
  });

  it('notices what is nearly in the bank, and what was nearly said before', async () => {
    const text = 'Strike every word that you do not miss and what is left is shorter.';
    const { id } = await keep({ text });
    const heard = 'strike every word that you do not kiss and what is left his shorter';
    for (const spoken of [heard, text]) {
      const remark = await sayRemark(school, submission);
      await putTranscript(test.db, remark, transcript(spoken), null);
    }
    const alike = await school.as.teacher.send('POST', '/bank/alike', { body: { text: heard, language: 'en' } });
    expect(alike.json).toMatchObject({ banked: [{ id }], said: 2 });
    const other = await school.as.teacher.send('POST', '/bank/alike', {
      body: { text: 'Draw the crab.', language: 'en' },
    });
    expect(other.json).toEqual({ banked: [], said: 0 });
  });

  it('merges two, keeps a key for one, puts aside and brings back; what stays aside goes in the end', async () => {
    const [a, b] = [await keep({ text: 'One.' }), await keep({ text: 'The other.' })];
    await drop(a.id);
    const pin = (id: string) => school.as.teacher.send('PATCH', `/bank/${id}`, { body: { pinned: 3 } });
    expect([(await pin(a.id)).json, (await pin(b.id)).json]).toMatchObject([{ pinned: 3 }, { pinned: 3 }]);
    expect((await school.as.teacher.send('GET', `/bank/${a.id}`)).json).toMatchObject({ pinned: null });
    const merged = await school.as.teacher.send('PUT', `/bank/${a.id}/merged`, { body: { into: b.id } });
    expect(merged.json).toMatchObject({ id: b.id, uses: 1 });
    expect((await find({ aside: true })).remarks.map(({ id }) => id)).toEqual([a.id]);
    const back = await school.as.teacher.send('PUT', `/bank/${a.id}/aside`, { body: { aside: false } });
    expect(back.json).toMatchObject({ asideAt: null, uses: 0 });
    await school.as.teacher.send('PUT', `/bank/${a.id}/aside`, { body: { aside: true } });
    await test.db.query("update banked_remarks set put_aside_at = now() - interval '31 days' where id = $1", [a.id]);
    await purge(test.db);
    expect((await school.as.teacher.send('GET', `/bank/${a.id}`)).status).toBe(404);
  });

  it('is shared with a colleague or with whoever teaches a course, in its owner’s voice or as words to be spoken', async () => {
    const { json } = await school.as.teacher.send('GET', '/bank/colleagues');
    expect(json).toEqual([{ id: school.ids.colleague, name: 'The colleague' }]);
    const recording = randomUUID();
    const { id, banked } = await keep({ name: 'Lent', recording: { id: recording, sound: SOUND } }, await voice());
    await putTranscript(test.db, recording, transcript('Say it with a lantern.'), null);
    const change = (body: object) => school.as.teacher.send('PATCH', `/bank/${id}`, { body });
    const seen = async () => (await find({ query: 'lantern' }, 'colleague')).remarks;
    const hear = async () =>
      (await school.as.colleague.fetch(`/recordings/${recording}/sound/${banked.recording!.sound.sha256}`)).status;
    expect([(await seen()).length, await hear()]).toEqual([0, 404]);

    await change({ shared: { courses: [], people: [school.ids.colleague] } });
    expect(await seen()).toMatchObject([
      { id, owner: { id: school.ids.teacher }, shared: { courses: [], people: [] }, recording: null },
    ]);
    // Its words only: neither its sound nor its captions.
    expect(await hear()).toBe(404);
    expect((await school.as.teacher.send('GET', `/recordings/${recording}/captions/en.vtt`)).status).toBe(200);
    for (const path of ['captions/en.vtt', 'transcript/states'])
      expect((await school.as.colleague.send('GET', `/recordings/${recording}/${path}`)).status).toBe(404);
    // Nobody but teachers has a bank.
    const withStudent = await change({ shared: { courses: [], people: [school.ids.author] } });
    expect(withStudent.json).toMatchObject({ status: 422, type: 'urn:vivid-margin:shared-with-teachers' });
    expect((await seen()).length).toBe(1);
    expect((await school.as.colleague.send('PATCH', `/bank/${id}`, { body: { name: 'Mine' } })).status).toBe(403);
    const mend = await school.as.colleague.send('PUT', `/recordings/${recording}/transcript`, {
      body: { language: 'en', text: 'No.' },
    });
    expect(mend.status).toBe(404);

    await test.db.query("insert into enrolments (course, person, role) values ($1, $2, 'teacher')", [
      school.course,
      school.ids.colleague,
    ]);
    const use = async () => {
      const body = { banked: id, anchor: { type: 'whole' }, kind: 'next', criterion: null, around: AROUND };
      const path = `/submissions/${submission}/banked/${randomUUID()}`;
      return (await school.as.colleague.send('PUT', path, { body: { ...body, recording: randomUUID() } }))
        .json as Remark;
    };
    expect(await use()).toMatchObject({
      recording: null,
      text: 'Say it with a lantern.',
      author: { id: school.ids.colleague },
    });
    await change({ lendsVoice: true, shared: { courses: [school.course], people: [] } });
    expect((await use()).recording!.transcript!.text).toBe('Say it with a lantern.');
    expect(await hear()).toBe(200);
    expect((await school.as.teacher.send('GET', `/bank/${id}`)).json).toMatchObject({
      ...{ uses: 2, shared: { courses: [school.course], people: [] } },
    });

    await change({ shared: { courses: [], people: [] } });
    expect([(await seen()).length, await hear()]).toEqual([0, 404]);
    const [elsewhere] = await test.db.query("select id from courses where title = 'Elsewhere'");
    expect((await change({ shared: { courses: [elsewhere!.id], people: [] } })).status).toBe(404);
    await test.db.query('delete from enrolments where course = $1 and person = $2', [
      school.course,
      school.ids.colleague,
    ]);
  });

  it('what is written has its author’s language, or the one that is chosen, and is found by it', async () => {
    const own = await keep({ text: 'Cite the year.' });
    const other = await keep({ text: 'Nombra la fuente.', language: 'es' });
    expect([own.banked.language, other.banked.language]).toEqual(['en', 'es']);
    expect((await find({ language: 'es' })).remarks.map(({ id }) => id)).toEqual([other.id]);
    const changed = await school.as.teacher.send('PATCH', `/bank/${own.id}`, { body: { language: 'sw' } });
    expect(changed.json).toMatchObject({ language: 'sw', text: 'Cite the year.' });
    expect((await school.as.teacher.send('PATCH', `/bank/${own.id}`, { body: { language: 'no such' } })).status).toBe(
      400,
    );
  });

  it('shows what nobody has said for a year', async () => {
    const [old, said] = [await keep({ text: 'Kept long ago.' }), await keep({ text: 'Kept long ago, still said.' })];
    await test.db.query("update banked_remarks set made_at = now() - interval '13 months' where id in ($1, $2)", [
      old.id,
      said.id,
    ]);
    await drop(said.id);
    expect((await find({ unused: true })).remarks.map(({ id }) => id)).toEqual([old.id]);
    expect((await find({ unused: true, query: 'long' })).remarks.map(({ id }) => id)).toEqual([old.id]);
    expect((await school.as.teacher.send('GET', '/bank/filters')).json).toMatchObject({ unused: 1 });
    await school.as.teacher.send('PUT', `/bank/${old.id}/aside`, { body: { aside: true } });
    expect((await school.as.teacher.send('GET', '/bank/filters')).json).toMatchObject({ unused: 0 });
  });

  it('greetings: one for each student, spoken by each teacher for themselves', async () => {
    const path = `/courses/${school.course}/greetings`;
    const recording = randomUUID();
    const keepOne = (student: string) =>
      school.as.teacher.send('PUT', `${path}/${student}`, {
        body: { recording: { id: recording, sound: SOUND } },
        file: Buffer.alloc(0),
      });
    expect((await keepOne(school.ids.author)).status).toBe(422);
    const kept = await school.as.teacher.send('PUT', `${path}/${school.ids.author}`, {
      body: { recording: { id: recording, sound: SOUND } },
      file: await voice(),
    });
    expect(kept.json).toMatchObject({ student: school.ids.author, recording: { id: recording } });
    await purge(test.db);
    expect((await school.as.teacher.send('GET', path)).json).toMatchObject([
      { name: 'The author', recording: { id: recording } },
      { name: 'The classmate', recording: null },
    ]);
    const stranger = await school.as.teacher.send('PUT', `${path}/${school.ids.stranger}`, {
      body: { recording: { id: randomUUID(), sound: SOUND } },
      file: await voice(),
    });
    expect(stranger.status).toBe(404);
    expect((await school.as.author.send('GET', path)).status).toBe(403);
    await school.as.teacher.send('DELETE', `${path}/${school.ids.author}`);
    expect((await school.as.teacher.send('GET', path)).json).toMatchObject([{ recording: null }, { recording: null }]);
  });
});
