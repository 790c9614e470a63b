import { objectOf, refusal, type Action, type Refusal, type Standings } from '#core/workflow';
import type { Express } from 'express';
import { randomUUID } from 'node:crypto';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { endpoint, type Address, type Endpoint } from '../../contract/endpoint.ts';
import { Nothing } from '../../contract/basics.ts';
import type { resumableUploads } from '../../contract/uploads.ts';
import type { Feedback } from '../../contract/submissions.ts';
import { createApp } from '../app.ts';
import type { Context } from '../context.ts';
import { guard } from '../http/serve.ts';
import { readSettings } from '../settings.ts';
import { contractModules } from '../testing/contract.ts';
import { bodies, type TestDatabase } from '../testing/databases.ts';
import { oneOfEach } from '../testing/one-of-each.ts';
import { routesOf, strayHandlersOf, type Route } from '../testing/routes.ts';
import { SOUND, startTestSchool, voice, type TestSchool } from '../testing/school.ts';

/** Everything that the contract describes, as `METHOD /path`. */
const described = async (): Promise<string[]> => (await contractModules()).flatMap(describedIn);

function describedIn(module: Record<string, unknown>): string[] {
  return Object.values(module).flatMap((value) => {
    if (typeof value !== 'object' || value === null) return [];
    if ('method' in value && 'path' in value) return [`${(value as Endpoint).method} ${(value as Endpoint).path}`];
    if ('uploadsAt' in value) {
      const { uploadsAt, uploadAt } = value as typeof resumableUploads;
      return [`POST ${uploadsAt}`, ...['HEAD', 'PATCH', 'DELETE'].map((method) => `${method} ${uploadAt}`)];
    }
    return 'bytesAt' in value ? [`GET ${(value as Address).bytesAt}`] : [];
  });
}

const name = ({ method, path }: Route): string => `${method} ${path}`;

/** Where other sites lead to: forms and keys of a standard, no JSON of ours. */
const DOORS = ['GET /lti/keys', 'GET /lti/login', 'POST /lti/login', 'POST /lti/launch'];

/** What is wrong with an app: what is described but not served, what is served but not described, what nobody guards. */
function faults(app: Express, contract: readonly string[]): string[] {
  const routes = routesOf(app);
  const served = routes.map(name);
  return [
    ...contract.filter((one) => !served.includes(one)).map((one) => `${one} is described, but not served`),
    ...served
      .filter((one) => !contract.includes(one) && !DOORS.includes(one))
      .map((one) => `${one} is served, but not described`),
    ...routes.filter(({ lets }) => !lets).map((route) => `${name(route)} asks nobody`),
    ...routes
      .filter(({ lets, path }) => lets === 'own' && namesObject(path))
      .map((route) => `${name(route)} names an object, but asks nobody about it`),
    ...strayHandlersOf(app).map((handler) => `${handler} is mounted beside the routes and asks nobody`),
  ];
}

/** Whether a path names something that permissions are about; ids that the asker chooses for something of their own are not there yet. */
const namesObject = (path: string): boolean => path.split('/').some((part) => NAMED.has(part));
const NAMED = new Set(
  ['course', 'assignment', 'submission', 'remark', 'recording', 'note', 'moderation', 'handout', 'person'].map(
    (kind) => `:${kind}`,
  ),
);

const PUBLIC = [
  ...['GET /school', 'GET /session', 'POST /session', 'DELETE /session'],
  ...['POST /joining/look', 'POST /joining', 'POST /school'],
  // Whoever has the key that a launch left in their browser.
  ...['GET /platform-arrival', 'POST /platform-arrival/new', ...DOORS],
];

let test: TestDatabase;
let school: TestSchool;
let app: Express;
let routes: Route[];
let contract: string[];
const ids: Record<string, string> = {};

beforeAll(async () => {
  test = await bodies[0]!.open();
  school = await startTestSchool(test.db);
  app = createApp({ db: test.db, settings: readSettings({}) } as Context);
  routes = routesOf(app).filter(({ lets }) => lets !== 'anyone');
  contract = await described();
  Object.assign(ids, await oneOfEach(test.db, school));
});
afterAll(async () => {
  await school.stop();
  await test.remove();
});

