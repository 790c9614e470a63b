import { strToU8, unzipSync, zipSync } from 'fflate';
import { randomBytes, randomUUID } from 'node:crypto';
import { readFileSync } from 'node:fs';
import { setTimeout as sleep } from 'node:timers/promises';
import type { z } from 'zod';
import { writeWav } from '#core/audio';
import { readOwnWork } from '../../contract/assignments.ts';
import { NO_WORDS } from '../../contract/said.ts';
import { TEACHER } from '../../e2e/school.ts';
import { Server } from '../../e2e/server.ts';
import type { Client } from '../../server/testing/client.ts';
import { firstWaiting, signedIn, summary, timed } from './answers.ts';
import { LightPerson } from './light-person.ts';
import { addManyRemarks, SEARCHES } from './many-remarks.ts';

const MEGABYTE = 1_000_000;
/** Hertz. */
const RATE = 48_000;
const QUIET = 5000;
const WANTED = 'percentile95 100 or less, longest 250 or less';

/** How quickly one person is answered while others do what is heavy, one kind after the other and all at once. */
export async function benchCrowd(): Promise<object> {
  const server = await Server.start('bench-crowd');
  try {
    await server.whileStopped(addManyRemarks);
    const teacher = await signedIn(server.address, TEACHER);
    const student = await signedIn(server.address, 'Amaru Quispe');
    const light = await LightPerson.in(server.address);
    const submission = await firstWaiting(teacher);
    const text = await longText(await signedIn(server.address, 'Farid Noorzai'));
    const [sound, slides] = [recording(), deck()];
    const heavy: Record<string, () => Promise<unknown>> = {
      upload: () => upload(teacher, submission, sound),
      handIn: () => handInDeck(student, slides),
      search: () => searches(teacher, 'the t'),
      longText: () => several(20, () => timed(() => teacher.send('GET', `/submissions/${text}`))),
    };
    const figures: Record<string, object> = { quiet: summary(await light.during(sleep(QUIET))) };
    for (const words of SEARCHES) figures[`search “${words}”`] = await searches(teacher, words);
    for (const [name, work] of Object.entries(heavy)) figures[name] = await beside(light, work());
    figures.tenSearches = await beside(
      light,
      Promise.all(Array.from({ length: 10 }, () => searches(teacher, 'the t'))),
    );
    figures.allAtOnce = await beside(light, Promise.all(Object.values(heavy).map((work) => work())));
    await light.leave();
    return figures;
  } finally {
    await server.remove();
  }
}

async function searches(teacher: Client, words: string): Promise<object> {
  const times: number[] = [];
  for (let time = 0; time < 30; time++)
    times.push(await timed(() => teacher.send('POST', '/search', { body: { words } })));
  return { ...summary(times), wanted: 'percentile95 40 or less' };
}

async function beside(light: LightPerson, work: Promise<unknown>): Promise<object> {
  const begun = performance.now();
  const times = await light.during(work);
  return { ...summary(times), seconds: Math.round((performance.now() - begun) / 100) / 10, wanted: WANTED };
}

async function several(times: number, work: () => Promise<unknown>): Promise<void> {
  for (let time = 0; time < times; time++) await work();
}

/** A recording of 100 MB. */
function recording(): { file: Buffer; duration: number } {
  const header = Buffer.from(writeWav(new Float32Array(), RATE));
  const samples = randomBytes(100 * MEGABYTE);
  header.writeUInt32LE(samples.length, header.length - 4);
  return { file: Buffer.concat([header, samples]), duration: samples.length / 2 / RATE };
}

function upload(
  teacher: Client,
  submission: string,
  { file, duration }: ReturnType<typeof recording>,
): Promise<number> {
  const sound = { duration, peaks: [0, 100], microphone: { type: 'device' } };
  const said = { ...NO_WORDS, recording: { id: randomUUID(), sound } };
  const body = { anchor: { type: 'whole' }, kind: 'next', said };
  return timed(() => teacher.send('PUT', `/submissions/${submission}/remarks/${randomUUID()}`, { body, file }));
}

const assignmentOf = async (student: Client): Promise<string> =>
  ((await student.send('GET', readOwnWork.path)).json as z.infer<typeof readOwnWork.answer>)[0]!.assignment.id;

/** Slides of 20 MB. */
function deck(): Buffer {
  const parts = unzipSync(readFileSync(new URL('../../demo/documents/mirza-hadzic.pptx', import.meta.url)));
  return Buffer.from(zipSync({ ...parts, 'ppt/media/padding.bin': randomBytes(20 * MEGABYTE) }, { level: 0 }));
}

async function handInDeck(student: Client, file: Buffer): Promise<number> {
  const path = `/assignments/${await assignmentOf(student)}/submissions`;
  return timed(() => student.send('POST', path, { file, fileName: 'deck.pptx' }));
}

/** A text of 500,000 characters that has been handed in; answers its id. */
async function longText(student: Client): Promise<string> {
  const sentence = 'The tide went out at nine, and we walked along the wall until somebody called us back.';
  const text = Array.from({ length: Math.ceil(500_000 / 500) }, () => `${sentence} `.repeat(6).slice(0, 498)).join(
    '\n\n',
  );
  const { json } = await student.send('POST', `/assignments/${await assignmentOf(student)}/submissions`, {
    file: Buffer.from(strToU8(text)),
    fileName: 'long.txt',
  });
  return (json as { submission: string }).submission;
}
