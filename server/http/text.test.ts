import { randomUUID } from 'node:crypto';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import type { Feedback, Work } from '../../contract/submissions.ts';
import { readDocument } from '../documents/read.ts';
import { bodies, type TestDatabase } from '../testing/databases.ts';
import { essay, sayRemark, savedAgain, spoken, startTestSchool, voice, type TestSchool } from '../testing/school.ts';

/** U+0000, both halves of a surrogate pair alone and the wrong way round, and one that is whole. */
const BROKEN = 'a\0b\uD83Dc\uDE00d\uDE00\uD83De\uD83D\uDE00';
const KEPT = 'a\uFFFDb\uFFFDc\uFFFDd\uFFFD\uFFFDe\uD83D\uDE00';

describe.each(bodies)('text that is none on $name', ({ open }) => {
  let test: TestDatabase;
  let school: TestSchool;
  let submission: string;
  let remark: string;

  beforeAll(async () => {
    test = await open();
    school = await startTestSchool(test.db);
    const answer = await school.as.author.send('POST', `/assignments/${school.assignment}/submissions`, {
      file: savedAgain(await essay()),
      fileName: 'essay\uD83D.docx',
    });
    submission = (answer.json as { submission: string }).submission;
    remark = await sayRemark(school, submission);
  });
  afterAll(async () => {
    await school.stop();
    await test.remove();
  });

  const send = async (method: string, path: string, body: object, file?: Buffer): Promise<void> => {
    const { status, text } = await school.as.teacher.send(method, path, { body, ...(file && { file }) });
    expect([`${method} ${path}`, status, status === 200 ? '' : text]).toEqual([`${method} ${path}`, 200, '']);
  };
  const feedback = async (): Promise<Feedback> =>
    (await school.as.teacher.send('GET', `/submissions/${submission}/feedback`)).json as Feedback;

  it('is kept as the replacement character, wherever somebody writes', async () => {
    const words = { name: BROKEN, text: BROKEN, tags: [BROKEN], suggestion: BROKEN };
    await send('PATCH', `/remarks/${remark}`, words);
    await send('PUT', `/recordings/${remark}/transcript`, { language: 'en', text: BROKEN });
    await send('PUT', `/recordings/${remark}/translations`, { language: 'es', text: BROKEN });
    await send('POST', '/search', { words: BROKEN });
    const made = (await feedback()).remarks.find(({ id }) => id === remark)!;
    expect([made.name, made.text, made.tags, made.suggestion]).toEqual([KEPT, KEPT, [KEPT], KEPT]);
    expect([made.recording!.transcript!.text, made.recording!.translations[0]!.text]).toEqual([KEPT, KEPT]);
  });

  it('in the name of a file does no harm', async () => {
    const { folio } = (await school.as.teacher.send('GET', `/submissions/${submission}`)).json as Work;
    expect(folio.files[0]!.name).toMatch(/^essay.*\.docx$/u);
    expect(folio.files[0]!.name).not.toMatch(/\p{Cs}/u);
  });

  it('and numbers that no column holds are refused with a sentence, not with a shrug', async () => {
    const sound = { duration: 1e300, peaks: [0], microphone: { type: 'device' } };
    const id = randomUUID();
    const { status } = await school.as.teacher.send('PUT', `/submissions/${submission}/remarks/${id}`, {
      body: { anchor: { type: 'whole' }, kind: 'next', said: spoken(id, { sound }) },
      file: await voice(),
    });
    expect([400, 422]).toContain(status);
    const points = await school.as.teacher.send('PUT', `/submissions/${submission}/points/${randomUUID()}`, {
      body: { points: 2 ** 40 },
    });
    expect([400, 422]).toContain(points.status);
  });

  it('an empty file is refused with a sentence', async () => {
    const id = randomUUID();
    const said = { name: '', text: 'See this.', link: null, reaction: null, suggestion: null, stamp: null };
    const more = { private: false, tags: [], criterion: null, recording: null, file: { name: 'empty.pdf' } };
    const answer = await school.as.teacher.send('PUT', `/submissions/${submission}/remarks/${id}`, {
      body: { anchor: { type: 'whole' }, kind: 'next', said: { ...said, ...more } },
      file: Buffer.alloc(0),
    });
    expect(answer).toMatchObject({ status: 422, json: { title: 'Empty file' } });
  });
});

/** A PDF whose font says that its second letter is U+0000, as some programs write (ISO 32000-1, 9.10.3, ToUnicode). */
function pdfWithNul(): Buffer {
  const map = `/CIDInit /ProcSet findresource begin 12 dict begin begincmap /CMapType 2 def
1 begincodespacerange <00> <ff> endcodespacerange
3 beginbfchar <41> <0041> <42> <0000> <43> <0043> endbfchar endcmap end end`;
  const words = 'BT /F 24 Tf 50 700 Td (ABC) Tj ET';
  const stream = (text: string): string => `<< /Length ${text.length} >>\nstream\n${text}\nendstream`;
  const objects = [
    '<< /Type /Catalog /Pages 2 0 R >>',
    '<< /Type /Pages /Kids [3 0 R] /Count 1 >>',
    '<< /Type /Page /Parent 2 0 R /MediaBox [0 0 595 842] /Contents 4 0 R /Resources << /Font << /F 5 0 R >> >> >>',
    stream(words),
    '<< /Type /Font /Subtype /Type1 /BaseFont /Helvetica /ToUnicode 6 0 R >>',
    stream(map),
  ];
  const body = objects.map((object, index) => `${index + 1} 0 obj\n${object}\nendobj\n`).join('');
  return Buffer.from(`%PDF-1.7\n${body}trailer << /Root 1 0 R >>\n%%EOF\n`, 'latin1');
}

it('a document that says U+0000 is read without it', async () => {
  const { file } = await readDocument(pdfWithNul(), 'nul.pdf');
  const text = JSON.stringify(file.leaves);
  expect(text).toContain('A');
  expect(text).not.toContain('\\u0000');
});
