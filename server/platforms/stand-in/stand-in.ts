import express, { type Express, type Request, type RequestHandler, type Response } from 'express';
import { createRemoteJWKSet, exportJWK, generateKeyPair, jwtVerify, SignJWT, type CryptoKey, type JWK } from 'jose';
import { randomUUID } from 'node:crypto';
import { once } from 'node:events';
import { createServer } from 'node:http';
import type { AddressInfo } from 'node:net';
import type { z } from 'zod';
import type { NewPlatform } from '../../../contract/platforms.ts';
import { CLAIM, MEDIA_TYPE, ROLE, SCOPE } from '../claims.ts';

/*
 * A small learning platform that people come from and that grades go to, for the sample school and for tests: what it does is
 * what the standards ask of a platform, and what it is told it forgets when it stops.
 */

export interface StandInPerson {
  id: string;
  name: string;
  mail: string;
  teaches: boolean;
}

export interface StandInCourse {
  id: string;
  title: string;
  people: readonly StandInPerson[];
}

interface StandInItem {
  id: string;
  label: string;
  scoreMaximum: number;
  resourceId?: string;
  /** By the ids of people, the newest score. */
  scores: Map<string, { scoreGiven: number; scoreMaximum: number; timestamp: string }>;
}

export interface StandIn {
  /** How a tool is told about it. */
  platform: z.input<typeof NewPlatform>;
  address: string;
  items: StandInItem[];
  /** Answers the next requests to its services with these statuses. */
  failWith(...statuses: number[]): void;
  /** What tokens were asked for, in order. */
  scopes: string[];
  /** How often a token was asked for. */
  tokens(): number;
  /** Signs a launch as it would, but for what is said to be another. */
  sign(claims: object, other?: { key?: CryptoKey; kid?: string; expiresIn?: string }): Promise<string>;
  stop(): Promise<void>;
}

const CLIENT = 'vivid-margin';
const KID = 'stand-in-1';
const TOKEN_SECONDS = 3600;
const PAGE = 20;

/**
 * @param port 0 for any
 * @param tool where Vivid Margin is
 */
export async function startStandIn(
  { port, tool }: { port: number; tool: string },
  courses: readonly StandInCourse[],
): Promise<StandIn> {
  // Making one takes a while, and whoever starts a server does not wait for it.
  let pair: ReturnType<typeof generateKeyPair> | undefined;
  const keyPair = (): ReturnType<typeof generateKeyPair> => (pair ??= generateKeyPair('RS256'));
  const server = createServer();
  await listening(server, port);
  const address = `http://localhost:${(server.address() as AddressInfo).port}`;
  const app = express();
  server.on('request', app);

  const items: StandInItem[] = [];
  const failures: number[] = [];
  const tokens = new Map<string, number>();
  const seen = new Set<string>();
  const scopes: string[] = [];
  const sign: StandIn['sign'] = async (claims, { key, kid = KID, expiresIn = '5m' } = {}) =>
    new SignJWT({ ...claims })
      .setProtectedHeader({ alg: 'RS256', kid, typ: 'JWT' })
      .setIssuedAt()
      .setExpirationTime(expiresIn)
      .sign(key ?? (await keyPair()).privateKey);

  front(app, { address, tool, courses, sign });
  app.get('/keys', async (_request, response) => {
    const shown = await exportJWK((await keyPair()).publicKey);
    response.json({ keys: [{ ...shown, kid: KID, alg: 'RS256', use: 'sig' } satisfies JWK] });
  });

  const toolKeys = createRemoteJWKSet(new URL(`${tool}/lti/keys`));
  app.post('/token', failing(failures), express.urlencoded({ extended: false }), async (request, response) => {
    const form = request.body as Record<string, string>;
    try {
      const { payload } = await jwtVerify(form.client_assertion ?? '', toolKeys, {
        ...{ issuer: CLIENT, subject: CLIENT, audience: `${address}/token`, requiredClaims: ['jti', 'exp'] },
      });
      if (form.grant_type !== 'client_credentials' || seen.has(payload.jti!)) throw new Error('used before');
      seen.add(payload.jti!);
    } catch {
      response.status(400).json({ error: 'invalid_client' });
      return;
    }
    const token = randomUUID();
    scopes.push(form.scope ?? '');
    tokens.set(token, Date.now() + TOKEN_SECONDS * 1000);
    response.json({ access_token: token, token_type: 'Bearer', expires_in: TOKEN_SECONDS, scope: form.scope });
  });

  const known: RequestHandler = (request, response, next) => {
    const token = request.get('Authorization')?.replace(/^Bearer /u, '') ?? '';
    if ((tokens.get(token) ?? 0) > Date.now()) return next();
    response.status(401).end();
  };
  services(app, [failing(failures), known], { address, courses, items });

  return {
    platform: {
      ...{ name: 'The simulated platform', issuer: address, clientId: CLIENT, authAddress: `${address}/auth` },
      ...{ tokenAddress: `${address}/token`, keysAddress: `${address}/keys`, trustsMail: true },
    },
    ...{ address, items, sign, scopes },
    failWith: (...statuses) => void failures.push(...statuses),
    tokens: () => tokens.size,
    async stop() {
      server.close();
      server.closeAllConnections();
      if (server.listening) await once(server, 'close');
    },
  };
}

