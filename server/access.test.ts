import { randomUUID } from 'node:crypto';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import * as assignments from '../contract/assignments.ts';
import type { Endpoint } from '../contract/endpoint.ts';
import { DEFAULT_KEY } from '#core/margin';
import * as marginKey from '../contract/margin-key.ts';
import * as remarks from '../contract/remarks.ts';
import * as search from '../contract/search.ts';
import * as speech from '../contract/speech.ts';
import * as stamps from '../contract/stamps.ts';
import * as submissions from '../contract/submissions.ts';
import { bodies, type TestDatabase } from './testing/databases.ts';
import { handIn, sayRemark, SOUND, startTestSchool, voice, type TestSchool } from './testing/school.ts';

const isEndpoint = (value: unknown): value is Endpoint =>
  typeof value === 'object' && value !== null && 'method' in value && 'path' in value;

const endpoints = [assignments, marginKey, remarks, search, speech, stamps, submissions].flatMap((module) =>
  Object.entries(module).filter(([, value]) => isEndpoint(value)),
) as [string, Endpoint][];
/** A stamp is its owner's own: there is nothing that others could ask for. */
const aboutObjects = endpoints.filter(([, { path }]) => path.includes(':') && !path.startsWith('/stamps'));

let test: TestDatabase;
let school: TestSchool;
let submission: string;
let remark: string;

beforeAll(async () => {
  test = await bodies[0]!.open();
  school = await startTestSchool(test.db);
  submission = await handIn(school);
  remark = await sayRemark(school, submission);
});
afterAll(async () => {
  await school.stop();
  await test.remove();
});

const BODIES: Record<string, object> = {
  makeRemark: { anchor: { type: 'whole' }, kind: 'repair', sound: SOUND },
  changeRemark: { kind: 'next' },
  putRemarkAside: { aside: true },
  mendTranscript: { language: 'en', text: 'words' },
  reportHeard: { finished: true },
  makeReply: { text: 'hello', sound: null },
  returnWork: { returned: true },
  keepAnswers: { answers: {} },
  handInAnswers: { answers: {} },
  givePoints: { points: 0 },
  withdrawWork: { withdrawn: true },
  placeEarlier: { anchor: null },
  setAssignment: { budget: 45 },
  setMarginKey: { key: DEFAULT_KEY },
  changeSound: { sound: SOUND, edit: { kept: [{ start: 0, end: 8 }], levelled: true } },
  takeSuggestion: { taken: true },
  searchRemarks: { words: 'secret' },
  agreeToPlace: { place: 'browser cloud', agreed: true },
  setOwnLanguage: { language: 'en' },
  setCourseLanguage: { language: 'en' },
  listenAgain: {},
  importCaptions: { language: 'en', content: 'words' },
  setTranslation: { language: 'es', text: 'palabras' },
};

async function ask(who: keyof TestSchool['as'], name: string, endpoint: Endpoint) {
  const ids: Record<string, string> = {
    course: school.course,
    assignment: school.assignment,
    stamp: randomUUID(),
    submission,
    remark,
    criterion: school.criteria[0]!.id,
    question: randomUUID(),
    reply: randomUUID(),
  };
  if (name === 'makeRemark') ids.remark = randomUUID();
  const path = endpoint.path.replace(/:(\w+)/g, (_, param: string) => ids[param]!);
  const body = name === 'chooseLevel' ? { level: school.criteria[0]!.levels[0] } : BODIES[name];
  return school.as[who].send(endpoint.method, path, { body, ...(endpoint.file && { file: await voice() }) });
}

describe('every endpoint', () => {
  it.each(endpoints)('%s asks who is there', async (name, endpoint) => {
    expect((await ask('nobody', name, endpoint)).status).toBe(401);
  });

  it.each(aboutObjects)('%s does not exist for a teacher and a student of another course', async (name, endpoint) => {
    expect((await ask('colleague', name, endpoint)).status).toBe(404);
    expect((await ask('stranger', name, endpoint)).status).toBe(404);
  });

  it.each(aboutObjects.filter(([, { path }]) => !/^\/(assignments|courses)/.test(path)))(
    '%s does not exist for a classmate',
    async (name, endpoint) => {
      expect((await ask('classmate', name, endpoint)).status).toBe(404);
    },
  );

  it('nor do the sounds and pictures, which the browser fetches by itself', async () => {
    const { json } = await school.as.teacher.send('GET', `/submissions/${submission}/feedback`);
    const { sha256 } = (json as { remarks: { sound: { sha256: string } }[] }).remarks[0]!.sound;
    const paths = [
      `/remarks/${remark}/sound/${sha256}`,
      `/submissions/${submission}/pictures/0`,
      `/submissions/${submission}/files/0`,
      `/replies/${randomUUID()}/sound/${sha256}`,
      `/remarks/${remark}/original`,
      `/remarks/${remark}/file/${sha256}`,
      `/remarks/${remark}/stamp/${sha256}`,
      `/remarks/${remark}/captions/en.vtt`,
    ];
    for (const path of paths) {
      expect((await school.as.nobody.send('GET', path)).status).toBe(401);
      for (const who of ['colleague', 'stranger', 'classmate'] as const)
        expect((await school.as[who].send('GET', path)).status).toBe(404);
    }
  });

  it('answers 404 to what is no identifier at all', async () => {
    expect((await school.as.teacher.send('GET', "/submissions/1' or true")).status).toBe(404);
    expect((await school.as.teacher.send('GET', '/nothing/here')).status).toBe(404);
  });
});