describe('what is served', () => {
  it('is what the contract describes, and every route says whom it lets pass', () => {
    expect(contract.length).toBeGreaterThan(35);
    expect(faults(app, contract)).toEqual([]);
    expect(
      routesOf(app)
        .filter(({ lets }) => lets === 'anyone')
        .map(name),
    ).toEqual(PUBLIC);
  });

  it('is found by itself: an endpoint more, in the contract or in the app, is a fault until it is guarded', () => {
    const more = endpoint({ method: 'GET', path: '/courses/:course/secrets', answer: Nothing });
    const path = 'GET /courses/:course/secrets';
    expect(faults(app, [...contract, ...describedIn({ more })])).toEqual([`${path} is described, but not served`]);
    const careless = createApp({ db: test.db, settings: readSettings({}) } as Context);
    careless.get(more.path, (_request, response) => void response.json({}));
    expect(faults(careless, contract)).toEqual([`${path} is served, but not described`, `${path} asks nobody`]);
    expect(faults(careless, [...contract, path])).toEqual([`${path} asks nobody`]);
  });

  it('is found where it asks only who somebody is, or is mounted beside the routes', () => {
    const careless = createApp({ db: test.db, settings: readSettings({}) } as Context);
    const path = '/courses/:course/secrets';
    careless.get(path, guard({ db: test.db } as Context, 'own'), (_request, response) => void response.json({}));
    careless.use('/secrets', function secrets(_request, response) {
      response.json({});
    });
    expect(faults(careless, [...contract, `GET ${path}`])).toEqual([
      `GET ${path} names an object, but asks nobody about it`,
      'secrets is mounted beside the routes and asks nobody',
    ]);
  });
});

const strange = {
  teacher: false,
  student: false,
  author: false,
  returned: false,
  silent: false,
  opened: true,
  ...{ second: false, closed: false, blind: false },
};
const standings = (known: Partial<typeof strange>, owner: boolean): Standings => {
  const standing = { ...strange, ...known };
  return {
    ...{
      course: standing,
      assignment: standing,
      submission: standing,
      remark: standing,
      note: standing,
      moderation: { teacher: standing.teacher, marker: false, finished: false },
      handout: standing,
      banked: { owner, shared: owner },
      person: { steward: false, other: true, own: false },
      stamp: { owner },
      upload: { owner },
    },
    recording: { ...standing, holder: 'remark', owner },
  };
};
const PEOPLE = {
  teacher: (returned: boolean) => standings({ teacher: true, returned }, true),
  author: (returned: boolean) => standings({ student: true, author: true, returned }, false),
  classmate: (returned: boolean) => standings({ student: true, returned }, false),
  colleague: () => standings({}, false),
  stranger: () => standings({}, false),
};
const STATUS: Record<Refusal, number> = {
  unseen: 404,
  notAllowed: 403,
  returned: 409,
  notReturned: 409,
  opened: 409,
  blind: 403,
  closed: 409,
};

/** What it is about would not be there for whoever asks next. */
const TAKES_AWAY = new Set(['stamp.remove', 'moderation.callOff']);

async function ask(who: keyof TestSchool['as'], { method, path }: Route) {
  const address = path.replace(/:(\w+)/g, (_, param: string) => ids[param] ?? randomUUID());
  // Without a body: who may not is told so before anything is read, and who may has changed nothing.
  return school.as[who].send(method, address, ['GET', 'HEAD'].includes(method) ? {} : { body: {} });
}

/** Asks every route as everybody, and tells where the answer is not the one that the table of permissions gives. */
async function surprises(returned: boolean): Promise<string[]> {
  const found: string[] = [];
  for (const route of routes) {
    const lets = route.lets as Action | 'own';
    const nobody = await ask('nobody', route);
    if (nobody.status !== 401) found.push(`${name(route)} answers nobody with ${nobody.status}`);
    if (lets === 'own') continue;
    for (const who of Object.keys(PEOPLE) as (keyof typeof PEOPLE)[]) {
      if (TAKES_AWAY.has(lets) && who === 'teacher') continue;
      const why = refusal(PEOPLE[who](returned)[objectOf(lets)], lets);
      const { status } = await ask(who, route);
      // The bytes that are asked for are not those that are there.
      const passed =
        [200, 400, 412, 422].includes(status) || (status === 404 && /:(sha256|position|file)$/.test(route.path));
      const fits = why ? status === STATUS[why] : passed;
      if (!fits) found.push(`${name(route)} (${lets}) answers the ${who} with ${status}, not ${why ?? 'OK'}`);
    }
  }
  return found;
}