async function listening(server: ReturnType<typeof createServer>, port: number): Promise<void> {
  server.listen(port, '127.0.0.1');
  try {
    await once(server, 'listening');
  } catch (error) {
    if ((error as NodeJS.ErrnoException).code !== 'EADDRINUSE') throw error;
    server.listen(0, '127.0.0.1');
    await once(server, 'listening');
  }
}

const failing =
  (failures: number[]): RequestHandler =>
  (_request, response, next) => {
    const status = failures.shift();
    if (status === undefined) return next();
    response.status(status).end();
  };

interface Front {
  address: string;
  tool: string;
  courses: readonly StandInCourse[];
  sign: StandIn['sign'];
}

/** The page where one chooses who one is, and the way from there into the tool. */
function front(app: Express, { address, tool, courses, sign }: Front): void {
  app.get('/', (_request, response) => {
    const lists = courses.map(
      (course) =>
        `<h2>${escaped(course.title)}</h2><ul>${course.people
          .map(
            (person) =>
              `<li>${formTo(`${tool}/lti/login`, initiation(course, person), `Open Vivid Margin as ${person.name}`)}</li>`,
          )
          .join('')}</ul>`,
    );
    page(response, `<h1>The simulated platform</h1><p>Choose who you are.</p>${lists.join('')}`);
  });

  const initiation = (course: StandInCourse, person: StandInPerson): Record<string, string> => ({
    ...{ iss: address, login_hint: person.id, target_link_uri: `${tool}/lti/launch`, client_id: CLIENT },
    lti_message_hint: course.id,
  });

  app.get('/auth', async (request: Request, response: Response) => {
    const asked = request.query as Record<string, string>;
    const course = courses.find(({ id }) => id === asked.lti_message_hint);
    const person = course?.people.find(({ id }) => id === asked.login_hint);
    const right =
      asked.client_id === CLIENT && asked.redirect_uri === `${tool}/lti/launch` && asked.response_mode === 'form_post';
    if (!course || !person || !right) return void response.status(400).send('This was not asked as it has to be.');
    const token = await sign({
      ...launchClaims({ address, course, person }),
      ...{ iss: address, aud: CLIENT, sub: person.id, nonce: asked.nonce },
    });
    const form = formTo(asked.redirect_uri!, { id_token: token, state: asked.state! }, 'Go on', 'post');
    page(response, `${form}<script>document.forms[0].submit()</script>`);
  });
}

/** All that is said of somebody who opens the tool out of a course. */
export function launchClaims({
  address,
  course,
  person,
}: {
  address: string;
  course: StandInCourse;
  person: StandInPerson;
}): object {
  const [given, ...family] = person.name.split(' ');
  return {
    ...{ name: person.name, given_name: given, family_name: family.join(' '), email: person.mail },
    [CLAIM.message]: 'LtiResourceLinkRequest',
    [CLAIM.version]: '1.3.0',
    [CLAIM.deployment]: '1',
    [CLAIM.target]: 'vivid-margin',
    [CLAIM.link]: { id: `${course.id}-link`, title: 'Vivid Margin' },
    [CLAIM.roles]: [ROLE[person.teaches ? 'teacher' : 'student']],
    [CLAIM.context]: { id: course.id, title: course.title, type: ['CourseSection'] },
    [CLAIM.grades]: { scope: [SCOPE.items, SCOPE.scores], lineitems: `${address}/courses/${course.id}/items` },
    [CLAIM.members]: {
      context_memberships_url: `${address}/courses/${course.id}/members`,
      service_versions: ['2.0'],
    },
  };
}

