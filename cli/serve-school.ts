import { fillSampleSchool, SAMPLE_PASSWORD } from '../demo/fill.ts';
import { loginOf, TEACHERS } from '../demo/people.ts';
import { TERM_COURSE } from '../demo/term.ts';
import type { Database } from '../server/db/database.ts';
import { makeCode } from '../server/joining/codes.ts';
import { connectStandIn, standInCourse } from '../server/platforms/stand-in/connect.ts';
import { startStandIn, type StandIn } from '../server/platforms/stand-in/stand-in.ts';
import { isEmptySchool } from '../server/school/people.ts';
import type { Settings } from '../server/settings.ts';
import { HOW_TO_GET_POCKETSPHINX } from '../server/speech/pocketsphinx.ts';
import { enginesOf } from '../server/speech/speech.ts';
import { startServer, type Running } from '../server/start.ts';
import { refuseSampleSchool } from './refuse-sample.ts';

/** Serves the school of an open database, and tells where. */
export async function serveSchool(db: Database, settings: Settings, sample: boolean): Promise<Running> {
  if (sample) await fillSampleSchool(db);
  else await refuseSampleSchool(db);
  const running = await startServer(db, settings);
  const standIn = sample ? await startPlatform(db, settings, running.address) : undefined;
  say(running.address, standIn?.address);
  if (await isEmptySchool(db)) await tellHowToSetUp(db, running.address);
  if (settings.dictation && enginesOf(settings).length === 0)
    process.stdout.write(
      `No speech engine is installed, so recordings are not written down: ${HOW_TO_GET_POCKETSPHINX}\n`,
    );
  return {
    ...running,
    stop: async () => {
      await standIn?.stop();
      await running.stop();
    },
  };
}

/** The sample school has a learning platform beside it, one port further on. */
async function startPlatform(db: Database, { port }: Settings, tool: string): Promise<StandIn> {
  const course = await standInCourse(db, TERM_COURSE);
  const standIn = await startStandIn({ port: port === 0 ? 0 : port + 1, tool }, [course]);
  await connectStandIn(db, standIn, course);
  return standIn;
}

/** Whoever reads what the server prints may open the school; a new start prints a new address. */
async function tellHowToSetUp(db: Database, address: string): Promise<void> {
  const { code } = await db.transaction((tx) => makeCode(tx, { opens: 'school' }, null));
  process.stdout.write(
    `Nobody is here yet. Set up your school at ${address}/set-up/${code}\nThis address works once.\n`,
  );
}

function say(address: string, platform: string | undefined): void {
  process.stdout.write(`Vivid Margin is ready at ${address}\n`);
  if (platform === undefined) return;
  const [teacher] = TEACHERS.map(loginOf);
  process.stdout.write(
    `This is the sample school. Sign in with one click as any of its people, for example the teacher ${TEACHERS[0]}` +
      ` or the student Amaru Quispe, or by name: ${teacher} or amaru-quispe, password ${SAMPLE_PASSWORD}.\n` +
      `A simulated learning platform is at ${platform}\nStop with Ctrl+C; what you did is kept.\n`,
  );
}