const NOT_FOR_STUDENTS = [
  'readAssignment',
  'readClass',
  'chooseLevel',
  'returnWork',
  'makeRemark',
  'changeRemark',
  'putRemarkAside',
  'mendTranscript',
  'givePoints',
  'placeEarlier',
  'setAssignment',
  'setMarginKey',
  'changeSound',
  'keepOriginal',
  'readTranscriptStates',
  'listenAgain',
  'importCaptions',
  'setTranslation',
  'readSpeech',
  'setCourseLanguage',
];

describe('before the return', () => {
  it('no answer of the server tells the student anything of the draft', async () => {
    await school.as.teacher.send('PUT', `/remarks/${remark}/transcript`, {
      body: { language: 'en', text: 'A secret sentence' },
    });
    await school.as.teacher.send('PUT', `/submissions/${submission}/scores/${school.criteria[0]!.id}`, {
      body: { level: school.criteria[0]!.levels[1] },
    });
    const sha256 = (
      (await school.as.teacher.send('GET', `/submissions/${submission}/feedback`)).json as {
        remarks: { sound: { sha256: string } }[];
      }
    ).remarks[0]!.sound.sha256;

    const answers = await Promise.all(endpoints.map(([name, endpoint]) => ask('author', name, endpoint)));
    const sound = await school.as.author.send('GET', `/remarks/${remark}/sound/${sha256}`);
    const everything = [...answers, sound].map(({ text }) => text).join('\n');
    for (const secret of [remark, 'A secret sentence', 'palabras', school.criteria[0]!.levels[1]!, sha256, 'begun'])
      expect(everything).not.toContain(secret);
    expect(sound.status).toBe(404);
    expect(everything).toContain('essay.docx');
  });

  it.each(endpoints.filter(([name]) => ['readClass', 'readFeedback'].includes(name)))(
    '%s is not there for the author',
    async (name, endpoint) => {
      expect((await ask('author', name, endpoint)).status).toBe(404);
    },
  );
});

describe('after the return', () => {
  beforeAll(async () => {
    expect((await ask('teacher', 'returnWork', submissions.returnWork)).status).toBe(200);
  });

  it('the author reads, hears and answers', async () => {
    const feedback = await ask('author', 'readFeedback', submissions.readFeedback);
    expect(feedback.status).toBe(200);
    expect(feedback.text).toContain('A secret sentence');
    const { sha256 } = (feedback.json as { remarks: { sound: { sha256: string } }[] }).remarks[0]!.sound;
    expect((await school.as.author.send('GET', `/remarks/${remark}/sound/${sha256}`)).status).toBe(200);
    expect((await ask('author', 'makeReply', remarks.makeReply)).status).toBe(200);
    expect((await ask('author', 'reportHeard', remarks.reportHeard)).status).toBe(200);
  });

  it.each(endpoints.filter(([name]) => NOT_FOR_STUDENTS.includes(name)))(
    '%s is still not the author’s',
    async (name, endpoint) => {
      expect([403, 404, 409]).toContain((await ask('author', name, endpoint)).status);
    },
  );

  it.each(
    endpoints.filter(([name]) =>
      ['makeRemark', 'changeRemark', 'putRemarkAside', 'chooseLevel', 'changeSound', 'keepOriginal'].includes(name),
    ),
  )('%s waits until the work is taken back', async (name, endpoint) => {
    const answer = await ask('teacher', name, endpoint);
    expect(answer.status).toBe(409);
    expect(answer.json).toMatchObject({ title: 'Already returned' });
  });

  it('a classmate and a stranger still find nothing', async () => {
    for (const who of ['classmate', 'stranger', 'colleague'] as const)
      for (const [name, endpoint] of aboutObjects.filter(([, { path }]) => !/^\/(assignments|courses)/.test(path)))
        expect((await ask(who, name, endpoint)).status).toBe(404);
  });
});
