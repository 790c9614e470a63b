import { strToU8, zipSync } from 'fflate';
import { randomUUID } from 'node:crypto';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import type { OwnWork } from '../../contract/assignments.ts';
import { NO_WORDS } from '../../contract/said.ts';
import { bodies, type TestDatabase } from '../testing/databases.ts';
import { essay, handIn, savedAgain, startTestSchool, type TestSchool } from '../testing/school.ts';

let test: TestDatabase;
let school: TestSchool;
beforeAll(async () => {
  test = await bodies[0]!.open();
  school = await startTestSchool(test.db);
});
afterAll(async () => {
  await school.stop();
  await test.remove();
});

const send = (file: Buffer, fileName = 'essay.docx') =>
  school.as.author.send('POST', `/assignments/${school.assignment}/submissions`, { file, fileName });
const versions = async (): Promise<OwnWork['versions']> =>
  ((await school.as.author.send('GET', '/own-work')).json as OwnWork[])[0]!.versions;

describe('handing in', () => {
  it.each([
    ['nothing', Buffer.alloc(0), 422, 'This file is empty'],
    ['a text that calls itself a document', Buffer.from('Dear teacher'), 422, 'inside it is plain text'],
    ['a zip of something else', Buffer.from(zipSync({ 'a.txt': strToU8('a') })), 422, 'cannot be read here'],
    ['an old document', Buffer.from('d0cf11e0a1b11ae100', 'hex'), 422, 'old Office version'],
    ['a document without its text', Buffer.from(zipSync({ 'word/document.xml': strToU8('<w') })), 422, 'is damaged'],
    ['more than the limit', Buffer.alloc(1024 * 1024 + 1), 413, 'larger than 1 MB'],
  ])('refuses %s with a sentence and changes nothing', async (_, file, status, sentence) => {
    const answer = await send(file);
    expect(answer.status).toBe(status);
    expect(answer.headers.get('Content-Type')).toContain('application/problem+json');
    expect((answer.json as { detail: string }).detail).toContain(sentence);
    expect(await versions()).toEqual([]);
  });

  it('refuses a document cut short', async () => {
    const whole = await essay();
    expect(await send(whole.subarray(0, whole.length / 2))).toMatchObject({
      status: 422,
      json: { title: 'Document cannot be read' },
    });
    expect(await versions()).toEqual([]);
  });

  it('refuses a work whole when one of its files is bad, and names that file', async () => {
    const path = `/assignments/${school.assignment}/submissions`;
    const mixed = { 'good.docx': await essay(), 'bad.pdf': Buffer.from('%PDF-1.7 and nothing else') };
    const answer = await school.as.author.send('POST', path, { files: mixed });
    expect([answer.status, (answer.json as { detail: string }).detail]).toEqual([
      422,
      expect.stringMatching(/^bad\.pdf: This PDF is damaged/),
    ]);
    expect(await versions()).toEqual([]);
    const many = Object.fromEntries(Array.from({ length: 21 }, (_, index) => [`${index}.txt`, Buffer.from('words')]));
    expect((await school.as.author.send('POST', path, { files: many })).status).toBe(413);
    const large = { 'a.txt': Buffer.alloc(700_000, 'a '), 'b.txt': Buffer.alloc(700_000, 'b ') };
    expect((await school.as.author.send('POST', path, { files: large })).json).toMatchObject({
      title: 'Work too large',
    });
    expect(await versions()).toEqual([]);
  });

  it('counts versions, also of two that come at once', async () => {
    await Promise.all([handIn(school), handIn(school)]);
    expect((await versions()).map(({ version }) => version).sort()).toEqual([1, 2]);
  });

  it('makes one version of what is sent twice, also at once, unless it was withdrawn in between', async () => {
    const file = savedAgain(await essay());
    const idOf = ({ json }: { json: unknown }): string => (json as { submission: string }).submission;
    const [first, second] = (await Promise.all([send(file), send(file)])).map(idOf);
    expect(second).toBe(first);
    expect(idOf(await send(file))).toBe(first);
    expect((await versions()).map(({ version }) => version)).toEqual(expect.arrayContaining([1, 2, 3]));
    expect(await versions()).toHaveLength(3);
    const withdraw = (withdrawn: boolean) =>
      school.as.author.send('PUT', `/submissions/${first}/withdrawn`, { body: { withdrawn } });
    expect((await withdraw(true)).status).toBe(200);
    const again = idOf(await send(file));
    expect(again).not.toBe(first);
    await school.as.author.send('PUT', `/submissions/${again}/withdrawn`, { body: { withdrawn: true } });
  });

  it('leaves a work that something was said about, though nobody has opened it', async () => {
    const submission = await handIn(school);
    await school.as.teacher.send('PUT', `/submissions/${submission}/remarks/${randomUUID()}`, {
      body: {
        anchor: { type: 'whole' },
        kind: 'next',
        said: { ...NO_WORDS, text: 'Good.', recording: null, file: null },
      },
    });
    const answer = await school.as.author.send('PUT', `/submissions/${submission}/withdrawn`, {
      body: { withdrawn: true },
    });
    expect(answer).toMatchObject({ status: 409, json: { title: 'Already opened' } });
  });

  it('shows the teacher the newest version, with its lateness', async () => {
    const [newest] = (await versions()).sort((a, b) => b.version - a.version);
    const { json } = await school.as.teacher.send('POST', '/waiting', { body: {} });
    expect(json).toMatchObject({
      items: [
        { submission: newest!.submission, student: 'The author', work: { version: newest!.version, late: true } },
      ],
      assignments: [{ students: 2, handedIn: 1, returned: 0 }],
    });
  });
});
