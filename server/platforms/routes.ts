import { Router } from 'express';
import {
  addPlatform,
  connectCourse,
  listFromPlatform,
  readCoursePlatform,
  readLaunched,
  readPlatforms,
  removePlatform,
  sendGrades,
} from '../../contract/platforms.ts';
import { Id } from '../../contract/basics.ts';
import { authorise } from '../access/authorise.ts';
import type { Context } from '../context.ts';
import { selectCourses } from '../courses/queries.ts';
import { problems } from '../errors.ts';
import { serve } from '../http/serve.ts';
import { isSteward, selectTitle } from '../school/people.ts';
import { selectConnected, type Connected } from './connected.ts';
import { ownAddresses } from './doors.ts';
import { selectDue, sendDue, stateOf } from './grades.ts';
import { listMembers, readMembersThere } from './members.ts';
import { connect, deletePlatform, insertPlatform, selectLaunched } from './queries.ts';
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
    return insertPlatform(db, body);
  });
  serve(router, context, removePlatform, 'own', async ({ person, params }) => {
    await refuseOthers(person.id);
    if (!Id.safeParse(params.platform).success || !(await deletePlatform(db, params.platform)))
      throw problems.notFound();
    return {};
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
  const asking = async <T>(connected: Connected, ask: (service: PlatformService) => Promise<T>): Promise<T> => {
    try {
      return await ask(platformService(db, await selectPlatform(db, connected.platform)));
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
      assignments: [...due].map(([column, some]) => stateOf(column, some)).filter(({ returned }) => returned > 0),
    };
  });

  serve(router, context, listFromPlatform, 'course.set', async ({ params: { course }, body }) => {
    const connected = await connectedTo(course, 'membersAddress');
    const members = await asking(connected, (service) => readMembersThere(service, connected.membersAddress!));
    return listMembers(db, { course, connected, members, bringIn: body.bringIn });
  });

  serve(router, context, sendGrades, 'course.set', async ({ params: { course }, body, person }) => {
    const connected = await connectedTo(course, 'itemsAddress');
    const wanted = async () =>
      [...(await selectDue(db, course, connected, person.id))].find(([{ id }]) => id === body.assignment);
    const found = await wanted();
    if (!found) throw problems.notFound();
    const [column, due] = found;
    const left = await asking(connected, (service) =>
      sendDue(db, service, { connected, column, due, since: body.since }),
    );
    return { left, state: stateOf(...(await wanted())!) };
  });
  return router;
}
