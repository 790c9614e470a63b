import { Router, type Request, type Response } from 'express';
import {
  addPlatform,
  connectCourse,
  linkArrival,
  listFromPlatform,
  newFromArrival,
  readArrival,
  readCoursePlatform,
  readLaunched,
  readPlatforms,
  removePlatform,
  sendGrades,
} from '../../contract/platforms.ts';
import { parseCookie } from 'cookie';
import { Id } from '../../contract/basics.ts';
import { authorise } from '../access/authorise.ts';
import type { Context } from '../context.ts';
import { selectCourses } from '../courses/queries.ts';
import { problems } from '../errors.ts';
import { endSession, openSession, setCookie } from '../http/person-of.ts';
import { serve, serveAnyone } from '../http/serve.ts';
import { selectByMail } from '../roster/queries.ts';
import { isSteward, selectTitle } from '../school/people.ts';
import { ARRIVAL_COOKIE, readArrivalOf, takeArrival } from './arrival.ts';
import { arrive, linkOwn, makeNew, placeOf } from './arrive.ts';
import { SCOPE } from './claims.ts';
import { selectConnected, type Connected } from './connected.ts';
import { ownAddresses } from './doors.ts';
import { selectDue, sendDue, stateOf } from './grades.ts';
import { listMembers, readMembersThere } from './members.ts';
import { connect, deletePlatform, insertPlatform, selectLaunched } from './queries.ts';
import { refusePrivate } from './public-address.ts';
import { PlatformError, platformService, type PlatformService } from './service.ts';
import { selectPlatform, selectPlatforms } from './sign-in.ts';

