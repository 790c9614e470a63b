import autocannon from 'autocannon';
import { setTimeout as sleep } from 'node:timers/promises';
import { fileURLToPath } from 'node:url';
import { z } from 'zod';
import { Server } from '../../e2e/server.ts';
import { select } from '../../server/db/database.ts';
import { openDatabase } from '../../server/db/open.ts';
import { fromRoot } from '../../server/root.ts';
import { COOKIE, openSession } from '../../server/http/person-of.ts';
import { summary } from './answers.ts';

const STUDENTS = 300;
const SECONDS = 60;
/** Of a remark they begin with: what a browser asks for first. */
const FIRST_BYTES = 'bytes=0-65535';

const Opened = z.object({ person: z.uuid(), submission: z.uuid(), sounds: z.array(z.string()) });
type Opened = z.infer<typeof Opened> & { token: string };

/** A whole school opens its returned work within a minute, on the embedded database: the first page, the work, its remarks, three sounds. */
export async function benchOpening(): Promise<object> {
  let opened: Opened[] = [];
  const server = await Server.start('bench-opening');
  try {
    await server.whileStopped(async (folder) => {
      opened = await addReturnedWorks(folder);
    });
    const cookies = opened.map(({ token }) => `${COOKIE}=${token}`);
    const pages = await cannon(
      server.address,
      opened.map(({ submission }, index) =>
        ['session', 'own-work', 'courses', `submissions/${submission}`, `submissions/${submission}/feedback`].map(
          (path) => asked(path, cookies[index]!),
        ),
      ),
      SECONDS,
    );
    const sounds = await cannon(
      server.address,
      opened.map((one, index) => one.sounds.slice(0, 3).map((path) => asked(path, cookies[index]!, FIRST_BYTES))),
      SECONDS / 2,
    );
    return {
      answers: { ...figures(pages), wanted: 'no error, percentile95 300 or less' },
      sound: { ...figures(sounds), wanted: 'no error, median 30 or less, until the last byte of the first piece' },
    };
  } finally {
    await server.remove();
  }
}

const asked = (path: string, cookie: string, range?: string): autocannon.Request => ({
  method: 'GET',
  path: `/api/${path}`,
  headers: { cookie, ...(range && { range }) },
});

interface Shot {
  times: number[];
  refused: number;
  errors: number;
}

/** All that is asked for, spread evenly over so many seconds: each of several asks once a second, for one student after another. */
async function cannon(url: string, students: autocannon.Request[][], seconds: number): Promise<Shot> {
  const several = Math.ceil(students.flat().length / seconds);
  const share = Math.ceil(students.length / several);
  const shot: Shot = { times: [], refused: 0, errors: 0 };
  const one = async (index: number): Promise<void> => {
    const requests = students.slice(index * share, (index + 1) * share).flat();
    if (requests.length === 0) return;
    await sleep((index * 1000) / several);
    await new Promise<void>((resolve, reject) => {
      const instance = autocannon(
        { url, connections: 1, amount: requests.length, overallRate: 1, requests },
        (error: Error | null) => (error ? reject(error) : resolve()),
      );
      instance.on('response', (_client, status, _bytes, time) => {
        shot.times.push(time);
        if (status >= 400) shot.refused++;
      });
      instance.on('reqError', () => shot.errors++);
    });
  };
  await Promise.all(Array.from({ length: several }, (_, index) => one(index)));
  return shot;
}

const figures = ({ times, refused, errors }: Shot): object => ({ ...summary(times), refused, errors });

/** Students with a way in, each with a copy of a returned work of the sample school and its spoken remarks. */
async function addReturnedWorks(dataFolder: string): Promise<Opened[]> {
  const cacheFolder = fileURLToPath(fromRoot('.cache'));
  const db = await openDatabase({ databaseUrl: undefined, dataFolder, cacheFolder });
  await db.script(`
    create temp table model as select s.* from submissions s join people p on p.id = s.student
      where p.name = 'Amaru Quispe' and s.returned_at is not null limit 1;
    create temp table crowd as select n, gen_random_uuid() as person, gen_random_uuid() as work from generate_series(1, ${STUDENTS}) n;
    insert into people (id, name, login, password_hash) select person, 'Student ' || n, 'crowd' || n, '' from crowd;
    insert into enrolments (course, person, role)
      select a.course, c.person, 'student' from crowd c, model m join assignments a on a.id = m.assignment;
    insert into submissions (id, assignment, student, version, folio, handed_in_at, returned_at, opened_at)
      select c.work, m.assignment, c.person, 1, m.folio, m.handed_in_at, m.returned_at, m.opened_at from crowd c, model m;
    create temp table said as select c.work, c.person, r.id as old, gen_random_uuid() as id, gen_random_uuid() as sound
      from crowd c, remarks r join model m on m.id = r.submission where r.recording is not null and r.put_aside_at is null;
    create temp table sounds as select g.*, s.sound from said s join remarks r on r.id = s.old join recordings g on g.id = r.recording;
    update sounds set id = sound;
    alter table sounds drop column sound;
    insert into recordings select * from sounds;
    create temp table copies as select r.*, s.id as copy, s.work, s.sound from said s join remarks r on r.id = s.old;
    update copies set id = copy, submission = work, recording = sound;
    alter table copies drop column copy, drop column work, drop column sound;
    insert into remarks select * from copies;`);
  const opened = await select(
    db,
    Opened,
    `select c.person, c.work as submission,
       (select jsonb_agg('recordings/' || g.id || '/sound/' || encode(g.medium, 'hex'))
        from remarks r join recordings g on g.id = r.recording where r.submission = c.work) as sounds
     from crowd c order by c.n`,
  );
  const withTokens: Opened[] = [];
  for (const one of opened) withTokens.push({ ...one, token: await openSession(db, one.person) });
  await db.close();
  return withTokens;
}