interface Services {
  address: string;
  courses: readonly StandInCourse[];
  items: StandInItem[];
}

function services(app: Express, guards: RequestHandler[], { address, courses, items }: Services): void {
  app.get('/courses/:course/members', ...guards, (request, response) => {
    const course = courses.find(({ id }) => id === request.params.course);
    if (!course) return void response.status(404).end();
    const from = Number(request.query.from ?? 0);
    const to = from + PAGE;
    const here = `${address}/courses/${course.id}/members`;
    if (to < course.people.length) response.set('Link', `<${here}?from=${to}>; rel="next"`);
    response.type(MEDIA_TYPE.members).json({
      id: here,
      context: { id: course.id, title: course.title },
      members: course.people.slice(from, to).map(({ id, name, mail, teaches }) => ({
        ...{ status: 'Active', user_id: id, name, email: mail, roles: [ROLE[teaches ? 'teacher' : 'student']] },
      })),
    });
  });

  let made = 0;
  const shown = ({ scores: _, ...item }: StandInItem): object => item;
  app.get('/courses/:course/items', ...guards, (request, response) => {
    const wanted = request.query.resource_id;
    const found = items.filter(({ resourceId }) => wanted === undefined || resourceId === wanted);
    response.type(MEDIA_TYPE.items).json(found.map(shown));
  });
  const json = express.json({ type: () => true });
  app.post('/courses/:course/items', ...guards, json, (request, response) => {
    if (request.get('Content-Type') !== MEDIA_TYPE.item) return void response.status(415).end();
    const { label, scoreMaximum, resourceId } = request.body as StandInItem;
    if (!label || !(scoreMaximum > 0)) return void response.status(400).end();
    const id = `${address}/courses/${request.params.course}/items/${++made}`;
    const item = { id, label, scoreMaximum, ...(resourceId && { resourceId }), scores: new Map<string, never>() };
    items.push(item);
    response.status(201).type(MEDIA_TYPE.item).json(shown(item));
  });
  app.post('/courses/:course/items/:item/scores', ...guards, json, (request, response) => {
    const item = items.find(({ id }) => id.endsWith(`/items/${request.params.item}`));
    const people = courses.find(({ id }) => id === request.params.course)?.people;
    const { userId, scoreGiven, scoreMaximum, timestamp, activityProgress, gradingProgress } = request.body as Record<
      string,
      string
    >;
    if (request.get('Content-Type') !== MEDIA_TYPE.score) return void response.status(415).end();
    if (!item || !people?.some(({ id }) => id === userId)) return void response.status(404).end();
    const before = item.scores.get(userId!);
    const whole = activityProgress === 'Completed' && gradingProgress === 'FullyGraded';
    const empty = scoreGiven === undefined && activityProgress !== undefined && gradingProgress !== undefined;
    if (Number.isNaN(Date.parse(timestamp!)) || !(empty || (whole && Number(scoreMaximum) > 0)))
      return void response.status(400).end();
    // What is not newer is refused (AGS 2.0, 3.4.7).
    if (before && Date.parse(before.timestamp) >= Date.parse(timestamp!)) return void response.status(409).end();
    if (empty) item.scores.delete(userId!);
    else
      item.scores.set(userId!, {
        ...{ scoreGiven: Number(scoreGiven), scoreMaximum: Number(scoreMaximum), timestamp: timestamp! },
      });
    response.status(200).json({});
  });
}

const escaped = (text: string): string =>
  text.replace(/[&<>"']/gu, (character) => `&#${String(character.codePointAt(0))};`);

const formTo = (address: string, values: Record<string, string>, label: string, method = 'get'): string =>
  `<form method="${method}" action="${escaped(address)}">${Object.entries(values)
    .map(([name, value]) => `<input type="hidden" name="${escaped(name)}" value="${escaped(value)}">`)
    .join('')}<button>${escaped(label)}</button></form>`;

const page = (response: Response, body: string): void =>
  void response.type('html').send(`<!doctype html><html lang="en"><head><meta charset="utf-8">
<title>The simulated platform</title><style>body{max-width:44em;margin:2em auto;padding:0 1em;font:16px/1.5 sans-serif}
form{display:inline}button{margin:2px 0;padding:4px 10px;font:inherit}ul{columns:2;list-style:none;padding:0}</style></head>
<body>${body}</body></html>`);