describe('every route, asked by everybody', () => {
  it('before the return answers as the table of permissions says', async () => {
    expect(await surprises(false)).toEqual([]);
  });

  it('takes nothing that was made for somebody else than whoever is signed in', async () => {
    const { submission } = ids;
    const put = (who: 'teacher' | 'author', person: string) =>
      school.as[who].send('PUT', `/submissions/${submission}/remarks/${randomUUID()}`, {
        headers: { 'X-Vivid-Person': person },
        body: {},
      });
    for (const [who, person] of [
      ['teacher', school.ids.author],
      ['author', school.ids.teacher],
    ] as const)
      expect((await put(who, person)).json).toMatchObject({ status: 409, type: 'urn:vivid-margin:other-person' });
    // As itself it is looked at: this one has no body.
    expect((await put('teacher', school.ids.teacher)).status).toBe(400);
    const upload = await fetch(`${school.address}/api/uploads`, { method: 'POST', headers: { Cookie: 'none' } });
    expect(upload.status).toBe(401);
  });

  it('answers 404 to what is no identifier at all', async () => {
    expect((await school.as.teacher.send('GET', "/submissions/1' or true")).status).toBe(404);
    expect((await school.as.teacher.send('GET', '/nothing/here')).status).toBe(404);
  });

  it('no answer tells the student anything of the draft', async () => {
    const { submission, remark } = ids;
    await school.as.teacher.send('PUT', `/recordings/${remark}/transcript`, {
      body: { language: 'en', text: 'A secret sentence' },
    });
    await school.as.teacher.send('PUT', `/submissions/${submission}/scores/${school.criteria[0]!.id}`, {
      body: { score: { level: school.criteria[0]!.levels[1] } },
    });
    const { json } = await school.as.teacher.send('GET', `/submissions/${submission}/feedback`);
    const { sha256 } = (json as Feedback).remarks[0]!.recording!.sound;
    const answers = await Promise.all(routes.filter(({ method }) => method === 'GET').map((one) => ask('author', one)));
    answers.push(await school.as.author.send('POST', '/search', { body: { words: 'secret' } }));
    const sound = await school.as.author.send('GET', `/recordings/${remark}/sound/${sha256}`);
    const everything = [...answers, sound].map(({ text }) => text).join('\n');
    for (const secret of [remark!, 'A secret sentence', school.criteria[0]!.levels[1]!, sha256, 'begun'])
      expect(everything).not.toContain(secret);
    expect(sound.status).toBe(404);
    expect(everything).toContain('essay.docx');
  });
});

describe('after the return', () => {
  beforeAll(async () => {
    const answer = await school.as.teacher.send('PUT', `/submissions/${ids.submission}/returned`, {
      body: { returned: true },
    });
    expect(answer.status).toBe(200);
  });

  it('every route answers as the table of permissions says', async () => {
    expect(await surprises(true)).toEqual([]);
  });

  it('the author reads, hears and answers; both sides hear the answer, and nobody else', async () => {
    const feedback = await school.as.author.send('GET', `/submissions/${ids.submission}/feedback`);
    expect(feedback.text).toContain('A secret sentence');
    const { sha256 } = (feedback.json as Feedback).remarks[0]!.recording!.sound;
    expect((await school.as.author.send('GET', `/recordings/${ids.recording}/sound/${sha256}`)).status).toBe(200);
    const recording = randomUUID();
    const said = await school.as.author.send('PUT', `/remarks/${ids.remark}/replies/${randomUUID()}`, {
      body: { text: '', recording: { id: recording, sound: SOUND } },
      file: await voice(),
    });
    expect(said.status).toBe(200);
    const hear = (who: keyof TestSchool['as']) =>
      school.as[who].send('GET', `/recordings/${recording}/sound/${sha256}`).then(({ status }) => status);
    const heard = { teacher: await hear('teacher'), author: await hear('author'), classmate: await hear('classmate') };
    expect(heard).toEqual({ teacher: 200, author: 200, classmate: 404 });
    expect(await hear('colleague')).toBe(404);
    const mend = (who: keyof TestSchool['as']) =>
      school.as[who].send('PUT', `/recordings/${recording}/transcript`, { body: { language: 'en', text: 'Yes.' } });
    expect([(await mend('author')).status, (await mend('classmate')).status]).toEqual([200, 404]);
    const report = (who: keyof TestSchool['as']) =>
      school.as[who].send('PUT', `/recordings/${recording}/heard`, { body: { played: [{ start: 0, end: 100 }] } });
    expect([(await report('author')).status, (await report('teacher')).status]).toEqual([403, 200]);
  });
});

describe('somebody who teaches here and learns elsewhere', () => {
  it('sees both, each with the rights they have there', async () => {
    const [row] = await test.db.query("select id from courses where title = 'Elsewhere'");
    await test.db.query("insert into enrolments (course, person, role) values ($1, $2, 'student')", [
      row!.id,
      school.ids.teacher,
    ]);
    const assignment = randomUUID();
    await test.db.query("insert into assignments (id, course, title, brief) values ($1, $2, 'Pitch', '')", [
      assignment,
      row!.id,
    ]);
    expect((await school.as.teacher.send('GET', '/session')).json).toMatchObject({
      person: { teaches: true, learns: true },
    });
    const waiting = (await school.as.teacher.send('POST', '/waiting', { body: {} })).json as {
      assignments: { id: string }[];
    };
    expect(waiting.assignments.map(({ id }) => id)).toEqual([school.assignment]);
    const own = (await school.as.teacher.send('GET', '/own-work')).json as { assignment: { id: string } }[];
    expect(own.map((work) => work.assignment.id)).toEqual([assignment]);
    expect((await school.as.teacher.send('GET', `/assignments/${assignment}`)).status).toBe(403);
    expect((await school.as.colleague.send('GET', `/assignments/${assignment}`)).status).toBe(200);
  });
});