/** Learning platforms of a school, and what courses have to do with them. */
export function platformRoutes(context: Context): Router {
  const router = Router();
  const { db, settings } = context;

  const refuseOthers = async (person: string): Promise<void> => {
    if (!(await isSteward(db, person))) throw problems.notAllowed();
  };

  serve(router, context, readPlatforms, 'own', async ({ person, request }) => {
    await refuseOthers(person.id);
    return { platforms: await selectPlatforms(db), ours: ownAddresses(settings, request) };
  });
  serve(router, context, addPlatform, 'own', async ({ person, body }) => {
    await refuseOthers(person.id);
    if (!settings.privatePlatforms)
      for (const address of [body.authAddress, body.tokenAddress, body.keysAddress]) await refusePrivate(address);
    return insertPlatform(db, body);
  });
  serve(router, context, removePlatform, 'own', async ({ person, params }) => {
    await refuseOthers(person.id);
    if (!Id.safeParse(params.platform).success || !(await deletePlatform(db, params.platform)))
      throw problems.notFound();
    return {};
  });

  const keyOf = (request: Request): string | undefined => parseCookie(request.get('Cookie') ?? '')[ARRIVAL_COOKIE];
  const doneWith = (response: Response): void =>
    void response.clearCookie(ARRIVAL_COOKIE, { path: '/api/platform-arrival' });

  serveAnyone(router, readArrival, async ({ request }) => {
    const found = await readArrivalOf(db, keyOf(request));
    if (!found) throw problems.arrivalOver();
    const { launch } = found;
    const { name } = await selectPlatform(db, found.platform);
    const known = launch.mail !== '' && (await selectByMail(db, launch.mail)) !== undefined;
    const { mail, teaches } = launch;
    return { platform: name, title: launch.context.title, name: launch.name, mail, teaches, known };
  });
  serve(router, context, linkArrival, 'own', async ({ person, request, response }) => {
    const arrived = await db.transaction(async (tx) => {
      const found = await takeArrival(tx, keyOf(request));
      if (!found) throw problems.arrivalOver();
      const platform = await selectPlatform(tx, found.platform);
      await linkOwn(tx, platform, found.launch, person.id);
      return arrive(tx, platform, found.launch, person.id);
    });
    doneWith(response);
    return { to: placeOf(arrived) };
  });
  serveAnyone(router, newFromArrival, async ({ request, response }) => {
    const arrived = await db.transaction(async (tx) => {
      const found = await takeArrival(tx, keyOf(request));
      if (!found) throw problems.arrivalOver();
      const platform = await selectPlatform(tx, found.platform);
      return arrive(tx, platform, found.launch, await makeNew(tx, platform, found.launch));
    });
    await endSession(db, request);
    setCookie(response, await openSession(db, arrived.person, request), settings);
    doneWith(response);
    return { to: placeOf(arrived) };
  });

  const launchedFor = async (from: string, person: string) => {
    const launched = Id.safeParse(from).success ? await selectLaunched(db, from, person) : undefined;
    if (!launched) throw problems.notFound();
    return launched;
  };
  serve(router, context, readLaunched, 'own', async ({ params, person }) => {
    const launched = await launchedFor(params.context, person.id);
    const courses = launched.teaches ? await selectCourses(db, person.id) : [];
    return { ...launched, courses: courses.filter(({ teaches, aside }) => teaches && !aside) };
  });
  serve(router, context, connectCourse, 'own', async ({ params, person, body }) => {
    const { teaches } = await launchedFor(params.context, person.id);
    if (!teaches) throw problems.notAllowed();
    if (body.course !== null) await authorise(db, person.id, 'course.set', { course: body.course });
    return { course: await db.transaction((tx) => connect(tx, params.context, body.course, person.id)) };
  });

  const connectedTo = async (course: string, offer: 'membersAddress' | 'itemsAddress'): Promise<Connected> => {
    const connected = await selectConnected(db, course);
    if (!connected?.[offer]) throw problems.notConnected();
    return connected;
  };
  const asking = async <T>(
    connected: Connected,
    wanted: readonly string[],
    ask: (service: PlatformService) => Promise<T>,
  ): Promise<T> => {
    const granted = wanted.filter((scope) => connected.scopes.includes(scope));
    if (granted.length < wanted.length) throw problems.notConnected();
    try {
      return await ask(platformService(context, await selectPlatform(db, connected.platform), granted));
    } catch (error) {
      throw error instanceof PlatformError ? problems.platformFailed(error.message) : error;
    }
  };

  serve(router, context, readCoursePlatform, 'course.set', async ({ params: { course }, person }) => {
    const connected = await selectConnected(db, course);
    const due = connected ? await selectDue(db, course, connected, person.id) : new Map<never, never>();
    return {
      course: await selectTitle(db, course),
      platform: connected
        ? {
            ...{ name: connected.name, title: connected.title },
            ...{ lists: connected.membersAddress !== null, grades: connected.itemsAddress !== null },
          }
        : null,
      assignments: [...due]
        .map(([column, some]) => stateOf(column, some))
        .filter(({ returned, toWithdraw }) => returned + toWithdraw > 0),
    };
  });

  serve(router, context, listFromPlatform, 'course.set', async ({ params: { course }, body, person }) => {
    const connected = await connectedTo(course, 'membersAddress');
    const members = await asking(connected, [SCOPE.members], (service) =>
      readMembersThere(service, connected.membersAddress!),
    );
    return listMembers(db, { course, connected, members, bringIn: body.bringIn, teacher: person.id });
  });

  serve(router, context, sendGrades, 'course.set', async ({ params: { course }, body, person }) => {
    const connected = await connectedTo(course, 'itemsAddress');
    const wanted = async () =>
      [...(await selectDue(db, course, connected, person.id))].find(([{ id }]) => id === body.assignment);
    const found = await wanted();
    if (!found) throw problems.notFound();
    const [column, due] = found;
    const left = await asking(connected, [SCOPE.items, SCOPE.scores], (service) =>
      sendDue(db, service, { connected, column, due, since: body.since }),
    );
    return { left, state: stateOf(...(await wanted())!) };
  });
  return router;
}
